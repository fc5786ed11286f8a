import type { Leaf } from '../api/client';
import { SvgDigits } from '../ui/length';
import { useLegible } from '../ui/unit';
import { say } from '../words/texts';
import { edgeName } from '../words/trade';

type Cut = NonNullable<Leaf['cut']>;

/**
 * Trestles draws the uncut slab, lying on its push face with the hinge edge where the opening has it, and its chalk
 * lines. What comes off is magnified; the slab is at scale.
 */
export function Trestles({
	cut,
	width,
	length,
	hand,
	times,
	className,
}: {
	cut: Cut;
	width: number;
	length: number;
	hand: string;
	times: number;
	className?: string;
}) {
	const pad = 250;
	const px = (x: number) => (hand === 'right' ? width - x : x);
	const edge = (side: string) => cut.edges.find((e) => e.side === side);
	const depth = (side: string, end: number) => {
		const marks = edge(side)?.marks ?? [];
		const m = marks[end === 0 ? 0 : marks.length - 1];
		return Math.min((m?.depth.mm ?? 0) * times, 170);
	};
	// Corners of the chalk outline: top hinge, top lock, foot lock, foot hinge.
	const text = useLegible();
	const chalk = [
		[depth('hinge', 0), depth('head', 0)],
		[width - depth('lock', 0), depth('head', 1)],
		[width - depth('lock', 1), length - depth('foot', 1)],
		[depth('hinge', 1), length - depth('foot', 0)],
	] as [number, number][];
	const points = (p: [number, number][]) => p.map(([x, y]) => `${px(x)},${y}`).join(' ');
	const [font, small] = [text.figure(58), text.label(38)];
	const label = (side: string, i: number) => {
		const m = edge(side)?.marks[i];
		if (!m) return null;
		let x = m.at.mm;
		let y = side === 'head' ? -22 : length + font;
		let anchor: 'start' | 'middle' | 'end' = 'middle';
		if (side === 'hinge' || side === 'lock') {
			y = Math.min(Math.max(m.at.mm, 40), length - 20) + 14;
			x = side === 'hinge' ? -24 : width + 24;
			anchor = (side === 'lock') === (hand === 'left') ? 'start' : 'end';
		} else x = Math.min(Math.max(x, 60), width - 60);
		return (
			<text
				key={side + i}
				x={px(x)}
				y={y}
				fontSize={font}
				textAnchor={anchor}
				className="dim"
				fill="currentColor"
			>
				<SvgDigits text={m.depth.text} />
			</text>
		);
	};
	const name = (says: string, x: number, y: number, turn = 0) => (
		<text
			x={px(x)}
			y={y}
			fontSize={small}
			textAnchor="middle"
			fill="var(--board-ink)"
			opacity={0.85}
			transform={turn ? `rotate(${turn} ${px(x)} ${y})` : undefined}
		>
			{says}
		</text>
	);
	return (
		<svg
			ref={text.ref}
			viewBox={`${-pad} -150 ${width + 2 * pad} ${length + 300}`}
			className={`overflow-visible ${className ?? ''}`}
			role="img"
			aria-label={say('cut.the-uncut-slab-with-the')}
			data-view="chalk"
		>
			<title>{say('cut.the-uncut-slab-with-the')}</title>
			<defs>
				<pattern id="off" width="22" height="22" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
					<rect width="22" height="22" fill="var(--board-line)" />
					<line x1="0" y1="0" x2="0" y2="22" stroke="var(--rod)" strokeWidth="10" />
				</pattern>
			</defs>
			<rect x={0} y={0} width={width} height={length} fill="url(#off)" />
			<polygon points={points(chalk)} fill="var(--board)" />
			<polygon
				points={points(chalk)}
				fill="none"
				stroke="var(--light)"
				strokeWidth={7}
				strokeDasharray="40 14"
			/>
			<rect x={0} y={0} width={width} height={length} fill="none" stroke="currentColor" strokeWidth={4} />
			{name(edgeName('head'), width / 2, depth('head', 0) + 1.5 * small)}
			{name(edgeName('foot'), width / 2, length - Math.max(depth('foot', 0), depth('foot', 1)) - small)}
			{name(edgeName('hinge'), Math.max(depth('hinge', 0), depth('hinge', 1)) + 1.4 * small, length / 2, -90)}
			{name(
				edgeName('lock'),
				width - Math.max(depth('lock', 0), depth('lock', 1)) - 1.4 * small,
				length / 2,
				90,
			)}
			{['hinge', 'lock'].flatMap((s) => [0, 1, 2, 3, 4].map((i) => label(s, i)))}
			{['head', 'foot'].flatMap((s) => [0, 1, 2].map((i) => label(s, i)))}
		</svg>
	);
}
