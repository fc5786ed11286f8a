import { useQuery, useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type JobHead, type Schemas, Trouble, type Unit } from '../api/client';
import { resources } from '../api/resources';
import { typed } from '../opening/kept';
import { Checkbox } from '../ui/checkbox';
import { useHomeFocus } from '../ui/home-focus';
import { Len, ShownIn } from '../ui/length';
import { Failed, Waiting } from '../ui/says';
import { Tape } from '../ui/tape';
import { ToolButton } from '../ui/toolbutton';
import { Top } from '../ui/top';
import { say } from '../words/texts';
import { kindOf, trade } from '../words/trade';
import { KitFrom } from './kit-from';
import { RouterForm, SawForm } from './saw';

type Tool = Schemas['Tool'];
type Found = Schemas['ProofFound'];

const instrument = (id: string) => trade.instruments.find((i) => i.id === id);

/** called is a tool's name: its own, otherwise its instrument's. */
const called = (t: Tool) => t.name || instrument(t.instrument)?.name || t.id;

/** KitPage is the kit of a job: its tools, and the proved error of each. */
export function KitPage() {
	const { job = '' } = useParams();
	const cache = useQueryClient();
	const walk = useQuery(resources.walk(job));
	const [error, attempt] = useAttempt();
	const head = walk.data?.job;
	const trail = useMemo(
		() => (head ? [{ to: `/j/${job}`, text: head.name }, { text: say('page.kit') }] : []),
		[head, job],
	);
	useHomeFocus(String(head?.version));
	const put = async (h: JobHead, kit: JobHead['kit']) => {
		await ask(
			client.PATCH('/api/jobs/{job}', {
				params: { path: { job }, header: { 'If-Match': `"${h.version}"` } },
				body: { kit },
			}),
		);
		await Promise.all([
			walk.refetch(),
			cache.invalidateQueries({ queryKey: resources.openings(job), refetchType: 'none' }),
		]);
	};
	const save = (h: JobHead, kit: JobHead['kit']) => attempt(() => put(h, kit));
	return (
		<>
			<Top trail={trail} />
			<main className="p-4 sm:p-6 max-w-4xl mx-auto">
				{walk.isPending && <Waiting text={say('kit.fetching-the-kit')} />}
				{walk.error && <Failed error={walk.error} retry={() => walk.refetch()} alone={!walk.data} />}
				{head && (
					<>
						<h1 className="text-3xl mb-1" tabIndex={-1} data-home>
							{say('page.kit')}
						</h1>
						<p className="mb-4 max-w-prose">{say('kit.kind-margin-asks-for-readings')}</p>
						<section className="border-l-8 border-[var(--rod-edge)] pl-3 mb-4 max-w-prose" data-costs>
							{head.costs.map((says, i) => (
								<p key={says} className={i === 1 ? 'font-semibold' : ''}>
									{says}
								</p>
							))}
						</section>
						<Said error={error} className="mb-3" />
						<ul className="grid gap-3 mb-5">
							{(head.kit.tools ?? []).map((t, i) => (
								<ToolInKit
									key={t.id}
									head={head}
									tool={t}
									change={(to) => {
										const tools = [...(head.kit.tools ?? [])];
										if (to) tools[i] = to;
										else tools.splice(i, 1);
										return save(head, { ...head.kit, tools });
									}}
								/>
							))}
						</ul>
						<AddTool
							head={head}
							add={(t) => save(head, { ...head.kit, tools: [...(head.kit.tools ?? []), t] })}
						/>
						<Kept
							title={say('kit.hinges-kept')}
							list={(head.kit.hinges ?? []).map((h) => ({
								...h,
								is: trade.hingeKinds.find((k) => k.id === h.kind)?.name,
							}))}
							takeOut={(id) =>
								save(head, { ...head.kit, hinges: (head.kit.hinges ?? []).filter((x) => x.id !== id) })
							}
						/>
						<Kept
							title={say('kit.latches-and-locks-kept')}
							list={(head.kit.hardware ?? []).map((d) => ({
								...d,
								is: say('kit.holes', {
									name: trade.hardwareKinds.find((k) => k.id === d.kind)?.name,
									count: (d.holes ?? []).length,
								}),
							}))}
							takeOut={(id) =>
								save(head, { ...head.kit, hardware: (head.kit.hardware ?? []).filter((x) => x.id !== id) })
							}
						/>
						<div className="mt-4">
							<Checkbox
								data-field="hinge-first"
								checked={!!head.kit.hingeFirst}
								onChange={(e) => save(head, { ...head.kit, hingeFirst: e.target.checked })}
							>
								{say('kit.hinge-edge-first')}
								<span className="block text-sm opacity-80">{say('kit.otherwise-the-top-first')}</span>
							</Checkbox>
						</div>
						<fieldset className="mt-4">
							<legend className="mb-1">{say('kit.hinge-marks-are-carried')}</legend>
							{trade.markings.map((m, i) => (
								<label key={m.id} className="flex items-baseline gap-3 min-h-11 cursor-pointer">
									<input
										type="radio"
										className="radio radio-primary self-center shrink-0"
										name="marking"
										data-marking={m.id}
										checked={(head.kit.marking || trade.markings[0]?.id) === m.id}
										onChange={() => save(head, { ...head.kit, marking: i === 0 ? undefined : m.id })}
									/>
									<span>
										{m.name}
										<span className="block text-sm opacity-80">
											{say('kit.a-hinge-lies-within')}{' '}
											<ShownIn value={head.unit as Unit}>
												<Len text={m.within} unit />
											</ShownIn>
										</span>
									</span>
								</label>
							))}
						</fieldset>
						<SawForm key={`saw ${head.version}`} head={head} put={(kit) => put(head, kit)} />
						<RouterForm key={`router ${head.version}`} head={head} put={(kit) => put(head, kit)} />
						<Bits key={`bits ${head.version}`} head={head} save={(kit) => save(head, kit)} />
						<Costs key={head.version} head={head} save={(kit) => save(head, kit)} />
						<KitFrom head={head} save={(kit) => save(head, kit)} />
						<p className="mt-6">
							<Link className="btn" to={`/j/${job}`}>
								{say('page.back-to-the-walk')}
							</Link>
						</p>
					</>
				)}
			</main>
		</>
	);
}

/** ToolInKit is one tool: what it reads, what was proved of it, and the proof itself. */
function ToolInKit({
	head,
	tool,
	change,
}: {
	head: JobHead;
	tool: Tool;
	change: (to: Tool | null) => Promise<unknown>;
}) {
	const [proving, setProving] = useState(false);
	const known = instrument(tool.instrument);
	const unit = known?.perMetre ? say('kit.mm-in-a-metre') : 'mm';
	return (
		<li className="border-l-4 border-[var(--rod-edge)] pl-3 py-1" data-tool={tool.id}>
			<div className="flex flex-wrap items-center gap-x-3 gap-y-1">
				<div className="grow">
					<h2 className="text-xl">{called(tool)}</h2>
					<p className="opacity-85">
						{tool.name && `${known?.name}; `}
						{known?.reads.map((k) => kindOf(k)?.name.toLowerCase()).join(', ')}
					</p>
					<p data-proved={tool.proved ? 'yes' : 'no'}>
						{tool.proved
							? say('kit.proved-by-readings-readings-sign', {
									readings: tool.proved.readings,
									sign: tool.proved.bias > 0 ? '+' : '',
									bias: tool.proved.bias,
									unit,
									sure: (2 * tool.proved.sure).toFixed(2),
								})
							: say('kit.as-bought')}
					</p>
				</div>
				<button
					type="button"
					className="btn"
					aria-expanded={proving}
					data-prove={tool.id}
					onClick={() => setProving(!proving)}
				>
					{tool.proved ? say('kit.prove-it-again') : say('kit.prove-it')}
				</button>
				<ToolButton onClick={() => change(null)}>
					<X size={20} aria-hidden="true" />
					<span className="sr-only">{say('kit.take-out-of-the-kit', { tool: called(tool) })}</span>
				</ToolButton>
			</div>
			{proving && (
				<Prove
					head={head}
					tool={tool}
					keep={async (proved) => {
						await change({ ...tool, proved });
						setProving(false);
					}}
				/>
			)}
		</li>
	);
}

/** Prove takes readings of one span with the tool and with a better one, and shows the result. */
function Prove({
	head,
	tool,
	keep,
}: {
	head: JobHead;
	tool: Tool;
	keep: (proved: NonNullable<Tool['proved']>) => Promise<unknown>;
}) {
	const known = instrument(tool.instrument);
	const [kind, setKind] = useState(known?.reads[0] ?? 'width');
	const turns = kind === 'plumb' || kind === 'level';
	const better = (head.kit.tools ?? []).filter(
		(t) => t.id !== tool.id && instrument(t.instrument)?.reads.includes(kind),
	);
	const [against, setAgainst] = useState(turns ? '' : (better[0]?.id ?? ''));
	const [span, setSpan] = useState('');
	const [own, setOwn] = useState<string[]>([]);
	const [other, setOther] = useState<string[]>([]);
	const [found, setFound] = useState<Found | null>(null);
	const [error, setError] = useState('');
	const unit = head.unit as Unit;
	if (!turns && better.length === 0)
		return (
			<p className="py-2" role="status">
				{say('kit.to-prove-it-first-add')}
			</p>
		);
	const work = async (a: string[], b: string[], s = span) => {
		setFound(null);
		setError('');
		if (a.length < 2 || b.length < 2) return;
		try {
			setFound(
				await ask(
					client.POST('/api/jobs/{job}/kit/{tool}/proof', {
						params: { path: { job: head.id, tool: tool.id } },
						body: { kind, against, own: a, better: b, ...(known?.perMetre ? { span: s } : {}) },
					}),
				),
			);
		} catch (e) {
			setError(e instanceof Trouble ? (e.fields[0]?.message ?? e.message) : String(e));
		}
	};
	return (
		<div className="grid gap-3 py-2" data-proof={tool.id}>
			<p>{say('kit.read-one-span-a-few')}</p>
			<div className="flex flex-wrap gap-4">
				{(known?.reads.length ?? 0) > 1 && (
					<label>
						<span className="block">{say('kit.what-is-read')}</span>
						<select
							className="select"
							value={kind}
							onChange={(e) => {
								setKind(e.target.value as typeof kind);
								setOwn([]);
								setOther([]);
								setFound(null);
							}}
						>
							{known?.reads.map((k) => (
								<option key={k} value={k}>
									{kindOf(k)?.name}
								</option>
							))}
						</select>
					</label>
				)}
				<label>
					<span className="block">{say('kit.against')}</span>
					<select
						className="select"
						data-field="proof-against"
						value={against}
						onChange={(e) => {
							setAgainst(e.target.value);
							setFound(null);
						}}
					>
						{turns && <option value="">{say('kit.itself-turned-end-for-end')}</option>}
						{better.map((t) => (
							<option key={t.id} value={t.id}>
								{called(t)}
							</option>
						))}
					</select>
				</label>
				{known?.perMetre && (
					<Tape
						id="proof-span"
						label={say('kit.length-between-the-two-places')}
						value={span}
						unit={unit}
						onChange={setSpan}
						onEnter={() => document.querySelector<HTMLElement>('[data-field="proof-own"]')?.focus()}
						onLeave={(s) => work(own, other, s)}
					/>
				)}
			</div>
			<div className="grid sm:grid-cols-2 gap-4">
				<Times
					id="proof-own"
					label={say('kit.with-tool', { tool: called(tool) })}
					unit={unit}
					list={own}
					set={(list) => {
						setOwn(list);
						work(list, other);
					}}
				/>
				<Times
					id="proof-better"
					label={
						against
							? say('kit.with-tool', { tool: called(better.find((t) => t.id === against) ?? tool) })
							: say('kit.turned-end-for-end')
					}
					unit={unit}
					list={other}
					set={(list) => {
						setOther(list);
						work(own, list);
					}}
				/>
			</div>
			<Said error={error} />
			{found && (
				<p className="text-lg" role="status" data-found>
					{found.says}{' '}
					<button type="button" className="btn btn-primary" data-keep onClick={() => keep(found.proved)}>
						{say('kit.keep-it')}
					</button>
				</p>
			)}
		</div>
	);
}

/** Times are readings of one span, one after the other; Enter takes each. */
function Times({
	id,
	label,
	unit,
	list,
	set,
}: {
	id: string;
	label: string;
	unit: Unit;
	list: string[];
	set: (list: string[]) => void;
}) {
	const [text, setText] = useState('');
	return (
		<div>
			<Tape
				id={id}
				label={label}
				value={text}
				unit={unit}
				onChange={setText}
				onEnter={(t) => {
					if (!t.trim()) return;
					set([...list, t.trim()]);
					setText('');
				}}
				note={list.length < 2 ? say('kit.at-least-more-more', { more: 2 - list.length }) : undefined}
			/>
			<ol className="flex flex-wrap gap-x-1 text-lg dim">
				{list.map((v, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: readings of one span have no other name
					<li key={i}>
						<ToolButton onClick={() => set(list.filter((_, k) => k !== i))}>
							{v}
							<span className="sr-only">{say('kit.take-this-reading-out')}</span>
							<X size={14} aria-hidden="true" />
						</ToolButton>
					</li>
				))}
			</ol>
		</div>
	);
}

function AddTool({ head, add }: { head: JobHead; add: (t: Tool) => Promise<unknown> }) {
	const [which, setWhich] = useState(trade.instruments[0]?.id ?? 'tape');
	const [name, setName] = useState('');
	return (
		<form
			className="flex flex-wrap items-end gap-3 border-t-2 border-base-300 pt-3"
			onSubmit={async (e) => {
				e.preventDefault();
				const taken = new Set((head.kit.tools ?? []).map((t) => t.id));
				let id = which;
				for (let n = 2; taken.has(id); n++) id = `${which}${n}`;
				await add({ id, instrument: which, ...(name.trim() ? { name: name.trim() } : {}) });
				setName('');
			}}
		>
			<label>
				<span className="block">{say('kit.another-tool')}</span>
				<select
					className="select"
					data-field="tool-instrument"
					value={which}
					onChange={(e) => setWhich(e.target.value)}
				>
					{trade.instruments.map((i) => (
						<option key={i.id} value={i.id}>
							{i.name}
						</option>
					))}
				</select>
			</label>
			<label className="grow">
				<span className="block">{say('kit.its-name-if-it-has')}</span>
				<input
					className="input w-full"
					data-field="tool-name"
					value={name}
					placeholder={say('kit.the-yellow-tape')}
					onChange={(e) => setName(e.target.value)}
				/>
			</label>
			<button type="submit" className="btn btn-primary" data-add-tool>
				{say('page.put-it-in')}
			</button>
		</form>
	);
}

/** Costs are the minutes of a trip and what still fits, which decide how long measuring is worthwhile. */
function Costs({ head, save }: { head: JobHead; save: (kit: JobHead['kit']) => Promise<unknown> }) {
	const [trip, setTrip] = useState(head.kit.trip ? String(head.kit.trip) : '');
	return (
		<form
			className="mt-6 flex flex-wrap items-end gap-3"
			onSubmit={(e) => {
				e.preventDefault();
				save({ ...head.kit, trip: Number(trip.replace(',', '.')) || 0 });
			}}
		>
			<label>
				<span className="block">{say('kit.a-trip-to-the-trestles')}</span>
				<span className="input text-xl">
					<input
						className="dim grow"
						inputMode="decimal"
						data-field="trip"
						value={trip}
						placeholder="12"
						onChange={(e) => setTrip(e.target.value)}
					/>
					<span className="opacity-75 text-base">{say('kit.minutes')}</span>
				</span>
			</label>
			<button type="submit" className="btn">
				{say('page.keep')}
			</button>
			<p className="w-full text-sm opacity-80 max-w-prose">{say('kit.a-heavy-slab-or-two')}</p>
		</form>
	);
}

/** Kept lists the kit's own items of one kind, each to be removed. */
function Kept(p: {
	title: string;
	list: { id: string; name: string; is?: string }[];
	takeOut: (id: string) => Promise<unknown>;
}) {
	if (p.list.length === 0) return null;
	return (
		<section className="my-5" data-kept={p.title}>
			<h2 className="text-xl mb-1">{p.title}</h2>
			<ul>
				{p.list.map((x) => (
					<li key={x.id} className="flex items-center gap-3 border-b border-base-300 py-1">
						<span className="grow">
							{x.name}
							<span className="block text-sm opacity-80">{x.is}</span>
						</span>
						<button type="button" className="btn" onClick={() => p.takeOut(x.id)}>
							{say('page.take-out')}
							<span className="sr-only"> {x.name}</span>
						</button>
					</li>
				))}
			</ul>
		</section>
	);
}

/** Bits are the bits that bores are chosen from; an empty list is the usual ones. */
function Bits({ head, save }: { head: JobHead; save: (kit: JobHead['kit']) => Promise<unknown> }) {
	const [text, setText] = useState(
		(head.kit.bits ?? [])
			.map((b) => (head.unit === 'mm' ? String(b) : say('page.length-mm', { length: b })))
			.join(', '),
	);
	return (
		<form
			className="my-5 flex flex-wrap items-end gap-2"
			onSubmit={(e) => {
				e.preventDefault();
				// A comma before a digit may be a decimal one: several of them without a space separate bits too.
				const apart = /;|,\s/.test(text) ? /;|,\s+/ : text.split(',').length > 2 ? ',' : /;/;
				const bits = text
					.split(apart)
					.map((b) => b.trim())
					.filter(Boolean)
					.map((b) => typed(b, head.unit));
				save({ ...head.kit, bits });
			}}
		>
			<label className="grow">
				<span className="block mb-1">{say('kit.bits-at-hand-unit-with', { unit: head.unit })}</span>
				<input
					className="input w-full text-lg dim"
					data-field="bits"
					placeholder={say('kit.the-usual-ones')}
					value={text}
					onChange={(e) => setText(e.target.value)}
				/>
			</label>
			<button type="submit" className="btn" data-field="bits-keep">
				{say('page.keep')}
			</button>
		</form>
	);
}
