import type { Leaf, Schemas } from '../../../api/client';
import { spread } from '../../../ui/geometry';
import { SvgDigits } from '../../../ui/length';
import { useLegible } from '../../../ui/unit';
import { say } from '../../../words/texts';

type Hardware = Schemas['HardwareWork'];

/** The height of the drawing above and below the latch line, in mm. */
const reach = 190;

/**
 * LockView draws the hardware in the slab at its latch line: the pull face with its holes in drilling order, the edge
 * with its bore and plate, and the jamb with its strike.
 */
export function LockView({ leaf, hand, thickness }: { leaf: Leaf; hand: string; thickness: number }) {
	const { latch } = leaf;
	const text = useLegible();
	if (!latch || leaf.hardware.length === 0) return null;
	const line = latch.slab.mm;
	const jambLine = latch.jamb.mm;
	const mirror = hand === 'right' ? -1 : 1;
	const font = text.label(15);
	// The lock edge is at 0; the face lies behind it, edge and jamb beside it.
	const edge = 40;
	const jamb = edge + thickness + 45;
	const holes = leaf.hardware.flatMap((d) => d.holes.map((h) => ({ ...h, name: d.name })));
	const places = spread(
		holes.map((h) => h.down.mm - line),
		font,
	);
	return (
		<svg
			ref={text.ref}
			viewBox={`${mirror === 1 ? -230 : -(jamb + 110)} ${-reach - 40} ${340 + jamb} ${2 * reach + 80}`}
			className="absolute inset-0 w-full h-full"
			role="img"
			aria-label={say('lock.the-lock-edge-holes-in')}
			data-lock-view
		>
			<g transform={`scale(${mirror} 1)`}>
				<rect x={-220} y={-reach} width={220} height={2 * reach} fill="var(--board)" />
				<rect x={edge} y={-reach} width={thickness} height={2 * reach} fill="var(--board)" />
				<rect x={jamb} y={-reach} width={70} height={2 * reach} fill="var(--shade-deep)" />
				<line
					x1={-220}
					x2={jamb + 70}
					y1={0}
					y2={0}
					stroke="var(--light)"
					strokeWidth={1}
					strokeDasharray="6 4"
				/>
				<line
					x1={edge + thickness / 2}
					x2={edge + thickness / 2}
					y1={-reach}
					y2={reach}
					stroke="var(--board-line)"
					strokeWidth={0.8}
					strokeDasharray="5 4"
				/>
				{leaf.hardware.map((d) => (
					<g key={d.name + d.second}>
						<EdgeOf hardware={d} line={line} middle={edge + thickness / 2} />
						{d.holes.map((h) => (
							<circle
								key={h.what}
								cx={-h.in.mm}
								cy={h.down.mm - line}
								r={h.dia.mm / 2}
								fill={h.from === 'push' ? 'none' : 'var(--light)'}
								stroke="var(--light)"
								strokeDasharray={h.from === 'push' ? '4 3' : undefined}
								strokeWidth={1.5}
							/>
						))}
						{d.strike && (
							<g>
								<Plate
									x={jamb + d.strike.in.mm - d.strike.plate.wide.mm / 2}
									y={d.strike.plate.top.mm - jambLine}
									plate={d.strike.plate}
								/>
								<rect
									x={jamb + d.strike.in.mm - d.strike.hole.mm / 2}
									y={d.strike.bolt.mm - jambLine - d.strike.hole.mm / 2}
									width={d.strike.hole.mm}
									height={d.strike.hole.mm}
									rx={d.strike.hole.mm / 2}
									fill="var(--shade)"
								/>
							</g>
						)}
					</g>
				))}
			</g>
			<g fill="var(--on-shade)" fontSize={font} className="dim">
				<text x={mirror * -110} y={-reach - 10} textAnchor="middle">
					{say('page.pull-face')}
				</text>
				<text x={mirror * (edge + thickness / 2)} y={-reach - 10} textAnchor="middle">
					{say('lock.edge')}
				</text>
				<text x={mirror * (jamb + 35)} y={-reach - 10} textAnchor="middle">
					{say('page.the-jamb')}
				</text>
				{holes.map((h, i) => {
					return (
						<text
							key={h.name + h.what}
							x={mirror * (-h.in.mm - h.dia.mm / 2 - 5)}
							y={(places[i] ?? 0) + font * 0.35}
							fill="var(--board-ink)"
							stroke="var(--board)"
							strokeWidth={5}
							paintOrder="stroke"
							textAnchor={mirror === 1 ? 'end' : 'start'}
						>
							{i + 1} {h.what}, <SvgDigits text={h.dia.text} />
						</text>
					);
				})}
				<text
					x={mirror * (edge + thickness / 2)}
					y={reach + 22}
					fontSize={text.figure(15)}
					textAnchor="middle"
				>
					<SvgDigits text={latch.slab.text} />
				</text>
				<text x={mirror * (jamb + 35)} y={reach + 22} fontSize={text.figure(15)} textAnchor="middle">
					<SvgDigits text={latch.jamb.text} />
				</text>
			</g>
		</svg>
	);
}

/** EdgeOf is a lock's bore or slot with its faceplate, in the slab's edge. */
function EdgeOf({ hardware: d, line, middle }: { hardware: Hardware; line: number; middle: number }) {
	const e = d.edge;
	return (
		<g>
			{d.plate && <Plate x={middle - d.plate.wide.mm / 2} y={d.plate.top.mm - line} plate={d.plate} />}
			{e && (
				<rect
					x={middle - e.wide.mm / 2}
					y={e.down.mm - line - (e.long.mm || e.wide.mm) / 2}
					width={e.wide.mm}
					height={e.long.mm || e.wide.mm}
					rx={e.long.mm ? 0 : e.wide.mm / 2}
					fill="var(--light)"
				/>
			)}
		</g>
	);
}

function Plate({ x, y, plate }: { x: number; y: number; plate: Schemas['RecessOf'] }) {
	return (
		<rect
			x={x}
			y={y}
			width={plate.wide.mm}
			height={plate.long.mm}
			rx={plate.radius.mm}
			fill="var(--rod)"
			stroke="var(--rod-edge)"
			strokeWidth={1}
		/>
	);
}
