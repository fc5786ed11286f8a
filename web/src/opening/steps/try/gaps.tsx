import { X } from 'lucide-react';
import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import type { Trouble, Unit } from '../../../api/client';
import { coarse } from '../../../ui/keypad';
import { Len, Sure } from '../../../ui/length';
import { Tape } from '../../../ui/tape';
import { ToolButton } from '../../../ui/toolbutton';
import { capital, say } from '../../../words/texts';
import { marginName, trade } from '../../../words/trade';
import { saidOf, useDraft } from '../../kept';
import { readingID } from '../../reading-id';
import { useOpening } from '../../state';

/** Local is why a gap stands for its own place alone: a packer that was slid round binds there, or the light swings. */
type Local = 'bound' | 'lump';

/** NextGap offers the most informative gap; it is read with a packer, or by sight. */
export function NextGap() {
	const { leaf } = useOpening();
	const [skipped, setSkipped] = useState<string[]>([]);
	const [other, setOther] = useState(false);
	const t = leaf.try;
	// While something is typed the question stays, whatever is read elsewhere.
	type Asked = NonNullable<typeof t>['toRead'][number];
	const [held, setHeld] = useState<Asked | null>(null);
	const next = held ?? t?.toRead.find((r) => !skipped.includes(r.name));
	if (!t) return null;
	const outside = t.hangs.at(-1)?.outside ?? false;
	const looks = !next && t.look !== '';
	const slides = !next && t.slide !== '';
	const local = looks ? 'lump' : slides ? 'bound' : undefined;
	if (other) return <OtherGap outside={outside} local={local} close={() => setOther(false)} />;
	const more = t.toRead.length - 1;
	if (looks) return <Look lump={() => setOther(true)} />;
	if (slides) return <Slide binds={() => setOther(true)} />;
	return (
		<section aria-label={say('try.next-gap')} className="border-2 border-[var(--rod-edge)] p-3 mb-4">
			{next ? (
				<div data-question>
					<h2 className="text-2xl mb-1 first-letter:uppercase" data-next={readingID(next)}>
						{next.name}
					</h2>
					{more > 0 && (
						<p className="mb-1" data-more={more}>
							{say('try.more-round-the-door', { count: more })}
						</p>
					)}
					{outside && <p className="mb-1">{say('try.it-does-not-go-in-why')}</p>}
					<TakeGap
						key={next.name}
						name={next.name}
						side={next.side}
						at={next.at}
						outside={outside}
						typing={(yes) => setHeld(yes ? next : null)}
					/>
				</div>
			) : (
				<p className="text-lg" data-enough>
					<strong>{say('try.read-enough')}</strong> {say('try.read-enough-why')}
				</p>
			)}
			<div className="flex flex-wrap gap-2 mt-2">
				{next && (
					<button type="button" className="btn btn-ghost" onClick={() => setSkipped([...skipped, next.name])}>
						{say('page.skip-it')}
					</button>
				)}
				<button type="button" className="btn btn-ghost" data-field="other-gap" onClick={() => setOther(true)}>
					{say('try.another-place')}
				</button>
				<Outside now={outside} />
			</div>
		</section>
	);
}

/** Outside says that a slab does not go in: its gaps are then pencil marks. */
function Outside({ now }: { now: boolean }) {
	const { leaf, which, save } = useOpening();
	const [error, attempt] = useAttempt();
	const path = `/tried/${which - 1}/hangs/${(leaf.try?.hangs.length ?? 1) - 1}/outside`;
	return (
		<>
			<button
				type="button"
				className="btn btn-ghost"
				data-outside={now}
				onClick={() =>
					attempt(async () => {
						await save(
							now ? [{ op: 'remove', path }] : [{ op: 'add', path, value: true }],
							say(now ? 'try.goes-in' : 'try.does-not-go-in'),
						);
					})
				}
			>
				{say(now ? 'try.it-goes-in-after-all' : 'try.it-does-not-go-in')}
			</button>
			<Said error={error} />
		</>
	);
}

/** Look asks to look along the light, and to read the gap at a lump or a hollow. */
function Look({ lump }: { lump: () => void }) {
	const { leaf } = useOpening();
	const found = leaf.try?.hangs.at(-1)?.gaps.some((g) => g.local) ?? false;
	return (
		<AllRound
			field="looked"
			title={say('try.look-along')}
			asks={leaf.try?.look ?? ''}
			why={say('try.look-why')}
			well={say(found ? 'try.even-otherwise' : 'try.even-between')}
			saved={say('try.looked-along')}
			ill={say('try.a-lump')}
			read={lump}
		/>
	);
}

/** Slide asks for a packer to be slid all round. */
function Slide({ binds }: { binds: () => void }) {
	const { leaf } = useOpening();
	return (
		<AllRound
			field="slid"
			title={say('try.slide-it-round')}
			asks={leaf.try?.slide ?? ''}
			why={say('try.slide-why')}
			well={say('try.it-passes')}
			saved={say('try.passed-all-round')}
			ill={say('try.it-binds')}
			read={binds}
		/>
	);
}

/** AllRound asks for a look or a packer all round the slab: it is well everywhere, or a gap is read where it is not. */
function AllRound(p: {
	/** The field of the hang that says that it is well. */
	field: 'looked' | 'slid';
	title: string;
	asks: string;
	why: string;
	well: string;
	saved: string;
	ill: string;
	read: () => void;
}) {
	const { leaf, which, save } = useOpening();
	const [error, attempt] = useAttempt();
	const path = `/tried/${which - 1}/hangs/${(leaf.try?.hangs.length ?? 1) - 1}/${p.field}`;
	return (
		<section aria-label={p.title} className="border-2 border-[var(--rod-edge)] p-3 mb-4" data-round={p.field}>
			<h2 className="text-xl">{p.title}</h2>
			<p className="text-lg">{p.asks}</p>
			<p className="mb-2">{p.why}</p>
			<button
				type="button"
				className="btn btn-primary text-lg h-14 w-full"
				data-well
				onClick={() =>
					attempt(async () => {
						await save([{ op: 'add', path, value: true }], p.saved);
					})
				}
			>
				{p.well}
			</button>
			<button type="button" className="btn w-full mt-2 h-auto min-h-12" data-ill onClick={p.read}>
				{p.ill}
			</button>
			<Said error={error} />
		</section>
	);
}

/** TakeGap is the entry of one gap. */
function TakeGap({
	name,
	side,
	at,
	outside = false,
	local,
	typing,
	taken,
}: {
	name: string;
	side: string;
	at: number | string;
	outside?: boolean;
	local?: Local;
	/** Called when there is a draft, or no longer. */
	typing?: (yes: boolean) => void;
	/** Called once it is kept; the place is then asked for first. */
	taken?: () => void;
}) {
	const { view, leaf, which, save } = useOpening();
	const { text, setText, remember } = useDraft(say('try.gap-name', { name }), '');
	const [error, setError] = useState('');
	const [waits, setWaits] = useState('');
	const k = (leaf.try?.hangs.length ?? 1) - 1;
	const path = `/tried/${which - 1}/hangs/${k}`;
	const take = async (typed: string, sight = '') => {
		try {
			const value = {
				id: '',
				kind: 'gap',
				side,
				at,
				value: typed,
				...(sight && { sight }),
				...(local && { local: true }),
			};
			remember();
			const gap = { op: 'add', path: `${path}/gaps/-`, value } as const;
			await save(
				local === 'bound' ? [gap, { op: 'add', path: `${path}/bound`, value: true }] : [gap],
				`${name} ${sight || typed}`,
			);
			setText('');
			typing?.(false);
			taken?.();
		} catch (e) {
			const said = saidOf(e, (p) => p.endsWith('/value'));
			if ((e as Trouble).status === 0) {
				// It waits in the queue: the entry is free for the next.
				setText('');
				typing?.(false);
				setWaits(said);
				return;
			}
			remember(typed);
			setError(said);
		}
	};
	const inch = view.job.unit === 'in';
	return (
		<>
			<Tape
				id="next-gap"
				next
				settles="/tried"
				label={say(outside ? 'try.the-mark-from-the-edge' : 'try.the-packer-that-just-passes')}
				big
				autoFocus={!coarse() && !taken}
				value={text}
				unit={view.job.unit as Unit}
				onChange={(t) => {
					setText(t);
					remember(t || undefined);
					setError('');
					setWaits('');
					typing?.(t !== '');
				}}
				onEnter={take}
				error={error}
				waits={waits}
				placeholder={inch ? '1/8' : '2.5'}
			/>
			<div className="grid grid-cols-3 gap-2 mt-2">
				{(outside ? [] : trade.sights).map((s) => (
					<button
						key={s.id}
						type="button"
						className="btn text-base h-auto min-h-12 py-1.5 leading-tight"
						data-sight={s.id}
						onClick={() => take('0', s.id)}
					>
						{s.name}
					</button>
				))}
			</div>
		</>
	);
}

/** OtherGap is a gap at a place of the carpenter's own choice. */
function OtherGap({ outside, local, close }: { outside: boolean; local?: Local; close: () => void }) {
	const { view } = useOpening();
	const [side, setSide] = useState('lock');
	const [at, setAt] = useState('');
	const upright = side === 'lock' || side === 'hinge';
	return (
		<section
			aria-label={say('try.another-gap')}
			className="border-2 border-[var(--rod-edge)] p-3 mb-4 grid gap-2"
		>
			<fieldset className="grid grid-cols-4 gap-2">
				<legend className="mb-1">{say('try.beside-which-edge')}</legend>
				{['head', 'lock', 'hinge', 'foot'].map((s) => (
					<button
						key={s}
						type="button"
						className={`btn ${s === side ? 'btn-neutral' : ''}`}
						aria-pressed={s === side}
						onClick={() => setSide(s)}
					>
						{capital(marginName(s))}
					</button>
				))}
			</fieldset>
			<Tape
				id="gap-at"
				label={upright ? say('try.how-far-up-the-slab') : say('try.how-far-from-the-slabs')}
				autoFocus={!coarse()}
				value={at}
				unit={view.job.unit as Unit}
				onChange={setAt}
				onEnter={() => document.querySelector<HTMLElement>('[data-field="next-gap"]')?.focus()}
			/>
			<TakeGap
				name={say('try.margin-gap-at-at', { margin: marginName(side), at })}
				side={side}
				at={at}
				outside={outside}
				local={local}
				taken={local ? close : () => setAt('')}
			/>
			<button type="button" className="btn btn-ghost" onClick={close}>
				{say(local ? 'page.back' : 'try.back-to-the-best-next')}
			</button>
		</section>
	);
}

/** GapList is each gap as found with its prediction, to doubt or remove. */
export function GapList() {
	const { view, leaf, which, save } = useOpening();
	const [error, attempt] = useAttempt();
	const t = leaf.try;
	const k = (t?.hangs.length ?? 1) - 1;
	const hang = t?.hangs[k];
	if (!hang || hang.gaps.length === 0) return null;
	const earlier = t.hangs.slice(0, -1).filter((h) => h.gaps.length > 0);
	return (
		<section className="mb-4">
			<h2 className="text-lg mb-1">{say('try.gaps-of-this-try')}</h2>
			<table className="w-full">
				<thead>
					<tr className="text-left text-sm">
						<th className="font-normal">{say('page.where')}</th>
						<th className="font-normal text-right">{say('page.predicted')}</th>
						<th className="font-normal text-right">{say('page.found')}</th>
						<th>
							<span className="sr-only">{say('try.take-away')}</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{hang.gaps.map((g, i) => (
						<tr
							key={g.id}
							className={`border-b border-base-300 align-baseline ${g.struck ? 'line-through opacity-70' : ''}`}
							data-gap-row={readingID({ kind: 'gap', side: g.side, at: g.at })}
							data-off={g.off || undefined}
						>
							<td className="py-1 pr-2">
								{g.name}
								{g.local && (
									<span className="block text-sm" data-lump>
										{say('try.lump-or-hollow')}
									</span>
								)}
							</td>
							<td className="text-right dim whitespace-nowrap">
								<Len text={g.foretold.text} />
								<Sure text={g.foretold.plusMinus} />
							</td>
							<td className="text-right dim text-lg pl-3">
								{g.sight ? <span className="text-base">{g.sight}</span> : <Len text={g.found} />}
								{g.off && !g.struck && (
									<strong className="block text-sm text-warning">{say('try.not-as-predicted')}</strong>
								)}
							</td>
							<td className="w-11">
								<ToolButton
									onClick={() =>
										attempt(async () => {
											await save(
												[{ op: 'remove', path: `/tried/${which - 1}/hangs/${k}/gaps/${i}` }],
												say('try.took-away-name', { name: g.name }),
											);
										})
									}
								>
									<X size={18} aria-hidden="true" />
									<span className="sr-only">{say('try.take-away-name', { name: g.name })}</span>
								</ToolButton>
							</td>
						</tr>
					))}
				</tbody>
			</table>
			<Said error={error} />
			{earlier.map((h) => (
				<details key={h.id} className="mt-2">
					<summary className="min-h-11 flex items-center cursor-pointer underline">
						{h.revisit || say('try.try-hang', { hang: t.hangs.indexOf(h) + 1 })}
						{h.on && `, ${h.on}`}
					</summary>
					<ul>
						{h.gaps.map((g) => (
							<li key={g.id} className="flex gap-3 border-b border-base-300 py-0.5">
								<span className="grow">{g.name}</span>
								<span className="dim">{g.sight || <Len text={g.found} unit />}</span>
							</li>
						))}
					</ul>
				</details>
			))}
			<p className="sr-only">{say('try.figures-in-unit', { unit: view.job.unit })}</p>
		</section>
	);
}
