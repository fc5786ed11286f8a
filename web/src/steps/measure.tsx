import { X } from 'lucide-react';
import { useContext, useState } from 'react';
import type { Op, Plan, Trouble, Unit } from '../api';
import { Said, useAttempt } from '../attempt';
import { useDoor } from '../door-state';
import { Choose, LengthField, Tape } from '../field';
import { pick, ShownIn, Sure } from '../length';

type Reading = Plan['readings'][number];

const kinds: Record<string, string> = {
	width: 'Width',
	height: 'Floor to head',
	plumb: 'Plumb of a jamb',
	level: 'Level of head or floor',
	square: 'Square in a head corner',
	straight: 'Straight: light under a straightedge',
	diagonal: 'Diagonal',
	gap: 'Gap beside a slab offered up, or the old door',
};

type Draft = {
	kind: string;
	side?: string;
	at?: string | number;
	from?: string | number;
	to?: string | number;
	offer?: string;
	blocked?: boolean;
};

const signed = (kind: string) => ['plumb', 'level', 'square', 'straight'].includes(kind);

/** MeasureStep offers the next reading by name and place; Enter takes it and moves on. */
export function MeasureStep() {
	const { view } = useDoor();
	const [skipped, setSkipped] = useState<string[]>([]);
	const [other, setOther] = useState(false);
	// Where readings clash, what settles it comes first.
	const clash = view.plan.clashes[0];
	const settles = clash && !clash.againID ? [clash.again] : [];
	const open = [...settles, ...view.plan.toRead].filter((r) => !skipped.includes(r.name));
	const next = open[0];
	return (
		<>
			<AboutOpening />
			{next && !other && (
				<section aria-label="Next reading" className="border-2 border-[var(--rod-edge)] p-3 mb-4">
					<p className="opacity-80">Next reading: {next.brings}</p>
					<h2 className="text-xl mb-1" data-next={next.name}>
						{next.name[0]?.toUpperCase()}
						{next.name.slice(1)}
					</h2>
					<TakeReading
						key={next.name}
						name={next.name}
						how={next.how}
						reading={{
							kind: next.kind,
							at: next.at,
							...(next.side ? { side: next.side } : {}),
							...(next.from ? { from: next.from } : {}),
							...(next.to ? { to: next.to } : {}),
						}}
					/>
					<div className="flex flex-wrap gap-2 mt-2">
						<button
							type="button"
							className="btn btn-ghost"
							onClick={() => setSkipped([...skipped, next.name])}
						>
							Skip it
						</button>
						<button
							type="button"
							className="btn btn-ghost"
							onClick={() => setOther(true)}
							data-field="other-reading"
						>
							Another reading
						</button>
					</div>
					{open.length > 1 && !next.needed && (
						<ul className="text-[0.95rem] opacity-85 mt-1">
							{open.slice(1, 3).map((r) => (
								<li key={r.name}>
									or {r.name} ({r.brings})
								</li>
							))}
						</ul>
					)}
				</section>
			)}
			{!next && !other && (
				<p className="mb-3 text-lg" data-enough>
					<strong>{clash ? 'Settle what clashes first.' : 'Sure enough to cut.'}</strong>{' '}
					<button type="button" className="btn" onClick={() => setOther(true)} data-field="other-reading">
						Another reading
					</button>
				</p>
			)}
			{other && <OtherReading close={() => setOther(false)} />}
			<Surety />
			<ReadingList />
		</>
	);
}

function AboutOpening() {
	const { view } = useDoor();
	const o = view.opening;
	return (
		<details className="mb-3">
			<summary className="cursor-pointer min-h-11 flex items-center gap-2 underline decoration-dotted underline-offset-4">
				Hinges on the {o.hand}, seen from the pull face · {o.walls}
			</summary>
			<div className="pt-2">
				<Choose
					pointer="/hand"
					label="Hinges, seen from the pull face (knuckles show)"
					row
					options={[
						{ value: 'left', text: 'left' },
						{ value: 'right', text: 'right' },
					]}
				/>
				<Choose
					pointer="/walls"
					label="The opening"
					options={[
						{ value: 'old opening', text: 'old opening', note: 'has settled: leans and bellies' },
						{ value: 'new frame', text: 'new frame', note: 'set by a careful hand' },
					]}
				/>
				<LengthField
					pointer="/between"
					label="Between what stands left and right of the opening"
					note="Optional. A width that cannot fit there is caught."
					optional
				/>
				<PairOfDoors />
			</div>
		</details>
	);
}

/** PairOfDoors makes the opening one for two leaves. */
function PairOfDoors() {
	const { view, save } = useDoor();
	const pair = view.opening.pair;
	const [error, attempt] = useAttempt();
	const toggle = async (on: boolean) => {
		const inch = view.job.unit === 'in';
		const value = {
			slab: { width: 0, length: 0, thickness: 0 },
			meeting: inch ? '5/32' : '4',
			fixed: 'lock',
		};
		await attempt(async () => {
			await save(
				[on ? { op: 'add', path: '/pair', value } : { op: 'remove', path: '/pair' }],
				on ? 'a pair of doors' : 'a single door',
			);
		});
	};
	return (
		<div className="mt-3 grid gap-2">
			<label className="flex items-center gap-3 min-h-11">
				<input
					type="checkbox"
					className="checkbox"
					data-field="pair"
					checked={!!pair}
					onChange={(e) => toggle(e.target.checked)}
				/>
				A pair of doors, meeting in the middle
			</label>
			{pair && (
				<>
					<div className="grid sm:grid-cols-2 gap-3">
						<LengthField pointer="/pair/meeting" label="Margin between them" />
						<LengthField
							pointer="/pair/offset"
							label="Meeting line off midway"
							note="toward the lock jamb; minus the other way"
							optional
						/>
					</div>
					<Choose
						pointer="/pair/fixed"
						label="Bolted top and bottom, carries the strike: the leaf on the"
						row
						options={[
							{ value: 'hinge', text: 'hinge jamb' },
							{ value: 'lock', text: 'lock jamb' },
						]}
					/>
				</>
			)}
			<Said error={error} />
		</div>
	);
}

function TakeReading({ name, how, reading }: { name: string; how?: string; reading: Draft }) {
	const { view, save } = useDoor();
	// What was typed for one reading is kept for that one alone.
	const draftKey = `reading ${view.job.id} ${view.opening.id} ${name}`;
	const [text, setText] = useState(() => sessionStorage.getItem(draftKey) ?? '');
	const [error, setError] = useState('');
	const type = (t: string) => {
		setText(t);
		setError('');
		if (t) sessionStorage.setItem(draftKey, t);
		else sessionStorage.removeItem(draftKey);
	};
	const take = async (typed: string) => {
		try {
			const value = { id: '', ...reading, value: typed };
			sessionStorage.removeItem(draftKey); // the next reading must not find it
			await save([{ op: 'add', path: '/readings/-', value }], `${name} ${typed}`);
			setText('');
		} catch (e) {
			sessionStorage.setItem(draftKey, typed);
			const t = e as Trouble;
			const value = t.fields?.find((f) => f.pointer.endsWith('/value')) ?? t.fields?.[0];
			setError(value?.message ?? t.message);
		}
	};
	return (
		<Tape
			id="next-reading"
			label={how ?? name}
			big
			autoFocus={!matchMedia('(pointer: coarse)').matches}
			value={text}
			unit={view.job.unit as Unit}
			onChange={type}
			onEnter={take}
			error={error}
			placeholder={
				signed(reading.kind)
					? view.job.unit === 'in'
						? '-1/16'
						: '-1.5'
					: view.job.unit === 'in'
						? '30 5/8'
						: '777.5'
			}
		/>
	);
}

function OtherReading({ close }: { close: () => void }) {
	const { view } = useDoor();
	const [kind, setKind] = useState('width');
	const [side, setSide] = useState('hinge');
	const [at, setAt] = useState('');
	const [from, setFrom] = useState('');
	const [to, setTo] = useState('');
	const [blocked, setBlocked] = useState(false);
	const offers = view.opening.offers ?? [];
	const [offer, setOffer] = useState(offers[0]?.id ?? '');
	const unit = view.job.unit as Unit;
	const sides =
		{
			plumb: ['hinge', 'lock'],
			square: ['hinge', 'lock'],
			diagonal: ['hinge', 'lock'],
			level: ['head', 'foot'],
			straight: ['hinge', 'lock', 'head', 'foot'],
			gap: ['hinge', 'lock', 'head', 'foot'],
		}[kind] ?? [];
	const own = sides.includes(side) ? side : (sides[0] ?? '');
	const upright = own === 'hinge' || own === 'lock';
	const place = upright ? 'above the floor' : 'from the hinge jamb';
	const where =
		{
			width: 'Height above the floor',
			height: 'Distance from the hinge jamb',
			plumb: 'Upper place, above the floor',
			level: 'Distance from the hinge jamb',
			square: 'Length of the blade',
			straight: `Where the light is read, ${place}`,
			gap: upright ? 'Up the slab, from its foot' : "From the slab's hinge edge",
		}[kind] ?? '';
	const start =
		{
			plumb: 'Against the lower place, above the floor',
			level: 'Against the place, from the hinge jamb',
			straight: `Straightedge from, ${place}`,
		}[kind] ?? '';
	const toReading = () => document.querySelector<HTMLElement>('[data-field="next-reading"]')?.focus();
	const reading: Draft = {
		kind,
		...(where ? { at } : { at: 0 }),
		...(sides.length ? { side: own } : {}),
		...(start ? { from } : {}),
		...(kind === 'straight' ? { to } : {}),
		...(kind === 'gap' ? { offer } : {}),
		...(kind === 'gap' && blocked ? { blocked } : {}),
	};
	return (
		<section aria-label="Another reading" className="border-2 border-[var(--rod-edge)] p-3 mb-4 grid gap-2">
			<label>
				<span className="block">What</span>
				<select
					className="select w-full"
					value={kind}
					onChange={(e) => setKind(e.target.value)}
					data-field="other-kind"
				>
					{Object.entries(kinds).map(([k, name]) => (
						<option key={k} value={k}>
							{name}
						</option>
					))}
				</select>
			</label>
			{kind === 'gap' && <Offers chosen={offer} choose={setOffer} />}
			{(kind !== 'gap' || offer) && (
				<>
					{sides.length > 0 && (
						<label>
							<span className="block">{kind === 'diagonal' ? 'From the foot of' : 'Where'}</span>
							<select
								className="select w-full"
								value={own}
								onChange={(e) => setSide(e.target.value)}
								data-field="other-side"
							>
								{sides.map((s) => (
									<option key={s} value={s}>
										{s === 'foot' ? 'floor' : s === 'head' ? s : `${s} jamb`}
									</option>
								))}
							</select>
						</label>
					)}
					{where && (
						<Tape id="other-at" label={where} value={at} unit={unit} onChange={setAt} onEnter={toReading} />
					)}
					{start && (
						<Tape
							id="other-from"
							label={start}
							value={from}
							unit={unit}
							onChange={setFrom}
							onEnter={toReading}
						/>
					)}
					{kind === 'straight' && (
						<Tape id="other-to" label="to" value={to} unit={unit} onChange={setTo} onEnter={toReading} />
					)}
					{kind === 'gap' && (
						<label className="flex items-center gap-3 min-h-11">
							<input
								type="checkbox"
								className="checkbox"
								checked={blocked}
								onChange={(e) => setBlocked(e.target.checked)}
							/>
							nothing passes (then the reading is 0)
						</label>
					)}
					<TakeReading
						key={kind}
						name={kinds[kind] ?? kind}
						reading={reading}
						how={hows[kind] ?? 'Reading'}
					/>
				</>
			)}
			<button type="button" className="btn btn-ghost" onClick={close}>
				Back to what would help most
			</button>
		</section>
	);
}

const hows: Record<string, string> = {
	plumb: 'How far further into the opening it stands at the upper place; out is minus',
	level: 'How much higher it is there; lower is minus',
	square: "Light at the blade's end; light in the corner is minus",
	straight: 'Light under the straightedge; where it rocks on the middle, minus',
	diagonal: "To the head's far corner",
	gap: 'The packer that just passes',
};

/** Offers are the placings that gaps were read in: a slab stood on wedges, or the old door as it hung. */
function Offers({ chosen, choose }: { chosen: string; choose: (id: string) => void }) {
	const { view, save } = useDoor();
	const offers = view.opening.offers ?? [];
	const unit = view.job.unit as Unit;
	const [name, setName] = useState('the old door');
	const [old, setOld] = useState(true);
	const [width, setWidth] = useState('');
	const [length, setLength] = useState('');
	const [mid, setMid] = useState('');
	const [foot, setFoot] = useState('');
	const [lockEdge, setLockEdge] = useState('');
	const [square, setSquare] = useState('');
	const [error, attempt] = useAttempt();
	const [adding, setAdding] = useState(offers.length === 0);
	const add = async () => {
		const id = `o${offers.length + 1}`;
		await attempt(async () => {
			const offer = {
				id,
				name,
				width,
				length,
				...(old ? { old } : {}),
				...(mid ? { widthMid: mid } : {}),
				...(foot ? { widthFoot: foot } : {}),
				...(lockEdge ? { lengthLock: lockEdge } : {}),
				...(square ? { square } : {}),
			};
			await save(
				[
					offers.length
						? { op: 'add', path: '/offers/-', value: offer }
						: { op: 'add', path: '/offers', value: [offer] },
				],
				`stood up: ${name}`,
			);
			choose(id);
			setAdding(false);
		});
	};
	if (!adding)
		return (
			<label>
				<span className="block">What stood in the opening</span>
				<span className="flex gap-2">
					<select
						className="select grow"
						value={chosen}
						onChange={(e) => choose(e.target.value)}
						data-field="other-offer"
					>
						{offers.map((o) => (
							<option key={o.id} value={o.id}>
								{o.name}
							</option>
						))}
					</select>
					<button type="button" className="btn" onClick={() => setAdding(true)}>
						Placed anew
					</button>
				</span>
			</label>
		);
	return (
		<div className="grid gap-2">
			<p>Gaps read without moving the slab belong together. Say what stood there.</p>
			<label>
				<span className="block">What</span>
				<input
					className="input w-full text-lg"
					data-field="offer-name"
					value={name}
					onChange={(e) => setName(e.target.value)}
				/>
			</label>
			<fieldset className="flex flex-wrap gap-x-6">
				<legend className="sr-only">Which it is</legend>
				{[true, false].map((is) => (
					<label key={String(is)} className="flex items-center gap-2 min-h-11">
						<input
							type="radio"
							className="radio radio-primary"
							name="offer-old"
							checked={old === is}
							onChange={() => {
								setOld(is);
								setName(is ? 'the old door' : 'the slab');
							}}
						/>
						{is ? 'the old door, as it hung' : 'the slab that is to be cut'}
					</label>
				))}
			</fieldset>
			<div className="grid sm:grid-cols-2 gap-2">
				<Tape
					id="offer-width"
					label="Its width, at the head"
					value={width}
					unit={unit}
					onChange={setWidth}
					onEnter={() => document.querySelector<HTMLElement>('[data-field="offer-length"]')?.focus()}
				/>
				<Tape
					id="offer-length"
					label="Its length, on the hinge edge"
					value={length}
					unit={unit}
					onChange={setLength}
					onEnter={add}
				/>
			</div>
			<details open={old}>
				<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
					Measured closer: an old door is rarely a rectangle
				</summary>
				<div className="grid sm:grid-cols-2 gap-2">
					<Tape
						id="offer-mid"
						label="Width, middle"
						value={mid}
						unit={unit}
						onChange={setMid}
						onEnter={add}
					/>
					<Tape
						id="offer-foot"
						label="Width, foot"
						value={foot}
						unit={unit}
						onChange={setFoot}
						onEnter={add}
					/>
					<Tape
						id="offer-lock"
						label="Length, lock edge"
						value={lockEdge}
						unit={unit}
						onChange={setLockEdge}
						onEnter={add}
					/>
					<Tape
						id="offer-square"
						label="Head: lock corner high (+)"
						value={square}
						unit={unit}
						onChange={setSquare}
						onEnter={add}
					/>
				</div>
			</details>
			<Said error={error} />
			<button type="button" className="btn" onClick={add} data-field="offer-add">
				It stands
			</button>
		</div>
	);
}

/** Surety says how well each margin is known from the readings so far. */
function Surety() {
	const { view } = useDoor();
	const unit = useContext(ShownIn);
	if (view.opening.readings.length === 0) return null;
	return (
		<section aria-label="How sure" className="mb-4">
			<h2 className="text-lg mb-1">How sure the margins are</h2>
			<div className="grid grid-cols-4 gap-2 text-center">
				{view.plan.wanted.map((w) => (
					<div key={w.side} className="border-t-4 border-[var(--rod-edge)] pt-1" data-sure={w.side}>
						{w.side}
						<div className="text-xl dim">
							{Number.parseFloat(w.sure.mm) > 20 ? (
								'not known'
							) : pick(w.sure, unit) ? (
								<Sure text={w.sure} />
							) : (
								'exact'
							)}
						</div>
					</div>
				))}
			</div>
		</section>
	);
}

function ReadingList() {
	const { view } = useDoor();
	if (view.plan.readings.length === 0) return null;
	return (
		<section aria-label="Readings">
			<h2 className="text-lg mb-1">Readings</h2>
			<ul>
				{view.plan.readings.map((r, i) => (
					<Kept key={r.id} r={r} i={i} />
				))}
			</ul>
			<div className="max-w-60 mt-3">
				<LengthField
					pointer="/sure"
					label="Sure enough: every margin to ±"
					optional
					placeholder={view.job.unit === 'in' ? '1/32' : '0.9'}
				/>
			</div>
		</section>
	);
}

/** Kept is one reading: to correct, to strike out with a reason, or to count again. */
function Kept({ r, i }: { r: Reading; i: number }) {
	const { save } = useDoor();
	const [why, setWhy] = useState<string | null>(null);
	const [error, attempt] = useAttempt();
	const change = async (ops: Op[], label: string) => {
		await attempt(async () => {
			await save(ops, label);
			setWhy(null);
		});
	};
	const name = `${r.name[0]?.toUpperCase()}${r.name.slice(1)}`;
	return (
		<li className="border-b border-base-300 py-1.5" data-reading={r.name} data-struck={r.struck || undefined}>
			<div className="flex max-sm:flex-wrap items-start gap-2">
				<span className={`grow max-sm:w-full pt-2 ${r.struck ? 'line-through' : ''}`}>{name}</span>
				<span className="max-sm:grow sm:w-40 shrink-0">
					<LengthField pointer={`/readings/${i}/value`} label={r.name} hideLabel />
				</span>
				{r.struck ? (
					<button
						type="button"
						className="btn btn-ghost px-2"
						onClick={() =>
							change([{ op: 'remove', path: `/readings/${i}/struck` }], `counts again: ${r.name}`)
						}
					>
						Count it
					</button>
				) : (
					<button
						type="button"
						className="btn btn-ghost px-2"
						aria-expanded={why !== null}
						data-strike={r.name}
						onClick={() => setWhy(why === null ? 'misread' : null)}
					>
						<X size={20} aria-hidden="true" />
						<span className="sr-only">Doubt it: strike out, or say how sure it is: {r.name}</span>
					</button>
				)}
			</div>
			{r.struck && <p className="text-sm">struck out: {r.struck}</p>}
			{why !== null && (
				<form
					className="flex flex-wrap gap-2 pb-1"
					onSubmit={(e) => {
						e.preventDefault();
						change(
							[{ op: 'add', path: `/readings/${i}/struck`, value: why.trim() || 'misread' }],
							`struck out: ${r.name}`,
						);
					}}
				>
					<input
						className="input grow"
						aria-label="Why it is struck out"
						data-field="strike-why"
						// biome-ignore lint/a11y/noAutofocus: it opens where the hand is
						autoFocus
						value={why}
						onChange={(e) => setWhy(e.target.value)}
					/>
					<button type="submit" className="btn btn-primary">
						Strike it out
					</button>
					<div className="w-full">
						<LengthField
							pointer={`/readings/${i}/sure`}
							label="Or say how sure it is: ±"
							optional
							placeholder="as usual for its kind"
						/>
					</div>
					<button
						type="button"
						data-remove
						className="btn"
						onClick={() => change([{ op: 'remove', path: `/readings/${i}` }], `took out: ${r.name}`)}
					>
						Take it away
					</button>
				</form>
			)}
			<Said error={error} />
		</li>
	);
}
