import { afterEach, describe, expect, it } from 'vitest';
import { enter, hold, register, type Taker } from './instrument';

const gone: (() => void)[] = [];
afterEach(() => {
	for (const off of gone.splice(0)) off();
});

const entry = (next = false) => {
	const took: string[] = [];
	const e = { text: '', took, taker: {} as Taker };
	e.taker = { typed: () => e.text, take: (t) => took.push(t), next };
	gone.push(register(e.taker));
	return e;
};

// Each test's instrument has a name of its own, as two speak apart.
describe('a length of an instrument', () => {
	it('goes into the entry that waits', () => {
		entry();
		const waits = entry(true);
		expect(enter({ id: 'a', text: '826 mm', from: 'tape' })).toBe(true);
		expect(waits.took).toEqual(['826 mm']);
	});
	it('goes into the one in hand rather than the one that waits', () => {
		const waits = entry(true);
		const own = entry();
		hold(own.taker);
		expect(enter({ id: 'a', text: '12 mm', from: 'tape' }, true)).toBe(true);
		expect(own.took).toEqual(['12 mm']);
		expect(waits.took).toEqual([]);
	});
	it('does not where nothing takes it, or the entry in hand is gone', () => {
		expect(enter({ id: 'a', text: '12 mm', from: 'tape' }, true)).toBe(false);
		const own = entry();
		hold(own.taker);
		for (const off of gone.splice(0)) off();
		expect(enter({ id: 'a', text: '12 mm', from: 'tape' }, true)).toBe(false);
		expect(own.took).toEqual([]);
	});
	it('does not where something is typed, or another one has only just spoken', () => {
		const e = entry(true);
		e.text = '8';
		expect(enter({ id: 'a', text: '826 mm', from: 'tape' })).toBe(false);
		e.text = '';
		expect(enter({ id: 'b', text: '826 mm', from: 'tape' })).toBe(true);
		expect(enter({ id: 'c', text: '30 mm', from: 'caliper' })).toBe(false);
		expect(enter({ id: 'c', text: '30 mm', from: 'caliper' }, true)).toBe(true);
		expect(e.took).toEqual(['826 mm', '30 mm']);
	});
});
