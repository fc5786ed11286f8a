import { describe, expect, it } from 'vitest';
import type { Op } from './client';
import { moot, untouched } from './rebase';

const door = {
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
		expect(untouched(door, { ...door, room: 'Loft' }, set('/slab/width'))).toBe(true);
		expect(
			untouched(door, { ...door, readings: [...door.readings, { id: 'r3', value: 1 }] }, set('/readings/-')),
		).toBe(true);
		expect(untouched(door, { slab: { width: 826 }, readings: [], room: 'Hall' }, set('/slab/width'))).toBe(
			true,
		);
	});
	it('does not where the same place was', () => {
		expect(untouched(door, { ...door, slab: { width: 828 } }, set('/slab/width'))).toBe(false);
		expect(untouched(door, { ...door, slab: {} }, set('/slab/width'))).toBe(false);
	});
	it('does not where the list has shifted, or holds another thing there', () => {
		const shifted = { ...door, readings: [door.readings[1]] };
		expect(untouched(door, shifted, set('/readings/0/value'))).toBe(false);
		expect(untouched(door, { ...door, hinges: { pockets: [160, 1718] } }, set('/hinges/pockets/1'))).toBe(
			false,
		);
		const corrected = { ...door, readings: [{ id: 'r1', value: 830 }, door.readings[1]] };
		expect(untouched(door, corrected, set('/readings/1/value'))).toBe(true);
		expect(untouched(door, corrected, set('/readings/0/value'))).toBe(false);
	});
	it('holds to what it tests', () => {
		const test: Op[] = [{ op: 'test', path: '/readings/0/id', value: 'r1' }];
		expect(untouched(door, door, test)).toBe(true);
		expect(untouched(door, { ...door, readings: [] }, test)).toBe(false);
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
		expect(moot(door, set('/room', 'Loft'))).toBe(false);
		expect(moot({ readings: [] }, [...off(0, 'r1'), ...set('/room', 'Loft')])).toBe(false);
	});
});
