// @vitest-environment jsdom
import { expect, test } from 'vitest';
import type { OpeningView } from '../../api/client';
import { type Card, cardsOf, isDone, without } from './list';

const text = (mm: number) => ({ mm: String(mm), in: '' });
const figure = (mm: number) => ({ mm, text: text(mm), plusMinus: text(0), terms: [] });
const edge = (side: string, depths: number[]) => ({
	side,
	method: 'power plane',
	says: '',
	left: figure(0),
	passes: [],
	pencils: [] as { at: { mm: number; text: { mm: string; in: string } }; says: string }[],
	marks: depths.map((d, i) => ({ at: { mm: 500 * i, text: text(500 * i) }, depth: figure(d) })),
});
const view = (hinge: number[], leaves = 1) =>
	({
		plan: {
			leaves: ['hinge', 'lock'].slice(0, leaves).map((jamb) => ({
				jamb,
				findings: [],
				hinges: [],
				works: [
					{ id: 'hinge', by: hinge.join(' ') },
					{ id: 'foot', by: '17 17 17' },
					{ id: 'check', by: '820 820 820 2023 2023 2023' },
					{ id: 'hardware-1', by: '202618' },
					{ id: 'strike', by: '1032' },
				],
				cut: {
					edges: [
						edge('head', [0, 0, 0]),
						edge('hinge', hinge),
						edge('lock', [0, 0, 0]),
						edge('foot', [17, 17, 17]),
					],
					width: [figure(820), figure(820), figure(820)],
					length: [figure(2023), figure(2023), figure(2023)],
				},
			})),
		},
	}) as unknown as OpeningView;

test('a card for each edge that is cut, in the order of the work, then the check', () => {
	expect(cardsOf(view([18, 18, 18, 18, 18])).map((c) => c.title)).toEqual([
		'Hinge edge',
		'Bottom',
		'Check it',
	]);
});

test('an edge that was pencilled says how far past each line it is cut', () => {
	const v = view([18, 18, 18, 18, 18]);
	v.plan.leaves[0]?.cut?.edges[1]?.pencils.push({
		at: { mm: 50, text: text(50) },
		says: '1.5 past the pencil',
	});
	expect(cardsOf(v)[0]?.says).toContain('At 50: 1.5 past the pencil');
});

test('what is even is one figure, a taper has its places', () => {
	expect(cardsOf(view([18, 18, 18, 18, 18]))[0]?.rows).toEqual([{ off: text(18) }]);
	expect(cardsOf(view([18, 17, 16, 15, 14]))[0]?.rows).toHaveLength(5);
});

test('a card opens again when its figures change, and the others stay done', () => {
	const before = cardsOf(view([18, 18, 18, 18, 18])).map((c) => c.id);
	const after = cardsOf(view([18, 18, 18, 18, 17])).map((c) => c.id);
	expect(after[0]).not.toBe(before[0]);
	expect(after.slice(1)).toEqual(before.slice(1));
});

test('the leaves of a pair come one after the other', () => {
	const titles = cardsOf(view([18, 18, 18, 18, 18], 2)).map((c) => c.title);
	expect(titles).toHaveLength(6);
	expect(titles[3]).toBe('Hinge edge, leaf on the lock jamb');
});

test('the pockets and the hanging come after the cuts, not while a hinge is refused', () => {
	const v = view([18, 18, 18, 18, 18]);
	const leaf = v.plan.leaves[0] as NonNullable<(typeof v.plan.leaves)[0]>;
	Object.assign(leaf, {
		hinges: [
			{ name: 'top hinge', slab: figure(150), jamb: figure(153), pack: figure(1.8), packed: true },
			{ name: 'bottom hinge', slab: figure(1700), jamb: figure(1703), pack: figure(0.1), packed: false },
		],
		gauges: { depth: { mm: 2, text: text(2) }, width: { mm: 29, text: text(29) } },
		hanging: {
			head: [figure(3)],
			shut: figure(6),
			open: figure(6),
			goes: 'either leaf',
			screws: ['3 a leaf', 'the middle one first'],
			steps: ['stand it', 'screw it'],
		},
	});
	const cards = cardsOf(v).slice(3);
	expect(cards.map((c) => c.title)).toEqual([
		'Recesses in the slab',
		'Recesses in the jamb',
		'Screws and pilots',
		'Hang it',
	]);
	expect(cards[1]?.says).toEqual(['Pack the top hinge out by 1.8.']);
	expect(cards[1]?.rows.map((r) => r.off)).toEqual([text(153), text(1703)]);
	expect(cards[2]?.says).toEqual(['3 a leaf', 'the middle one first']);
	expect(cards[3]?.says).toEqual(['stand it', 'screw it']);
	Object.assign(leaf, {
		latch: { jamb: figure(1032) },
		hardware: [
			{ name: 'latch', steps: ['square a line', 'bore it'], holes: [{ down: figure(1029), in: figure(60) }] },
		],
		strikes: ['mark the strike'],
		stops: { from: figure(36), steps: ['head stop first'] },
	});
	const more = cardsOf(v).slice(7);
	expect(more.map((c) => c.title)).toEqual(['Latch', 'In the jamb', 'Stops']);
	expect(more[0]?.id).toBe('0 device 1 0+2 202618');
	// A card is done where each that it stands for was ticked, whatever they were called.
	const latch = more[0] as Card;
	expect(isDone(latch, ['0 tubular latch 0 202618'])).toBe(false);
	const old = ['0 tubular latch 0 202618', '0 tubular latch 1 202618'];
	expect(isDone(latch, old)).toBe(true);
	expect(isDone(latch, ['0 tubular latch 0 1', '0 tubular latch 1 1'])).toBe(false);
	expect(without(more[1] as Card, cardsOf(v), [...old, '0 head 9 9 9'])).toEqual(old);
	expect(without(latch, cardsOf(v), old)).toEqual([]);
	leaf.findings = [{ step: 'lock', gravity: 'stop' }] as typeof leaf.findings;
	expect(
		cardsOf(v)
			.slice(7)
			.map((c) => c.title),
	).toEqual(['Stops']);
	Object.assign(leaf, { hardware: [], strikes: [], stops: undefined });
	leaf.findings = [{ step: 'hinges', gravity: 'stop' }] as typeof leaf.findings;
	expect(cardsOf(v)).toHaveLength(3);
});

test('a card holds no more than is read at arm’s length', () => {
	const v = view([18, 18, 18, 18, 18]);
	const leaf = v.plan.leaves[0] as NonNullable<(typeof v.plan.leaves)[0]>;
	const steps = [1, 2, 3, 4, 5, 6].map((i) => `${i} `.repeat(75)); // 150 letters each
	Object.assign(leaf, { stops: { from: figure(36), steps } });
	const cards = cardsOf(v).slice(3);
	expect(cards.map((c) => c.title)).toEqual(['Stops, 1 of 2', 'Stops, 2 of 2']);
	expect(cards.flatMap((c) => c.says)).toEqual(steps);
});

test('a sawn edge has its guide first, and a tick of it is no other card’s', () => {
	const v = view([18, 18, 18, 18, 18]);
	const leaf = v.plan.leaves[0];
	const foot = leaf?.cut?.edges[3];
	if (!leaf || !foot) throw new Error('no foot');
	foot.sawing = {
		clamps: [
			{ from: 'bottom hinge corner', end: 'foot', edge: 'hinge', on: 'hinge', along: figure(144) },
			{ from: 'bottom lock corner', end: 'foot', edge: 'lock', on: 'lock', along: figure(145) },
		],
		steps: ['Good face down.', 'Let the strip fall.'],
	} as NonNullable<typeof foot.sawing>;
	leaf.works.push({ id: 'saw-foot', by: '144 145' });
	const cards = cardsOf(v);
	expect(cards.map((c) => c.id)).toEqual([
		'0 hinge 18 18 18 18 18',
		'0 saw-foot 144 145',
		'0 foot 17 17 17',
		'0 check 820 820 820 2023 2023 2023',
	]);
	const saw = cards[1];
	expect(saw?.rows.map((r) => `${r.of}: ${r.off.mm}`)).toEqual([
		'bottom hinge corner: 144',
		'bottom lock corner: 145',
	]);
	expect(cards.map((c) => isDone(c, ['0 saw-foot 144 145']))).toEqual([false, true, false, false]);
});
