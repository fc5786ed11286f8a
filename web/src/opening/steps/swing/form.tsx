import { useState } from 'react';
import { Said } from '../../../api/attempt';
import type { Leaf } from '../../../api/client';
import { Because, Row, Why } from '../../../ui/length';
import { say } from '../../../words/texts';
import { Choose, LengthField } from '../../field';
import { AddForm, Either, Entry, TakeOut, useList } from '../../list';
import { useOpening } from '../../state';

/** SwingStep shows how the slab will swing, and takes what that depends on. */
export function SwingStep() {
	const { view, leaf, which } = useOpening();
	const w = leaf.swing;
	const s = view.opening.swing;
	return (
		<>
			{w ? <Figures swing={w} /> : <p className="mb-4">{say('swing.first-take-the-readings-and')}</p>}
			<Meeting />
			<Floors jamb={which === 2 ? 'lock' : ''} />
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2 mb-4">
				<h2 className="text-lg sm:col-span-2">{say('swing.beside-the-lock-edge')}</h2>
				<LengthField
					pointer="/swing/bevel"
					label={say('swing.bevel')}
					note={say('swing.push-face-narrower-by')}
					placeholder={say('page.by-rule')}
					optional
				/>
				<LengthField
					pointer="/swing/closing"
					label={say('swing.jambs-face-closes-in-by')}
					note={say(view.job.unit === 'in' ? 'swing.lock-jamb-closes-in' : 'swing.lock-jamb-closes-mm')}
					placeholder={say('page.not-measured-yet')}
					optional
				/>
				<LengthField
					pointer="/swing/forward"
					label={say('swing.jamb-or-bead-stands-out')}
					note={say('swing.in-front-of-the-pull')}
					empty={0}
				/>
				<LengthField
					pointer="/swing/pin"
					label={say('swing.pin-stands-out-by')}
					note={say('swing.its-middle-in-front-of')}
					placeholder={say(view.job.unit === 'in' ? 'swing.usual-pin-in' : 'swing.usual-pin-mm')}
					empty={0}
				/>
			</section>
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2 mb-4">
				<h2 className="text-lg sm:col-span-2">{say('swing.behind-the-open-door')}</h2>
				<LengthField
					pointer="/swing/casing"
					label={say('swing.architrave-stands-out-by')}
					note={say('swing.beside-the-hinges-in-front')}
					empty={0}
				/>
				<LengthField
					pointer="/swing/reveal"
					label={say('swing.architrave-set-back-by')}
					note={say('swing.from-the-jambs-face')}
					empty={0}
				/>
				<LengthField
					pointer="/swing/hingeClosing"
					label={say('swing.hinge-jambs-face-closes-in')}
					note={say(view.job.unit === 'in' ? 'swing.jamb-closes-in' : 'swing.jamb-closes-mm')}
					placeholder={say('page.not-measured-yet')}
					optional
				/>
				<LengthField
					pointer="/swing/stop"
					label={say('swing.doorstop-stands-off-the-jamb')}
					note={say('swing.or-the-back-of-its')}
					placeholder={say('page.off')}
					empty={0}
				/>
				<LengthField
					pointer="/swing/play"
					label={say('swing.play-at-that-doorstop')}
					note={say('swing.between-it-and-the-push')}
					placeholder={say('page.not-measured-yet')}
					optional
				/>
				<LengthField
					pointer="/swing/lean"
					label={say('swing.hinge-jamb-leans-toward-you')}
					note={say('swing.its-top-against-its-bottom')}
					placeholder={say('page.not-measured-yet')}
					optional
				/>
			</section>
			<Choose
				pointer="/swing/open"
				label={say('swing.it-is-to-open-to')}
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
				<p className="text-sm opacity-80">{say('swing.let-it-clear-with-a')}</p>
			)}
		</>
	);
}

/** Floors takes the floor at places of the sweep. */
function Floors({ jamb }: { jamb: string }) {
	const { view } = useOpening();
	const list = view.opening.swing?.floor ?? [];
	const { error, put } = useList('/swing/floor', {
		angle: say('swing.open-at'),
		at: say('swing.from-the-hinge-jamb'),
		up: say('swing.higher-by'),
	});
	const [at, setAt] = useState('');
	const [angle, setAngle] = useState('');
	const [up, setUp] = useState('');
	return (
		<section className="mb-4 grid gap-2">
			<h2 className="text-lg">{say('swing.the-floor-under-the-sweep')}</h2>
			<p className="text-sm opacity-80">{say('swing.lay-a-straightedge-or-a')}</p>
			{list.map((f, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a place is told by its order
				<div key={i} className="flex items-end gap-2 flex-wrap">
					<span className="dim text-xl min-h-11 flex items-center w-14" data-floor={f.angle}>
						{f.angle}°
					</span>
					<div className="grow basis-24">
						<LengthField pointer={`/swing/floor/${i}/at`} label={say('swing.from-the-hinge-jamb')} />
					</div>
					<div className="grow basis-20">
						<LengthField pointer={`/swing/floor/${i}/up`} label={say('swing.higher-by')} empty={0} />
					</div>
					<TakeOut list={list} at={i} put={put} label={say('swing.the-floor-at-angle', { angle: f.angle })} />
				</div>
			))}
			<AddForm
				field="floor-add"
				add={async () => {
					if (
						await put(
							[...list, { at, angle: Number(angle.replace('°', '').trim()), up, jamb }],
							say('swing.floor-at-angle', { angle }),
						)
					) {
						setAngle('');
						setUp('');
					}
				}}
			>
				<Entry label={say('swing.open-at')} value={angle} set={setAngle} field="floor-angle" number />
				<Entry label={say('swing.from-the-hinge-jamb')} value={at} set={setAt} field="floor-at" />
				<Entry label={say('swing.higher-by')} value={up} set={setUp} field="floor-up" />
			</AddForm>
			<Said error={error} />
		</section>
	);
}

/** Things takes the obstacles of the swing. */
function Things({ jamb }: { jamb: string }) {
	const { view } = useOpening();
	const list = view.opening.swing?.things ?? [];
	const [name, setName] = useState('');
	const [wall, setWall] = useState(true);
	const { error, put } = useList('/swing/things', {
		at: wall ? say('swing.past-the-hinge-jamb') : say('swing.along-from-it'),
		out: say('swing.out-from-the-face'),
	});
	const [at, setAt] = useState('');
	const [out, setOut] = useState('');
	return (
		<section className="mb-4 grid gap-2">
			<h2 className="text-lg">{say('swing.what-it-could-open-against')}</h2>
			{list.map((t, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a thing is told by its order
				<div key={i} className="flex items-end gap-2 flex-wrap">
					<span className="min-h-11 flex items-center basis-24 grow">{t.name}</span>
					<div className="grow basis-24">
						<LengthField
							pointer={`/swing/things/${i}/at`}
							label={t.wall ? say('swing.past-the-hinge-jamb') : say('swing.along-from-the-hinge-jamb')}
							empty={0}
						/>
					</div>
					{!t.wall && (
						<div className="grow basis-24">
							<LengthField pointer={`/swing/things/${i}/out`} label={say('swing.out-from-the-face')} />
						</div>
					)}
					<TakeOut list={list} at={i} put={put} label={say('swing.the-name', { name: t.name })} />
				</div>
			))}
			<AddForm
				field="thing-add"
				add={async () => {
					const thing = {
						name: name.trim() || (wall ? say('swing.side-wall') : say('swing.furniture')),
						wall,
						at,
						jamb,
					};
					if (await put([...list, wall ? thing : { ...thing, out }], thing.name)) {
						setName('');
						setAt('');
						setOut('');
					}
				}}
			>
				<Either
					name="thing"
					legend={say('swing.what-stands-there')}
					choices={[
						[true, say('swing.a-side-wall')],
						[false, say('swing.a-pieces-nearest-corner')],
					]}
					value={wall}
					set={setWall}
				/>
				<Entry label={say('page.called')} value={name} set={setName} field="thing-name" />
				<Entry
					label={wall ? say('swing.past-the-hinge-jamb') : say('swing.along-from-it')}
					value={at}
					set={setAt}
					field="thing-at"
				/>
				{!wall && <Entry label={say('swing.out-from-the-face')} value={out} set={setOut} field="thing-out" />}
			</AddForm>
			<Said error={error} />
		</section>
	);
}

/** Figures are how the slab swings as planned. */
function Figures({ swing: w }: { swing: NonNullable<Leaf['swing']> }) {
	return (
		<section className="mb-5">
			<Row
				label={say('swing.bevel-of-the-lock-edge')}
				note={w.bevel.mm > 0 ? say('swing.the-push-face-is-this') : say('swing.none-square-clears')}
			>
				<Why figure={w.bevel} title={say('swing.bevel-of-the-lock-edge')} id="swing-bevel" />
			</Row>
			{w.relief.mm > 0 && (
				<Row label={say('swing.relief-of-the-hinge-edge')} note={say('swing.push-face-planed-back-by')}>
					<Why figure={w.relief} title={say('swing.relief-of-the-hinge-edge')} id="swing-relief" />
				</Row>
			)}
			<Row
				label={say('swing.clears-the-beside', { beside: w.beside.name })}
				note={
					w.second
						? say('swing.once-the-other-leaf-stands')
						: say('swing.tightest-at-clear-at', { clearAt: w.clearAt })
				}
			>
				<Why
					figure={w.clear}
					title={say('swing.clears-the-beside', { beside: w.beside.name })}
					id="swing-clear"
				/>
			</Row>
			<Row
				label={say('swing.opens-to')}
				note={
					w.against ? say('swing.against-the-against', { against: w.against }) : say('swing.folds-right-back')
				}
			>
				<Because
					text={`${w.opens}°`}
					why={w.opensWhy}
					title={say('swing.how-far-it-opens')}
					id="swing-opens"
				/>
			</Row>
			<Row
				label={say('swing.bottom-over-the-floor')}
				note={say('swing.least-at-least-at', { leastAt: w.leastAt })}
			>
				<Why
					figure={w.least}
					title={say('swing.bottom-over-the-floor-at', { leastAt: w.leastAt })}
					id="swing-least"
				/>
			</Row>
			<Row
				label={say('swing.left-half-open')}
				note={w.rests === 45 ? say('page.stays-where-it-is-left') : say('swing.it-drifts')}
			>
				<Because
					text={say('swing.rests-at-rests', { rests: w.rests })}
					why={w.restsWhy}
					title={say('swing.where-it-comes-to-rest')}
					id="swing-rests"
				/>
			</Row>
		</section>
	);
}

/** Meeting is the shape of a pair's meeting edges; nothing for a single slab. */
function Meeting() {
	const { view } = useOpening();
	if (!view.opening.pair) return null;
	return (
		<>
			<Choose
				pointer="/pair/edges"
				label={say('swing.meeting-edges')}
				unset=""
				options={[
					{
						value: '',
						text: say('swing.plain'),
						note: say('swing.square-or-bevelled-as-far'),
					},
					{ value: 'rebated', text: say('swing.rebated'), note: say('swing.one-laps-over-the-other') },
					{ value: 'rounded', text: say('swing.rounded'), note: say('swing.to-an-arc-about-the') },
				]}
			/>
			{view.opening.pair.edges === 'rebated' && (
				<LengthField
					pointer="/pair/lip"
					label={say('swing.they-lap-by')}
					placeholder={say(view.job.unit === 'in' ? 'swing.usual-lap-in' : 'swing.usual-lap-mm')}
					empty={0}
				/>
			)}
		</>
	);
}
