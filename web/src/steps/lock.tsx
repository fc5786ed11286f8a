import { useState } from 'react';
import { Said, useAttempt } from '../attempt';
import { Avoids } from '../avoids';
import { DeviceForm } from '../device-form';
import { useDoor } from '../door-state';
import { Choose, LengthField } from '../field';
import { Len, Row, Why } from '../length';
import { Entry, TakeOut, useList } from '../list';
import { Sheets } from '../sheets';
import { trade } from '../trade';

/** LockStep marks latch and strike, and what is bored for them. */
export function LockStep() {
	const { view, leaf, slab } = useDoor();
	const l = leaf.latch;
	const lock = view.opening.lock;
	const bolted = leaf.findings.some((f) => f.code === 'bolted-leaf');
	return (
		<>
			{l ? (
				<section className="mb-5">
					<Row label="Latch on the slab" note="down its lock edge, from the finished top">
						<Why figure={l.slab} title="Latch on the slab" id="latch-slab" bare />
					</Row>
					<Row label="Strike in the jamb" note="centre, down from the head">
						<Why figure={l.jamb} title="Strike in the jamb" id="latch-jamb" bare />
					</Row>
					<Row label="Backset" note="finished lock edge to the spindle">
						<Why figure={l.backset} title="Backset" id="latch-backset" />
					</Row>
					<Row label="Handle above the floor">
						<Why figure={l.floor} title="Handle above the floor" id="latch-floor" />
					</Row>
					{leaf.devices.length === 0 && (
						<>
							<Row label="Latch bore" note="centre, from either face">
								<Why figure={l.centre} title="Latch bore" id="latch-centre" />
							</Row>
							<Row label="Wall beside the bore" note="each side">
								<Why figure={l.wall} title="Wall beside the bore" id="latch-wall" />
							</Row>
						</>
					)}
				</section>
			) : (
				!bolted && <p className="mb-4">The latch waits for readings and the slab's thickness.</p>
			)}
			{leaf.devices.map((d) => (
				<Device key={d.name + d.second} device={d} />
			))}
			{leaf.strikes.length > 0 && (
				<section className="mb-5" data-strikes>
					<h2 className="text-lg">{bolted ? 'Bolts of the fixed leaf' : 'In the jamb'}</h2>
					<ol className="list-decimal pl-5 grid gap-1">
						{leaf.strikes.map((s) => (
							<li key={s}>{s}</li>
						))}
					</ol>
				</section>
			)}
			<section className="grid gap-2 mb-4">
				<h2 className="text-lg">What goes in</h2>
				<Pick pointer="/lock/device" label="Latch or lock" none="a latch of its backset and bore alone" />
				<Pick
					pointer="/lock/second"
					label="A second one, above or below"
					none="none"
					kinds={['bolt', 'latch']}
				/>
				{lock.second && (
					<LengthField
						pointer="/lock/above"
						label="Above the latch line"
						placeholder="by rule, 150 mm (6 in)"
						empty={0}
					/>
				)}
				{view.opening.pair && (
					<Pick
						pointer="/pair/bolts"
						label="Bolts of the fixed leaf"
						none="none chosen"
						kinds={['flush-bolt', 'surface-bolt']}
					/>
				)}
			</section>
			<DeviceForm />
			<Choose
				pointer="/lock/from"
				label="Its height comes from"
				options={[
					{ value: 'strike', text: 'the strike that is in the jamb', note: 'the strike decides' },
					{ value: 'handle', text: 'a handle height above the floor' },
				]}
			/>
			<section className="grid gap-3 mb-4">
				{lock.from === 'strike' ? (
					<LengthField pointer="/lock/strike" label="Head to the strike's centre, on the lock jamb" />
				) : (
					<LengthField pointer="/lock/handle" label="Handle above the floor" />
				)}
				<div className="grid sm:grid-cols-2 gap-3">
					<LengthField pointer="/lock/backset" label="Backset" note="off the latch in hand" />
					{!lock.device && <LengthField pointer="/lock/bore" label="Latch bore" note="diameter" />}
					<LengthField
						pointer={`${slab}/stile`}
						label="Width of the lock stile"
						note="to moulding, glass or hollow core"
						placeholder="not read"
						empty={0}
					/>
					<LengthField
						pointer="/lock/jamb"
						label="Width of the jamb's face"
						note="from its pull-side corner to the doorstop"
						placeholder="not read"
						empty={0}
					/>
				</div>
			</section>
			<Choose
				pointer="/lock/reach"
				label="Its height is held to"
				unset=""
				options={[
					{ value: '', text: 'nothing' },
					...trade.reachRules.map((r) => ({ value: r.id, text: r.name, note: r.why })),
					{ value: 'local', text: 'a local rule' },
				]}
			/>
			{lock.reach === 'local' && (
				<div className="grid grid-cols-2 gap-3 mb-4">
					<LengthField pointer="/lock/lowest" label="No lower than" empty={0} />
					<LengthField pointer="/lock/highest" label="No higher than" empty={0} />
				</div>
			)}
			<Avoids path="/lock/avoid" of="What the lock edge holds" />
			<OldHoles />
			<Missed />
			<Sheets step="lock" />
		</>
	);
}

type Work = ReturnType<typeof useDoor>['leaf']['devices'][number];

/** Device is what is bored and cut for one device, in order. */
function Device({ device: d }: { device: Work }) {
	return (
		<section className="mb-5" data-device={d.name}>
			<h2 className="text-lg first-letter:uppercase">{d.name}</h2>
			{d.holes.length > 0 && (
				<table className="w-full">
					<thead>
						<tr className="text-left text-sm opacity-80">
							<th className="font-normal">hole</th>
							<th className="font-normal text-right">down</th>
							<th className="font-normal text-right">in</th>
							<th className="font-normal text-right">bit</th>
						</tr>
					</thead>
					<tbody>
						{d.holes.map((h) => (
							<tr key={h.what} className="border-t border-base-300">
								<td className="py-1">
									{h.what}
									<div className="text-sm opacity-80">
										{h.from === 'both' ? 'both faces' : `${h.from} face`}
										{h.deep.mm > 0 && (
											<>
												, <Len text={h.deep.text} /> deep
											</>
										)}
									</div>
								</td>
								<td className="text-right text-xl dim">
									<Why figure={h.down} title={`${h.what}, down the edge`} id={`hole-down-${h.what}`} bare />
								</td>
								<td className="text-right text-xl dim">
									<Why figure={h.in} title={`${h.what}, in from the edge`} id={`hole-in-${h.what}`} bare />
								</td>
								<td className="text-right text-xl dim">
									<Len text={h.bit.mm > 0 ? h.bit.text : h.dia.text} />
								</td>
							</tr>
						))}
					</tbody>
				</table>
			)}
			{d.edge && (
				<>
					<Row label={d.edge.long.mm > 0 ? 'Slot in the edge' : 'Bore in the edge'} note="its middle, down">
						<Why figure={d.edge.down} title="Bore or slot in the edge" />
					</Row>
					<Row label="Deep" note="from the finished edge">
						<Why figure={d.edge.deep} title="Depth in the edge" />
					</Row>
					<Row label="Wall beside it" note="each side">
						<Why figure={d.edge.wall} title="Wall beside the bore" id="edge-wall" />
					</Row>
					<Row label="Gauge for the centre" note="from both faces">
						<Why figure={d.gauge} title="Gauge for the centre" />
					</Row>
				</>
			)}
			{d.plate && (
				<Row label="Faceplate's upper end" note="down the edge">
					<Why figure={d.plate.top} title="Faceplate's upper end" />
				</Row>
			)}
			{d.lengths.map((l) => (
				<Row key={l.what} label={`Cut the ${l.what} to`}>
					<Why figure={l.cut} title={`Length of the ${l.what}`} />
				</Row>
			))}
			<ol className="list-decimal pl-5 grid gap-1 mt-2">
				{d.steps.map((s) => (
					<li key={s}>{s}</li>
				))}
			</ol>
		</section>
	);
}

/** Pick chooses a device of the list or of the job's own; its usual backset goes with it. */
function Pick({
	pointer,
	label,
	none,
	kinds,
}: {
	pointer: string;
	label: string;
	none: string;
	kinds?: string[];
}) {
	const { view, save } = useDoor();
	const [error, attempt] = useAttempt();
	const fixed = trade.deviceKinds.filter((k) => k.fixed).map((k) => k.id);
	const list = [...(view.job.kit.devices ?? []), ...trade.devices].filter((d) =>
		kinds ? kinds.includes(d.kind) : !fixed.includes(d.kind),
	);
	const [, group, key] = pointer.split('/') as [string, 'lock' | 'pair', string];
	const now = (view.opening[group] as Record<string, unknown> | undefined)?.[key] ?? '';
	return (
		<label className="block">
			<span className="block mb-1">{label}</span>
			<select
				className="select w-full"
				data-field={pointer}
				value={String(now)}
				onChange={(e) =>
					attempt(async () => {
						const d = list.find((x) => x.id === e.target.value);
						await save(
							[
								{ op: 'add', path: pointer, value: e.target.value },
								...(d?.backsets?.[0] && pointer === '/lock/device'
									? [{ op: 'add' as const, path: '/lock/backset', value: d.backsets[0] }]
									: []),
							],
							d?.name ?? none,
						);
					})
				}
			>
				<option value="">{none}</option>
				{list.map((d) => (
					<option key={d.id} value={d.id}>
						{d.name}
					</option>
				))}
			</select>
			<Said error={error} />
		</label>
	);
}

/** OldHoles takes the holes that are there already. */
function OldHoles() {
	const { view } = useDoor();
	const list = view.opening.lock.old ?? [];
	const { error, put } = useList('/lock/old');
	const [what, setWhat] = useState('');
	const [down, setDown] = useState('');
	const [dia, setDia] = useState('');
	const [jamb, setJamb] = useState(true);
	return (
		<details className="mb-4" open={list.length > 0}>
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="old-holes-open">
				Old holes and recesses
			</summary>
			<div className="grid gap-2">
				{list.map((o, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: told by its order
					<div key={i} className="flex items-end gap-2 flex-wrap">
						<span className="basis-24 grow min-h-11 flex items-center">
							{o.what}, {o.jamb ? 'jamb' : 'slab'}
						</span>
						<div className="grow basis-20">
							<LengthField pointer={`/lock/old/${i}/down`} label="Down to its middle" />
						</div>
						<div className="grow basis-20">
							<LengthField pointer={`/lock/old/${i}/dia`} label="Its size" />
						</div>
						<TakeOut list={list} at={i} put={put} label={`the ${o.what}`} />
					</div>
				))}
				<form
					className="flex items-end gap-2 flex-wrap"
					onSubmit={async (e) => {
						e.preventDefault();
						if (await put([...list, { what, jamb, down, dia }], what)) {
							setWhat('');
							setDown('');
							setDia('');
						}
					}}
				>
					<fieldset className="flex gap-4 basis-full">
						<legend className="sr-only">Where it is</legend>
						{[true, false].map((v) => (
							<label key={String(v)} className="flex items-center gap-2 min-h-11">
								<input
									type="radio"
									name="old-hole"
									className="radio radio-primary"
									checked={jamb === v}
									onChange={() => setJamb(v)}
								/>
								{v ? 'in the jamb, from the head' : "in the slab's edge, from its finished top"}
							</label>
						))}
					</fieldset>
					<Entry label="What" value={what} set={setWhat} field="old-what" />
					<Entry label="Down to its middle" value={down} set={setDown} field="old-down" />
					<Entry label="Its size" value={dia} set={setDia} field="old-dia" />
					<button type="submit" className="btn" data-field="old-add">
						Add
					</button>
				</form>
				<Said error={error} />
			</div>
		</details>
	);
}

/** Missed takes by how much the latch of the hung door misses its strike. */
export function Missed() {
	const { view, save } = useDoor();
	const [error, attempt] = useAttempt();
	const m = view.opening.lock.missed;
	return (
		<details className="mb-4" open={!!m}>
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="missed-open">
				The latch misses the strike
			</summary>
			{m ? (
				<div className="grid sm:grid-cols-2 gap-3">
					<LengthField
						pointer="/lock/missed/up"
						label="Meets it too high by"
						note="too low below 0"
						empty={0}
					/>
					<LengthField
						pointer="/lock/missed/in"
						label="Falls short of it by"
						note="rattles by, below 0"
						empty={0}
					/>
				</div>
			) : (
				<button
					type="button"
					className="btn"
					data-field="missed-add"
					onClick={() =>
						attempt(async () => {
							await save(
								[{ op: 'add', path: '/lock/missed', value: { up: 0, in: 0 } }],
								'a latch that misses',
							);
						})
					}
				>
					Say by how much
				</button>
			)}
			<Said error={error} />
		</details>
	);
}
