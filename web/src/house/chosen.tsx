import { useQuery, useQueryClient } from '@tanstack/react-query';
import { CalendarDays, Copy, PackageOpen, Printer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type OpeningRow, type Schemas } from '../api/client';
import { resources } from '../api/resources';
import { whoNow } from '../api/who';
import { Checkbox } from '../ui/checkbox';
import { Dialog } from '../ui/dialog';
import { GiveOut } from '../ui/give-out';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import type { Deed } from './page';
import { setUsual } from './usual';

type Part = Schemas['CopyChoices']['parts'][number];

/** Chosen is the bar of actions on the chosen openings. */
export function Chosen({
	job,
	openings,
	chosen,
	all,
	none,
	did,
}: {
	job: string;
	openings: OpeningRow[];
	chosen: Set<string>;
	all: () => void;
	none: () => void;
	did: (d: Deed) => void;
}) {
	const [copying, setCopying] = useState(false);
	const ids = openings.filter((d) => chosen.has(d.id)).map((d) => d.id);
	const query = new URLSearchParams({ openings: ids.join(',') });
	const some = ids.length > 0;
	return (
		<section
			aria-label={say('walk.chosen-doors')}
			className="sticky bottom-0 z-10 bg-base-100 border-t-4 border-primary py-2 flex flex-wrap gap-2 items-center"
			data-chosen={ids.length}
		>
			<p className="text-lg font-semibold mr-2" role="status">
				{say('walk.count-doors-chosen', { count: ids.length })}
			</p>
			<button type="button" className="btn" onClick={all} data-choose-all>
				{say('walk.all-shown-here')}
			</button>
			{some && (
				<>
					<Link className="btn" to={`/day/${job}?${query}`} data-day-chosen>
						<CalendarDays size={20} aria-hidden="true" /> {say('walk.plan-their-day')}
					</Link>
					<Link className="btn" to={`/load/${job}?${query}`} data-load-chosen>
						<PackageOpen size={20} aria-hidden="true" /> {say('page.what-to-load')}
					</Link>
					<GiveOut
						openings={ids.length}
						href={`/api/jobs/${job}/paper?kind=card&${query}`}
						wanted={{ what: 'card', job, openings: ids }}
					>
						<Printer size={20} aria-hidden="true" /> {say('walk.door-cards')}
					</GiveOut>
					<button type="button" className="btn" onClick={() => setCopying(true)} data-copying>
						<Copy size={20} aria-hidden="true" /> {say('walk.copy-choices-to-them')}
					</button>
				</>
			)}
			<button type="button" className="btn btn-ghost" onClick={none}>
				{say('walk.done-choosing')}
			</button>
			{copying && (
				<Dialog label={say('walk.copy-choices')} close={() => setCopying(false)}>
					<CopyTo job={job} openings={openings} to={openings.filter((d) => chosen.has(d.id))} did={did} />
				</Dialog>
			)}
		</section>
	);
}

/** CopyTo copies an opening's choices to others: previewed first, undone in one press. */
function CopyTo({
	job,
	openings,
	to,
	did,
}: {
	job: string;
	openings: OpeningRow[];
	to: OpeningRow[];
	did: (d: Deed) => void;
}) {
	const cache = useQueryClient();
	const [from, setFrom] = useState('');
	const [parts, setParts] = useState<Part[]>(['margins', 'hinges', 'lock']);
	const [later, setLater] = useState(false);
	const [error, attempt] = useAttempt();
	const others = to.filter((d) => d.id !== from);
	const body = { from, parts, to: others.map((d) => ({ id: d.id, version: d.version })), by: whoNow() };
	const ready = from !== '' && parts.length > 0;
	const preview = useQuery({
		queryKey: ['copy', job, body],
		enabled: ready,
		gcTime: 0,
		retry: false,
		queryFn: () =>
			ask(
				client.POST('/api/jobs/{job}/copy', { params: { path: { job } }, body: { ...body, preview: true } }),
			),
	});
	const changed = preview.data?.openings.filter((d) => d.changes.length > 0 && !d.refused) ?? [];
	const copy = () =>
		attempt(async () => {
			const path = { job };
			const done = await ask(client.POST('/api/jobs/{job}/copy', { params: { path }, body }));
			const head = cache.getQueryData(resources.walk(job).queryKey)?.job;
			if (later && head) await setUsual(head, from, parts);
			cache.invalidateQueries({ queryKey: resources.openings(job), refetchType: 'none' });
			const n = done.standing.length;
			did({
				says: say(later ? 'walk.copied-and-new' : 'walk.copied', {
					count: n,
					door: openings.find((d) => d.id === from)?.name,
				}),
				back: async () => {
					await ask(
						client.POST('/api/jobs/{job}/undo', { params: { path }, body: { openings: done.standing } }),
					);
					cache.invalidateQueries({ queryKey: resources.openings(job), refetchType: 'none' });
					const now = await ask(client.GET('/api/jobs/{job}', { params: { path } }));
					if (later) await setUsual(now.job, '', parts);
				},
			});
		});
	return (
		<div className="grid gap-3">
			<h3 className="text-xl">{say('walk.copy-choices')}</h3>
			<label>
				<span className="block mb-1">{say('walk.of-which-door')}</span>
				<select
					className="select w-full text-lg"
					data-field="copy-from"
					value={from}
					onChange={(e) => setFrom(e.target.value)}
				>
					<option value="">{say('walk.choose-one')}</option>
					{openings.map((d, i) => (
						<option key={d.id} value={d.id}>
							{i + 1}. {d.name}
						</option>
					))}
				</select>
			</label>
			<fieldset>
				<legend>{say('page.what')}</legend>
				{trade.parts.map((p) => (
					<Checkbox
						key={p.id}
						data-part={p.id}
						checked={parts.includes(p.id as Part)}
						onChange={(e) =>
							setParts(
								trade.parts
									.map((x) => x.id as Part)
									.filter((x) => (x === p.id ? e.target.checked : parts.includes(x))),
							)
						}
					>
						<span>
							<strong>{p.name}</strong>: {p.why}
						</span>
					</Checkbox>
				))}
				<p className="opacity-80 mt-1">{say('walk.the-kit-belongs-to-the')}</p>
			</fieldset>
			<Checkbox data-field="copy-later" checked={later} onChange={(e) => setLater(e.target.checked)}>
				{say('walk.new-doors-begin-with-them')}
			</Checkbox>
			{/* Its room is there from the beginning, so that nothing moves under the hand when it fills. */}
			<section
				className="h-72 overflow-y-auto border-y border-base-300 py-2"
				aria-label={say('walk.what-it-would-do')}
				// biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls can be scrolled by key
				tabIndex={0}
				data-preview
			>
				{!ready && <p className="opacity-80">{say('walk.choose-a-door-to-see')}</p>}
				{preview.error && <Said error={preview.error.message} />}
				{ready && preview.data && (
					<ul className="grid gap-2">
						{preview.data.openings.map((d) => (
							<li key={d.id} data-copied={d.id}>
								<strong>{d.name}</strong>
								{d.refused ? (
									<span className="text-error">
										{' '}
										{say('walk.stays-as-it-is-refused', { refused: d.refused })}
									</span>
								) : d.changes.length === 0 ? (
									` ${say('walk.has-these')}`
								) : (
									<ul className="list-disc pl-5">
										{d.changes.map((c) => (
											<li key={c}>{c}</li>
										))}
									</ul>
								)}
								{d.brings.map((b) => (
									<p key={b} className="text-warning">
										{say('walk.then', { next: b })}
									</p>
								))}
							</li>
						))}
					</ul>
				)}
			</section>
			<Said error={error} />
			<button
				type="button"
				className="btn btn-primary text-lg"
				disabled={!preview.data || (changed.length === 0 && !later)}
				onClick={copy}
				data-copy
			>
				{say(later ? 'walk.copy-to-and-new' : 'walk.copy-to', { count: changed.length })}
			</button>
		</div>
	);
}
