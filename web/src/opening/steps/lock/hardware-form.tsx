import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { ask, client, newKey, type Schemas, type Unit } from '../../../api/client';
import { resources } from '../../../api/resources';
import { Disclosure } from '../../../ui/disclosure';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { typed } from '../../kept';
import { Entry } from '../../list';
import { useOpening } from '../../state';

type Hardware = Schemas['Hardware'];
type HoleTyped = { what: string; off: string; up: string; dia: string; from: string; deep: string };

const blank: HoleTyped = { what: '', off: '', up: '', dia: '', from: 'both', deep: '' };

/**
 * HardwareForm takes the job's own hardware from the paper template in its box: each hole's distance off the edge,
 * above or below the latch line, its diameter and its face.
 */
export function HardwareForm() {
	const { view, save } = useOpening();
	const cache = useQueryClient();
	const [error, attempt] = useAttempt();
	const [base, setBase] = useState<Hardware | undefined>();
	const [form, setForm] = useState(empty);
	const { name, kind, backset, holes, edge, plate, strike } = form;
	const to = (part: Partial<typeof form>) => setForm({ ...form, ...part });
	const set = (i: number, part: Partial<HoleTyped>) =>
		to({ holes: holes.map((h, k) => (k === i ? { ...h, ...part } : h)) });
	const chosen = [...(view.job.kit.hardware ?? []), ...trade.hardware].find(
		(d) => d.id === view.opening.lock.hardware,
	);
	const begin = () => {
		if (!chosen) return;
		setBase(chosen);
		setForm(formOf(chosen));
	};
	const keep = () =>
		attempt(async () => {
			const { job } = view;
			const id = `own-${newKey().slice(0, 8)}`;
			const own = ownOf(form, base, id, job.unit);
			await ask(
				client.PATCH('/api/jobs/{job}', {
					params: { path: { job: job.id }, header: { 'If-Match': `"${job.version}"` } },
					body: { kit: { ...job.kit, hardware: [...(job.kit.hardware ?? []), own] } },
				}),
			);
			await save(
				[
					{ op: 'add', path: '/lock/hardware', value: id },
					...(backset ? [{ op: 'add' as const, path: '/lock/backset', value: backset }] : []),
				],
				own.name,
			);
			await cache.invalidateQueries({ queryKey: resources.openings(job.id) });
		});
	return (
		<Disclosure className="mb-4" title={say('lock.hardware-of-your-own-from')} field="hardware-open">
			<form
				className="grid gap-3"
				onSubmit={(e) => {
					e.preventDefault();
					keep();
				}}
			>
				{chosen && (
					<button
						type="button"
						className="btn justify-self-start"
						data-field="hardware-begin"
						onClick={begin}
					>
						{say('lock.start-from-the-chosen', { chosen: chosen.name })}
					</button>
				)}
				<div className="flex flex-wrap gap-2 items-end">
					<Entry label={say('page.called')} value={name} set={(v) => to({ name: v })} field="hardware-name" />
					<label className="grow basis-40">
						<span className="block mb-1">{say('page.kind')}</span>
						<select className="select w-full" value={kind} onChange={(e) => to({ kind: e.target.value })}>
							{trade.hardwareKinds.map((k) => (
								<option key={k.id} value={k.id}>
									{k.name}
								</option>
							))}
						</select>
					</label>
					<Entry
						label={say('lock.backset')}
						value={backset}
						set={(v) => to({ backset: v })}
						field="hardware-backset"
					/>
				</div>
				<p className="text-sm opacity-80">{say('lock.each-hole-distance-from-the')}</p>
				{holes.map((h, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: a hole is its place in the order
					<OneHole key={i} hole={h} i={i} set={(to) => set(i, to)} />
				))}
				<button
					type="button"
					className="btn justify-self-start"
					data-field="hole-more"
					onClick={() => to({ holes: [...holes, blank] })}
				>
					{say('lock.another-hole')}
				</button>
				<Group
					legend={say('lock.in-the-edge')}
					values={edge}
					set={(v) => to({ edge: v })}
					fields={{
						bore: say('lock.bore'),
						long: say('lock.or-slot-long'),
						wide: say('page.wide'),
						deep: say('page.deep'),
						case: say('lock.case-deep'),
					}}
				/>
				<Group
					legend={say('lock.forend')}
					values={plate}
					set={(v) => to({ plate: v })}
					fields={{ long: say('page.long'), wide: say('page.wide'), thick: say('lock.thick') }}
				/>
				<Group
					legend={say('lock.keep')}
					values={strike}
					set={(v) => to({ strike: v })}
					fields={{
						long: say('page.long'),
						wide: say('page.wide'),
						thick: say('lock.thick'),
						bolt: say('lock.hole'),
						deep: say('lock.hole-deep'),
					}}
				/>
				<button type="submit" className="btn btn-primary" data-field="hardware-keep">
					{say('lock.keep-it-for-the-job')}
				</button>
				<Said error={error} />
			</form>
		</Disclosure>
	);
}

/** Group is a few lengths that belong together. */
function Group<T extends Record<string, string>>(p: {
	legend: string;
	values: T;
	set: (to: T) => void;
	fields: Record<keyof T, string>;
}) {
	return (
		<fieldset>
			<legend className="mb-1 font-semibold">{p.legend}</legend>
			<div className="flex flex-wrap gap-2 items-end">
				{Object.entries(p.fields).map(([key, label]) => (
					<Entry
						key={key}
						label={label as string}
						value={p.values[key] ?? ''}
						set={(v) => p.set({ ...p.values, [key]: v })}
						field={`${p.legend.toLowerCase()}-${key}`.replaceAll(' ', '-')}
					/>
				))}
			</div>
		</fieldset>
	);
}

/** Form is hardware as it is typed. */
type Form = typeof empty;

const empty = {
	name: '',
	kind: 'code',
	backset: '',
	holes: [blank],
	edge: { bore: '', long: '', wide: '', deep: '', case: '' },
	plate: { long: '', wide: '', thick: '' },
	strike: { long: '', wide: '', thick: '', bolt: '', deep: '' },
};

/** formOf is hardware of the list as it would be typed, to be changed and kept as the job's own. */
function formOf(chosen: Hardware): Form {
	const t = (v?: number) => (v ? say('page.length-mm', { length: v }) : '');
	const { edge: e, plate: p, strike: s } = chosen;
	return {
		name: say('lock.chosen-changed', { chosen: chosen.name }),
		kind: chosen.kind,
		backset: t(chosen.backsets?.[0]),
		holes: (chosen.holes ?? []).map((h) => ({
			what: h.what,
			off: t(h.off),
			up: t(h.up),
			dia: t(h.dia),
			from: h.from,
			deep: t(h.deep),
		})),
		edge: {
			bore: t(e?.bore),
			long: t(e?.long),
			wide: t(e?.wide),
			deep: t(e?.deep),
			case: t(chosen.case?.deep),
		},
		plate: { long: t(p?.long), wide: t(p?.wide), thick: t(p?.thick) },
		strike: {
			long: t(s?.plate?.long),
			wide: t(s?.plate?.wide),
			thick: t(s?.plate?.thick),
			bolt: t(s?.bolt),
			deep: t(s?.deep),
		},
	};
}

/** ownOf is what was typed. What the form does not ask for is as in the hardware that it began from. */
function ownOf(f: Form, base: Hardware | undefined, id: string, unit: Unit) {
	const l = (t: string) => typed(t, unit);
	return {
		...base,
		id,
		name: f.name.trim(),
		kind: f.kind,
		backsets: f.backset ? [l(f.backset)] : [],
		holes: f.holes
			.filter((h) => h.what || h.dia)
			.map((h) => ({
				what: h.what,
				off: l(h.off),
				up: l(h.up),
				dia: l(h.dia),
				from: h.from,
				deep: l(h.deep),
			})),
		edge: {
			...base?.edge,
			bore: l(f.edge.bore),
			long: l(f.edge.long),
			wide: l(f.edge.wide),
			deep: l(f.edge.deep),
		},
		case: { ...base?.case, deep: l(f.edge.case) },
		plate: { ...base?.plate, long: l(f.plate.long), wide: l(f.plate.wide), thick: l(f.plate.thick) },
		strike: {
			...base?.strike,
			plate: {
				...base?.strike?.plate,
				long: l(f.strike.long),
				wide: l(f.strike.wide),
				thick: l(f.strike.thick),
			},
			bolt: l(f.strike.bolt),
			deep: l(f.strike.deep),
		},
	};
}

/** OneHole is a hole in a face: off the edge, above or below the latch line, its diameter, its face. */
function OneHole({ hole: h, i, set }: { hole: HoleTyped; i: number; set: (to: Partial<HoleTyped>) => void }) {
	return (
		<fieldset className="flex flex-wrap gap-2 items-end border-b border-base-300 pb-2">
			<legend className="sr-only">{say('lock.hole-number', { number: i + 1 })}</legend>
			<Entry
				label={say('lock.number-for', { number: i + 1 })}
				value={h.what}
				set={(v) => set({ what: v })}
				field={`hole-what-${i}`}
			/>
			<Entry label={say('lock.off')} value={h.off} set={(v) => set({ off: v })} field={`hole-off-${i}`} />
			<Entry label={say('lock.up')} value={h.up} set={(v) => set({ up: v })} field={`hole-up-${i}`} />
			<Entry label={say('page.wide')} value={h.dia} set={(v) => set({ dia: v })} field={`hole-dia-${i}`} />
			<label className="grow basis-24">
				<span className="block mb-1">{say('page.from')}</span>
				<select className="select w-full" value={h.from} onChange={(e) => set({ from: e.target.value })}>
					<option value="both">{say('lock.both-faces')}</option>
					<option value="pull">{say('page.pull-face')}</option>
					<option value="push">{say('lock.push-face')}</option>
				</select>
			</label>
			<Entry label={say('page.deep')} value={h.deep} set={(v) => set({ deep: v })} field={`hole-deep-${i}`} />
		</fieldset>
	);
}
