import { useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import type { Plan } from '../../api/client';
import { say, type TextId } from '../../words/texts';
import { stepName } from '../../words/trade';

const states: Record<string, TextId> = {
	done: 'door.state-done',
	open: 'door.state-open',
	waits: 'door.state-waits',
	changed: 'door.state-changed',
};

/** stateName is the name of a step's state. */
function stateName(state: string) {
	return states[state] ? say(states[state]) : state;
}

/** Notch is one step's mark: cut through when done, a pencil line when open, broken when its inputs changed. */
function Notch({ state }: { state: string }) {
	return (
		<svg viewBox="0 0 30 22" className="w-7 h-5 shrink-0" aria-hidden="true">
			{state === 'done' && <path d="M0 3 L22 8 L22 14 L0 19 Z" fill="var(--rod-ink)" />}
			{state === 'open' && (
				<path d="M0 4 L20 9 L20 13 L0 18" fill="none" stroke="var(--rod-ink)" strokeWidth="2.5" />
			)}
			{state === 'waits' && (
				<path d="M0 11 H18" stroke="var(--rod-ink)" strokeWidth="2" strokeDasharray="3 4" />
			)}
			{state === 'changed' && (
				<>
					<path d="M0 3 L22 8 L22 14 L0 19 Z" fill="var(--rod-ink)" />
					<path d="M12 0 L18 10 L12 12 L20 22" stroke="var(--color-error)" strokeWidth="3.5" fill="none" />
				</>
			)}
		</svg>
	);
}

/** Rod is the strip of steps, drawn as a story rod. */
export function Rod({ to, steps }: { to: (step: string) => string; steps: Plan['steps'] }) {
	const here = useRef<HTMLElement>(null);
	const { pathname } = useLocation();
	// What floats over the page stays clear of the strip.
	useEffect(() => {
		const root = document.documentElement;
		root.toggleAttribute('data-strip', true);
		return () => void root.removeAttribute('data-strip');
	}, []);
	// biome-ignore lint/correctness/useExhaustiveDependencies: the step in hand is another on another page
	useEffect(() => {
		// On a phone the strip is longer than the screen: it scrolls to the step in hand.
		const rod = here.current;
		const step = rod?.querySelector<HTMLElement>('[aria-current]');
		if (rod && step) rod.scrollLeft = step.offsetLeft - (rod.clientWidth - step.clientWidth) / 2;
	}, [pathname]);
	return (
		<nav
			ref={here}
			aria-label={say('door.steps')}
			data-rod
			className="no-print flex lg:flex-col shrink-0 max-lg:order-last max-lg:overflow-x-auto z-10 lg:w-32 border-[var(--rod-edge)] max-lg:border-t-4 lg:border-x-4"
			style={{ background: 'var(--rod)', color: 'var(--rod-ink)' }}
		>
			{steps.map((n, i) => (
				<NavLink
					key={n.step}
					to={to(n.step)}
					data-step={n.step}
					data-state={n.state}
					className={({ isActive }) =>
						`relative grow lg:grow-0 lg:basis-24 flex lg:flex-row flex-col items-center justify-center lg:justify-start lg:gap-2 min-h-14 max-lg:min-w-13 max-lg:text-sm max-[23rem]:text-[0.7rem] max-[23rem]:tracking-tighter ${isActive ? 'font-bold' : ''}`
					}
				>
					{({ isActive }) => (
						<>
							<Notch state={n.state} />
							<span className="leading-tight">
								{stepName(n.step)}
								<span className="hidden lg:block text-xs font-normal">{i + 1}</span>
								<span className="sr-only">
									: {stateName(n.state)}. {n.says}
								</span>
							</span>
							{isActive && (
								<svg
									viewBox="0 0 40 12"
									className="absolute lg:-right-3 lg:top-1/2 lg:-translate-y-1/2 max-lg:top-[-10px] max-lg:rotate-90 w-10 h-3"
									aria-hidden="true"
								>
									<path d="M0 6 L10 1 H38 V11 H10 Z" fill="var(--rod-ink)" />
									<path d="M0 6 L10 1 V11 Z" fill="var(--light)" />
								</svg>
							)}
						</>
					)}
				</NavLink>
			))}
		</nav>
	);
}
