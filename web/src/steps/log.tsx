import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Said, useAttempt } from '../attempt';
import { useDoor } from '../door-state';
import { Digits } from '../length';
import { photoURL, useLog } from '../photos';
import { counts, setCounts } from '../spent';
import { marginName, placeName, stepName } from '../trade';
import { stampOf, today, Who, whoNow } from '../who';

/** LogStep is the door's story: sign-off, revisit, notes, pictures, and all that was changed. */
export function LogStep() {
	const { view } = useDoor();
	return (
		<>
			{view.opening.signed ? <Signed /> : <SignOff />}
			<Notes />
			<Hardware />
			<Story />
		</>
	);
}

/** margins are those of all leaves as found, against what was wanted. */
function useMargins() {
	const { view } = useDoor();
	return view.plan.leaves.flatMap((l, leaf) =>
		(l.try?.margins ?? []).map((m) => ({
			leaf,
			side: m.side,
			where: m.place,
			wanted: l.wanted.find((w) => w.side === m.side)?.figure.mm ?? 0,
			found: m.figure.mm,
		})),
	);
}

function SignOff() {
	const { view, save } = useDoor();
	const [note, setNote] = useState('');
	const [error, attempt] = useAttempt();
	const margins = useMargins();
	const ready = view.plan.leaves.every((l) => l.try?.done);
	const sign = () =>
		attempt(async () => {
			const mark = view.plan.rod.find((n) => n.step === 'log')?.mark ?? '';
			await save(
				[
					{ op: 'add', path: '/done', value: { ...view.opening.done, log: mark } },
					{
						op: 'add',
						path: '/signed',
						value: { on: today(), by: whoNow(), ...(note ? { note } : {}), margins },
					},
				],
				'signed off',
			);
		});
	return (
		<section className="mb-5 border-2 border-[var(--rod-edge)] p-3" aria-label="Sign-off">
			{!ready && (
				<p className="mb-2">It is signed off once it hangs and every margin is in, or was left so.</p>
			)}
			{view.opening.reopened?.map((r) => (
				<p key={r.on} className="mb-1">
					Opened again {r.on}
					{r.by && ` by ${r.by}`}: {r.why}
				</p>
			))}
			<Who label="Who signs" />
			<label className="block my-2">
				<span className="block mb-1">Anything to say</span>
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
				Sign this door off
			</button>
			<Said error={error} />
		</section>
	);
}

function Signed() {
	const { view, save } = useDoor();
	const go = useNavigate();
	const [why, setWhy] = useState('');
	const [season, setSeason] = useState('');
	const [error, attempt] = useAttempt();
	const s = view.opening.signed;
	if (!s) return null;
	const reopen = (reason: string) => [
		{
			op: 'add' as const,
			path: '/reopened',
			value: [...(view.opening.reopened ?? []), { on: today(), by: whoNow(), why: reason, was: s }],
		},
		{ op: 'remove' as const, path: '/signed' },
	];
	return (
		<section className="mb-5" aria-label="Signed off" data-signed>
			<div className="border-l-8 border-success pl-3">
				<h2 className="text-2xl">Signed off</h2>
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
						const seen = season.trim() || 'another season';
						const visits = (view.opening.tried ?? []).map((_, i) => ({
							op: 'add' as const,
							path: `/tried/${i}/hangs/-`,
							value: { id: '', on: today(), by: whoNow(), revisit: seen, gaps: [] },
						}));
						await save([...reopen(`looked at again: ${seen}`), ...visits], `looked at again: ${seen}`);
						go(`/j/${view.job.id}/${view.opening.id}/try`);
					});
				}}
			>
				<label>
					<span className="block mb-1">Look at it again in another season</span>
					<input
						className="input w-full"
						data-field="season"
						placeholder="first damp autumn"
						value={season}
						maxLength={120}
						onChange={(e) => setSeason(e.target.value)}
					/>
				</label>
				<button type="submit" className="btn" data-revisit>
					Read its gaps again
				</button>
			</form>
			<form
				className="mt-4 grid gap-2"
				onSubmit={(e) => {
					e.preventDefault();
					attempt(async () => {
						await save(reopen(why.trim()), `opened again: ${why.trim()}`);
					});
				}}
			>
				<label>
					<span className="block mb-1">Or open it again, because</span>
					<input
						className="input w-full"
						data-field="reopen-why"
						value={why}
						maxLength={2000}
						onChange={(e) => setWhy(e.target.value)}
					/>
				</label>
				<button type="submit" className="btn" data-reopen aria-disabled={!why.trim()}>
					Open it again
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

/** Finals are the margins as they were signed, against what was wanted. */
function Finals({
	list,
}: {
	list: { leaf?: number; side: string; where: string; wanted: number; found: number }[];
}) {
	const { view } = useDoor();
	const pair = view.plan.leaves.length === 2;
	const inch = view.job.unit === 'in';
	// To a 64th, as far as a rule tells.
	const text = (mm: number) => (inch ? fraction(mm) : mm.toFixed(1));
	return (
		<table className="w-full mt-1">
			<thead>
				<tr className="text-left text-sm">
					<th className="font-normal">Margin</th>
					<th className="font-normal text-right">Wanted</th>
					<th className="font-normal text-right">Found</th>
				</tr>
			</thead>
			<tbody>
				{list.map((m) => (
					<tr key={`${m.leaf} ${m.side} ${m.where}`} className="border-b border-base-300">
						<td>
							{pair && `leaf ${(m.leaf ?? 0) + 1}, `}
							{marginName(m.side)}, {placeName(m.where)}
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
	const { view, save } = useDoor();
	const [text, setText] = useState('');
	const [error, attempt] = useAttempt();
	return (
		<section className="mb-5" aria-label="Notes">
			<h2 className="text-lg">Notes</h2>
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
						await save([{ op: 'add', path: '/notes/-', value }], 'a note');
						setText('');
					});
				}}
			>
				<input
					className="input grow"
					aria-label="A note"
					data-field="note"
					value={text}
					maxLength={2000}
					onChange={(e) => setText(e.target.value)}
				/>
				<button type="submit" className="btn">
					Put it down
				</button>
			</form>
			<Said error={error} />
		</section>
	);
}

/** Hardware is what hangs on the door, as it was planned. */
function Hardware() {
	const { view } = useDoor();
	const unit = view.job.unit;
	const of = (...pointers: string[]) => `${pointers.map((p) => view.texts[p] ?? '0').join(' × ')} ${unit}`;
	return (
		<section className="mb-5" aria-label="Hardware and materials">
			<h2 className="text-lg">Hardware and materials</h2>
			<ul className="list-disc pl-5">
				<li>
					slab {of('/slab/width', '/slab/length', '/slab/thickness')} as bought,{' '}
					{view.opening.slab.construction}
				</li>
				{view.plan.leaves.map((l) => (
					<li key={l.jamb}>
						{l.hinges.length} hinges, leaf {of('/hinges/leaf', '/hinges/width')}
						{l.hanging?.screws[0] && `; ${l.hanging.screws[0]}`}
					</li>
				))}
				{view.plan.leaves.flatMap((l) => l.devices.map((d) => <li key={l.jamb + d.name}>{d.name}</li>))}
			</ul>
		</section>
	);
}

type Told = { at: string; by: string; says: string; photo?: string };

/** local is a time of the server's as the records have it. */
const local = (at: string) => (at ? stampOf(new Date(at)) : '');

function Entry({ e }: { e: Told }) {
	const { view } = useDoor();
	return (
		<li className="flex gap-3 border-b border-base-300 py-1 items-start">
			<span className="w-36 shrink-0 text-sm opacity-80 dim pt-0.5">{e.at}</span>
			<span className="grow">
				{e.photo && (
					<img
						src={photoURL(view.job.id, view.opening.id, e.photo)}
						alt={`Photograph, ${e.says}`}
						className="h-20 w-auto float-right ml-2"
					/>
				)}
				{e.says}
				{e.by && <span className="text-sm opacity-75"> · {e.by}</span>}
			</span>
		</li>
	);
}

/** Story is every hang, note, picture and signature in order, with its time and whose hand it was; and every change. */
function Story() {
	const { view } = useDoor();
	const log = useLog(true);
	const [counting, setCounting] = useState(counts);
	if (log.error)
		return (
			<p role="alert" className="text-error">
				{log.error.message}
			</p>
		);
	if (!log.data) return <p>Fetching its story…</p>;
	const { changes, photos, minutes } = log.data;
	const o = view.opening;
	const entries: Told[] = [
		...(o.tried ?? []).flatMap((t, n) => {
			const leaf = (o.tried?.length ?? 0) > 1 ? `, leaf ${n + 1}` : '';
			const seen = view.plan.leaves[n]?.try?.hangs ?? [];
			return [
				{ at: t.made?.on ?? '', by: t.made?.by ?? '', says: `cut and let in${leaf}` },
				...t.hangs.map((h, k) => ({
					at: h.on ?? '',
					by: h.by ?? '',
					says: [
						h.revisit ? `looked at again: ${h.revisit}` : `hang ${k + 1}${leaf}`,
						...(seen[k]?.did ?? []),
						h.gaps.length > 0 ? `${h.gaps.length} gaps read` : '',
					]
						.filter(Boolean)
						.join('; '),
				})),
			];
		}),
		...(o.notes ?? []).map((n) => ({ at: n.on ?? '', by: n.by ?? '', says: n.text })),
		...(o.reopened ?? []).flatMap((r) => [
			{ at: r.was.on, by: r.was.by, says: `signed off${r.was.note ? `: ${r.was.note}` : ''}` },
			...(r.why.startsWith('looked at again')
				? []
				: [{ at: r.on, by: r.by ?? '', says: `opened again: ${r.why}` }]),
		]),
		...(o.signed
			? [{ at: o.signed.on, by: o.signed.by, says: `signed off${o.signed.note ? `: ${o.signed.note}` : ''}` }]
			: []),
		...photos.map((p) => ({
			at: local(p.at),
			by: p.by,
			says: p.caption || `at ${stepName(p.step)}`,
			photo: p.id,
		})),
	].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
	const spent = Object.entries(minutes).filter(([, m]) => m >= 0.5);
	return (
		<section aria-label="Story">
			<h2 className="text-lg">Its story</h2>
			<label className="flex items-center gap-3 min-h-11 cursor-pointer">
				<input
					type="checkbox"
					className="checkbox"
					data-field="count-time"
					checked={counting}
					onChange={(e) => {
						setCounting(e.target.checked);
						setCounts(e.target.checked);
					}}
				/>
				count the minutes at each step on this device
			</label>
			{spent.length > 0 && (
				<p className="mb-2">Minutes: {spent.map(([s, m]) => `${stepName(s)} ${Math.round(m)}`).join(', ')}</p>
			)}
			<ol data-story={entries.length}>
				{entries.map((e) => (
					<Entry key={`${e.at} ${e.says} ${e.photo}`} e={e} />
				))}
			</ol>
			<details className="mt-2">
				<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="changes-open">
					Every change, {changes.length}
				</summary>
				<ol data-changes={changes.length}>
					{changes.map((c, i) => (
						// biome-ignore lint/suspicious/noArrayIndexKey: changes stand in their order
						<Entry key={i} e={{ at: local(c.at), by: c.by, says: c.label }} />
					))}
				</ol>
			</details>
			<p className="mt-3 no-print">
				<a className="btn" href={`/api/jobs/${view.job.id}/bundle`} download data-bundle>
					The whole job with its pictures, as a zip
				</a>
			</p>
		</section>
	);
}
