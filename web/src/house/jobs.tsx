import { useQuery, useQueryClient } from '@tanstack/react-query';
import { DatabaseBackup, FileDown, FileInput, GraduationCap, Smartphone, Trash2 } from 'lucide-react';
import { useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { Link, useNavigate } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type JobHead, newKey, once, type Schemas, send, type Unit } from '../api/client';
import { resources } from '../api/resources';
import { GiveOut } from '../ui/give-out';
import { useHomeFocus } from '../ui/home-focus';
import { Failed, TakenOff, Waiting } from '../ui/says';
import { Top } from '../ui/top';
import { chooseLocale, chosenLocale, keepJobLocale, type Locale, subscribe } from '../words/locale';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import { BringIn } from './bring-in';
import { JobLine } from './job-line';
import { TryADoor } from './trying';

const trail: { text: string }[] = [];

/** Home lists the jobs; a new one is begun, or imported from a file. */
export function Home() {
	const jobs = useQuery(resources.jobs());
	const sharing = useQuery(resources.sharing());
	const runs = sharing.data?.runs ?? true;
	const chosen = useSyncExternalStore(subscribe, chosenLocale);
	const [error, attempt] = useAttempt();
	const take = async (j: JobHead, back: boolean) => {
		const how = { params: { path: { job: j.id }, header: { 'If-Match': `"${j.version}"` } } };
		await attempt(async () => {
			await ask(back ? client.POST('/api/jobs/{job}/restore', how) : client.DELETE('/api/jobs/{job}', how));
		});
		jobs.refetch();
	};
	useHomeFocus(JSON.stringify(jobs.data));
	const on = jobs.data?.filter((j) => !j.removed);
	const off = jobs.data?.filter((j) => j.removed) ?? [];
	return (
		<>
			<Top trail={trail} />
			<main className="max-w-3xl mx-auto p-4 sm:p-6 grid gap-8">
				<section>
					<div className="flex flex-wrap items-center gap-x-6 gap-y-2 mb-3">
						<h1 className="text-3xl grow" tabIndex={-1} data-home>
							{say('page.jobs')}
						</h1>
						<label className="flex items-center gap-2 whitespace-nowrap">
							{say('page.words')}
							<select
								className="select"
								data-field="client-language"
								value={chosen}
								onChange={(e) => chooseLocale(e.target.value as Locale)}
							>
								<option value="">{say('home.as-the-browser-is-set')}</option>
								{trade.languages.map((l) => (
									<option key={l.id} value={l.id}>
										{l.name}
									</option>
								))}
							</select>
						</label>
					</div>
					{jobs.isPending && <Waiting text={say('home.fetching-the-jobs')} />}
					{jobs.error && <Failed error={jobs.error} retry={() => jobs.refetch()} />}
					{on?.length === 0 && <p className="text-lg">{say('home.no-job-yet-begin-one')}</p>}
					<ul>
						{on?.map((j) => (
							<li key={j.id} className="border-b border-base-300 flex items-center">
								{j.broken ? (
									<div className="grow grid gap-1 py-3 px-2" data-broken={j.id}>
										<span className="text-xl font-semibold">{j.name}</span>
										<span className="text-error font-semibold">{j.broken}</span>
									</div>
								) : (
									<>
										<JobLine job={j} />
										{runs && (
											<button type="button" className="btn btn-ghost" onClick={() => take(j, false)}>
												<Trash2 size={18} aria-hidden="true" />{' '}
												<span className="max-sm:sr-only">{say('page.take-off')}</span>
												<span className="sr-only"> {j.name}</span>
											</button>
										)}
									</>
								)}
							</li>
						))}
					</ul>
					<Said error={error} className="mt-2" />
					<TakenOff what={say('page.jobs')} list={off} back={runs ? (j) => take(j, true) : undefined} />
				</section>
				<Begin />
				<BringIn />
				<Safe
					runs={runs}
					openings={(on ?? []).reduce((n, j) => n + j.openings, 0)}
					done={() => jobs.refetch()}
				/>
			</main>
		</>
	);
}

function Begin() {
	const go = useNavigate();
	const cache = useQueryClient();
	const [name, setName] = useState('');
	const [unit, setUnit] = useState<Unit>('mm');
	const [error, attempt] = useAttempt();
	// biome-ignore lint/correctness/useExhaustiveDependencies: another name is another job
	const key = useMemo(() => newKey(), [name, unit]);
	const begin = async (e: React.FormEvent) => {
		e.preventDefault();
		await attempt(async () => {
			const j = await ask(client.POST('/api/jobs', { params: once(key), body: { name, unit } }));
			keepJobLocale(j);
			cache.invalidateQueries({ queryKey: resources.jobs().queryKey });
			go(`/j/${j.id}`);
		});
	};
	return (
		<section>
			<h2 className="text-2xl mb-2">{say('home.begin-a-job')}</h2>
			<form onSubmit={begin} className="grid gap-3">
				<label>
					<span className="block mb-1">{say('home.house-or-job')}</span>
					<input
						className="input w-full text-lg"
						data-field="job-name"
						value={name}
						onChange={(e) => setName(e.target.value)}
						aria-invalid={!!error}
					/>
				</label>
				<fieldset className="flex gap-6">
					<legend className="sr-only">{say('home.unit')}</legend>
					{(['mm', 'in'] as const).map((u) => (
						<label key={u} className="flex items-center gap-2 min-h-11">
							<input
								type="radio"
								className="radio radio-primary"
								name="unit"
								data-field={`job-${u}`}
								checked={unit === u}
								onChange={() => setUnit(u)}
							/>
							{say(u === 'mm' ? 'home.millimetres' : 'home.inches')}
						</label>
					))}
				</fieldset>
				<Said error={error} />
				<button type="submit" className="btn btn-primary text-lg" data-field="job-begin">
					{say('home.begin')}
				</button>
			</form>
			<TryADoor />
		</section>
	);
}

/** Safe has the backups: one down, one up again, and everything as open files. */
function Safe({ runs, openings, done }: { runs: boolean; openings: number; done: () => void }) {
	const cache = useQueryClient();
	const input = useRef<HTMLInputElement>(null);
	const [file, setFile] = useState<File | null>(null);
	const [busy, setBusy] = useState(false);
	const [brought, setBrought] = useState<Schemas['RestoredView'] | null>(null);
	const [error, attempt] = useAttempt();
	const restore = async () => {
		if (!file) return;
		setBusy(true);
		await attempt(async () => {
			setBrought(await send('/api/restore', file));
			setFile(null);
			cache.clear(); // nothing that was read before holds
			done();
		});
		setBusy(false);
	};
	return (
		<section data-safe>
			<h2 className="text-2xl mb-2">{say('page.practice')}</h2>
			<p className="mb-6">
				<Link className="btn text-lg" to="/practice" data-practice>
					<GraduationCap size={20} aria-hidden="true" /> {say('home.hidden-openings-and-drills')}
				</Link>
			</p>
			<h2 className="text-2xl mb-2">{say('home.other-clients')}</h2>
			<p className="mb-6">
				<Link className="btn text-lg" to="/sharing" data-sharing>
					<Smartphone size={20} aria-hidden="true" /> {say('home.a-phone-at-the-opening')}
				</Link>
			</p>
			<h2 className="text-2xl mb-2">{say('home.keep-it-safe')}</h2>
			<p className="flex flex-wrap gap-2 mb-2">
				{runs && (
					<a className="btn text-lg" href="/api/backup" download data-backup>
						<DatabaseBackup size={20} aria-hidden="true" /> {say('home.backup')}
					</a>
				)}
				<GiveOut
					openings={openings}
					href="/api/everything"
					wanted={{ what: 'everything', job: '' }}
					className="text-lg"
					data-everything
				>
					<FileDown size={20} aria-hidden="true" /> {say('home.everything-as-open-files')}
				</GiveOut>
				{runs && (
					<>
						<input
							ref={input}
							type="file"
							accept=".db"
							className="hidden"
							aria-label={say('home.backup')}
							data-field="restore-file"
							onChange={(e) => {
								setFile(e.target.files?.[0] ?? null);
								setBrought(null);
								e.target.value = '';
							}}
						/>
						<button type="button" className="btn text-lg" onClick={() => input.current?.click()}>
							<FileInput size={20} aria-hidden="true" /> {say('home.restore-a-backup')}
						</button>
					</>
				)}
			</p>
			<p className="opacity-80 max-w-prose">
				{runs ? say('home.a-backup-holds-every-change') : say('home.only-the-machine-that-runs')}
			</p>
			{file && (
				<div className="border-l-4 border-warning pl-3 my-3 grid gap-2" data-restore-ready>
					<p className="text-lg">
						{say('home.file-size-mb-replaces-everything', {
							file: file.name,
							size: (file.size / 1e6).toFixed(1),
						})}
					</p>
					<p className="flex gap-2">
						<button type="button" className="btn btn-primary" disabled={busy} onClick={restore} data-restore>
							{busy ? say('home.restoring') : say('home.restore-it')}
						</button>
						<button type="button" className="btn" disabled={busy} onClick={() => setFile(null)}>
							{say('home.leave-everything-as-it-is')}
						</button>
					</p>
				</div>
			)}
			{brought && (
				<p role="status" className="text-lg mt-2" data-restored={brought.jobs}>
					{say('home.restored', {
						jobs: say('home.count-jobs', { count: brought.jobs }),
						doors: say('page.count-doors', { count: brought.openings }),
						before: brought.before,
					})}
				</p>
			)}
			<Said error={error} className="mt-2" />
		</section>
	);
}
