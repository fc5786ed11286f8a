import type { Schemas } from '../api/client';
import { Len } from '../ui/length';
import { say } from '../words/texts';
import { asks } from './geometry';

type Move = Schemas['Move'];
type Played = Schemas['Played'];

export type Doing = { move: (m: Move) => Promise<boolean> };

/** Read is the possible readings, each with its button. */
export function Read({ played: v, move, enough }: Doing & { played: Played; enough: () => void }) {
	return (
		<>
			<p className="mb-2">{say('practising.say-what-to-read-and')}</p>
			<div className="grid sm:grid-cols-2 gap-2 mb-4">
				{asks.map((a) => (
					<button
						key={a.id}
						type="button"
						className="btn justify-start h-12"
						onClick={() => move({ do: 'read', reading: a.reading as unknown as Move['reading'] })}
						data-ask={a.id}
					>
						{a.name}
					</button>
				))}
			</div>
			<Readings played={v} />
			<button
				type="button"
				className="btn btn-primary w-full h-14 text-lg mt-3"
				onClick={enough}
				data-enough-read
			>
				{say('practising.enough-choose-and-cut')}
			</button>
		</>
	);
}

export function Readings({ played: v }: { played: Played }) {
	const last = v.readings.length;
	return (
		<ol className="max-h-72 overflow-y-auto" data-readings={last}>
			{[...v.readings].reverse().map((r, i) => (
				<li
					// biome-ignore lint/suspicious/noArrayIndexKey: a reading is known by its number
					key={last - i}
					className="border-b border-base-300 py-1 flex gap-3 items-baseline"
					data-struck={r.struck || undefined}
				>
					<span className="opacity-75 w-8">{last - i}.</span>
					<span className={`grow ${r.struck ? 'line-through' : ''}`}>
						{r.name}
						{r.struck && <span className="sr-only">: {say('practising.struck')}</span>}
					</span>
					<span className={`text-2xl dim ${r.struck ? 'line-through opacity-70' : ''}`}>
						<Len text={r.text} />
					</span>
				</li>
			))}
		</ol>
	);
}
