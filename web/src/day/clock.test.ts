import { expect, test } from 'vitest';
import { byDay, lasts, momentOf, nextOf, numberIn, toClock, toMinute } from './clock';

test('a minute of the day and the clock', () => {
	expect([0, 480, 725, 1020].map(toClock)).toEqual(['00:00', '08:00', '12:05', '17:00']);
	expect(['00:00', '08:00', '12:05:30', '7:15', 'noon', ''].map(toMinute)).toEqual([0, 480, 725, 435, 0, 0]);
});

test('a moment is by this client’s clock', () => {
	expect(momentOf(new Date(2026, 10, 6, 8, 5))).toBe('2026-11-06T08:05');
});

test('entries stand under their days, in their order', () => {
	const e = (date: string, n: number) => ({ date, day: `the ${date}`, n });
	expect(byDay([e('26', 1), e('26', 2), e('27', 3)])).toEqual([
		{ date: '26', day: 'the 26', entries: [e('26', 1), e('26', 2)] },
		{ date: '27', day: 'the 27', entries: [e('27', 3)] },
	]);
});

test('each pair of hands has one task next', () => {
	const e = (id: string, ...who: string[]) => ({ id, who });
	const ids = (list: { id: string }[]) => list.map((x) => x.id);
	expect(ids(nextOf([e('a'), e('b')]))).toEqual(['a']);
	expect(ids(nextOf([e('a', 'Wren'), e('b', 'Wren'), e('c', 'Lark'), e('d', 'Lark', 'Wren')]))).toEqual([
		'a',
		'c',
	]);
	expect(ids(nextOf([e('a', 'Wren', 'Lark'), e('b', 'Lark')]))).toEqual(['a']);
});

test('minutes as they are said', () => {
	expect([20, 60, 167].map(lasts)).toEqual(['20 min', '1 h', '2 h 47']);
});

test('a number as a tired hand types it', () => {
	expect(['4', '4 h', ' 2,5 ', '30min', '1.5', '', 'two'].map(numberIn)).toEqual([
		4,
		4,
		2.5,
		30,
		1.5,
		undefined,
		undefined,
	]);
});
