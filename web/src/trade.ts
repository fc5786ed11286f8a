import type { Trade } from './api';
import { type English, wordsOf } from './english';

/** The tables in each English: shipped with the page, so that no failure hides a caution, and one read at a time. */
const tables: Record<English, () => Promise<unknown>> = {
	'en-GB': async () => (await import('./trade.en-GB.gen.json')).default,
	'en-US': async () => (await import('./trade.en-US.gen.json')).default,
};

/** spoken is the English that the page speaks now. */
export let spoken = wordsOf(location.pathname);

/** The tables that choices are made from, in the English that the page speaks. */
export let trade = await read(spoken);

async function read(e: English) {
	const read = (await tables[e]()) as Trade;
	document.documentElement.lang = e;
	return read;
}

/** speak changes the English of the page. What cannot be had without signal leaves it as it was. */
export async function speak(e: English) {
	if (e === spoken) return;
	trade = await read(e);
	spoken = e;
}

/** stepName is what a step of the work is called. */
export function stepName(id: string) {
	return trade.steps.find((s) => s.id === id)?.name ?? id;
}

/** marginName is what the margin at a side is called. */
export function marginName(side: string) {
	return named(trade.margins, side).name;
}

/** placeName is what a place along an edge is called; job files of before have a blank in some. */
export function placeName(place: string) {
	return named(trade.marginPlaces, place.replace(' ', '-')).name;
}

/** named gives a choice by its ID: what it is called, and why one would choose it. */
export function named(list: Trade['registrations'], id: string) {
	return list.find((c) => c.id === id) ?? { id, name: id, why: '' };
}

/** kindOf is what is known of a kind of reading. */
export function kindOf(kind: string) {
	return trade.kinds.find((k) => k.id === kind);
}

/** label picks a place's label for a side. */
export function label(l: { up: string; across: string }, side: string) {
	const upright = side === 'hinge' || side === 'lock';
	return upright || !l.across ? l.up : l.across;
}
