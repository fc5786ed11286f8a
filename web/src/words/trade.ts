import type { Trade } from '../api/client';
import { catalogue } from './catalogue';
import { type Locale, localeOf } from './locale';
import { readTexts, say, type TextId } from './texts';

/** locale is the present locale of the page. */
export let locale = localeOf(location.pathname);

/** The tables of choices, in the locale of the page. */
export let trade = {} as Trade;

let wanted = locale;

/** loadLocale changes the locale of the page. It rejects, and nothing changes, where the tables cannot be loaded. */
export async function loadLocale(l: Locale) {
	wanted = l;
	const [tables, texts] = await catalogue[l]();
	if (l !== wanted) return; // another was asked for meanwhile
	trade = tables?.default as Trade;
	readTexts(l, texts?.default as Record<string, string>);
	locale = l;
	document.documentElement.lang = l;
}

// Without signal a job's locale may not be cached: the other one is better than no page.
await loadLocale(locale).catch(() => loadLocale(locale === 'en-GB' ? 'en-US' : 'en-GB'));

/** stepName is the name of a step. */
export function stepName(id: string) {
	return trade.steps.find((s) => s.id === id)?.name ?? id;
}

/** marginName is the name of the margin at a side. */
export function marginName(side: string) {
	return named(trade.margins, side).name;
}

const edges: Record<string, TextId> = {
	head: 'edge.head',
	hinge: 'edge.hinge',
	lock: 'edge.lock',
	foot: 'edge.foot',
};

/** edgeName is the name of an edge of the slab. */
export function edgeName(side: string) {
	return edges[side] ? say(edges[side]) : side;
}

/** jambName is the name of the jamb on a side. */
export function jambName(side: string) {
	return say(side === 'lock' ? 'jamb.lock' : 'jamb.hinge');
}

/** wallName is the name of a side of the opening. */
export function wallName(side: string) {
	return side === 'head' || side === 'foot' ? say(`wall.${side}`) : jambName(side);
}

/** handName is the name of a hand. */
export function handName(hand: string) {
	return say(hand === 'right' ? 'hand.right' : 'hand.left');
}

/** placeName is the name of a place along an edge; some IDs in older job files have a blank. */
export function placeName(place: string) {
	return named(trade.marginPlaces, place.replace(' ', '-')).name;
}

/** named is an option by its ID: its name, and why one would choose it. */
export function named(list: Trade['registrations'], id: string) {
	return list.find((c) => c.id === id) ?? { id, name: id, why: '' };
}

/** kindOf is the properties of a kind of reading. */
export function kindOf(kind: string) {
	return trade.kinds.find((k) => k.id === kind);
}

/** label picks a place's label for a side. */
export function label(l: { up: string; across: string }, side: string) {
	const upright = side === 'hinge' || side === 'lock';
	return upright || !l.across ? l.up : l.across;
}
