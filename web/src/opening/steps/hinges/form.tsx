import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { Said, useAttempt } from '../../../api/attempt';
import { ask, client } from '../../../api/client';
import { resources } from '../../../api/resources';
import { Checkbox } from '../../../ui/checkbox';
import { Disclosure } from '../../../ui/disclosure';
import { Because, Row, Why } from '../../../ui/length';
import { useTaker } from '../../../ui/taker';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { Avoids } from '../../avoids';
import { Choose, LengthField, Ticked } from '../../field';
import { TakeOut, useList } from '../../list';
import { useOpening } from '../../state';
import { Templates } from '../../templates';
import { HingeKinds } from './kinds';

/** HingesStep marks the hinges on slab and jamb. */
export function HingesStep() {
	const { view, leaf } = useOpening();
	const h = view.opening.hinges;
	return (
		<>
			{leaf.hinges.length > 0 && <Marks />}
			<Gauge />
			<Hang />
			<Choose
				pointer="/hinges/from"
				label={say('hinges.places-come-from')}
				options={[
					{ value: 'pockets', text: say('hinges.the-recesses-in-the-jamb') },
					{ value: 'own', text: say('hinges.your-own-places-or-those') },
					{ value: 'whole', text: say('hinges.one-continuous-hinge-along-the') },
					...trade.hingeRules.map((r) => ({ value: r.id, text: r.name, note: r.source })),
				]}
			/>
			{h.from === 'pockets' && <Pockets />}
			{h.from === 'own' && <Places />}
			{h.from !== 'pockets' && h.from !== 'own' && h.from !== 'whole' && (
				<>
					<Choose
						pointer="/hinges/count"
						label={say('hinges.number-of-hinges')}
						row
						options={[
							{ value: 2, text: say('hinges.of-two') },
							{ value: 3, text: say('hinges.of-three') },
						]}
					/>
					{h.count === 3 && (
						<Choose
							pointer="/hinges/third"
							label={say('hinges.the-third')}
							row
							unset="midway"
							options={[
								{ value: 'midway', text: say('hinges.midway') },
								{ value: 'up', text: say('hinges.moved-up-under-the-weight') },
							]}
						/>
					)}
				</>
			)}
			<Templates step="hinges" />
			<Hollowed />
			<Avoids path="/hinges/avoid" of={say('hinges.what-the-leaves-stay-clear')} jamb />
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2">
				<h2 className="text-lg sm:col-span-2">{say('hinges.the-hinge')}</h2>
				<HingeKinds />
				<LengthField pointer="/hinges/leaf" label={say('hinges.length-of-leaf')} />
				<LengthField pointer="/hinges/width" label={say('hinges.width-let-in')} />
				<LengthField pointer="/hinges/plate" label={say('hinges.leaf-thickness')} />
				<LengthField pointer="/hinges/closed" label={say('hinges.closed-over-both-leaves')} />
				<LengthField
					pointer="/hinges/jamb"
					label={say('hinges.the-jambs-own-thickness')}
					placeholder={say('page.not-measured-yet')}
					empty={0}
				/>
				<div className="sm:col-span-2">
					<Ticked pointer="/hinges/long" text={say('hinges.cut-the-lower-recesses-a')} />
				</div>
			</section>
		</>
	);
}

/** Pockets takes each existing recess from the head, never from one another. */
function Pockets() {
	const { view, save } = useOpening();
	const pockets = view.opening.hinges.pockets ?? [];
	const [error, attempt] = useAttempt();
	const old = view.opening.hinges.old ?? [];
	const put = async (value: unknown[], label: string, known = old) => {
		await attempt(async () => {
			await save(
				[
					{ op: 'add', path: '/hinges/pockets', value },
					{ op: 'add', path: '/hinges/old', value: known },
				],
				label,
			);
		});
	};
	return (
		<section className="mb-4 grid gap-2">
			<p>{say('hinges.from-the-head-to-the')}</p>
			{pockets.map((_, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a pocket is its place in the order
				<div key={i} className="flex items-end gap-2 flex-wrap border-b border-base-300 pb-2">
					<div className="grow basis-28">
						<LengthField
							pointer={`/hinges/pockets/${i}`}
							label={say('hinges.recess-number', { number: i + 1 })}
						/>
					</div>
					<button
						type="button"
						className="btn btn-ghost"
						onClick={() =>
							put(
								pockets.filter((_, k) => k !== i),
								say('hinges.took-out-recess-number', { number: i + 1 }),
								old.filter((_, k) => k !== i),
							)
						}
					>
						{say('page.take-out')}
					</button>
					<OldPocket at={i} />
				</div>
			))}
			{pockets.length < 3 && (
				<NewPocket
					key={pockets.length}
					add={(t) => put([...pockets, t], say('hinges.recess-at-at', { at: t }))}
				/>
			)}
			<Said error={error} />
		</section>
	);
}

function NewPocket({
	add,
	label = say('hinges.another-recess'),
	field = 'new-pocket',
}: {
	add: (text: string) => void;
	label?: string;
	field?: string;
}) {
	const [text, setText] = useState('');
	const input = useRef<HTMLInputElement>(null);
	const held = useTaker(input, { value: text, type: setText, enter: add });
	return (
		<form
			className="flex items-end gap-2"
			onSubmit={(e) => {
				e.preventDefault();
				add(text);
			}}
		>
			<label className="grow">
				<span className="block mb-1">{label}</span>
				<input
					ref={input}
					data-tape
					onFocus={held}
					data-field={field}
					className="input w-full text-xl dim"
					value={text}
					onChange={(e) => setText(e.target.value)}
				/>
			</label>
			<button type="submit" className="btn">
				{say('page.add')}
			</button>
		</form>
	);
}

/** OldPocket takes what is known of one old recess and its leaf. */
function OldPocket({ at: i }: { at: number }) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const list = view.opening.hinges.old ?? [];
	const old = list[i];
	const put = (value: object, label: string) =>
		attempt(async () => {
			const all = (view.opening.hinges.pockets ?? []).map((_, k) => list[k] ?? {});
			all[i] = { ...all[i], ...value };
			await save([{ op: 'add', path: '/hinges/old', value: all }], label);
		});
	const faults = old?.faults ?? [];
	return (
		<Disclosure
			className="basis-full"
			open={!!old && (faults.length > 0 || !!old.long)}
			title={say('hinges.its-size-and-the-old')}
		>
			{old ? (
				<div className="grid grid-cols-2 gap-2">
					<LengthField pointer={`/hinges/old/${i}/long`} label={say('page.long')} empty={0} />
					<LengthField pointer={`/hinges/old/${i}/wide`} label={say('page.wide')} empty={0} />
					<LengthField pointer={`/hinges/old/${i}/deep`} label={say('page.deep')} empty={0} />
					<LengthField pointer={`/hinges/old/${i}/round`} label={say('hinges.corner-radius')} empty={0} />
				</div>
			) : (
				<button
					type="button"
					className="btn btn-sm h-11"
					data-old={i}
					onClick={() => put({}, say('hinges.checked-recess-number', { number: i + 1 }))}
				>
					{say('hinges.check-it-over')}
				</button>
			)}
			{old && (
				<fieldset className="flex flex-wrap gap-x-4 mt-1">
					<legend className="sr-only">{say('hinges.what-is-wrong-with-the', { number: i + 1 })}</legend>
					{trade.faults.map((f) => (
						<Checkbox
							key={f.id}
							data-fault={`${i} ${f.id}`}
							checked={faults.includes(f.id)}
							onChange={(e) =>
								put(
									{ faults: e.target.checked ? [...faults, f.id] : faults.filter((x) => x !== f.id) },
									say('hinges.recess-number-name', { number: i + 1, name: f.name }),
								)
							}
						>
							{f.name}
						</Checkbox>
					))}
					<Checkbox
						checked={old.filled ?? false}
						onChange={(e) =>
							put({ filled: e.target.checked }, say('hinges.recess-number-filled', { number: i + 1 }))
						}
					>
						{say('hinges.filled-with-wood-glued-in')}
					</Checkbox>
				</fieldset>
			)}
			<Said error={error} />
		</Disclosure>
	);
}

/** Places takes the hinges' places by hand, on the slab. */
function Places() {
	const { view } = useOpening();
	const places = view.opening.hinges.places ?? [];
	const { error, put } = useList('/hinges/places');
	return (
		<section className="mb-4 grid gap-2">
			<p>{say('hinges.from-the-slabs-finished-top')}</p>
			<AsOn put={put} />
			{places.map((_, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a place is its place in the order
				<div key={i} className="flex items-end gap-2">
					<div className="grow">
						<LengthField
							pointer={`/hinges/places/${i}`}
							label={say('hinges.hinge-number', { number: i + 1 })}
							empty={0}
						/>
					</div>
					<TakeOut list={places} at={i} put={put} label={say('hinges.hinge-change', { number: i + 1 })} />
				</div>
			))}
			{places.length < 4 && (
				<NewPocket
					key={places.length}
					label={say('hinges.another-hinge')}
					field="new-place"
					add={(t) => put([...places, t], say('hinges.hinge-at-at', { at: t }))}
				/>
			)}
			<Said error={error} />
		</section>
	);
}

/** AsOn takes the places of another opening of the house, so that the hinges line up. */
function AsOn({ put }: { put: (value: unknown[], label: string) => Promise<boolean> }) {
	const { view } = useOpening();
	const job = view.job.id;
	const [error, attempt] = useAttempt();
	const walk = useQuery(resources.walk(job));
	const others = (walk.data?.openings ?? []).filter((d) => d.id !== view.opening.id);
	if (others.length === 0) return null;
	return (
		<label className="block">
			<span className="block mb-1">{say('hinges.as-on-another-door')}</span>
			<select
				className="select w-full"
				data-field="as-on"
				value=""
				onChange={(e) => {
					const other = others.find((d) => d.id === e.target.value);
					attempt(async () => {
						const path = { job, opening: e.target.value };
						const rod = await ask(client.GET('/api/jobs/{job}/openings/{opening}/rod', { params: { path } }));
						const tops = rod.marks.filter((m) => m.id.endsWith('/top')).map((m) => m.slab.mm);
						await put(tops, say('hinges.hinges-as-on-other', { other: other?.name }));
					});
				}}
			>
				<option value="">{say('hinges.choose-a-door')}</option>
				{others.map((d) => (
					<option key={d.id} value={d.id}>
						{d.name}
					</option>
				))}
			</select>
			<Said error={error} />
		</label>
	);
}

/** Hollowed is the slab's edge following a jamb that bellies in, where it does. */
function Hollowed() {
	const { view, leaf } = useOpening();
	const said = [...view.plan.findings, ...leaf.findings].some((f) => f.code.startsWith('jamb-hollow'));
	if (!said && !view.opening.hinges.hollow) return null;
	return (
		<div className="sm:col-span-2">
			<Ticked pointer="/hinges/hollow" text={say('hinges.hollow-the-hinge-edge-to')} />
		</div>
	);
}

/** Marks are the marks of each hinge, on the slab and in the jamb. */
function Marks() {
	const { leaf } = useOpening();
	return (
		<section className="mb-4">
			<table className="w-full">
				<thead>
					<tr className="text-left text-sm opacity-80">
						<th className="font-normal">{say('hinges.to-the-top-of-each')}</th>
						<th className="font-normal text-right">{say('page.slab-from-its-top')}</th>
						<th className="font-normal text-right">{say('page.jamb-from-the-head')}</th>
					</tr>
				</thead>
				<tbody>
					{leaf.hinges.map((m) => (
						<tr key={m.name} className="border-t border-base-300">
							<td className="py-1">
								{m.name}
								{m.packed && (
									<div className="text-sm">
										{say(m.pack.mm > 0 ? 'hinges.packer' : 'hinges.deeper')}{' '}
										<Why
											figure={{
												...m.pack,
												text: {
													mm: m.pack.text.mm.replace('-', ''),
													in: m.pack.text.in.replace('-', ''),
												},
											}}
											title={say('hinges.name-the-planned-margin-less', { name: m.name })}
										/>
									</div>
								)}
							</td>
							<td className="text-right text-2xl dim">
								<Why
									figure={m.slab}
									title={say('hinges.name-on-the-slab', { name: m.name })}
									id={`hinge-slab-${m.id}`}
									bare
								/>
							</td>
							<td className="text-right text-2xl dim">
								<Why
									figure={m.jamb}
									title={say('hinges.name-on-the-jamb', { name: m.name })}
									id={`hinge-jamb-${m.id}`}
									bare
								/>
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</section>
	);
}

/** Gauge is the settings of the marking gauge, and the hinges' load. */
function Gauge() {
	const { leaf } = useOpening();
	const g = leaf.gauges;
	return (
		<section className="mb-5">
			<h2 className="text-lg">{say('hinges.marking-gauge')}</h2>
			<Row label={say('hinges.depth-of-recess')} note={say('hinges.leaf-thickness-flush-and-flat')}>
				<Why figure={g.depth} title={say('hinges.depth-of-recess')} id="gauge-depth" />
			</Row>
			<Row label={say('hinges.width-of-recess')} note={say('hinges.leaf-width-from-the-pull')}>
				<Why figure={g.width} title={say('hinges.width-of-recess')} id="gauge-width" />
			</Row>
			{g.setback.terms.length > 0 && (
				<Row label={say('hinges.setback')} note={say('hinges.wood-left-behind-the-recess')}>
					<Why figure={g.setback} title={say('hinges.setback')} id="setback" />
				</Row>
			)}
			<Row label={say('hinges.hinge-margin')} note={say('hinges.with-both-leaves-flush')}>
				<Why figure={g.flush} title={say('page.hinge-margin-leaves-flush')} />
			</Row>
			{g.pull && (
				<Row label={say('hinges.pull-on-the-top-hinge')} note={say('hinges.about-the-bottom-one-is')}>
					<Because text={g.pull} why={g.pullWhy} title={say('hinges.pull-on-the-top-hinge')} id="pull" />
				</Row>
			)}
		</section>
	);
}

/** Hang is how the marks are carried to the jamb, and the slab to its hinges. */
function Hang() {
	const { view, leaf } = useOpening();
	if (!leaf.hanging) return null;
	return (
		<section className="mb-5" data-hanging>
			<h2 className="text-lg">{say('hinges.mark-the-jamb-and-hang')}</h2>
			<ol className="list-decimal pl-5 grid gap-1">
				{leaf.hanging.steps.map((s) => (
					<li key={s}>{s}</li>
				))}
			</ol>
			{leaf.hanging.goes && <p className="mt-2">{leaf.hanging.goes}</p>}
			{leaf.hanging.screws.length > 0 && (
				<ul className="mt-2 list-disc pl-5" data-screws>
					{leaf.hanging.screws.map((s) => (
						<li key={s}>{s}</li>
					))}
				</ul>
			)}
			<p className="mt-2 flex flex-wrap gap-x-6">
				<span>
					{say('hinges.wedge-shut')}{' '}
					<Why figure={leaf.hanging.shut} title={say('hinges.wedge-under-the-free-corner')} id="wedge-shut" />
				</span>
				<span>
					{say('hinges.wedge-open')}{' '}
					<Why
						figure={leaf.hanging.open}
						title={say('hinges.wedge-under-the-free-corner-open')}
						id="wedge-open"
					/>
				</span>
			</p>
			<p className="mt-2 flex flex-wrap gap-2">
				<Link className="btn" to={`/cards/${view.job.id}/${view.opening.id}`}>
					{say('hinges.one-card-at-a-time')}
				</Link>
				<Link className="btn" to={`/rod/${view.job.id}/${view.opening.id}`} data-rod-link>
					{say('hinges.a-story-rod-for-the')}
				</Link>
			</p>
		</section>
	);
}
