import { useState } from 'react';
import { say } from '../../../words/texts';
import { readingID } from '../../reading-id';
import { useOpening } from '../../state';
import { AboutOpening, GoAbout } from './about';
import { LiningPanel } from './lining';
import { ReadingList } from './list';
import { Offers } from './offers';
import { OfferUp } from './offerup';
import { choose, type Open, openReadings, useChosen } from './open';
import { OtherReading } from './other';
import { FromPaper } from './paper';
import { Question } from './question';
import { Surety } from './surety';
import { useWaiting, WaitingReadings } from './waiting';

/** chance is a probability as it is said on site. */
function chance(p: number) {
	if (p >= 0.95) return say('measure.nearly-sure');
	return p < 0.05
		? say('measure.times-in-100', { times: Math.ceil(p * 100) })
		: say('measure.times-in-10', { times: Math.max(Math.round(p * 10), 1) });
}

/** MeasureStep offers the next reading by name and place; Enter takes it and moves on. */
export function MeasureStep() {
	const { view } = useOpening();
	const [skipped, setSkipped] = useState<string[]>([]);
	const [other, setOther] = useState(false);
	const [paper, setPaper] = useState(false);
	// Where readings clash, what settles it comes first.
	const clash = view.plan.clashes[0];
	const settles = clash && !clash.againId ? [clash.again] : [];
	const waiting = useWaiting();
	// Without signal no plan says what is worth reading next: what usually follows does.
	const usual =
		waiting.length > 0 ? view.usual.filter((u) => !view.plan.toRead.some((r) => r.name === u.name)) : [];
	const open = [...settles, ...view.plan.toRead, ...usual].filter(
		(r) => !skipped.includes(r.name) && !waiting.some((w) => w.id === readingID(r)),
	);
	// While something is typed the question stays, whatever is read elsewhere.
	const [held, setHeld] = useState<(typeof open)[number] | null>(null);
	const chosen = useChosen(openReadings(view));
	const next = held ?? chosen ?? open[0];
	const overtaken =
		held &&
		!openReadings(view)
			.concat(settles)
			.some((r) => r.name === held.name);
	const { measuring, offers = [] } = view.opening;
	const begun = view.opening.readings.length > 0;
	const framed = measuring === 'frame';
	if (framed && !view.opening.lining?.stands)
		return (
			<>
				<GoAbout />
				<LiningPanel />
				<AboutOpening />
			</>
		);
	// What is in the opening is entered before its gaps are read.
	const wants = measuring === 'offered' || measuring === 'old-door';
	const stands = offers.some((o) => !!o.old === (measuring === 'old-door'));
	if (wants && !stands && !other)
		return (
			<>
				<GoAbout />
				<section
					aria-label={say('measure.what-stands-in-the-opening')}
					className="border-2 border-[var(--rod-edge)] p-3 mb-4"
				>
					<Offers chosen="" choose={() => undefined} old={measuring === 'old-door'} />
				</section>
				<AboutOpening />
			</>
		);
	if (paper) return <FromPaper close={() => setPaper(false)} />;
	return (
		<>
			{!begun && <GoAbout />}
			{framed && (
				<details className="mb-3" data-frame-made>
					<summary className="cursor-pointer min-h-11 flex items-center underline">
						{say('measure.the-frame-as-it-was')}
					</summary>
					<LiningPanel />
				</details>
			)}
			{!clash && !other && !held && <OfferUp />}
			{next && !other && (
				<section
					aria-label={say('measure.next-reading')}
					data-asked
					className="border-2 border-[var(--rod-edge)] p-3 mb-4"
				>
					<Question r={next} overtaken={!!overtaken} typing={(yes) => setHeld(yes ? next : null)} />
					<div className="flex flex-wrap gap-2 mt-2">
						<button
							type="button"
							className="btn btn-ghost"
							onClick={() => {
								choose('');
								setSkipped([...skipped, next.name]);
							}}
						>
							{say('page.skip-it')}
						</button>
						<button
							type="button"
							className="btn btn-ghost"
							onClick={() => setOther(true)}
							data-field="other-reading"
						>
							{say('measure.another-reading')}
						</button>
						<button
							type="button"
							className="btn btn-ghost"
							onClick={() => setPaper(true)}
							data-field="from-paper"
						>
							{say('measure.from-paper')}
						</button>
					</div>
					{!next.needed && <Or list={open.filter((r) => r.name !== next.name).slice(0, 2)} />}
				</section>
			)}
			{!next && !other && (
				<Enough clash={!!clash} waits={waiting.length > 0} another={() => setOther(true)} />
			)}
			{other && <OtherReading close={() => setOther(false)} />}
			<Surety />
			<WaitingReadings />
			<ReadingList />
			{begun && <GoAbout />}
			<AboutOpening />
		</>
	);
}

/** Or lists what could be read instead; a tap asks for it. */
function Or({ list }: { list: Open[] }) {
	if (list.length === 0) return null;
	return (
		<ul className="text-[0.95rem]">
			<li className="mt-1">{say('measure.or')}</li>
			{list.map((r) => (
				<li key={r.name}>
					<button
						type="button"
						className="min-h-11 text-left underline decoration-dotted underline-offset-4 first-letter:uppercase"
						onClick={() => choose(readingID(r))}
						data-or={readingID(r)}
					>
						{say('measure.or-reading', { reading: r.name, tool: r.with.toLowerCase() })}
					</button>
				</li>
			))}
		</ul>
	);
}

/** Enough says that no other reading is worth its time, or what to do first; another asks for one all the same. */
function Enough({ clash, waits, another }: { clash: boolean; waits: boolean; another: () => void }) {
	const { view } = useOpening();
	const first = clash
		? say('measure.settle-what-clashes-first')
		: waits && say('measure.more-with-the-signal');
	return (
		<p className="mb-3 text-lg" data-enough>
			<strong>{first || say('page.measured-enough')}</strong>{' '}
			{!first && (
				<span className="block mb-2">
					{say('measure.another-reading-would-cost-more', { trip: chance(view.plan.trip) })}
				</span>
			)}
			<button type="button" className="btn" onClick={another} data-field="other-reading">
				{say('measure.another-reading')}
			</button>
		</p>
	);
}
