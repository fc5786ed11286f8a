import { Keyboard } from 'lucide-react';
import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import type { Op, Trouble, Unit } from './api';
import { Said, useAttempt } from './attempt';
import { at, useDoor } from './door-state';

const coarse = () => matchMedia('(pointer: coarse)').matches;

/** onward moves to the next tape entry, as Enter does on a tape reading. */
export function onward(from: HTMLElement) {
	const all = [...document.querySelectorAll<HTMLElement>('[data-tape]')].filter((e) => e.checkVisibility());
	const next = all[all.indexOf(from) + 1];
	(next ?? document.querySelector<HTMLElement>('[data-onward]'))?.focus();
}

type TapeProps = {
	id?: string;
	label: string;
	value: string;
	unit: Unit;
	onChange: (text: string) => void;
	onEnter: (text: string) => void;
	onLeave?: (text: string) => void;
	error?: string;
	big?: boolean;
	placeholder?: string;
	autoFocus?: boolean;
	hideLabel?: boolean;
	note?: ReactNode;
};

/** Tape is where a length is typed, with the tape keypad where there is no keyboard. */
export function Tape(p: TapeProps) {
	const id = useId();
	const input = useRef<HTMLInputElement>(null);
	const [pad, setPad] = useState(false);
	const padButton = p.big || coarse();
	const insert = (text: string) => {
		const el = input.current;
		if (!el) return;
		const [a, b] = [el.selectionStart ?? p.value.length, el.selectionEnd ?? p.value.length];
		if (text === '⌫')
			p.onChange(
				a === b
					? p.value.slice(0, Math.max(a - 1, 0)) + p.value.slice(b)
					: p.value.slice(0, a) + p.value.slice(b),
			);
		else p.onChange(p.value.slice(0, a) + text + p.value.slice(b));
		el.focus();
	};
	return (
		<div className={p.big ? 'text-2xl' : ''}>
			<label htmlFor={id} className={p.hideLabel ? 'sr-only' : 'block text-base mb-1'}>
				{p.label}
			</label>
			<div className="flex gap-2">
				<div
					className={`input ${p.big ? 'input-lg text-3xl h-16' : 'text-xl'} grow ${p.error ? 'input-error border-2' : ''}`}
				>
					<input
						ref={input}
						id={id}
						data-tape
						data-field={p.id}
						className="dim grow min-w-0"
						inputMode={pad ? 'none' : 'text'}
						autoComplete="off"
						autoCapitalize="off"
						spellCheck={false}
						enterKeyHint="next"
						// biome-ignore lint/a11y/noAutofocus: the reading to take is where the hand goes next
						autoFocus={p.autoFocus}
						placeholder={p.placeholder}
						value={p.value}
						aria-invalid={!!p.error}
						aria-describedby={p.error ? `${id}-error` : undefined}
						onChange={(e) => p.onChange(e.target.value)}
						onFocus={(e) => {
							if (coarse()) setPad(true);
							e.target.select();
						}}
						onBlur={(e) => p.onLeave?.(e.target.value)}
						onKeyDown={(e) => {
							if (e.key === 'Enter') {
								e.preventDefault();
								p.onEnter(e.currentTarget.value);
							} else if (e.key === 'Escape') e.currentTarget.blur();
						}}
					/>
					<span className="opacity-75 text-base">{p.unit}</span>
				</div>
				{padButton && (
					<button
						type="button"
						className="btn btn-ghost btn-square no-print"
						aria-label="Tape keypad"
						aria-pressed={pad}
						title="Tape keypad"
						tabIndex={-1}
						onClick={() => {
							setPad(!pad);
							input.current?.focus();
						}}
					>
						<Keyboard size={20} />
					</button>
				)}
			</div>
			{p.note && <div className="text-sm opacity-75 mt-1">{p.note}</div>}
			{p.error && (
				<p id={`${id}-error`} role="alert" className="text-error text-base mt-1 font-semibold">
					{p.error}
				</p>
			)}
			{pad && (
				<Keypad unit={p.unit} insert={insert} enter={() => input.current && p.onEnter(input.current.value)} />
			)}
		</div>
	);
}

const sixteenths = [
	'1/16',
	'1/8',
	'3/16',
	'1/4',
	'5/16',
	'3/8',
	'7/16',
	'1/2',
	'9/16',
	'5/8',
	'11/16',
	'3/4',
	'13/16',
	'7/8',
	'15/16',
];

function Keypad({ unit, insert, enter }: { unit: Unit; insert: (s: string) => void; enter: () => void }) {
	const hold = (e: React.PointerEvent) => e.preventDefault(); // the entry keeps the focus
	const key = (label: string, text = label, wide = '') => (
		<button
			key={label}
			type="button"
			tabIndex={-1}
			className={`btn text-xl px-0 ${wide}`}
			onPointerDown={hold}
			onClick={() => insert(text)}
		>
			{label}
		</button>
	);
	return (
		<div className="mt-2 grid gap-1 select-none">
			{unit === 'in' && (
				<div className="grid grid-cols-5 gap-1">
					{sixteenths.map((f) => (
						<button
							key={f}
							type="button"
							tabIndex={-1}
							className="btn px-0 text-lg frac"
							onPointerDown={hold}
							onClick={() => insert(` ${f}`)}
						>
							{f}
						</button>
					))}
				</div>
			)}
			<div className="grid grid-cols-5 gap-1">
				{['7', '8', '9'].map((d) => key(d))}
				{key('⌫')}
				{key('−', '-')}
				{['4', '5', '6'].map((d) => key(d))}
				{unit === 'in' ? key("'") : key('.5')}
				{key('.')}
				{['1', '2', '3'].map((d) => key(d))}
				{key('0')}
				<button
					type="button"
					tabIndex={-1}
					className="btn btn-primary px-0"
					onPointerDown={hold}
					onClick={enter}
				>
					Enter
				</button>
			</div>
		</div>
	);
}

/** LengthField is one kept length of the opening, saved on Enter and on leaving it. */
export function LengthField({
	pointer,
	label,
	note,
	placeholder,
	optional,
	hideLabel,
	empty,
}: {
	pointer: string;
	label: string;
	note?: ReactNode;
	placeholder?: string;
	/** An emptied field goes back to the default by removing it. */
	optional?: boolean;
	hideLabel?: boolean;
	/** What an emptied field is saved as, where it cannot be removed. */
	empty?: number;
}) {
	const { view, save } = useDoor();
	const kept = view.texts[pointer] ?? '';
	const draftKey = `draft ${view.job.id} ${view.opening.id} ${pointer}`;
	const [text, setText] = useState(() => sessionStorage.getItem(draftKey) ?? kept);
	const [error, setError] = useState('');
	const dirty = text !== kept;
	const last = useRef(kept);
	useEffect(() => {
		// What was kept elsewhere shows, unless something is being typed here.
		const before = last.current;
		if (before !== kept) {
			setText((t) => (t === before ? kept : t));
			last.current = kept;
		}
	}, [kept]);
	const type = (t: string) => {
		setText(t);
		setError('');
		if (t === last.current) sessionStorage.removeItem(draftKey);
		else sessionStorage.setItem(draftKey, t);
	};
	const commit = async (typed: string) => {
		// Enter saves and moves on, and moving on saves: the second finds it done.
		if (typed.trim() === last.current) {
			type(last.current);
			return true;
		}
		let op: Op = { op: 'add', path: pointer, value: typed };
		if (typed.trim() === '' && optional) op = { op: 'remove', path: pointer };
		else if (typed.trim() === '' && empty !== undefined) op = { op: 'add', path: pointer, value: empty };
		try {
			const next = await save([op], `${label} ${typed}`.trim());
			const now = next.texts[pointer] ?? '';
			last.current = now;
			setText(now);
			setError('');
			sessionStorage.removeItem(draftKey);
			return true;
		} catch (e) {
			const t = e as Trouble;
			const here = t.fields?.find((f) => f.pointer === pointer) ?? t.fields?.[0];
			setError(here?.message ?? t.message);
			return false;
		}
	};
	return (
		<Tape
			id={pointer}
			label={label}
			hideLabel={hideLabel}
			value={text}
			unit={view.job.unit as Unit}
			onChange={type}
			error={error}
			note={note}
			placeholder={placeholder}
			onLeave={(t) => dirty && !error && commit(t)}
			onEnter={async (t) => {
				const el = document.activeElement as HTMLElement;
				if (await commit(t)) onward(el);
			}}
		/>
	);
}

/** Choose is one kept choice among a few, each said in words. */
export function Choose<T extends string | number>({
	pointer,
	label,
	options,
	row,
	unset,
}: {
	pointer: string;
	/** What stands for a choice that was never made. */
	unset?: T;
	label: string;
	options: { value: T; text: string; note?: ReactNode }[];
	row?: boolean;
}) {
	const { view, save } = useDoor();
	const [error, attempt] = useAttempt();
	const now = (at(view.opening, pointer) || unset) as T;
	const set = async (o: { value: T; text: string }) => {
		await attempt(async () => {
			await save([{ op: 'add', path: pointer, value: o.value }], `${label}: ${o.text}`);
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
