import { useContext } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import type { Leaf } from '../../../api/client';
import { Checkbox } from '../../../ui/checkbox';
import { Len, pick, Row, ShownIn, Why } from '../../../ui/length';
import { useLegible } from '../../../ui/unit';
import { bars } from '../../../ui/year';
import { say, type TextId } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { Choose, LengthField, PickField } from '../../field';
import { useOpening } from '../../state';
import { AirEntry } from './air';

const months = Array.from({ length: 12 }, (_, i) =>
	new Date(2000, i).toLocaleString('en', { month: 'long' }),
);

/** Season is the wood's movement through the year, and the lock margin for it today. */
export function Season() {
	const { view, leaf, save } = useOpening();
	const [error, attempt] = useAttempt();
	const s = leaf.season;
	const chosen = view.opening.season ?? {};
	const blank = (text: string, list: { id: string; name: string }[]) => [
		{ value: '', text },
		...list.filter((c) => c.id).map((c) => ({ value: c.id, text: c.name })),
	];
	return (
		<section className="mb-5" aria-label={say('season.seasons')} data-seasons>
			<h2 className="text-lg">{say('season.seasons')}</h2>
			{s && <YearOf season={s} />}
			<details open={chosen.climate && !s ? true : undefined} className="mt-2">
				<summary className="min-h-11 flex items-center cursor-pointer underline" data-season-choices>
					{chosen.climate ? say('season.the-house-the-wood-and') : say('season.does-the-wood-move-say')}
				</summary>
				<div className="grid sm:grid-cols-2 gap-x-3">
					<PickField
						pointer="/season/climate"
						label={say('season.the-air-indoors-through-the')}
						options={blank(say('season.seasons-left-out'), trade.climates)}
						note={trade.climates.find((c) => c.id === chosen.climate)?.why}
						also={
							chosen.month ? [] : [{ op: 'add', path: '/season/month', value: new Date().getMonth() + 1 }]
						}
					/>
					<PickField
						pointer="/season/wood"
						label={say('season.wood')}
						options={blank(say('season.as-a-softwood'), trade.woods)}
						note={trade.woods.find((c) => c.id === chosen.wood)?.why}
					/>
					<PickField
						pointer="/season/sawn"
						label={say('season.boards')}
						options={blank(trade.sawns[0]?.name ?? '', trade.sawns)}
						note={trade.sawns.find((c) => c.id === (chosen.sawn ?? ''))?.why}
					/>
					<LengthField
						pointer="/season/across"
						label={say('season.timber-across-the-grain')}
						optional
						placeholder={say('season.by-the-construction')}
						note={say('season.what-really-moves-planks-or')}
					/>
					<LengthField
						pointer="/season/moisture"
						label={say('page.moisture-meter-on-the-slab')}
						sign="%"
						optional
						note={say('season.counts-before-the-air')}
					/>
					<PickField
						pointer="/season/month"
						label={say('season.month-now')}
						options={months.map((text, i) => ({ value: i + 1, text }))}
						note={say('season.where-neither-was-read')}
					/>
					<AirEntry pointer="/season/air" label={say('season.air-that-the-slab-lies')} />
					<LengthField
						pointer="/season/widest"
						label={say('season.widest-gap-that-looks-right')}
						optional
						placeholder="6"
					/>
					<Checkbox
						className="items-center self-end"
						data-field="/season/sealed"
						checked={!!chosen.sealed}
						onChange={(e) =>
							attempt(() =>
								save(
									[{ op: 'add', path: '/season/sealed', value: e.target.checked }],
									e.target.checked ? say('season.sealed-all-round') : say('season.not-sealed'),
								),
							)
						}
					>
						{say('season.all-six-sides-are-sealed')}
					</Checkbox>
					<div className="sm:col-span-2">
						<Choose
							pointer="/season/school"
							label={say('page.predicted')}
							unset=""
							options={trade.seasonSchools.map((c) => ({
								value: c.id,
								text: c.name,
								note: c.why,
								remove: !c.id,
							}))}
						/>
					</div>
				</div>
				<Said error={error} />
			</details>
		</section>
	);
}

const from: Record<string, TextId> = {
	meter: 'season.holds-by-meter',
	air: 'season.holds-by-air',
	climate: 'season.holds-by-climate',
};

/** YearOf is the gap at the lock edge through the year, if the slab is hung today. */
function YearOf({ season: s }: { season: NonNullable<Leaf['season']> }) {
	const unit = useContext(ShownIn);
	const { view } = useOpening();
	const lie = s.lie > 0 && (
		<Row label={say('season.let-it-lie-in-the')} note={say('season.flat-on-battens-air-all')}>
			<span data-lie={s.lie}>{say('season.count-days', { count: s.lie })}</span>
		</Row>
	);
	const text = useLegible();
	const high = 96;
	const list = bars(
		s.months.map((m) => m.light.mm),
		high,
	);
	const thumb = (view.opening.season?.school ?? '') === 'thumb';
	return (
		<>
			<Row
				label={say('season.set-at-the-lock-edge')}
				note={say(from[s.from] ?? 'season.holds', { moisture: s.now })}
			>
				<Why figure={s.today} title={say('season.lock-margin-to-set-today')} id="season-today" />
			</Row>
			<Row
				label={say('season.tightest-in-tight', { tight: s.tight.name })}
				note={`${s.tight.air}: ${s.tight.moisture}`}
			>
				<span data-tight={s.tight.name} data-mm={s.tight.light.mm}>
					<Why figure={s.tightest} title={say('season.lock-margin-in-tight', { tight: s.tight.name })} />
				</span>
			</Row>
			{s.jambs && (
				<Row label={say('season.of-that-both-jambs')} note={say('season.the-slab-is-the-rest')}>
					<span data-jambs={s.jambs.mm}>
						<Len text={s.jambs.text} />
					</span>
				</Row>
			)}
			<Row
				label={say('season.widest-in-wide', { wide: s.wide.name })}
				note={`${s.wide.air}: ${s.wide.moisture}`}
			>
				<span data-wide={s.wide.name} data-mm={s.wide.light.mm}>
					<Why figure={s.widest} title={say('season.lock-margin-in-wide', { wide: s.wide.name })} />
				</span>
			</Row>
			<Row
				label={thumb ? say('season.by-the-woods-moisture-it') : say('season.the-rule-of-thumb-would')}
				note={thumb ? undefined : say('season.0-1-of-the-width')}
			>
				<span data-other={pick(s.other, unit)}>
					<Len text={s.other} />
				</span>
			</Row>
			{lie}
			<svg
				ref={text.ref}
				viewBox={`0 0 360 ${high + 26}`}
				className="w-full mt-3"
				role="img"
				aria-label={say('season.light-by-month', {
					light: s.months.map((m) => `${m.name} ${pick(m.light.text, unit)}`).join(', '),
					unit,
				})}
				data-year
			>
				<rect width={360} height={high + 26} fill="var(--shade)" />
				{s.months.map((m, i) => (
					<g key={m.name} transform={`translate(${i * 30} 0)`}>
						<rect x={0} y={0} width={30} height={high - (list[i] ?? 0)} fill="var(--board)" />
						<rect x={0} y={high - (list[i] ?? 0)} width={30} height={list[i] ?? 0} fill="var(--light)" />
						<text x={15} y={high + 18} textAnchor="middle" fontSize={text.label(13)} fill="var(--on-shade)">
							{m.name.slice(0, 1)}
						</text>
						{(m.name === s.tight.name || m.name === s.wide.name) && (
							<text
								x={15}
								y={high - (list[i] ?? 0) - 6}
								textAnchor="middle"
								fontSize={text.figure(14)}
								fill="var(--board-ink)"
								className="dim"
							>
								{pick(m.light.text, unit)}
							</text>
						)}
					</g>
				))}
			</svg>
			<p className="text-sm opacity-80 mt-1">
				{say('season.what-moves-why-sources', { why: s.why, sources: s.sources.join('; ') })}
			</p>
		</>
	);
}
