/**
 * bars are the heights of each month's gap in a chart of a given height: the widest fills four fifths of it, to leave
 * room for its figure, and none is thinner than a hair.
 */
export function bars(light: number[], high: number): number[] {
	const widest = Math.max(...light, 1e-6);
	return light.map((l) => Math.max((Math.max(l, 0) / widest) * high * 0.8, 1));
}
