import { Said, useAttempt } from '../../../api/attempt';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { Choose, LengthField, Ticked } from '../../field';
import { useOpening } from '../../state';

/** WhatGoesIn chooses the latch or lock, a second one, and what holds the fixed leaf of a pair. */
export function WhatGoesIn() {
	const { view } = useOpening();
	const lock = view.opening.lock;
	return (
		<section className="grid gap-2 mb-4">
			<h2 className="text-lg">{say('lock.what-goes-in')}</h2>
			<Pick
				pointer="/lock/hardware"
				label={say('lock.latch-or-lock')}
				none={say('lock.a-latch-by-its-backset')}
			/>
			<Pick
				pointer="/lock/second"
				label={say('lock.a-second-one-above-or')}
				none={say('page.none')}
				kinds={['bolt', 'latch', 'surface']}
			/>
			{lock.second && (
				<LengthField
					pointer="/lock/above"
					label={say('lock.above-the-latch-line')}
					placeholder={say(view.job.unit === 'in' ? 'lock.by-rule-in' : 'lock.by-rule-mm')}
					empty={0}
				/>
			)}
			{view.opening.pair && (
				<>
					<Choose
						pointer="/pair/holds"
						label={say('lock.the-fixed-door-has')}
						row
						unset="both"
						options={[
							{ value: 'both', text: say('lock.two-bolts'), remove: true },
							{ value: 'top', text: say('lock.one-at-the-top') },
							{ value: 'none', text: say('page.none') },
						]}
					/>
					<Ticked pointer="/pair/pulls" text={say('lock.show-handles')} />
				</>
			)}
			{view.opening.pair && view.opening.pair.holds !== 'none' && (
				<Pick
					pointer="/pair/bolts"
					label={say('lock.bolts-of-the-fixed-leaf')}
					none={say('lock.none-chosen')}
					kinds={['flush-bolt', 'surface-bolt']}
				/>
			)}
		</section>
	);
}

/** WhenBored chooses whether the lock is bored once the door fits, or first, and how narrow. */
export function WhenBored() {
	return (
		<>
			<Choose
				pointer="/lock/when"
				label={say('lock.when-it-is-bored')}
				unset="fits"
				options={[
					{
						value: 'fits',
						text: say('lock.once-the-door-fits'),
						note: say('lock.no-edge-moves-after'),
						remove: true,
					},
					{
						value: 'first',
						text: say('lock.on-the-trestles-first'),
						note: say('lock.from-the-edge-as-it-stands'),
					},
				]}
			/>
			<Ticked pointer="/lock/tight" text={say('lock.as-narrow-as-the-case')} />
		</>
	);
}

/** Pick chooses a piece of hardware of the list or of the job's own, with its usual backset. */
function Pick({
	pointer,
	label,
	none,
	kinds,
}: {
	pointer: string;
	label: string;
	none: string;
	kinds?: string[];
}) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const fixed = trade.hardwareKinds.filter((k) => k.fixed).map((k) => k.id);
	const list = [...(view.job.kit.hardware ?? []), ...trade.hardware].filter((d) =>
		kinds ? kinds.includes(d.kind) : !fixed.includes(d.kind),
	);
	const [, group, key] = pointer.split('/') as [string, 'lock' | 'pair', string];
	const now = (view.opening[group] as Record<string, unknown> | undefined)?.[key] ?? '';
	return (
		<label className="block">
			<span className="block mb-1">{label}</span>
			<select
				className="select w-full"
				data-field={pointer}
				value={String(now)}
				onChange={(e) =>
					attempt(async () => {
						const d = list.find((x) => x.id === e.target.value);
						await save(
							[
								{ op: 'add', path: pointer, value: e.target.value },
								...(d?.backsets?.[0] && pointer === '/lock/hardware'
									? [{ op: 'add' as const, path: '/lock/backset', value: d.backsets[0] }]
									: []),
							],
							d?.name ?? none,
						);
					})
				}
			>
				<option value="">{none}</option>
				{list.map((d) => (
					<option key={d.id} value={d.id}>
						{d.name}
					</option>
				))}
			</select>
			<Said error={error} />
		</label>
	);
}
