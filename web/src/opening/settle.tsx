import { useEffect } from 'react';
import { useLocation, useNavigate } from 'react-router';
import type { Plan } from '../api/client';
import { say } from '../words/texts';
import { stepName } from '../words/trade';
import { useOpening } from './state';

/** fieldOf finds the field at a JSON pointer, or else what settles the part of the opening that it is in. */
function fieldOf(pointer: string): HTMLElement | null {
	const main = document.querySelector('main');
	if (!main) return null;
	const all = [...main.querySelectorAll<HTMLElement>('[data-field], [name], [data-settles]')];
	const at = (e: HTMLElement) =>
		[e.dataset.field, e.getAttribute('name'), e.dataset.settles].filter(Boolean) as string[];
	for (let p = pointer; p; p = p.slice(0, p.lastIndexOf('/'))) {
		const chosen = all.find(
			(e) => at(e).includes(p) && (!e.matches('[type=radio]') || e.matches(':checked')),
		);
		const found =
			chosen ??
			all.find((e) => at(e).includes(p)) ??
			all.find((e) => at(e).some((x) => x.startsWith(`${p}/`)));
		if (found) return found;
	}
	return null;
}

/** settle puts the focus on the field at a JSON pointer, and opens the disclosures that it is in. */
function settle(pointer: string): boolean {
	const field = fieldOf(pointer);
	if (!field) return false;
	for (let d = field.closest('details'); d; d = d.parentElement?.closest('details') ?? null) d.open = true;
	field.scrollIntoView({ block: 'center', behavior: 'instant' });
	field.focus();
	return true;
}

/** useSettle settles what a page was opened for: the pointer that a key of another step gave it. */
export function useSettle() {
	const { state, pathname } = useLocation();
	const go = useNavigate();
	const pointer = (state as { settle?: string } | null)?.settle;
	useEffect(() => {
		if (!pointer) return;
		// Fields of a choice come up with it.
		const frame = requestAnimationFrame(() => {
			settle(pointer);
			go(pathname, { replace: true, state: null });
		});
		return () => cancelAnimationFrame(frame);
	}, [pointer, pathname, go]);
}

/** SettleKey leads to the field that settles a finding, on whatever step it is. */
export function SettleKey({
	finding: f,
	step,
	to,
}: {
	finding: Plan['findings'][number];
	step: string;
	to: (step: string) => string;
}) {
	const go = useNavigate();
	const { view } = useOpening();
	if (f.gravity === 'note' || !f.pointer || !f.at) return null;
	// A door that hangs already has its sizes on its own first step.
	const at = view.plan.steps.some((s) => s.step === f.at) ? f.at : f.step;
	const here = at === step;
	return (
		<button
			type="button"
			className="btn btn-sm min-h-11 max-lg:min-h-11 no-print mt-1"
			data-settle-at={f.pointer}
			onClick={() => (here ? settle(f.pointer) : go(to(at), { state: { settle: f.pointer } }))}
		>
			{here ? say('door.settle-here') : say('door.settle-at', { step: stepName(at) })}
		</button>
	);
}
