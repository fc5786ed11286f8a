import type { ReactNode } from 'react';
import type { Figure, Leaf, OpeningView } from '../../api/client';
import type { TextId } from '../../words/texts';
import { Both } from '../pair';
import { Trestles } from '../trestles';
import { CutStep } from './cut/form';
import { HingesView } from './hinges/drawing';
import { HingesStep } from './hinges/form';
import { LockView } from './lock/drawing';
import { LockStep } from './lock/form';
import { LogStep } from './log/form';
import { MarginsStep } from './margins/form';
import { MeasureStep } from './measure/form';
import { SlabStep } from './slab/form';
import { Sizes } from './slab/sizes';
import { StopsView } from './stops/drawing';
import { StopsStep } from './stops/form';
import { SwingView } from './swing/drawing';
import { SwingStep } from './swing/form';
import { TryView } from './try/drawing';
import { TryStep } from './try/form';

/** Drawn is the input of a step's drawing. */
export type Drawn = {
	view: OpeningView;
	/** The leaf in hand, 1 or 2, and its plan; hand is the side that it hangs on. */
	which: number;
	leaf: Leaf;
	hand: string;
	/** The magnification of the gaps. */
	times: number;
	pick: (leaf: number) => void;
	ask: (figure: Figure, title: string) => void;
	go: (step: string) => void;
};

type Step = {
	form: () => ReactNode;
	/** Its own drawing; null where there is none yet, and then the opening is drawn. */
	drawing?: (d: Drawn) => ReactNode;
	/** Its own drawing has gaps with a slider for their magnification, as the opening's has. */
	slider?: boolean;
	/** Its own drawing is on light paper, is printed, and has a caption. */
	caption?: TextId;
	/** The opening is drawn with the places of readings, or with the gaps found. */
	shows?: 'places' | 'found';
	/** The height of the drawing on a phone; otherwise a third of the screen. */
	tall?: string;
};

const measure: Step = { form: MeasureStep, shows: 'places', tall: 'h-[21dvh]' };

/** table has, for each step by its ID, what the page needs of it. */
const table: Record<string, Step> = {
	measure,
	slab: {
		form: SlabStep,
		drawing: (d) =>
			d.leaf.drawing && (
				<Both view={d.view} which={d.which} pick={d.pick}>
					{(l, slab) => <Sizes leaf={l} slab={slab} />}
				</Both>
			),
	},
	margins: { form: MarginsStep },
	cut: { form: CutStep, drawing: chalked, caption: 'door.chalk-lines-on-the-uncut' },
	hinges: {
		form: HingesStep,
		drawing: (d) =>
			d.leaf.hinges.length > 0 && (
				<Both view={d.view} which={d.which} pick={d.pick}>
					{(l, _, side) => (
						<HingesView leaf={l} hand={side} whole={d.view.opening.hinges.from === 'whole'} ask={d.ask} />
					)}
				</Both>
			),
	},
	swing: {
		form: SwingStep,
		drawing: (d) => d.leaf.swing && <SwingView swing={d.leaf.swing} hand={d.hand} />,
		tall: 'h-[48dvh]',
	},
	lock: {
		form: LockStep,
		drawing: (d) =>
			d.leaf.hardware.length > 0 && (
				<Both view={d.view} which={d.which} pick={d.pick}>
					{(l, slab, side) =>
						l.hardware.length > 0 ? (
							<LockView leaf={l} hand={side} thickness={slab.thickness} />
						) : (
							<Sizes leaf={l} slab={slab} />
						)
					}
				</Both>
			),
	},
	try: { form: TryStep, drawing: (d) => hung(d), slider: true, shows: 'found', tall: 'h-[21dvh]' },
	stops: {
		form: StopsStep,
		drawing: (d) =>
			d.leaf.stops && (
				<Both view={d.view} which={d.which} pick={d.pick}>
					{(l, slab, side) => <StopsView leaf={l} hand={side} thickness={slab.thickness} />}
				</Both>
			),
	},
	log: { form: LogStep, drawing: (d) => hung(d, true), slider: true, shows: 'found' },
};

/** stepOf is a step by its ID; the first step for an unknown one. */
export function stepOf(id: string): Step {
	return table[id] ?? measure;
}

/** chalked is the uncut slab with its chalk lines, while no readings clash. */
function chalked(d: Drawn) {
	if (!d.leaf.cut || d.view.plan.clashes.length > 0) return null;
	return (
		<Both view={d.view} which={d.which} pick={d.pick}>
			{(l, slab, side) =>
				l.cut && (
					<Trestles
						cut={l.cut}
						width={slab.width}
						length={slab.length}
						hand={side}
						times={4}
						className="w-full h-full p-2"
					/>
				)
			}
		</Both>
	);
}

/** hung is a single slab as it hangs, once its gaps were read. */
function hung(d: Drawn, told = false) {
	const { leaf, view } = d;
	if (view.plan.leaves.length > 1 || !leaf.drawing || !leaf.try?.found.length) return null;
	return <TryView leaf={leaf} hand={d.hand} times={d.times} name={view.opening.name} told={told} />;
}
