import { expect, test } from 'vitest';
import type { OpeningView } from '../../../api/client';
import { type Open, openReadings, readingOf } from './open';

const reading = (name: string, more: Partial<Open> = {}) =>
	({
		name,
		kind: 'width',
		side: '',
		at: 1000,
		from: 0,
		to: 0,
		offer: '',
		tool: '',
		turned: false,
		...more,
	}) as Open;

test('what is worth taking comes first, and nothing twice', () => {
	const view = {
		plan: { toRead: [reading('plumb'), reading('width, 1000 mm up')] },
		usual: [reading('width, 1800 mm up'), reading('width, 1000 mm up')],
	} as unknown as OpeningView;
	expect(openReadings(view).map((r) => r.name)).toEqual(['plumb', 'width, 1000 mm up', 'width, 1800 mm up']);
});

test('a reading is kept without what it has not', () => {
	expect(readingOf(reading('width'))).toEqual({ kind: 'width', at: 1000 });
	expect(
		readingOf(reading('level', { kind: 'level', side: 'head', from: 50, turned: true, tool: 'l' })),
	).toEqual({
		kind: 'level',
		side: 'head',
		at: 1000,
		from: 50,
		turned: true,
		tool: 'l',
	});
});
