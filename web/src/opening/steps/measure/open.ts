import { useSyncExternalStore } from 'react';
import type { OpeningView } from '../../../api/client';
import { readingID } from '../../reading-id';

/** Open is a reading that is not taken yet. */
export type Open = OpeningView['usual'][number];

/** openReadings are the readings still open: those worth taking, then those that an opening usually gets. */
export function openReadings(view: OpeningView): Open[] {
	const worth = view.plan.toRead;
	return [...worth, ...view.usual.filter((u) => !worth.some((r) => r.name === u.name))];
}

/** readingOf is a reading without its value, as it is kept. */
export function readingOf({ kind, side, at, from, to, offer, tool, turned }: Open) {
	return {
		kind,
		at,
		...(side && { side }),
		...(from && { from }),
		...(to && { to }),
		...(offer && { offer }),
		...(tool && { tool }),
		...(turned && { turned }),
	};
}

/** The reading that was tapped last, by its ID and the page that it was tapped on: another opening has it too. */
let chosen = '';
const listeners = new Set<() => void>();
const here = (id: string) => `${location.pathname} ${id}`;

/** choose asks for a reading, by its ID, before what is worth most: it was tapped in the drawing or in a list. */
export function choose(id: string) {
	chosen = here(id);
	for (const f of listeners) f();
}

/** useChosen is the reading that was tapped last, among some. */
export function useChosen(among: Open[]) {
	const id = useSyncExternalStore(
		(f) => {
			listeners.add(f);
			return () => listeners.delete(f);
		},
		() => chosen,
	);
	return among.find((r) => here(readingID(r)) === id);
}
