import type { Leaf } from '../api/client';
import { say } from '../words/texts';
import { marginName } from '../words/trade';
import { Daylight } from './drawing';
import { PairDaylight } from './pair';
import { openReadings, useChosen } from './steps/measure/open';
import { Sketch } from './steps/measure/sketch';
import { type Drawn, stepOf } from './steps/table';
import { asFound } from './steps/try/drawing';

type Props = Drawn & { step: string; setTimes: (n: number) => void };

/** OpeningFigure draws a step: its own drawing, otherwise the opening. */
export function OpeningFigure({ step: id, setTimes, ...d }: Props) {
	const step = stepOf(id);
	const own = step.drawing?.(d) || null;
	const paper = own !== null && step.caption !== undefined;
	return (
		<figure
			className={`drawn relative overflow-hidden shrink-0 lg:grow lg:shrink lg:basis-0 lg:min-w-0 lg:h-auto ${paper ? 'flex flex-col' : 'no-print'} ${step.tall ?? 'h-[36dvh]'}`}
			style={{ background: paper ? undefined : 'var(--shade)' }}
		>
			{paper ? (
				<div className="relative grow min-h-0">{own}</div>
			) : (
				(own ?? <Opening {...d} shows={step.shows} />)
			)}
			{d.leaf.drawing && (own === null || step.slider) && (
				<label className="absolute left-3 top-1 flex max-lg:flex-col lg:items-center lg:gap-2 text-sm text-[var(--on-shade)]">
					{say('door.gaps-times', { times: d.times })}
					<input
						type="range"
						min={1}
						max={40}
						value={d.times}
						className="w-20 lg:w-32 h-11 accent-[var(--light)]"
						aria-label={say('door.how-many-times-the-gaps')}
						onChange={(e) => setTimes(Number(e.target.value))}
					/>
				</label>
			)}
			{paper && step.caption && (
				<figcaption className="shrink-0 pb-1 px-2 text-center text-sm">{say(step.caption)}</figcaption>
			)}
		</figure>
	);
}

/** Opening draws the opening with its slab in daylight, or where to read first. */
function Opening({
	view: v,
	leaf,
	which,
	hand,
	times,
	pick,
	ask,
	go,
	shows,
}: Drawn & { shows?: 'places' | 'found' }) {
	const open = openReadings(v);
	const chosen = useChosen(open);
	if (!leaf.drawing) return <Sketch next={chosen ?? v.plan.toRead[0]} hand={hand} />;
	const { leaves } = v.plan;
	const askLight = (m: Leaf['light'][number]) =>
		ask(m.figure, say('page.margin-margin-where', { margin: marginName(m.side), where: m.where }));
	const asked = chosen
		? [...v.plan.places.filter((p) => !p.next), { ...chosen, id: '', clash: false, next: true }]
		: v.plan.places;
	const places = shows === 'places' ? asked : undefined;
	const shared = { times, go, ask: askLight, places };
	if (leaves.length === 2 && leaves.every((l) => l.drawing))
		return (
			<PairDaylight
				{...shared}
				leaves={shows === 'found' ? leaves.map(asFound) : leaves}
				which={which}
				pick={pick}
				hand={v.opening.hand}
				label={say('door.opening-both-leaves-in-the', { opening: v.opening.name })}
			/>
		);
	return (
		<Daylight
			{...shared}
			drawing={leaf.drawing}
			hand={hand}
			margins={leaf.light}
			detail
			open={open}
			label={say('door.opening-the-slab-in-its', { opening: v.opening.name })}
			className="w-full h-full"
		/>
	);
}
