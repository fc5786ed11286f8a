import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, Plus, Ruler, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { ask, client, type Door, type JobHead, once, type Unit } from './api';
import { Said, useAttempt } from './attempt';
import { Daylight } from './drawing';
import { useHomeFocus } from './home-focus';
import { useShortcuts } from './keys';
import { ShownIn } from './length';
import { stepNames } from './rod';
import { Failed, TakenOff, Waiting } from './says';
import { Top, useShownIn } from './top';
import { trade } from './trade';

/** WalkPage is the home of a job: its doors in the order you walk the house. */
export function WalkPage() {
	const { job = '' } = useParams();
	const walk = useQuery({
		queryKey: ['walk', job],
		queryFn: () => ask(client.GET('/api/jobs/{job}', { params: { path: { job } } })),
	});
	const [shown, setShown] = useShownIn(job, (walk.data?.job.unit as Unit) ?? 'mm');
	const [removed, setRemoved] = useState<{ id: string; name: string } | null>(null);
	const [error, attempt] = useAttempt();
	const trail = useMemo(() => (walk.data ? [{ text: walk.data.job.name }] : []), [walk.data]);
	useHomeFocus(JSON.stringify(walk.data?.doors.map((d) => d.id)));
	useShortcuts({
		unit: () => setShown(shown === 'mm' ? 'in' : 'mm'),
		entry: () => document.querySelector<HTMLElement>('[data-field="opening-name"]')?.focus(),
	});
	const remove = async (d: { id: string; name: string; version?: number }, back: boolean) => {
		const path = { job, opening: d.id };
		await attempt(async () => {
			if (back) await ask(client.POST('/api/jobs/{job}/openings/{opening}/restore', { params: { path } }));
			else
				await ask(
					client.DELETE('/api/jobs/{job}/openings/{opening}', {
						params: { path, header: { 'If-Match': `"${d.version}"` } },
					}),
				);
			setRemoved(back ? null : d);
		});
		walk.refetch();
	};
	return (
		<ShownIn value={shown}>
			<Top trail={trail} unit={walk.data && shown} setUnit={setShown} />
			<main className="p-4 sm:p-6 max-w-7xl mx-auto">
				{walk.isPending && <Waiting text="Walking the house…" />}
				{walk.error && <Failed error={walk.error} retry={() => walk.refetch()} />}
				{walk.data && (
					<>
						<div className="flex flex-wrap items-end gap-x-6 gap-y-2 mb-4">
							<h1 className="text-3xl" tabIndex={-1} data-home>
								{walk.data.job.name}
							</h1>
							<p className="text-lg grow">{summary(walk.data.doors)}</p>
							<TapeChoice head={walk.data.job} done={() => walk.refetch()} />
							<Link className="btn" to={`/kit/${job}`} data-kit>
								<Ruler size={20} aria-hidden="true" /> Kit
							</Link>
							<a className="btn" href={`/api/jobs/${job}/file`} download>
								<Download size={20} aria-hidden="true" /> Job file
							</a>
						</div>
						<Said error={error} className="mb-3" />
						{removed && (
							<p role="status" className="mb-3 text-lg">
								{removed.name} is off the walk.{' '}
								<button
									type="button"
									className="btn btn-sm btn-primary"
									onClick={() => remove(removed, true)}
								>
									Undo
								</button>
							</p>
						)}
						<ol className="grid grid-cols-[repeat(auto-fill,minmax(15.5rem,1fr))] gap-x-0 gap-y-8">
							{walk.data.doors.map((d, i) => (
								<DoorOnWalk
									key={d.id}
									door={d}
									number={i + 1}
									to={`/j/${job}/${d.id}`}
									remove={() => remove(d, false)}
								/>
							))}
							<li className="flex flex-col justify-end px-4 pb-1">
								<AddDoor job={job} first={walk.data.doors.length === 0} />
							</li>
						</ol>
						<TakenOff what="Doors" list={walk.data.off} back={(d) => remove(d, true)} />
					</>
				)}
			</main>
		</ShownIn>
	);
}

function summary(doors: Door[]) {
	const done = doors.filter((d) => !d.next).length;
	if (doors.length === 0) return 'No door yet.';
	const n = doors.length === 1 ? '1 door' : `${doors.length} doors`;
	return done === 0 ? `${n} on the walk` : `${n} on the walk, ${done} done`;
}

function DoorOnWalk({
	door: d,
	number,
	to,
	remove,
}: {
	door: Door;
	number: number;
	to: string;
	remove: () => void;
}) {
	const next = d.rod.find((n) => n.step === d.next);
	return (
		<li className="group" data-door={d.id}>
			<Link to={next ? `${to}/${next.step}` : `${to}/measure`} className="block focus-visible:relative">
				<div className="overflow-hidden bg-[var(--shade)]">
					{d.drawing && (
						<Daylight
							drawing={d.drawing}
							hand={d.hand}
							times={14}
							label={`${d.name}: the light round the door`}
							className="w-full h-96"
						/>
					)}
				</div>
				<div className="px-3 pt-2">
					<h2 className="text-xl">
						{number}. {d.name}
					</h2>
					<p className="opacity-80">{d.room || 'room not named'}</p>
					<p className="mt-1 text-lg">
						{next ? (
							<>
								<strong>{stepNames[next.step]}</strong>: {next.says}
							</>
						) : (
							'Signed off.'
						)}
					</p>
					{d.stops.map((s) => (
						<p key={s} className="text-error font-semibold">
							{s}
						</p>
					))}
				</div>
			</Link>
			<button type="button" className="btn btn-ghost mx-1 font-normal" onClick={remove}>
				<Trash2 size={18} aria-hidden="true" /> Take off<span className="sr-only">: {d.name}</span>
			</button>
		</li>
	);
}

function AddDoor({ job, first }: { job: string; first: boolean }) {
	const go = useNavigate();
	const cache = useQueryClient();
	const [name, setName] = useState('');
	const [room, setRoom] = useState('');
	const [error, attempt] = useAttempt();
	// biome-ignore lint/correctness/useExhaustiveDependencies: another name is another door
	const key = useMemo(() => crypto.randomUUID(), [name, room]);
	const add = async (e: React.FormEvent) => {
		e.preventDefault();
		await attempt(async () => {
			const v = await ask(
				client.POST('/api/jobs/{job}/openings', {
					params: { path: { job }, ...once(key) },
					body: { name, room },
				}),
			);
			cache.setQueryData(['opening', job, v.opening.id], v);
			cache.invalidateQueries({ queryKey: ['walk', job] });
			go(`/j/${job}/${v.opening.id}/measure`);
		});
	};
	return (
		<form onSubmit={add} className="grid gap-2 border-2 border-dashed border-base-300 p-4">
			<h2 className="text-xl">{first ? 'The first door' : 'Another door'}</h2>
			<label>
				<span className="block">Door</span>
				<input
					className="input w-full text-lg"
					data-field="opening-name"
					value={name}
					onChange={(e) => setName(e.target.value)}
					aria-invalid={!!error}
				/>
			</label>
			<label>
				<span className="block">Seen from (room)</span>
				<input
					className="input w-full text-lg"
					data-field="opening-room"
					value={room}
					onChange={(e) => setRoom(e.target.value)}
				/>
			</label>
			<Said error={error} />
			<button type="submit" className="btn btn-primary text-lg" data-field="opening-add">
				<Plus size={20} aria-hidden="true" /> Measure it
			</button>
		</form>
	);
}

function TapeChoice({ head, done }: { head: JobHead; done: () => void }) {
	const [error, attempt] = useAttempt();
	return (
		<label className="flex items-center gap-2 whitespace-nowrap">
			Cut to
			<select
				className="select"
				data-field="tape"
				value={head.tape}
				onChange={async (e) => {
					await attempt(async () => {
						await ask(
							client.PATCH('/api/jobs/{job}', {
								params: { path: { job: head.id }, header: { 'If-Match': `"${head.version}"` } },
								body: { tape: e.target.value as JobHead['tape'] },
							}),
						);
					});
					done();
				}}
			>
				{trade.tapes
					.filter((t) => t.unit === head.unit)
					.map((t) => (
						<option key={t.id} value={t.id}>
							{t.name}
						</option>
					))}
			</select>
			{error && <span className="text-error">{error}</span>}
		</label>
	);
}
