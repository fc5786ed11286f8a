import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { ask, client, type Schemas, type Unit } from '../api';
import { Said, useAttempt } from '../attempt';
import { Len, pick, ShownIn } from '../length';
import { Cautions, Failed, Waiting } from '../says';
import { Tape } from '../tape';
import { Top, useShownIn } from '../top';
import { trade } from '../trade';
import { whoNow } from '../who';
import { around, asks, board, edge, withUnit } from './geometry';

type Move = Schemas['Move'];
type Played = Schemas['Played'];

/** Play is an attempt at a hidden opening, move by move; what was done is kept on this device. */
export function PlayPage() {
	const { level = '', seed = '' } = useParams();
	const own = level === 'file' ? (sessionStorage.getItem('exercise file') ?? '') : '';
	const key = `play ${level} ${seed}`;
	const [moves, setMoves] = useState<Move[]>(() => JSON.parse(sessionStorage.getItem(key) ?? '[]'));
	const cache = useQueryClient();
	const [unit, setUnit] = useShownIn('practice', 'mm');
	const [error, attempt] = useAttempt();
	const body = { ...(own ? { file: own } : { seed: Number(seed), level }), by: whoNow() };
	const q = useQuery({
		queryKey: ['play', key, moves.length],
		queryFn: () => ask(client.POST('/api/practice/play', { body: { ...body, moves } })),
		placeholderData: keepPreviousData,
		staleTime: Number.POSITIVE_INFINITY,
		retry: false,
	});
	const move = (m: Move) =>
		attempt(async () => {
			const next = [...moves, m];
			const v = await ask(
				client.POST('/api/practice/play', { body: { ...body, moves: next, keep: m.do === 'done' } }),
			);
			cache.setQueryData(['play', key, next.length], v);
			sessionStorage.setItem(key, JSON.stringify(next));
			setMoves(next);
			if (m.do === 'done') cache.invalidateQueries({ queryKey: ['practice'] });
		});
	const v = q.data;
	const [enough, setEnough] = useState(moves.some((m) => m.do !== 'read'));
	return (
		<ShownIn value={unit}>
			<Top
				trail={[{ to: '/practice', text: 'Practice' }, { text: v?.name ?? 'A hidden opening' }]}
				unit={unit}
				setUnit={setUnit}
			/>
			<main className="p-4 sm:p-6 max-w-6xl mx-auto">
				{q.isPending && <Waiting text="Drawing an opening…" />}
				{q.error && <Failed error={q.error} retry={() => q.refetch()} />}
				{v && (
					<div className="grid lg:grid-cols-[22rem_1fr] gap-6 items-start">
						<Picture played={v} />
						<div>
							<h1 className="text-2xl">
								{v.done
									? 'What it came to'
									: v.hung
										? 'It hangs'
										: enough
											? 'Choose and cut'
											: 'Read the opening'}
							</h1>
							<p className="mb-3 opacity-85" data-minutes={Math.round(v.minutes)}>
								{v.readings.length} readings, {Math.round(v.minutes)} min
								{v.hung && `, ${v.trips === 1 ? '1 trip' : `${v.trips} trips`}`}
							</p>
							<Said error={error} className="mb-3 text-lg" />
							{!enough && !v.hung && <Read played={v} move={move} enough={() => setEnough(true)} />}
							{enough && !v.hung && (
								<Choose played={v} move={move} back={() => setEnough(false)} unit={unit} />
							)}
							{v.hung && !v.done && <Adjust move={move} unit={unit} goesIn={v.goesIn} />}
							{v.grade && <GradeOf played={v} grade={v.grade} />}
							{!v.done && !v.hung && <Exercise level={level} seed={seed} own={!!own} />}
						</div>
					</div>
				)}
			</main>
		</ShownIn>
	);
}

type Doing = { move: (m: Move) => Promise<boolean> };

/** Picture is the opening as it was read, and once a slab hangs its true light. */
function Picture({ played: v }: { played: Played }) {
	const { x, y, w, h } = board;
	const gaps = v.light.map((l) => ({ side: l.side, where: l.where, mm: l.gap.mm }));
	const points = around(gaps)
		.map((p) => p.join(','))
		.join(' ');
	const rubs = gaps.filter((g) => g.mm < 0.3);
	return (
		<svg
			viewBox="0 0 320 560"
			className="w-full max-w-sm mx-auto max-lg:max-h-[46dvh]"
			role="img"
			aria-label={
				v.hung
					? `The light: ${gaps.map((g) => `${g.side} ${g.where} ${g.mm}`).join(', ')} mm`
					: 'The opening, and where it was read'
			}
			data-picture
		>
			<rect width={320} height={560} fill="var(--shade)" />
			{v.hung ? (
				<>
					<polygon points={points} fill="var(--light)" />
					<rect x={x} y={y} width={w} height={h} fill="var(--board)" />
					<rect
						x={x + 25}
						y={y + 30}
						width={w - 50}
						height={150}
						fill="none"
						stroke="var(--board-line)"
						strokeWidth={2}
					/>
					<rect
						x={x + 25}
						y={y + 215}
						width={w - 50}
						height={150}
						fill="none"
						stroke="var(--board-line)"
						strokeWidth={2}
					/>
					{gaps.map((g, i) => {
						const n = i % 3;
						const px =
							g.side === 'hinge'
								? x - 44
								: g.side === 'lock'
									? x + w + 44
									: x + w * ([0.1, 0.5, 0.9][n] ?? 0);
						const py =
							g.side === 'head' ? y - 36 : g.side === 'foot' ? y + h + 68 : y + h * ([0.9, 0.5, 0.1][n] ?? 0);
						return (
							<text
								key={g.side + g.where}
								x={px}
								y={py}
								textAnchor="middle"
								fontSize={19}
								fill="var(--on-shade)"
								className="dim"
								data-light={`${g.side} ${g.where}`}
							>
								{g.mm < 0.3 ? 'rubs' : g.mm}
							</text>
						);
					})}
					{gaps.map((g, i) => {
						const e = edge(g.side, i % 3);
						return (
							g.mm < 0.3 && (
								<line
									key={g.side + g.where}
									x1={e.x - e.dx}
									y1={e.y - e.dy}
									x2={e.x + e.dx}
									y2={e.y + e.dy}
									stroke="var(--on-shade)"
									strokeWidth={6}
									strokeDasharray="3 3"
								/>
							)
						);
					})}
					{rubs.length > 0 && (
						<text x={160} y={552} textAnchor="middle" fontSize={16} fill="var(--on-shade)">
							it rubs at {rubs.length} of 12 places
						</text>
					)}
				</>
			) : (
				<>
					<rect
						x={x}
						y={y}
						width={w}
						height={h}
						fill="var(--shade-deep)"
						stroke="var(--rod)"
						strokeWidth={3}
					/>
					{asks
						.filter((a) => v.readings.some((r) => nameOf(a.id, r.name)))
						.map((a) => (
							<line
								key={a.id}
								x1={a.line[0]}
								y1={a.line[1]}
								x2={a.line[2]}
								y2={a.line[3]}
								stroke="var(--light)"
								strokeWidth={2.5}
							/>
						))}
				</>
			)}
		</svg>
	);
}

/** nameOf reports whether a reading is of a place: the drawing marks it. */
function nameOf(id: string, name: string) {
	const [kind, where] = id.split('-');
	const words: Record<string, string> = { height: 'floor to head' };
	return (
		name.startsWith(words[kind ?? ''] ?? kind ?? '') &&
		(!where || name.includes(where === 'foot' ? 'floor' : where))
	);
}

/** Read is what can be read, each with its button. */
function Read({ played: v, move, enough }: Doing & { played: Played; enough: () => void }) {
	return (
		<>
			<p className="mb-2">
				Say what is read, and where; when it is enough, say so. Instruments are as wrong as yours.
			</p>
			<div className="grid sm:grid-cols-2 gap-2 mb-4">
				{asks.map((a) => (
					<button
						key={a.id}
						type="button"
						className="btn justify-start h-12"
						onClick={() => move({ do: 'read', reading: a.reading as unknown as Move['reading'] })}
						data-ask={a.id}
					>
						{a.name}
					</button>
				))}
			</div>
			<Readings played={v} />
			<button
				type="button"
				className="btn btn-primary w-full h-14 text-lg mt-3"
				onClick={enough}
				data-enough-read
			>
				Enough: choose and cut
			</button>
		</>
	);
}

function Readings({ played: v }: { played: Played }) {
	const last = v.readings.length;
	return (
		<ol className="max-h-72 overflow-y-auto" data-readings={last}>
			{[...v.readings].reverse().map((r, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a reading is known by its number
				<li key={last - i} className="border-b border-base-300 py-1 flex gap-3 items-baseline">
					<span className="opacity-75 w-8">{last - i}.</span>
					<span className="grow">{r.name}</span>
					<span className="text-2xl dim">
						<Len text={r.text} />
					</span>
				</li>
			))}
		</ol>
	);
}

/** Choose is margins, slab, edge and cut. */
function Choose({ played: v, move, back, unit }: Doing & { played: Played; back: () => void; unit: Unit }) {
	const [cut, setCut] = useState({ head: '', foot: '', length: '', headUp: '0', footUp: '0' });
	const radio = (
		name: string,
		now: string,
		list: { id: string; text: string; note?: string }[],
		on: (id: string) => void,
	) => (
		<fieldset className="mb-3">
			<legend className="text-lg">{name}</legend>
			{list.map((o) => (
				<label key={o.id} className="flex items-center gap-3 min-h-11 cursor-pointer">
					<input
						type="radio"
						className="radio radio-primary"
						name={name}
						checked={now === o.id}
						onChange={() => on(o.id)}
						data-choose={`${name} ${o.id}`}
					/>
					<span>
						{o.text}
						{o.note && <span className="block text-sm opacity-75">{o.note}</span>}
					</span>
				</label>
			))}
		</fieldset>
	);
	const field = (id: keyof typeof cut, label: string) => (
		<Tape
			id={`cut-${id}`}
			label={label}
			value={cut[id]}
			unit={unit}
			onChange={(t) => setCut({ ...cut, [id]: t })}
			onEnter={() => undefined}
		/>
	);
	const length = (t: string) => withUnit(t, unit) as unknown as number;
	return (
		<>
			<details className="mb-2">
				<summary className="min-h-11 flex items-center cursor-pointer underline">What was read</summary>
				<Readings played={v} />
				<button type="button" className="btn mt-2" onClick={back}>
					Read more
				</button>
			</details>
			<p className="mb-2 text-lg">
				The slab is still to be painted{v.bored ? '; all of these are bored on their lock edge' : ''}.
			</p>
			<div className="grid sm:grid-cols-2 gap-x-6">
				{radio(
					'Margins',
					v.school,
					trade.schools.map((s) => ({
						id: s.id,
						text: s.name,
						note: s.margins.map((m) => `${m.side} ${pick(m.text, unit) || 'by the hinge'}`).join(', '),
					})),
					(school) => move({ do: 'margins', school }),
				)}
				<div>
					{radio(
						'Slab',
						String(v.slab),
						v.slabs.map((s, i) => ({ id: String(i), text: pick(s, unit) })),
						(id) => move({ do: 'slab', slab: Number(id) }),
					)}
					{radio(
						'Width comes off',
						v.edge,
						[
							{ id: 'keep-lock', text: 'the hinge edge' },
							{ id: 'keep-hinge', text: 'the lock edge' },
							{ id: 'even-stiles', text: 'both alike' },
						],
						(edge) => move({ do: 'edge', edge }),
					)}
				</div>
			</div>
			<fieldset className="grid sm:grid-cols-3 gap-x-3 gap-y-2">
				<legend className="text-lg">Cut it to</legend>
				{field('head', 'Width at the head')}
				{field('foot', 'Width at the foot')}
				{field('length', 'Length, hinge edge')}
				{field('headUp', 'Head higher at the lock by')}
				{field('footUp', 'Foot higher at the lock by')}
			</fieldset>
			<div className="grid sm:grid-cols-2 gap-2 mt-3">
				<button
					type="button"
					className="btn btn-primary h-14 text-lg"
					onClick={() =>
						move({
							do: 'cut',
							cut: {
								head: length(cut.head),
								foot: length(cut.foot),
								length: length(cut.length),
								headUp: length(cut.headUp || '0'),
								footUp: length(cut.footUp || '0'),
							},
						})
					}
					data-cut-own
				>
					Cut it so, and hang it
				</button>
				<button
					type="button"
					className="btn h-14 text-lg"
					onClick={() => move({ do: 'cut', plan: true })}
					data-cut-plan
				>
					Take the plan's cut
				</button>
			</div>
			<Cautions step="cut" />
		</>
	);
}

/** Adjust is what is done to the slab that hangs. */
function Adjust({ move, unit, goesIn }: Doing & { unit: Unit; goesIn: boolean }) {
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
				<p className="text-lg mb-2 border-l-4 border-warning pl-3">
					It does not go in yet: it was held up against the opening.
				</p>
			)}
			<fieldset className="grid grid-cols-2 gap-x-3 gap-y-2 mb-2">
				<legend className="text-lg">Pack out (minus lets in)</legend>
				{field('top', 'Top hinge')}
				{field('bottom', 'Bottom hinge')}
			</fieldset>
			<fieldset className="grid grid-cols-2 gap-x-3 gap-y-2 mb-2">
				<legend className="text-lg">Plane off</legend>
				{field('lockFoot', 'Lock edge, foot')}
				{field('lockHead', 'Lock edge, head')}
				{field('headHinge', 'Head, hinge corner')}
				{field('headLock', 'Head, lock corner')}
				{field('footHinge', 'Foot, hinge corner')}
				{field('footLock', 'Foot, lock corner')}
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
					Do it, and hang it again
				</button>
				<button
					type="button"
					className="btn h-14 text-lg"
					onClick={() => move({ do: 'adjust', plan: true })}
					data-adjust-plan
				>
					Take the plan's advice
				</button>
				<button
					type="button"
					className="btn btn-primary h-14 text-lg sm:col-span-2"
					onClick={() => move({ do: 'done' })}
					data-call-done
				>
					Call it done
				</button>
			</div>
			<Cautions step="try" />
		</>
	);
}

/** GradeOf is what it came to, and why. */
function GradeOf({ played: v, grade: g }: { played: Played; grade: NonNullable<Played['grade']> }) {
	const row = (label: string, mine: string, plan: string) => (
		<tr className="border-b border-base-300">
			<th scope="row" className="text-left font-normal py-1">
				{label}
			</th>
			<td className="text-xl dim text-right">{mine}</td>
			<td className="text-xl dim text-right">{plan}</td>
		</tr>
	);
	const p = g.plan;
	const none = p.answers ? '' : 'no answer';
	return (
		<section aria-label="Grade" data-grade={String(g.fits)} data-trips={g.trips}>
			<ul className="mb-3">
				{g.said.map((s) => (
					<li
						key={s.text}
						className={`border-l-4 pl-3 py-1 mb-1 ${s.good ? 'border-success' : 'border-error'}`}
						data-said={String(s.good)}
					>
						<strong>{s.good ? 'Well: ' : 'Not so: '}</strong>
						{s.text}
					</li>
				))}
				{g.unchecked.map((u) => (
					<li key={u} className="border-l-4 border-warning pl-3 py-1 mb-1" data-unchecked>
						<strong>Never read: </strong>
						{u}.
					</li>
				))}
			</ul>
			<table className="w-full mb-3">
				<thead>
					<tr className="text-left">
						<td />
						<th className="text-right">You</th>
						<th className="text-right">The plan, on your readings</th>
					</tr>
				</thead>
				<tbody>
					{row('Trips to the trestles', String(g.trips), none || String(p.trips))}
					{row('Minutes', String(Math.round(g.minutes)), none || String(Math.round(p.minutes)))}
					{row('Uneven light, mm', g.uneven.mm, none || p.uneven.mm)}
					{row('Fits', g.fits ? 'yes' : 'no', none || (p.fits ? 'yes' : 'no'))}
					{row('Slab to the saw, cm²', String(g.waste), `${g.least} at least`)}
				</tbody>
			</table>
			<details className="mb-3">
				<summary className="min-h-11 flex items-center cursor-pointer underline">
					What the plan would have done, and why
				</summary>
				{p.answers && (
					<p>
						Cut to <Len text={p.head} /> at the head, <Len text={p.foot} /> at the foot,{' '}
						<Len text={p.length} /> long.
					</p>
				)}
				<ul className="list-disc pl-5">
					{p.why.map((w) => (
						<li key={w}>{w}</li>
					))}
				</ul>
			</details>
			<p className="border-l-8 border-primary pl-3 text-lg mb-3" data-learn>
				<strong>Practise next:</strong> {g.learn}
			</p>
			<p className="flex flex-wrap gap-2">
				<Link className="btn btn-primary" to="/practice">
					Back to practice
				</Link>
				<a
					className="btn"
					href={`data:application/json,${encodeURIComponent(v.attempt)}`}
					download="attempt.exercise.json"
					data-attempt
				>
					<Download size={20} aria-hidden="true" /> This attempt, to hand in
				</a>
			</p>
		</section>
	);
}

/** Exercise hands the same opening to a class. */
function Exercise({ level, seed, own }: { level: string; seed: string; own: boolean }) {
	if (own) return null;
	return (
		<p className="mt-6">
			<a className="btn" href={`/api/practice/exercise?level=${level}&seed=${seed}`} download data-hand-out>
				<Download size={20} aria-hidden="true" /> This opening as a file, for a class
			</a>
		</p>
	);
}
