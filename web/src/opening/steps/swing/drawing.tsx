import { Play } from 'lucide-react';
import { useContext, useEffect, useId, useState } from 'react';
import type { Swing } from '../../../api/client';
import { footAt, grabbed, outline, type P } from '../../../ui/geometry';
import { pick, ShownIn } from '../../../ui/length';
import { useLegible } from '../../../ui/unit';
import { Phrase } from '../../../words/phrase';
import { say } from '../../../words/texts';

const still = () => matchMedia('(prefers-reduced-motion: reduce)').matches;

/** How long the slab takes to swing by itself, in ms. */
const lasts = 1600;

/**
 * SwingView shows the slab from above, its lock edge through the margin, and its foot over the floor; it is swung by
 * drag, key or slider.
 */
export function SwingView({ swing: w, hand }: { swing: Swing; hand: string }) {
	const unit = useContext(ShownIn);
	const { angle, setAngle, setMoving } = useSwung(w.opens);
	const text = useLegible();
	const slab = w.slab as P[];
	const reach = Math.max(...slab.map(([x, z]) => Math.hypot(x, z)));
	const mirror = hand === 'right' ? -1 : 1;
	const now = footAt(w.foot, angle);
	const drag = (e: React.PointerEvent<SVGSVGElement>) => {
		const m = e.currentTarget.getScreenCTM();
		if (e.buttons !== 1 || !m) return;
		const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(m.inverse());
		setMoving(false);
		setAngle(grabbed([at.x * mirror, at.y], w.opens));
	};
	const said = say('swing.angle-degrees-clear-unit-over', {
		angle: Math.round(angle),
		clear: pick(now.clear.text, unit),
		unit,
	});
	const { beside, things } = w;
	const left = Math.min(reach * Math.cos((Math.min(w.opens, 165) * Math.PI) / 180), -reach * 0.3);
	const lock = slab[1] as P;
	// Past a pair's other leaf the wall goes on.
	const paired = beside.leaf;
	const wall = paired ? Math.max(...beside.parts.flat().map(([x]) => x ?? 0)) + 3 : lock[0] + 6;
	const right = paired ? wall : reach;
	const view = { x: left - 60, y: -170, w: right - left + 160, h: reach + 230 };
	return (
		<div className="absolute inset-0 flex flex-col text-[var(--on-shade)]" data-swing>
			<svg
				ref={text.ref}
				viewBox={`${mirror === 1 ? view.x : -view.x - view.w} ${view.y} ${view.w} ${view.h}`}
				className="grow min-h-0 w-full touch-none cursor-grab"
				role="img"
				aria-label={say('swing.the-door-from-above-open', { said })}
				onPointerDown={drag}
				onPointerMove={drag}
			>
				<FromAbove swing={w} angle={angle} mirror={mirror} />
				{things.map((t) => {
					const [x, y] = t.shape[2] as P;
					return (
						<text
							key={t.id}
							x={mirror * x}
							y={y + reach / 16}
							fontSize={text.label(reach / 18)}
							textAnchor="middle"
							fill="var(--on-shade)"
						>
							{t.name}
						</text>
					);
				})}
				<text
					x={mirror * reach * 0.5}
					y={-90}
					fontSize={text.figure(reach / 15)}
					textAnchor="middle"
					fill="var(--on-shade)"
					className="dim"
				>
					{Math.round(angle)}°
				</text>
			</svg>
			<div className="flex items-stretch gap-3 px-3 h-[34%] min-h-0">
				<EdgePasses swing={w} angle={angle} mirror={mirror} />
				<figure className="grow min-w-0 flex flex-col">
					<FloorStrip swing={w} angle={angle} />
					<figcaption className="text-sm leading-tight">
						{say('swing.over-the-floor-under-the', {
							clear: pick(now.clear.text, unit),
							least: pick(w.least.text, unit),
							leastAt: w.leastAt,
						})}
					</figcaption>
				</figure>
			</div>
			<Bar
				swing={w}
				angle={angle}
				said={said}
				set={setAngle}
				play={() => setMoving(true)}
				stop={() => setMoving(false)}
			/>
		</div>
	);
}

/** FloorStrip draws the foot over the floor from closed to open, with the gap between as light. */
function FloorStrip({ swing: w, angle }: { swing: Swing; angle: number }) {
	const top = Math.max(...w.foot.map((f) => f.clear.mm + f.floor)) + 6;
	const low = Math.min(0, ...w.foot.map((f) => f.floor)) - 4;
	const across = (a: number) => (a / Math.max(w.opens, 1)) * 360;
	const foot = w.foot.map((f): P => [across(f.angle), -(f.clear.mm + f.floor)]);
	const floor = w.foot.map((f): P => [across(f.angle), -f.floor]);
	return (
		<svg
			viewBox={`0 ${-top} 360 ${top - low}`}
			preserveAspectRatio="none"
			className="grow min-h-0 w-full"
			style={{ background: 'var(--board)' }}
			role="img"
			aria-label={say('swing.the-bottom-over-the-floor')}
		>
			<path d={outline([...foot, ...floor.slice().reverse()])} fill="var(--light)" />
			<path d={outline([...floor, [360, -low], [0, -low]])} fill="var(--floor)" />
			<line
				x1={across(angle)}
				x2={across(angle)}
				y1={-top}
				y2={-low}
				stroke="var(--on-shade)"
				strokeWidth={2}
				vectorEffect="non-scaling-stroke"
			/>
		</svg>
	);
}

/** useSwung is how far the slab is open, animated or held. */
function useSwung(opens: number) {
	const [angle, setAngle] = useState(0);
	const [moving, setMoving] = useState(false);
	useEffect(() => {
		if (!moving) return;
		if (still()) {
			setAngle(opens);
			setMoving(false);
			return;
		}
		let frame = 0;
		let from: number | undefined;
		const step = (t: number) => {
			from ??= t;
			const f = Math.min((t - from) / lasts, 1);
			// It eases in and out.
			setAngle(opens * f * f * (3 - 2 * f));
			if (f < 1) frame = requestAnimationFrame(step);
			else setMoving(false);
		};
		frame = requestAnimationFrame(step);
		return () => cancelAnimationFrame(frame);
	}, [moving, opens]);
	return { angle, setAngle, setMoving };
}

type Shown = { swing: Swing; angle: number; mirror: number };

/** FromAbove is the slab in plan, with what it passes and the obstacles. */
function FromAbove({ swing: w, angle, mirror }: Shown) {
	const slab = w.slab as P[];
	const { beside, things } = w;
	const reach = Math.max(...slab.map(([x, z]) => Math.hypot(x, z)));
	const lock = slab[1] as P;
	// Past a pair's other leaf the wall goes on.
	const paired = beside.leaf;
	const wall = paired ? Math.max(...beside.parts.flat().map(([x]) => x ?? 0)) + 3 : lock[0] + 6;
	return (
		<g transform={`scale(${mirror} 1)`}>
			<path
				d={`M0 0 L${reach} 0 A${reach} ${reach} 0 0 1 ${reach * Math.cos((angle * Math.PI) / 180)} ${reach * Math.sin((angle * Math.PI) / 180)} Z`}
				fill="var(--light)"
				opacity={0.35}
			/>
			<path
				d={`M${reach} 0 A${reach} ${reach} 0 0 1 ${reach * Math.cos((w.opens * Math.PI) / 180)} ${reach * Math.sin((w.opens * Math.PI) / 180)}`}
				fill="none"
				stroke="var(--on-shade)"
				strokeWidth={3}
				strokeDasharray="14 14"
			/>
			<rect
				x={-3000}
				y={slab[3]?.[1] ?? 0}
				width={3000 - 2}
				height={-((slab[3]?.[1] ?? 0) - lock[1])}
				fill="var(--shade-deep)"
			/>
			<rect
				x={wall}
				y={slab[3]?.[1] ?? 0}
				width={3000}
				height={-((slab[3]?.[1] ?? 0) - lock[1])}
				fill="var(--shade-deep)"
			/>
			{paired &&
				beside.parts.map((part) => (
					<path
						key={part.join()}
						d={outline(part as P[])}
						fill="var(--board)"
						stroke="var(--board-line)"
						strokeWidth={4}
						opacity={w.second ? 0.4 : 1}
					/>
				))}
			{w.stop.length > 0 && <path d={outline(w.stop as P[])} fill="var(--rod)" />}
			{things.map((t) => (
				<path
					key={t.id}
					d={outline(t.shape as P[])}
					fill="var(--floor)"
					stroke="var(--on-shade)"
					strokeWidth={t.id === w.againstId ? 8 : 3}
				/>
			))}
			<g transform={`rotate(${angle})`}>
				{w.parts.map((part) => (
					<path
						key={part.join()}
						d={outline(part as P[])}
						fill="var(--board)"
						stroke="var(--board-line)"
						strokeWidth={4}
					/>
				))}
			</g>
			<circle r={9} fill="var(--light)" />
		</g>
	);
}

/** EdgePasses is the lock edge, enlarged, as it passes what is beside it. */
function EdgePasses({ swing: w, angle, mirror }: Shown) {
	const unit = useContext(ShownIn);
	const slab = w.slab as P[];
	const lock = slab[1] as P;
	const { beside } = w;
	return (
		<figure className="w-1/3 min-w-0 flex flex-col">
			<svg
				viewBox={
					mirror === 1
						? `${lock[0] - 26} ${(slab[2]?.[1] ?? 0) - 8} 48 ${lock[1] - (slab[2]?.[1] ?? 0) + 26}`
						: `${-lock[0] - 22} ${(slab[2]?.[1] ?? 0) - 8} 48 ${lock[1] - (slab[2]?.[1] ?? 0) + 26}`
				}
				className="grow min-h-0 w-full"
				style={{ background: 'var(--light)' }}
				role="img"
				aria-label={say('swing.the-lock-edge-passing-what')}
			>
				<g transform={`scale(${mirror} 1)`}>
					{beside.parts.map((part) => (
						<path key={part.join()} d={outline(part as P[])} fill="var(--shade-deep)" />
					))}
					{w.parts.map((part) => (
						<path key={part.join()} d={outline(part as P[])} fill="var(--board)" opacity={0.35} />
					))}
					<g transform={`rotate(${angle})`}>
						{w.parts.map((part) => (
							<path key={part.join()} d={outline(part as P[])} fill="var(--board)" />
						))}
					</g>
					{[slab[1], slab[2]].map(
						(corner) =>
							corner && (
								<circle
									key={corner.join()}
									r={Math.hypot(...corner)}
									fill="none"
									stroke="var(--board)"
									strokeWidth={0.5}
									strokeDasharray="2 1.2"
								/>
							),
					)}
				</g>
			</svg>
			<figcaption className="text-sm leading-tight">
				<Phrase
					id="swing.past-the-name-dashed-at"
					of={{
						name: beside.name,
						dashed: <span className="max-lg:hidden">{say('swing.the-path-of-its-corners')}</span>,
						clear: pick(w.clear.text, unit),
						angle: w.clearAt,
					}}
				/>
			</figcaption>
		</figure>
	);
}

/** Bar swings the slab, or holds it at an angle. */
function Bar({
	swing: w,
	angle,
	said,
	set,
	play,
	stop,
}: {
	swing: Swing;
	angle: number;
	said: string;
	set: (angle: number) => void;
	play: () => void;
	stop: () => void;
}) {
	const ticks = useId();
	return (
		<div className="flex items-center gap-3 px-3 pb-2 pt-1">
			<button type="button" className="btn btn-sm h-11" data-play onClick={play}>
				<Play size={18} aria-hidden="true" /> {say('swing.swing-it')}
			</button>
			<label className="grow flex items-center gap-2">
				<span className="sr-only">{say('swing.how-far-the-door-stands')}</span>
				<input
					type="range"
					min={0}
					max={w.opens}
					step={1}
					value={Math.round(angle)}
					list={ticks}
					className="grow h-11 accent-[var(--light)]"
					data-field="swing-angle"
					aria-valuetext={said}
					onChange={(e) => {
						stop();
						set(Number(e.target.value));
					}}
				/>
				<datalist id={ticks}>
					<option value={Math.round(w.clearAt)} />
					<option value={Math.round(w.leastAt)} />
				</datalist>
			</label>
		</div>
	);
}
