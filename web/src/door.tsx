import { Redo2, Undo2 } from 'lucide-react';
import { type ReactNode, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { Figure, Leaf, Unit } from './api';
import { Said, useAttempt } from './attempt';
import { Clash } from './clash';
import { DoorContext, useDoor, useDoorState } from './door-state';
import { Daylight } from './drawing';
import { HingesView } from './hinges-view';
import { useHomeFocus } from './home-focus';
import { useShortcuts } from './keys';
import { Doubtful, ShownIn, WhyDialog } from './length';
import { LockView } from './lock-view';
import { Both, PairDaylight } from './pair-view';
import { Photos } from './photos';
import { Phrase } from './phrase';
import { Rod, steps } from './rod';
import { Cautions, Failed, Findings, Waiting } from './says';
import { Sizes } from './sizes';
import { Sketch } from './sketch';
import { useSpent } from './spent';
import { CutStep } from './steps/cut';
import { HingesStep } from './steps/hinges';
import { LockStep } from './steps/lock';
import { LogStep } from './steps/log';
import { MarginsStep } from './steps/margins';
import { MeasureStep } from './steps/measure/step';
import { SlabStep } from './steps/slab';
import { StopsStep } from './steps/stops';
import { SwingStep } from './steps/swing';
import { TryStep } from './steps/try/step';
import { StopsView } from './stops-view';
import { SwingView } from './swing-view';
import { say } from './texts';
import { Top, useShownIn } from './top';
import { handName, jambName, marginName, stepName } from './trade';
import { Trestles } from './trestles';
import { asFound, TryView } from './try-view';

const pages: Record<string, () => ReactNode> = {
	measure: MeasureStep,
	slab: SlabStep,
	margins: MarginsStep,
	cut: CutStep,
	hinges: HingesStep,
	swing: SwingStep,
	lock: LockStep,
	try: TryStep,
	stops: StopsStep,
	log: LogStep,
};

/** DoorPage is one opening: the rod, the drawing, and the step in hand. */
export function DoorPage() {
	const { job = '', opening = '', step = 'measure' } = useParams();
	const { state, query, setTrouble } = useDoorState(job, opening);
	const [shown, setShown] = useShownIn(job, (state?.view.job.unit as Unit) ?? 'mm');
	const [times, setTimes] = useState(() => Number(localStorage.getItem('magnify')) || 14);
	const go = useNavigate();
	const [asked, setAsked] = useState<{ figure: Figure; title: string } | null>(null);
	const [leafInHand, setLeaf] = useState(1);
	const v = state?.view;
	const pair = v?.plan.leaves.length === 2;
	const which = pair ? leafInHand : 1;
	const leaf = v?.plan.leaves[which - 1];
	const to = (s: string) => `/j/${job}/${opening}/${s}`;
	const trail = useMemo(
		() => (v ? [{ to: `/j/${job}`, text: v.job.name }, { text: v.opening.name }] : []),
		[v, job],
	);
	useSpent(job, opening, step);
	useHomeFocus(`${v?.version} ${step} ${which}`);
	const move = (way: 'undo' | 'redo') => (e: KeyboardEvent) => {
		// In an entry with something half-typed, undo is the entry's own.
		const el = e.target as HTMLElement;
		const pointer = el.dataset?.field;
		if (pointer && el.matches('[data-tape]') && (el as HTMLInputElement).value !== (v?.texts[pointer] ?? ''))
			return false;
		state?.move(way);
	};
	useShortcuts({
		undo: move('undo'),
		redo: move('redo'),
		step: (e) => go(to(steps[(Number(e.key) + 9) % 10] ?? 'measure')),
		walk: () => go(`/j/${job}`),
		unit: () => setShown(shown === 'mm' ? 'in' : 'mm'),
		entry: () => document.querySelector<HTMLElement>('[data-tape]')?.focus(),
	});
	if (query.isPending) return <Waiting text={say('door.fetching-the-door')} />;
	if (query.error && !state)
		return (
			<main>
				<h1 className="text-2xl px-6 pt-6" tabIndex={-1} data-home>
					{say('door.this-door-cannot-be-shown')}
				</h1>
				<Failed error={query.error} retry={() => query.refetch()} />
				<Link className="btn mx-6" to={`/j/${job}`}>
					{say('page.back-to-the-walk')}
				</Link>
			</main>
		);
	if (!state || !v || !leaf) return null;
	const Page = pages[step] ?? MeasureStep;
	const found = [...v.plan.findings, ...leaf.findings];
	const findings = found.filter((f) => f.step === step);
	const elsewhere = found.filter((f) => f.step !== step && f.gravity === 'stop');
	// The second leaf hangs on the other jamb.
	const hand = which === 2 ? (v.opening.hand === 'left' ? 'right' : 'left') : v.opening.hand;
	const doubtful = v.plan.clashes.length > 0;
	const askLight = (m: Leaf['light'][number]) =>
		setAsked({
			figure: m.figure,
			title: say('page.margin-margin-where', { margin: marginName(m.side), where: m.where }),
		});
	const onTrestles = step === 'cut' && leaf.cut && !doubtful;
	// Spoken when it changes: a new doubt, or that enough was measured.
	const spoken = doubtful
		? say('door.stop', { clash: v.plan.clashes[0]?.text })
		: v.opening.readings.length > 0 && v.plan.toRead.length === 0
			? say('page.measured-enough')
			: '';
	return (
		<DoorContext value={{ ...state, leaf, which, slab: which === 2 ? '/pair/slab' : '/slab' }}>
			<ShownIn value={shown}>
				<div className="door flex flex-col h-dvh">
					<p className="sr-only" role="status" data-spoken>
						{spoken}
					</p>
					<Top trail={trail} unit={shown} setUnit={setShown}>
						<button
							type="button"
							className="btn btn-ghost px-2"
							aria-disabled={!v.undo}
							title={v.undo ? say('door.undo-change', { change: v.undo }) : say('door.nothing-to-undo')}
							data-undo
							onClick={() => v.undo && state.move('undo')}
						>
							<Undo2 size={20} aria-hidden="true" />
							<span className="max-xl:sr-only">{say('page.undo')}</span>
							<span className="sr-only">: {v.undo || say('door.nothing-left')}</span>
						</button>
						<button
							type="button"
							className="btn btn-ghost px-2"
							aria-disabled={!v.redo}
							title={v.redo ? say('door.redo-change', { change: v.redo }) : say('door.nothing-to-redo')}
							data-redo
							onClick={() => v.redo && state.move('redo')}
						>
							<Redo2 size={20} aria-hidden="true" />
							<span className="max-xl:sr-only">{say('door.redo')}</span>
							<span className="sr-only">: {v.redo || say('door.nothing-left')}</span>
						</button>
					</Top>
					{asked && <WhyDialog figure={asked.figure} title={asked.title} close={() => setAsked(null)} />}
					{(state.trouble || query.error) && (
						<p role="alert" className="loud bg-error text-error-content px-4 py-2 flex items-center gap-3">
							<span className="grow">{state.trouble || query.error?.message}</span>
							<button
								type="button"
								className="btn btn-sm"
								onClick={() => {
									setTrouble('');
									query.refetch();
								}}
							>
								{say('door.look-again')}
							</button>
						</p>
					)}
					<div className="door-body flex flex-col lg:flex-row grow min-h-0">
						<Rod to={to} notches={v.plan.rod} />
						<div className="door-scroll max-lg:relative max-lg:grow max-lg:overflow-y-auto max-lg:min-h-0 lg:contents">
							<figure
								className={`drawn relative overflow-hidden shrink-0 lg:grow lg:min-w-0 lg:h-auto ${onTrestles ? '' : 'no-print'} ${step === 'measure' || step === 'try' ? 'h-[21dvh]' : step === 'swing' ? 'h-[48dvh]' : 'h-[36dvh]'}`}
								style={{ background: onTrestles ? undefined : 'var(--shade)' }}
							>
								{onTrestles ? (
									<Both view={v} which={which} pick={setLeaf}>
										{(l, slab, side) =>
											l.cut && (
												<Trestles
													cut={l.cut}
													width={slab.width}
													length={slab.length}
													hand={side}
													times={4}
													className="w-full h-full p-2 pb-7"
												/>
											)
										}
									</Both>
								) : step === 'slab' && leaf.drawing ? (
									<Both view={v} which={which} pick={setLeaf}>
										{(l, slab) => <Sizes leaf={l} slab={slab} />}
									</Both>
								) : step === 'hinges' && leaf.hinges.length > 0 ? (
									<Both view={v} which={which} pick={setLeaf}>
										{(l, _, side) => (
											<HingesView
												leaf={l}
												hand={side}
												whole={v.opening.hinges.from === 'whole'}
												ask={(figure, title) => setAsked({ figure, title })}
											/>
										)}
									</Both>
								) : step === 'swing' && leaf.swing ? (
									<SwingView swing={leaf.swing} hand={hand} />
								) : step === 'stops' && leaf.stops ? (
									<Both view={v} which={which} pick={setLeaf}>
										{(l, slab, side) => <StopsView leaf={l} hand={side} thickness={slab.thickness} />}
									</Both>
								) : !pair &&
									(step === 'try' || step === 'log') &&
									leaf.try &&
									leaf.try.found.length > 0 &&
									leaf.drawing ? (
									<TryView
										leaf={leaf}
										hand={hand}
										times={times}
										name={v.opening.name}
										told={step === 'log'}
									/>
								) : step === 'lock' && leaf.devices.length > 0 ? (
									<Both view={v} which={which} pick={setLeaf}>
										{(l, slab, side) =>
											l.devices.length > 0 ? (
												<LockView leaf={l} hand={side} thickness={slab.thickness} />
											) : (
												<Sizes leaf={l} slab={slab} />
											)
										}
									</Both>
								) : !leaf.drawing ? (
									<Sketch next={v.plan.toRead[0]} hand={hand} />
								) : pair && v.plan.leaves.every((l) => l.drawing) ? (
									<PairDaylight
										leaves={step === 'try' || step === 'log' ? v.plan.leaves.map(asFound) : v.plan.leaves}
										which={which}
										pick={setLeaf}
										hand={v.opening.hand}
										times={times}
										ask={askLight}
										go={(s) => go(to(s))}
										places={step === 'measure' ? v.plan.places : undefined}
										label={say('door.opening-both-leaves-in-the', { opening: v.opening.name })}
									/>
								) : (
									<Daylight
										drawing={leaf.drawing}
										hand={hand}
										times={times}
										margins={leaf.light}
										detail
										ask={askLight}
										go={(s) => go(to(s))}
										places={step === 'measure' ? v.plan.places : undefined}
										label={say('door.opening-the-slab-in-its', { opening: v.opening.name })}
										className="w-full h-full"
									/>
								)}
								{!onTrestles &&
									leaf.drawing &&
									!['slab', 'swing', 'hinges', 'stops'].includes(step) &&
									!(step === 'lock' && leaf.devices.length > 0) && (
										<label className="absolute left-3 top-1 flex max-lg:flex-col lg:items-center lg:gap-2 text-sm text-[var(--on-shade)]">
											{say('door.gaps-times', { times })}
											<input
												type="range"
												min={1}
												max={40}
												value={times}
												className="w-20 lg:w-32 h-11 accent-[var(--light)]"
												aria-label={say('door.how-many-times-the-gaps')}
												onChange={(e) => {
													setTimes(Number(e.target.value));
													localStorage.setItem('magnify', e.target.value);
												}}
											/>
										</label>
									)}
								{onTrestles && (
									<figcaption className="absolute inset-x-0 bottom-1 text-center text-sm">
										{say('door.chalk-lines-on-the-uncut')}
									</figcaption>
								)}
							</figure>
							<main
								className="relative lg:w-[29rem] xl:w-[32rem] shrink-0 lg:overflow-y-auto p-4 max-lg:pb-14 sm:px-5"
								key={step}
							>
								<Doubtful value={doubtful}>
									<p className="hidden print:block text-xl font-bold">
										{v.job.name}: {v.opening.name}
										{v.opening.room && `, ${v.opening.room}`}
										{say('door.printed', { hand: handName(v.opening.hand), unit: shown })}
									</p>
									<h1 className="text-2xl mb-2 max-lg:sr-only" tabIndex={-1} data-home data-at={step}>
										{stepName(step)}
									</h1>
									<Clash step={step} />
									{elsewhere.length > 0 && step !== 'measure' && !doubtful && (
										<Findings list={elsewhere.slice(0, 2)} />
									)}
									{pair && step !== 'measure' && (
										<fieldset className="join mb-3" aria-label={say('door.leaf')}>
											{[1, 2].map((n) => (
												<button
													key={n}
													type="button"
													className={`btn join-item ${which === n ? 'btn-neutral' : ''}`}
													aria-pressed={which === n}
													data-leaf={n}
													onClick={() => setLeaf(n)}
												>
													{say('page.leaf-on', { jamb: jambName(n === 1 ? 'hinge' : 'lock') })}
												</button>
											))}
										</fieldset>
									)}
									{v.opening.signed && step !== 'log' && (
										<p className="border-l-8 border-success pl-3 mb-3" data-locked>
											<Phrase
												id="door.signed"
												of={{
													by: v.opening.signed.by,
													on: v.opening.signed.on,
													again: (
														<Link className="link" to={to('log')}>
															{say('door.open-it-again')}
														</Link>
													),
												}}
											/>
										</p>
									)}
									{/* In the middle of a try the next gap comes first, and tells of what is wrong after it. */}
									{!(step === 'try' && leaf.try?.hangs.length) && (
										<Findings list={doubtful && step === 'measure' ? findings.slice(1) : findings} />
									)}
									<Page key={which} />
									<Photos step={step} />
									<Onward step={step} to={to} walk={`/j/${job}`} />
									<Cautions step={step} />
								</Doubtful>
							</main>
						</div>
					</div>
				</div>
			</ShownIn>
		</DoorContext>
	);
}

/** Onward finishes a step and goes on to the next one in trade order. */
function Onward({ step, to, walk }: { step: string; to: (s: string) => string; walk: string }) {
	const { view, save } = useDoor();
	const go = useNavigate();
	const [error, attempt] = useAttempt();
	const notch = view.plan.rod.find((n) => n.step === step);
	const next = steps[steps.indexOf(step) + 1];
	if (!notch) return null;
	const { ready } = notch;
	return (
		<div className="mt-5 grid gap-2 no-print">
			<button
				type="button"
				data-onward
				className={`btn btn-primary text-lg h-14 ${ready ? '' : 'opacity-50'}`}
				// Not disabled, so that Enter can lead to it before the answer is in.
				aria-disabled={!ready}
				onClick={async () => {
					if (!ready) return;
					await attempt(async () => {
						if (notch.state !== 'done') {
							const value = { ...view.opening.done, [step]: notch.mark };
							await save(
								[{ op: 'add', path: '/done', value }],
								say('door.step-done', { step: stepName(step) }),
							);
						}
						go(next ? to(next) : walk);
					});
				}}
			>
				{next
					? say('door.step-done-on-to-next', { step: stepName(step), next: stepName(next) })
					: say('door.done-back-to-the-walk')}
			</button>
			{!ready && <p className="opacity-80">{say('door.not-yet-says', { says: notch.says })}</p>}
			<Said error={error} />
		</div>
	);
}
