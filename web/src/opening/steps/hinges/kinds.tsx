import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { ask, client, newKey, type Op, type Schemas } from '../../../api/client';
import { resources } from '../../../api/resources';
import { Disclosure } from '../../../ui/disclosure';
import { Why } from '../../../ui/length';
import { Phrase } from '../../../words/phrase';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { typed } from '../../kept';
import { Entry } from '../../list';
import { useOpening } from '../../state';

type Way = Schemas['HingeWay'];

/**
 * HingeKinds takes the measures of a hinge of the list or of the job's own, shows what speaks against each, and keeps
 * the one in hand.
 */
export function HingeKinds() {
	const { view, save, which } = useOpening();
	const [error, attempt] = useAttempt();
	const ways = useQuery(
		resources.hinges(view.job.id, view.opening.id, which, view.version, view.job.version),
	);
	const list = ways.data ?? [];
	const size = view.opening.hinges.size ?? '';
	const known = list.find((h) => h.id === size);
	const take = (h?: Way) =>
		attempt(async () => {
			const set = (name: string, value: unknown): Op => ({ op: 'add', path: `/hinges/${name}`, value });
			await save(
				h
					? [
							set('size', h.id),
							set('leaf', h.leaf),
							set('width', h.width),
							set('plate', h.plate),
							set('closed', h.closed),
							...(h.kind === 'continuous' ? [set('from', 'whole')] : []),
							{ op: 'add', path: '/swing/pin', value: h.pin },
						]
					: [set('size', '')],
				say('hinges.change', { hinge: h?.name ?? say('hinges.of-your-own') }),
			);
		});
	return (
		<div className="sm:col-span-2 grid gap-2">
			<label className="block">
				<span className="block mb-1">{say('hinges.kind-and-size')}</span>
				<select
					className="select w-full"
					data-field="hinge-size"
					value={size}
					onChange={(e) => take(list.find((h) => h.id === e.target.value))}
				>
					<option value="">{say('hinges.sizes-of-your-own')}</option>
					{list.map((h) => (
						<option key={h.id} value={h.id}>
							{h.name}
							{h.fits ? '' : ` ${say('hinges.see-why-not')}`}
						</option>
					))}
				</select>
			</label>
			{known && (
				<p className="text-sm opacity-80">
					{known.note}
					{known.load && ` ${say('hinges.two-carry', { load: known.load })}`} {say('hinges.by-the-hinge')}
				</p>
			)}
			<Others list={list.filter((h) => h.id !== size)} take={take} />
			{!known?.own && <KeepOwn />}
			<Said error={error || ways.error?.message || ''} />
		</div>
	);
}

/** Others are the other hinges, those that fit first, and what speaks against the rest. */
function Others({ list, take }: { list: Way[]; take: (h: Way) => Promise<boolean> }) {
	const [open, setOpen] = useState(false);
	if (list.length === 0) return null;
	const inOrder = [...list.filter((h) => h.fits), ...list.filter((h) => !h.fits)];
	return (
		<details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="hinge-ways">
				{say('hinges.other-hinges-for-this-slab')}
			</summary>
			{open && (
				<ul>
					{inOrder.map((h) => (
						<li key={h.id} className="border-b border-base-300 py-2 flex gap-3 items-start" data-way={h.id}>
							<div className="grow">
								<Phrase
									id="hinges.with-margin"
									of={{
										hinge: <span className="font-semibold">{h.name}</span>,
										margin: <Why figure={h.flush} title={say('hinges.margin-with-name', { name: h.name })} />,
									}}
								/>
								{h.fits ? (
									<div className="text-sm opacity-80">{h.note}</div>
								) : (
									h.against.map((a) => (
										<div key={a} className="text-sm">
											{a}
										</div>
									))
								)}
							</div>
							<button type="button" className="btn btn-sm h-11" onClick={() => take(h)}>
								{say('page.use-it')}
							</button>
						</li>
					))}
				</ul>
			)}
		</details>
	);
}

/** KeepOwn keeps the hinge in hand, as it was measured, for all the job's openings. */
function KeepOwn() {
	const { view, save } = useOpening();
	const cache = useQueryClient();
	const [name, setName] = useState('');
	const [kind, setKind] = useState('butt');
	const [screws, setScrews] = useState('');
	const [gauge, setGauge] = useState('');
	const [long, setLong] = useState('');
	const [rise, setRise] = useState('');
	const [error, attempt] = useAttempt();
	const keep = () =>
		attempt(async () => {
			const { job } = view;
			const h = view.opening.hinges;
			const id = `own-${newKey().slice(0, 8)}`;
			const own = {
				id,
				name: name.trim(),
				kind,
				leaf: h.leaf,
				width: h.width,
				plate: h.plate,
				closed: h.closed,
				pin: view.opening.swing?.pin ?? 0,
				rise: kind === 'rising' ? typed(rise, job.unit) : 0,
				screws: Number(screws),
				gauge: Number(gauge),
				screw: typed(long, job.unit),
			};
			await ask(
				client.PATCH('/api/jobs/{job}', {
					params: { path: { job: job.id }, header: { 'If-Match': `"${job.version}"` } },
					body: { kit: { ...job.kit, hinges: [...(job.kit.hinges ?? []), own] } },
				}),
			);
			await save([{ op: 'add', path: '/hinges/size', value: id }], say('hinges.change', { hinge: own.name }));
			await cache.invalidateQueries({ queryKey: resources.openings(job.id) });
		});
	return (
		<Disclosure title={say('hinges.keep-this-hinge-for-the')} field="own-hinge-open">
			<form
				className="flex flex-wrap items-end gap-2"
				onSubmit={(e) => {
					e.preventDefault();
					keep();
				}}
			>
				<label className="grow basis-40">
					<span className="block mb-1">{say('page.called')}</span>
					<input
						className="input w-full"
						data-field="own-hinge"
						value={name}
						onChange={(e) => setName(e.target.value)}
					/>
				</label>
				<label className="grow basis-40">
					<span className="block mb-1">{say('page.kind')}</span>
					<select className="select w-full" value={kind} onChange={(e) => setKind(e.target.value)}>
						{trade.hingeKinds.map((k) => (
							<option key={k.id} value={k.id}>
								{k.name}
							</option>
						))}
					</select>
				</label>
				{kind === 'rising' && (
					<Entry label={say('hinges.rises-by-90')} value={rise} set={setRise} field="own-rise" />
				)}
				<Entry
					label={say('hinges.screws-in-each-leaf')}
					value={screws}
					set={setScrews}
					field="own-screws"
					number
				/>
				<Entry label={say('hinges.screw-number')} value={gauge} set={setGauge} field="own-gauge" number />
				<Entry label={say('hinges.screw-length')} value={long} set={setLong} field="own-long" />
				<button type="submit" className="btn" data-field="own-hinge-keep">
					{say('page.keep')}
				</button>
				<Said error={error} />
			</form>
		</Disclosure>
	);
}
