import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { Checkbox } from '../../../ui/checkbox';
import { say } from '../../../words/texts';
import { useOpening } from '../../state';
import { Missed } from '../lock/form';
import { Stand } from '../stops/form';

/** Sights are what is seen of a hung slab beside its gaps. */
export function Sights() {
	const { view, leaf, which, save } = useOpening();
	const [error, attempt] = useAttempt();
	const [angle, setAngle] = useState('');
	const k = (leaf.try?.hangs.length ?? 1) - 1;
	const hang = view.opening.tried?.[which - 1]?.hangs[k];
	if (!hang) return null;
	const at = `/tried/${which - 1}/hangs/${k}`;
	const put = (field: string, value: unknown, label: string) =>
		attempt(async () => {
			const empty = value === false || value === '' || (Array.isArray(value) && value.length === 0);
			if (empty && !(hang as Record<string, unknown>)[field]) return;
			await save(
				[empty ? { op: 'remove', path: `${at}/${field}` } : { op: 'add', path: `${at}/${field}`, value }],
				label,
			);
		});
	const flip = (field: 'springs' | 'rattles', text: string) => (
		<Checkbox data-seen={field} checked={!!hang[field]} onChange={(e) => put(field, e.target.checked, text)}>
			{text}
		</Checkbox>
	);
	const proud = hang.proud ?? [];
	const drags = hang.drags ?? [];
	return (
		<details
			className="mb-4"
			open={!!(hang.springs || hang.drifts || hang.rattles || proud.length || drags.length)}
		>
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="seen-open">
				{say('try.what-else-is-seen')}
			</summary>
			{flip('springs', say('try.springs-back-as-it-shuts'))}
			{flip('rattles', 'rattles')}
			<fieldset className="flex flex-wrap items-center gap-x-5">
				<legend className="sr-only">{say('try.left-half-open-it')}</legend>
				{[
					['', say('page.stays-where-it-is-left')],
					['open', say('try.drifts-open')],
					['shut', say('try.drifts-shut')],
				].map(([id = '', text = '']) => (
					<label key={id} className="flex items-center gap-3 min-h-11 cursor-pointer">
						<input
							type="radio"
							className="radio radio-primary"
							name="drifts"
							checked={(hang.drifts ?? '') === id}
							onChange={() => put('drifts', id, text)}
						/>
						{text}
					</label>
				))}
			</fieldset>
			{leaf.try?.hinges.map((name, i) => (
				<Checkbox
					key={name}
					checked={proud.includes(i)}
					onChange={(e) =>
						put(
							'proud',
							e.target.checked ? [...proud, i] : proud.filter((p) => p !== i),
							say('try.light-behind-the-name', { name }),
						)
					}
				>
					{say('try.light-behind-the-name-s', { name })}
				</Checkbox>
			))}
			<form
				className="flex items-end gap-2 my-1"
				onSubmit={(e) => {
					e.preventDefault();
					const a = Math.round(Number(angle));
					if (a > 0) put('drags', [...drags, a], say('try.drags-at-angle', { angle: a }));
					setAngle('');
				}}
			>
				<label>
					<span className="block">{say('try.drags-on-the-floor-at')}</span>
					<input
						className="input w-24 text-xl dim"
						inputMode="numeric"
						data-field="drags"
						value={angle}
						onChange={(e) => setAngle(e.target.value)}
					/>
				</label>
				<button type="submit" className="btn">
					{say('page.note-it')}
				</button>
				{drags.map((d) => (
					<button
						key={d}
						type="button"
						className="btn btn-ghost"
						onClick={() =>
							put(
								'drags',
								drags.filter((x) => x !== d),
								say('try.no-longer-drags-at-angle', { angle: d }),
							)
						}
					>
						{d}° ×<span className="sr-only"> {say('try.take-drag-away')}</span>
					</button>
				))}
			</form>
			<Said error={error} />
			<div className="grid gap-2 mt-2">
				<Stand />
				<Missed />
			</div>
		</details>
	);
}
