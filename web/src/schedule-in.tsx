import { useQueryClient } from '@tanstack/react-query';
import { FileInput } from 'lucide-react';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { ask, client, type JobHead, newKey, type Schemas, send } from './api';
import { Said, useAttempt } from './attempt';
import { trade } from './trade';
import { whoNow } from './who';

type Preview = Schemas['SchedulePreview'];

/** ScheduleIn brings a door schedule in: chosen, matched, looked at, and then taken. */
export function ScheduleIn({ head, done }: { head: JobHead; done: () => void }) {
	const cache = useQueryClient();
	const input = useRef<HTMLInputElement>(null);
	const [file, setFile] = useState<File | null>(null);
	const [key, setKey] = useState('');
	const [seen, setSeen] = useState<Preview | null>(null);
	const [came, setCame] = useState<Schemas['ScheduleImported'] | null>(null);
	const [error, attempt] = useAttempt();
	const path = `/api/jobs/${head.id}/schedule`;
	const look = (f: File, columns?: string[], hands?: string) =>
		attempt(async () => {
			const query = new URLSearchParams(columns ? { columns: asked(columns) } : {});
			if (hands) query.set('hands', hands);
			setSeen(await send<Preview>(`${path}/preview?${query}`, f));
			setKey(newKey());
		});
	const choose = (f?: File) => {
		if (!f) return;
		setFile(f);
		setSeen(null);
		setCame(null);
		look(f);
	};
	const take = () =>
		attempt(async () => {
			if (!file || !seen) return;
			const columns = asked(seen.columns.map((c) => c.id));
			const query = new URLSearchParams({ columns, good: String(seen.bad > 0), by: whoNow() });
			if (seen.hands) query.set('hands', seen.hands);
			setCame(await send(`${path}?${query}`, file, key));
			setSeen(null);
			cache.invalidateQueries({ queryKey: ['walk', head.id] });
			done();
		});
	const back = () =>
		attempt(async () => {
			if (!came) return;
			await ask(
				client.POST('/api/jobs/{job}/undo', {
					params: { path: { job: head.id } },
					body: { doors: came.standing },
				}),
			);
			setCame(null);
			done();
		});
	return (
		<section data-schedule-in>
			<h2 className="text-2xl mb-2">Bring in a schedule</h2>
			<p className="mb-2 max-w-prose">
				A line a door, as CSV or XLSX. You see what would come in before anything does. A size from a drawing
				is taken for the slab's, never for a reading of the opening.
			</p>
			<input
				ref={input}
				type="file"
				accept=".csv,.txt,.tsv,.xlsx,.xlsm"
				className="hidden"
				aria-label="Schedule"
				data-field="schedule-file"
				onChange={(e) => {
					choose(e.target.files?.[0]);
					e.target.value = ''; // so that the same file, mended, can be chosen again
				}}
			/>
			<button type="button" className="btn text-lg" onClick={() => input.current?.click()}>
				<FileInput aria-hidden="true" /> {file && seen ? 'Choose another file' : 'Choose a file'}
			</button>
			<Said error={error} className="mt-2" />
			{came && (
				<p role="status" className="mt-3 text-lg" data-came={came.standing.length}>
					{came.standing.length === 1 ? '1 door is' : `${came.standing.length} doors are`} on the walk
					{came.left > 0 && `, ${came.left === 1 ? '1 line was' : `${came.left} lines were`} left out`}.{' '}
					<button type="button" className="btn btn-sm btn-primary" onClick={back} data-undo-schedule>
						Undo
					</button>{' '}
					<Link className="btn btn-sm" to={`/j/${head.id}`}>
						To the walk
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
							say={(hands) =>
								look(
									file,
									seen.columns.map((c) => c.id),
									hands,
								)
							}
						/>
					)}
					<Rows seen={seen} />
					<div className="flex flex-wrap gap-3 items-center">
						<button
							type="button"
							className="btn btn-primary text-lg"
							disabled={seen.good === 0}
							onClick={take}
							data-take-schedule
						>
							{seen.bad === 0
								? `Put ${seen.good === 1 ? '1 door' : `${seen.good} doors`} on the walk`
								: `Put the ${seen.good} good ones on the walk, leave ${seen.bad} out`}
						</button>
						<button type="button" className="btn btn-ghost" onClick={() => setSeen(null)}>
							Bring in nothing
						</button>
					</div>
				</div>
			)}
		</section>
	);
}

const asked = (ids: string[]) => ids.map((id) => id || '-').join(',');

/** Hands asks once which side the schedule's LH and RH are seen from, by its own first example. */
function Hands({ seen, say }: { seen: Preview; say: (hands: string) => void }) {
	const [example, setExample] = useState(seen.hand);
	if (seen.hand && seen.hand.line !== example?.line) setExample(seen.hand);
	const left = /^\s*l/i.test(example?.hand ?? 'LH');
	const choices = [
		{ hands: 'pull', text: 'the side it opens toward (pull side)', side: left ? 'left' : 'right' },
		{ hands: 'push', text: 'the side you push it from', side: left ? 'right' : 'left' },
	];
	return (
		<fieldset className="border-l-4 border-warning pl-3" data-hands={seen.hands}>
			<legend className="text-xl">
				{example ? `Line ${example.line}, ${example.name || 'no name'}: ${example.hand}` : 'LH and RH'}. Seen
				from where?
			</legend>
			{choices.map((c) => (
				<label key={c.hands} className="flex items-center gap-3 min-h-11 text-lg">
					<input
						type="radio"
						className="radio"
						name="hands"
						data-field={`hands-${c.hands}`}
						checked={seen.hands === c.hands}
						onChange={() => say(c.hands)}
					/>
					<span>
						Seen from {c.text}: hinges on the <strong>{c.side}</strong>, seen from the pull side
					</span>
				</label>
			))}
		</fieldset>
	);
}

/** Columns says what each column is taken for, and lets it be put right. */
function Columns({ seen, match }: { seen: Preview; match: (i: number, id: string) => void }) {
	return (
		<div data-columns data-known={seen.known}>
			<h3 className="text-xl">
				What its columns are
				{seen.known && <span className="font-normal text-base"> (as you matched them before)</span>}
			</h3>
			<ul className="grid sm:grid-cols-2 lg:grid-cols-3 gap-x-6">
				{seen.columns.map((c, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
					<li key={i} className="border-b border-base-300 py-2">
						<label>
							<strong>{c.header || '(no header)'}</strong>{' '}
							<span className="opacity-80 text-sm">{c.sample.join(', ')}</span>
							<select
								className="select w-full mt-1"
								value={c.id}
								data-field={`column ${c.header}`}
								onChange={(e) => match(i, e.target.value)}
							>
								<option value="">left out</option>
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

function Rows({ seen }: { seen: Preview }) {
	return (
		<div data-good={seen.good} data-bad={seen.bad}>
			<h3 className="text-xl">
				{seen.good === 1 ? '1 line is a door' : `${seen.good} lines are doors`}
				{seen.bad > 0 && `, ${seen.bad === 1 ? '1 cannot be' : `${seen.bad} cannot be`}`}
			</h3>
			{/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by key */}
			<section className="max-h-96 overflow-y-auto border-y border-base-300" aria-label="Lines" tabIndex={0}>
				<table className="table">
					<thead>
						<tr>
							<th>Line</th>
							<th>Door</th>
							<th>What is made of it</th>
						</tr>
					</thead>
					<tbody>
						{seen.rows.map((r) => (
							<tr key={r.line} data-line={r.line}>
								<td className="tabular-nums">{r.line}</td>
								<th scope="row">
									{r.name}
									{r.room && <span className="font-normal">, {r.room}</span>}
								</th>
								<td>
									{r.faults.map((f) => (
										<p key={f.header + f.problem} className="text-error font-semibold">
											{f.header && `${f.header}: `}
											{f.problem}
										</p>
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
					The first {seen.rows.length} of {seen.good + seen.bad} lines, those that cannot be first.
				</p>
			)}
		</div>
	);
}
