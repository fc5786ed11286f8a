import { useState } from 'react';
import { Said } from '../attempt';
import { useDoor } from '../door-state';
import { Choose, LengthField } from '../field';
import { Because, Row, Why } from '../length';
import { Entry, TakeOut, useList } from '../list';

/** SwingStep says how the door will swing, and takes what that hangs on. */
export function SwingStep() {
	const { view, leaf, which } = useDoor();
	const w = leaf.swing;
	const s = view.opening.swing;
	return (
		<>
			{w ? (
				<section className="mb-5">
					<Row
						label="Bevel of the lock edge"
						note={w.bevel.mm > 0 ? 'the push face so much narrower' : 'none: it passes square'}
					>
						<Why figure={w.bevel} title="Bevel of the lock edge" id="swing-bevel" />
					</Row>
					{w.relief.mm > 0 && (
						<Row label="Relief of the hinge edge" note="its push face planed back so far">
							<Why figure={w.relief} title="Relief of the hinge edge" id="swing-relief" />
						</Row>
					)}
					<Row
						label={`Passes the ${w.beside.name}`}
						note={w.second ? 'once the other leaf stands open' : `tightest at ${w.clearAt}°`}
					>
						<Why figure={w.clear} title={`Passes the ${w.beside.name}`} id="swing-clear" />
					</Row>
					<Row label="Opens to" note={w.against ? `against the ${w.against}` : 'folds right back'}>
						<Because text={`${w.opens}°`} why={w.opensWhy} title="How far it opens" id="swing-opens" />
					</Row>
					<Row label="Foot over the floor" note={`least, at ${w.leastAt}°`}>
						<Why figure={w.least} title={`Foot over the floor at ${w.leastAt}°`} id="swing-least" />
					</Row>
					<Row label="Left half open" note={w.rests === 45 ? 'stays where it is left' : 'it drifts'}>
						<Because
							text={`rests at ${w.rests}°`}
							why={w.restsWhy}
							title="Where it comes to rest"
							id="swing-rests"
						/>
					</Row>
				</section>
			) : (
				<p className="mb-4">The swing waits for readings and the slab's thickness.</p>
			)}
			{view.opening.pair && (
				<>
					<Choose
						pointer="/pair/edges"
						label="Meeting edges"
						unset=""
						options={[
							{
								value: '',
								text: 'plain',
								note: 'square, or bevelled so far as they need it; either leaf opens first',
							},
							{ value: 'rebated', text: 'rebated', note: 'one laps the other; the bolted one opens second' },
							{ value: 'rounded', text: 'rounded', note: 'to an arc about the pins' },
						]}
					/>
					{view.opening.pair.edges === 'rebated' && (
						<LengthField pointer="/pair/lip" label="They lap by" placeholder="usual, 12 mm" empty={0} />
					)}
				</>
			)}
			<Floors jamb={which === 2 ? 'lock' : ''} />
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2 mb-4">
				<h2 className="text-lg sm:col-span-2">Beside the lock edge</h2>
				<LengthField
					pointer="/swing/bevel"
					label="Bevel"
					note="push face narrower by"
					placeholder="by rule"
					optional
				/>
				<LengthField
					pointer="/swing/closing"
					label="Jamb's face closes in"
					note="toward the push face, over 100 mm (4 in), by a square on the wall; opens out below 0"
					placeholder="not read"
					optional
				/>
				<LengthField
					pointer="/swing/forward"
					label="Jamb or bead stands out"
					note="in front of the pull face"
					empty={0}
				/>
				<LengthField
					pointer="/swing/pin"
					label="Pin stands out"
					note="its middle, in front of the pull face"
					placeholder="usual, 6 mm"
					empty={0}
				/>
			</section>
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2 mb-4">
				<h2 className="text-lg sm:col-span-2">Behind the open door</h2>
				<LengthField
					pointer="/swing/casing"
					label="Casing stands out"
					note="beside the hinges, in front of the pull face"
					empty={0}
				/>
				<LengthField pointer="/swing/reveal" label="Casing set back" note="from the jamb's face" empty={0} />
				<LengthField
					pointer="/swing/hingeClosing"
					label="Hinge jamb's face closes in"
					note="toward the push face, over 100 mm (4 in)"
					placeholder="not read"
					optional
				/>
				<LengthField
					pointer="/swing/stop"
					label="Stop stands off the jamb"
					note="or the back of its rebate, beside the hinges"
					placeholder="off"
					empty={0}
				/>
				<LengthField
					pointer="/swing/play"
					label="Play at that stop"
					note="between it and the push face; below 0 it presses"
					placeholder="not read"
					optional
				/>
				<LengthField
					pointer="/swing/lean"
					label="Hinge jamb leans toward you"
					note="its head against its foot; away below 0"
					placeholder="not read"
					optional
				/>
			</section>
			<Choose
				pointer="/swing/open"
				label="It is to open to"
				row
				unset={90}
				options={[
					{ value: 90, text: '90°' },
					{ value: 120, text: '120°' },
					{ value: 180, text: '180°' },
				]}
			/>
			<Things jamb={which === 2 ? 'lock' : ''} />
			{s?.bevel === undefined && w && w.bevel.mm > 0 && (
				<p className="text-sm opacity-80">
					Clear it at 90° of the edge first, then plane the bevel to its line.
				</p>
			)}
		</>
	);
}

/** Floors takes the floor at places of the sweep. */
function Floors({ jamb }: { jamb: string }) {
	const { view } = useDoor();
	const list = view.opening.swing?.floor ?? [];
	const { error, put } = useList('/swing/floor');
	const [at, setAt] = useState('');
	const [angle, setAngle] = useState('');
	const [up, setUp] = useState('');
	return (
		<section className="mb-4 grid gap-2">
			<h2 className="text-lg">The floor under the sweep</h2>
			<p className="text-sm opacity-80">
				Lay a straightedge or a level from under the closed door: how much higher is it where the free corner
				goes?
			</p>
			{list.map((f, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a place is told by its order
				<div key={i} className="flex items-end gap-2 flex-wrap">
					<span className="dim text-xl min-h-11 flex items-center w-14" data-floor={f.angle}>
						{f.angle}°
					</span>
					<div className="grow basis-24">
						<LengthField pointer={`/swing/floor/${i}/at`} label="From the hinge jamb" />
					</div>
					<div className="grow basis-20">
						<LengthField pointer={`/swing/floor/${i}/up`} label="Higher by" empty={0} />
					</div>
					<TakeOut list={list} at={i} put={put} label={`the floor at ${f.angle}°`} />
				</div>
			))}
			<form
				className="flex items-end gap-2 flex-wrap"
				onSubmit={async (e) => {
					e.preventDefault();
					if (
						await put(
							[...list, { at, angle: Number(angle.replace('°', '').trim()), up, jamb }],
							`floor at ${angle}°`,
						)
					) {
						setAngle('');
						setUp('');
					}
				}}
			>
				<Entry label="Open at, °" value={angle} set={setAngle} field="floor-angle" number />
				<Entry label="From the hinge jamb" value={at} set={setAt} field="floor-at" />
				<Entry label="Higher by" value={up} set={setUp} field="floor-up" />
				<button type="submit" className="btn" data-field="floor-add">
					Add
				</button>
			</form>
			<Said error={error} />
		</section>
	);
}

/** Things takes what the door could open against. */
function Things({ jamb }: { jamb: string }) {
	const { view } = useDoor();
	const list = view.opening.swing?.things ?? [];
	const { error, put } = useList('/swing/things');
	const [name, setName] = useState('');
	const [wall, setWall] = useState(true);
	const [at, setAt] = useState('');
	const [out, setOut] = useState('');
	return (
		<section className="mb-4 grid gap-2">
			<h2 className="text-lg">What it could open against</h2>
			{list.map((t, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a thing is told by its order
				<div key={i} className="flex items-end gap-2 flex-wrap">
					<span className="min-h-11 flex items-center basis-24 grow">{t.name}</span>
					<div className="grow basis-24">
						<LengthField
							pointer={`/swing/things/${i}/at`}
							label={t.wall ? 'Beyond the hinge jamb' : 'Along from the hinge jamb'}
							empty={0}
						/>
					</div>
					{!t.wall && (
						<div className="grow basis-24">
							<LengthField pointer={`/swing/things/${i}/out`} label="Out from the face" />
						</div>
					)}
					<TakeOut list={list} at={i} put={put} label={`the ${t.name}`} />
				</div>
			))}
			<form
				className="flex items-end gap-2 flex-wrap"
				onSubmit={async (e) => {
					e.preventDefault();
					const thing = { name: name.trim() || (wall ? 'side wall' : 'furniture'), wall, at, jamb };
					if (await put([...list, wall ? thing : { ...thing, out }], thing.name)) {
						setName('');
						setAt('');
						setOut('');
					}
				}}
			>
				<fieldset className="flex gap-4 basis-full">
					<legend className="sr-only">What stands there</legend>
					{[true, false].map((v) => (
						<label key={String(v)} className="flex items-center gap-2 min-h-11">
							<input
								type="radio"
								name="thing"
								className="radio radio-primary"
								checked={wall === v}
								onChange={() => setWall(v)}
							/>
							{v ? 'a side wall' : "a piece's nearest corner"}
						</label>
					))}
				</fieldset>
				<Entry label="Called" value={name} set={setName} field="thing-name" />
				<Entry
					label={wall ? 'Beyond the hinge jamb' : 'Along from it'}
					value={at}
					set={setAt}
					field="thing-at"
				/>
				{!wall && <Entry label="Out from the face" value={out} set={setOut} field="thing-out" />}
				<button type="submit" className="btn" data-field="thing-add">
					Add
				</button>
			</form>
			<Said error={error} />
		</section>
	);
}
