import DxfParser from 'dxf-parser';
import { expect, test } from 'vitest';
import text from '../../../document/template/testdata/known.dxf?raw';

// Read by dxf-parser, an independent reader: y up, millimetres, each on its layer.
test('a full-size DXF is what it was drawn as', () => {
	const drawing = new DxfParser().parseSync(text);
	const entities = (drawing?.entities ?? []) as unknown as Record<string, unknown>[];
	const of = (type: string) => entities.filter((e) => e.type === type);
	expect(of('CIRCLE')).toHaveLength(1);
	expect(of('CIRCLE')[0]).toMatchObject({ layer: 'CUT', radius: 11, center: { x: 30, y: 40 } });
	const fold = of('LINE').find((e) => e.layer === 'FOLD') as { vertices: { x: number; y: number }[] };
	expect(fold.vertices.map((v) => [v.x, v.y])).toEqual([
		[40, 60],
		[40, 0],
	]);
	// Four sides of 17 and 49 between four corners of 4: 25 by 57.
	const sides = of('LINE').filter((e) => e.layer === 'CUT') as { vertices: { x: number; y: number }[] }[];
	const lengths = sides.map(({ vertices: [a, b] }) =>
		Math.hypot((b?.x ?? 0) - (a?.x ?? 0), (b?.y ?? 0) - (a?.y ?? 0)),
	);
	expect(lengths.sort((a, b) => a - b)).toEqual([17, 17, 49, 49]);
	const arcs = of('ARC') as { radius: number; angleLength: number; center: { x: number; y: number } }[];
	expect(arcs.map((a) => a.radius)).toEqual([4, 4, 4, 4]);
	for (const a of arcs) expect(a.angleLength).toBeCloseTo(Math.PI / 2, 6);
	expect(arcs.map((a) => [a.center.x, a.center.y])).toEqual([
		[66, 54.5],
		[49, 54.5],
		[49, 5.5],
		[66, 5.5],
	]);
	expect(of('TEXT')[0]).toMatchObject({ text: '1 spindle 22', textHeight: 3 });
});
