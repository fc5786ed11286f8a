import type { Op } from './client';
import { at } from './pointer';

/**
 * untouched reports whether a patch still means the same in a document that has changed since: each place that it sets,
 * and each item of a list before it, is as it was.
 */
export function untouched(was: unknown, is: unknown, ops: Op[]): boolean {
	return ops.every((op) => {
		if (op.op === 'test') return same(at(was, op.path), at(is, op.path));
		if (op.path.endsWith('/-')) return true; // at the end of a list there is always room
		const list = /^(.*)\/\d+(?=\/|$)/.exec(op.path)?.[1];
		// Indices shift: the items up to this one must be the same.
		if (list !== undefined && !same(names(at(was, list)), names(at(is, list)))) return false;
		return same(at(was, op.path), at(is, op.path));
	});
}

/** moot reports whether a patch only removes items that are removed already, by ID: asked for twice, it is done. */
export function moot(is: unknown, ops: Op[]): boolean {
	const named = ops.filter((op) => op.op === 'test' && op.path.endsWith('/id'));
	return (
		named.length > 0 &&
		ops.every((op) => op.op === 'remove' || named.includes(op)) &&
		named.every((op) => {
			const list = at(is, op.path.replace(/\/\d+\/id$/, ''));
			return Array.isArray(list) && !list.some((x) => (x as { id?: string }).id === op.value);
		})
	);
}

/** names are a list's items, by ID where they have one. */
const names = (list: unknown) =>
	Array.isArray(list) ? list.map((x) => (x as { id?: string } | null)?.id ?? x) : list;

const same = (a: unknown, b: unknown) => JSON.stringify(sorted(a)) === JSON.stringify(sorted(b));

function sorted(v: unknown): unknown {
	if (Array.isArray(v)) return v.map(sorted);
	if (v && typeof v === 'object')
		return Object.fromEntries(
			Object.entries(v)
				.sort(([a], [b]) => (a < b ? -1 : 1))
				.map(([k, x]) => [k, sorted(x)]),
		);
	return v;
}
