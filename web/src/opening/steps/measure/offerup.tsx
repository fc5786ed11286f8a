import { Said, useAttempt } from '../../../api/attempt';
import { say } from '../../../words/texts';
import { useOpening } from '../../state';

/** OfferUp proposes that the slab itself is stood against the opening, where that is sooner done than reading on. */
export function OfferUp() {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const { slab, offers } = view.opening;
	const name = say('measure.the-slab');
	if (!view.plan.offerUp) return null;
	if (!slab.width || !slab.length)
		return (
			<p className="mb-3" data-offer-later>
				{view.plan.offerUp}
			</p>
		);
	const stand = () =>
		attempt(async () => {
			const offer = { id: `o${(offers?.length ?? 0) + 1}`, name, width: slab.width, length: slab.length };
			await save(
				[
					{ op: 'add', path: '/measuring', value: 'offered' },
					offers?.length
						? { op: 'add', path: '/offers/-', value: offer }
						: { op: 'add', path: '/offers', value: [offer] },
				],
				say('measure.stood-up-name', { name }),
			);
		});
	return (
		<section
			aria-label={say('measure.offer-it-up')}
			className="border-2 border-[var(--rod-edge)] p-3 mb-4"
			data-offer-up
		>
			<h2 className="text-xl mb-1">{say('measure.offer-it-up')}</h2>
			<p>{view.plan.offerUp}</p>
			<p className="mb-2">{say('measure.offer-it-up-how')}</p>
			<button type="button" className="btn btn-primary text-lg h-14 w-full" data-it-stands onClick={stand}>
				{say('measure.it-stands-there')}
			</button>
			<Said error={error} />
		</section>
	);
}
