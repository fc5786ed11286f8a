import { ArrowLeft, Moon, Sun } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { Unit } from '../api/client';
import { say } from '../words/texts';
import { KeysDialog } from './keys';
import { ToolButton } from './toolbutton';

/** readTheme is the chosen theme, otherwise the system's. */
export function readTheme() {
	const kept = localStorage.getItem('theme');
	if (kept === 'day' || kept === 'night') return kept;
	return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

/** Top is the line at the head of every page: where you are, and the buttons that are always there. */
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
		<header className="no-print flex items-center gap-x-0 sm:gap-x-3 px-2 sm:px-4 border-b border-base-300 bg-base-100 min-h-14">
			<Link
				to="/"
				className={`font-bold text-lg flex items-center justify-center gap-2 min-h-11 min-w-11 shrink-0 ${trail.length > 1 ? 'max-sm:hidden' : ''}`}
			>
				<img src="/icon.svg" alt="" className="w-7 h-7" />
				<span className="max-md:sr-only">Kind Margin</span>
				<span className="sr-only">{say('page.to-all-jobs')}</span>
			</Link>
			<nav aria-label={say('page.where-you-are')} className="flex items-center gap-2 min-w-0 grow text-lg">
				{trail.map((t) => (
					<span key={t.text} className="flex items-center gap-2 min-w-0 last:shrink">
						<span className="max-sm:hidden" aria-hidden="true">
							/
						</span>
						{t.to ? (
							<Link
								to={t.to}
								className="link link-hover truncate max-sm:shrink-0 min-h-11 max-sm:min-w-11 max-sm:justify-center flex items-center gap-1"
							>
								<ArrowLeft size={20} className="sm:hidden shrink-0" aria-hidden="true" />
								<span className="max-sm:sr-only truncate">{t.text}</span>
							</Link>
						) : (
							<span className="truncate font-semibold">{t.text}</span>
						)}
					</span>
				))}
			</nav>
			{children}
			{unit && setUnit && (
				<ToolButton onClick={() => setUnit(unit === 'mm' ? 'in' : 'mm')} data-unit={unit}>
					<span className={unit === 'mm' ? 'font-bold underline' : 'font-normal'}>mm</span>{' '}
					<span className={unit === 'in' ? 'font-bold underline' : 'font-normal'}>in</span>
					<span className="sr-only">{say(unit === 'mm' ? 'page.in-millimetres' : 'page.in-inches')}</span>
				</ToolButton>
			)}
			<ToolButton onClick={() => setTheme(theme === 'day' ? 'night' : 'day')} data-theme-button>
				{theme === 'day' ? <Moon size={20} aria-hidden="true" /> : <Sun size={20} aria-hidden="true" />}
				<span className="max-xl:sr-only">{theme === 'day' ? say('page.night') : say('page.day')}</span>
				<span className="sr-only">: {say(theme === 'day' ? 'page.dark' : 'page.light-for-glare')}</span>
			</ToolButton>
			<KeysDialog page={trail.length > 1 ? 'opening' : trail.length ? 'walk' : 'jobs'} />
		</header>
	);
}

/** useShownIn keeps the unit in which a job's figures are shown. */
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
