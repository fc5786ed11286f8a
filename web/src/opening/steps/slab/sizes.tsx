import type { Leaf } from '../../../api/client';
import { SvgDigits } from '../../../ui/length';
import { useLegible } from '../../../ui/unit';
import { say } from '../../../words/texts';

type Slab = { width: number; length: number };

/** Sizes draws the finished slab with its greatest width and length, over the one at hand. */
export function Sizes({ leaf, slab }: { leaf: Leaf; slab: Slab }) {
	const { drawing: d, finished: f } = leaf;
	const text = useLegible();
	if (!d || !f) return null;
	const [w, h] = [d.width, d.height];
	const there = slab.width > 0 && slab.length > 0;
	const [ow, oh] = there ? [slab.width, slab.length] : [w, h];
	// The surplus is drawn beside the finished slab, four times as large.
	const more = (over: number) => Math.max(Math.min(over * 4, 150), -150);
	const [dx, dy] = [more(ow - w), more(oh - h)];
	const font = text.figure(h / 24);
	return (
		<svg
			ref={text.ref}
			viewBox={`-300 -300 ${w + 860} ${h + 600}`}
			className="w-full h-full overflow-visible"
			role="img"
			aria-label={say('slab.the-finished-slab-with-its')}
		>
			{there && (
				<rect
					x={-dx / 2}
					y={-dy / 2}
					width={w + dx}
					height={h + dy}
					fill="none"
					stroke="var(--light)"
					strokeWidth={8}
					strokeDasharray="38 16"
				/>
			)}
			<rect x={0} y={0} width={w} height={h} fill="var(--board)" />
			<g stroke="var(--on-shade)" strokeWidth={6} fill="var(--on-shade)">
				<line x1={0} x2={w} y1={-130} y2={-130} />
				<line x1={0} x2={0} y1={-160} y2={-100} />
				<line x1={w} x2={w} y1={-160} y2={-100} />
				<line x1={w + 150} x2={w + 150} y1={0} y2={h} />
				<line x1={w + 120} x2={w + 180} y1={0} y2={0} />
				<line x1={w + 120} x2={w + 180} y1={h} y2={h} />
				<text x={w / 2} y={-160} fontSize={font} textAnchor="middle" stroke="none" className="dim">
					<SvgDigits text={f.width.text} />
				</text>
				<text x={w + 180} y={h / 2} fontSize={font} stroke="none" className="dim">
					<SvgDigits text={f.length.text} />
				</text>
			</g>
			<text x={w / 2} y={h / 2} fontSize={text.label(font * 0.7)} textAnchor="middle" fill="var(--board-ink)">
				{say('slab.finished')}
			</text>
			{there && (
				<text x={w / 2} y={h + 190} fontSize={text.label(font * 0.6)} textAnchor="middle" fill="var(--light)">
					{say('slab.the-slab-as-it-is')}
				</text>
			)}
		</svg>
	);
}
