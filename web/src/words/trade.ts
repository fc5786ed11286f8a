import type { Trade } from '../api/client';
import { catalogue } from './catalogue';
import { type Locale, localeOf } from './locale';
import { readTexts, say, type TextId } from './texts';

/** locale is that of the page now. */
export let locale = localeOf(location.pathname);

/** The tables that choices are made from, in the locale of the page. */
export let trade = {} as Trade;

let wanted = locale;

/** loadLocale changes the locale of the page. It rejects, and nothing changes, where the tables cannot be had. */
export async function loadLocale(l: Locale) {
	wanted = l;
	const [tables, texts] = await catalogue[l]();
	if (l !== wanted) return; // another was asked for meanwhile
	trade = tables?.default as Trade;
	readTexts(l, texts?.default as Record<string, string>);
	locale = l;
	document.documentElement.lang = l;
}

// Without signal the locale of a job may never have been loaded here: the other one is better than no page.
await loadLocale(locale).catch(() => loadLocale(locale === 'en-GB' ? 'en-US' : 'en-GB'));

/** stepName is what a step of the work is called. */
export function stepName(id: string) {
	return trade.steps.find((s) => s.id === id)?.name ?? id;
}

/** marginName is what the margin at a side is called. */
export function marginName(side: string) {
	return named(trade.margins, side).name;
}

const edges: Record<string, TextId> = {
	head: 'edge.head',
	hinge: 'edge.hinge',
	lock: 'edge.lock',
	foot: 'edge.foot',
};

/** edgeName is what an edge of the slab is called. */
export function edgeName(side: string) {
	return edges[side] ? say(edges[side]) : side;
}

/** jambName is what the jamb on a side is called. */
export function jambName(side: string) {
	return say(side === 'lock' ? 'jamb.lock' : 'jamb.hinge');
}

/** wallName is what a side of the opening is called. */
export function wallName(side: string) {
	return side === 'head' || side === 'foot' ? say(`wall.${side}`) : jambName(side);
}

/** handName is what the hand that the hinges are on is called. */
export function handName(hand: string) {
	return say(hand === 'right' ? 'hand.right' : 'hand.left');
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
