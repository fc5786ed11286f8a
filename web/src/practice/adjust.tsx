import { useState } from 'react';
import type { Schemas, Unit } from '../api/client';
import { Cautions } from '../ui/says';
import { Tape } from '../ui/tape';
import { say } from '../words/texts';
import { withUnit } from './geometry';
import type { Doing } from './read';

type Move = Schemas['Move'];

/** Adjust is the work on the hung slab. */
export function Adjust({ move, unit, goesIn }: Doing & { unit: Unit; goesIn: boolean }) {
	const blank = {
		top: '',
		bottom: '',
		lockFoot: '',
		lockHead: '',
		headHinge: '',
		headLock: '',
		footHinge: '',
		footLock: '',
	};
	const [did, setDid] = useState(blank);
	const field = (id: keyof typeof did, label: string) => (
		<Tape
			id={`did-${id}`}
			label={label}
			value={did[id]}
			unit={unit}
			placeholder="0"
			onChange={(t) => setDid({ ...did, [id]: t })}
			onEnter={() => undefined}
		/>
	);
	const l = (t: string) => withUnit(t || '0', unit) as unknown as number;
	const planed = (side: 'lock' | 'head' | 'foot', a: string, b: string) =>
		a || b ? [{ side, off: [l(a), l('0'), l(b)] as unknown as never }] : [];
	return (
		<>
			{!goesIn && (
				<p className="text-lg mb-2 border-l-4 border-warning pl-3">{say('practising.it-does-not-go-in')}</p>
			)}
			<fieldset className="grid grid-cols-2 gap-x-3 gap-y-2 mb-2">
				<legend className="text-lg">{say('practising.pack-out-minus-set-deeper')}</legend>
				{field('top', say('practising.top-hinge'))}
				{field('bottom', say('practising.bottom-hinge'))}
			</fieldset>
			<fieldset className="grid grid-cols-2 gap-x-3 gap-y-2 mb-2">
				<legend className="text-lg">{say('practising.plane-off')}</legend>
				{field('lockFoot', say('practising.lock-edge-bottom'))}
				{field('lockHead', say('practising.lock-edge-top'))}
				{field('headHinge', say('practising.top-hinge-corner'))}
				{field('headLock', say('practising.top-lock-corner'))}
				{field('footHinge', say('practising.bottom-hinge-corner'))}
				{field('footLock', say('practising.bottom-lock-corner'))}
			</fieldset>
			<div className="grid sm:grid-cols-2 gap-2">
				<button
					type="button"
					className="btn h-14 text-lg"
					onClick={async () => {
						const ok = await move({
							do: 'adjust',
							adjust: {
								pack: [l(did.top), l(did.bottom)],
								planed: [
									...planed('lock', did.lockFoot, did.lockHead),
									...planed('head', did.headHinge, did.headLock),
									...planed('foot', did.footHinge, did.footLock),
								],
							} as Move['adjust'],
						});
						if (ok) setDid(blank);
					}}
					data-adjust-own
				>
					{say('practising.do-it-and-hang-it')}
				</button>
				<button
					type="button"
					className="btn h-14 text-lg"
					onClick={() => move({ do: 'adjust', plan: true })}
					data-adjust-plan
				>
					{say('practising.do-as-the-plan-says')}
				</button>
				<button
					type="button"
					className="btn btn-primary h-14 text-lg sm:col-span-2"
					onClick={() => move({ do: 'done' })}
					data-call-done
				>
					{say('practising.it-is-done')}
				</button>
			</div>
			<Cautions step="try" />
		</>
	);
}
