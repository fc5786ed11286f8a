import { expect, test } from 'vitest';
import { around, asks, board, withUnit } from './geometry';

test('the opening lies its light away from the board, inside where it rubs', () => {
	const places = {
		hinge: ['foot', 'middle', 'head'],
		head: ['h', 'm', 'l'],
		lock: ['foot', 'middle', 'head'],
		foot: ['h', 'm', 'l'],
	};
	const gaps = Object.entries(places).flatMap(([side, list]) =>
		list.map((where) => ({ side, where, mm: side === 'lock' ? -1 : 3 })),
	);
	const p = around(gaps);
	expect(p).toHaveLength(12);
	expect(p.slice(0, 3).every(([x]) => x === board.x - 3 * board.times)).toBe(true);
	expect(p.slice(3, 6).every(([, y]) => y === board.y - 3 * board.times)).toBe(true);
	expect(p.slice(6, 9).every(([x]) => x === board.x + board.w - board.times)).toBe(true);
	expect(p[6]?.[1]).toBeLessThan(p[8]?.[1] ?? 0);
});

test('each reading is asked for once', () => {
	expect(new Set(asks.map((a) => a.id)).size).toBe(asks.length);
});

test('a bare figure takes the unit', () => {
	expect(['819', ' 819.5 ', '32 1/4', '82 cm', ''].map((t) => withUnit(t, 'mm'))).toEqual([
		'819 mm',
		'819.5 mm',
		'32 1/4 mm',
		'82 cm',
		'',
	]);
});
