import type { Leaf, OpeningView } from '../../api/client';
import { capital, say } from '../../words/texts';
import { edgeName, jambName } from '../../words/trade';

type Edge = NonNullable<Leaf['cut']>['edges'][number];
type Shown = { mm: string; in: string };

export type Card = {
	/** Names the card and the figures that it is done by, so that it opens again when they change. */
	id: string;
	/** The cards of an earlier version in its place; it is done where each of them was ticked. */
	replaces: ((ticked: string) => boolean)[];
	title: string;
	from: string;
	tool: string;
	/** Figures, each after a place along an edge or below what it is measured from. */
	rows: { at?: Shown; of?: string; off: Shown }[];
	says: string[];
	/** The step whose cautions it shows. */
	step: 'measure' | 'cut' | 'hinges' | 'lock' | 'try' | 'stops';
	left?: Shown;
	/** The depths along the edge, in mm, for the strip. */
	strip?: { at: number; depth: number }[];
};

/**
 * cardsOf are the cards of the work, in order: each edge that is cut, with its saw's guide, the check, the inserts, the recesses, the hanging, the gaps, the
 * lock, which may be bored before it hangs, and the stops.
 */
export function cardsOf(view: OpeningView): Card[] {
	const many = view.plan.leaves.length > 1;
	const first = view.opening?.lock?.when === 'first';
	const leaves = view.plan.leaves.flatMap((leaf, n) => {
		const cut = leaf.cut;
		const unit = view.job?.unit === 'in' ? 'in' : 'mm';
		const of = many ? say('cards.of-leaf', { jamb: jambName(leaf.jamb) }) : '';
		const way = view.opening?.tried?.[n]?.hangs.at(-1)?.way ?? 0;
		// A door that hangs already is cut no more.
		if (view.opening?.service) return [...tryCards(leaf, way, n, of), ...stopCards(leaf, n, of)];
		if (!cut) return [];
		const edges = cut.edges
			.filter((e) => e.marks.some((m) => m.depth.mm > 0))
			.flatMap((e) => [...sawCards(leaf, e, n, of), edgeCard(leaf, e, n, of, unit)]);
		// What came hung in its frame is neither cut nor recessed.
		if (view.plan.lining?.set) {
			return [
				...boreCards(leaf, n, of),
				...strikeCards(leaf, n, of),
				...tryCards(leaf, way, n, of),
				...stopCards(leaf, n, of),
			];
		}
		const sizes = [...cut.width, ...cut.length];
		const check: Card = {
			id: `${n} check ${by(leaf, 'check')}`,
			replaces: [],
			title: say('cards.check-it-of', { of }),
			from: say('cards.width-at-top-middle-and'),
			tool: 'tape',
			rows: sizes.map((f) => ({ off: f.text })),
			step: 'cut',
			says: [say('cards.then-ease-every-arris-and')],
		};
		return [
			...edges,
			check,
			...insertCards(leaf, n, of),
			...(first ? boreCards(leaf, n, of) : []),
			...hingeCards(leaf, n, of, unit),
			...tryCards(leaf, way, n, of),
			...(first ? [] : boreCards(leaf, n, of)),
			...strikeCards(leaf, n, of),
			...stopCards(leaf, n, of),
		];
	});
	return [...frameCards(view), ...leaves];
}

/** frameCards are how a frame is made and set, while it does not stand yet. */
function frameCards(view: OpeningView): Card[] {
	const l = view.plan.lining;
	if (!l || view.opening?.lining?.stands) return [];
	const by = [l.width, l.height, ...l.feet.map((f) => f.off)].map((x) => x.mm).join(' ');
	return told(
		l.steps,
		l.set ? say('cards.set-the-frame') : say('cards.make-the-frame'),
		'measure',
		'0 frame',
		'',
		by,
	);
}

function edgeCard(leaf: Leaf, e: Edge, n: number, of: string, unit: 'mm' | 'in'): Card {
	const flat = e.side === 'head' || e.side === 'foot';
	const even = e.marks.every((m) => m.depth.mm === e.marks[0]?.depth.mm);
	return {
		id: `${n} ${e.side} ${by(leaf, e.side)}`,
		replaces: [],
		title: capital(edgeName(e.side)) + of,
		from: even
			? say('cards.the-same-all-along')
			: flat
				? say('cards.across-from-the-hinge-corner')
				: say('cards.down-from-the-top'),
		tool: e.method,
		step: 'cut',
		rows: even
			? [{ off: e.marks[0]?.depth.text ?? { mm: '', in: '' } }]
			: e.marks.map((m) => ({ at: m.at.text, off: m.depth.text })),
		says: [
			e.says,
			...e.pencils.map((m) => say('cards.by-the-pencil', { at: m.at.text[unit], says: m.says })),
		],
		strip: e.marks.map((m) => ({ at: m.at.mm, depth: m.depth.mm })),
		...(e.left.mm > 0 ? { left: e.left.text } : {}),
	};
}

/** sawCards set the guide or the fence of an edge that is sawn before it is planed. */
function sawCards(leaf: Leaf, e: Edge, n: number, of: string): Card[] {
	if (!e.sawing) return [];
	const { clamps, fence, steps } = e.sawing;
	return [
		{
			id: `${n} saw-${e.side} ${by(leaf, `saw-${e.side}`)}`,
			replaces: [],
			title: say('cards.saw-the', { edge: edgeName(e.side) }) + of,
			from: fence ? say('cut.table-saw') : say('cut.guide'),
			tool: '',
			step: 'cut',
			rows: fence
				? [{ of: say('cut.fence'), off: fence.text }]
				: clamps.map((c) => ({ of: c.from, off: c.along.text })),
			says: steps,
		},
	];
}

/** insertCards close the edges of a hollow slab that were cut open. */
function insertCards(leaf: Leaf, n: number, of: string): Card[] {
	return (leaf.cut?.inserts ?? []).flatMap((i) =>
		told(
			i.steps,
			say('cards.close-the-edge', { edge: i.name }),
			'cut',
			`${n} insert-${i.ends[0]}`,
			of,
			by(leaf, `insert-${i.ends[0]}`),
		),
	);
}

/** hingeCards are the recesses in slab and jamb, and how the slab is hung; none while the hinges are refused. */
function hingeCards(leaf: Leaf, n: number, of: string, unit: 'mm' | 'in'): Card[] {
	const { hinges, hanging, gauges } = leaf;
	if (!hinges?.length || !hanging) return [];
	if (leaf.findings.some((f) => f.step === 'hinges' && f.gravity === 'stop')) return [];
	const card = (where: 'slab' | 'jamb', from: string, says: string): Card => ({
		id: `${n} ${where} pockets ${by(leaf, `${where}-pockets`)}`,
		replaces: [],
		title: (where === 'slab' ? say('cards.recesses-in-the-slab') : say('cards.recesses-in-the-jamb')) + of,
		from: say('cards.to-the-top-of-each', {
			from,
			depth: gauges.depth.text[unit],
			width: gauges.width.text[unit],
		}),
		tool: say('cards.knife-and-chisel-or-router'),
		step: 'hinges',
		rows: hinges.map((h) => ({ off: h[where].text })),
		says: [says],
	});
	const packs = hinges
		.filter((h) => h.packed)
		.map((h) => {
			const by = h.pack.text[unit].replace('-', '');
			return h.pack.mm > 0
				? say('cards.pack-the-name-out-by', { name: h.name, by })
				: say('cards.set-the-name-by-deeper', { name: h.name, by });
		});
	return [
		card('slab', say('cards.from-the-slabs-finished-top'), say('cards.knife-round-the-leaf-itself')),
		card('jamb', say('page.from-the-head'), packs.join(' ') || say('cards.no-packing')),
		...(hanging.screws.length > 0
			? [
					{
						id: `${n} screws ${by(leaf, 'screws')}`,
						replaces: [(t: string) => t.startsWith(`${n} screws `) && /[a-z] [a-z]/.test(t)],
						title: say('cards.screws-and-pilots-of', { of }),
						from: hanging.goes,
						tool: 'drill',
						step: 'hinges' as const,
						rows: [],
						says: hanging.screws,
					},
				]
			: []),
		...told(hanging.steps, say('cards.hang-it'), 'hinges', `${n} hang`, of, by(leaf, 'hang')),
	];
}

/** tryCards are the next work on the hung slab, by the chosen way; none where it fits. */
function tryCards(leaf: Leaf, chosen: number, n: number, of: string): Card[] {
	const t = leaf.try;
	const way = t?.ways[Math.min(chosen, t.ways.length - 1)];
	if (!t || !way) return [];
	const id = `${n} try ${t.hangs.length}`;
	return told(way.does, say('cards.bring-the-gaps-in'), 'try', id, of, by(leaf, 'try'));
}

/** lockRefused reports whether the lock cannot go in as chosen: then it has no card. */
const lockRefused = (leaf: Leaf) => leaf.findings.some((f) => f.step === 'lock' && f.gravity === 'stop');

/** boreCards are the bores of each piece of hardware. */
function boreCards(leaf: Leaf, n: number, of: string): Card[] {
	if (lockRefused(leaf)) return [];
	return (leaf.hardware ?? []).flatMap((d) =>
		told(
			d.steps,
			d.name.charAt(0).toUpperCase() + d.name.slice(1),
			'lock',
			`${n} device ${d.second ? 2 : 1}`, // as ticks are kept
			of,
			by(leaf, `hardware-${d.second ? 2 : 1}`),
		),
	);
}

/** strikeCards are how the strike is let in. */
function strikeCards(leaf: Leaf, n: number, of: string): Card[] {
	if (lockRefused(leaf)) return [];
	return told(leaf.strikes ?? [], say('page.in-the-jamb'), 'lock', `${n} strike`, of, by(leaf, 'strike'));
}

/** stopCards set the stops, once the slab hangs. */
function stopCards(leaf: Leaf, n: number, of: string): Card[] {
	const { stops } = leaf;
	if (leaf.findings.some((f) => f.step === 'stops' && f.gravity === 'stop')) return [];
	return told(stops?.steps ?? [], say('cards.stops'), 'stops', `${n} stops`, of, by(leaf, 'stops'));
}

/** by are the figures that a piece of work is done by. */
const by = (leaf: Leaf, work: string) => leaf.works.find((w) => w.id === work)?.by ?? '';

/** What a card holds at most, so that it is read at arm's length: sentences, and letters of them. */
const most = { sentences: 6, letters: 540 };

/** groupSteps splits the sentences of some work into cards. */
function groupSteps(steps: string[]): { first: number; steps: string[] }[] {
	const cards: { first: number; steps: string[] }[] = [];
	steps.forEach((says, i) => {
		const last = cards.at(-1);
		const full =
			!last || last.steps.length === most.sentences || [...last.steps, says].join(' ').length > most.letters;
		if (full) cards.push({ first: i, steps: [says] });
		else last.steps.push(says);
	});
	return cards;
}

/** namedTick matches the ticks that name their card by themselves. */
const namedTick = /^\d+ (head|hinge|lock|foot|saw-\w+|check|slab|jamb|screws) /;

/** told makes the cards of some work; by are the figures that it is done by. */
function told(
	steps: string[],
	title: string,
	step: Card['step'],
	id: string,
	of: string,
	by: string,
): Card[] {
	const cards = groupSteps(steps);
	const leaf = id.split(' ')[0];
	return cards.map((c, k) => ({
		id: `${id} ${c.first}+${c.steps.length} ${by}`,
		// A card for each sentence, whatever its name was then.
		replaces: c.steps.map(
			(_, i) => (t: string) =>
				!namedTick.test(t) && t.startsWith(`${leaf} `) && t.endsWith(` ${c.first + i} ${by}`),
		),
		title: title + (cards.length > 1 ? say('cards.part', { number: k + 1, of: cards.length }) : '') + of,
		from: '',
		tool: '',
		step,
		rows: [],
		says: c.steps,
	}));
}

/** isDone reports whether a card is ticked, by itself or by the cards that it replaces. */
export function isDone(card: Card, ticked: string[]) {
	return ticked.includes(card.id) || (card.replaces.length > 0 && card.replaces.every((f) => ticked.some(f)));
}

/** without are the ticks of the present cards, less those of one. */
export function without(card: Card, cards: Card[], ticked: string[]) {
	const of = (c: Card, t: string) => t === c.id || c.replaces.some((f) => f(t));
	return ticked.filter((t) => !of(card, t) && cards.some((c) => of(c, t)));
}
