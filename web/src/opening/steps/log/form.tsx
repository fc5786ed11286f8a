import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Said, useAttempt } from '../../../api/attempt';
import { stampOf, today, Who, whoNow } from '../../../api/who';
import { Checkbox } from '../../../ui/checkbox';
import { Disclosure } from '../../../ui/disclosure';
import { Digits } from '../../../ui/length';
import { say } from '../../../words/texts';
import { marginName, placeName, stepName, trade } from '../../../words/trade';
import { counts, setCounts } from '../../spent';
import { useOpening } from '../../state';
import { photoURL, useLog } from './photos';

/** LogStep is the opening's record: sign-off, revisit, notes, pictures, and all changes. */
export function LogStep() {
	const { view } = useOpening();
	return (
		<>
			{view.opening.signed ? <Signed /> : <SignOff />}
			<Notes />
			<Hardware />
			<Story />
		</>
	);
}

/** margins are those of all leaves as found, against those wanted. */
function useMargins() {
	const { view } = useOpening();
	return view.plan.leaves.flatMap((l, leaf) =>
		// Only what was found: the rest is worked out.
		(l.try?.margins ?? [])
			.filter((m) => m.read)
			.map((m) => ({
				leaf,
				side: m.side,
				where: m.place,
				wanted: l.wanted.find((w) => w.side === m.side)?.figure.mm ?? 0,
				found: m.figure.mm,
			})),
	);
}

function SignOff() {
	const { view, save } = useOpening();
	const [note, setNote] = useState('');
	const [error, attempt] = useAttempt();
	const margins = useMargins();
	const ready = view.plan.leaves.every((l) => l.try?.done);
	const sign = () =>
		attempt(async () => {
			const mark = view.plan.steps.find((n) => n.step === 'log')?.mark ?? '';
			await save(
				[
					{ op: 'add', path: '/done', value: { ...view.opening.done, log: mark } },
					{
						op: 'add',
						path: '/signed',
						value: { on: today(), by: whoNow(), ...(note ? { note } : {}), margins },
					},
				],
				say('log.signed-off'),
			);
		});
	return (
		<section className="mb-5 border-2 border-[var(--rod-edge)] p-3" aria-label={say('log.sign-off')}>
			{!ready && <p className="mb-2">{say('log.sign-it-off-once-it')}</p>}
			{view.opening.reopened?.map((r) => (
				<p key={r.on} className="mb-1">
					{say(r.by ? 'log.opened-again-by' : 'log.opened-again-on', {
						on: r.on,
						by: r.by,
						why: r.why || r.revisit,
					})}
				</p>
			))}
			<Who label={say('log.who-signs')} />
			<label className="block my-2">
				<span className="block mb-1">{say('log.anything-to-note')}</span>
				<input
					className="input w-full"
					data-field="sign-note"
					value={note}
					maxLength={2000}
					onChange={(e) => setNote(e.target.value)}
				/>
			</label>
			<button
				type="button"
				className={`btn btn-primary text-lg h-14 w-full ${ready ? '' : 'opacity-50'}`}
				aria-disabled={!ready}
				data-sign
				onClick={() => ready && sign()}
			>
				{say('log.sign-this-door-off')}
			</button>
			<Said error={error} />
		</section>
	);
}

function Signed() {
	const { view, save } = useOpening();
	const go = useNavigate();
	const [why, setWhy] = useState('');
	const [season, setSeason] = useState('');
	const [error, attempt] = useAttempt();
	const s = view.opening.signed;
	if (!s) return null;
	const reopen = (reason: { why: string } | { revisit: string }) => [
		{
			op: 'add' as const,
			path: '/reopened',
			value: [...(view.opening.reopened ?? []), { on: today(), by: whoNow(), ...reason, was: s }],
		},
		{ op: 'remove' as const, path: '/signed' },
	];
	return (
		<section className="mb-5" aria-label={say('log.signed-off-title')} data-signed>
			<div className="border-l-8 border-success pl-3">
				<h2 className="text-2xl">{say('log.signed-off-title')}</h2>
				<p className="text-lg">
					{s.by}, {s.on}
					{s.note && `: ${s.note}`}
				</p>
				<Finals list={s.margins ?? []} />
			</div>
			<form
				className="mt-4 grid gap-2"
				onSubmit={(e) => {
					e.preventDefault();
					attempt(async () => {
						const seen = season.trim() || say('log.another-season');
						const visits = (view.opening.tried ?? []).map((_, i) => ({
							op: 'add' as const,
							path: `/tried/${i}/hangs/-`,
							value: { id: '', on: today(), by: whoNow(), revisit: seen, gaps: [] },
						}));
						await save([...reopen({ revisit: seen }), ...visits], say('log.looked-at-again-seen', { seen }));
						go(`/j/${view.job.id}/${view.opening.id}/try`);
					});
				}}
			>
				<label>
					<span className="block mb-1">{say('log.look-at-it-again-in')}</span>
					<input
						className="input w-full"
						data-field="season"
						placeholder={say('log.first-damp-autumn')}
						value={season}
						maxLength={120}
						onChange={(e) => setSeason(e.target.value)}
					/>
				</label>
				<button type="submit" className="btn" data-revisit>
					{say('log.read-its-gaps-again')}
				</button>
			</form>
			<form
				className="mt-4 grid gap-2"
				onSubmit={(e) => {
					e.preventDefault();
					attempt(async () => {
						await save(reopen({ why: why.trim() }), say('log.opened-again-why', { why: why.trim() }));
					});
				}}
			>
				<label>
					<span className="block mb-1">{say('log.or-open-it-again-because')}</span>
					<input
						className="input w-full"
						data-field="reopen-why"
						value={why}
						maxLength={2000}
						onChange={(e) => setWhy(e.target.value)}
					/>
				</label>
				<button type="submit" className="btn" data-reopen aria-disabled={!why.trim()}>
					{say('door.open-it-again')}
				</button>
			</form>
			<Said error={error} />
		</section>
	);
}

/** fraction is a small length in inches, to a 64th. */
function fraction(mm: number) {
	let n = Math.round((Math.abs(mm) / 25.4) * 64);
	let of = 64;
	while (n > 0 && n % 2 === 0 && of > 1) [n, of] = [n / 2, of / 2];
	const whole = Math.floor(n / of);
	const rest = n % of;
	return `${mm < 0 ? '-' : ''}${[whole || rest === 0 ? String(whole) : '', rest ? `${rest}/${of}` : ''].filter(Boolean).join(' ')}`;
}

/** Finals are the signed margins, against those wanted. */
function Finals({
	list,
}: {
	list: { leaf?: number; side: string; where: string; wanted: number; found: number }[];
}) {
	const { view } = useOpening();
	const pair = view.plan.leaves.length === 2;
	const inch = view.job.unit === 'in';
	// To a 64th, as far as a rule tells.
	const text = (mm: number) => (inch ? fraction(mm) : mm.toFixed(1));
	return (
		<table className="w-full mt-1">
			<thead>
				<tr className="text-left text-sm">
					<th className="font-normal">{say('log.margin')}</th>
					<th className="font-normal text-right">{say('log.wanted')}</th>
					<th className="font-normal text-right">{say('page.found')}</th>
				</tr>
			</thead>
			<tbody>
				{list.map((m) => (
					<tr key={`${m.leaf} ${m.side} ${m.where}`} className="border-b border-base-300">
						<td>
							{pair
								? say('log.leaf-leaf-margin', { leaf: (m.leaf ?? 0) + 1, margin: marginName(m.side) })
								: marginName(m.side)}
							, {placeName(m.where)}
						</td>
						<td className="text-right dim">
							<Digits>{text(m.wanted)}</Digits>
						</td>
						<td className="text-right dim">
							<Digits>{text(m.found)}</Digits> <span className="text-[0.8em]">{view.job.unit}</span>
						</td>
					</tr>
				))}
			</tbody>
		</table>
	);
}

function Notes() {
	const { view, save } = useOpening();
	const [text, setText] = useState('');
	const [error, attempt] = useAttempt();
	return (
		<section className="mb-5" aria-label={say('log.notes')}>
			<h2 className="text-lg">{say('log.notes')}</h2>
			<ul>
				{(view.opening.notes ?? []).map((n, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: notes stand in their order
					<li key={i} className="border-b border-base-300 py-1">
						{n.text}
						<span className="block text-sm opacity-75">{[n.by, n.on].filter(Boolean).join(', ')}</span>
					</li>
				))}
			</ul>
			<form
				className="flex gap-2 mt-2"
				onSubmit={(e) => {
					e.preventDefault();
					if (!text.trim()) return;
					attempt(async () => {
						const value = { text: text.trim(), on: today(), by: whoNow() };
						await save([{ op: 'add', path: '/notes/-', value }], say('log.a-note'));
						setText('');
					});
				}}
			>
				<input
					className="input grow"
					aria-label={say('log.note-field')}
					data-field="note"
					value={text}
					maxLength={2000}
					onChange={(e) => setText(e.target.value)}
				/>
				<button type="submit" className="btn">
					{say('page.note-it')}
				</button>
			</form>
			<Said error={error} />
		</section>
	);
}

/** Hardware is the opening's hardware, as planned. */
function Hardware() {
	const { view } = useOpening();
	const unit = view.job.unit;
	const of = (...pointers: string[]) => `${pointers.map((p) => view.texts[p] ?? '0').join(' × ')} ${unit}`;
	return (
		<section className="mb-5" aria-label={say('log.hardware-and-materials')}>
			<h2 className="text-lg">{say('log.hardware-and-materials')}</h2>
			<ul className="list-disc pl-5">
				<li>
					{say('log.slab-size-as-bought-construction', {
						size: of('/slab/width', '/slab/length', '/slab/thickness'),
						construction: trade.constructions.find((c) => c.id === view.opening.slab.construction)?.name,
					})}
				</li>
				{view.plan.leaves.map((l) => (
					<li key={l.jamb}>
						{say('log.hinges', { count: l.hinges.length, leaf: of('/hinges/leaf', '/hinges/width') })}
						{l.hanging?.screws[0] && `; ${l.hanging.screws[0]}`}
					</li>
				))}
				{view.plan.leaves.flatMap((l) => l.hardware.map((d) => <li key={l.jamb + d.name}>{d.name}</li>))}
			</ul>
		</section>
	);
}

type Told = { at: string; by: string; says: string; photo?: string };

/** local is a time of the server's in the form of records. */
const local = (at: string) => (at ? stampOf(new Date(at)) : '');

function Entry({ e }: { e: Told }) {
	const { view } = useOpening();
	return (
		<li className="flex gap-3 border-b border-base-300 py-1 items-start">
			<span className="w-36 shrink-0 text-sm opacity-80 dim pt-0.5">{e.at}</span>
			<span className="grow">
				{e.photo && (
					<img
						src={photoURL(view.job.id, view.opening.id, e.photo)}
						alt={say('page.photograph', { of: e.says })}
						className="h-20 w-auto float-right ml-2"
					/>
				)}
				{e.says}
				{e.by && <span className="text-sm opacity-75"> · {e.by}</span>}
			</span>
		</li>
	);
}

/** Story is every hang, note, picture and sign-off in order, with time and name; and every change. */
function Story() {
	const { view } = useOpening();
	const log = useLog(true);
	const [counting, setCounting] = useState(counts);
	if (log.error)
		return (
			<p role="alert" className="text-error">
				{log.error.message}
			</p>
		);
	if (!log.data) return <p>{say('log.fetching-the-history')}</p>;
	const { changes, photos, minutes } = log.data;
	const o = view.opening;
	const signed = (note?: string) => (note ? say('log.signed-off-note', { note }) : say('log.signed-off'));
	const entries: Told[] = [
		...(o.tried ?? []).flatMap((t, n) => {
			const leaf = (o.tried?.length ?? 0) > 1 ? say('log.of-leaf', { number: n + 1 }) : '';
			const seen = view.plan.leaves[n]?.try?.hangs ?? [];
			return [
				{ at: t.made?.on ?? '', by: t.made?.by ?? '', says: say('log.cut-and-let-in-leaf', { leaf }) },
				...t.hangs.map((h, k) => ({
					at: h.on ?? '',
					by: h.by ?? '',
					says: [
						h.revisit
							? say('log.looked-at-again-revisit', { revisit: h.revisit })
							: say('log.try-hang-leaf', { hang: k + 1, leaf }),
						...(seen[k]?.did ?? []),
						h.gaps.length > 0 ? say('log.count-gaps-read', { count: h.gaps.length }) : '',
					]
						.filter(Boolean)
						.join('; '),
				})),
			];
		}),
		...(o.notes ?? []).map((n) => ({ at: n.on ?? '', by: n.by ?? '', says: n.text })),
		...(o.reopened ?? []).flatMap((r) => [
			{ at: r.was.on, by: r.was.by, says: signed(r.was.note) },
			...(r.revisit // its hang tells it
				? []
				: [{ at: r.on, by: r.by ?? '', says: say('log.opened-again-why', { why: r.why }) }]),
		]),
		...(o.signed ? [{ at: o.signed.on, by: o.signed.by, says: signed(o.signed.note) }] : []),
		...photos.map((p) => ({
			at: local(p.at),
			by: p.by,
			says: p.caption || say('log.at-step', { step: stepName(p.step) }),
			photo: p.id,
		})),
	].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
	const spent = Object.entries(minutes).filter(([, m]) => m >= 0.5);
	return (
		<section aria-label={say('log.history')}>
			<h2 className="text-lg">{say('log.history')}</h2>
			<Checkbox
				data-field="count-time"
				checked={counting}
				onChange={(e) => {
					setCounting(e.target.checked);
					setCounts(e.target.checked);
				}}
			>
				{say('log.count-the-minutes-at-each')}
			</Checkbox>
			{spent.length > 0 && (
				<p className="mb-2">
					{say('log.minutes', { spent: spent.map(([s, m]) => `${stepName(s)} ${Math.round(m)}`).join(', ') })}
				</p>
			)}
			<ol data-story={entries.length}>
				{entries.map((e) => (
					<Entry key={`${e.at} ${e.says} ${e.photo}`} e={e} />
				))}
			</ol>
			<Disclosure
				className="mt-2"
				title={say('log.every-change-count', { count: changes.length })}
				field="changes-open"
			>
				<ol data-changes={changes.length}>
					{changes.map((c, i) => (
						// biome-ignore lint/suspicious/noArrayIndexKey: changes stand in their order
						<Entry key={i} e={{ at: local(c.at), by: c.by, says: c.label }} />
					))}
				</ol>
			</Disclosure>
			<p className="mt-3 no-print">
				<a className="btn" href={`/api/jobs/${view.job.id}/bundle`} download data-bundle>
					{say('log.the-whole-job-with-its')}
				</a>
			</p>
		</section>
	);
}
