import type { ReactNode } from 'react';
import type { Leaf, OpeningView, Plan } from '../api/client';
import type { P } from '../ui/geometry';
import { say } from '../words/texts';
import { jambName } from '../words/trade';
import { Daylight, wholeOf } from './drawing';

type Props = {
	leaves: Leaf[];
	/** The leaf in hand, 1 or 2. */
	which: number;
	pick: (leaf: number) => void;
	/** Of the opening: on which side the first leaf hangs. */
	hand: string;
	times: number;
	ask: (m: Leaf['light'][number]) => void;
	go: (step: string) => void;
	/** Of the opening: where it was read, and where to read next. */
	places?: Plan['places'];
	label: string;
};

type BothProps = {
	view: OpeningView;
	which: number;
	pick: (leaf: number) => void;
	/** Draws one leaf with its slab, and with its hinges on a side. */
	children: (leaf: Leaf, slab: OpeningView['opening']['slab'], hand: string) => ReactNode;
};

/** Both draws a single slab, or a pair's two leaves as they hang; the leaf not in hand is dimmed, and a tap takes it. */
export function Both({ view, which, pick, children }: BothProps) {
	const { hand, slab, pair } = view.opening;
	const [first, second] = view.plan.leaves;
	if (!first) return null;
	if (!pair || !second) return children(first, slab, hand);
	const parts = [
		{ n: 1, leaf: first, slab, hand },
		{ n: 2, leaf: second, slab: pair.slab, hand: hand === 'left' ? 'right' : 'left' },
	];
	return (
		<div className="absolute inset-0 flex" data-pair>
			{(hand === 'left' ? parts : parts.reverse()).map((p) => (
				// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
				// biome-ignore lint/a11y/useKeyWithClickEvents: the panel has the same by keyboard
				<div
					key={p.n}
					className={`relative h-full min-w-0 basis-1/2 ${p.n === which ? '' : 'opacity-60 cursor-pointer'}`}
					onClick={() => p.n !== which && pick(p.n)}
				>
					{children(p.leaf, p.slab, p.hand)}
				</div>
			))}
		</div>
	);
}

/** PairDaylight draws both leaves of a pair in one wall, their halves of the meeting margin as one light. */
export function PairDaylight({ leaves, which, pick, hand, times, ask, go, places, label }: Props) {
	const inOrder = hand === 'right' ? [2, 1] : [1, 2];
	const parts = inOrder.map((n, k) => {
		const leaf = leaves[n - 1];
		const d = leaf?.drawing;
		if (!leaf || !d) return null;
		const box = wholeOf(d, times, true);
		const [, tl, fl] = d.corners as [P, P, P, P];
		const gaps = d.light.find((l) => l.side === 'lock')?.gaps ?? [];
		const half = (gaps[Math.floor(gaps.length / 2)]?.mean ?? 0) * times;
		// The meeting line, from the left of the leaf's own box; the leaf on the right is drawn mirrored.
		const meets = (tl[0] + fl[0]) / 2 + half - box.x;
		return { n, leaf, d, box, meets: k === 0 ? meets : box.w - meets };
	});
	const [a, b] = parts;
	if (!a || !b) return null;
	const bx = a.meets - b.meets;
	const width = bx + b.box.w;
	const height = Math.max(a.box.h, b.box.h);
	const floor = a.box.y + a.box.h;
	// The leaf in hand is drawn last, so that its figures lie over the other.
	const drawn = which === a.n ? [b, a] : [a, b];
	return (
		<svg
			viewBox={`0 0 ${width} ${height}`}
			className="absolute inset-0 w-full h-full"
			role="img"
			aria-label={label}
			data-pair
		>
			<rect x={-6000} y={floor} width={width + 12000} height={6000} fill="var(--floor)" />
			{drawn.map((p) => (
				// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
				<g key={p.n} opacity={p.n === which ? 1 : 0.75} onClick={() => p.n !== which && pick(p.n)}>
					<Daylight
						drawing={p.d}
						hand={p === a ? 'left' : 'right'}
						times={times}
						margins={p.n === which ? p.leaf.light : p.leaf.light.filter((m) => m.side !== 'lock')}
						detail
						ask={p.n === which ? ask : undefined}
						go={p.n === which ? go : undefined}
						places={p.n === 1 ? places : undefined}
						at={[p === a ? 0 : bx, floor - (p.box.y + p.box.h)]}
						label={say('page.leaf-on', { jamb: jambName(p.leaf.jamb) })}
					/>
				</g>
			))}
		</svg>
	);
}
