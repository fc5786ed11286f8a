import { Keyboard } from 'lucide-react';
import { type ReactNode, useId, useRef, useState } from 'react';
import type { Unit } from '../api/client';
import { say } from '../words/texts';
import { useTaker } from './taker';

const coarse = () => matchMedia('(pointer: coarse)').matches;

/** onward moves to the next tape entry, as Enter does on a reading. */
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
	/** Its unit, where it is no length. */
	sign?: string;
	onChange: (text: string) => void;
	onEnter: (text: string) => void;
	onLeave?: (text: string) => void;
	error?: string;
	/** The note of an entry that waits in the queue: nothing is wrong with it. */
	waits?: string;
	big?: boolean;
	placeholder?: string;
	autoFocus?: boolean;
	hideLabel?: boolean;
	note?: ReactNode;
	/** It accepts an instrument's length without focus. */
	next?: boolean;
};

/** Tape is an entry of a length, with the tape keypad where there is no keyboard. */
export function Tape(p: TapeProps) {
	const id = useId();
	const input = useRef<HTMLInputElement>(null);
	const [pad, setPad] = useState(false);
	const held = useTaker(input, { value: p.value, type: p.onChange, enter: p.onEnter, next: p.next });
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
							held();
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
					<span className="opacity-75 text-base">{p.sign ?? p.unit}</span>
				</div>
				{padButton && (
					<button
						type="button"
						className="btn btn-ghost btn-square no-print"
						aria-label={say('page.tape-keypad')}
						data-keypad
						aria-pressed={pad}
						title={say('page.tape-keypad')}
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
			{p.waits && (
				<p role="alert" className="border-l-4 border-info pl-2 text-base mt-1" data-waits>
					{p.waits}
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
