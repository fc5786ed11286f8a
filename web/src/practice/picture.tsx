import type { Schemas } from '../api/client';
import { say } from '../words/texts';
import { marginName, placeName } from '../words/trade';
import { type Ask, around, asks, board, edge } from './geometry';

type Played = Schemas['Played'];

/** Picture is the opening as it was read, and once a slab hangs its true gaps. */
export function Picture({ played: v, read }: { played: Played; read?: (a: Ask) => void }) {
	const { x, y, w, h } = board;
	const gaps = v.light.map((l) => ({ side: l.side, where: l.place, mm: l.gap.mm, rubs: l.rubs }));
	const points = around(gaps)
		.map((p) => p.join(','))
		.join(' ');
	const rubs = gaps.filter((g) => g.rubs);
	return (
		<svg
			viewBox="0 0 320 560"
			className="w-full max-w-sm mx-auto max-lg:max-h-[46dvh]"
			role="img"
			aria-label={
				v.hung
					? say('practising.the-light', {
							gaps: gaps.map((g) => `${marginName(g.side)}, ${placeName(g.where)} ${g.mm}`).join(', '),
						})
					: say('practising.the-opening-and-where-it')
			}
			data-picture
		>
			<rect width={320} height={560} fill="var(--shade)" />
			<text
				x={x - 22}
				y={y + h * 0.3}
				transform={`rotate(-90 ${x - 22} ${y + h * 0.3})`}
				textAnchor="middle"
				fontSize={15}
				fill="var(--on-shade)"
				data-hinge-side
			>
				{say('jamb.hinge')}
			</text>
			{v.hung ? (
				<>
					<polygon points={points} fill="var(--light)" />
					<rect x={x} y={y} width={w} height={h} fill="var(--board)" />
					<rect
						x={x + 25}
						y={y + 30}
						width={w - 50}
						height={150}
						fill="none"
						stroke="var(--board-line)"
						strokeWidth={2}
					/>
					<rect
						x={x + 25}
						y={y + 215}
						width={w - 50}
						height={150}
						fill="none"
						stroke="var(--board-line)"
						strokeWidth={2}
					/>
					{gaps.map((g, i) => {
						const n = i % 3;
						const px =
							g.side === 'hinge'
								? x - 44
								: g.side === 'lock'
									? x + w + 44
									: x + w * ([0.1, 0.5, 0.9][n] ?? 0);
						const py =
							g.side === 'head' ? y - 36 : g.side === 'foot' ? y + h + 68 : y + h * ([0.9, 0.5, 0.1][n] ?? 0);
						return (
							<text
								key={g.side + g.where}
								x={px}
								y={py}
								textAnchor="middle"
								fontSize={19}
								fill="var(--on-shade)"
								className="dim"
								data-light={`${g.side} ${g.where}`}
							>
								{g.rubs ? say('practising.rubs') : g.mm}
							</text>
						);
					})}
					{gaps.map((g, i) => {
						const e = edge(g.side, i % 3);
						return (
							g.rubs && (
								<line
									key={g.side + g.where}
									x1={e.x - e.dx}
									y1={e.y - e.dy}
									x2={e.x + e.dx}
									y2={e.y + e.dy}
									stroke="var(--on-shade)"
									strokeWidth={6}
									strokeDasharray="3 3"
								/>
							)
						);
					})}
					{rubs.length > 0 && (
						<text x={160} y={552} textAnchor="middle" fontSize={16} fill="var(--on-shade)">
							{say('practising.it-rubs-at-rubs-of', { rubs: rubs.length })}
						</text>
					)}
				</>
			) : (
				<>
					<rect
						x={x}
						y={y}
						width={w}
						height={h}
						fill="var(--shade-deep)"
						stroke="var(--rod)"
						strokeWidth={3}
					/>
					{asks
						.filter((a) => v.readings.some((r) => isOf(r, a)))
						.map((a) => (
							<line
								key={a.id}
								x1={a.line[0]}
								y1={a.line[1]}
								x2={a.line[2]}
								y2={a.line[3]}
								stroke="var(--light)"
								strokeWidth={2.5}
							/>
						))}
					{read && <Places read={read} />}
				</>
			)}
		</svg>
	);
}

/** Places are touched where they are read; the buttons beside the drawing are the same by keyboard. */
function Places({ read }: { read: (a: Ask) => void }) {
	return asks.map((a) => (
		// biome-ignore lint/a11y/noStaticElementInteractions: its button stands beside the drawing
		<g key={a.id} className="cursor-pointer" data-touch={a.id} onClick={() => read(a)}>
			<title>{a.name}</title>
			{[
				{ strokeWidth: 1.2, strokeDasharray: '4 5', strokeOpacity: 0.6 },
				{ strokeWidth: 26, strokeOpacity: 0 }, // what a thumb meets
			].map((look) => (
				<line
					key={look.strokeWidth}
					x1={a.line[0]}
					y1={a.line[1]}
					x2={a.line[2]}
					y2={a.line[3]}
					stroke="var(--on-shade)"
					{...look}
				/>
			))}
		</g>
	));
}

/** isOf reports whether a reading is of a place: the drawing marks it. */
function isOf(r: Schemas['PlayedRead'], { reading }: Ask) {
	return (
		r.kind === reading.kind &&
		(!reading.side || r.side === reading.side) &&
		(!reading.at || r.at === Number.parseFloat(reading.at))
	);
}
