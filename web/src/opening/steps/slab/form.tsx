import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import type { Schemas, Unit } from '../../../api/client';
import { at } from '../../../api/pointer';
import { resources } from '../../../api/resources';
import { Checkbox } from '../../../ui/checkbox';
import { Len, pick, Row, Why } from '../../../ui/length';
import { Phrase } from '../../../words/phrase';
import { say } from '../../../words/texts';
import { edgeName, handName, trade } from '../../../words/trade';
import { Choose, LengthField } from '../../field';
import { useOpening } from '../../state';

/** SlabStep shows the size of slab for the opening and which to buy, and takes the one at hand. */
export function SlabStep() {
	const { view, leaf, slab } = useOpening();
	const wanted = leaf.finished;
	const built = String(at(view.opening, `${slab}/construction`) ?? '');
	const unit = view.job.unit as Unit;
	return (
		<>
			{wanted ? (
				<section className="mb-5">
					<h2 className="text-lg">{say('slab.the-finished-slab')}</h2>
					<Row
						label={say('page.width')}
						note={say(built ? 'slab.at-its-widest-buy-this' : 'slab.at-its-widest')}
					>
						<Why figure={wanted.width} title={say('slab.finished-width')} id="finished-width" />
					</Row>
					<Row
						label={say('page.length')}
						note={say(built ? 'slab.at-its-longest-buy-this' : 'slab.at-its-longest')}
					>
						<Why figure={wanted.length} title={say('slab.finished-length')} id="finished-length" />
					</Row>
				</section>
			) : (
				<p className="mb-4">{say('slab.first-read-a-width-and')}</p>
			)}
			<Construction built={built} />
			{wanted && <WhichToBuy built={built !== ''} />}
			<section className="grid gap-3">
				<h2 className="text-lg">{say('slab.the-slab-on-the-trestles')}</h2>
				<p className="text-sm mb-2">{say('slab.measure-it-with-the-tape')}</p>
				<LengthField pointer={`${slab}/width`} label={say('slab.width-at-the-top')} />
				<LengthField pointer={`${slab}/length`} label={say('slab.length-on-the-hinge-edge')} />
				<LengthField pointer={`${slab}/thickness`} label={say('page.thickness')} />
				<details>
					<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
						{say('slab.more-sizes-other-widths-the')}
					</summary>
					<div className="grid sm:grid-cols-2 gap-3 pt-1">
						<LengthField pointer={`${slab}/widthMid`} label={say('slab.width-in-the-middle')} optional />
						<LengthField pointer={`${slab}/widthFoot`} label={say('slab.width-at-the-bottom')} optional />
						<LengthField
							pointer={`${slab}/lengthLock`}
							label={say('slab.length-on-the-lock-edge')}
							optional
						/>
						<LengthField pointer={`${slab}/square`} label={say('slab.top-how-much-higher-at')} optional />
					</div>
				</details>
				<details>
					<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
						{say('slab.which-way-round-it-lies')}
					</summary>
					<div className="grid gap-1 pt-1">
						<Choose
							pointer={`${slab}/made`}
							label={say('slab.bored-recessed-or-bevelled-for')}
							row
							unset="none"
							options={[
								{ value: 'left', text: handName('left') },
								{ value: 'right', text: handName('right') },
								{ value: 'none', text: say('slab.either'), remove: true },
							]}
						/>
						<Choose
							pointer={`${slab}/block`}
							label={say('slab.a-hollow-slabs-lock-block')}
							row
							unset="none"
							options={[
								{ value: 'lock', text: edgeName('lock') },
								{ value: 'hinge', text: edgeName('hinge') },
								{ value: 'none', text: say('slab.not-checked'), remove: true },
							]}
						/>
						<TopDown />
					</div>
				</details>
				<details>
					<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
						{say('slab.bores-and-recesses-already-there')}
					</summary>
					<div className="grid gap-3 pt-1">
						<Machined />
						<LengthField
							pointer={`${slab}/handle`}
							label={say('slab.a-handles-bore-down-from')}
							optional
							note={say('slab.so-that-it-ends-at')}
						/>
						<LengthField pointer={`${slab}/pivot`} label={say('slab.a-folding-doors-pivot-holes')} optional />
						<div className="grid sm:grid-cols-2 gap-3">
							{['head', 'hinge', 'lock', 'foot'].map((s) => (
								<LengthField
									key={s}
									pointer={`${slab}/limits/${s}`}
									label={say('slab.most-off-edge', { edge: edgeName(s) })}
									optional
									placeholder={pick(
										trade.constructions
											.find((c) => c.id === (built || 'flush'))
											?.most.find((m) => m.side === s)?.text ?? { mm: '', in: '' },
										unit,
									)}
								/>
							))}
						</div>
					</div>
				</details>
			</section>
		</>
	);
}

/** Construction is how the slab is built, and what that allows. */
function Construction({ built }: { built: string }) {
	const { view, save, slab } = useOpening();
	const unit = view.job.unit as Unit;
	const [error, attempt] = useAttempt();
	const now = trade.constructions.find((c) => c.id === built);
	return (
		<div className="mb-4">
			<label>
				<span className="block mb-1">{say('slab.how-it-is-built')}</span>
				<select
					className="select w-full text-lg"
					data-field="construction"
					value={built}
					onChange={async (e) => {
						await attempt(async () => {
							await save(
								[{ op: 'add', path: `${slab}/construction`, value: e.target.value }],
								say('slab.built', {
									construction: trade.constructions.find((c) => c.id === e.target.value)?.name,
								}),
							);
						});
					}}
				>
					<option value="">{say('page.not-known-yet')}</option>
					{trade.constructions.map((c) => (
						<option key={c.id} value={c.id}>
							{c.name}
						</option>
					))}
				</select>
			</label>
			{now && (
				<p className="text-sm opacity-85 mt-1">
					{now.note}{' '}
					{say('slab.may-lose', {
						most: now.most.map((m) => `${edgeName(m.side)} ${pick(m.text, unit) || '0'}`).join(', '),
						source: now.source,
					})}
				</p>
			)}
			<Said error={error} />
		</div>
	);
}

function Machined() {
	const { view, save, slab } = useOpening();
	const now = (at(view.opening, `${slab}/machined`) ?? []) as string[];
	const [error, attempt] = useAttempt();
	return (
		<fieldset>
			<legend>{say('slab.edges-with-bores-or-recesses')}</legend>
			<div className="flex flex-wrap gap-x-6">
				{['hinge', 'lock', 'head', 'foot'].map((s) => (
					<Checkbox
						key={s}
						data-field={`machined-${s}`}
						checked={now.includes(s)}
						onChange={async (e) => {
							const value = e.target.checked ? [...now, s] : now.filter((x) => x !== s);
							await attempt(async () => {
								await save(
									[{ op: 'add', path: `${slab}/machined`, value }],
									say('slab.machined', { edges: value.map(edgeName).join(', ') || say('page.none') }),
								);
							});
						}}
					>
						{edgeName(s)}
					</Checkbox>
				))}
			</div>
			<Said error={error} />
		</fieldset>
	);
}

type StockFit = Schemas['StockFit'];

/** WhichToBuy compares the stock sizes with the opening: those that fit, and why the nearest others do not. */
function WhichToBuy({ built }: { built: boolean }) {
	const { view, save, which, slab } = useOpening();
	const [all, setAll] = useState(false);
	const [error, attempt] = useAttempt();
	const stock = useQuery(resources.stock(view.job.id, view.opening.id, which, view.version));
	const take = async (f: StockFit) => {
		const clear = (['widthMid', 'widthFoot', 'lengthLock', 'square'] as const)
			.filter((k) => at(view.opening, `${slab}/${k}`))
			.map((k) => ({ op: 'remove' as const, path: `${slab}/${k}` }));
		await attempt(async () => {
			await save(
				[
					...clear,
					{ op: 'add', path: `${slab}/width`, value: f.width.mm },
					{ op: 'add', path: `${slab}/length`, value: f.length.mm },
					{ op: 'add', path: `${slab}/thickness`, value: f.thickness.mm },
				],
				say('slab.slab-from-stock-width-length', { width: f.width.mm, length: f.length.mm }),
			);
		});
	};
	const list = stock.data ?? [];
	const fits = list.filter((f) => f.fits);
	const near = list.filter((f) => !f.fits);
	const shown = all ? list : [...fits.slice(0, 3), ...near.slice(0, fits.length ? 1 : 3)];
	return (
		<section className="mb-5" aria-label={say('slab.which-to-buy')}>
			<h2 className="text-lg">{say('slab.which-to-buy')}</h2>
			{stock.error && <p className="text-error">{stock.error.message}</p>}
			{!built && <p className="py-1">{say('slab.say-first-how-it-is-built')}</p>}
			{stock.data && fits.length === 0 && <p className="py-1">{say('slab.no-stock-size-fits-within')}</p>}
			<ul>
				{shown.map((f) => {
					const off = (i: number) => f.off[i] ?? { mm: 0, text: { mm: '0', in: '0' } };
					return (
						<li
							key={`${f.width.mm} ${f.length.mm} ${f.market}`}
							className="flex items-center gap-3 border-b border-base-300 py-1.5"
							data-stock={`${f.width.mm}x${f.length.mm}`}
							data-fits={f.fits}
						>
							<span className="grow">
								<span className="text-xl dim">
									<Len text={f.width.text} /> × <Len text={f.length.text} /> × <Len text={f.thickness.text} />
								</span>
								{f.best && built && <strong className="ml-2">{say('slab.buy-this')}</strong>}
								<span className="block text-sm opacity-85">
									{f.fits ? (
										<Phrase
											id="slab.off"
											of={{
												top: <Len text={off(0).text} />,
												hinge: <Len text={off(1).text} />,
												lock: <Len text={off(2).text} />,
												bottom: <Len text={off(3).text} />,
												weight: f.weight,
											}}
										/>
									) : (
										f.why
									)}
								</span>
							</span>
							{f.fits && (
								<button type="button" className="btn" onClick={() => take(f)}>
									{say('slab.it-is-this')}
								</button>
							)}
						</li>
					);
				})}
			</ul>
			{list.length > shown.length && (
				<button type="button" className="btn btn-ghost" onClick={() => setAll(true)}>
					{say('slab.all-sizes-sizes-and-why', { sizes: list.length })}
				</button>
			)}
			<Said error={error} />
		</section>
	);
}

/** TopDown is whether the slab lies with its top at the foot. */
function TopDown() {
	const { view, slab, save } = useOpening();
	const [error, attempt] = useAttempt();
	return (
		<>
			<Checkbox
				data-field="top-down"
				checked={!!at(view.opening, `${slab}/topDown`)}
				onChange={(e) =>
					attempt(async () => {
						await save(
							[{ op: 'add', path: `${slab}/topDown`, value: e.target.checked }],
							e.target.checked ? say('slab.its-top-is-at-the') : say('slab.its-top-is-at-the-top'),
						);
					})
				}
			>
				{say('slab.the-end-marked-top-is')}
			</Checkbox>
			<Said error={error} />
		</>
	);
}
