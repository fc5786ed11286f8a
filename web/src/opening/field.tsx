import type { ReactNode } from 'react';
import { Said, useAttempt } from '../api/attempt';
import type { Op, Unit } from '../api/client';
import { at } from '../api/pointer';
import { Checkbox } from '../ui/checkbox';
import { onward, Tape } from '../ui/tape';
import { say } from '../words/texts';
import { useKept } from './kept';
import { useOpening } from './state';

/** LengthField is one kept length of the opening, or another quantity, saved on Enter and on blur. */
export function LengthField({
	pointer,
	label,
	note,
	placeholder,
	optional,
	hideLabel,
	empty,
	sign,
}: {
	pointer: string;
	label: string;
	note?: ReactNode;
	placeholder?: string;
	/** An emptied field goes back to the default by removing it. */
	optional?: boolean;
	hideLabel?: boolean;
	/** The value of an emptied field, where it cannot be removed. */
	empty?: number;
	/** Its unit, where it is no length: % or °C. */
	sign?: string;
}) {
	const { view } = useOpening();
	const gone = optional ? 'remove' : empty;
	const { text, type, keep, error, waits, dirty, clash } = useKept(pointer, label, gone);
	return (
		<>
			<Tape
				id={pointer}
				label={label}
				hideLabel={hideLabel}
				value={text}
				unit={view.job.unit as Unit}
				sign={sign}
				onChange={type}
				error={error}
				waits={waits}
				note={note}
				placeholder={placeholder}
				onLeave={(t) => dirty && !error && !waits && keep(t)}
				onEnter={async (t) => {
					const el = document.activeElement as HTMLElement;
					// Do not steal the focus from where it went while this was saved.
					if ((await keep(t)) && document.activeElement === el) onward(el);
				}}
			/>
			{clash && (
				<p className="flex flex-wrap gap-2 items-center mb-2" data-settle={pointer}>
					<button type="button" className="btn" onClick={clash.leave} data-theirs>
						{say('page.keep-theirs', { value: clash.theirs || say('page.nothing') })}
					</button>
					<button type="button" className="btn btn-primary" onClick={clash.keep} data-mine>
						{say('page.use-value', { value: clash.mine || say('page.nothing') })}
					</button>
				</p>
			)}
		</>
	);
}

/** PickField is one kept choice among many. */
export function PickField({
	pointer,
	label,
	options,
	note,
	also = [],
}: {
	pointer: string;
	label: string;
	/** An option with an empty value removes the choice. */
	options: { value: string | number; text: string }[];
	note?: ReactNode;
	/** What is set with it. */
	also?: Op[];
}) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const now = String(at(view.opening, pointer) ?? '');
	return (
		<label className="block mb-2">
			<span className="block mb-1">{label}</span>
			<select
				className="select w-full text-base"
				data-field={pointer}
				value={now}
				onChange={(e) => {
					const o = options.find((o) => String(o.value) === e.target.value);
					if (!o) return;
					attempt(() =>
						save(
							o.value
								? [{ op: 'add', path: pointer, value: o.value }, ...also]
								: [{ op: 'remove', path: pointer }],
							`${label}: ${o.text}`,
						),
					);
				}}
			>
				{options.map((o) => (
					<option key={o.value} value={o.value}>
						{o.text}
					</option>
				))}
			</select>
			{note && <span className="block text-sm opacity-75 mt-1">{note}</span>}
			<Said error={error} />
		</label>
	);
}

/** Choose is one kept choice among a few, each in words. */
export function Choose<T extends string | number>({
	pointer,
	label,
	options,
	row,
	unset,
}: {
	pointer: string;
	/** The option for a choice that was never made. */
	unset?: T;
	label: string;
	/** An option without a value removes the choice. */
	options: { value: T; text: string; note?: ReactNode; remove?: boolean; also?: Op[] }[];
	row?: boolean;
}) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const now = (at(view.opening, pointer) || unset) as T;
	const set = async (o: { value: T; text: string; remove?: boolean; also?: Op[] }) => {
		await attempt(async () => {
			if (o.remove && !at(view.opening, pointer)) return;
			await save(
				o.remove
					? [{ op: 'remove', path: pointer }]
					: [{ op: 'add', path: pointer, value: o.value }, ...(o.also ?? [])],
				`${label}: ${o.text}`,
			);
		});
	};
	return (
		<fieldset className="mb-3">
			<legend className="mb-1">{label}</legend>
			<div className={row ? 'flex flex-wrap gap-x-6' : 'grid'}>
				{options.map((o) => (
					<label key={o.value} className="flex items-center gap-3 min-h-11 cursor-pointer">
						<input
							type="radio"
							className="radio radio-primary"
							name={pointer}
							value={String(o.value)}
							checked={now === o.value}
							onChange={() => set(o)}
						/>
						<span>
							{o.text}
							{o.note && <span className="block text-sm opacity-75">{o.note}</span>}
						</span>
					</label>
				))}
			</div>
			<Said error={error} />
		</fieldset>
	);
}

/** Ticked is a kept yes or no. */
export function Ticked({ pointer, text }: { pointer: string; text: string }) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	return (
		<div>
			<Checkbox
				data-field={pointer}
				checked={!!at(view.opening, pointer)}
				onChange={(e) =>
					attempt(async () => {
						await save(
							[{ op: 'add', path: pointer, value: e.target.checked }],
							`${e.target.checked ? 'yes' : 'no'}: ${text}`,
						);
					})
				}
			>
				{text}
			</Checkbox>
			<Said error={error} />
		</div>
	);
}
