import type { ReactNode } from 'react';
import { say, type TextId } from '../../../words/texts';
import type { Open } from './open';

const wall = { fill: 'var(--rod)', stroke: 'var(--rod-edge)', strokeWidth: 2 };
const tool = { fill: 'var(--board)', stroke: 'var(--board-line)', strokeWidth: 2 };
const read = { stroke: 'var(--chalk)', strokeWidth: 5 };

/** The part of the wall, the tool on it and the gap between them, by kind: one picture of plus, one of minus. */
const pictures: Record<string, { box: string; caption: TextId; plus: ReactNode; minus: ReactNode }> = {
	straight: {
		box: '0 46 200 70',
		caption: 'measure.how-straight',
		plus: (
			<>
				<path d="M10 90 Q100 55 190 90 V110 H10 Z" {...wall} transform="matrix(1 0 0 -1 0 172)" />
				<rect x={10} y={52} width={180} height={12} {...tool} />
				<line x1={100} y1={64} x2={100} y2={81} {...read} />
			</>
		),
		minus: (
			<>
				<path d="M10 90 Q100 55 190 90 V110 H10 Z" {...wall} />
				<rect x={10} y={58} width={180} height={12} {...tool} />
				<line x1={16} y1={70} x2={16} y2={88} {...read} />
				<line x1={184} y1={70} x2={184} y2={88} {...read} />
			</>
		),
	},
	plumb: {
		box: '0 4 200 112',
		caption: 'measure.how-plumb',
		plus: (
			<>
				<path d="M20 10 L60 10 L40 110 L20 110 Z" {...wall} />
				<rect x={61} y={10} width={12} height={100} {...tool} />
				<line x1={41} y1={104} x2={61} y2={104} {...read} />
			</>
		),
		minus: (
			<>
				<path d="M20 10 L40 10 L60 110 L20 110 Z" {...wall} />
				<rect x={61} y={10} width={12} height={100} {...tool} />
				<line x1={41} y1={16} x2={61} y2={16} {...read} />
			</>
		),
	},
	level: {
		box: '0 50 200 66',
		caption: 'measure.how-level',
		plus: (
			<>
				<path d="M10 90 L190 70 V110 H10 Z" {...wall} />
				<rect x={10} y={57} width={180} height={12} {...tool} />
				<line x1={18} y1={69} x2={18} y2={89} {...read} />
			</>
		),
		minus: (
			<>
				<path d="M10 70 L190 90 V110 H10 Z" {...wall} />
				<rect x={10} y={57} width={180} height={12} {...tool} />
				<line x1={182} y1={69} x2={182} y2={89} {...read} />
			</>
		),
	},
	square: {
		box: '0 4 200 112',
		caption: 'measure.how-square',
		plus: (
			<>
				<path d="M10 110 V10 H190 V16 L30 30 V110 Z" {...wall} />
				<path d="M31 31 H170 V43 H47 V110 H31 Z" {...tool} />
				<line x1={164} y1={19} x2={164} y2={31} {...read} />
			</>
		),
		minus: (
			<>
				<path d="M10 110 V10 H190 V34 L30 20 V110 Z" {...wall} />
				<path d="M31 35 H170 V47 H47 V110 H31 Z" {...tool} />
				<line x1={38} y1={22} x2={38} y2={35} {...read} />
			</>
		),
	},
	gap: {
		box: '0 4 200 112',
		caption: 'measure.how-gap',
		plus: (
			<>
				<rect x={20} y={10} width={50} height={100} {...wall} />
				<rect x={88} y={10} width={92} height={100} {...tool} />
				<line x1={70} y1={60} x2={88} y2={60} {...read} />
			</>
		),
		minus: (
			<>
				<rect x={20} y={10} width={70} height={100} {...wall} />
				<rect x={70} y={10} width={110} height={100} {...tool} />
				<line x1={90} y1={10} x2={90} y2={110} {...read} strokeWidth={2} strokeDasharray="6 4" />
				<line x1={70} y1={60} x2={90} y2={60} {...read} />
			</>
		),
	},
};

/** HowTo shows what is plus and what is minus in a reading; it is open until the first of its kind is taken. */
export function HowTo({ r, first }: { r: Open; first: boolean }) {
	const p = pictures[r.kind];
	if (!p) return null;
	const drawn = (sign: string, what: ReactNode) => (
		<figure className="flex items-center gap-1">
			<span className="text-2xl font-bold w-5 text-center">{sign}</span>
			<svg viewBox={p.box} className="w-full max-w-44" role="presentation">
				{what}
			</svg>
		</figure>
	);
	return (
		<details open={first} className="mt-2" data-how={r.kind} key={r.kind}>
			<summary className="min-h-11 flex items-center cursor-pointer underline decoration-dotted underline-offset-4">
				{say('measure.plus-and-minus')}
			</summary>
			<div className="grid grid-cols-2 gap-2">
				{drawn('+', p.plus)}
				{drawn('−', p.minus)}
			</div>
			<p className="text-[0.95rem] mt-1">{say(p.caption)}</p>
			{r.turned && (
				<div className="flex items-center gap-3 mt-2" data-how-turned>
					<svg viewBox="0 0 200 70" className="w-full max-w-44 shrink-0" role="presentation">
						<rect x={15} y={46} width={170} height={14} {...tool} />
						<circle cx={40} cy={53} r={5} fill="var(--chalk)" />
						<path d="M40 38 C60 2 140 2 158 32" fill="none" {...read} strokeWidth={4} />
						<path d="M146 26 L159 36 L163 20" fill="none" {...read} strokeWidth={4} />
						<circle cx={160} cy={53} r={5} fill="none" {...read} strokeWidth={2} />
					</svg>
					<p className="text-[0.95rem]">{say('measure.how-turned')}</p>
				</div>
			)}
		</details>
	);
}
