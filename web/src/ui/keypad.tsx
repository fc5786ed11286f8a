import { ChevronDown } from 'lucide-react';
import {
	type PointerEvent,
	type RefObject,
	useEffect,
	useLayoutEffect,
	useRef,
	useSyncExternalStore,
} from 'react';
import type { Unit } from '../api/client';
import { say } from '../words/texts';

const finger = matchMedia('(pointer: coarse)');

/** coarse reports whether this client is worked by finger. */
export const coarse = () => finger.matches;

/** Entry is an entry that the keypad types into. */
type Entry = {
	input: HTMLInputElement;
	unit: () => Unit;
	value: () => string;
	type: (text: string) => void;
	enter: (text: string) => void;
};

/** The entry of the one keypad, while it is open, and whether it opens where an entry is tapped. */
let at: Entry | null = null;
let wanted: boolean | undefined;
const listeners = new Set<() => void>();

const wants = () => wanted ?? coarse();

function put(entry: Entry | null) {
	if (at === entry) return;
	at = entry;
	for (const f of listeners) f();
}

function subscribe(f: () => void) {
	listeners.add(f);
	return () => listeners.delete(f);
}

/**
 * useKeypad lets the page's one keypad type into an entry. It stays open from one reading to the next: goesOn says that
 * it is open while the entry comes up, which then takes the focus.
 */
export function useKeypad(
	input: RefObject<HTMLInputElement | null>,
	entry: { value: string; unit: Unit; type: (text: string) => void; enter: (text: string) => void },
) {
	const now = useRef(entry);
	now.current = entry;
	const self = useRef<Entry>(null);
	const here = useSyncExternalStore(subscribe, () => at !== null && at === self.current);
	useEffect(
		() => () => {
			// The next reading's entry has the keypad by now, if there is one.
			if (self.current && at === self.current) put(null);
		},
		[],
	);
	const open = (el: HTMLInputElement) => {
		self.current ??= {
			input: el,
			unit: () => now.current.unit,
			value: () => now.current.value,
			type: (text) => now.current.type(text),
			enter: (text) => now.current.enter(text),
		};
		put(self.current);
	};
	return {
		here,
		wanted: wants(),
		goesOn: at !== null,
		take: (el: HTMLInputElement) => (wants() ? open(el) : put(null)),
		leave: () => {
			// A reading that is kept goes, and the next one's entry is about to come.
			if (input.current?.isConnected && document.hasFocus() && at === self.current) put(null);
		},
		toggle: () => {
			wanted = !here;
			if (here) put(null);
			else if (input.current) open(input.current);
			input.current?.focus();
		},
	};
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

/** Keypad is the tape keypad at the foot of the screen: one for the page, for the entry that has the focus. */
export function Keypad() {
	const entry = useSyncExternalStore(subscribe, () => at);
	const box = useRef<HTMLDivElement>(null);
	// What is asked stays in sight: the page ends above the keypad, and the question comes up over it.
	useLayoutEffect(() => {
		const root = document.documentElement;
		root.toggleAttribute('data-keypad-open', !!entry);
		root.style.setProperty('--keypad', `${box.current?.offsetHeight ?? 0}px`);
		// After the browser has brought the entry itself into sight.
		const frame = requestAnimationFrame(() => {
			const question = entry?.input.closest('[data-question]');
			const title = question?.querySelector('h2');
			const room = question?.closest('.door-scroll')?.clientHeight ?? innerHeight;
			// Where all of it does not fit, its name and its entry do.
			if (question && title && question.clientHeight > room)
				title.scrollIntoView({ block: 'start', behavior: 'instant' });
			else (question ?? entry?.input)?.scrollIntoView({ block: 'nearest', behavior: 'instant' });
		});
		return () => cancelAnimationFrame(frame);
	}, [entry]);
	if (!entry) return null;
	const hold = (e: PointerEvent) => e.preventDefault(); // the entry keeps the focus
	const insert = (text: string) => {
		const value = entry.value();
		const [a, b] = [entry.input.selectionStart ?? value.length, entry.input.selectionEnd ?? value.length];
		if (text !== '⌫') entry.type(value.slice(0, a) + text + value.slice(b));
		else entry.type(value.slice(0, a === b ? Math.max(a - 1, 0) : a) + value.slice(b));
		entry.input.focus();
	};
	const key = (label: string, text = label) => (
		<button
			key={label}
			type="button"
			tabIndex={-1}
			className="btn bg-base-100 text-xl px-0 min-h-11 h-11"
			onPointerDown={hold}
			onClick={() => insert(text)}
		>
			{label}
		</button>
	);
	const inches = entry.unit() === 'in';
	return (
		<div
			ref={box}
			data-pad
			className="fixed bottom-0 right-0 w-full sm:max-w-md z-40 bg-base-200 border-t-2 border-[var(--rod-edge)] p-1 grid gap-1 select-none no-print"
			onPointerDown={hold}
		>
			{inches && (
				<div className="grid grid-cols-5 gap-1">
					{sixteenths.map((f) => (
						<button
							key={f}
							type="button"
							tabIndex={-1}
							className="btn bg-base-100 px-0 text-lg frac min-h-11 h-11"
							onPointerDown={hold}
							onClick={() => insert(` ${f}`)}
						>
							{f}
						</button>
					))}
				</div>
			)}
			<div className="grid grid-cols-6 gap-1">
				{['7', '8', '9'].map((d) => key(d))}
				{key('⌫')}
				{key('−', '-')}
				<button
					type="button"
					tabIndex={-1}
					className="btn btn-ghost px-0 min-h-11 h-11"
					aria-label={say('page.close-the-keypad')}
					title={say('page.close-the-keypad')}
					data-close-keypad
					onPointerDown={hold}
					onClick={() => put(null)}
				>
					<ChevronDown size={22} aria-hidden="true" />
				</button>
				{['4', '5', '6'].map((d) => key(d))}
				{inches ? key("'") : key('.5')}
				{key('.')}
				<button
					type="button"
					tabIndex={-1}
					className="btn btn-primary px-0 row-span-2 h-full min-h-11"
					onPointerDown={hold}
					onClick={() => entry.enter(entry.input.value)}
				>
					Enter
				</button>
				{['1', '2', '3'].map((d) => key(d))}
				{key('0')}
				{inches ? key('/') : key(',')}
			</div>
		</div>
	);
}
