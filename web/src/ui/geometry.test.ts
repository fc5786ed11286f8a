import { describe, expect, it, test } from 'vitest';
import type { Drawing, Plan } from '../api/client';
import { footAt, grabbed, near, outline, readingLine, spread } from './geometry';

// A slab of 800 by 2000, square, its foot hinge corner at the origin.
const drawing = {
	corners: [
		[0, 2000],
		[800, 2000],
		[800, 0],
		[0, 0],
	],
} as Drawing;

type Place = Plan['places'][number];
const at = (p: Partial<Place>) =>
	readingLine(drawing, { id: '', side: '', at: 0, from: 0, to: 0, clash: false, next: true, ...p } as Place);

describe('where a reading is taken', () => {
	test('a width runs across at its height', () => {
		expect(at({ kind: 'width', at: 1800 })).toEqual([
			[0, 1800],
			[800, 1800],
		]);
	});
	test('a height stays on the slab, however near the jamb it is read', () => {
		expect(at({ kind: 'height', at: 5 })).toEqual([
			[25, 0],
			[25, 2000],
		]);
	});
	test('a diagonal starts at the foot of its jamb', () => {
		expect(at({ kind: 'diagonal', side: 'hinge' })).toEqual([
			[0, 0],
			[800, 2000],
		]);
		expect(at({ kind: 'diagonal', side: 'lock' })).toEqual([
			[800, 0],
			[0, 2000],
		]);
	});
	test('a gap is one place on the edge of the slab', () => {
		expect(at({ kind: 'gap', side: 'lock', at: 700 })).toEqual([
			[800, 700],
			[800, 700],
		]);
		expect(at({ kind: 'gap', side: 'foot', at: 300 })).toEqual([
			[300, 0],
			[300, 0],
		]);
	});
	test('square is read from the corner along the head', () => {
		const line = at({ kind: 'square', side: 'lock', at: 600 });
		expect(line?.map((p) => p[0])).toEqual([780, 200]);
	});
});

describe('the part of the drawing that a phone shows', () => {
	const whole = { x: -300, y: -200, w: 1400, h: 2500 };
	test('a width stands in the middle of it', () => {
		const b = near(
			whole,
			[
				[0, 1000],
				[800, 1000],
			],
			2,
		);
		expect(b).toEqual({ x: -300, y: 650, w: 1400, h: 700 });
	});
	test('it never leaves the drawing', () => {
		expect(
			near(
				whole,
				[
					[0, 2200],
					[800, 2200],
				],
				2,
			).y,
		).toBe(1600);
		expect(
			near(
				whole,
				[
					[0, 0],
					[800, 0],
				],
				2,
			).y,
		).toBe(-200);
	});
	test('a height is shown from its upper end', () => {
		const b = near(
			whole,
			[
				[400, 0],
				[400, 2000],
			],
			2,
		);
		expect(b.y).toBeCloseTo(2000 - 0.3 * 700 - 350);
		expect(b.y + b.h).toBeGreaterThan(2000);
	});
});

describe('a door swung by hand', () => {
	test('stands where it is held, and no further than it opens', () => {
		expect(grabbed([0, 500], 95)).toBeCloseTo(90);
		expect(grabbed([500, 500], 95)).toBeCloseTo(45);
		expect(grabbed([-500, 100], 95)).toBe(95);
	});
	test('behind the wall it is shut, or right open', () => {
		expect(grabbed([500, -20], 180)).toBe(0);
		expect(grabbed([-500, -20], 170)).toBe(170);
	});
	test('its foot is that of the nearest place', () => {
		const foot = [0, 5, 10].map((angle) => ({ angle, up: angle / 10 }));
		expect(footAt(foot, 7).up).toBe(0.5);
		expect(footAt(foot, 99).angle).toBe(10);
	});
	test('an outline closes', () => {
		expect(
			outline([
				[0, 0],
				[1, 2],
			]),
		).toBe('M0 0L1 2Z');
	});
});

describe('labels that would lie over one another', () => {
	it('are spread about their middle, in their order', () => {
		expect(spread([0, 19, -19], 15)).toEqual([0, 19, -19]);
		expect(spread([0, 4, 8], 10)).toEqual([-6, 4, 14]);
		expect(spread([8, 0, 100], 10)).toEqual([9, -1, 100]);
		// 0 and 2 become -4 and 6, which then touch 12: the three about 14 / 3.
		expect(spread([0, 2, 12], 10).map((v) => Math.round(v * 3))).toEqual([-16, 14, 44]);
	});
});
