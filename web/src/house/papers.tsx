import { useQuery } from '@tanstack/react-query';
import { FileDown, Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import type { Unit } from '../api/client';
import { resources } from '../api/resources';
import { GiveOut } from '../ui/give-out';
import { useHomeFocus } from '../ui/home-focus';
import { Failed, Waiting } from '../ui/says';
import { Top } from '../ui/top';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import { ScheduleIn } from './schedule-in';

/** PapersPage is a house's imports and exports: schedules, tables, papers. */
export function PapersPage() {
	const { job = '' } = useParams();
	const walk = useQuery(resources.walk(job));
	const head = walk.data?.job;
	const openings = walk.data?.openings.length ?? 0;
	const trail = useMemo(
		() => (head ? [{ to: `/j/${job}`, text: head.name }, { text: say('page.papers-and-schedules') }] : []),
		[head, job],
	);
	useHomeFocus('');
	return (
		<>
			<Top trail={trail} />
			<main className="p-4 sm:p-6 max-w-6xl mx-auto grid gap-8">
				{walk.isPending && <Waiting text={say('papers.fetching-the-house')} />}
				{walk.error && <Failed error={walk.error} retry={() => walk.refetch()} alone={!walk.data} />}
				{head && (
					<>
						<h1 className="text-3xl -mb-4" tabIndex={-1} data-home>
							{say('page.papers-and-schedules')}
						</h1>
						<ScheduleIn head={head} done={() => walk.refetch()} />
						<div className="grid lg:grid-cols-2 gap-8">
							<OnPaper job={job} unit={head.unit as Unit} openings={openings} />
							<GivenOut job={job} openings={openings} />
						</div>
					</>
				)}
			</main>
		</>
	);
}

function OnPaper({ job, unit, openings }: { job: string; unit: Unit; openings: number }) {
	const [paper, setPaper] = useState(
		() => localStorage.getItem('paper') ?? (unit === 'in' ? 'letter' : 'a4'),
	);
	return (
		<section data-on-paper>
			<h2 className="text-2xl mb-2">{say('papers.on-paper')}</h2>
			<label className="flex items-center gap-3 mb-2">
				{say('page.paper')}
				<select
					className="select uppercase"
					data-field="paper"
					value={paper}
					onChange={(e) => {
						setPaper(e.target.value);
						localStorage.setItem('paper', e.target.value);
					}}
				>
					{trade.papers.map((p) => (
						<option key={p} value={p}>
							{p}
						</option>
					))}
				</select>
			</label>
			<ul>
				{trade.paperKinds.map((k) => (
					<Line key={k.id} name={k.name} why={k.why}>
						<GiveOut
							openings={openings}
							atOnce={k.id === 'book' ? 0 : trade.atOnce} // it may hold many photographs
							href={`/api/jobs/${job}/paper?kind=${k.id}&paper=${paper}`}
							wanted={{ job, what: k.id, paper }}
							data-paper={k.id}
						>
							<Printer size={18} aria-hidden="true" /> PDF
							<span className="sr-only"> {say('papers.of-the-name', { name: k.name })}</span>
						</GiveOut>
					</Line>
				))}
			</ul>
			<p className="opacity-80">{say('papers.for-the-cards-of-some')}</p>
		</section>
	);
}

function GivenOut({ job, openings }: { job: string; openings: number }) {
	const out = `/api/jobs/${job}/schedule`;
	return (
		<section data-given-out>
			<h2 className="text-2xl mb-2">{say('papers.to-other-programs')}</h2>
			<ul>
				<Line name="All tables" why={say('papers.one-workbook-a-sheet-for')}>
					<GiveOut openings={openings} href={out} wanted={{ job, what: 'tables' }} data-table="xlsx">
						<FileDown size={18} aria-hidden="true" /> XLSX
					</GiveOut>
				</Line>
				{trade.tables.map((t) => (
					<Line key={t.id} name={t.name} why={t.why}>
						<GiveOut
							openings={openings}
							href={`${out}?format=csv&table=${t.id}`}
							wanted={{ job, what: t.id }}
							data-table={t.id}
						>
							<FileDown size={18} aria-hidden="true" /> CSV
							<span className="sr-only"> {say('papers.of-name', { name: t.name })}</span>
						</GiveOut>
					</Line>
				))}
				<Line name="Job file" why={say('papers.open-json-everything-read-and')}>
					<GiveOut
						openings={openings}
						atOnce={trade.filedAtOnce}
						href={`/api/jobs/${job}/file`}
						wanted={{ job, what: 'file' }}
					>
						<FileDown size={18} aria-hidden="true" /> JSON
					</GiveOut>
				</Line>
				<Line name="Job file with its photographs" why={say('papers.a-zip')}>
					<GiveOut
						openings={openings}
						atOnce={trade.filedAtOnce}
						href={`/api/jobs/${job}/bundle`}
						wanted={{ job, what: 'bundle' }}
					>
						<FileDown size={18} aria-hidden="true" /> ZIP
					</GiveOut>
				</Line>
			</ul>
		</section>
	);
}

function Line({ name, why, children }: { name: string; why: string; children: React.ReactNode }) {
	return (
		<li className="flex items-center gap-3 border-b border-base-300 py-1">
			<span className="grow">
				<strong>{name}</strong>: {why}
			</span>
			{children}
		</li>
	);
}
