import { describe, expect, it } from 'vitest';
import type { Op } from './client';
import { moot, untouched } from './rebase';

const opening = {
	room: 'Hall',
	slab: { width: 826 },
	readings: [
		{ id: 'r1', value: 826 },
		{ id: 'r2', value: 827 },
	],
	hinges: { pockets: [163, 1718] },
};
const set = (path: string, value: unknown = 1): Op[] => [{ op: 'add', path, value }];

describe('a change made from an older state', () => {
	it('holds where another place was changed', () => {
		expect(untouched(opening, { ...opening, room: 'Loft' }, set('/slab/width'))).toBe(true);
		expect(
			untouched(
				opening,
				{ ...opening, readings: [...opening.readings, { id: 'r3', value: 1 }] },
				set('/readings/-'),
			),
		).toBe(true);
		expect(untouched(opening, { slab: { width: 826 }, readings: [], room: 'Hall' }, set('/slab/width'))).toBe(
			true,
		);
	});
	it('does not where the same place was', () => {
		expect(untouched(opening, { ...opening, slab: { width: 828 } }, set('/slab/width'))).toBe(false);
		expect(untouched(opening, { ...opening, slab: {} }, set('/slab/width'))).toBe(false);
	});
	it('does not where the list has shifted, or holds another thing there', () => {
		const shifted = { ...opening, readings: [opening.readings[1]] };
		expect(untouched(opening, shifted, set('/readings/0/value'))).toBe(false);
		expect(
			untouched(opening, { ...opening, hinges: { pockets: [160, 1718] } }, set('/hinges/pockets/1')),
		).toBe(false);
		const corrected = { ...opening, readings: [{ id: 'r1', value: 830 }, opening.readings[1]] };
		expect(untouched(opening, corrected, set('/readings/1/value'))).toBe(true);
		expect(untouched(opening, corrected, set('/readings/0/value'))).toBe(false);
	});
	it('holds to what it tests', () => {
		const test: Op[] = [{ op: 'test', path: '/readings/0/id', value: 'r1' }];
		expect(untouched(opening, opening, test)).toBe(true);
		expect(untouched(opening, { ...opening, readings: [] }, test)).toBe(false);
	});
});

describe('a thing that is taken off twice', () => {
	const off = (i: number, id: string): Op[] => [
		{ op: 'test', path: `/readings/${i}/id`, value: id },
		{ op: 'remove', path: `/readings/${i}` },
	];
	it('is off already where its ID is gone, whatever stands at its place', () => {
		expect(moot({ readings: [{ id: 'r2' }] }, off(0, 'r1'))).toBe(true);
		expect(moot({ readings: [] }, off(0, 'r1'))).toBe(true);
	});
	it('is not where it has only moved, or where more is changed', () => {
		expect(moot({ readings: [{ id: 'r0' }, { id: 'r1' }] }, off(0, 'r1'))).toBe(false);
		expect(moot(opening, set('/room', 'Loft'))).toBe(false);
		expect(moot({ readings: [] }, [...off(0, 'r1'), ...set('/room', 'Loft')])).toBe(false);
	});
});
