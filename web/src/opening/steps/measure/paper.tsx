import { useEffect, useRef, useState } from 'react';
import type { Trouble, Unit } from '../../../api/client';
import { onward, Tape } from '../../../ui/tape';
import { capital, say } from '../../../words/texts';
import { LengthField } from '../../field';
import { saidOf } from '../../kept';
import { readingID } from '../../reading-id';
import { useOpening } from '../../state';
import { type Open, openReadings, readingOf } from './open';

/** FromPaper takes readings that were written down first: a line each, and Enter or Tab goes to the next. */
export function FromPaper({ close }: { close: () => void }) {
	const { view } = useOpening();
	// As it was opened: a line stays where it is once it is entered.
	const [lines] = useState(() =>
		openReadings(view).toSorted((a, b) => order(view.usual, a) - order(view.usual, b)),
	);
	const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
	const [done, setDone] = useState(false);
	// What is typed and not kept holds the list open: a line that is refused says why.
	useEffect(() => {
		if (done && open.size === 0) close();
	}, [done, open, close]);
	const typing = (id: string, yes: boolean) => {
		if (yes) setDone(false);
		setOpen((was) => {
			const now = new Set(was);
			if (yes) now.add(id);
			else now.delete(id);
			return now;
		});
	};
	return (
		<section
			aria-label={say('measure.from-paper')}
			className="border-2 border-[var(--rod-edge)] p-3 mb-4"
			data-paper
		>
			<h2 className="text-xl mb-1">{say('measure.from-paper')}</h2>
			<p className="mb-2">{say('measure.from-paper-how')}</p>
			<ul className="grid gap-2">
				{lines.map((r) => (
					<li key={readingID(r)} data-line={readingID(r)}>
						<Line r={r} typing={(yes) => typing(readingID(r), yes)} />
					</li>
				))}
			</ul>
			<button type="button" className="btn mt-3" onClick={() => setDone(true)} data-paper-done>
				{say('measure.all-entered')}
			</button>
		</section>
	);
}

/** order is a reading's place in the order of the work; what is not usual comes last. */
const order = (usual: Open[], r: Open) => {
	const i = usual.findIndex((u) => u.name === r.name);
	return i < 0 ? usual.length : i;
};

/** Line is one reading: once it is kept, it is corrected in place. */
function Line({ r, typing }: { r: Open; typing: (yes: boolean) => void }) {
	const { view, save } = useOpening();
	const [text, setText] = useState('');
	const [error, setError] = useState('');
	const [waits, setWaits] = useState('');
	const busy = useRef(false);
	const name = capital(r.name);
	const kept = view.opening.readings.findIndex((x) => readingID(x) === readingID(r) && !x.struck);
	if (kept >= 0) return <LengthField pointer={`/readings/${kept}/value`} label={name} />;
	const take = async (typed: string) => {
		if (!typed.trim() || busy.current || waits) return;
		busy.current = true;
		try {
			const value = { id: '', ...readingOf(r), value: typed };
			await save([{ op: 'add', path: '/readings/-', value }], `${r.name} ${typed}`);
			typing(false);
		} catch (e) {
			const said = saidOf(e, (p) => p.endsWith('/value'));
			if ((e as Trouble).status === 0) {
				setWaits(said);
				typing(false);
			} else {
				setError(said);
				typing(true);
			}
		}
		busy.current = false;
	};
	return (
		<Tape
			id={`paper ${readingID(r)}`}
			label={name}
			note={r.how}
			value={text}
			unit={view.job.unit as Unit}
			onChange={(t) => {
				setText(t);
				setError('');
				setWaits('');
				typing(t.trim() !== '');
			}}
			onLeave={take}
			onEnter={() => onward(document.activeElement as HTMLElement)}
			error={error}
			waits={waits}
		/>
	);
}
