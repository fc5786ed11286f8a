import { useState } from 'react';
import type { Leaf, Plan } from '../../../api/client';
import { say } from '../../../words/texts';
import { Daylight } from '../../drawing';
import { useOpening } from '../../state';

/** asFound is a leaf of a pair with its margins as found; each leaf has half of the gap between them. */
export function asFound(l: Leaf): Leaf {
	if (!l.try || l.try.found.length === 0 || !l.drawing) return l;
	const light = l.try.found.map((s) =>
		s.side === 'lock'
			? { ...s, wanted: s.wanted / 2, gaps: s.gaps.map((g) => ({ ...g, mean: g.mean / 2 })) }
			: s,
	);
	return { ...l, drawing: { ...l.drawing, light, hollow: [] }, light: l.try.margins };
}

/** TryView is the hung slab in daylight: as predicted, as found, and as it will be. */
export function TryView({
	leaf,
	hand,
	times,
	name,
	told,
}: {
	leaf: Leaf;
	hand: string;
	times: number;
	name: string;
	/** Only found gaps are labelled. */
	told?: boolean;
}) {
	const { view, which } = useOpening();
	const t = leaf.try;
	const [on, setOn] = useState<'was' | 'found' | 'after'>('found');
	if (!t || !leaf.drawing) return null;
	const hangs = view.opening.tried?.[which - 1]?.hangs ?? [];
	const way = t.ways[Math.min(hangs.at(-1)?.way ?? 0, t.ways.length - 1)];
	const all = {
		was: { text: say('page.predicted'), light: t.foretold, margins: undefined },
		found: { text: say('page.found'), light: t.found, margins: t.margins },
		after: { text: say('try.once-done'), light: way?.foretold ?? [], margins: way?.margins },
	};
	const shown = on === 'after' && !way ? 'found' : on;
	const next = told ? undefined : t.toRead[0];
	const gaps = t.hangs.at(-1)?.gaps ?? [];
	const places: Plan['places'] = [
		...gaps
			.filter((g) => !g.struck)
			.map((g) => ({
				id: g.id,
				kind: 'gap' as const,
				side: g.side,
				at: g.at,
				from: 0,
				to: 0,
				clash: g.clash,
				next: false,
			})),
		...(next && shown === 'found'
			? [
					{
						id: '',
						kind: 'gap' as const,
						side: next.side,
						at: next.at,
						from: 0,
						to: 0,
						clash: false,
						next: true,
					},
				]
			: []),
	];
	return (
		<>
			<Daylight
				drawing={{ ...leaf.drawing, light: all[shown].light, hollow: [] }}
				hand={hand}
				times={times}
				margins={all[shown].margins}
				detail
				places={places}
				label={say('try.name-text-the-gaps-drawn', { name, text: all[shown].text.toLowerCase() })}
				className="w-full h-full"
			/>
			{!told && (
				<fieldset
					className="absolute max-lg:right-1 max-lg:bottom-1 lg:left-2 lg:top-48 join lg:join-vertical no-print"
					aria-label={say('try.which-gaps-are-drawn')}
				>
					{(['was', 'found', 'after'] as const).map((k) => (
						<button
							key={k}
							type="button"
							className={`btn btn-sm min-h-11 join-item ${shown === k ? 'btn-neutral' : ''}`}
							aria-pressed={shown === k}
							aria-disabled={k === 'after' && !way}
							data-light={k}
							onClick={() => setOn(k)}
						>
							{all[k].text}
						</button>
					))}
				</fieldset>
			)}
		</>
	);
}
