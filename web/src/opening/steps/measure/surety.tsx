import { useContext } from 'react';
import { pick, ShownIn, Sure } from '../../../ui/length';
import { capital, say } from '../../../words/texts';
import { marginName } from '../../../words/trade';
import { useOpening } from '../../state';

/** Surety is how well each margin is known from the readings so far. */
export function Surety() {
	const { view, leaf } = useOpening();
	const unit = useContext(ShownIn);
	if (view.opening.readings.length === 0) return null;
	return (
		<section aria-label={say('measure.how-sure')} className="mb-4">
			<h2 className="text-lg mb-1">{say('measure.how-sure-the-gaps-are')}</h2>
			<div className="grid grid-cols-4 gap-2 text-center">
				{leaf.wanted.map((w) => (
					<div key={w.side} className="border-t-4 border-[var(--rod-edge)] pt-1" data-sure={w.side}>
						{capital(marginName(w.side))}
						<div className="text-xl dim">
							{!leaf.drawing || Number.parseFloat(w.plusMinus.mm) > 20 ? (
								<span className="text-base">{say('page.not-measured-yet')}</span>
							) : pick(w.plusMinus, unit) ? (
								<Sure text={w.plusMinus} />
							) : (
								say('measure.exact')
							)}
						</div>
					</div>
				))}
			</div>
		</section>
	);
}
