import { Said, useAttempt } from '../api/attempt';
import { ask, client, type JobHead, type Schemas } from '../api/client';
import { say } from '../words/texts';
import { named, trade } from '../words/trade';

/** setUsual makes some of an opening's choices the job's defaults; without an opening, the unit's again. */
export function setUsual(head: JobHead, from: string, parts: Schemas['SetUsual']['parts']) {
	return ask(
		client.PATCH('/api/jobs/{job}', {
			params: { path: { job: head.id }, header: { 'If-Match': `"${head.version}"` } },
			body: { usual: { from, parts } },
		}),
	);
}

/** UsualChoices shows the job's own defaults. */
export function UsualChoices({ head, done }: { head: JobHead; done: () => void }) {
	const [error, attempt] = useAttempt();
	if (head.usual.length === 0) return null;
	return (
		<details className="mb-3" data-usual>
			<summary className="min-h-11 flex items-center cursor-pointer underline decoration-dotted underline-offset-4">
				{say('walk.new-doors-begin-with-this', {
					parts: head.usual.map((u) => named(trade.parts, u.part).name).join(', '),
				})}
			</summary>
			<ul className="grid gap-2">
				{head.usual.map((u) => (
					<li key={u.part} className="flex flex-wrap gap-x-4 items-center">
						<span className="grow">
							<strong>{named(trade.parts, u.part).name}</strong>: {u.says.join('; ')}
						</span>
						<button
							type="button"
							className="btn btn-sm"
							onClick={async () => {
								await attempt(() => setUsual(head, '', [u.part]));
								done();
							}}
							data-usual-back={u.part}
						>
							{say('walk.back-to-the-usual')}
						</button>
					</li>
				))}
			</ul>
			<Said error={error} />
		</details>
	);
}
