import { useQuery } from '@tanstack/react-query';
import { Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { ask, client, type Schemas, type Unit } from '../api/client';
import { howFar, type Made, makeList } from '../api/exports';
import { resources } from '../api/resources';
import { Checkbox } from '../ui/checkbox';
import { Disclosure } from '../ui/disclosure';
import { GiveOut } from '../ui/give-out';
import { useHomeFocus } from '../ui/home-focus';
import { Savings } from '../ui/savings';
import { Cautions, Failed, Waiting } from '../ui/says';
import { Top, useShownIn } from '../ui/top';
import { say } from '../words/texts';
import { edgeName, trade } from '../words/trade';
import { chosenIn } from './openings';

type Load = Schemas['Load'];

/** LoadPage is what to take along for some openings, to be ticked while the van is loaded. */
export function LoadPage() {
	const { job = '' } = useParams();
	const [query] = useSearchParams();
	const openings = chosenIn(query)?.split(',').filter(Boolean) ?? [];
	const walk = useQuery(resources.walk(job));
	const [shown, setShown] = useShownIn(job, (walk.data?.job.unit as Unit) ?? 'mm');
	const [far, setFar] = useState<Made>();
	const many = openings.length || (walk.data?.openings.length ?? 0);
	const load = useQuery({
		queryKey: ['load', job, ...openings],
		enabled: many > 0 || walk.isSuccess,
		queryFn: ({ signal }) =>
			many > trade.atOnce
				? makeList<Load>({ what: 'load-list', job, openings }, setFar, signal)
				: ask(
						client.GET('/api/jobs/{job}/load', {
							params: { path: { job }, query: openings.length ? { openings } : {} },
						}),
					),
	});
	const trail = useMemo(
		() =>
			walk.data ? [{ to: `/j/${job}`, text: walk.data.job.name }, { text: say('page.what-to-load') }] : [],
		[walk.data, job],
	);
	const ticks = useTicks(job, openings);
	useHomeFocus(String(load.dataUpdatedAt));
	const paper = new URLSearchParams({ kind: 'load', paper: walk.data?.job.unit === 'in' ? 'letter' : 'a4' });
	if (openings.length) paper.set('openings', openings.join(','));
	return (
		<>
			<Top trail={trail} unit={walk.data && shown} setUnit={setShown} />
			<main className="p-4 sm:p-6 max-w-6xl mx-auto">
				{walk.error && <Failed error={walk.error} retry={() => walk.refetch()} alone={!walk.data} />}
				{load.isPending && !walk.error && <Waiting text={say('loading.counting', { far: howFar(far) })} />}
				{load.error && <Failed error={load.error} retry={() => load.refetch()} />}
				{load.data && (
					<>
						<h1 className="text-3xl mb-1" tabIndex={-1} data-home>
							{say('page.what-to-load')}
						</h1>
						<p className="text-lg mb-2" data-load-for>
							{say('loading.for', {
								doors: openings.length
									? some(load.data.openings)
									: say('loading.all-count-doors', { count: load.data.openings.length }),
							})}
						</p>
						<p className="flex flex-wrap gap-2 mb-4">
							<GiveOut
								openings={many}
								href={`/api/jobs/${job}/paper?${paper}`}
								wanted={{ what: 'load', job, openings, paper: paper.get('paper') ?? '' }}
							>
								<Printer size={20} aria-hidden="true" /> {say('page.print-it')}
							</GiveOut>
							<Link className="btn" to={`/j/${job}`}>
								{say('page.choose-other-doors')}
							</Link>
							{ticks.any && (
								<button type="button" className="btn" onClick={ticks.clear} data-untick>
									{say('loading.untick-all')}
								</button>
							)}
						</p>
						{load.data.open.map((o) => (
							<p key={o.opening + o.why} className="border-l-4 border-warning pl-3 mb-2" data-open>
								<strong>{o.opening}</strong>: {o.why}.
							</p>
						))}
						<div className="grid lg:grid-cols-2 gap-x-8 items-start">
							{[false, true].map((own) => (
								<div key={String(own)}>
									{load.data.groups
										.filter((g) => (g.kind === 'packers' || g.kind === 'tools') === own)
										.map((g) => (
											<Group key={g.kind} group={g} ticks={ticks} />
										))}
								</div>
							))}
						</div>
						<Savings list={load.data.saves} />
						<Spray load={load.data} />
						<Settings list={load.data.settings} />
						<Cutting list={load.data.cutting} unit={shown} />
						<Cautions step="slab" />
					</>
				)}
			</main>
		</>
	);
}

/** some names openings, only the first of them where there are many. */
const some = (openings: string[]) =>
	openings.length <= 8
		? openings.join(', ')
		: say('loading.and-more', { doors: openings.slice(0, 7).join(', '), more: openings.length - 7 });

type Ticks = {
	has: (what: string) => boolean;
	put: (what: string, on: boolean) => void;
	any: boolean;
	clear: () => void;
};

/** useTicks keeps on this client what is on the van already. */
function useTicks(job: string, openings: string[]): Ticks {
	const key = `loaded ${job} ${openings.join(',')}`;
	const [on, set] = useState<string[]>(() => JSON.parse(localStorage.getItem(key) ?? '[]'));
	const keep = (list: string[]) => {
		set(list);
		if (list.length) localStorage.setItem(key, JSON.stringify(list));
		else localStorage.removeItem(key);
	};
	return {
		has: (what) => on.includes(what),
		put: (what, yes) => keep(yes ? [...on, what] : on.filter((x) => x !== what)),
		any: on.length > 0,
		clear: () => keep([]),
	};
}

function Group({ group: g, ticks }: { group: Load['groups'][number]; ticks: Ticks }) {
	return (
		<section className="mb-4" data-group={g.kind}>
			<h2 className="text-xl border-b-2 border-base-content">{g.name}</h2>
			<ul>
				{g.items.map((i) => (
					<li key={i.id} className="border-b border-base-300 break-inside-avoid">
						<Checkbox
							className="items-start py-2"
							large
							checked={ticks.has(i.id)}
							onChange={(e) => ticks.put(i.id, e.target.checked)}
							data-tick={i.id}
						>
							{i.count > 0 && (
								<span className="w-12 shrink-0 text-right text-xl font-bold tabular-nums" data-count={i.id}>
									{i.count} ×
								</span>
							)}
							<span className={`min-w-0 ${ticks.has(i.id) ? 'line-through opacity-70' : ''}`}>
								<span className="text-lg">{i.name}</span>
								{i.note && <span className="opacity-80"> ({i.note})</span>}
								<span className="block text-sm opacity-80">{some(i.openings)}</span>
							</span>
						</Checkbox>
					</li>
				))}
			</ul>
		</section>
	);
}

/** Spray is how the doors that hang come off to be sprayed: which, in which order, how marked, when back. */
function Spray({ load: l }: { load: Load }) {
	if (l.off.length === 0) return null;
	return (
		<Disclosure className="my-5" title={say('loading.off-to-be-sprayed')} field="spray">
			<ol data-spray>
				{l.off.map((o) => (
					<li key={o.number} className="flex gap-3 border-b border-base-300 py-1 text-lg">
						<strong className="dim w-8 text-right">{o.number}</strong>
						<span className="grow">{o.opening}</span>
						<span className="opacity-80">
							{o.weight}
							{o.two && `, ${say('day.two-to-lift')}`}
						</span>
					</li>
				))}
			</ol>
			<ol className="list-decimal pl-6 mt-2 max-w-prose">
				{l.spray.map((s) => (
					<li key={s}>{s}</li>
				))}
			</ol>
		</Disclosure>
	);
}

function Settings({ list }: { list: Load['settings'] }) {
	if (list.length === 0) return null;
	return (
		<section className="mt-2 mb-4" data-settings>
			<h2 className="text-xl border-b-2 border-base-content">{say('loading.set-once-for-all-these')}</h2>
			<dl className="grid sm:grid-cols-2 gap-x-8">
				{list.map((s) => (
					<div key={s.what + s.to} className="border-b border-base-300 py-2" data-setting={s.what}>
						<dt>{s.what}</dt>
						<dd>
							<strong className="text-lg">{s.to}</strong>
							<span className="block text-sm opacity-80">{some(s.openings)}</span>
						</dd>
					</div>
				))}
			</dl>
		</section>
	);
}

function Cutting({ list, unit }: { list: Load['cutting']; unit: Unit }) {
	if (list.length === 0) return null;
	return (
		<section className="mb-4" data-cutting>
			<h2 className="text-xl border-b-2 border-base-content">
				{say('loading.cutting-list-in-unit', { unit })}
			</h2>
			{/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by key */}
			<section className="overflow-x-auto" aria-label={say('loading.cutting-list')} tabIndex={0}>
				<table className="table stacked">
					<thead>
						<tr>
							<th>{say('page.door')}</th>
							<th>{say('page.slab')}</th>
							{['head', 'hinge', 'lock', 'foot'].map(edgeName).map((s) => (
								<th key={s} className="text-right">
									{s}
								</th>
							))}
							<th>{say('page.after-the-first-cut')}</th>
						</tr>
					</thead>
					<tbody>
						{list.map((c) => (
							<tr key={c.opening}>
								<th scope="row">{c.opening}</th>
								<td data-label={say('page.slab')}>{c.slab}</td>
								{[c.head, c.hinge, c.lock, c.foot].map((t, i) => (
									<td
										key={['head', 'hinge', 'lock', 'foot'][i]}
										data-label={edgeName(['head', 'hinge', 'lock', 'foot'][i] ?? '')}
										className="text-right text-lg font-semibold tabular-nums"
									>
										{t[unit]}
									</td>
								))}
								<td data-label={say('page.after-the-first-cut')}>
									{c.width[unit]} × {c.length[unit]}
									{c.left && say('loading.some-left-on')}
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</section>
			<p className="opacity-80">{say('loading.the-most-that-comes-off')}</p>
		</section>
	);
}
