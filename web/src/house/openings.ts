import type { OpeningRow } from '../api/client';
import { say, type TextId } from '../words/texts';

/** Seen is the filter and the order of a walk. */
export type Seen = {
	/** Words that must all be in an opening's name, room, step or what stops it. */
	search: string;
	/** The next step; empty for any. */
	step: string;
	/** Its trouble; empty for any. */
	trouble: '' | Trouble;
	order: 'walk' | 'now';
};

export type Trouble = 'now' | 'stopped' | 'care' | 'waits' | 'done';

export const plainly: Seen = { search: '', step: '', trouble: '', order: 'walk' };

/** troubles are what an opening can be filtered by. */
export const troubles: { id: Trouble; name: TextId }[] = [
	{ id: 'now', name: 'walk.trouble-now' },
	{ id: 'stopped', name: 'walk.trouble-stopped' },
	{ id: 'care', name: 'walk.trouble-care' },
	{ id: 'waits', name: 'walk.trouble-waits' },
	{ id: 'done', name: 'walk.trouble-done' },
];

const is: Record<Trouble, (d: OpeningRow) => boolean> = {
	now: (d) => d.now,
	stopped: (d) => d.stops.length > 0,
	care: (d) => d.cares > 0,
	waits: (d) => d.next !== '' && !d.now && d.stops.length === 0,
	done: (d) => d.next === '' && !d.working,
};

/** seen are the filtered openings, in order, each with its number on the walk. */
export function seen(
	openings: OpeningRow[],
	s: Seen,
	steps: { id: string; name: string }[],
): { opening: OpeningRow; number: number }[] {
	const name = new Map(steps.map((x) => [x.id, x.name]));
	const place = new Map(steps.map((x, i) => [x.id, i]));
	const words = s.search.toLowerCase().split(/\s+/).filter(Boolean);
	const list = openings
		.map((opening, i) => ({ opening, number: i + 1 }))
		.filter(({ opening: d }) => {
			if (s.step && d.next !== s.step) return false;
			if (s.trouble && !is[s.trouble](d)) return false;
			if (words.length === 0) return true;
			const text = [d.name, d.room, name.get(d.next) ?? 'done', d.says, d.slab, ...d.stops]
				.join('\n')
				.toLowerCase();
			return words.every((w) => text.includes(w));
		});
	if (s.order === 'now') {
		// What can be worked on comes first, grouped by step, so that one set-up does for all of them.
		const rank = ({ opening: d }: { opening: OpeningRow }) =>
			d.next === '' ? 1000 : (d.now ? 0 : 100) + (place.get(d.next) ?? 0);
		list.sort((a, b) => rank(a) - rank(b) || a.number - b.number);
	}
	return list;
}

/** moved is a walk with one opening moved before another; to the end where none is named. */
export function moved<T extends { id: string }>(openings: T[], id: string, before: string): T[] {
	const opening = openings.find((d) => d.id === id);
	if (!opening || id === before) return openings;
	const rest = openings.filter((d) => d.id !== id);
	const at = rest.findIndex((d) => d.id === before);
	return at < 0 ? [...rest, opening] : [...rest.slice(0, at), opening, ...rest.slice(at)];
}

/** beside is the ID to insert before, so that the opening moves by one place; undefined where it cannot. */
export function beside<T extends { id: string }>(openings: T[], id: string, by: -1 | 1): string | undefined {
	const at = openings.findIndex((d) => d.id === id);
	const to = at + by;
	if (at < 0 || to < 0 || to >= openings.length) return undefined;
	return by < 0 ? (openings[to]?.id ?? '') : (openings[to + 1]?.id ?? '');
}

/** summary is the house in a sentence. */
export function summary(openings: OpeningRow[]): string {
	if (openings.length === 0) return say('walk.no-door-yet');
	const n = (count: number) => count.toLocaleString('en');
	const count = (t: Trouble) => openings.filter(is[t]).length;
	const said = [say('walk.doors-on-the-walk', { count: openings.length, doors: n(openings.length) })];
	if (count('done')) said.push(say('walk.doors-done', { doors: n(count('done')) }));
	if (count('now')) said.push(say('walk.doors-can-go-on-now', { doors: n(count('now')) }));
	if (count('stopped')) said.push(say('walk.doors-stopped', { doors: n(count('stopped')) }));
	return `${said.join(', ')}.`;
}

/** chosenIn are the IDs of the openings that an address names; older bookmarks call them doors. */
export const chosenIn = (query: URLSearchParams) => query.get('openings') ?? query.get('doors');
