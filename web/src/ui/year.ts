/**
 * bars are how high the light of each month is drawn, in a picture so high: the widest fills four
 * fifths of it, so that its figure has room above, and none is less than a hair.
 */
export function bars(light: number[], high: number): number[] {
	const widest = Math.max(...light, 1e-6);
	return light.map((l) => Math.max((Math.max(l, 0) / widest) * high * 0.8, 1));
}
