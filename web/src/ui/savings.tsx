import type { Schemas } from '../api/client';
import { say } from '../words/texts';

/** Savings are ways to save minutes at some doors; those that pay first. */
export function Savings({ list }: { list: Schemas['SavingOf'][] }) {
	if (list.length === 0) return null;
	return (
		<section className="my-5" data-saves>
			<h2 className="text-xl border-b-2 border-base-content">{say('page.what-saves-minutes')}</h2>
			<ul>
				{list.map((s) => (
					<li key={s.says} className="border-b border-base-300 py-1" data-saving={s.id}>
						<span className={s.minutes > 0 ? '' : 'opacity-80'}>{s.says}</span>
						<span className="block text-sm opacity-80">{s.openings.join(', ')}</span>
					</li>
				))}
			</ul>
		</section>
	);
}
