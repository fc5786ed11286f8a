import { ArrowLeft, Moon, Sun } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Unit } from './api';
import { Sheet } from './sheet';

function readTheme() {
	const kept = localStorage.getItem('theme');
	if (kept === 'day' || kept === 'night') return kept;
	return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

/** Top is the line at the head of every page: where you are, and the taps that are always there. */
export function Top({
	trail,
	unit,
	setUnit,
	children,
}: {
	trail: { to?: string; text: string }[];
	unit?: Unit;
	setUnit?: (u: Unit) => void;
	children?: ReactNode;
}) {
	const [theme, setTheme] = useState(readTheme);
	useEffect(() => {
		document.documentElement.dataset.theme = theme;
		localStorage.setItem('theme', theme);
	}, [theme]);
	useEffect(() => {
		document.title = [...trail.map((t) => t.text).reverse(), 'Kind Margin'].join(' · ');
	}, [trail]);
	return (
		<header className="no-print flex items-center gap-x-3 px-3 sm:px-4 border-b border-base-300 bg-base-100 min-h-14">
			<Link
				to="/"
				className={`font-bold text-lg flex items-center gap-2 min-h-11 shrink-0 ${trail.length > 1 ? 'max-sm:hidden' : ''}`}
				aria-label="Kind Margin: all jobs"
			>
				<img src="/icon.svg" alt="" className="w-7 h-7" />
				<span className="max-md:hidden">Kind Margin</span>
			</Link>
			<nav aria-label="Where you are" className="flex items-center gap-2 min-w-0 grow text-lg">
				{trail.map((t) => (
					<span key={t.text} className="flex items-center gap-2 min-w-0 last:shrink">
						<span className="opacity-50 max-sm:hidden" aria-hidden="true">
							/
						</span>
						{t.to ? (
							<Link
								to={t.to}
								className="link link-hover truncate min-h-11 flex items-center gap-1"
								aria-label={t.text}
							>
								<ArrowLeft size={20} className="sm:hidden" aria-hidden="true" />
								<span className="max-sm:hidden truncate">{t.text}</span>
							</Link>
						) : (
							<span className="truncate font-semibold">{t.text}</span>
						)}
					</span>
				))}
			</nav>
			{children}
			{unit && setUnit && (
				<button
					type="button"
					className="btn btn-ghost px-2"
					onClick={() => setUnit(unit === 'mm' ? 'in' : 'mm')}
					aria-label={`Figures in ${unit}: show them in ${unit === 'mm' ? 'inches' : 'millimetres'}`}
					data-unit={unit}
				>
					<span className={unit === 'mm' ? 'font-bold underline' : 'opacity-60'}>mm</span>
					<span className={unit === 'in' ? 'font-bold underline' : 'opacity-60'}>in</span>
				</button>
			)}
			<button
				type="button"
				className="btn btn-ghost px-2"
				onClick={() => setTheme(theme === 'day' ? 'night' : 'day')}
				aria-label={theme === 'day' ? 'Dark, for the night' : 'Light, for glare'}
				data-theme-button
			>
				{theme === 'day' ? <Moon size={20} /> : <Sun size={20} />}
				<span className="max-xl:hidden">{theme === 'day' ? 'Night' : 'Day'}</span>
			</button>
			<Keys />
		</header>
	);
}

const keys: [string, string][] = [
	['Enter', 'take the entry and go on to the next'],
	['Tab / Shift Tab', 'next or previous place'],
	['Esc', 'leave the entry, so that the keys below work'],
	['1 to 6', 'to a step of the rod, in order'],
	['n', 'to the next reading or the first entry'],
	['w', 'back to the walk'],
	['m', 'figures in mm or in inches'],
	['Ctrl Z', 'undo, also out of an entry that is saved'],
	['Ctrl Y', 'redo'],
	['?', 'this sheet'],
];

function Keys() {
	const [open, setOpen] = useState(false);
	useEffect(() => {
		const down = (e: KeyboardEvent) => {
			if (e.key === '?' && !typing(e)) setOpen(true);
		};
		addEventListener('keydown', down);
		return () => removeEventListener('keydown', down);
	}, []);
	return (
		<>
			<button
				type="button"
				className="btn btn-ghost px-3 max-sm:hidden"
				aria-label="Keys"
				onClick={() => setOpen(true)}
			>
				?
			</button>
			{open && (
				<Sheet label="Keys" close={() => setOpen(false)}>
					<h3 className="text-xl mb-3">Keys</h3>
					<dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
						{keys.map(([k, what]) => (
							<div key={k} className="contents">
								<dt className="font-bold whitespace-nowrap">{k}</dt>
								<dd>{what}</dd>
							</div>
						))}
					</dl>
					<h3 className="text-lg mt-5 mb-1">Lengths, as you write them</h3>
					<p>908 · 908,5 · 90.8 cm · 35 3/4 · 35-3/4" · 2' 11 3/4" · -1/16</p>
				</Sheet>
			)}
		</>
	);
}

/** typing tells whether a key goes into an entry rather than to the page. */
export function typing(e: KeyboardEvent) {
	const el = e.target as HTMLElement;
	const entry =
		el instanceof HTMLInputElement && el.type !== 'radio' && el.type !== 'checkbox' && el.type !== 'range';
	return (
		entry ||
		el instanceof HTMLTextAreaElement ||
		el instanceof HTMLSelectElement ||
		!!document.querySelector('dialog[open]')
	);
}

/** useShownIn keeps which unit a job's figures are shown in. */
export function useShownIn(job: string, unit: Unit): [Unit, (u: Unit) => void] {
	const key = `shown in ${job}`;
	const [shown, set] = useState<Unit | null>(() => localStorage.getItem(key) as Unit | null);
	return [
		shown ?? unit,
		(u) => {
			localStorage.setItem(key, u);
			set(u);
		},
	];
}
