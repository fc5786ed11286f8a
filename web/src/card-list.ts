import type { Leaf, OpeningView } from './api';

type Edge = NonNullable<Leaf['cut']>['edges'][number];
type Shown = { mm: string; in: string };

export type Card = {
	/** Names the card and the figures that it is done by, so that it opens again when they change. */
	id: string;
	title: string;
	from: string;
	tool: string;
	rows: { at?: Shown; off: Shown }[];
	says: string;
	left?: Shown;
	/** What comes off along the edge, in mm, for the strip: places and depths. */
	strip?: { at: number; depth: number }[];
};

const edgeNames: Record<string, string> = {
	head: 'Head',
	hinge: 'Hinge edge',
	lock: 'Lock edge',
	foot: 'Foot',
};

/** cardsOf are the cards of the work at the trestles, in its order: each edge that is cut, then the check. */
export function cardsOf(view: OpeningView): Card[] {
	const many = view.plan.leaves.length > 1;
	return view.plan.leaves.flatMap((leaf, n) => {
		const cut = leaf.cut;
		if (!cut) return [];
		const of = many ? `, leaf on the ${leaf.jamb} jamb` : '';
		const edges = cut.edges.filter((e) => e.marks.some((m) => m.depth.mm > 0)).map((e) => edgeCard(e, n, of));
		const sizes = [...cut.width, ...cut.length];
		const check: Card = {
			id: `${n} check ${sizes.map((f) => f.mm).join(' ')}`,
			title: `Check it${of}`,
			from: 'Width at head, middle and foot; then length at hinge edge, middle and lock edge',
			tool: 'tape',
			rows: sizes.map((f) => ({ off: f.text })),
			says: 'Then ease every arris, and seal the cut edges before they stand: the ends most of all.',
		};
		return [...edges, check];
	});
}

function edgeCard(e: Edge, leaf: number, of: string): Card {
	const flat = e.side === 'head' || e.side === 'foot';
	const even = e.marks.every((m) => m.depth.mm === e.marks[0]?.depth.mm);
	return {
		id: `${leaf} ${e.side} ${e.marks.map((m) => m.depth.mm).join(' ')}`,
		title: edgeNames[e.side] + of,
		from: even
			? 'The same all along'
			: flat
				? "Across from the hinge edge's corner"
				: "Down from the head's end of the edge",
		tool: e.method,
		rows: even
			? [{ off: e.marks[0]?.depth.text ?? { mm: '', in: '' } }]
			: e.marks.map((m) => ({ at: m.at.text, off: m.depth.text })),
		says: e.says,
		strip: e.marks.map((m) => ({ at: m.at.mm, depth: m.depth.mm })),
		...(e.left.mm > 0 ? { left: e.left.text } : {}),
	};
}
