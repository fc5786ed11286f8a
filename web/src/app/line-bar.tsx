import { useQueryClient } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useEffect } from 'react';
import { ended, since } from '../api/access';
import { Said, useAttempt } from '../api/attempt';
import { enter } from '../api/instrument';
import { type Change, known, seen, taken, useLine } from '../api/live';
import { drop, handIn, useQueue } from '../api/queue';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';

/** showFor is how long the notice of another page's change is shown, in ms. */
const showFor = 6000;

/** LineBar shows the state of the connection, and notices from other clients. */
export function LineBar() {
	const line = useLine();
	const change = line.change;
	useEffect(() => {
		if (!change) return;
		const t = setTimeout(seen, showFor);
		return () => clearTimeout(t);
	}, [change]);
	if (ended()) return null; // what waits is not shown to whoever holds the client then
	return (
		<div className="fixed right-3 bottom-3 max-lg:in-data-strip:bottom-22 max-lg:in-data-keypad-open:bottom-auto max-lg:in-data-keypad-open:top-14 z-30 grid gap-2 justify-items-end max-w-[min(28rem,calc(100vw-1.5rem))] no-print">
			{change && (
				<p
					role="status"
					className="bg-info text-info-content px-3 py-2 flex gap-2 items-center"
					data-elsewhere
				>
					<span>{notice(change)}</span>
					<button type="button" className="btn btn-ghost btn-sm text-current" onClick={seen}>
						<X size={18} aria-hidden="true" />
						<span className="sr-only">{say('page.close')}</span>
					</button>
				</p>
			)}
			{line.client && (
				<p
					role="alert"
					className="bg-warning text-warning-content px-3 py-2 flex flex-wrap gap-2 items-center"
					data-let-in={line.client.name}
				>
					<span>
						<Phrase id="page.let-in" of={{ client: <strong>{line.client.name}</strong> }} />
					</span>
					<a className="btn btn-sm" href="/sharing" onClick={known}>
						{say('page.clients')}
					</a>
					<button type="button" className="btn btn-ghost btn-sm text-current" onClick={known}>
						<X size={18} aria-hidden="true" />
						<span className="sr-only">{say('page.close')}</span>
					</button>
				</p>
			)}
			{line.lengths.map((l) => (
				<p
					key={l.id}
					role="status"
					className="bg-info text-info-content px-3 py-2 flex gap-2 items-center"
					data-spoken-length={l.text}
				>
					<span className="text-lg">
						<Phrase id="page.says-length" of={{ from: l.from, length: <strong>{l.text}</strong> }} />
					</span>
					<button
						type="button"
						className="btn btn-sm"
						data-put-length
						onClick={() => {
							if (enter(l, true)) taken(l.id);
						}}
					>
						{say('page.put-it-in-the-entry')}
					</button>
					<button type="button" className="btn btn-ghost btn-sm" onClick={() => taken(l.id)} data-away>
						{say('page.close')}
					</button>
				</p>
			))}
			{line.newer && (
				<p
					role="status"
					className="bg-neutral text-neutral-content px-3 py-2 flex gap-2 items-center"
					data-newer
				>
					{say('page.newer')}
					<button type="button" className="btn btn-sm" onClick={() => location.reload()}>
						{say('page.load-it-again')}
					</button>
				</p>
			)}
			<Waiting on={line.on} at={line.since} />
		</div>
	);
}

/** notice says what was changed elsewhere: where, on which client, by whom, and what. */
function notice(c: Change) {
	const own = ['127.0.0.1', 'localhost', '[::1]'].includes(location.hostname);
	const name = c.client || (own ? say('page.this-machine') : c.machine);
	const client = c.by ? `${name}, ${c.by}` : name;
	if (c.onOpening)
		return say('page.change-of-opening', { opening: c.onOpening, job: c.onJob, client, change: c.label });
	return c.onJob
		? say('page.change-of-job', { job: c.onJob, client, change: c.label })
		: say('page.change-of-all', { client, change: c.label });
}

/** Waiting lists what waits on this client, for the server or for a decision; one line where no decision is needed. */
function Waiting({ on, at }: { on: boolean; at: Date | null }) {
	const queue = useQueue();
	const cache = useQueryClient();
	const [error, attempt] = useAttempt();
	const n = queue.length;
	if (on && n === 0) return null;
	const waits = say('page.count-entries-wait-here', { count: n });
	return (
		<details
			className={`${on ? 'bg-neutral text-neutral-content' : 'bg-warning text-warning-content'} px-3 w-full`}
			open={queue.some((e) => e.trouble)}
			data-waiting={n || undefined}
			data-no-signal={!on || undefined}
		>
			<summary className="cursor-pointer text-lg min-h-11 flex items-center">
				<span role="status">
					{on
						? waits
						: (at ? say('page.no-signal-since', { at: since(at) }) : say('page.no-signal')) +
							(n ? `: ${waits}` : '')}
				</span>
			</summary>
			{!on && (
				<p className="pb-2">
					{at ? say('page.no-answer-since', { at: since(at) }) : say('page.no-answer')}{' '}
					{say('page.kept-here')}
					{!('serviceWorker' in navigator) && ` ${say('page.leave-open')}`}
				</p>
			)}
			<ul className="max-h-[40dvh] overflow-y-auto">
				{queue.map((e) => (
					<li key={e.key} className="border-t border-current/40 py-1" data-entry={e.label}>
						{e.door}: {e.label}, {e.at}
						{e.trouble && (
							<span className="block">
								{e.trouble}{' '}
								<button
									type="button"
									className="btn btn-sm"
									data-put-mine
									onClick={() =>
										attempt(async () => {
											await handIn(e, true);
											drop(e.key);
											cache.invalidateQueries();
										})
									}
								>
									{say('page.use-mine')}
								</button>{' '}
								<button type="button" className="btn btn-sm" onClick={() => drop(e.key)} data-leave-theirs>
									{say('page.leave-it-as-it-is')}
								</button>
							</span>
						)}
					</li>
				))}
			</ul>
			<Said error={error} />
		</details>
	);
}
