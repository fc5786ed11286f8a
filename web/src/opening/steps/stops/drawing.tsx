import type { Leaf } from '../../../api/client';
import { SvgDigits } from '../../../ui/length';
import { useLegible } from '../../../ui/unit';
import { Phrase } from '../../../words/phrase';
import { say } from '../../../words/texts';

/** The magnification of the play against the slab beside it. */
const times = 6;

/**
 * StopsView draws the stops round the shut slab from their own side, each end's move, and a section through jamb, slab
 * and stop with the play as light.
 */
export function StopsView({ leaf, hand, thickness }: { leaf: Leaf; hand: string; thickness: number }) {
	const s = leaf.stops;
	const text = useLegible();
	if (!s) return null;
	// Seen from the stops' side, the hinges are on the other hand.
	const mirror = hand === 'right' ? 1 : -1;
	const [w, h, stop, font] = [300, 620, 22, text.figure(30)];
	const play = (s.from.mm - thickness) * times;
	const by = (of: string, at: string) => s.moves.find((m) => m.of === of && m.at === at);
	const x = (toLock: number) => mirror * (toLock - w / 2);
	const ends = [
		{ m: by('head', 'hinge'), at: [70, stop + 44] },
		{ m: by('head', 'lock'), at: [w - 70, stop + 44] },
		{ m: by('hinge', 'head'), at: [70, 120] },
		{ m: by('lock', 'head'), at: [w - 70, 120] },
		{ m: by('hinge', 'foot'), at: [70, h - 30] },
		{ m: by('lock', 'foot'), at: [w - 70, h - 30] },
	] as const;
	const cut = 150;
	return (
		<svg
			ref={text.ref}
			viewBox="-230 -70 660 760"
			className="absolute inset-0 w-full h-full"
			role="img"
			aria-label={say('stops.the-doorstops-round-the-shut')}
			data-stops-view
		>
			<g>
				<rect x={-w / 2 - 24} y={-24} width={w + 48} height={h + 24} fill="var(--shade-deep)" />
				<rect x={-w / 2} y={0} width={w} height={h} fill="var(--board)" />
				<rect x={-w / 2} y={0} width={w} height={stop} fill="var(--rod)" />
				<rect x={-w / 2} y={stop} width={stop} height={h - stop} fill="var(--rod)" />
				<rect x={w / 2 - stop} y={stop} width={stop} height={h - stop} fill="var(--rod)" />
			</g>
			<g className="dim" fontSize={font} textAnchor="middle">
				{ends.map(
					({ m, at }) =>
						m && (
							<text key={m.stop + m.end} x={x(at[0])} y={at[1]} fill="var(--board-ink)">
								<SvgDigits text={m.by.text} />
							</text>
						),
				)}
				<g fill="var(--on-shade)" fontSize={text.label(20)}>
					<text x={0} y={-36}>
						{say('stops.from-the-side-of-the')}
					</text>
					<text x={x(0) - mirror * 14} y={h + 26}>
						{say('stops.hinges')}
					</text>
				</g>
			</g>
			<g transform={`translate(${w / 2 + 70} ${h / 2 - 150})`}>
				<rect x={0} y={0} width={30} height={2 * thickness + play + 110} fill="var(--shade-deep)" />
				<rect x={36} y={0} width={cut} height={2 * thickness} fill="var(--board)" />
				<rect x={30} y={2 * thickness} width={cut + 6} height={play} fill="var(--light)" />
				<rect x={30} y={2 * thickness + play} width={44} height={80} fill="var(--rod)" />
				<g fill="var(--on-shade)" fontSize={text.label(20)} className="dim">
					<text x={36} y={-12}>
						{say('page.pull-face')}
					</text>
					<text x={84} y={2 * thickness + play + 40}>
						<Phrase id="stops.from-back" of={{ from: <SvgDigits text={s.from.text} /> }} />
					</text>
				</g>
			</g>
		</svg>
	);
}
