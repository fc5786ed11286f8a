import type { Schemas } from '../../../api/client';
import { useLegible } from '../../../ui/unit';
import { say } from '../../../words/texts';

/** Sketch is an opening of unknown size: no slab yet, and where the first reading goes. */
export function Sketch({ next, hand }: { next?: Schemas['ToRead']; hand: string }) {
	const [w, h] = [800, 2000];
	const text = useLegible();
	const px = (x: number) => (hand === 'right' ? w - x : x);
	const line = place(next, w, h);
	return (
		<svg
			ref={text.ref}
			viewBox={`-340 -200 ${w + 680} ${h + 420}`}
			className="w-full h-full"
			role="img"
			data-view="unread"
			aria-label={next ? say('door.unread-next', { reading: next.name }) : say('door.unread')}
		>
			<rect x={-4000} y={h} width={9000} height={4000} fill="var(--floor)" />
			<rect x={-70} y={-70} width={w + 140} height={h + 70} fill="var(--rod)" opacity={0.9} />
			<rect x={0} y={0} width={w} height={h} fill="var(--shade-deep)" />
			{[0.1, 0.82].map((f) => (
				<rect
					key={f}
					x={px(0) - 22}
					y={h * f}
					width={44}
					height={110}
					rx={6}
					fill="var(--board)"
					stroke="var(--rod-edge)"
					strokeWidth={6}
				/>
			))}
			<text
				x={px(90)}
				y={h * 0.5}
				fontSize={text.label(62)}
				fill="var(--on-shade)"
				textAnchor={hand === 'right' ? 'end' : 'start'}
			>
				{say('jamb.hinge')}
			</text>
			{line && (
				<g stroke="var(--light)" fill="var(--light)">
					<line
						x1={px(line[0])}
						y1={h - line[1]}
						x2={px(line[2])}
						y2={h - line[3]}
						strokeWidth={12}
						strokeDasharray="34 18"
					/>
					<circle cx={px(line[0])} cy={h - line[1]} r={20} />
					<circle cx={px(line[2])} cy={h - line[3]} r={20} />
					<text
						x={w / 2}
						y={Math.max(h - (line[1] + line[3]) / 2 - 40, 120)}
						fontSize={text.figure(80)}
						textAnchor="middle"
						stroke="none"
					>
						{say('door.read-here-first')}
					</text>
				</g>
			)}
		</svg>
	);
}

/** place is where a reading is taken: from and to, in mm across from the hinge jamb and up from the floor. */
export function place(
	r: Schemas['ToRead'] | undefined,
	w: number,
	h: number,
): [number, number, number, number] | null {
	switch (r?.kind) {
		case 'width':
			return [0, r.at, w, r.at];
		case 'height':
			return [r.at, 0, r.at, h];
		case 'gap':
			return r.side === 'hinge'
				? [0, r.at, 40, r.at]
				: r.side === 'lock'
					? [w - 40, r.at, w, r.at]
					: r.side === 'head'
						? [r.at, h - 40, r.at, h]
						: [r.at, 0, r.at, 40];
	}
	return null;
}
