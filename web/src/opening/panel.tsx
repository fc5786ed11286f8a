import { Link } from 'react-router';
import type { Unit } from '../api/client';
import { Doubtful } from '../ui/length';
import { Cautions, Findings } from '../ui/says';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';
import { handName, jambName, stepName } from '../words/trade';
import { Changed } from './changed';
import { Clash } from './clash';
import { BothLeaves } from './leaves';
import { Onward } from './onward';
import { SettleKey, useSettle } from './settle';
import { useOpening } from './state';
import { Photos } from './steps/log/photos';
import { stepOf } from './steps/table';

type Props = {
	step: string;
	to: (step: string) => string;
	/** The address of the house. */
	walk: string;
	/** The unit that figures are shown in. */
	shown: Unit;
	pick: (leaf: number) => void;
};

/** Panel is the step in hand beside its drawing: findings, its form, photographs, and the way onward. */
export function Panel({ step, to, walk, shown, pick }: Props) {
	const { view: v, leaf, which } = useOpening();
	const Form = stepOf(step).form;
	const pair = v.plan.leaves.length === 2;
	const doubtful = v.plan.clashes.length > 0;
	const found = [...v.plan.findings, ...leaf.findings];
	const findings = found.filter((f) => f.step === step);
	useSettle();
	const key = (f: (typeof found)[number]) => <SettleKey finding={f} step={step} to={to} />;
	const elsewhere = found.filter((f) => f.step !== step && f.gravity === 'stop');
	return (
		<main
			className="relative lg:w-[29rem] xl:w-[32rem] shrink-0 lg:overflow-y-auto p-4 max-lg:pb-14 sm:px-5"
			key={step}
		>
			<Doubtful value={doubtful}>
				<p className="hidden print:block text-xl font-bold">
					{v.job.name}: {v.opening.name}
					{v.opening.room && `, ${v.opening.room}`}
					{say('door.printed', { hand: handName(v.opening.hand), unit: shown })}
				</p>
				<h1 className="text-2xl mb-2 max-lg:sr-only" tabIndex={-1} data-home data-at={step}>
					{stepName(step)}
				</h1>
				<Changed step={step} />
				<Clash step={step} />
				{elsewhere.length > 0 && step !== 'measure' && !doubtful && (
					<Findings list={elsewhere.slice(0, 2)} action={key} />
				)}
				{pair && step !== 'measure' && <WhichLeaf which={which} pick={pick} />}
				{pair && (step === 'slab' || step === 'cut') && <BothLeaves step={step} />}
				{v.opening.signed && step !== 'log' && (
					<p className="border-l-8 border-success pl-3 mb-3" data-locked>
						<Phrase
							id="door.signed"
							of={{
								by: v.opening.signed.by,
								on: v.opening.signed.on,
								again: (
									<Link className="link" to={to('log')}>
										{say('door.open-it-again')}
									</Link>
								),
							}}
						/>
					</p>
				)}
				{/* In the middle of a try the next gap comes first, and tells of what is wrong after it. */}
				{!(step === 'try' && leaf.try?.hangs.length) && (
					<Findings list={doubtful && step === 'measure' ? findings.slice(1) : findings} action={key} />
				)}
				<Form key={which} />
				{/* The next reading comes first. */}
				{pair && step === 'measure' && <BothLeaves step={step} />}
				<Photos step={step} />
				<Onward step={step} to={to} walk={walk} />
				<Cautions step={step} />
			</Doubtful>
		</main>
	);
}

/** WhichLeaf chooses the leaf of a pair. */
function WhichLeaf({ which, pick }: { which: number; pick: (leaf: number) => void }) {
	return (
		<fieldset className="join mb-3 max-w-full" aria-label={say('door.leaf')}>
			{[1, 2].map((n) => (
				<button
					key={n}
					type="button"
					className={`btn join-item shrink h-auto min-h-11 py-1 ${which === n ? 'btn-neutral' : ''}`}
					aria-pressed={which === n}
					data-leaf={n}
					onClick={() => pick(n)}
				>
					{say('page.leaf-on', { jamb: jambName(n === 1 ? 'hinge' : 'lock') })}
				</button>
			))}
		</fieldset>
	);
}
