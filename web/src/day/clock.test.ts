import { expect, test } from 'vitest';
import { byDay, momentOf, toClock, toMinute } from './clock';

test('a minute of the day and the clock', () => {
	expect([0, 480, 725, 1020].map(toClock)).toEqual(['00:00', '08:00', '12:05', '17:00']);
	expect(['00:00', '08:00', '12:05:30', '7:15', 'noon', ''].map(toMinute)).toEqual([0, 480, 725, 435, 0, 0]);
});

test('a moment is by this device’s clock', () => {
	expect(momentOf(new Date(2026, 10, 6, 8, 5))).toBe('2026-11-06T08:05');
});

test('entries stand under their days, in their order', () => {
	const e = (date: string, n: number) => ({ date, day: `the ${date}`, n });
	expect(byDay([e('26', 1), e('26', 2), e('27', 3)])).toEqual([
		{ date: '26', day: 'the 26', entries: [e('26', 1), e('26', 2)] },
		{ date: '27', day: 'the 27', entries: [e('27', 3)] },
	]);
});
