import type { JobHead } from '../api/client';

export type Kit = JobHead['kit'];

/** both is the union of two kits: tools, hinges and hardware by ID, and bits. */
export function both(own: Kit, other: Kit): Kit {
	const more = <T extends { id: string }>(a: T[] = [], b: T[] = []) => [
		...a,
		...b.filter((x) => !a.some((y) => y.id === x.id)),
	];
	const bits = [...new Set([...(own.bits ?? []), ...(other.bits ?? [])])].sort((a, b) => a - b);
	return {
		...own,
		tools: more(own.tools, other.tools),
		hinges: more(own.hinges, other.hinges),
		hardware: more(own.hardware, other.hardware),
		...(bits.length ? { bits } : {}),
		...(own.trip ? {} : { trip: other.trip }),
		...(own.saw || !other.saw ? {} : { saw: other.saw }),
		...(own.bush || !other.bush ? {} : { bush: other.bush, cutter: other.cutter }),
		...(own.fits ? {} : { fits: other.fits }),
	};
}

/** brings names what a kit has that another lacks; empty where nothing. */
export function brings(own: Kit, other: Kit): string[] {
	const to = both(own, other);
	const names = (a: { id: string; name?: string }[] = [], b: { id: string; name?: string }[] = []) =>
		b.filter((x) => !a.some((y) => y.id === x.id)).map((x) => x.name || x.id);
	return [
		...names(own.tools, to.tools),
		...names(own.hinges, to.hinges),
		...names(own.hardware, to.hardware),
		...((to.bits?.length ?? 0) > (own.bits?.length ?? 0) ? ['bits'] : []),
		...(to.saw && !own.saw ? ['saw'] : []),
	];
}
