import { useState } from 'react';
import type { Schemas, Unit } from '../api/client';
import { Disclosure } from '../ui/disclosure';
import { pick } from '../ui/length';
import { Cautions } from '../ui/says';
import { Tape } from '../ui/tape';
import { say } from '../words/texts';
import { marginName, trade } from '../words/trade';
import { withUnit } from './geometry';
import { type Doing, Readings } from './read';

type Played = Schemas['Played'];

/** Choose is the choice of margins, slab, edge and cut. */
export function Choose({
	played: v,
	move,
	back,
	unit,
}: Doing & { played: Played; back: () => void; unit: Unit }) {
	const [cut, setCut] = useState({ head: '', foot: '', length: '', headUp: '0', footUp: '0' });
	const radio = (
		name: string,
		now: string,
		list: { id: string; text: string; note?: string }[],
		on: (id: string) => void,
	) => (
		<fieldset className="mb-3">
			<legend className="text-lg">{name}</legend>
			{list.map((o) => (
				<label key={o.id} className="flex items-center gap-3 min-h-11 cursor-pointer">
					<input
						type="radio"
						className="radio radio-primary"
						name={name}
						checked={now === o.id}
						onChange={() => on(o.id)}
						data-choose={`${name} ${o.id}`}
					/>
					<span>
						{o.text}
						{o.note && <span className="block text-sm opacity-75">{o.note}</span>}
					</span>
				</label>
			))}
		</fieldset>
	);
	const field = (id: keyof typeof cut, label: string) => (
		<Tape
			id={`cut-${id}`}
			label={label}
			value={cut[id]}
			unit={unit}
			onChange={(t) => setCut({ ...cut, [id]: t })}
			onEnter={() => undefined}
		/>
	);
	const length = (t: string) => withUnit(t, unit) as unknown as number;
	return (
		<>
			<Disclosure className="mb-2" title={say('practising.what-was-read')}>
				<Readings played={v} />
				<button type="button" className="btn mt-2" onClick={back}>
					{say('practising.read-more')}
				</button>
			</Disclosure>
			<p className="mb-2 text-lg">
				{say(v.bored ? 'practising.to-be-painted-bored' : 'practising.to-be-painted')}
			</p>
			<div className="grid sm:grid-cols-2 gap-x-6">
				{radio(
					say('practising.margins'),
					v.school,
					trade.schools.map((s) => ({
						id: s.id,
						text: s.name,
						note: s.margins
							.map((m) => `${marginName(m.side)} ${pick(m.text, unit) || say('page.by-the-hinge')}`)
							.join(', '),
					})),
					(school) => move({ do: 'margins', school }),
				)}
				<div>
					{radio(
						say('page.slab'),
						String(v.slab),
						v.slabs.map((s, i) => ({ id: String(i), text: pick(s, unit) })),
						(id) => move({ do: 'slab', slab: Number(id) }),
					)}
					{radio(
						say('practising.width-comes-off'),
						v.edge,
						[
							{ id: 'keep-lock', text: say('practising.the-hinge-edge') },
							{ id: 'keep-hinge', text: say('practising.the-lock-edge') },
							{ id: 'even-stiles', text: say('practising.both-the-same') },
						],
						(edge) => move({ do: 'edge', edge }),
					)}
				</div>
			</div>
			<fieldset className="grid sm:grid-cols-3 gap-x-3 gap-y-2">
				<legend className="text-lg">{say('practising.cut-it-to')}</legend>
				{field('head', say('slab.width-at-the-top'))}
				{field('foot', say('slab.width-at-the-bottom'))}
				{field('length', say('practising.length-hinge-edge'))}
				{field('headUp', say('practising.top-higher-at-the-lock'))}
				{field('footUp', say('practising.bottom-higher-at-the-lock'))}
			</fieldset>
			<div className="grid sm:grid-cols-2 gap-2 mt-3">
				<button
					type="button"
					className="btn btn-primary h-14 text-lg"
					onClick={() =>
						move({
							do: 'cut',
							cut: {
								head: length(cut.head),
								foot: length(cut.foot),
								length: length(cut.length),
								headUp: length(cut.headUp || '0'),
								footUp: length(cut.footUp || '0'),
							},
						})
					}
					data-cut-own
				>
					{say('practising.cut-it-and-hang-it')}
				</button>
				<button
					type="button"
					className="btn h-14 text-lg"
					onClick={() => move({ do: 'cut', plan: true })}
					data-cut-plan
				>
					{say('practising.cut-as-the-plan-says')}
				</button>
			</div>
			<Cautions step="cut" />
		</>
	);
}
