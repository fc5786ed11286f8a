import { useQuery } from '@tanstack/react-query';
import { since } from '../api/access';
import { resources } from '../api/resources';
import { say } from '../words/texts';
import { useOpening } from './state';

/** Changed tells what changed a finished step's inputs, and since when. */
export function Changed({ step }: { step: string }) {
	const { view: v } = useOpening();
	const changed = v.plan.steps.find((s) => s.step === step)?.state === 'changed';
	const told = useQuery({ ...resources.changed(v.job.id, v.opening.id, step, v.version), enabled: changed });
	if (!changed || !told.data) return null;
	const { since: at, changes } = told.data;
	return (
		<div className="border-l-4 border-info pl-3 mb-3" data-changed-step={step}>
			<p>
				{at ? say('door.changed-since', { at: since(new Date(at)) }) : say('door.changed-since-it-was-done')}
			</p>
			<ul className="list-disc pl-5">
				{changes.map((c, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: changes stand in their order
					<li key={i}>
						{c.label}
						{c.by && <span className="opacity-75"> · {c.by}</span>}
					</li>
				))}
			</ul>
		</div>
	);
}
