import type { Trade } from './api';
import tables from './trade.gen.json';

/** The tables that choices are made from: shipped with the page, so that no failure hides a caution. */
export const trade = tables as Trade;

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
