import { ArrowLeft, ArrowRight, Check, TriangleAlert } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { Said, useAttempt } from '../../api/attempt';
import type { Unit } from '../../api/client';
import { useHomeFocus } from '../../ui/home-focus';
import { useShortcuts } from '../../ui/keys';
import { Len, ShownIn } from '../../ui/length';
import { Failed, Waiting } from '../../ui/says';
import { useShownIn } from '../../ui/top';
import { capital, say } from '../../words/texts';
import { trade } from '../../words/trade';
import { useOpeningState } from '../state';
import { cardsOf, isDone, without } from './list';

/** Strip is the edge as it lies, with what comes off it hatched and magnified. */
function Strip({ marks }: { marks: { at: number; depth: number }[] }) {
	const end = marks[marks.length - 1]?.at || 1;
	const most = Math.max(...marks.map((m) => m.depth), 0.1);
	const x = (at: number) => 20 + (960 * at) / end;
	const y = (depth: number) => 20 + (70 * depth) / most;
	return (
		<svg viewBox="0 0 1000 150" className="w-full max-h-44" aria-hidden="true">
			<defs>
				<pattern
					id="strip"
					width="14"
					height="14"
					patternUnits="userSpaceOnUse"
					patternTransform="rotate(45)"
				>
					<rect width="14" height="14" fill="var(--board-line)" />
					<line x1="0" y1="0" x2="0" y2="14" stroke="var(--rod)" strokeWidth="6" />
				</pattern>
			</defs>
			<rect x={20} y={20} width={960} height={120} fill="var(--board)" />
			<polygon
				points={`20,20 ${marks.map((m) => `${x(m.at)},${y(m.depth)}`).join(' ')} 980,20`}
				fill="url(#strip)"
			/>
			<polyline
				points={marks.map((m) => `${x(m.at)},${y(m.depth)}`).join(' ')}
				fill="none"
				stroke="var(--light)"
				strokeWidth={5}
				strokeDasharray="24 9"
			/>
			{marks.map((m) => (
				<line
					key={m.at}
					x1={x(m.at)}
					x2={x(m.at)}
					y1={6}
					y2={y(m.depth)}
					stroke="currentColor"
					strokeWidth={4}
				/>
			))}
		</svg>
	);
}

/** useAwake keeps the screen on while the cards are shown. */
function useAwake() {
	useEffect(() => {
		let lock: WakeLockSentinel | undefined;
		const ask = () => {
			if (document.visibilityState !== 'visible') return;
			navigator.wakeLock?.request('screen').then(
				(l) => {
					lock = l;
				},
				() => undefined, // a browser that does not let it: the screen sleeps as usual
			);
		};
		ask();
		document.addEventListener('visibilitychange', ask);
		return () => {
			document.removeEventListener('visibilitychange', ask);
			lock?.release();
		};
	}, []);
}

/** CardsPage is the work at the trestles, one card filling the screen. */
export function CardsPage() {
	const { job = '', opening = '' } = useParams();
	const { state, query } = useOpeningState(job, opening);
	const [shown] = useShownIn(job, (state?.view.job.unit as Unit) ?? 'mm');
	const [at, setAt] = useState<number | null>(null);
	const [error, attempt] = useAttempt();
	useAwake();
	const v = state?.view;
	const cards = v ? cardsOf(v) : [];
	const ticked = v?.opening.ticked ?? [];
	const [asked] = useSearchParams();
	const step = asked.get('step');
	const open = (c: (typeof cards)[number]) => !isDone(c, ticked);
	const own = cards.findIndex((c) => c.step === step && open(c));
	const first = own >= 0 ? own : cards.findIndex(open);
	const here = Math.min(Math.max(at ?? (first < 0 ? 0 : first), 0), Math.max(cards.length - 1, 0));
	const card = cards[here];
	const go = (by: number) => setAt(Math.min(Math.max(here + by, 0), cards.length - 1));
	useHomeFocus(`${here} ${v?.version}`);
	const tick = () => {
		if (!card || !state) return;
		const on = open(card);
		// A tick for old figures is dropped.
		const kept = without(card, cards, ticked);
		attempt(async () => {
			await state.save(
				[{ op: 'add', path: '/ticked', value: on ? [...kept, card.id] : kept }],
				`${on ? 'done' : say('cards.not-done')}: ${card.title}`,
			);
			if (on && here < cards.length - 1) go(1);
		});
	};
	// On a button or a link space and Enter are its own.
	const itself = (e: KeyboardEvent) =>
		e.target instanceof HTMLButtonElement || e.target instanceof HTMLAnchorElement;
	useShortcuts({
		next: (e) => (e.key === ' ' && itself(e) ? false : go(1)),
		back: () => go(-1),
		tick: (e) => (itself(e) ? false : void tick()),
	});
	if (query.isPending) return <Waiting text={say('cards.fetching-the-cards')} />;
	if (query.error && !state) return <Failed error={query.error} retry={() => query.refetch()} alone />;
	if (!v) return null;
	const stop =
		v.plan.clashes[0]?.text ??
		v.plan.leaves
			.flatMap((l) => l.findings)
			.find((f) => f.gravity === 'stop' && (f.step === 'cut' || f.step === 'slab'))?.text;
	const back = `/j/${job}/${opening}/${step ?? 'cut'}`;
	if (!card || stop) return <NotReady name={v.opening.name} stop={stop} back={back} />;
	const done = !open(card);
	// A confirmed cut without a reading that would settle it is shown where the saw is.
	const knowing =
		card.step === 'cut'
			? v.plan.leaves
					.flatMap((l) => l.findings)
					.filter((f) => f.pointer === '/cut/knowing')
					.map((f) => f.text)
			: [];
	const cautions = trade.cautions.filter((c) => c.step === card.step);
	return (
		<ShownIn value={shown}>
			<main className="h-dvh flex flex-col" data-card={card.id}>
				<div className="flex items-center gap-3 px-3 sm:px-6 pt-2 border-b-4 border-[var(--rod-edge)]">
					<Link className="btn btn-ghost px-2" to={back}>
						<ArrowLeft size={24} aria-hidden="true" />
						<span className="sr-only">{say('cards.back-to-opening', { opening: v.opening.name })}</span>
					</Link>
					<h1 className="text-2xl sm:text-4xl grow" tabIndex={-1} data-home>
						{card.title}
					</h1>
					<p className="text-lg whitespace-nowrap">
						{say('cards.number-of', { number: here + 1, of: cards.length })}
						{done && <strong> {say('cards.done')}</strong>}
					</p>
				</div>
				<section
					className="grow min-h-0 overflow-y-auto px-4 sm:px-10 py-2 flex flex-col gap-2"
					aria-label={card.title}
				>
					{card.from && (
						<p className="text-xl sm:text-2xl">
							{card.from}
							{card.tool && (
								<>
									; <strong>{card.tool}</strong>
								</>
							)}
						</p>
					)}
					<ol
						className={`flex flex-wrap gap-x-10 sm:gap-x-16 gap-y-1 dim font-semibold leading-tight text-[2.6rem] sm:text-[3.6rem] ${done ? 'opacity-60' : ''}`}
					>
						{card.rows.map((r, i) => (
							// biome-ignore lint/suspicious/noArrayIndexKey: marks stand in their order
							<li key={i} className="whitespace-nowrap" data-figure={`card-${i}`}>
								{r.of && (
									<span className="block text-lg sm:text-xl font-normal whitespace-normal">
										{capital(r.of)}
									</span>
								)}
								{r.at && (
									<span className="font-normal">
										<Len text={r.at} />
										<span className="text-[0.6em]"> → </span>
									</span>
								)}
								<span data-shown>
									<Len text={r.off} />
								</span>
							</li>
						))}
					</ol>
					{card.strip && <Strip marks={card.strip} />}
					{card.left && (
						<p className="text-xl sm:text-2xl border-l-8 border-[var(--light)] pl-3">
							<Len text={card.left} unit /> {say('cards.stays-on-for-the-next')}
						</p>
					)}
					<ol
						className={
							card.rows.length > 0
								? 'text-lg sm:text-xl max-w-prose'
								: 'grid gap-2 sm:gap-3 text-xl sm:text-[2rem] sm:leading-snug'
						}
					>
						{card.says.map((s) => (
							<li key={s}>{s}</li>
						))}
					</ol>
					{knowing.map((text) => (
						<p key={text} className="text-lg sm:text-xl border-l-8 border-warning pl-3" data-knowing>
							{text}
						</p>
					))}
					<Said error={error} />
					<p className="mt-auto flex gap-2 text-base text-base-content border-t-2 border-warning pt-1">
						<TriangleAlert size={22} className="shrink-0 text-warning" aria-hidden="true" />
						<span>
							{cautions[here % Math.max(cautions.length, 1)]?.text} {trade.codeFirst}
						</span>
					</p>
				</section>
				<Bar at={here} of={cards.length} done={done} go={go} tick={tick} />
			</main>
		</ShownIn>
	);
}

/** NotReady is why nothing is cut yet. */
function NotReady({ name, stop, back }: { name: string; stop: string | undefined; back: string }) {
	return (
		<main className="p-6 text-2xl grid gap-4 max-w-3xl">
			<h1 className="text-3xl" tabIndex={-1} data-home>
				{say('cards.opening-not-ready-to-cut', { opening: name })}
			</h1>
			<p>{stop ?? say('cut.first-read-a-width-and')}</p>
			<Link className="btn btn-primary text-xl" to={back}>
				{say('cards.back-to-the-cut-sheet')}
			</Link>
		</main>
	);
}

/** Bar has the card before and the next, and the tick of this one. */
function Bar({
	at,
	of,
	done,
	go,
	tick,
}: {
	at: number;
	of: number;
	done: boolean;
	go: (by: number) => void;
	tick: () => void;
}) {
	return (
		<div className="grid grid-cols-[1fr_2fr_1fr] gap-2 p-2 sm:p-4 border-t border-base-300">
			<button
				type="button"
				className="btn h-16 text-xl"
				aria-disabled={at === 0}
				data-back
				onClick={() => go(-1)}
			>
				<ArrowLeft size={28} aria-hidden="true" />
				<span className="sr-only">{say('page.back')}</span>
			</button>
			<button
				type="button"
				className={`btn h-16 text-xl ${done ? '' : 'btn-primary'}`}
				aria-pressed={done}
				data-tick
				onClick={tick}
			>
				<Check size={28} aria-hidden="true" /> {done ? say('cards.done-open-it-again') : say('page.done')}
			</button>
			<button
				type="button"
				className="btn h-16 text-xl"
				aria-disabled={at === of - 1}
				data-next-card
				onClick={() => go(1)}
			>
				<span className="sr-only">{say('page.next')}</span>
				<ArrowRight size={28} aria-hidden="true" />
			</button>
		</div>
	);
}
