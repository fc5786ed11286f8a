import { Keyboard } from 'lucide-react';
import { type ReactNode, useId, useRef } from 'react';
import type { Unit } from '../api/client';
import { say } from '../words/texts';
import { coarse, useKeypad } from './keypad';
import { useTaker } from './taker';

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
	/** The part of the opening that it settles, as a JSON pointer. */
	settles?: string;
};

/** Tape is an entry of a length, with the tape keypad where there is no keyboard. */
export function Tape(p: TapeProps) {
	const id = useId();
	const input = useRef<HTMLInputElement>(null);
	const pad = useKeypad(input, { value: p.value, unit: p.unit, type: p.onChange, enter: p.onEnter });
	const held = useTaker(input, { value: p.value, type: p.onChange, enter: p.onEnter, next: p.next });
	const padButton = p.big || coarse();
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
						data-settles={p.settles}
						className="dim grow min-w-0 scroll-mt-12"
						inputMode={pad.wanted ? 'none' : 'text'}
						autoComplete="off"
						autoCapitalize="off"
						spellCheck={false}
						enterKeyHint="next"
						// biome-ignore lint/a11y/noAutofocus: the reading to take is where the hand goes next
						autoFocus={p.autoFocus || (p.next && pad.goesOn)}
						placeholder={p.placeholder}
						value={p.value}
						aria-invalid={!!p.error}
						aria-describedby={p.error ? `${id}-error` : undefined}
						onChange={(e) => p.onChange(e.target.value)}
						onFocus={(e) => {
							held();
							pad.take(e.target);
							e.target.select();
						}}
						onClick={(e) => pad.take(e.currentTarget)}
						onBlur={(e) => {
							pad.leave();
							p.onLeave?.(e.target.value);
						}}
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
						aria-pressed={pad.here}
						title={say('page.tape-keypad')}
						tabIndex={-1}
						onPointerDown={(e) => e.preventDefault()}
						onClick={pad.toggle}
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
		</div>
	);
}
