import { useContext, useSyncExternalStore } from 'react';
import type { Drawing, Leaf, Plan } from '../api/client';
import { type Box, near, type P, readingLine } from '../ui/geometry';
import { pick, ShownIn, SvgDigits } from '../ui/length';
import { useLegible } from '../ui/unit';
import { say } from '../words/texts';
import { readingID } from './reading-id';
import { choose, type Open } from './steps/measure/open';

/** The edge of a margin is drawn as layers at so many sigmas. */
const layers = [1.6, 1.07, 0.53, 0, -0.53, -1.07, -1.6];

const most = 14; // a gap or sigma past this many mm is drawn as this many: the figure says the rest

/** cap is a gap as it is drawn. */
const cap = (v: number) => Math.max(Math.min(v, most), -most);

const narrow = matchMedia('(max-width: 1023px)');

function useNarrow() {
	return useSyncExternalStore(
		(changed) => {
			narrow.addEventListener('change', changed);
			return () => narrow.removeEventListener('change', changed);
		},
		() => narrow.matches,
	);
}

type Props = {
	drawing: Drawing;
	hand: string;
	/** The magnification of the margins; the slab stays at scale. */
	times: number;
	margins?: Leaf['light'];
	detail?: boolean;
	/** Where the readings were taken. */
	places?: Plan['places'];
	/** Readings that are still open: tapped, they are asked for. */
	open?: Open[];
	/** Called with a tapped margin, to explain it. */
	ask?: (m: Leaf['light'][number]) => void;
	/** Called with the step of a tapped part. */
	go?: (step: string) => void;
	className?: string;
	label: string;
	/** Its place in a larger drawing, to scale: then its floor is drawn there. */
	at?: P;
};

/** wholeOf is the box of a leaf's drawing, in mm, y up. */
export function wholeOf(d: Drawing, times: number, detail?: boolean): Box {
	const [th, , fl, fh] = d.corners as [P, P, P, P];
	const pad = detail ? 230 : 90;
	const spread = 8 * times;
	return {
		x: Math.min(th[0], fh[0]) - spread - pad,
		y: Math.min(fh[1], fl[1]) - spread - (detail ? 140 : 60),
		w: d.width + 2 * spread + 2 * pad,
		h: d.height + 2 * spread + (detail ? 260 : 110),
	};
}

/** Daylight draws the opening as a wall in shade, the slab as a dark board, and the margins as light. */
export function Daylight({
	drawing: d,
	hand,
	times,
	margins,
	detail,
	places,
	open,
	ask,
	go,
	className,
	label,
	at,
}: Props) {
	const [th, tl, fl, fh] = d.corners as [P, P, P, P];
	const shape = shapeOf(d, times);
	const { opening, spot } = shape;
	const whole = wholeOf(d, times, detail);
	const small = useNarrow();
	// On a phone the drawing zooms to the next reading.
	const goal = small && !at ? places?.find((p) => p.next) : undefined;
	const line = goal && readingLine(d, goal);
	const box = line ? near(whole, line, 2.1) : whole;
	const flip = hand === 'right' ? -1 : 1;
	const px = (x: number) => (flip === 1 ? x : box.x + box.w - (x - box.x));
	const py = (y: number) => -y;
	const path = (pts: P[]) => pts.map(([x, y]) => `${px(x).toFixed(1)},${py(y).toFixed(1)}`).join(' ');
	const text = useLegible();
	const font = text.figure(d.height / (line ? 30 : small ? 16 : 27));

	// Light past the width that looks right is brighter.
	const wide = (l: (typeof d.light)[number]) => l.wanted + d.uneven;
	const glares = d.light.filter(
		(l) => l.side !== 'foot' && l.gaps.some((g) => g.mean > wide(l) && g.sigma < most),
	);
	return (
		<svg
			ref={text.ref}
			viewBox={`${box.x} ${-(box.y + box.h)} ${box.w} ${box.h}`}
			className={`overflow-visible ${className ?? ''}`}
			{...(at && { x: at[0], y: at[1], width: box.w, height: box.h })}
			role="img"
			aria-label={label}
			preserveAspectRatio="xMidYMid meet"
		>
			<title>{label}</title>
			{!at && (
				<rect
					x={box.x - 6000}
					y={py(Math.min(fh[1], fl[1]))}
					width={box.w + 12000}
					height={6000}
					fill="var(--floor)"
				/>
			)}
			{layers.map((z) => (
				<polygon key={z} points={path(opening(z))} fill="var(--light)" fillOpacity={0.3} />
			))}
			<polygon points={path(opening(-2))} fill="var(--light)" />
			{glares.map((l) => (
				<polygon
					key={l.side}
					fill="var(--glare)"
					points={path([
						...l.gaps.map((g) => spot(l.side, g.along, wide(l) * times)),
						...l.gaps.map((g) => spot(l.side, g.along, Math.max(cap(g.mean), wide(l)) * times)).reverse(),
					])}
				/>
			))}
			<polygon points={path([th, tl, fl, fh])} fill="var(--board)" />
			<Panels th={th} tl={tl} fl={fl} fh={fh} path={path} />
			<Pinches d={d} shape={shape} px={px} py={py} />
			<Furniture d={d} shape={shape} flip={flip} px={px} py={py} go={go} />
			{places && open && <ToTap d={d} open={open} px={px} py={py} />}
			{places && <Readings d={d} places={places} px={px} py={py} font={font} />}
			{detail &&
				margins
					?.filter((m) => !small || m.place === 'middle')
					.map((m) => (
						<MarginText
							key={m.side + m.place}
							m={m}
							d={d}
							shape={shape}
							times={times}
							flip={flip}
							px={px}
							py={py}
							font={font}
							small={text.label(font * 0.68)}
							ask={ask}
						/>
					))}
		</svg>
	);
}

/** Panels make the board look like a door, not like a hole. */
function Panels({ th, tl, fl, fh, path }: { th: P; tl: P; fl: P; fh: P; path: (p: P[]) => string }) {
	const w = tl[0] - th[0];
	const h = th[1] - fh[1];
	const box = (a: number, b: number): P[] => [
		[fh[0] + 0.16 * w, fh[1] + b * h],
		[fl[0] - 0.16 * w, fl[1] + b * h],
		[fl[0] - 0.16 * w, fl[1] + a * h],
		[fh[0] + 0.16 * w, fh[1] + a * h],
	];
	return (
		<g fill="none" stroke="var(--board-line)" strokeWidth={5}>
			<polygon points={path(box(0.1, 0.38))} />
			<polygon points={path(box(0.5, 0.93))} />
		</g>
	);
}

/** ToTap is where else the tape can go: a tap there asks for that reading. */
function ToTap({
	d,
	open,
	px,
	py,
}: {
	d: Drawing;
	open: Open[];
	px: (x: number) => number;
	py: (y: number) => number;
}) {
	return (
		<g>
			{open.map((r) => {
				const line = readingLine(d, { ...r, id: '', clash: false, next: false });
				if (!line) return null;
				const [a, b] = line;
				const ends = { x1: px(a[0]), y1: py(a[1]), x2: px(b[0]), y2: py(b[1]) };
				return (
					// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
					<g
						key={readingID(r)}
						className="cursor-pointer"
						onClick={() => choose(readingID(r))}
						data-tap={readingID(r)}
						strokeLinecap="round"
					>
						<title>{r.name}</title>
						<line {...ends} stroke="var(--board-ink)" opacity={0.3} strokeWidth={4} strokeDasharray="4 22" />
						<line {...ends} stroke="transparent" strokeWidth={36} vectorEffect="non-scaling-stroke" />
					</g>
				);
			})}
		</g>
	);
}

/** Readings shows where the tape went, and where it goes next. */
function Readings({
	d,
	places,
	px,
	py,
	font,
}: {
	d: Drawing;
	places: Plan['places'];
	px: (x: number) => number;
	py: (y: number) => number;
	font: number;
}) {
	const [th, tl] = d.corners as [P, P, P, P];
	return (
		<g>
			{places.map((r) => {
				const line = readingLine(d, r);
				if (!line) return null;
				const [a, b] = line;
				const colour = r.clash ? 'var(--color-error)' : r.next ? 'var(--light)' : 'var(--board-ink)';
				return (
					<g key={r.id || 'next'} stroke={colour} opacity={r.next || r.clash ? 1 : 0.45}>
						<line
							x1={px(a[0])}
							y1={py(a[1])}
							x2={px(b[0])}
							y2={py(b[1])}
							strokeWidth={r.next ? 10 : 5}
							strokeDasharray={r.next ? '28 16' : undefined}
						/>
						{[a, b].map((p, i) => (
							<circle
								key={i === 0 ? 'a' : 'b'}
								cx={px(p[0])}
								cy={py(p[1])}
								r={r.next ? 16 : 9}
								fill={colour}
							/>
						))}
						{r.next && (
							<text
								x={px((a[0] === b[0] ? th[0] + tl[0] : a[0] + b[0]) / 2)}
								// Under a place at the top, so that the figures over it stay free.
								y={py((a[1] + b[1]) / 2) + ((a[1] + b[1]) / 2 > th[1] - 100 ? 1.2 * font : -24)}
								fontSize={font}
								textAnchor="middle"
								className="dim"
								fill={colour}
								stroke="var(--board)"
								strokeWidth={8}
								paintOrder="stroke"
							>
								{say('door.read-here-next')}
							</text>
						)}
					</g>
				);
			})}
		</g>
	);
}

type Shape = ReturnType<typeof shapeOf>;

/** shapeOf is the slab's edges, and the opening round them with its margins magnified. */
function shapeOf(d: Drawing, times: number) {
	const [th, tl, fl, fh] = d.corners as [P, P, P, P];
	const side = (name: string) => d.light.find((l) => l.side === name);
	const lerp = (a: number, b: number, f: number) => a + (b - a) * Math.min(Math.max(f, 0), 1);
	// The slab's own edge at a place along a side.
	const hingeX = (y: number) => lerp(fh[0], th[0], (y - fh[1]) / (th[1] - fh[1]));
	const lockX = (y: number) => lerp(fl[0], tl[0], (y - fl[1]) / (tl[1] - fl[1]));
	const headY = (x: number) => lerp(th[1], tl[1], (x - th[0]) / (tl[0] - th[0]));
	const footY = (x: number) => lerp(fh[1], fl[1], (x - fh[0]) / (fl[0] - fh[0]));

	// The opening's outline, its margins magnified, moved by z sigmas.
	const opening = (z: number): P[] => {
		const g = (name: string, i: number) => {
			const gaps = side(name)?.gaps ?? [];
			const v = gaps[Math.min(Math.max(i, 0), gaps.length - 1)];
			return v ? Math.max(cap(v.mean) + z * Math.min(v.sigma, most), 0) * times : 0;
		};
		const n = (name: string) => (side(name)?.gaps.length ?? 1) - 1;
		const along = (name: string) => side(name)?.gaps ?? [];
		const bottomL = fh[1] - g('foot', 0);
		const bottomR = fl[1] - g('foot', n('foot'));
		const topL = th[1] + g('head', 0);
		const topR = tl[1] + g('head', n('head'));
		const pts: P[] = [[hingeX(bottomL) - g('hinge', 0), bottomL]];
		along('hinge')
			.slice(1, -1)
			.forEach((v, i) => {
				pts.push([hingeX(v.along) - g('hinge', i + 1), v.along]);
			});
		pts.push([th[0] - g('hinge', n('hinge')), topL]);
		along('head')
			.slice(1, -1)
			.forEach((v, i) => {
				pts.push([v.along, headY(v.along) + g('head', i + 1)]);
			});
		pts.push([tl[0] + g('lock', n('lock')), topR]);
		along('lock')
			.slice(1, -1)
			.reverse()
			.forEach((v, i) => {
				pts.push([lockX(v.along) + g('lock', n('lock') - 1 - i), v.along]);
			});
		pts.push([fl[0] + g('lock', 0), bottomR]);
		along('foot')
			.slice(1, -1)
			.reverse()
			.forEach((v, i) => {
				pts.push([v.along, footY(v.along) - g('foot', n('foot') - 1 - i)]);
			});
		return pts;
	};
	const spot = (name: string, along: number, off: number): P => {
		switch (name) {
			case 'hinge':
				return [hingeX(along) - off, along];
			case 'lock':
				return [lockX(along) + off, along];
			case 'head':
				return [along, headY(along) + off];
			default:
				return [along, footY(along) - off];
		}
	};
	const inside = (name: string, along: number) =>
		name === 'hinge' || name === 'lock'
			? along > Math.min(fh[1], fl[1]) && along < Math.max(th[1], tl[1])
			: along > fh[0] && along < tl[0];
	return { hingeX, lockX, opening, spot, inside };
}

type Placed = { d: Drawing; shape: Shape; px: (x: number) => number; py: (y: number) => number };

/** Pinches are strokes where the margin is under the least. */
function Pinches({ d, shape, px, py }: Placed) {
	const { spot, inside } = shape;
	const pinches = d.light.flatMap((l) =>
		l.gaps.map((g, i) => ({ l, g, i })).filter(({ g }) => g.mean < d.least + 0.05 && g.sigma < most),
	);
	return (
		<>
			{pinches.map(({ l, g, i }) => {
				if (!inside(l.side, g.along)) return null;
				const upright = l.side === 'hinge' || l.side === 'lock';
				const [x, y] = spot(l.side, g.along, -6);
				return (
					<g key={`${l.side}${i}`} stroke="var(--on-shade)" strokeWidth={4}>
						{[-36, -18, 0, 18, 36].map((o) => (
							<line
								key={o}
								x1={px(x) + (upright ? -8 : o)}
								x2={px(x) + (upright ? 8 : o + 12)}
								y1={py(y) + (upright ? o : -8)}
								y2={py(y) + (upright ? o + 12 : 8)}
							/>
						))}
					</g>
				);
			})}
		</>
	);
}

/** Furniture is the hinges and the latch. */
function Furniture({ d, shape, flip, px, py, go }: Placed & { flip: 1 | -1; go: Props['go'] }) {
	const { hingeX, lockX } = shape;
	return (
		<>
			{d.hingeTops.map((y) => {
				const x = hingeX(y);
				return (
					// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
					<rect
						key={y}
						className={go && 'cursor-pointer'}
						onClick={() => go?.('hinges')}
						x={px(x) - (flip === 1 ? 14 : 10)}
						y={py(y)}
						width={24}
						height={d.leaf}
						rx={5}
						fill="var(--rod)"
						stroke="var(--rod-edge)"
						strokeWidth={3}
					/>
				);
			})}
			{d.latch !== 0 && (
				// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
				<g className={go && 'cursor-pointer'} onClick={() => go?.('lock')}>
					<rect
						x={px(lockX(d.latch)) - 10}
						y={py(d.latch) - 28}
						width={20}
						height={56}
						rx={4}
						fill="var(--rod)"
						stroke="var(--rod-edge)"
						strokeWidth={3}
					/>
					<circle
						cx={px(lockX(d.latch) - 60)}
						cy={py(d.latch)}
						r={16}
						fill="var(--rod)"
						stroke="var(--rod-edge)"
						strokeWidth={3}
					/>
				</g>
			)}
		</>
	);
}

/** MarginText is a margin beside its place, with its ±. */
function MarginText({
	m,
	d,
	shape,
	times,
	flip,
	px,
	py,
	font,
	small,
	ask,
}: Placed & {
	m: Leaf['light'][number];
	times: number;
	flip: 1 | -1;
	font: number;
	small: number;
	ask: Props['ask'];
}) {
	const unit = useContext(ShownIn);
	const [th, tl, , fh] = d.corners as [P, P, P, P];
	const { spot } = shape;
	const far = (most + 1.5) * Math.min(times, 8);
	const mid = (a: number, b: number) => (a + b) / 2;
	const reach = (v: number) => Math.min(Math.max(v * times, 20), far) + 18;
	const off = reach(Math.min(m.figure.mm, most));
	let p: P;
	let anchor: 'start' | 'middle' | 'end' = 'middle';
	if (m.side === 'hinge' || m.side === 'lock') {
		const y = m.place === 'head' ? th[1] - 90 : m.place === 'foot' ? fh[1] + 90 : mid(th[1], fh[1]);
		p = spot(m.side, y, off);
		anchor = (m.side === 'lock') === (flip === 1) ? 'start' : 'end';
	} else {
		const x =
			m.place === 'hinge-corner' ? th[0] + 90 : m.place === 'lock-corner' ? tl[0] - 90 : mid(th[0], tl[0]);
		p = spot(m.side, x, off + (m.side === 'foot' ? font * 0.75 : 0));
	}
	return (
		// biome-ignore lint/a11y/noStaticElementInteractions: the panel has the same by keyboard
		<text
			x={px(p[0])}
			y={py(p[1]) + (m.side === 'hinge' || m.side === 'lock' ? font * 0.35 : 0)}
			fontSize={font}
			textAnchor={anchor}
			className="dim cursor-help"
			fill="var(--on-shade)"
			onClick={() => ask?.(m)}
			data-margin={`${m.side} ${m.where}`}
		>
			<SvgDigits text={m.figure.text} />
			{pick(m.figure.plusMinus, unit) && (
				<tspan fontSize={small} opacity={0.85}>
					{' '}
					±<SvgDigits text={m.figure.plusMinus} />
				</tspan>
			)}
		</text>
	);
}
