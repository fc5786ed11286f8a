import { type Entry, useQueue } from '../../../api/queue';
import { Digits } from '../../../ui/length';
import { say } from '../../../words/texts';
import { readingID } from '../../reading-id';
import { useOpening } from '../../state';

/** Waiting is a reading that was taken without signal: it waits on this client. */
type Waiting = { id: string; entry: Entry };

/** useWaiting lists the readings of the opening that wait on this client, in their order. */
export function useWaiting(): Waiting[] {
	const { view } = useOpening();
	return useQueue()
		.filter((e) => e.job === view.job.id && e.opening === view.opening.id && !e.trouble)
		.flatMap((entry) =>
			entry.ops
				.filter((op) => op.op === 'add' && op.path === '/readings/-')
				.map((op) => ({ id: readingID(op.value as Parameters<typeof readingID>[0]), entry })),
		);
}

/** WaitingReadings lists them as read, below the readings that are kept. */
export function WaitingReadings() {
	const waiting = useWaiting();
	if (waiting.length === 0) return null;
	return (
		<section className="border-l-4 border-info pl-2 mb-3">
			<p role="status">{say('page.waits')}</p>
			<ul aria-label={say('measure.read-and-waiting')}>
				{waiting.map((w) => (
					<li key={w.entry.key} className="py-1.5 first-letter:uppercase" data-reading-waits={w.id}>
						<Digits>{w.entry.label}</Digits>
					</li>
				))}
			</ul>
		</section>
	);
}
