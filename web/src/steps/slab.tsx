import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { ask, client, type Schemas, type Unit } from '../api';
import { Said, useAttempt } from '../attempt';
import { useDoor } from '../door-state';
import { Choose, LengthField } from '../field';
import { Len, pick, Row, Why } from '../length';
import { at } from '../pointer';
import { trade } from '../trade';

/** SlabStep says what size of slab the opening takes and which to buy, and takes the one there is. */
export function SlabStep() {
	const { view, leaf, slab } = useDoor();
	const wanted = leaf.finished;
	const built = String(at(view.opening, `${slab}/construction`) ?? '');
	const unit = view.job.unit as Unit;
	return (
		<>
			{wanted ? (
				<section className="mb-5">
					<h2 className="text-lg">The finished slab</h2>
					<Row label="Width" note="at its widest; buy this or more">
						<Why figure={wanted.width} title="Finished width" id="finished-width" />
					</Row>
					<Row label="Length" note="at its longest; buy this or more">
						<Why figure={wanted.length} title="Finished length" id="finished-length" />
					</Row>
				</section>
			) : (
				<p className="mb-4">Read a width and a height first: then the size to buy stands here.</p>
			)}
			<Construction built={built} />
			{wanted && <WhichToBuy />}
			<section className="grid gap-3">
				<h2 className="text-lg">The slab on the trestles, uncut</h2>
				<p className="text-sm mb-2">
					Measure it with the tape or rods that read the opening: what they read wrong then cancels.
				</p>
				<LengthField pointer={`${slab}/width`} label="Width, at the head" />
				<LengthField pointer={`${slab}/length`} label="Length, on the hinge edge" />
				<LengthField pointer={`${slab}/thickness`} label="Thickness" />
				<details>
					<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
						Measured closer: other widths, the lock edge, out of square
					</summary>
					<div className="grid sm:grid-cols-2 gap-3 pt-1">
						<LengthField pointer={`${slab}/widthMid`} label="Width, middle" optional />
						<LengthField pointer={`${slab}/widthFoot`} label="Width, foot" optional />
						<LengthField pointer={`${slab}/lengthLock`} label="Length, lock edge" optional />
						<LengthField pointer={`${slab}/square`} label="Head: lock corner high (+)" optional />
					</div>
				</details>
				<details>
					<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
						Which way round it lies, and for which hand it was made
					</summary>
					<div className="grid gap-1 pt-1">
						<Choose
							pointer={`${slab}/made`}
							label="Bored, pocketed or bevelled for hinges on the"
							row
							unset="none"
							options={[
								{ value: 'left', text: 'left' },
								{ value: 'right', text: 'right' },
								{ value: 'none', text: 'either', remove: true },
							]}
						/>
						<Choose
							pointer={`${slab}/block`}
							label="A hollow slab's lock block, printed on one end, is along the"
							row
							unset="none"
							options={[
								{ value: 'lock', text: 'lock edge' },
								{ value: 'hinge', text: 'hinge edge' },
								{ value: 'none', text: 'not looked', remove: true },
							]}
						/>
						<TopDown />
					</div>
				</details>
				<details>
					<summary className="min-h-11 cursor-pointer flex items-center underline decoration-dotted underline-offset-4">
						Bores and recesses that are there, and what the maker allows
					</summary>
					<div className="grid gap-3 pt-1">
						<Machined />
						<LengthField
							pointer={`${slab}/handle`}
							label="A handle's bore: down from the slab's top"
							optional
							note="so that it ends at a usable height"
						/>
						<LengthField
							pointer={`${slab}/pivot`}
							label="A folding door's pivot holes: from the hinge edge"
							optional
						/>
						<div className="grid sm:grid-cols-2 gap-3">
							{['head', 'hinge', 'lock', 'foot'].map((s) => (
								<LengthField
									key={s}
									pointer={`${slab}/limits/${s}`}
									label={`Most off: ${s}`}
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
	const { view, save, slab } = useDoor();
	const unit = view.job.unit as Unit;
	const [error, attempt] = useAttempt();
	const now = trade.constructions.find((c) => c.id === built);
	return (
		<div className="mb-4">
			<label>
				<span className="block mb-1">How it is built</span>
				<select
					className="select w-full text-lg"
					data-field="construction"
					value={built}
					onChange={async (e) => {
						await attempt(async () => {
							await save(
								[{ op: 'add', path: `${slab}/construction`, value: e.target.value }],
								`built: ${e.target.value}`,
							);
						});
					}}
				>
					<option value="">not known yet</option>
					{trade.constructions.map((c) => (
						<option key={c.id} value={c.id}>
							{c.name}
						</option>
					))}
				</select>
			</label>
			{now && (
				<p className="text-sm opacity-85 mt-1">
					{now.note} May lose: {now.most.map((m) => `${m.side} ${pick(m.text, unit) || '0'}`).join(', ')} (
					{now.source}; the maker's word comes first).
				</p>
			)}
			<Said error={error} />
		</div>
	);
}

function Machined() {
	const { view, save, slab } = useDoor();
	const now = (at(view.opening, `${slab}/machined`) ?? []) as string[];
	const [error, attempt] = useAttempt();
	return (
		<fieldset>
			<legend>Edges that carry bores or pockets: never cut</legend>
			<div className="flex flex-wrap gap-x-6">
				{['hinge', 'lock', 'head', 'foot'].map((s) => (
					<label key={s} className="flex items-center gap-2 min-h-11">
						<input
							type="checkbox"
							className="checkbox"
							data-field={`machined-${s}`}
							checked={now.includes(s)}
							onChange={async (e) => {
								const value = e.target.checked ? [...now, s] : now.filter((x) => x !== s);
								await attempt(async () => {
									await save(
										[{ op: 'add', path: `${slab}/machined`, value }],
										`machined: ${value.join(', ') || 'none'}`,
									);
								});
							}}
						/>
						{s}
					</label>
				))}
			</div>
			<Said error={error} />
		</fieldset>
	);
}

type StockFit = Schemas['StockFit'];

/** WhichToBuy holds the stock sizes against the opening: those that fit, and why the nearest others do not. */
function WhichToBuy() {
	const { view, save, which, slab } = useDoor();
	const [all, setAll] = useState(false);
	const [error, attempt] = useAttempt();
	const path = { job: view.job.id, opening: view.opening.id };
	const stock = useQuery({
		queryKey: ['stock', path.job, path.opening, view.version, which],
		queryFn: () =>
			ask(
				client.GET('/api/jobs/{job}/openings/{opening}/stock', { params: { path, query: { leaf: which } } }),
			),
		placeholderData: (before) => before,
	});
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
				`slab from stock: ${f.width.mm} × ${f.length.mm} mm`,
			);
		});
	};
	const list = stock.data ?? [];
	const fits = list.filter((f) => f.fits);
	const near = list.filter((f) => !f.fits);
	const shown = all ? list : [...fits.slice(0, 3), ...near.slice(0, fits.length ? 1 : 3)];
	return (
		<section className="mb-5" aria-label="Which to buy">
			<h2 className="text-lg">Which to buy</h2>
			{stock.error && <p className="text-error">{stock.error.message}</p>}
			{stock.data && fits.length === 0 && (
				<p className="py-1">
					No stock size fits within what may come off: order one to size, or choose another construction.
				</p>
			)}
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
								{f.best && <strong className="ml-2">buy this</strong>}
								<span className="block text-sm opacity-85">
									{f.fits ? (
										<>
											off: head <Len text={off(0).text} />, hinge <Len text={off(1).text} />, lock{' '}
											<Len text={off(2).text} />, foot <Len text={off(3).text} />; about {f.weight}
										</>
									) : (
										f.why
									)}
								</span>
							</span>
							{f.fits && (
								<button type="button" className="btn" onClick={() => take(f)}>
									It is this
								</button>
							)}
						</li>
					);
				})}
			</ul>
			{list.length > shown.length && (
				<button type="button" className="btn btn-ghost" onClick={() => setAll(true)}>
					All {list.length} sizes, and why they fall out
				</button>
			)}
			<Said error={error} />
		</section>
	);
}

/** TopDown says that the slab lies with its top at the foot. */
function TopDown() {
	const { view, slab, save } = useDoor();
	const [error, attempt] = useAttempt();
	return (
		<>
			<label className="flex items-center gap-3 min-h-11">
				<input
					type="checkbox"
					className="checkbox"
					data-field="top-down"
					checked={!!at(view.opening, `${slab}/topDown`)}
					onChange={(e) =>
						attempt(async () => {
							await save(
								[{ op: 'add', path: `${slab}/topDown`, value: e.target.checked }],
								e.target.checked ? 'its top lies at the foot' : 'its top lies at the head',
							);
						})
					}
				/>
				The end marked as its top lies at the foot
			</label>
			<Said error={error} />
		</>
	);
}
