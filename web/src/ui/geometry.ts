import type { Drawing, Plan } from '../api/client';

export type P = [number, number];

/** A part of the drawing: its lower left corner, width and height, in mm. */
export type Box = { x: number; y: number; w: number; h: number };

/** readingLine is where a reading is taken, from place to place, in the drawing of a leaf (mm, y up). */
export function readingLine(d: Drawing, r: Plan['places'][number]): [P, P] | null {
	const [th, tl, fl, fh] = d.corners as [P, P, P, P];
	switch (r.kind) {
		case 'width':
			return [
				[fh[0], r.at],
				[fl[0], r.at],
			];
		case 'height':
			return [
				[Math.min(Math.max(r.at, fh[0] + 25), fl[0] - 25), fh[1]],
				[Math.min(Math.max(r.at, fh[0] + 25), fl[0] - 25), th[1]],
			];
		case 'plumb': {
			const x = r.side === 'hinge' ? th[0] + 45 : tl[0] - 45;
			return [
				[x, r.from],
				[x, r.at],
			];
		}
		case 'level': {
			const y = r.side === 'head' ? th[1] - 60 : fh[1] + 60;
			return [
				[r.from, y],
				[r.at, y],
			];
		}
		case 'straight': {
			if (r.side === 'hinge' || r.side === 'lock') {
				const x = r.side === 'hinge' ? th[0] + 20 : tl[0] - 20;
				return [
					[x, r.from],
					[x, r.to],
				];
			}
			const y = r.side === 'head' ? th[1] - 20 : fh[1] + 20;
			return [
				[r.from, y],
				[r.to, y],
			];
		}
		case 'diagonal':
			return r.side === 'hinge' ? [fh, tl] : [fl, th];
		case 'gap': {
			const at: P =
				r.side === 'hinge'
					? [fh[0], fh[1] + r.at]
					: r.side === 'lock'
						? [fl[0], fl[1] + r.at]
						: r.side === 'head'
							? [th[0] + r.at, th[1]]
							: [fh[0] + r.at, fh[1]];
			return [at, at];
		}
		case 'square': {
			const hinge = r.side === 'hinge';
			const y = th[1] - 110;
			return [
				[hinge ? th[0] + 20 : tl[0] - 20, y],
				[hinge ? th[0] + r.at : tl[0] - r.at, y],
			];
		}
	}
	return null;
}

/**
 * near is the part of a drawing around a line: as wide as the whole, with a given ratio of width to height. A longer
 * line is shown from its upper end.
 */
export function near(whole: Box, [a, b]: [P, P], wide: number): Box {
	const h = Math.min(whole.w / wide, whole.h);
	const [low, high] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
	const middle = high - low > 0.7 * h ? high - 0.3 * h : (low + high) / 2;
	const y = Math.min(Math.max(middle - h / 2, whole.y), whole.y + whole.h - h);
	return { x: whole.x, y, w: whole.w, h };
}

/** outline is an SVG path through some places. */
export const outline = (list: P[]) => `M${list.map(([x, y]) => `${x} ${y}`).join('L')}Z`;

/** grabbed is the angle, in degrees, of a slab that is held at a place from its pin; at most opens. */
export function grabbed([x, z]: P, opens: number): number {
	const angle = (Math.atan2(z, x) * 180) / Math.PI;
	// Behind the wall the nearer end counts: closed in front of the lock jamb, open behind the hinges.
	const past = angle < 0 ? (x < 0 ? opens : 0) : angle;
	return Math.min(past, opens);
}

/** footAt is the foot over the floor at the computed angle nearest to a given one. */
export function footAt<F extends { angle: number }>(foot: F[], angle: number): F {
	return foot.reduce((best, f) => (Math.abs(f.angle - angle) < Math.abs(best.angle - angle) ? f : best));
}

/** spread moves places that lie nearer to one another than least apart, each no further than it takes. */
export function spread(places: number[], least: number): number[] {
	const order = places.map((at, i) => ({ at, i })).sort((a, b) => a.at - b.at);
	// Neighbours that would touch become one block about their middle; blocks that then touch become one.
	const blocks: { middle: number; of: number[] }[] = [];
	for (const { at, i } of order) {
		blocks.push({ middle: at, of: [i] });
		for (;;) {
			const [a, b] = blocks.slice(-2);
			if (!a || !b) break;
			if (b.middle - a.middle >= ((a.of.length + b.of.length) / 2) * least) break;
			const n = a.of.length + b.of.length;
			blocks.splice(-2, 2, {
				middle: (a.middle * a.of.length + b.middle * b.of.length) / n,
				of: [...a.of, ...b.of],
			});
		}
	}
	const moved = [...places];
	for (const { middle, of } of blocks)
		of.forEach((i, k) => {
			moved[i] = middle + (k - (of.length - 1) / 2) * least;
		});
	return moved;
}
