// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { around, asks, board, edge, withUnit } from './geometry';

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
	const by = 3 * board.times;
	expect(p).toHaveLength(8);
	expect(p[2]).toEqual([board.x - by, board.y - by]);
	expect(p[4]).toEqual([board.x + board.w - board.times, board.y - by]);
	expect(p[6]?.[1]).toBe(board.y + board.h + by);
	expect(edge('lock', 1)).toEqual({ x: board.x + board.w, y: board.y + board.h / 2, dx: 0, dy: 22 });
	expect(edge('head', 0).y).toBe(board.y);
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
