import { Said, useAttempt } from '../../../api/attempt';
import type { Unit } from '../../../api/client';
import { Checkbox } from '../../../ui/checkbox';
import { say } from '../../../words/texts';
import { named, trade } from '../../../words/trade';
import { Choose, LengthField } from '../../field';
import { useOpening } from '../../state';
import { HandChoice } from './hand';
import { beginFrame } from './lining';

/** GoAbout is the method of measuring, which decides what is offered. */
export function GoAbout() {
	const { view } = useOpening();
	const begun = view.opening.readings.length > 0;
	const now = named(trade.measurings, view.opening.measuring ?? '');
	const choose = (
		<Choose
			pointer="/measuring"
			label={say('measure.how-do-you-measure')}
			unset=""
			options={trade.measurings.map((m) => ({
				value: m.id,
				text: m.name,
				note: m.why,
				also: m.id === 'frame' && !view.opening.lining ? beginFrame(view.job.unit as Unit) : [],
			}))}
		/>
	);
	if (!begun) return choose;
	return (
		<details className="mb-2">
			<summary className="cursor-pointer min-h-11 flex items-center gap-2 underline decoration-dotted underline-offset-4">
				{say('measure.measured-now', { now: now.name })}
			</summary>
			{choose}
		</details>
	);
}

/** AboutOpening is what is known of the opening before any reading. */
export function AboutOpening() {
	const { view } = useOpening();
	const o = view.opening;
	return (
		<details className="mb-3" data-about>
			<summary className="cursor-pointer min-h-11 flex items-center gap-2 underline decoration-dotted underline-offset-4">
				{say('measure.hinges-on-the-hand-seen', { hand: o.hand, name: named(trade.walls, o.walls).name })}
			</summary>
			<div className="pt-2">
				<HandChoice hand={o.hand} seen={o.seen} />
				<Choose
					pointer="/walls"
					label={say('measure.the-opening')}
					options={trade.walls.map((w) => ({ value: w.id, text: w.name, note: w.why }))}
				/>
				<LengthField
					pointer="/between"
					label={say('measure.between-what-stands-left-and')}
					note={say('measure.optional-it-catches-a-width')}
					optional
				/>
				<PairOfDoors />
			</div>
		</details>
	);
}

/** PairOfDoors makes the opening one for two leaves. */
function PairOfDoors() {
	const { view, save } = useOpening();
	const pair = view.opening.pair;
	const [error, attempt] = useAttempt();
	const toggle = async (on: boolean) => {
		const inch = view.job.unit === 'in';
		const value = {
			slab: { width: 0, length: 0, thickness: 0 },
			meeting: inch ? '5/32' : '4',
			fixed: 'lock',
		};
		await attempt(async () => {
			await save(
				[on ? { op: 'add', path: '/pair', value } : { op: 'remove', path: '/pair' }],
				on ? say('measure.a-pair-of-doors') : say('measure.a-single-door'),
			);
		});
	};
	return (
		<div className="mt-3 grid gap-2">
			<Checkbox data-field="pair" checked={!!pair} onChange={(e) => toggle(e.target.checked)}>
				{say('measure.a-pair-of-doors-meeting')}
			</Checkbox>
			{pair && (
				<>
					<div className="grid sm:grid-cols-2 gap-3">
						<LengthField pointer="/pair/meeting" label={say('measure.margin-between-them')} />
						<LengthField
							pointer="/pair/offset"
							label={say('measure.meeting-line-off-the-middle')}
							note={say('measure.toward-the-lock-jamb-minus')}
							optional
						/>
					</div>
					<Choose
						pointer="/pair/fixed"
						label={say('measure.the-leaf-that-is-bolted')}
						row
						options={[
							{ value: 'hinge', text: say('jamb.hinge') },
							{ value: 'lock', text: say('jamb.lock') },
						]}
					/>
				</>
			)}
			<Said error={error} />
		</div>
	);
}
