import { useState } from 'react';
import { Link } from 'react-router';
import { Said, useAttempt } from '../../../api/attempt';
import { today, whoNow } from '../../../api/who';
import { Checkbox } from '../../../ui/checkbox';
import { Disclosure } from '../../../ui/disclosure';
import { Len, Sure } from '../../../ui/length';
import { say } from '../../../words/texts';
import { marginName } from '../../../words/trade';
import { useOpening } from '../../state';

/** Ways are the least work that brings every margin in, the alternatives, and the prediction of each. */
export function Ways() {
	const { view, leaf, which, save } = useOpening();
	const [error, attempt] = useAttempt();
	const t = leaf.try;
	const k = (t?.hangs.length ?? 1) - 1;
	const kept = view.opening.tried?.[which - 1]?.hangs[k];
	const at = `/tried/${which - 1}/hangs/${k}`;
	if (!t || !kept || t.hangs[k]?.gaps.length === 0 || (t.fits && t.toRead.length === 0)) return null;
	const chosen = Math.min(kept.way ?? 0, Math.max(t.ways.length - 1, 0));
	const way = t.ways[chosen];
	const set = (field: string, value: unknown, label: string) =>
		attempt(async () => {
			await save([{ op: 'add', path: `${at}/${field}`, value }], label);
		});
	return (
		<section className="mb-4" aria-label={say('try.what-to-do')}>
			{t.fits && <p className="text-lg mb-2">{say('try.as-far-as-was-read')}</p>}
			{t.near.length > 0 && !t.done && (
				<Near list={t.near} take={() => set('fits', true, say('try.left-as-it-is'))} />
			)}
			{way && (
				<div className="border-l-8 border-[var(--rod-edge)] pl-3" data-way={way.uses.join(' ')}>
					<h2 className="text-xl">
						{say(
							t.near.length > 0 ? 'try.to-do-better' : chosen === 0 ? 'try.least-work' : 'try.another-way',
						)}
						: <span className="sm:whitespace-nowrap">{way.costs}</span>
					</h2>
					<ol className="list-decimal pl-5 grid gap-1 my-1 text-lg">
						{way.does.map((d) => (
							<li key={d}>{d}</li>
						))}
					</ol>
					{way.out.map((o) => (
						<p key={o} className="text-warning font-semibold">
							{o}
						</p>
					))}
					<p>
						<Link
							className="link inline-flex items-center min-h-11"
							to={`/cards/${view.job.id}/${view.opening.id}?step=try`}
							data-try-cards
						>
							{say('try.one-thing-at-a-time')}
						</Link>
					</p>
					<Foretold list={way.margins} />
					<WhyFirst />
					<button
						type="button"
						className={`btn text-lg h-14 w-full mt-2 ${t.near.length > 0 ? '' : 'btn-primary'}`}
						data-did-it
						onClick={() =>
							attempt(async () => {
								const value = { id: '', on: today(), by: whoNow(), did: way.did, gaps: [] };
								await save(
									[{ op: 'add', path: `/tried/${which - 1}/hangs/-`, value }],
									say('try.done-and-hung-again-costs', { costs: way.costs }),
								);
							})
						}
					>
						{say('try.done-so-and-it-hangs')}
					</button>
				</div>
			)}
			{t.ways.length > 1 && (
				<fieldset className="mt-3">
					<legend className="mb-1">{say('try.or')}</legend>
					{t.ways.map((w, i) => (
						<label key={w.uses.join()} className="flex items-baseline gap-3 min-h-11 cursor-pointer">
							<input
								type="radio"
								className="radio radio-primary self-center shrink-0"
								name="way"
								checked={i === chosen}
								onChange={() => set('way', i, say('try.way', { way: w.costs }))}
							/>
							<span>
								{w.uses.map((u) => t.may.find((m) => m.id === u)?.name ?? u).join(', ')}
								<span className="block text-sm opacity-80">
									{w.costs}
									{w.out.length > 0 && say('try.stay-out', { count: w.out.length })}
								</span>
							</span>
						</label>
					))}
				</fieldset>
			)}
			{!t.fits && <Only at={at} now={kept.with ?? []} />}
			<button
				type="button"
				className="btn btn-ghost mt-1"
				data-did-other
				onClick={() =>
					attempt(async () => {
						const did = { pack: t.hinges.map(() => 0) };
						const value = { id: '', on: today(), by: whoNow(), did, gaps: [] };
						await save(
							[{ op: 'add', path: `/tried/${which - 1}/hangs/-`, value }],
							say('try.something-else-done-and-hung'),
						);
					})
				}
			>
				{say('try.something-else-was-done-and')}
			</button>
			{!t.fits && !t.done && t.near.length === 0 && (
				<button
					type="button"
					className="btn btn-ghost mt-1"
					data-leave-so
					onClick={() => set('fits', true, say('try.left-as-it-is'))}
				>
					{say('try.leave-it-so-call-it')}
				</button>
			)}
			<Said error={error} />
		</section>
	);
}

/** Near says that the slab hangs as near as it gets, and takes it so. */
function Near({ list, take }: { list: string[]; take: () => void }) {
	return (
		<div className="border-l-8 border-success pl-3 mb-4" data-near>
			<h2 className="text-2xl">{say('try.as-near-as-it-gets')}</h2>
			{list.map((says) => (
				<p key={says}>{says}</p>
			))}
			<button
				type="button"
				className="btn btn-primary text-lg h-14 w-full mt-2"
				data-take-near
				onClick={take}
			>
				{say('try.take-it-so')}
			</button>
		</div>
	);
}

/** WhyFirst is why the first way is first, in minutes that add up. */
function WhyFirst() {
	const { leaf } = useOpening();
	const t = leaf.try;
	if (!t || t.ways.length === 0) return null;
	return (
		<Disclosure className="mb-1" title={say('try.why-this-first')} field="why-first">
			<p className="mb-1">{say('try.why-minutes')}</p>
			<table className="w-full" data-why-first>
				<thead>
					<tr className="text-left text-sm">
						<th className="font-normal" />
						<th className="font-normal text-right pl-2">{say('try.all-in')}</th>
						<th className="font-normal text-right pl-2">{say('try.work-minutes')}</th>
						<th className="font-normal text-right pl-2">{say('try.may-still-come')}</th>
						<th className="font-normal text-right pl-2">{say('try.in-all')}</th>
					</tr>
				</thead>
				<tbody>
					{t.ways.map((w) => (
						<tr key={w.uses.join()} className="border-b border-base-300 align-baseline">
							<td>{w.uses.map((u) => t.may.find((m) => m.id === u)?.name ?? u).join(', ')}</td>
							<td className="text-right pl-2 whitespace-nowrap">{w.in}</td>
							<td className="text-right dim">{w.minutes}</td>
							<td className="text-right dim">{w.still}</td>
							<td className="text-right dim font-semibold">{w.minutes + w.still}</td>
						</tr>
					))}
					<tr className="align-baseline">
						<td>{say('try.as-it-hangs')}</td>
						<td />
						<td className="text-right dim">0</td>
						<td className="text-right dim">{t.asIs}</td>
						<td className="text-right dim font-semibold">{t.asIs}</td>
					</tr>
				</tbody>
			</table>
		</Disclosure>
	);
}

/** Foretold is the predicted margins after a way. */
function Foretold({
	list,
}: {
	list: {
		side: string;
		where: string;
		figure: { text: { mm: string; in: string }; plusMinus: { mm: string; in: string } };
	}[];
}) {
	return (
		<Disclosure className="mb-1" title={say('try.what-is-predicted')} field="foretold-open">
			<ul className="grid sm:grid-cols-2 gap-x-4">
				{list.map((m) => (
					<li key={m.side + m.where} className="flex gap-2">
						<span className="grow">
							{marginName(m.side)}, {m.where}
						</span>
						<span className="dim" data-foretold={`${m.side} ${m.where}`}>
							<Len text={m.figure.text} />
							<Sure text={m.figure.plusMinus} />
						</span>
					</li>
				))}
			</ul>
		</Disclosure>
	);
}

/** Only restricts the means; the ways are worked out again. */
function Only({ at, now }: { at: string; now: string[] }) {
	const { leaf, save } = useOpening();
	const [open, setOpen] = useState(now.length > 0);
	const [error, attempt] = useAttempt();
	const may = leaf.try?.may ?? [];
	const put = (list: string[]) =>
		attempt(async () => {
			await save(
				list.length === 0
					? [{ op: 'remove', path: `${at}/with` }]
					: [{ op: 'add', path: `${at}/with`, value: list }],
				list.length === 0
					? say('try.any-cure-may-be-used')
					: say('try.only', { may: list.map((id) => may.find((m) => m.id === id)?.name ?? id).join(', ') }),
			);
		});
	return (
		<details className="mt-2" open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="only-open">
				{say('try.use-only-these-cures')}
			</summary>
			{may.map((m) => (
				<Checkbox
					key={m.id}
					className="items-center first-letter:uppercase"
					data-only={m.id}
					checked={now.includes(m.id)}
					onChange={() => put(now.includes(m.id) ? now.filter((x) => x !== m.id) : [...now, m.id])}
				>
					{m.name}
				</Checkbox>
			))}
			{now.length > 0 && leaf.try?.ways.length === 0 && (
				<p className="text-warning">{say('try.these-alone-cannot-put-it')}</p>
			)}
			<Said error={error} />
		</details>
	);
}
