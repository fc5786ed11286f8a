import { useQueryClient } from '@tanstack/react-query';
import { FileInput } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type JobHead, newKey, type Schemas, send } from '../api/client';
import { resources } from '../api/resources';
import { whoNow } from '../api/who';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';
import { handName, trade } from '../words/trade';

type Preview = Schemas['SchedulePreview'];

/** Mend is a cell that was mended here: its line and its column in the file, and what is to stand there. */
type Mend = { line: number; column: number; text: string };

/** ScheduleIn imports a door schedule: choose, match, check, take. */
export function ScheduleIn({ head, done }: { head: JobHead; done: () => void }) {
	const cache = useQueryClient();
	const input = useRef<HTMLInputElement>(null);
	const [file, setFile] = useState<File | null>(null);
	const [key, setKey] = useState('');
	const [seen, setSeen] = useState<Preview | null>(null);
	const [mends, setMends] = useState<Mend[]>([]);
	const [came, setCame] = useState<Schemas['ScheduleImported'] | null>(null);
	const [error, attempt] = useAttempt();
	const path = `/api/jobs/${head.id}/schedule`;
	const look = (f: File, columns?: string[], hands?: string, mended = mends) =>
		attempt(async () => {
			const query = new URLSearchParams(columns ? { columns: asked(columns) } : {});
			if (hands) query.set('hands', hands);
			if (mended.length > 0) query.set('mends', JSON.stringify(mended));
			setSeen(await send<Preview>(`${path}/preview?${query}`, f));
			setKey(newKey());
		});
	const choose = (f?: File) => {
		if (!f) return;
		setFile(f);
		setSeen(null);
		setCame(null);
		setMends([]);
		look(f, undefined, undefined, []);
	};
	const mend = (m: Mend) => {
		if (!file || !seen) return;
		const next = [...mends.filter((x) => x.line !== m.line || x.column !== m.column), m];
		setMends(next);
		look(
			file,
			seen.columns.map((c) => c.id),
			seen.hands,
			next,
		);
	};
	const take = () =>
		attempt(async () => {
			if (!file || !seen) return;
			const columns = asked(seen.columns.map((c) => c.id));
			const query = new URLSearchParams({ columns, good: String(seen.bad > 0), by: whoNow() });
			if (seen.hands) query.set('hands', seen.hands);
			if (mends.length > 0) query.set('mends', JSON.stringify(mends));
			setCame(await send(`${path}?${query}`, file, key));
			setSeen(null);
			cache.invalidateQueries({ queryKey: resources.walk(head.id).queryKey });
			done();
		});
	const back = () =>
		attempt(async () => {
			if (!came) return;
			await ask(
				client.POST('/api/jobs/{job}/undo', {
					params: { path: { job: head.id } },
					body: { openings: came.standing },
				}),
			);
			setCame(null);
			done();
		});
	return (
		<section data-schedule-in>
			<h2 className="text-2xl mb-2">{say('schedule.bring-in-a-schedule')}</h2>
			<p className="mb-2 max-w-prose">{say('schedule.one-line-for-each-door')}</p>
			<input
				ref={input}
				type="file"
				accept=".csv,.txt,.tsv,.xlsx,.xlsm"
				className="hidden"
				aria-label={say('schedule.schedule')}
				data-field="schedule-file"
				onChange={(e) => {
					choose(e.target.files?.[0]);
					e.target.value = ''; // so that the same file, mended, can be chosen again
				}}
			/>
			<button type="button" className="btn text-lg" onClick={() => input.current?.click()}>
				<FileInput aria-hidden="true" />{' '}
				{file && seen ? say('schedule.choose-another-file') : say('page.choose-a-file')}
			</button>
			<Said error={error} className="mt-2" />
			{came && (
				<p role="status" className="mt-3 text-lg" data-came={came.standing.length}>
					{say('schedule.on-the-walk', { count: came.standing.length })}
					{came.left > 0 && ` ${say('schedule.lines-left-out', { count: came.left })}`}{' '}
					<button type="button" className="btn btn-sm btn-primary" onClick={back} data-undo-schedule>
						{say('page.undo')}
					</button>{' '}
					<Link className="btn btn-sm" to={`/j/${head.id}`}>
						{say('schedule.to-the-walk')}
					</Link>
				</p>
			)}
			{seen && file && (
				<div className="grid gap-4 mt-4">
					{seen.notes.map((n) => (
						<p key={n} className="border-l-4 border-info pl-3">
							{n}
						</p>
					))}
					<Columns
						seen={seen}
						match={(i, id) => {
							const ids = seen.columns.map((c, k) => (k === i ? id : c.id === id ? '' : c.id));
							look(file, ids, seen.hands);
						}}
					/>
					{(seen.hand || seen.hands) && (
						<Hands
							seen={seen}
							choose={(hands) =>
								look(
									file,
									seen.columns.map((c) => c.id),
									hands,
								)
							}
						/>
					)}
					<Rows seen={seen} mend={mend} />
					<div className="flex flex-wrap gap-3 items-center">
						<button
							type="button"
							className="btn btn-primary text-lg"
							disabled={seen.good === 0}
							onClick={take}
							data-take-schedule
						>
							{seen.bad === 0
								? say('schedule.put', { count: seen.good })
								: say('schedule.put-the-good-good-ones', { good: seen.good, bad: seen.bad })}
						</button>
						<button type="button" className="btn btn-ghost" onClick={() => setSeen(null)}>
							{say('schedule.bring-in-nothing')}
						</button>
					</div>
				</div>
			)}
		</section>
	);
}

const asked = (ids: string[]) => ids.map((id) => id || '-').join(',');

/** Hands asks once which side the schedule's LH and RH are seen from, by its own first example. */
function Hands({ seen, choose }: { seen: Preview; choose: (hands: string) => void }) {
	const [example, setExample] = useState(seen.hand);
	if (seen.hand && seen.hand.line !== example?.line) setExample(seen.hand);
	const left = /^\s*l/i.test(example?.hand ?? 'LH');
	const choices = [
		{
			hands: 'pull',
			text: say('schedule.the-side-it-opens-toward'),
			side: handName(left ? 'left' : 'right'),
		},
		{ hands: 'push', text: say('schedule.the-side-you-push-it'), side: handName(left ? 'right' : 'left') },
	];
	return (
		<fieldset className="border-l-4 border-warning pl-3" data-hands={seen.hands}>
			<legend className="text-xl">
				{example
					? say('schedule.example', {
							line: example.line,
							name: example.name || say('schedule.no-name'),
							hand: example.hand,
						})
					: say('schedule.lh-rh')}
			</legend>
			{choices.map((c) => (
				<label key={c.hands} className="flex items-center gap-3 min-h-11 text-lg">
					<input
						type="radio"
						className="radio"
						name="hands"
						data-field={`hands-${c.hands}`}
						checked={seen.hands === c.hands}
						onChange={() => choose(c.hands)}
					/>
					<span>
						<Phrase id="schedule.seen-from" of={{ where: c.text, hand: <strong>{c.side}</strong> }} />
					</span>
				</label>
			))}
		</fieldset>
	);
}

/** Columns shows what each column was matched to, and lets it be corrected. */
function Columns({ seen, match }: { seen: Preview; match: (i: number, id: string) => void }) {
	return (
		<div data-columns data-known={seen.known}>
			<h3 className="text-xl">
				{say('schedule.columns')}
				{seen.known && (
					<span className="font-normal text-base"> {say('schedule.as-you-matched-them-before')}</span>
				)}
			</h3>
			<ul className="grid sm:grid-cols-2 lg:grid-cols-3 gap-x-6">
				{seen.columns.map((c, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
					<li key={i} className="border-b border-base-300 py-2">
						<label>
							<strong>{c.header || say('schedule.no-header')}</strong>{' '}
							<span className="opacity-80 text-sm">{c.sample.join(', ')}</span>
							<select
								className="select w-full mt-1"
								value={c.id}
								data-field={`column ${c.header}`}
								onChange={(e) => match(i, e.target.value)}
							>
								<option value="">{say('schedule.left-out')}</option>
								{c.id && !trade.columns.some((k) => k.id === c.id) && (
									<option value={c.id}>{c.header}</option>
								)}
								{trade.columns.map((k) => (
									<option key={k.id} value={k.id}>
										{k.name}
									</option>
								))}
							</select>
						</label>
					</li>
				))}
			</ul>
		</div>
	);
}

function Rows({ seen, mend }: { seen: Preview; mend: (m: Mend) => void }) {
	return (
		<div data-good={seen.good} data-bad={seen.bad}>
			<h3 className="text-xl">
				{say('schedule.count-lines-are-doors', { count: seen.good })}
				{seen.bad > 0 && `, ${say('schedule.count-cannot-be', { count: seen.bad })}`}
			</h3>
			<section
				className="max-h-96 overflow-y-auto border-y border-base-300"
				aria-label={say('schedule.lines')}
				// biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by key
				tabIndex={0}
			>
				<table className="table">
					<thead>
						<tr>
							<th>{say('schedule.line')}</th>
							<th>{say('page.door')}</th>
							<th>{say('schedule.what-it-becomes')}</th>
						</tr>
					</thead>
					<tbody>
						{seen.rows.map((r) => (
							<tr key={r.line} data-line={r.line}>
								<td className="tabular-nums">{r.line}</td>
								<th scope="row">
									{r.name}
									{r.room && (
										<span className="font-normal">
											{r.name && ', '}
											{r.room}
										</span>
									)}
								</th>
								<td>
									{r.faults.map((f) => (
										<div key={f.header + f.problem}>
											<p className="text-error font-semibold">
												{f.header && `${f.header}: `}
												{f.problem}
											</p>
											{f.column >= 0 && (
												<Cell
													key={f.given}
													name={say('schedule.mend', { header: f.header, line: r.line })}
													given={f.given}
													take={(text) => mend({ line: r.line, column: f.column, text })}
												/>
											)}
										</div>
									))}
									{r.says.join(' · ')}
								</td>
							</tr>
						))}
					</tbody>
				</table>
			</section>
			{seen.rows.length < seen.good + seen.bad && (
				<p className="opacity-80">
					{say('schedule.the-first-rows-of-good', { rows: seen.rows.length, good: seen.good + seen.bad })}
				</p>
			)}
		</div>
	);
}

/** Cell is a cell that cannot be, to be mended in its place: by Enter, or by leaving it. */
function Cell({ name, given, take }: { name: string; given: string; take: (text: string) => void }) {
	const [text, setText] = useState(given);
	const done = () => text !== given && take(text);
	return (
		<input
			className="input w-full max-w-80 mb-2"
			aria-label={name}
			data-mend={name}
			value={text}
			onChange={(e) => setText(e.target.value)}
			onBlur={done}
			onKeyDown={(e) => e.key === 'Enter' && done()}
		/>
	);
}
