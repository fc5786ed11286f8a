import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { Disclosure } from '../../../ui/disclosure';
import { Len, Row, Why } from '../../../ui/length';
import { Phrase } from '../../../words/phrase';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { Avoids } from '../../avoids';
import { Choose, LengthField } from '../../field';
import { AddForm, Either, Entry, TakeOut, useList } from '../../list';
import { useOpening } from '../../state';
import { Templates } from '../../templates';
import { HardwareForm } from './hardware-form';
import { WhatGoesIn, WhenBored } from './what';

/** LockStep marks latch and strike, and what is bored for them. */
export function LockStep() {
	const { view, leaf, slab } = useOpening();
	const l = leaf.latch;
	const lock = view.opening.lock;
	const bolted = leaf.findings.some((f) => f.code === 'bolted-leaf');
	return (
		<>
			{l ? (
				<section className="mb-5">
					<Row label={say('lock.latch-on-the-slab')} note={say('lock.down-its-lock-edge-from')}>
						<Why figure={l.slab} title={say('lock.latch-on-the-slab')} id="latch-slab" bare />
					</Row>
					<Row label={say('lock.keep-in-the-jamb')} note={say('lock.middle-down-from-the-head')}>
						<Why figure={l.jamb} title={say('lock.keep-in-the-jamb')} id="latch-jamb" bare />
					</Row>
					<Row label={say('lock.backset')} note={say('lock.finished-lock-edge-to-the')}>
						<Why figure={l.backset} title={say('lock.backset')} id="latch-backset" />
					</Row>
					<Row label={say('lock.handle-above-the-floor')}>
						<Why figure={l.floor} title={say('lock.handle-above-the-floor')} id="latch-floor" />
					</Row>
					{leaf.hardware.length === 0 && (
						<>
							<Row label={say('lock.latch-bore')} note={say('lock.middle-from-either-face')}>
								<Why figure={l.centre} title={say('lock.latch-bore')} id="latch-centre" />
							</Row>
							<Row label={say('lock.wall-beside-the-bore')} note={say('lock.each-side')}>
								<Why figure={l.wall} title={say('lock.wall-beside-the-bore')} id="latch-wall" />
							</Row>
						</>
					)}
				</section>
			) : (
				!bolted && <p className="mb-4">{say('swing.first-take-the-readings-and')}</p>
			)}
			{leaf.hardware.map((d) => (
				<Hardware key={d.name + d.second} hardware={d} />
			))}
			{leaf.strikes.length > 0 && (
				<section className="mb-5" data-strikes>
					<h2 className="text-lg">
						{bolted ? say('lock.bolts-of-the-fixed-leaf') : say('page.in-the-jamb')}
					</h2>
					<ol className="list-decimal pl-5 grid gap-1">
						{leaf.strikes.map((s) => (
							<li key={s}>{s}</li>
						))}
					</ol>
				</section>
			)}
			<WhatGoesIn />
			<HardwareForm />
			<WhenBored />
			<Choose
				pointer="/lock/from"
				label={say('lock.its-height-comes-from')}
				options={[
					{ value: 'strike', text: say('lock.the-keep-in-the-jamb'), note: say('lock.the-keep-decides') },
					{ value: 'handle', text: say('lock.a-handle-height-above-the') },
					{ value: 'middle', text: say('lock.the-middle-of-the-slab') },
					{ value: 'line', text: say('lock.a-rail-or-a-panel-line') },
				]}
			/>
			<section className="grid gap-3 mb-4">
				{lock.from === 'strike' && (
					<LengthField pointer="/lock/strike" label={say('lock.head-to-the-middle-of')} />
				)}
				{lock.from === 'handle' && (
					<LengthField pointer="/lock/handle" label={say('lock.handle-above-the-floor')} />
				)}
				{lock.from === 'line' && (
					<LengthField pointer="/lock/line" label={say('lock.top-to-the-line')} empty={0} />
				)}
				<div className="grid sm:grid-cols-2 gap-3">
					<LengthField
						pointer="/lock/backset"
						label={say('lock.backset')}
						note={say('lock.read-it-off-the-latch')}
					/>
					{!lock.hardware && (
						<LengthField pointer="/lock/bore" label={say('lock.latch-bore')} note={say('lock.diameter')} />
					)}
					<LengthField
						pointer={`${slab}/stile`}
						label={say('lock.width-of-the-lock-stile')}
						note={say('lock.to-moulding-glass-or-hollow')}
						placeholder={say('page.not-measured-yet')}
						empty={0}
					/>
					<LengthField
						pointer="/lock/jamb"
						label={say('lock.width-of-the-jambs-face')}
						note={say('lock.from-its-pull-side-corner')}
						placeholder={say('page.not-measured-yet')}
						empty={0}
					/>
				</div>
			</section>
			<Choose
				pointer="/lock/reach"
				label={say('lock.keep-its-height-to')}
				unset=""
				options={[
					{ value: '', text: say('lock.no-rule') },
					...trade.reachRules.map((r) => ({ value: r.id, text: r.name, note: r.why })),
					{ value: 'local', text: say('lock.a-local-rule') },
				]}
			/>
			{lock.reach === 'local' && (
				<div className="grid grid-cols-2 gap-3 mb-4">
					<LengthField pointer="/lock/lowest" label={say('lock.no-lower-than')} empty={0} />
					<LengthField pointer="/lock/highest" label={say('lock.no-higher-than')} empty={0} />
				</div>
			)}
			<Avoids path="/lock/avoid" of={say('lock.what-is-in-the-lock')} />
			<OldHoles />
			<Missed />
			<Templates step="lock" />
		</>
	);
}

type Work = ReturnType<typeof useOpening>['leaf']['hardware'][number];

/** Hardware is the bores and cuts of one piece of hardware, in order. */
function Hardware({ hardware: d }: { hardware: Work }) {
	return (
		<section className="mb-5" data-hardware={d.name}>
			<h2 className="text-lg first-letter:uppercase">{d.name}</h2>
			{d.holes.length > 0 && (
				<table className="w-full">
					<thead>
						<tr className="text-left text-sm opacity-80">
							<th className="font-normal">{say('lock.hole-column')}</th>
							<th className="font-normal text-right">{say('lock.down')}</th>
							<th className="font-normal text-right">{say('lock.in')}</th>
							<th className="font-normal text-right">{say('lock.bit')}</th>
						</tr>
					</thead>
					<tbody>
						{d.holes.map((h) => (
							<tr key={h.what} className="border-t border-base-300">
								<td className="py-1">
									{h.what}
									<div className="text-sm opacity-80">
										{say(
											h.from === 'both'
												? 'lock.both-faces'
												: h.from === 'push'
													? 'lock.push-face'
													: 'page.pull-face',
										)}
										{h.deep.mm > 0 && (
											<Phrase id="lock.hole-is-deep" of={{ deep: <Len text={h.deep.text} /> }} />
										)}
									</div>
								</td>
								<td className="text-right text-xl dim">
									<Why
										figure={h.down}
										title={say('lock.thing-down-the-edge', { thing: h.what })}
										id={`hole-down-${h.what}`}
										bare
									/>
								</td>
								<td className="text-right text-xl dim">
									<Why
										figure={h.in}
										title={say('lock.thing-in-from-the-edge', { thing: h.what })}
										id={`hole-in-${h.what}`}
										bare
									/>
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
					<Row
						label={d.edge.long.mm > 0 ? say('lock.slot-in-the-edge') : say('lock.bore-in-the-edge')}
						note={say('lock.its-middle-down')}
					>
						<Why figure={d.edge.down} title={say('lock.bore-or-slot-in-the')} />
					</Row>
					<Row label={say('page.deep')} note={say('lock.from-the-finished-edge')}>
						<Why figure={d.edge.deep} title={say('lock.depth-in-the-edge')} />
					</Row>
					<Row label={say('lock.wall-beside-it')} note={say('lock.each-side')}>
						<Why figure={d.edge.wall} title={say('lock.wall-beside-the-bore')} id="edge-wall" />
					</Row>
					<Row label={say('lock.gauge-for-the-middle')} note={say('lock.from-both-faces')}>
						<Why figure={d.gauge} title={say('lock.gauge-for-the-middle')} />
					</Row>
				</>
			)}
			{d.plate && (
				<Row label={say('lock.top-of-the-forend')} note={say('lock.down-the-edge')}>
					<Why figure={d.plate.top} title={say('lock.top-of-the-forend')} />
				</Row>
			)}
			{d.lengths.map((l) => (
				<Row key={l.what} label={say('lock.cut-the-thing-to', { thing: l.what })}>
					<Why figure={l.cut} title={say('lock.length-of-the-thing', { thing: l.what })} />
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

/** OldHoles takes the existing holes. */
function OldHoles() {
	const { view } = useOpening();
	const list = view.opening.lock.old ?? [];
	const { error, put } = useList('/lock/old', {
		what: say('page.what'),
		down: say('lock.down-to-its-middle'),
		dia: say('lock.its-size'),
	});
	const [what, setWhat] = useState('');
	const [down, setDown] = useState('');
	const [dia, setDia] = useState('');
	const [jamb, setJamb] = useState(true);
	return (
		<Disclosure
			className="mb-4"
			open={list.length > 0}
			title={say('lock.old-holes-and-recesses')}
			field="old-holes-open"
		>
			<div className="grid gap-2">
				{list.map((o, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: told by its order
					<div key={i} className="flex items-end gap-2 flex-wrap">
						<span className="basis-24 grow min-h-11 flex items-center">
							{o.what}, {say(o.jamb ? 'page.the-jamb' : 'page.the-slab')}
						</span>
						<div className="grow basis-20">
							<LengthField pointer={`/lock/old/${i}/down`} label={say('lock.down-to-its-middle')} />
						</div>
						<div className="grow basis-20">
							<LengthField pointer={`/lock/old/${i}/dia`} label={say('lock.its-size')} />
						</div>
						<TakeOut list={list} at={i} put={put} label={say('page.the-thing', { thing: o.what })} />
					</div>
				))}
				<AddForm
					field="old-add"
					add={async () => {
						if (await put([...list, { what, jamb, down, dia }], what)) {
							setWhat('');
							setDown('');
							setDia('');
						}
					}}
				>
					<Either
						name="old-hole"
						legend={say('page.where-it-is')}
						choices={[
							[true, say('lock.in-the-jamb-from-the')],
							[false, say('lock.in-the-slabs-edge-from')],
						]}
						value={jamb}
						set={setJamb}
					/>
					<Entry label={say('page.what')} value={what} set={setWhat} field="old-what" />
					<Entry label={say('lock.down-to-its-middle')} value={down} set={setDown} field="old-down" />
					<Entry label={say('lock.its-size')} value={dia} set={setDia} field="old-dia" />
				</AddForm>
				<Said error={error} />
			</div>
		</Disclosure>
	);
}

/** Missed takes by how much the latch of the hung slab misses its strike. */
export function Missed() {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const m = view.opening.lock.missed;
	return (
		<Disclosure className="mb-4" open={!!m} title={say('lock.the-latch-misses-the-keep')} field="missed-open">
			{m ? (
				<div className="grid sm:grid-cols-2 gap-3">
					<LengthField
						pointer="/lock/missed/up"
						label={say('lock.too-high-by')}
						note={say('lock.below-0-it-is-too')}
						empty={0}
					/>
					<LengthField
						pointer="/lock/missed/in"
						label={say('lock.falls-short-by')}
						note={say('lock.below-0-it-rattles')}
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
								say('lock.a-latch-that-misses'),
							);
						})
					}
				>
					{say('lock.measure-how-much')}
				</button>
			)}
			<Said error={error} />
		</Disclosure>
	);
}
