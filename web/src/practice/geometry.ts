import { say } from '../words/texts';
import { jambName } from '../words/trade';

export type Gap = { side: string; where: string; mm: number };

/** The board in the picture, and the magnification of the gaps. */
export const board = { x: 70, y: 60, w: 180, h: 400, times: 7 };

/**
 * around is the outline of the opening round the board, by its gaps: corners and middles of its sides, from the foot of
 * the hinge side up and round. A negative gap is inside the board.
 */
export function around(gaps: Gap[]): [number, number][] {
	const { x, y, w, h, times } = board;
	const of = (side: string, i: number) => (gaps.filter((g) => g.side === side)[i]?.mm ?? 0) * times;
	return [
		[x - of('hinge', 0), y + h + of('foot', 0)],
		[x - of('hinge', 1), y + h / 2],
		[x - of('hinge', 2), y - of('head', 0)],
		[x + w / 2, y - of('head', 1)],
		[x + w + of('lock', 2), y - of('head', 2)],
		[x + w + of('lock', 1), y + h / 2],
		[x + w + of('lock', 0), y + h + of('foot', 2)],
		[x + w / 2, y + h + of('foot', 1)],
	];
}

/** edge is a gap's place on the board's edge: its middle, and the direction. */
export function edge(side: string, i: number): { x: number; y: number; dx: number; dy: number } {
	const { x, y, w, h } = board;
	const part = [0.06, 0.5, 0.94][i] ?? 0.5;
	if (side === 'hinge' || side === 'lock')
		return { x: side === 'hinge' ? x : x + w, y: y + h * (1 - part), dx: 0, dy: 22 };
	return { x: x + w * part, y: side === 'head' ? y : y + h, dx: 11, dy: 0 };
}

/** ask is one possible reading, and where it is drawn. */
export type Ask = {
	id: string;
	name: string;
	reading: { kind: string; side?: string; at?: string; from?: string };
	line: [number, number, number, number];
};

/** asks are the possible readings: five widths, two heights, plumb, level, square and diagonals. */
export const asks: Ask[] = (() => {
	const { x, y, w, h } = board;
	const up = (mm: number) => y + h * (1 - mm / 2030);
	const over = (mm: number) => x + (w * mm) / 826;
	return [
		...[200, 600, 1000, 1400, 1800].map(
			(at): Ask => ({
				id: `width-${at}`,
				name: say('practising.width-at-mm-up', { at }),
				reading: { kind: 'width', at: say('page.length-mm', { length: at }) },
				line: [x, up(at), x + w, up(at)],
			}),
		),
		...[50, 413, 776].map(
			(at): Ask => ({
				id: `height-${at}`,
				name: say('practising.floor-to-head-at-mm', { at }),
				reading: { kind: 'height', at: say('page.length-mm', { length: at }) },
				line: [over(at), y, over(at), y + h],
			}),
		),
		...['hinge', 'lock'].map(
			(side): Ask => ({
				id: `plumb-${side}`,
				name: say('practising.plumb-of-the-jamb', { jamb: jambName(side) }),
				reading: { kind: 'plumb', side, at: '1800 mm', from: '200 mm' },
				line: [
					side === 'hinge' ? x - 12 : x + w + 12,
					up(1800),
					side === 'hinge' ? x - 12 : x + w + 12,
					up(200),
				],
			}),
		),
		...['head', 'foot'].map(
			(side): Ask => ({
				id: `level-${side}`,
				name: side === 'head' ? say('practising.level-of-the-head') : say('practising.level-of-the-floor'),
				reading: { kind: 'level', side, at: '770 mm', from: '50 mm' },
				line: [
					over(50),
					side === 'head' ? y - 12 : y + h + 12,
					over(770),
					side === 'head' ? y - 12 : y + h + 12,
				],
			}),
		),
		{
			id: 'square-hinge',
			name: say('practising.square-at-the-head-hinge'),
			reading: { kind: 'square', side: 'hinge', at: '600 mm' },
			line: [x + 6, y + 90, x + 90, y + 6],
		},
		...['hinge', 'lock'].map(
			(side): Ask => ({
				id: `diagonal-${side}`,
				name: say('practising.diagonal-from-the-bottom-of', { jamb: jambName(side) }),
				reading: { kind: 'diagonal', side },
				line: side === 'hinge' ? [x, y + h, x + w, y] : [x + w, y + h, x, y],
			}),
		),
	];
})();

/** withUnit adds the unit to a text that ends in a figure. */
export const withUnit = (text: string, unit: string) =>
	/\d\s*$/.test(text) ? `${text.trim()} ${unit}` : text.trim();
