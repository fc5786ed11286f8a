import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { CalendarDays, OctagonAlert, Printer } from 'lucide-react';
import { useEffect, useMemo } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { Said } from '../api/attempt';
import { ask, client, type Schemas } from '../api/client';
import { resources } from '../api/resources';
import { chosenIn } from '../house/openings';
import { useHomeFocus } from '../ui/home-focus';
import { Savings } from '../ui/savings';
import { Cautions, Failed, Waiting } from '../ui/says';
import { Top } from '../ui/top';
import { Phrase } from '../words/phrase';
import { list, say } from '../words/texts';
import { byDay, lasts, momentOf, nextOf } from './clock';
import { Settings } from './settings';

type Day = Schemas['DayOf'];
type Entry = Schemas['EntryOf'];
type Mark = Schemas['Mark'];

/** lateBy is what one press of "runs late" adds, in minutes. */
const lateBy = 15;

const now = () => momentOf(new Date());

/** useDay is a job's day, with functions to change its settings and to mark its tasks. */
function useDay(job: string) {
	const cache = useQueryClient();
	const day = useQuery(resources.day(job, now));
	const took = (v: Day) => cache.setQueryData(resources.day(job, now).queryKey, v);
	const set = useMutation({
		mutationFn: (d: Day['day']) =>
			ask(
				client.PUT('/api/jobs/{job}/day', {
					params: {
						path: { job },
						query: { now: now() },
						header: { 'If-Match': `"${day.data?.version ?? 0}"` },
					},
					body: d,
				}),
			),
		onSuccess: took,
		onError: () => day.refetch(),
	});
	const mark = useMutation({
		mutationFn: (m: Mark) =>
			ask(
				client.POST('/api/jobs/{job}/day/marks', {
					params: { path: { job }, query: { now: now() } },
					body: m,
				}),
			),
		onSuccess: took,
	});
	return { day, set, mark };
}

/** DayPage is the day of some openings: what to do now, and what follows. */
export function DayPage() {
	const { job = '' } = useParams();
	const [query, setQuery] = useSearchParams();
	const walk = useQuery(resources.walk(job));
	const { day, set, mark } = useDay(job);
	// The openings that were chosen on the walk become the day's.
	const openings = chosenIn(query);
	const chosen = day.data?.day;
	// biome-ignore lint/correctness/useExhaustiveDependencies: once, when the day is there
	useEffect(() => {
		if (openings === null || !chosen) return;
		set.mutate({ ...chosen, openings: openings.split(',').filter(Boolean) });
		setQuery({}, { replace: true });
	}, [openings, !chosen]);
	const trail = useMemo(
		() => (walk.data ? [{ to: `/j/${job}`, text: walk.data.job.name }, { text: say('page.the-day') }] : []),
		[walk.data, job],
	);
	useHomeFocus('day');
	const v = day.data;
	const days = v ? byDay(v.entries) : [];
	const last = v?.entries.reduce<Entry | undefined>(
		(l, e) => (!l || e.date + e.to > l.date + l.to ? e : l),
		undefined,
	);
	const next = nextOf(v?.entries ?? []);
	return (
		<>
			<Top trail={trail} />
			<main className="p-4 sm:p-6 max-w-5xl mx-auto">
				{day.isPending && <Waiting text={say('day.planning-the-day')} />}
				{day.error && !v && <Failed error={day.error} retry={() => day.refetch()} alone />}
				{v && (
					<>
						<div className="flex flex-wrap items-end gap-x-4 gap-y-2 mb-3">
							<h1 className="text-3xl" tabIndex={-1} data-home>
								{say('page.the-day')}
							</h1>
							<p className="text-lg grow" data-sum>
								{last && (
									<Phrase
										id="day.sum"
										of={{
											tasks: say('day.count-tasks', { count: v.entries.length }),
											when: days.length === 1 ? say('day.today') : say('day.on-day', { day: last.day }),
											at: <strong data-end={`${last.date} ${last.to}`}>{last.to}</strong>,
											fro: lasts(v.toAndFro),
										}}
									/>
								)}
								{!last && v.problems.length === 0 && say('day.nothing-is-left-to-do')}
							</p>
						</div>
						<nav aria-label={say('day.this-day')} className="no-print flex flex-wrap gap-2 mb-4">
							<button type="button" className="btn" onClick={() => print()}>
								<Printer size={20} aria-hidden="true" /> {say('page.print-it')}
							</button>
							<a className="btn" href={`/api/jobs/${job}/day/calendar?now=${now()}`} download data-calendar>
								<CalendarDays size={20} aria-hidden="true" /> {say('day.for-a-calendar')}
							</a>
							<Link className="btn" to={`/j/${job}`}>
								{say('page.choose-other-doors')}
							</Link>
						</nav>
						<Said error={(set.error ?? mark.error)?.message ?? ''} className="mb-3" />
						<div
							className={`no-print grid gap-3 mb-5 items-start ${next.length > 1 ? 'lg:grid-cols-2' : ''}`}
						>
							{next.map((e) => (
								<Now key={e.id} entry={e} mark={mark.mutate} />
							))}
						</div>
						<Problems day={v} />
						{days.map((d, i) => (
							<section key={d.date} className="mb-5" data-day={d.date}>
								<h2 className="text-xl border-b-2 border-base-content">
									{d.day}
									{i > 0 && <span className="opacity-75">{say('day.what-does-not-fit-before')}</span>}
								</h2>
								<ul>
									{d.entries.map((e) => (
										<Line key={e.id} entry={e} mark={mark.mutate} />
									))}
								</ul>
							</section>
						))}
						{v.dries.length > 0 && (
							<section className="mb-5" aria-label={say('day.what-is-drying')}>
								<h2 className="text-lg">{say('day.drying-or-lying')}</h2>
								<ul className="list-disc pl-5">
									{v.dries.map((d) => (
										<li key={d.what}>{say('day.thing-until-until', { thing: d.what, until: d.until })}</li>
									))}
								</ul>
							</section>
						)}
						<Savings list={v.saves} />
						{v.done.length > 0 && (
							<details className="mb-5" data-done={v.done.length}>
								<summary className="min-h-11 flex items-center cursor-pointer text-lg">
									{say('day.done-or-struck-out-done', { done: v.done.length })}
								</summary>
								<ul>
									{v.done.map((e) => (
										<Line key={e.id} entry={e} mark={mark.mutate} />
									))}
								</ul>
							</details>
						)}
						<Settings
							key={v.version}
							day={v.day}
							tasks={[...v.entries, ...v.done]}
							names={walk.data?.openings.map((d) => [d.id, d.name]) ?? []}
							set={(d) => set.mutate(d)}
						/>
						<Cautions step="slab" />
						<Cautions step="cut" />
					</>
				)}
			</main>
		</>
	);
}

/** Problems are why nothing can be planned, what is held back, and what does not fit in. */
function Problems({ day: v }: { day: Day }) {
	return (
		<div className="grid gap-2 mb-3" aria-live="polite">
			{v.problems.map((p) => (
				<p key={p} className="border-l-4 border-error pl-3 py-1 flex gap-2 text-lg" data-problem>
					<OctagonAlert size={22} className="shrink-0 mt-0.5 text-error" aria-hidden="true" />
					<span>
						<strong className="text-error">{say('day.not-planned')} </strong>
						{p}
					</span>
				</p>
			))}
			{v.safer && (
				<p className="border-l-4 border-info pl-3" data-safer>
					{v.safer}
				</p>
			)}
			{v.held.map((h) => (
				<p key={h.opening + h.why} className="border-l-4 border-warning pl-3" data-held={h.opening}>
					<strong>{h.opening}</strong>: {h.why}.
				</p>
			))}
			{v.left.length > 0 && (
				<p className="border-l-4 border-warning pl-3" data-left>
					<strong>{say('day.does-not-fit-into-two')}</strong>: {v.left.join('; ')}.
				</p>
			)}
		</div>
	);
}

/** where is the place of a task, and its carpenters. */
function where(e: Entry) {
	return [e.place, list(e.who), e.hands > 1 && e.who.length < 2 ? say('day.two-to-lift') : '']
		.filter(Boolean)
		.join(', ');
}

type Marked = { entry: Entry; mark: (m: Mark) => void };

/** Now is the current task: to be read from two metres, and ticked with a glove. */
function Now({ entry: e, mark }: Marked) {
	return (
		<section
			className="bg-base-200 border-l-8 border-primary p-4"
			aria-label={say('day.now')}
			data-now={e.id}
		>
			<p className="text-lg">
				{say(e.mark.begun ? 'day.in-hand' : 'day.next', { from: e.from, to: e.to })}
				{e.mark.late ? `, ${say('day.late', { minutes: e.mark.late })}` : ''}
			</p>
			<p className="text-3xl sm:text-4xl font-semibold leading-tight my-1">
				{e.opening && <span className="block">{e.opening}</span>}
				{e.name}
			</p>
			<p className="text-xl mb-3">
				{where(e)}
				{e.sets && `; ${say('day.sets', { tool: e.sets })}`}
			</p>
			{e.alone && (
				<p className="text-lg mb-3 first-letter:uppercase">
					{say('day.alone', { how: e.alone, more: e.more })}
				</p>
			)}
			<div className="grid grid-cols-2 sm:flex gap-3">
				<button
					type="button"
					className="btn btn-primary h-16 text-xl col-span-2 sm:grow"
					onClick={() => mark({ ...e.mark, done: now() })}
					data-done-now
				>
					{say('page.done')}
				</button>
				{!e.mark.begun && (
					<button
						type="button"
						className="btn h-16 text-lg"
						onClick={() => mark({ ...e.mark, begun: now() })}
						data-begin
					>
						{say('day.begun')}
					</button>
				)}
				<button
					type="button"
					className="btn h-16 text-lg"
					onClick={() => mark({ ...e.mark, late: (e.mark.late ?? 0) + lateBy })}
					data-late
				>
					{say('day.runs-late-late-by-min', { lateBy })}
				</button>
			</div>
		</section>
	);
}

/** Line is one task of the list. */
function Line({ entry: e, mark }: Marked) {
	const done = !!e.mark.done;
	const title = `${e.opening ? `${e.opening}: ` : ''}${e.name}`;
	return (
		<li
			className="border-b border-base-300 break-inside-avoid flex max-sm:flex-wrap items-start gap-x-3 py-1"
			data-task={e.id}
			data-from={`${e.date} ${e.from}`}
		>
			<label className="flex items-start gap-3 grow min-h-14 py-1 cursor-pointer max-sm:w-full">
				<input
					type="checkbox"
					className="checkbox checkbox-xl mt-0.5"
					checked={done}
					aria-label={say('day.title-done', { title })}
					onChange={() => mark(done ? { ...e.mark, done: '' } : { ...e.mark, done: now(), struck: false })}
					data-tick={e.id}
				/>
				<span className="dim text-xl w-14 shrink-0" data-clock>
					{e.from}
				</span>
				<span className={`min-w-0 grow ${done || e.mark.struck ? 'line-through opacity-70' : ''}`}>
					<span className="text-lg">
						{e.opening && <strong>{e.opening}: </strong>}
						{e.name}
					</span>
					<span className="block text-sm opacity-85">
						{[
							`${say('day.minutes-min', { minutes: e.minutes })}, ${where(e)}`,
							e.sets && say('day.sets', { tool: e.sets }),
							e.alone && say('day.alone', { how: e.alone, more: e.more }),
							e.dries && say('day.dries', { time: e.dries }),
							e.while && say('day.while', { task: e.while }),
							e.mark.late && say('day.late', { minutes: e.mark.late }),
						]
							.filter(Boolean)
							.join('; ')}
					</span>
				</span>
			</label>
			<span className="no-print flex justify-end gap-1 sm:py-1 max-sm:w-full">
				{e.mark.struck ? (
					<button
						type="button"
						className="btn"
						onClick={() => mark({ ...e.mark, struck: false })}
						data-put-back
					>
						{say('page.put-back')}
					</button>
				) : (
					!done && (
						<>
							<button
								type="button"
								className="btn btn-ghost"
								aria-label={say('day.title-late-by-min-more', { title, lateBy })}
								onClick={() => mark({ ...e.mark, late: (e.mark.late ?? 0) + lateBy })}
								data-later={e.id}
							>
								+{lateBy}
							</button>
							<button
								type="button"
								className="btn btn-ghost"
								aria-label={say('day.strike-out-title', { title })}
								onClick={() => mark({ ...e.mark, struck: true })}
								data-strike={e.id}
							>
								{say('day.strike-out')}
							</button>
						</>
					)
				)}
			</span>
		</li>
	);
}
