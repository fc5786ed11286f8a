import { useState } from 'react';
import type { Schemas, Unit } from '../api';
import { pick } from '../length';
import { Cautions } from '../says';
import { Tape } from '../tape';
import { trade } from '../trade';
import { withUnit } from './geometry';
import { type Doing, Readings } from './read';

type Played = Schemas['Played'];

/** Choose is margins, slab, edge and cut. */
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
			<details className="mb-2">
				<summary className="min-h-11 flex items-center cursor-pointer underline">What was read</summary>
				<Readings played={v} />
				<button type="button" className="btn mt-2" onClick={back}>
					Read more
				</button>
			</details>
			<p className="mb-2 text-lg">
				The slab is still to be painted{v.bored ? '; all of these are bored on their lock edge' : ''}.
			</p>
			<div className="grid sm:grid-cols-2 gap-x-6">
				{radio(
					'Margins',
					v.school,
					trade.schools.map((s) => ({
						id: s.id,
						text: s.name,
						note: s.margins.map((m) => `${m.side} ${pick(m.text, unit) || 'by the hinge'}`).join(', '),
					})),
					(school) => move({ do: 'margins', school }),
				)}
				<div>
					{radio(
						'Slab',
						String(v.slab),
						v.slabs.map((s, i) => ({ id: String(i), text: pick(s, unit) })),
						(id) => move({ do: 'slab', slab: Number(id) }),
					)}
					{radio(
						'Width comes off',
						v.edge,
						[
							{ id: 'keep-lock', text: 'the hinge edge' },
							{ id: 'keep-hinge', text: 'the lock edge' },
							{ id: 'even-stiles', text: 'both alike' },
						],
						(edge) => move({ do: 'edge', edge }),
					)}
				</div>
			</div>
			<fieldset className="grid sm:grid-cols-3 gap-x-3 gap-y-2">
				<legend className="text-lg">Cut it to</legend>
				{field('head', 'Width at the head')}
				{field('foot', 'Width at the foot')}
				{field('length', 'Length, hinge edge')}
				{field('headUp', 'Head higher at the lock by')}
				{field('footUp', 'Foot higher at the lock by')}
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
					Cut it so, and hang it
				</button>
				<button
					type="button"
					className="btn h-14 text-lg"
					onClick={() => move({ do: 'cut', plan: true })}
					data-cut-plan
				>
					Take the plan's cut
				</button>
			</div>
			<Cautions step="cut" />
		</>
	);
}
