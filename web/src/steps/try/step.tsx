import { useState } from 'react';
import { AirEntry } from '../../air';
import { Said, useAttempt } from '../../attempt';
import { useDoor } from '../../door-state';
import { LengthField } from '../../field';
import { Len, Row } from '../../length';
import { Findings } from '../../says';
import { today, Who, whoNow } from '../../who';
import { GapList, NextGap } from './gaps';
import { Made } from './made';
import { Sights } from './sights';
import { Ways } from './ways';

/** TryStep is the loop: hang it, read the gaps, do the least that brings them in, hang it again. */
export function TryStep() {
	const { view, leaf, which } = useDoor();
	const t = leaf.try;
	if (!t) return <p className="mb-4">The try waits for readings and the slab's measurements.</p>;
	if (!t.cut) return <RecordCut />;
	const last = t.hangs.at(-1);
	return (
		<>
			{!last && <Hang />}
			{last && (
				<>
					<p className="mb-2 opacity-80" data-hang={t.hangs.length}>
						{last.revisit ? `Looked at again: ${last.revisit}` : `Hang ${t.hangs.length}`}
						{last.on && `, ${last.on}`}
					</p>
					{last.revisit && view.opening.season?.climate && (
						<div className="mb-3" data-revisit-air>
							<AirEntry
								pointer={`/tried/${which - 1}/hangs/${t.hangs.length - 1}/air`}
								label="The air on that day"
							/>
							<LengthField
								pointer={`/tried/${which - 1}/hangs/${t.hangs.length - 1}/moisture`}
								label="Moisture meter on the slab"
								sign="%"
								optional
								note="what moved is held against what it foretells"
							/>
						</div>
					)}
					{last.did.length > 0 && (
						<details className="mb-2">
							<summary className="min-h-11 flex items-center cursor-pointer underline">
								What was done before it
							</summary>
							<ul className="list-disc pl-5">
								{last.did.map((d) => (
									<li key={d}>{d}</li>
								))}
							</ul>
						</details>
					)}
					{t.fits && t.toRead.length === 0 && <Fits />}
					{!(t.fits && t.toRead.length === 0) && <NextGap key={last.id} />}
					<Findings list={[...view.plan.findings, ...leaf.findings].filter((f) => f.step === 'try')} />
					<Ways />
					{t.after.length > 0 && (
						<section className="mb-4" aria-label="Then">
							<h2 className="text-lg">Then, once the margins are in</h2>
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

/** RecordCut takes the cut down as it was planned; what came out otherwise is said after. */
function RecordCut() {
	const { view, leaf, which, save } = useDoor();
	const [error, attempt] = useAttempt();
	const [named] = useState(() => whoNow() !== '');
	const t = leaf.try;
	if (!t?.planned) return null;
	const record = () =>
		attempt(async () => {
			const tried = [...(view.opening.tried ?? [])];
			while (tried.length < which) tried.push({ hangs: [] });
			const stamp = { on: today(), by: whoNow() };
			tried[which - 1] = {
				made: { ...t.planned, ...stamp } as never,
				hangs: [{ id: '', ...stamp, gaps: [] }],
			};
			await save([{ op: 'add', path: '/tried', value: tried }], 'cut and hung as planned');
		});
	return (
		<section className="mb-4">
			<p className="mb-2 text-lg">After the first cut the slab measures:</p>
			<Sizes />
			{!named && (
				<div className="mt-3">
					<Who label="Whose hands, for the log" />
				</div>
			)}
			<button
				type="button"
				className="btn btn-primary text-lg h-14 w-full mt-3"
				data-record-cut
				onClick={record}
			>
				Cut so, and it hangs on its trial screws
			</button>
			<p className="text-sm opacity-80 mt-1">
				What came out otherwise is entered below, once it is recorded.
			</p>
			<Said error={error} />
		</section>
	);
}

/** Sizes are those of the slab after its cut. */
export function Sizes() {
	const { leaf } = useDoor();
	const t = leaf.try;
	if (!t) return null;
	const named = (texts: string[], list: typeof t.width, of: string) =>
		list.map((l, i) => (
			<Row key={texts[i]} label={`${of}, ${texts[i]}`}>
				<span data-size={`${of} ${texts[i]}`}>
					<Len text={l.text} />
				</span>
			</Row>
		));
	return (
		<>
			{named(['at its head', 'in the middle', 'at its foot'], t.width, 'Width')}
			{named(['on its hinge edge', 'on its lock edge'], t.length, 'Length')}
		</>
	);
}

/** Hang records that it hangs, where it was only cut. */
function Hang() {
	const { which, save } = useDoor();
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
				It hangs: read the gaps
			</button>
			<Said error={error} />
		</section>
	);
}

/** Fits says it when it does, with the margins as found. */
function Fits() {
	const { leaf } = useDoor();
	const list = leaf.try?.margins ?? [];
	return (
		<section className="border-l-8 border-success pl-3 mb-4" data-fits>
			<h2 className="text-3xl">It fits.</h2>
			<p className="mb-1">Every margin is in; nothing more is asked.</p>
			<ul className="grid grid-cols-2 gap-x-4 dim text-lg">
				{['head', 'lock', 'hinge', 'foot'].map((side) => (
					<li key={side}>
						<span className="text-base font-normal">{side} </span>
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
