import { useNavigate } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { say } from '../words/texts';
import { stepName } from '../words/trade';
import { useDoor } from './state';
import { steps } from './steps/strip';

/** Onward finishes a step and goes on to the next one in trade order. */
export function Onward({ step, to, walk }: { step: string; to: (s: string) => string; walk: string }) {
	const { view, save } = useDoor();
	const go = useNavigate();
	const [error, attempt] = useAttempt();
	const notch = view.plan.rod.find((n) => n.step === step);
	const next = steps[steps.indexOf(step) + 1];
	if (!notch) return null;
	const { ready } = notch;
	return (
		<div className="mt-5 grid gap-2 no-print">
			<button
				type="button"
				data-onward
				className={`btn btn-primary text-lg h-14 ${ready ? '' : 'opacity-50'}`}
				// Not disabled, so that Enter can lead to it before the answer is in.
				aria-disabled={!ready}
				onClick={async () => {
					if (!ready) return;
					await attempt(async () => {
						if (notch.state !== 'done') {
							const value = { ...view.opening.done, [step]: notch.mark };
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
			{!ready && <p className="opacity-80">{say('door.not-yet-says', { says: notch.says })}</p>}
			<Said error={error} />
		</div>
	);
}
