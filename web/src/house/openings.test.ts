import { describe, expect, it, test } from 'vitest';
import type { OpeningRow } from '../api/client';
import { beside, chosenIn, moved, plainly, type Seen, seen, summary } from './openings';

const opening = (id: string, more: Partial<OpeningRow> = {}): OpeningRow => ({
	id,
	version: 1,
	name: id,
	room: '',
	hand: 'left',
	next: 'measure',
	says: 'take a width and a height',
	now: true,
	steps: [],
	stops: [],
	cares: 0,
	slab: '',
	signed: false,
	drawn: false,
	working: false,
	...more,
});
const steps = [
	{ id: 'measure', name: 'Measure' },
	{ id: 'cut', name: 'Cut' },
	{ id: 'try', name: 'Try' },
];
const house = [
	opening('study', { room: 'Hall', next: 'try', says: 'hang it and read the gaps' }),
	opening('bath', {
		room: 'Upper landing',
		next: 'cut',
		now: false,
		stops: ['Two readings clash: 839.5 mm'],
	}),
	opening('attic', { room: 'Hall', next: 'cut', slab: '762 × 1981', cares: 2 }),
	opening('cellar', { next: '', now: false }),
	opening('loft', { next: 'cut', now: false }),
	opening('pantry'),
];
const ids = (s: Partial<Seen>) => seen(house, { ...plainly, ...s }, steps).map((x) => x.opening.id);

describe('what of the walk is looked at', () => {
	it('is all of it, in its order, each with its number', () => {
		expect(ids({})).toEqual(['study', 'bath', 'attic', 'cellar', 'loft', 'pantry']);
		expect(seen(house, { ...plainly, search: 'loft' }, steps)[0]?.number).toBe(5);
	});
	it('is searched by name, room, step, size and doubt, all words of it', () => {
		expect(ids({ search: 'hall' })).toEqual(['study', 'attic']);
		expect(ids({ search: 'HALL cut' })).toEqual(['attic']);
		expect(ids({ search: '839.5' })).toEqual(['bath']);
		expect(ids({ search: '762' })).toEqual(['attic']);
		expect(ids({ search: 'done' })).toEqual(['cellar']);
		expect(ids({ search: 'nowhere' })).toEqual([]);
	});
	it('is filtered by step and by trouble', () => {
		expect(ids({ step: 'cut' })).toEqual(['bath', 'attic', 'loft']);
		expect(ids({ trouble: 'now' })).toEqual(['study', 'attic', 'pantry']);
		expect(ids({ trouble: 'stopped' })).toEqual(['bath']);
		expect(ids({ trouble: 'care' })).toEqual(['attic']);
		expect(ids({ trouble: 'waits' })).toEqual(['loft']);
		expect(ids({ trouble: 'done' })).toEqual(['cellar']);
		expect(ids({ trouble: 'now', step: 'cut' })).toEqual(['attic']);
	});
	it('is ordered by what can be done now, those of one step together', () => {
		expect(ids({ order: 'now' })).toEqual(['pantry', 'attic', 'study', 'bath', 'loft', 'cellar']);
	});
	it('is said in a sentence', () => {
		expect(summary(house)).toBe('6 doors on the walk, 1 done, 3 can go on now, 1 stopped.');
		expect(summary([])).toBe('No door yet.');
		expect(summary([opening('a', { now: false })])).toBe('1 door on the walk.');
	});
});

describe('a door put elsewhere', () => {
	const order = (list: { id: string }[]) => list.map((d) => d.id[0]).join('');
	it('stands before the one named, or at the end', () => {
		expect(order(moved(house, 'cellar', 'study'))).toBe('csbalp');
		expect(order(moved(house, 'study', 'loft'))).toBe('bacslp');
		expect(order(moved(house, 'study', ''))).toBe('baclps');
		expect(order(moved(house, 'study', 'study'))).toBe('sbaclp');
		expect(order(moved(house, 'gone', 'study'))).toBe('sbaclp');
	});
	it('goes one place earlier or later, and not past the ends', () => {
		const by = (id: string, n: -1 | 1) => {
			const before = beside(house, id, n);
			return before === undefined ? 'no' : order(moved(house, id, before));
		};
		expect(by('bath', -1)).toBe('bsaclp');
		expect(by('bath', 1)).toBe('sabclp');
		expect(by('loft', 1)).toBe('sbacpl');
		expect(by('study', -1)).toBe('no');
		expect(by('pantry', 1)).toBe('no');
	});
});

test('an address of now and one of before name their openings', () => {
	expect(chosenIn(new URLSearchParams('openings=a,b'))).toBe('a,b');
	expect(chosenIn(new URLSearchParams('doors=a'))).toBe('a');
	expect(chosenIn(new URLSearchParams(''))).toBe(null);
});
