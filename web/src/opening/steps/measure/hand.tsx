import type { Schemas } from '../../../api/client';
import { say } from '../../../words/texts';
import { handName, trade } from '../../../words/trade';
import { Choose } from '../../field';

/** HandPicture shows a person on the pull side, with the slab opening toward them. */
function HandPicture({ hand }: { hand: string }) {
	const flip = hand === 'right' ? -1 : 1;
	return (
		<svg viewBox="-70 -14 140 104" className="w-full h-28" aria-hidden="true">
			<g transform={`scale(${flip} 1)`}>
				<rect x={-70} y={-6} width={30} height={12} fill="var(--shade-deep)" />
				<rect x={40} y={-6} width={30} height={12} fill="var(--shade-deep)" />
				<path
					d="M-40 0 A80 80 0 0 1 16.6 56.6 L-40 0"
					fill="var(--light)"
					opacity={0.6}
					transform="rotate(-45 -40 0)"
				/>
				<rect
					x={-40}
					y={-4}
					width={80}
					height={7}
					fill="var(--board)"
					stroke="var(--board-line)"
					transform="rotate(35 -40 0)"
				/>
				<circle cx={-40} cy={2} r={4} fill="var(--rod-ink)" />
			</g>
			<g fill="currentColor">
				<circle cx={0} cy={72} r={7} />
				<ellipse cx={0} cy={72} rx={17} ry={6} opacity={0.5} />
			</g>
		</svg>
	);
}

/** HandChoice asks once which side the hinges are on, seen by the person in the picture, with each market's words. */
export function HandChoice({ hand, seen }: { hand: string; seen?: Schemas['Seen'] }) {
	const side = hand === 'right' ? 'right' : 'left';
	return (
		<section className="mb-3" data-hand={side}>
			<div className="grid grid-cols-[7.5rem_1fr] gap-3 items-center">
				<HandPicture hand={side} />
				<Choose
					pointer="/hand"
					label={say('measure.stand-where-the-door-comes')}
					row
					options={[
						{ value: 'left', text: handName('left') },
						{ value: 'right', text: handName('right') },
					]}
				/>
			</div>
			<dl className="text-sm grid grid-cols-[auto_1fr] gap-x-3 mb-2">
				{trade.handings.map((h) => (
					<div key={h.market} className="contents">
						<dt className="opacity-80">{h.market}</dt>
						<dd className="font-semibold">{h[side]}</dd>
					</div>
				))}
			</dl>
			<div className="grid sm:grid-cols-2 gap-x-4">
				<Choose
					pointer="/seen/pockets"
					label={say('measure.old-hinge-recesses-are-on')}
					row
					unset={seen?.pockets || 'none'}
					options={jambs()}
				/>
				<Choose
					pointer="/seen/strike"
					label={say('measure.the-old-keep-is-on')}
					row
					unset={seen?.strike || 'none'}
					options={jambs()}
				/>
			</div>
		</section>
	);
}

const jambs = () => [
	{ value: 'left', text: handName('left') },
	{ value: 'right', text: handName('right') },
	{ value: 'none', text: say('page.none'), remove: true },
];
