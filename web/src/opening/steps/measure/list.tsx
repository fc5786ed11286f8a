import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import type { Op, Plan } from '../../../api/client';
import { ToolButton } from '../../../ui/toolbutton';
import { say } from '../../../words/texts';
import { LengthField } from '../../field';
import { readingID } from '../../reading-id';
import { useOpening } from '../../state';

type Reading = Plan['readings'][number];

/** ReadingList is the readings so far, to correct or to doubt. */
export function ReadingList() {
	const { view } = useOpening();
	if (view.plan.readings.length === 0) return null;
	return (
		<section aria-label={say('measure.readings')}>
			<h2 className="text-lg mb-1">{say('measure.readings')}</h2>
			<ul>
				{view.plan.readings.map((r, i) => (
					<Kept key={r.id} r={r} i={i} />
				))}
			</ul>
			<div className="max-w-60 mt-3">
				<LengthField
					pointer="/plusMinus"
					label={say('measure.or-measure-until-every-gap')}
					optional
					placeholder={say('measure.as-long-as-it-saves')}
				/>
			</div>
		</section>
	);
}

/** Kept is one reading: to correct, to strike out with a reason, or to count again. */
function Kept({ r, i }: { r: Reading; i: number }) {
	const { save, view } = useOpening();
	const [why, setWhy] = useState<string | null>(null);
	const [error, attempt] = useAttempt();
	const line = useRef<HTMLLIElement>(null);
	const change = async (ops: Op[], label: string) => {
		await attempt(async () => {
			await save(ops, label);
			// The form goes with the focus that is in it: Tab goes on from the line.
			if (line.current?.querySelector('form')?.contains(document.activeElement))
				line.current.querySelector('button')?.focus();
			setWhy(null);
		});
	};
	const what = readingID(view.opening.readings[i] ?? { kind: '' });
	const name = `${r.name[0]?.toUpperCase()}${r.name.slice(1)}`;
	return (
		<li
			ref={line}
			className="border-b border-base-300 py-1.5"
			data-reading={what}
			data-struck={r.struck || undefined}
		>
			<div className="flex max-sm:flex-wrap items-start gap-2">
				<span className={`grow max-sm:w-full pt-2 ${r.struck ? 'line-through' : ''}`}>{name}</span>
				<span className="max-sm:grow sm:w-40 shrink-0">
					<LengthField pointer={`/readings/${i}/value`} label={r.name} hideLabel />
				</span>
				{r.struck ? (
					<ToolButton
						onClick={() =>
							change(
								[{ op: 'remove', path: `/readings/${i}/struck` }],
								say('measure.counts-again-name', { name: r.name }),
							)
						}
					>
						{say('measure.count-it-again')}
					</ToolButton>
				) : (
					<ToolButton
						aria-expanded={why !== null}
						data-strike={what}
						onClick={() => setWhy(why === null ? 'misread' : null)}
					>
						<X size={20} aria-hidden="true" />
						<span className="sr-only">{say('measure.doubt-it-strike-out-or', { name: r.name })}</span>
					</ToolButton>
				)}
			</div>
			{r.struck && <p className="text-sm">{say('measure.struck-out-struck', { struck: r.struck })}</p>}
			{why !== null && (
				<form
					className="flex flex-wrap gap-2 pb-1"
					onSubmit={(e) => {
						e.preventDefault();
						change(
							[{ op: 'add', path: `/readings/${i}/struck`, value: why.trim() || 'misread' }],
							say('page.struck-out-name', { name: r.name }),
						);
					}}
				>
					<input
						className="input grow"
						aria-label={say('measure.why-it-is-struck-out')}
						data-field="strike-why"
						// biome-ignore lint/a11y/noAutofocus: it opens where the hand is
						autoFocus
						value={why}
						onChange={(e) => setWhy(e.target.value)}
					/>
					<button type="submit" className="btn btn-primary">
						{say('page.strike-it-out')}
					</button>
					<div className="w-full">
						<LengthField
							pointer={`/readings/${i}/plusMinus`}
							label={say('measure.or-say-how-sure-it')}
							optional
							placeholder={say('measure.as-usual-for-its-kind')}
						/>
					</div>
					<button
						type="button"
						data-remove
						className="btn"
						onClick={() =>
							change(
								[{ op: 'remove', path: `/readings/${i}` }],
								say('measure.took-out-name', { name: r.name }),
							)
						}
					>
						{say('page.take-it-away')}
					</button>
				</form>
			)}
			<Said error={error} />
		</li>
	);
}
