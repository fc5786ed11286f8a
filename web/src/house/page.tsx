import { useQuery, useQueryClient } from '@tanstack/react-query';
import { CalendarDays, FileSpreadsheet, ListChecks, PackageOpen, Plus, Ruler } from 'lucide-react';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type JobHead, newKey, type OpeningRow, once, type Unit } from '../api/client';
import { resources } from '../api/resources';
import { Checkbox } from '../ui/checkbox';
import { useHomeFocus } from '../ui/home-focus';
import { useShortcuts } from '../ui/keys';
import { ShownIn } from '../ui/length';
import { Failed, TakenOff, Waiting } from '../ui/says';
import { Top, useShownIn } from '../ui/top';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import { Chosen } from './chosen';
import { OpeningList } from './list';
import { beside, moved, plainly, type Seen, seen, summary, troubles } from './openings';
import { Trying } from './trying';
import { UsualChoices } from './usual';

/** A change of the walk, and how it is undone. */
export type Deed = { says: string; back: () => Promise<unknown> };

/** WalkPage is the page of a job: the house at a glance, and its openings in the order of the walk. */
export function WalkPage() {
	const { job = '' } = useParams();
	const walk = useQuery(resources.walk(job));
	const [shown, setShown] = useShownIn(job, (walk.data?.job.unit as Unit) ?? 'mm');
	const [look, setLook] = useLook(job);
	const [chosen, setChosen] = useState<Set<string> | null>(null);
	const [deed, setDeed] = useState<Deed | null>(null);
	const [error, attempt] = useAttempt();
	const trail = useMemo(() => (walk.data ? [{ text: walk.data.job.name }] : []), [walk.data]);
	const openings = walk.data?.openings;
	const asked = useDeferredValue(look);
	const list = useMemo(() => seen(openings ?? [], asked, trade.steps), [openings, asked]);
	useHomeFocus(JSON.stringify(openings?.map((d) => d.id)));
	const change = async (says: string, does: () => Promise<unknown>, back?: () => Promise<unknown>) => {
		if (await attempt(does)) setDeed(back ? { says, back } : null);
		await walk.refetch();
	};
	const { place, step } = useMoves(job, openings, look, change);
	useShortcuts({
		unit: () => setShown(shown === 'mm' ? 'in' : 'mm'),
		entry: () => document.querySelector<HTMLElement>('[data-field="opening-name"]')?.focus(),
		find: () => document.querySelector<HTMLElement>('[data-field="search"]')?.focus(),
		earlier: step(-1),
		later: step(1),
	});
	const take = (d: { id: string; name: string; version?: number }, back: boolean) => {
		const path = { job, opening: d.id };
		const restore = () =>
			ask(client.POST('/api/jobs/{job}/openings/{opening}/restore', { params: { path } }));
		if (back) return change('', restore);
		const header = { 'If-Match': `"${d.version}"` };
		const off = () => ask(client.DELETE('/api/jobs/{job}/openings/{opening}', { params: { path, header } }));
		return change(say('walk.name-is-off-the-walk', { name: d.name }), off, restore);
	};
	const choose = (id: string) =>
		setChosen((c) => {
			const next = new Set(c);
			if (!next.delete(id)) next.add(id);
			return next;
		});
	const narrowed = look.search || look.step || look.trouble;
	return (
		<ShownIn value={shown}>
			<Top trail={trail} unit={walk.data && shown} setUnit={setShown} />
			<main className="p-4 sm:p-6 max-w-7xl mx-auto">
				{walk.isPending && <Waiting text={say('walk.fetching-the-doors')} />}
				{walk.error && <Failed error={walk.error} retry={() => walk.refetch()} alone={!walk.data} />}
				{walk.data && openings && (
					<>
						<Trying head={walk.data.job} done={() => walk.refetch()} />
						<Head head={walk.data.job} openings={openings} done={() => walk.refetch()} />
						<Ways job={job} choosing={!!chosen} choose={() => setChosen(chosen ? null : new Set())} />
						{openings.length > 1 && <Finder look={look} set={setLook} openings={openings} />}
						<Said error={error} className="mb-3" />
						{deed && <Undo deed={deed} high={!!chosen} back={() => change('', deed.back)} />}
						<UsualChoices head={walk.data.job} done={() => walk.refetch()} />
						{narrowed && (
							<p role="status" className="mb-2" data-found>
								{list.length === 0
									? say('walk.no-door-matches')
									: say('walk.shown-of-doors-doors', { shown: list.length, doors: openings.length })}{' '}
								<button
									type="button"
									className="link min-h-11"
									onClick={() => setLook({ ...plainly, order: look.order })}
								>
									{say('walk.all-of-them')}
								</button>
							</p>
						)}
						<OpeningList
							list={list}
							place={place}
							on={{
								job,
								take: (d: OpeningRow) => take(d, false),
								choose: chosen ? choose : undefined,
								chosen: chosen ?? new Set(),
								moves: look.order === 'walk' && !chosen && openings.length > 1,
							}}
						/>
						<AddOpening job={job} first={openings.length === 0} />
						<TakenOff what={say('walk.doors')} list={walk.data.off} back={(d) => take(d, true)} />
						{chosen && (
							<Chosen
								job={job}
								openings={openings}
								chosen={chosen}
								all={() => setChosen(new Set(list.map((x) => x.opening.id)))}
								none={() => setChosen(null)}
								did={(d) => {
									setDeed(d);
									setChosen(null);
									walk.refetch();
								}}
							/>
						)}
					</>
				)}
			</main>
		</ShownIn>
	);
}

/** Change makes a change of the walk, with the text to announce and its undo. */
type Change = (says: string, does: () => Promise<unknown>, back?: () => Promise<unknown>) => Promise<void>;

/** useMoves moves openings along the walk: before another one, or by one place with a key. */
function useMoves(job: string, openings: OpeningRow[] | undefined, look: Seen, change: Change) {
	const cache = useQueryClient();
	const put = (id: string, before: string) => {
		// Optimistic: on the screen first, then in the file.
		cache.setQueryData(
			resources.walk(job).queryKey,
			(w) => w && { ...w, openings: moved(w.openings, id, before) },
		);
		return ask(
			client.PUT('/api/jobs/{job}/openings/{opening}/place', {
				params: { path: { job, opening: id } },
				body: { before },
			}),
		);
	};
	const place = (id: string, before: string) => {
		const at = openings?.findIndex((d) => d.id === id) ?? -1;
		const opening = openings?.[at];
		if (!opening) return;
		const was = openings?.[at + 1]?.id ?? '';
		change(
			say('walk.door-was-moved', { door: opening.name }),
			() => put(id, before),
			() => put(id, was),
		);
	};
	// The focus follows an opening that was moved by key.
	const follow = useRef('');
	// biome-ignore lint/correctness/useExhaustiveDependencies: it runs when the order is drawn
	useEffect(() => {
		if (!follow.current) return;
		document.querySelector<HTMLElement>(`[data-move="${follow.current}"]`)?.focus();
		follow.current = '';
	}, [openings]);
	const step = (by: -1 | 1) => (e: KeyboardEvent) => {
		const id = (e.target as HTMLElement).closest<HTMLElement>('[data-door]')?.dataset.door;
		const before = id && openings && look.order === 'walk' ? beside(openings, id, by) : undefined;
		if (id === undefined || before === undefined) return false;
		follow.current = id;
		place(id, before);
	};
	return { place, step };
}

/** Head is a job's name, its state, and its unit and language. */
function Head({ head, openings, done }: { head: JobHead; openings: OpeningRow[]; done: () => void }) {
	return (
		<div className="flex flex-wrap items-end gap-x-6 gap-y-2 mb-3">
			<h1 className="text-3xl" tabIndex={-1} data-home>
				{head.name}
			</h1>
			<p className="text-lg grow" data-summary>
				{summary(openings)}
			</p>
			<JobChoice
				head={head}
				field="tape"
				label={say('walk.cut-to')}
				options={trade.tapes.filter((t) => t.unit === head.unit)}
				done={done}
			/>
			<JobChoice
				head={head}
				field="language"
				label={say('page.words')}
				options={[{ id: '', name: say('walk.as-the-unit-suggests') }, ...trade.languages]}
				done={done}
			/>
		</div>
	);
}

/** Ways are the links to what is done for the whole house. */
function Ways({ job, choosing, choose }: { job: string; choosing: boolean; choose: () => void }) {
	return (
		<nav aria-label={say('walk.the-whole-house')} className="grid grid-cols-2 sm:flex flex-wrap gap-2 mb-3">
			<Link className="btn" to={`/day/${job}`} data-to-day>
				<CalendarDays size={20} aria-hidden="true" /> {say('page.the-day')}
			</Link>
			<Link className="btn" to={`/load/${job}`} data-load>
				<PackageOpen size={20} aria-hidden="true" /> {say('page.what-to-load')}
			</Link>
			<Link className="btn" to={`/papers/${job}`} data-papers>
				<FileSpreadsheet size={20} aria-hidden="true" /> {say('page.papers-and-schedules')}
			</Link>
			<Link className="btn" to={`/kit/${job}`} data-kit>
				<Ruler size={20} aria-hidden="true" /> {say('page.kit')}
			</Link>
			<button
				type="button"
				className={`btn ${choosing ? 'btn-neutral' : ''}`}
				aria-pressed={choosing}
				onClick={choose}
				data-choosing
			>
				<ListChecks size={20} aria-hidden="true" /> {say('walk.choose-doors')}
			</button>
		</nav>
	);
}

/** Undo undoes the last change. It lies over the page, so that nothing moves when it comes. */
function Undo({ deed, high, back }: { deed: Deed; high: boolean; back: () => void }) {
	return (
		<p
			role="status"
			className={`fixed left-4 z-20 bg-neutral text-neutral-content px-4 py-2 text-lg flex items-center gap-3 ${high ? 'bottom-24' : 'bottom-4'}`}
			data-deed
		>
			{deed.says}{' '}
			<button type="button" className="btn btn-sm btn-primary" onClick={back} data-undo-deed>
				{say('page.undo')}
			</button>
		</p>
	);
}

/** useLook keeps the filter and the order while the page is open. */
function useLook(job: string): [Seen, (s: Seen) => void] {
	const key = `look ${job}`;
	const [look, set] = useState<Seen>(() => ({
		...plainly,
		...JSON.parse(sessionStorage.getItem(key) ?? '{}'),
	}));
	return [
		look,
		(s) => {
			sessionStorage.setItem(key, JSON.stringify(s));
			set(s);
		},
	];
}

/** Finder filters and orders the walk. */
function Finder({ look, set, openings }: { look: Seen; set: (s: Seen) => void; openings: OpeningRow[] }) {
	const steps = trade.steps.filter((s) => openings.some((d) => d.next === s.id));
	// On a phone the openings come first.
	const [more, setMore] = useState(!!look.step || !!look.trouble || look.order !== 'walk');
	const narrow = more ? '' : 'max-sm:hidden';
	return (
		<search className="flex flex-wrap gap-2 items-end mb-3">
			<label className="grow basis-48">
				<span className="block">{say('walk.find-a-door')}</span>
				<input
					type="search"
					className="input w-full text-lg"
					placeholder={say('walk.name-room-step-size')}
					data-field="search"
					value={look.search}
					onChange={(e) => set({ ...look, search: e.target.value })}
				/>
			</label>
			<button
				type="button"
				className="btn sm:hidden"
				aria-expanded={more}
				onClick={() => setMore(!more)}
				data-narrow
			>
				{say('walk.filter')}
			</button>
			<label className={`basis-36 grow ${narrow}`}>
				<span className="block">{say('walk.step')}</span>
				<select
					className="select w-full"
					data-field="filter-step"
					value={look.step}
					onChange={(e) => set({ ...look, step: e.target.value })}
				>
					<option value="">{say('walk.any-step')}</option>
					{steps.map((s) => (
						<option key={s.id} value={s.id}>
							{s.name}
						</option>
					))}
				</select>
			</label>
			<label className={`basis-44 grow ${narrow}`}>
				<span className="block">{say('walk.state')}</span>
				<select
					className="select w-full"
					data-field="filter-trouble"
					value={look.trouble}
					onChange={(e) => set({ ...look, trouble: e.target.value as Seen['trouble'] })}
				>
					<option value="">{say('walk.any-state')}</option>
					{troubles.map((t) => (
						<option key={t.id} value={t.id}>
							{say(t.name)}
						</option>
					))}
				</select>
			</label>
			<label className={`basis-52 grow ${narrow}`}>
				<span className="block">{say('walk.in-order-of')}</span>
				<select
					className="select w-full"
					data-field="order"
					value={look.order}
					onChange={(e) => set({ ...look, order: e.target.value as Seen['order'] })}
				>
					<option value="walk">{say('walk.the-walk')}</option>
					<option value="now">{say('walk.what-can-be-done-now')}</option>
				</select>
			</label>
		</search>
	);
}

function AddOpening({ job, first }: { job: string; first: boolean }) {
	const go = useNavigate();
	const cache = useQueryClient();
	const [name, setName] = useState('');
	const [room, setRoom] = useState('');
	const [hangs, setHangs] = useState(false);
	const [error, attempt] = useAttempt();
	// biome-ignore lint/correctness/useExhaustiveDependencies: another name is another door
	const key = useMemo(() => newKey(), [name, room, hangs]);
	const add = async (e: React.FormEvent) => {
		e.preventDefault();
		await attempt(async () => {
			const v = await ask(
				client.POST('/api/jobs/{job}/openings', {
					params: { path: { job }, ...once(key) },
					body: { name, room, ...(hangs ? { hangs } : {}) },
				}),
			);
			cache.setQueryData(resources.opening(job, v.opening.id).queryKey, v);
			cache.invalidateQueries({ queryKey: resources.walk(job).queryKey });
			go(`/j/${job}/${v.opening.id}/${v.plan.steps[0]?.step ?? 'measure'}`);
		});
	};
	return (
		<form
			onSubmit={add}
			className="flex flex-wrap gap-3 items-end border-2 border-dashed border-base-300 p-4 mt-4"
		>
			<h2 className="text-xl basis-full">{first ? say('walk.the-first-door') : say('walk.another-door')}</h2>
			<label className="grow basis-56">
				<span className="block">{say('page.door')}</span>
				<input
					className="input w-full text-lg"
					data-field="opening-name"
					// biome-ignore lint/a11y/noAutofocus: an empty job has nothing else to begin with
					autoFocus={first}
					value={name}
					onChange={(e) => setName(e.target.value)}
					aria-invalid={!!error}
				/>
			</label>
			<label className="grow basis-56">
				<span className="block">{say('walk.seen-from-room')}</span>
				<input
					className="input w-full text-lg"
					data-field="opening-room"
					value={room}
					onChange={(e) => setRoom(e.target.value)}
				/>
			</label>
			<button type="submit" className="btn btn-primary text-lg" data-field="opening-add">
				<Plus size={20} aria-hidden="true" /> {say(hangs ? 'walk.look-at-it' : 'walk.measure-it')}
			</button>
			<div className="basis-full">
				<Checkbox data-field="opening-hangs" checked={hangs} onChange={(e) => setHangs(e.target.checked)}>
					{say('walk.it-hangs-already')}
				</Checkbox>
			</div>
			<Said error={error} className="basis-full" />
		</form>
	);
}

/** JobChoice is one choice of a job, saved as it is made. */
function JobChoice({
	head,
	field,
	label,
	options,
	done,
}: {
	head: JobHead;
	field: 'tape' | 'language';
	label: string;
	options: { id: string; name: string }[];
	done: () => void;
}) {
	const [error, attempt] = useAttempt();
	return (
		<label className="flex items-center gap-2 whitespace-nowrap">
			{label}
			<select
				className="select"
				data-field={field}
				value={head[field]}
				onChange={async (e) => {
					await attempt(async () => {
						await ask(
							client.PATCH('/api/jobs/{job}', {
								params: { path: { job: head.id }, header: { 'If-Match': `"${head.version}"` } },
								body: { [field]: e.target.value },
							}),
						);
					});
					done();
				}}
			>
				{options.map((o) => (
					<option key={o.id} value={o.id}>
						{o.name}
					</option>
				))}
			</select>
			{error && <span className="text-error">{error}</span>}
		</label>
	);
}
