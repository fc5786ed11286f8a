import { useState } from 'react';
import { Said } from '../api/attempt';
import { at } from '../api/pointer';
import { Disclosure } from '../ui/disclosure';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import { LengthField } from './field';
import { AddForm, Either, Entry, TakeOut, useList } from './list';
import { useOpening } from './state';

type Avoid = { what: string; slab?: boolean; at: number; long: number };

/** Avoids edits the occupied parts of an edge; jamb allows parts of the jamb too. */
export function Avoids({ path, of, jamb }: { path: string; of: string; jamb?: boolean }) {
	const { view } = useOpening();
	const list = (at(view.opening, path) as Avoid[] | undefined) ?? [];
	const { error, put } = useList(path, {
		what: say('page.what'),
		at: say('avoid.down-to-it'),
		long: say('page.long'),
	});
	const [what, setWhat] = useState('');
	const [place, setPlace] = useState('');
	const [long, setLong] = useState('');
	const [slab, setSlab] = useState(false);
	return (
		<Disclosure className="mb-4" open={list.length > 0} title={of} field="avoid-open">
			<div className="grid gap-2">
				<p className="text-sm opacity-80">
					{jamb ? say('avoid.an-old-latch-recess-or') : say('avoid.a-rail-joint-a-moulding')}
				</p>
				{list.map((a, i) => (
					// biome-ignore lint/suspicious/noArrayIndexKey: told by its order
					<div key={i} className="flex items-end gap-2 flex-wrap">
						<span className="basis-24 grow min-h-11 flex items-center" data-avoid={a.what}>
							{a.what}, {say(a.slab ? 'page.the-slab' : 'page.the-jamb')}
						</span>
						<div className="grow basis-20">
							<LengthField pointer={`${path}/${i}/at`} label={say('avoid.down-to-it')} empty={0} />
						</div>
						<div className="grow basis-20">
							<LengthField pointer={`${path}/${i}/long`} label={say('page.long')} />
						</div>
						<TakeOut list={list} at={i} put={put} label={say('page.the-thing', { thing: a.what })} />
					</div>
				))}
				<AddForm
					field="avoid-add"
					add={async () => {
						if (await put([...list, { what, slab: slab || !jamb, at: place, long }], what)) {
							setWhat('');
							setPlace('');
							setLong('');
						}
					}}
				>
					{jamb && (
						<Either
							name="avoid"
							legend={say('page.where-it-is')}
							choices={[
								[false, say('avoid.on-the-jamb-from-the')],
								[true, say('avoid.on-the-slab-from-its')],
							]}
							value={slab}
							set={setSlab}
						/>
					)}
					<Entry
						label={say('page.what')}
						value={what}
						set={setWhat}
						field="avoid-what"
						often={trade.obstacles}
					/>
					<Entry label={say('avoid.down-to-it')} value={place} set={setPlace} field="avoid-at" />
					<Entry label={say('page.long')} value={long} set={setLong} field="avoid-long" />
				</AddForm>
				<Said error={error} />
			</div>
		</Disclosure>
	);
}
