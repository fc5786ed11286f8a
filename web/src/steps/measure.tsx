import { X } from 'lucide-react';
import { useContext, useState } from 'react';
import type { Trouble, Unit } from '../api';
import { useDoor } from '../door-state';
import { Choose, LengthField, Tape } from '../field';
import { pick, ShownIn, Sure } from '../length';

const kinds: Record<string, string> = {
	width: 'Width',
	height: 'Floor to head',
	plumb: 'Plumb of a jamb',
	level: 'Level of head or floor',
	square: 'Square in a head corner',
};

type Draft = { kind: string; side?: string; at: string | number; from?: string | number };

/** MeasureStep offers the next reading by name and place; Enter takes it and moves on. */
export function MeasureStep() {
	const { view } = useDoor();
	const [skipped, setSkipped] = useState<string[]>([]);
	const [other, setOther] = useState(false);
	const next = view.plan.toRead.find((r) => !skipped.includes(r.name));
	return (
		<>
			<AboutOpening />
			{next && !other && (
				<section aria-label="Next reading" className="border-2 border-[var(--rod-edge)] p-3 mb-4">
					<p className="opacity-80">Next reading{next.needed ? '' : ', to be surer'}</p>
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
						}}
						signed={next.kind !== 'width' && next.kind !== 'height'}
					/>
					<div className="flex gap-2 mt-2">
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
				</section>
			)}
			{!next && !other && (
				<p className="mb-3 text-lg">
					The usual readings are in.{' '}
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
			</div>
		</details>
	);
}

function TakeReading({
	name,
	how,
	reading,
	signed,
}: {
	name: string;
	how?: string;
	reading: Draft;
	signed?: boolean;
}) {
	const { view, save } = useDoor();
	const draftKey = `reading ${view.job.id} ${view.opening.id}`;
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
				signed ? (view.job.unit === 'in' ? '-1/16' : '-1.5') : view.job.unit === 'in' ? '30 1/8' : '826.5'
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
	const unit = view.job.unit as Unit;
	const jamb = kind === 'plumb' || kind === 'square';
	const sides = jamb ? ['hinge', 'lock'] : ['head', 'foot'];
	const hasSide = jamb || kind === 'level';
	const own = sides.includes(side) ? side : (sides[0] ?? '');
	const where = {
		width: 'Height above the floor',
		plumb: 'Upper place, above the floor',
		square: 'Length of the blade',
	}[kind];
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
			{hasSide && (
				<label>
					<span className="block">Where</span>
					<select className="select w-full" value={own} onChange={(e) => setSide(e.target.value)}>
						{sides.map((s) => (
							<option key={s} value={s}>
								{s === 'foot' ? 'floor' : jamb ? `${s} jamb` : s}
							</option>
						))}
					</select>
				</label>
			)}
			<Tape
				id="other-at"
				label={where ?? 'Distance from the hinge jamb'}
				value={at}
				unit={unit}
				onChange={setAt}
				onEnter={() => document.querySelector<HTMLElement>('[data-field="next-reading"]')?.focus()}
			/>
			{(kind === 'plumb' || kind === 'level') && (
				<Tape
					id="other-from"
					label={
						kind === 'plumb'
							? 'Against the lower place, above the floor'
							: 'Against the place, from the hinge jamb'
					}
					value={from}
					unit={unit}
					onChange={setFrom}
					onEnter={() => document.querySelector<HTMLElement>('[data-field="next-reading"]')?.focus()}
				/>
			)}
			<TakeReading
				name={kinds[kind] ?? kind}
				reading={{
					kind,
					at,
					...(hasSide ? { side: own } : {}),
					...(kind === 'plumb' || kind === 'level' ? { from } : {}),
				}}
				how={
					{
						plumb: 'How far further into the opening it stands at the upper place; out is minus',
						level: 'How much higher it is there; lower is minus',
						square: "Light at the blade's end; light in the corner is minus",
					}[kind] ?? 'Reading'
				}
				signed={kind !== 'width' && kind !== 'height'}
			/>
			<button type="button" className="btn btn-ghost" onClick={close}>
				Back to the usual readings
			</button>
		</section>
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
	const { view, save } = useDoor();
	if (view.plan.readings.length === 0) return null;
	return (
		<section aria-label="Readings">
			<h2 className="text-lg mb-1">Readings</h2>
			<ul>
				{view.plan.readings.map((r, i) => (
					<li
						key={r.id}
						className="flex items-start gap-2 border-b border-base-300 py-1.5"
						data-reading={r.name}
					>
						<span className="grow pt-2">
							{r.name[0]?.toUpperCase()}
							{r.name.slice(1)}
						</span>
						<span className="w-40 shrink-0">
							<LengthField pointer={`/readings/${i}/value`} label={r.name} hideLabel />
						</span>
						<button
							type="button"
							className="btn btn-ghost btn-square"
							tabIndex={-1}
							aria-label={`Take out: ${r.name}`}
							title="Take it out (undo brings it back)"
							onClick={() => save([{ op: 'remove', path: `/readings/${i}` }], `took out: ${r.name}`)}
						>
							<X size={20} />
						</button>
					</li>
				))}
			</ul>
		</section>
	);
}
