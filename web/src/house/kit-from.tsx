import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { JobHead } from '../api/client';
import { resources } from '../api/resources';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';
import { both, brings, type Kit } from './kit-merge';

/** KitFrom adds what another job's kit has more, and undoes that. */
export function KitFrom({ head, save }: { head: JobHead; save: (kit: Kit) => Promise<unknown> }) {
	const jobs = useQuery(resources.jobs());
	const [before, setBefore] = useState<{ kit: Kit; from: string } | null>(null);
	const others =
		jobs.data?.filter((j) => j.id !== head.id && !j.removed && brings(head.kit, j.kit).length > 0) ?? [];
	if (others.length === 0 && !before) return null;
	return (
		<section className="mt-6" data-kit-from>
			<h2 className="text-xl mb-1">{say('kit.the-kit-of-another-job')}</h2>
			<ul>
				{others.map((j) => (
					<li key={j.id} className="flex items-center gap-3 border-b border-base-300 py-1">
						<span className="grow">
							<Phrase
								id="kit.has-more"
								of={{ job: <strong>{j.name}</strong>, tools: brings(head.kit, j.kit).join(', ') }}
							/>
						</span>
						<button
							type="button"
							className="btn"
							data-take-kit={j.id}
							onClick={async () => {
								if (await save(both(head.kit, j.kit))) setBefore({ kit: head.kit, from: j.name });
							}}
						>
							{say('kit.take-it-over')}
							<span className="sr-only"> {say('kit.from-name', { name: j.name })}</span>
						</button>
					</li>
				))}
			</ul>
			{before && (
				<p role="status" className="mt-2 text-lg">
					{say('kit.taken-over', { from: before.from })}{' '}
					<button
						type="button"
						className="btn btn-sm btn-primary"
						data-undo-kit
						onClick={async () => {
							if (await save(before.kit)) setBefore(null);
						}}
					>
						{say('page.undo')}
					</button>
				</p>
			)}
		</section>
	);
}
