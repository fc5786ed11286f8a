import { useNavigate } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { say } from '../words/texts';
import { stepName } from '../words/trade';
import { useOpening } from './state';

/** Onward finishes a step and goes on to the next one in trade order. */
export function Onward({ step, to, walk }: { step: string; to: (s: string) => string; walk: string }) {
	const { view, save } = useOpening();
	const go = useNavigate();
	const [error, attempt] = useAttempt();
	const now = view.plan.steps.find((n) => n.step === step);
	const next = view.plan.steps[view.plan.steps.findIndex((n) => n.step === step) + 1]?.step;
	if (!now) return null;
	const { ready } = now;
	return (
		<div className="mt-5 grid gap-2 no-print">
			<button
				type="button"
				data-onward
				className={`btn btn-primary text-lg h-14 ${ready ? '' : 'opacity-50'}`}
				// Not disabled, so that Enter can reach it before the answer is in.
				aria-disabled={!ready}
				onClick={async () => {
					if (!ready) return;
					await attempt(async () => {
						if (now.state !== 'done') {
							const value = { ...view.opening.done, [step]: now.mark };
							await save(
								[{ op: 'add', path: '/done', value }],
								say('door.step-done', { step: stepName(step) }),
							);
						}
						go(next ? to(next) : walk);
					});
				}}
			>
				{next
					? say('door.step-done-on-to-next', { step: stepName(step), next: stepName(next) })
					: say('door.done-back-to-the-walk')}
			</button>
			{!ready && <p className="opacity-80">{say('door.not-yet-says', { says: now.says })}</p>}
			<Said error={error} />
		</div>
	);
}
