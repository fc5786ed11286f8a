import { Download } from 'lucide-react';
import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { Disclosure } from '../ui/disclosure';
import { Len } from '../ui/length';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';

type Played = Schemas['Played'];

/** GradeOf is the grade, with reasons. */
export function GradeOf({ played: v, grade: g }: { played: Played; grade: NonNullable<Played['grade']> }) {
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
	const none = p.answers ? '' : say('practising.no-answer');
	return (
		<section aria-label={say('practising.grade')} data-grade={String(g.fits)} data-trips={g.trips}>
			<ul className="mb-3">
				{g.said.map((s) => (
					<li
						key={s.text}
						className={`border-l-4 pl-3 py-1 mb-1 ${s.good ? 'border-success' : 'border-error'}`}
						data-said={String(s.good)}
					>
						<strong>{say(s.good ? 'practising.well' : 'practising.not-so')} </strong>
						{s.text}
					</li>
				))}
				{g.unchecked.map((u) => (
					<li key={u} className="border-l-4 border-warning pl-3 py-1 mb-1" data-unchecked>
						<strong>{say('practising.never-read')} </strong>
						{u}.
					</li>
				))}
			</ul>
			<table className="w-full mb-3">
				<thead>
					<tr className="text-left">
						<td />
						<th className="text-right">{say('practising.you')}</th>
						<th className="text-right">{say('practising.the-plan-on-your-readings')}</th>
					</tr>
				</thead>
				<tbody>
					{row(say('practising.trips-to-the-trestles'), String(g.trips), none || String(p.trips))}
					{row(say('page.minutes'), String(Math.round(g.minutes)), none || String(Math.round(p.minutes)))}
					{row(say('practising.uneven-gaps-mm'), g.uneven.mm, none || p.uneven.mm)}
					{row(say('practising.fits'), g.fits ? 'yes' : 'no', none || (p.fits ? 'yes' : 'no'))}
					{row(
						say('practising.slab-cut-away-cm'),
						String(g.waste),
						say('practising.at-least-least', { least: g.least }),
					)}
				</tbody>
			</table>
			<Disclosure className="mb-3" title={say('practising.what-the-plan-would-have')}>
				{p.answers && (
					<p>
						<Phrase
							id="practising.cut-to"
							of={{
								top: <Len text={p.head} />,
								bottom: <Len text={p.foot} />,
								length: <Len text={p.length} />,
							}}
						/>
					</p>
				)}
				<ul className="list-disc pl-5">
					{p.why.map((w) => (
						<li key={w}>{w}</li>
					))}
				</ul>
			</Disclosure>
			<p className="border-l-8 border-primary pl-3 text-lg mb-3" data-learn>
				<strong>{say('practising.practise-next')}</strong> {g.learn}
			</p>
			<p className="flex flex-wrap gap-2">
				<Link className="btn btn-primary" to="/practice">
					{say('practising.back-to-practice')}
				</Link>
				<a
					className="btn"
					href={`data:application/json,${encodeURIComponent(v.attempt)}`}
					download="attempt.exercise.json"
					data-attempt
				>
					<Download size={20} aria-hidden="true" /> {say('practising.this-attempt-to-hand-in')}
				</a>
			</p>
		</section>
	);
}
