import { expect, it } from 'vitest';
import { both, brings } from './kit-merge';

const hinge = (id: string) => ({
	id,
	name: `hinge ${id}`,
	kind: 'butt',
	leaf: 75,
	width: 29,
	plate: 2,
	closed: 7,
});

it('takes over what another kit has more, and keeps its own', () => {
	const own = {
		tools: [{ id: 'tape', instrument: 'tape', name: 'the yellow tape' }],
		hinges: [hinge('a')],
		trip: 20,
	};
	const other = {
		tools: [
			{ id: 'tape', instrument: 'tape', name: 'another tape' },
			{ id: 'rods', instrument: 'rods' },
		],
		hinges: [hinge('b')],
		bits: [22, 16],
		trip: 9,
		fits: 1.5,
		saw: { guide: 'batten', near: 128, far: 130.5 },
	};
	const kit = both(own, other);
	expect(kit.tools?.map((t) => t.name ?? t.id)).toEqual(['the yellow tape', 'rods']);
	expect(kit.hinges?.map((h) => h.id)).toEqual(['a', 'b']);
	expect(kit.bits).toEqual([16, 22]);
	expect(kit.trip).toBe(20);
	expect(kit.fits).toBe(1.5);
	expect(kit.saw?.near).toBe(128);
	expect(brings(own, other)).toEqual(['rods', 'hinge b', 'bits', 'saw']);
	expect(brings(kit, other)).toEqual([]);
});
