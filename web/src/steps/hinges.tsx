import { useState } from 'react';
import { Said, useAttempt } from '../attempt';
import { useDoor } from '../door-state';
import { Choose, LengthField } from '../field';
import { Len, Row, Why } from '../length';
import { trade } from '../trade';

/** HingesStep marks the hinges on slab and jamb. */
export function HingesStep() {
	const { view, leaf } = useDoor();
	const h = view.opening.hinges;
	const g = leaf.gauges;
	return (
		<>
			{leaf.hinges.length > 0 && (
				<section className="mb-4">
					<table className="w-full">
						<thead>
							<tr className="text-left text-sm opacity-80">
								<th className="font-normal">to the top of each leaf</th>
								<th className="font-normal text-right">slab, from its top</th>
								<th className="font-normal text-right">jamb, from the head</th>
							</tr>
						</thead>
						<tbody>
							{leaf.hinges.map((m) => (
								<tr key={m.name} className="border-t border-base-300">
									<td className="py-1">
										{m.name}
										{m.pack.mm !== 0 && (
											<div className="text-sm">
												{m.pack.mm > 0 ? 'packer behind the jamb leaf ' : 'jamb pocket deeper by '}
												<Why
													figure={{
														...m.pack,
														text: {
															mm: m.pack.text.mm.replace('-', ''),
															in: m.pack.text.in.replace('-', ''),
														},
													}}
													title={`${m.name}: the margin planned against the hinge's own`}
												/>
											</div>
										)}
									</td>
									<td className="text-right text-2xl dim">
										<Why figure={m.slab} title={`${m.name} on the slab`} id={`hinge-slab-${m.name}`} bare />
									</td>
									<td className="text-right text-2xl dim">
										<Why figure={m.jamb} title={`${m.name} on the jamb`} id={`hinge-jamb-${m.name}`} bare />
									</td>
								</tr>
							))}
						</tbody>
					</table>
				</section>
			)}
			<section className="mb-5">
				<h2 className="text-lg">Marking gauge</h2>
				<Row label="Depth of pocket" note="leaf thickness: flush and flat">
					<Len text={g.depth.text} unit />
				</Row>
				<Row label="Width of pocket" note="leaf width, from the pull face">
					<Len text={g.width.text} unit />
				</Row>
				{g.setback.mm !== 0 && (
					<Row label="Setback" note="wood left behind the pocket">
						<Len text={g.setback.text} unit />
					</Row>
				)}
				<Row label="Hinge margin" note="with both leaves flush">
					<Why figure={g.flush} title="Hinge margin, leaves flush" />
				</Row>
			</section>
			<Choose
				pointer="/hinges/from"
				label="Places come from"
				options={[
					{ value: 'pockets', text: 'the pockets that are in the jamb' },
					...trade.hingeRules.map((r) => ({ value: r.id, text: r.name, note: r.source })),
				]}
			/>
			{h.from === 'pockets' ? (
				<Pockets />
			) : (
				<Choose
					pointer="/hinges/count"
					label="Number of hinges"
					row
					options={[
						{ value: 2, text: 'two' },
						{ value: 3, text: 'three' },
					]}
				/>
			)}
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2">
				<h2 className="text-lg sm:col-span-2">The hinge</h2>
				<LengthField pointer="/hinges/leaf" label="Length of leaf" />
				<LengthField pointer="/hinges/width" label="Width let in" />
				<LengthField pointer="/hinges/plate" label="Leaf thickness" />
				<LengthField pointer="/hinges/closed" label="Closed, outside" />
			</section>
		</>
	);
}

/** Pockets takes each existing pocket from the head, never from one another. */
function Pockets() {
	const { view, save } = useDoor();
	const pockets = view.opening.hinges.pockets ?? [];
	const [error, attempt] = useAttempt();
	const put = async (value: unknown[], label: string) => {
		await attempt(async () => {
			await save([{ op: 'add', path: '/hinges/pockets', value }], label);
		});
	};
	return (
		<section className="mb-4 grid gap-2">
			<p>From the head to the top of each pocket, top one first; never from one another.</p>
			{pockets.map((_, i) => (
				// biome-ignore lint/suspicious/noArrayIndexKey: a pocket is its place in the order
				<div key={i} className="flex items-end gap-2">
					<div className="grow">
						<LengthField pointer={`/hinges/pockets/${i}`} label={`Pocket ${i + 1}`} />
					</div>
					<button
						type="button"
						className="btn btn-ghost"
						onClick={() =>
							put(
								pockets.filter((_, k) => k !== i),
								`took out pocket ${i + 1}`,
							)
						}
					>
						Take out
					</button>
				</div>
			))}
			{pockets.length < 3 && (
				<NewPocket key={pockets.length} add={(t) => put([...pockets, t], `pocket at ${t}`)} />
			)}
			<Said error={error} />
		</section>
	);
}

function NewPocket({ add }: { add: (text: string) => void }) {
	const [text, setText] = useState('');
	return (
		<form
			className="flex items-end gap-2"
			onSubmit={(e) => {
				e.preventDefault();
				add(text);
			}}
		>
			<label className="grow">
				<span className="block mb-1">Another pocket</span>
				<input
					data-tape
					data-field="new-pocket"
					className="input w-full text-xl dim"
					value={text}
					onChange={(e) => setText(e.target.value)}
				/>
			</label>
			<button type="submit" className="btn">
				Add
			</button>
		</form>
	);
}
