import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { ask, client, newKey, type Schemas } from '../../../api/client';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { typed } from '../../kept';
import { Entry } from '../../list';
import { useDoor } from '../../state';

type Device = Schemas['Device'];
type HoleTyped = { what: string; off: string; up: string; dia: string; from: string; deep: string };

const blank: HoleTyped = { what: '', off: '', up: '', dia: '', from: 'both', deep: '' };

/** DeviceForm takes a device of one's own from the paper pattern in its box: each hole off the edge, above or below the latch line, how wide, from which face. */
export function DeviceForm() {
	const { view, save } = useDoor();
	const cache = useQueryClient();
	const [error, attempt] = useAttempt();
	// What the form does not ask for stays as it was in the device that was begun from.
	const [base, setBase] = useState<Device | undefined>();
	const [name, setName] = useState('');
	const [kind, setKind] = useState('code');
	const [backset, setBackset] = useState('');
	const [holes, setHoles] = useState<HoleTyped[]>([blank]);
	const [edge, setEdge] = useState({ bore: '', long: '', wide: '', deep: '', case: '' });
	const [plate, setPlate] = useState({ long: '', wide: '', thick: '' });
	const [strike, setStrike] = useState({ long: '', wide: '', thick: '', bolt: '', deep: '' });
	/** begin fills the form from the device that is chosen, to be changed and kept as one's own. */
	const chosen = [...(view.job.kit.devices ?? []), ...trade.devices].find(
		(d) => d.id === view.opening.lock.device,
	);
	const begin = () => {
		if (!chosen) return;
		const t = (v?: number) => (v ? say('page.length-mm', { length: v }) : '');
		setBase(chosen);
		setName(say('lock.chosen-changed', { chosen: chosen.name }));
		setKind(chosen.kind);
		setBackset(t(chosen.backsets?.[0]));
		setHoles(
			(chosen.holes ?? []).map((h) => ({
				what: h.what,
				off: t(h.off),
				up: t(h.up),
				dia: t(h.dia),
				from: h.from,
				deep: t(h.deep),
			})),
		);
		const { edge: e, plate: p, strike: s } = chosen;
		setEdge({
			bore: t(e?.bore),
			long: t(e?.long),
			wide: t(e?.wide),
			deep: t(e?.deep),
			case: t(chosen.case?.deep),
		});
		setPlate({ long: t(p?.long), wide: t(p?.wide), thick: t(p?.thick) });
		setStrike({
			long: t(s?.plate?.long),
			wide: t(s?.plate?.wide),
			thick: t(s?.plate?.thick),
			bolt: t(s?.bolt),
			deep: t(s?.deep),
		});
	};
	const set = (i: number, to: Partial<HoleTyped>) =>
		setHoles(holes.map((h, k) => (k === i ? { ...h, ...to } : h)));
	const keep = () =>
		attempt(async () => {
			const { job } = view;
			const l = (t: string) => typed(t, job.unit);
			const id = `own-${newKey().slice(0, 8)}`;
			const own = {
				...base,
				id,
				name: name.trim(),
				kind,
				backsets: backset ? [l(backset)] : [],
				holes: holes
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
					bore: l(edge.bore),
					long: l(edge.long),
					wide: l(edge.wide),
					deep: l(edge.deep),
				},
				case: { ...base?.case, deep: l(edge.case) },
				plate: { ...base?.plate, long: l(plate.long), wide: l(plate.wide), thick: l(plate.thick) },
				strike: {
					...base?.strike,
					plate: {
						...base?.strike?.plate,
						long: l(strike.long),
						wide: l(strike.wide),
						thick: l(strike.thick),
					},
					bolt: l(strike.bolt),
					deep: l(strike.deep),
				},
			};
			await ask(
				client.PATCH('/api/jobs/{job}', {
					params: { path: { job: job.id }, header: { 'If-Match': `"${job.version}"` } },
					body: { kit: { ...job.kit, devices: [...(job.kit.devices ?? []), own] } },
				}),
			);
			await save(
				[
					{ op: 'add', path: '/lock/device', value: id },
					...(backset ? [{ op: 'add' as const, path: '/lock/backset', value: backset }] : []),
				],
				own.name,
			);
			await cache.invalidateQueries({ queryKey: ['opening', job.id] });
		});
	return (
		<details className="mb-4">
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="device-open">
				{say('lock.hardware-of-your-own-from')}
			</summary>
			<form
				className="grid gap-3"
				onSubmit={(e) => {
					e.preventDefault();
					keep();
				}}
			>
				{chosen && (
					<button type="button" className="btn justify-self-start" data-field="device-begin" onClick={begin}>
						{say('lock.start-from-the-chosen', { chosen: chosen.name })}
					</button>
				)}
				<div className="flex flex-wrap gap-2 items-end">
					<Entry label={say('page.called')} value={name} set={setName} field="device-name" />
					<label className="grow basis-40">
						<span className="block mb-1">{say('page.kind')}</span>
						<select className="select w-full" value={kind} onChange={(e) => setKind(e.target.value)}>
							{trade.deviceKinds.map((k) => (
								<option key={k.id} value={k.id}>
									{k.name}
								</option>
							))}
						</select>
					</label>
					<Entry label={say('lock.backset')} value={backset} set={setBackset} field="device-backset" />
				</div>
				<p className="text-sm opacity-80">{say('lock.each-hole-distance-from-the')}</p>
				{holes.map((h, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: a hole is its place in the order
					<fieldset key={i} className="flex flex-wrap gap-2 items-end border-b border-base-300 pb-2">
						<legend className="sr-only">{say('lock.hole-number', { number: i + 1 })}</legend>
						<Entry
							label={say('lock.number-for', { number: i + 1 })}
							value={h.what}
							set={(v) => set(i, { what: v })}
							field={`hole-what-${i}`}
						/>
						<Entry
							label={say('lock.off')}
							value={h.off}
							set={(v) => set(i, { off: v })}
							field={`hole-off-${i}`}
						/>
						<Entry
							label={say('lock.up')}
							value={h.up}
							set={(v) => set(i, { up: v })}
							field={`hole-up-${i}`}
						/>
						<Entry
							label={say('page.wide')}
							value={h.dia}
							set={(v) => set(i, { dia: v })}
							field={`hole-dia-${i}`}
						/>
						<label className="grow basis-24">
							<span className="block mb-1">{say('page.from')}</span>
							<select
								className="select w-full"
								value={h.from}
								onChange={(e) => set(i, { from: e.target.value })}
							>
								<option value="both">{say('lock.both-faces')}</option>
								<option value="pull">{say('page.pull-face')}</option>
								<option value="push">{say('lock.push-face')}</option>
							</select>
						</label>
						<Entry
							label={say('page.deep')}
							value={h.deep}
							set={(v) => set(i, { deep: v })}
							field={`hole-deep-${i}`}
						/>
					</fieldset>
				))}
				<button
					type="button"
					className="btn justify-self-start"
					data-field="hole-more"
					onClick={() => setHoles([...holes, blank])}
				>
					{say('lock.another-hole')}
				</button>
				<Group
					legend={say('lock.in-the-edge')}
					values={edge}
					set={setEdge}
					fields={{
						bore: say('lock.bore'),
						long: say('lock.or-slot-long'),
						wide: 'wide',
						deep: say('page.deep'),
						case: say('lock.case-deep'),
					}}
				/>
				<Group
					legend={say('lock.forend')}
					values={plate}
					set={setPlate}
					fields={{ long: say('page.long'), wide: say('page.wide'), thick: say('lock.thick') }}
				/>
				<Group
					legend={say('lock.keep')}
					values={strike}
					set={setStrike}
					fields={{
						long: say('page.long'),
						wide: say('page.wide'),
						thick: say('lock.thick'),
						bolt: say('lock.hole'),
						deep: say('lock.hole-deep'),
					}}
				/>
				<button type="submit" className="btn btn-primary" data-field="device-keep">
					{say('lock.keep-it-for-the-job')}
				</button>
				<Said error={error} />
			</form>
		</details>
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
