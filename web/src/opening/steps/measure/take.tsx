import { useState } from 'react';
import { type Labels, named } from '../../../api/attempt';
import type { Trouble, Unit } from '../../../api/client';
import { coarse } from '../../../ui/keypad';
import { Tape } from '../../../ui/tape';
import { say } from '../../../words/texts';
import { kindOf } from '../../../words/trade';
import { saidOf, useDraft } from '../../kept';
import { useOpening } from '../../state';
import { choose } from './open';

/** Draft is a reading without its value yet; places may be as typed. */
export type Draft = {
	kind: string;
	side?: string;
	at?: string | number;
	from?: string | number;
	to?: string | number;
	offer?: string;
	blocked?: boolean;
	tool?: string;
	turned?: boolean;
};

/** TakeReading is the entry of one reading; Enter takes it. */
export function TakeReading({
	name,
	how,
	reading,
	labels,
	typing,
}: {
	name: string;
	how?: string;
	reading: Draft;
	/** Of the entries of its place, where they are typed too. */
	labels?: Labels;
	/** Called when there is a draft, or no longer. */
	typing?: (yes: boolean) => void;
}) {
	const { view, save } = useOpening();
	// A draft belongs to one reading.
	const { text, setText, remember } = useDraft(say('measure.reading-name', { name }), '');
	const [error, setError] = useState('');
	const [waits, setWaits] = useState('');
	const type = (t: string) => {
		setText(t);
		remember(t || undefined);
		setError('');
		setWaits('');
		typing?.(t !== '');
	};
	const gap = reading.kind === 'gap';
	const before = gap
		? view.opening.readings.findLastIndex((r) => r.kind === 'gap' && r.offer === reading.offer && !r.blocked)
		: -1;
	const same = before < 0 ? '' : (view.texts[`/readings/${before}/value`] ?? '');
	const take = async (text: string, blocked = false) => {
		// Enter alone is the same packer as before.
		const typed = text.trim() === '' && same ? same : text;
		try {
			const value = { id: '', ...reading, ...(blocked ? { blocked } : {}), value: typed };
			remember(); // the next reading must not find it
			await save([{ op: 'add', path: '/readings/-', value }], `${name} ${typed}`);
			choose('');
			setText('');
			typing?.(false);
		} catch (e) {
			const own = (p: string) => p.endsWith('/value');
			const said = (e as Trouble).fields?.some((f) => own(f.pointer)) ? saidOf(e, own) : named(e, labels);
			if ((e as Trouble).status === 0) {
				// It waits in the queue: the entry is free for the next.
				choose('');
				setText('');
				typing?.(false);
				setWaits(said);
				return;
			}
			remember(typed);
			setError(said);
		}
	};
	const thinnest = view.job.unit === 'in' ? '1/32' : '1';
	return (
		<>
			<Tape
				id="next-reading"
				next
				settles="/readings"
				label={how ?? name}
				big
				autoFocus={!coarse()}
				value={text}
				unit={view.job.unit as Unit}
				onChange={type}
				onEnter={take}
				error={error}
				waits={waits}
				placeholder={
					same
						? say('measure.as-before-same', { same })
						: kindOf(reading.kind)?.example[view.job.unit as Unit]
				}
			/>
			{gap && (
				<div className="flex flex-wrap gap-2 mt-2">
					<button type="button" className="btn text-lg" data-gap="nothing" onClick={() => take('0', true)}>
						{say('measure.nothing-passes')}
					</button>
					<button type="button" className="btn text-lg" data-gap="thinnest" onClick={() => take(thinnest)}>
						{say('measure.the-thinnest-passes-packer', { packer: thinnest })}
					</button>
					{same && (
						<button type="button" className="btn text-lg" data-gap="same" onClick={() => take('')}>
							{say('measure.same-as-before-same', { same })}
						</button>
					)}
				</div>
			)}
		</>
	);
}
