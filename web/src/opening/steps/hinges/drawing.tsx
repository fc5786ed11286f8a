import { useContext } from 'react';
import type { Figure, Leaf } from '../../../api/client';
import { pick, ShownIn, SvgDigits } from '../../../ui/length';
import { useLegible } from '../../../ui/unit';
import { say } from '../../../words/texts';

/** How many units of the drawing a millimetre across is: half a millimetre of packing is visible. */
const across = 44;

/** The width of each board. */
const board = 300;

type Props = {
	leaf: Leaf;
	hand: string;
	/** One continuous hinge along the edge. */
	whole: boolean;
	ask: (figure: Figure, title: string) => void;
};

/**
 * HingesView draws the hinge jamb and the slab's hinge edge side by side, with the gap between them and each leaf in
 * its recesses.
 */
export function HingesView({ leaf, hand, whole, ask }: Props) {
	const d = leaf.drawing;
	const text = useLegible();
	if (!d) return null;
	const font = text.label(d.height / 30);
	const gaps = d.light.find((l) => l.side === 'hinge')?.gaps ?? [];
	const top = d.corners[0]?.[1] ?? d.height;
	const low = d.corners[3]?.[1] ?? 0;
	const y = (v: number) => top - v;
	const mirror = hand === 'right' ? -1 : 1;

	// The slab's edge is set back where it is hollowed, and the jamb is nearer to its line by as much.
	const off = (i: number) => d.hollow[i] ?? 0;
	const face = gaps.map((g, i) => `${(off(i) - g.mean) * across} ${y(g.along)}`);
	const edge = gaps.map((g, i) => `${off(i) * across} ${y(g.along)}`);
	const gapAt = (v: number) => {
		const i = gaps.findIndex((g) => g.along >= v);
		const b = gaps[Math.max(i, 1)] ?? gaps[gaps.length - 1];
		const a = gaps[gaps.indexOf(b as (typeof gaps)[number]) - 1];
		if (!a || !b) return 0;
		return a.mean + ((b.mean - a.mean) * (v - a.along)) / (b.along - a.along);
	};
	const depth = leaf.gauges.depth.mm * across;
	return (
		<svg
			ref={text.ref}
			viewBox={`-740 -300 1480 ${d.height + 390}`}
			className="absolute inset-0 w-full h-full"
			role="img"
			aria-label={say('hinges.the-hinge-jamb-and-the')}
			data-view="hinges"
		>
			<g transform={`scale(${mirror} 1)`}>
				<rect x={-board} y={y(top) - 60} width={board + 60} height={top - low + 120} fill="var(--light)" />
				<path
					d={`M${-board} ${y(top) - 60} L${face.at(-1)?.split(' ')[0]} ${y(top) - 60} L${face.slice().reverse().join(' L')} L${face[0]?.split(' ')[0]} ${y(low) + 60} L${-board} ${y(low) + 60} Z`}
					fill="var(--shade-deep)"
				/>
				<path
					d={`M${board} ${y(top)} L0 ${y(top)} L${edge.slice(1, -1).reverse().join(' L')} L0 ${y(low)} L${board} ${y(low)} Z`}
					fill="var(--board)"
				/>
				{whole && <rect x={0} y={y(top)} width={depth} height={top - low} fill="var(--rod)" />}
				{leaf.hinges.map((h, i) => {
					const at = d.hingeTops[i] ?? 0;
					const gap = gapAt(at - d.leaf / 2) * across;
					const pack = h.pack.mm * across;
					return (
						<g key={h.name} stroke="var(--on-shade)" strokeWidth={4}>
							<Pocket
								x={0}
								y={y(at)}
								depth={depth}
								leaf={d.leaf}
								tap={() => ask(h.slab, say('hinges.name-on-the-slab', { name: h.name }))}
							/>
							<Pocket
								x={-gap - depth + pack}
								y={y(at)}
								depth={depth}
								leaf={d.leaf}
								tap={() => ask(h.jamb, say('hinges.name-on-the-jamb', { name: h.name }))}
							/>
							{pack > 0 && (
								// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
								<rect
									x={-gap - depth}
									y={y(at)}
									width={pack}
									height={d.leaf}
									fill="var(--chalk)"
									stroke="none"
									className="cursor-help"
									onClick={() => ask(h.pack, say('hinges.name-the-planned-margin-less', { name: h.name }))}
								/>
							)}
							<circle
								cx={(-gap + pack) / 2}
								cy={y(at - d.leaf / 2)}
								r={16}
								fill="var(--rod-ink)"
								stroke="none"
							/>
						</g>
					);
				})}
				<line
					x1={pinX(0)}
					x2={pinX(leaf.hinges.length - 1)}
					y1={y(d.hingeTops[0] ?? top)}
					y2={y((d.hingeTops.at(-1) ?? low) - d.leaf)}
					stroke="var(--rod-ink)"
					strokeWidth={3}
					strokeDasharray="18 12"
				/>
			</g>
			<Labels leaf={leaf} top={top} mirror={mirror} font={font} />
		</svg>
	);

	/** The place of a hinge's pin across. */
	function pinX(i: number) {
		const at = d?.hingeTops[i] ?? 0;
		const h = leaf.hinges[i];
		return ((-gapAt(at - (d?.leaf ?? 0) / 2) + (h?.pack.mm ?? 0)) * across) / 2;
	}
}

/** Pocket is one leaf in its recess, tapped for its figure. */
function Pocket(p: { x: number; y: number; depth: number; leaf: number; tap: () => void }) {
	return (
		// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
		<rect
			x={p.x}
			y={p.y}
			width={p.depth}
			height={p.leaf}
			fill="var(--rod)"
			className="cursor-help"
			data-pocket
			onClick={p.tap}
		/>
	);
}

/** Labels are the marks beside jamb and slab, each on its own side of the drawing. */
function Labels({ leaf, top, mirror, font }: { leaf: Leaf; top: number; mirror: number; font: number }) {
	const unit = useContext(ShownIn);
	const tops = leaf.drawing?.hingeTops ?? [];
	return (
		<g fill="var(--on-shade)" fontSize={font} className="dim">
			<text x={mirror * -(board + 20)} y={-60} textAnchor={mirror === 1 ? 'end' : 'start'}>
				<tspan x={mirror * -(board + 20)} dy={-font * 1.1}>
					{say('hinges.jamb')}
				</tspan>
				<tspan x={mirror * -(board + 20)} dy={font * 1.1}>
					{say('page.from-the-head')}
				</tspan>
			</text>
			<text x={mirror * (board + 20)} y={-60} textAnchor={mirror === 1 ? 'start' : 'end'}>
				<tspan x={mirror * (board + 20)} dy={-font * 1.1}>
					{say('hinges.slab')}
				</tspan>
				<tspan x={mirror * (board + 20)} dy={font * 1.1}>
					{say('hinges.from-its-top')}
				</tspan>
			</text>
			{leaf.hinges.map((h, i) => {
				const v = top - (tops[i] ?? 0) + font * 0.8;
				return (
					<g key={h.name}>
						<text
							x={mirror * -(board + 20)}
							y={v}
							fontSize={font * 1.5}
							textAnchor={mirror === 1 ? 'end' : 'start'}
						>
							<SvgDigits text={h.jamb.text} />
						</text>
						<text
							x={mirror * (board + 20)}
							y={v}
							fontSize={font * 1.5}
							textAnchor={mirror === 1 ? 'start' : 'end'}
						>
							<SvgDigits text={h.slab.text} />
						</text>
						{h.packed && (
							<text x={mirror * -(board + 20)} y={v + font * 1.2} textAnchor={mirror === 1 ? 'end' : 'start'}>
								{say(h.pack.mm > 0 ? 'hinges.view-pack' : 'hinges.view-deeper')}{' '}
								{pick(h.pack.text, unit).replace('-', '')}
							</text>
						)}
					</g>
				);
			})}
		</g>
	);
}
