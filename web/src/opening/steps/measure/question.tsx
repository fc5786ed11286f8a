import { Phrase } from '../../../words/phrase';
import { capital, say } from '../../../words/texts';
import { readingID } from '../../reading-id';
import { useOpening } from '../../state';
import { HowTo } from './howto';
import { type Open, readingOf } from './open';
import { TakeReading } from './take';

/** Question asks for one reading: what it brings, where, with what, how, and its entry. */
export function Question({
	r,
	overtaken,
	typing,
}: {
	r: Open;
	/** Someone else read it meanwhile. */
	overtaken: boolean;
	/** Called when there is a draft, or no longer. */
	typing: (yes: boolean) => void;
}) {
	const { view } = useOpening();
	const first = !view.opening.readings.some((x) => x.kind === r.kind && !!x.turned === r.turned);
	return (
		<>
			<div data-question>
				<p className="opacity-80">
					{r.brings ? say('measure.next-reading-brings', { brings: r.brings }) : say('measure.next-reading')}
				</p>
				<h2 className="text-xl mb-1" data-next={readingID(r)}>
					{capital(r.name)}
				</h2>
				{r.with && (
					<p className="mb-1" data-with={r.with}>
						<Phrase id="measure.with" of={{ tool: <strong className="font-semibold">{r.with}</strong> }} />
					</p>
				)}
				<TakeReading key={r.name} name={r.name} how={r.how} typing={typing} reading={readingOf(r)} />
			</div>
			{/* Under the entry: on a small phone that must stand above the keypad with what is asked. */}
			<HowTo r={r} first={first} />
			{overtaken && (
				<p role="status" className="mt-1 border-l-4 border-info pl-3" data-overtaken>
					{say('measure.someone-else-has-read-this')}
				</p>
			)}
		</>
	);
}
