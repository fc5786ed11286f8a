import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { today, Who, whoNow } from '../../../api/who';
import { Disclosure } from '../../../ui/disclosure';
import { Len } from '../../../ui/length';
import { Findings } from '../../../ui/says';
import { capital, say } from '../../../words/texts';
import { marginName } from '../../../words/trade';
import { LengthField } from '../../field';
import { SettleKey } from '../../settle';
import { useOpening } from '../../state';
import { AirEntry } from '../margins/air';
import { GapList, NextGap } from './gaps';
import { Made } from './made';
import { Service } from './service';
import { Sights } from './sights';
import { Sizes } from './sizes';
import { Ways } from './ways';

/** TryStep is the loop: hang it, read the gaps, do the least that brings them in, hang it again. */
export function TryStep() {
	const { view, leaf, which } = useOpening();
	const t = leaf.try;
	if (view.opening.service && !t?.cut) return <Service />;
	if (!t) return <p className="mb-4">{say('try.first-take-the-readings-and')}</p>;
	if (!t.cut) return <RecordCut />;
	const last = t.hangs.at(-1);
	return (
		<>
			{!last && <Hang />}
			{last && (
				<>
					<p className="mb-2 opacity-80" data-hang={t.hangs.length}>
						{last.revisit
							? say('try.looked-at-again-revisit', { revisit: last.revisit })
							: say('try.try-hang', { hang: t.hangs.length })}
						{last.on && `, ${last.on}`}
					</p>
					{last.revisit && view.opening.season?.climate && (
						<div className="mb-3" data-revisit-air>
							<AirEntry
								pointer={`/tried/${which - 1}/hangs/${t.hangs.length - 1}/air`}
								label={say('try.the-air-on-that-day')}
							/>
							<LengthField
								pointer={`/tried/${which - 1}/hangs/${t.hangs.length - 1}/moisture`}
								label={say('page.moisture-meter-on-the-slab')}
								sign="%"
								optional
								note={say('try.what-moved-is-compared-with')}
							/>
						</div>
					)}
					{last.did.length > 0 && (
						<Disclosure className="mb-2" title={say('try.done-before-this-try')}>
							<ul className="list-disc pl-5">
								{last.did.map((d) => (
									<li key={d}>{d}</li>
								))}
							</ul>
						</Disclosure>
					)}
					{t.fits && t.toRead.length === 0 && <Fits />}
					{t.done && !t.fits && <LeftSo pointer={`/tried/${which - 1}/hangs/${t.hangs.length - 1}`} />}
					{!t.done && !(t.fits && t.toRead.length === 0) && <NextGap key={last.id} />}
					<Findings
						list={[...view.plan.findings, ...leaf.findings].filter((f) => f.step === 'try')}
						action={(f) => (
							<SettleKey finding={f} step="try" to={(s) => `/j/${view.job.id}/${view.opening.id}/${s}`} />
						)}
					/>
					<Ways />
					{t.after.length > 0 && (
						<section className="mb-4" aria-label={say('try.then')}>
							<h2 className="text-lg">{say('try.then-once-the-gaps-are')}</h2>
							<ul className="list-disc pl-5" data-after>
								{t.after.map((a) => (
									<li key={a}>{a}</li>
								))}
							</ul>
						</section>
					)}
					<GapList />
					<Sights />
				</>
			)}
			<Made key={which} />
		</>
	);
}

/** RecordCut records the cut as planned; differences are entered after. */
function RecordCut() {
	const { view, leaf, which, save } = useOpening();
	const [error, attempt] = useAttempt();
	const [named] = useState(() => whoNow() !== '');
	const t = leaf.try;
	if (!t?.planned) return null;
	const set = view.plan.lining?.set; // which is not cut
	const record = () =>
		attempt(async () => {
			const tried = [...(view.opening.tried ?? [])];
			while (tried.length < which) tried.push({ hangs: [] });
			const stamp = { on: today(), by: whoNow() };
			tried[which - 1] = {
				made: { ...t.planned, ...stamp } as never,
				hangs: [{ id: '', ...stamp, gaps: [] }],
			};
			await save([{ op: 'add', path: '/tried', value: tried }], say('try.cut-and-hung-as-planned'));
		});
	return (
		<section className="mb-4">
			<p className="mb-2 text-lg">{set ? say('try.the-set-measures') : say('try.after-the-first-cut-the')}</p>
			<Sizes />
			{!named && (
				<div className="mt-3">
					<Who label={say('try.who-does-it-for-the')} />
				</div>
			)}
			<button
				type="button"
				className="btn btn-primary text-lg h-14 w-full mt-3"
				data-record-cut
				onClick={record}
			>
				{set ? say('try.it-stands-and-shuts') : say('try.cut-and-it-hangs-on')}
			</button>
			<p className="text-sm opacity-80 mt-1">{say('try.what-came-out-differently-is')}</p>
			<Said error={error} />
		</section>
	);
}

/** Hang records that a cut slab was hung. */
function Hang() {
	const { which, save } = useOpening();
	const [error, attempt] = useAttempt();
	return (
		<section className="mb-4">
			<button
				type="button"
				className="btn btn-primary text-lg h-14 w-full"
				data-hang-first
				onClick={() =>
					attempt(async () => {
						const value = { id: '', on: today(), by: whoNow(), gaps: [] };
						await save([{ op: 'add', path: `/tried/${which - 1}/hangs/-`, value }], 'hung');
					})
				}
			>
				{say('try.it-hangs-read-the-gaps')}
			</button>
			<Said error={error} />
		</section>
	);
}

/** LeftSo says that a slab that does not fit was left as it is, and takes that back. */
function LeftSo({ pointer }: { pointer: string }) {
	const { save } = useOpening();
	const [error, attempt] = useAttempt();
	return (
		<section className="border-l-8 border-success pl-3 mb-4" data-left-so>
			<p className="text-2xl">{say('try.left-so')}</p>
			<button
				type="button"
				className="btn mt-1"
				data-take-up
				onClick={() =>
					attempt(async () => {
						await save([{ op: 'remove', path: `${pointer}/fits` }], say('try.taken-up-again'));
					})
				}
			>
				{say('try.take-it-up-again')}
			</button>
			<Said error={error} />
		</section>
	);
}

/** Fits shows that it fits, with the margins as found. */
function Fits() {
	const { leaf } = useOpening();
	const list = leaf.try?.margins ?? [];
	return (
		<section className="border-l-8 border-success pl-3 mb-4" data-fits>
			<h2 className="text-3xl">{say('try.it-fits')}</h2>
			<p className="mb-1">{say('try.every-gap-is-in-nothing')}</p>
			<ul className="grid grid-cols-2 gap-x-4 dim text-lg">
				{['head', 'lock', 'hinge', 'foot'].map((side) => (
					<li key={side}>
						<span className="text-base font-normal">{capital(marginName(side))} </span>
						{list
							.filter((m) => m.side === side)
							.map((m, i) => (
								<span key={m.where}>
									{i > 0 && ' · '}
									<Len text={m.figure.text} />
								</span>
							))}
					</li>
				))}
			</ul>
		</section>
	);
}
