import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import type { Unit } from '../../../api/client';
import { Tape } from '../../../ui/tape';
import { say, type TextId } from '../../../words/texts';
import { useOpening } from '../../state';

type Size = 'width' | 'length' | 'widthMid' | 'widthFoot' | 'lengthLock' | 'square';

/** sizes are the measurements of a slab in the opening; past the first two, only for closer measuring. */
const sizes: { size: Size; field: string; label: TextId }[] = [
	{ size: 'width', field: 'offer-width', label: 'measure.offer-width' },
	{ size: 'length', field: 'offer-length', label: 'measure.offer-length' },
	{ size: 'widthMid', field: 'offer-mid', label: 'slab.width-in-the-middle' },
	{ size: 'widthFoot', field: 'offer-foot', label: 'slab.width-at-the-bottom' },
	{ size: 'lengthLock', field: 'offer-lock', label: 'slab.length-on-the-lock-edge' },
	{ size: 'square', field: 'offer-square', label: 'slab.top-how-much-higher-at' },
];

/** Offers are the placings that gaps were read in: a slab on wedges, or the old door as it hung. */
export function Offers({
	chosen,
	choose,
	old: begins = true,
}: {
	chosen: string;
	choose: (id: string) => void;
	/** Whether the old door comes first. */
	old?: boolean;
}) {
	const { view, save } = useOpening();
	const offers = view.opening.offers ?? [];
	const unit = view.job.unit as Unit;
	const [name, setName] = useState(begins ? say('measure.the-old-door') : say('measure.the-slab'));
	const [old, setOld] = useState(begins);
	const [typed, setTyped] = useState<Partial<Record<Size, string>>>({});
	const [error, attempt] = useAttempt(Object.fromEntries(sizes.map(({ size, label }) => [size, say(label)])));
	const [adding, setAdding] = useState(offers.length === 0 || !chosen);
	const add = async () => {
		const id = `o${offers.length + 1}`;
		await attempt(async () => {
			const given = Object.fromEntries(Object.entries(typed).filter(([, text]) => text));
			const offer = { id, name, width: '', length: '', ...given, ...(old ? { old } : {}) };
			await save(
				[
					offers.length
						? { op: 'add', path: '/offers/-', value: offer }
						: { op: 'add', path: '/offers', value: [offer] },
				],
				say('measure.stood-up-name', { name }),
			);
			choose(id);
			setAdding(false);
		});
	};
	const entry = ({ size, field, label }: (typeof sizes)[number]) => (
		<Tape
			key={size}
			id={field}
			label={say(label)}
			value={typed[size] ?? ''}
			unit={unit}
			onChange={(text) => setTyped({ ...typed, [size]: text })}
			onEnter={
				size === 'width'
					? () => document.querySelector<HTMLElement>('[data-field="offer-length"]')?.focus()
					: add
			}
		/>
	);
	if (!adding)
		return (
			<label>
				<span className="block">{say('measure.what-stood-in-the-opening')}</span>
				<span className="flex gap-2">
					<select
						className="select grow"
						value={chosen}
						onChange={(e) => choose(e.target.value)}
						data-field="other-offer"
					>
						{offers.map((o) => (
							<option key={o.id} value={o.id}>
								{o.name}
							</option>
						))}
					</select>
					<button type="button" className="btn" onClick={() => setAdding(true)}>
						{say('measure.placed-again')}
					</button>
				</span>
			</label>
		);
	return (
		<div className="grid gap-2">
			<p>{say('measure.gaps-read-without-moving-the')}</p>
			{!old && <p className="text-sm opacity-80">{say('measure.too-big-to-go-in')}</p>}
			<label>
				<span className="block">{say('page.what')}</span>
				<input
					className="input w-full text-lg"
					data-field="offer-name"
					value={name}
					onChange={(e) => setName(e.target.value)}
				/>
			</label>
			<fieldset className="flex flex-wrap gap-x-6">
				<legend className="sr-only">{say('measure.which-it-is')}</legend>
				{[true, false].map((is) => (
					<label key={String(is)} className="flex items-center gap-2 min-h-11">
						<input
							type="radio"
							className="radio radio-primary"
							name="offer-old"
							checked={old === is}
							onChange={() => {
								setOld(is);
								setName(is ? say('measure.the-old-door') : say('measure.the-slab'));
							}}
						/>
						{is ? say('measure.the-old-door-as-it') : say('measure.the-slab-that-is-to')}
					</label>
				))}
			</fieldset>
			<div className="grid sm:grid-cols-2 gap-2">{sizes.slice(0, 2).map(entry)}</div>
			<details open={old}>
				<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
					{say('measure.more-sizes-an-old-door')}
				</summary>
				<div className="grid sm:grid-cols-2 gap-2">{sizes.slice(2).map(entry)}</div>
			</details>
			<Said error={error} />
			<button type="button" className="btn" onClick={add} data-field="offer-add">
				{say('measure.it-stands')}
			</button>
		</div>
	);
}
