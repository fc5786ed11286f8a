import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import type { Figure, OpeningView, Unit } from '../api/client';
import { useHomeFocus } from '../ui/home-focus';
import { useShortcuts } from '../ui/keys';
import { ShownIn, WhyDialog } from '../ui/length';
import { Failed, Waiting } from '../ui/says';
import { Top, useShownIn } from '../ui/top';
import { say } from '../words/texts';
import { OpeningFigure } from './figure';
import { History } from './history';
import { Panel } from './panel';
import { useSpent } from './spent';
import { OpeningContext, useOpeningState } from './state';
import { Rod } from './steps/strip';

/** OpeningPage is one opening: its steps, the drawing, and the step in hand. */
export function OpeningPage() {
	const { job = '', opening = '', step = 'measure' } = useParams();
	const { state, query, setTrouble } = useOpeningState(job, opening);
	const [shown, setShown] = useShownIn(job, (state?.view.job.unit as Unit) ?? 'mm');
	const [times, setTimes] = useState(() => Number(localStorage.getItem('magnify')) || 14);
	const [asked, setAsked] = useState<{ figure: Figure; title: string } | null>(null);
	const [leafInHand, setLeaf] = useState(1);
	const go = useNavigate();
	const v = state?.view;
	const which = v?.plan.leaves.length === 2 ? leafInHand : 1;
	const leaf = v?.plan.leaves[which - 1];
	const walk = `/j/${job}`;
	const to = (s: string) => `${walk}/${opening}/${s}`;
	const trail = useMemo(
		() => (v ? [{ to: `/j/${job}`, text: v.job.name }, { text: v.opening.name }] : []),
		[v, job],
	);
	useSpent(job, opening, step);
	useHomeFocus(`${v?.version} ${step} ${which}`);
	const move = (way: 'undo' | 'redo') => (e: KeyboardEvent) => {
		// In an entry with a draft, undo is the entry's own.
		const el = e.target as HTMLElement;
		const pointer = el.dataset?.field;
		if (pointer && el.matches('[data-tape]') && (el as HTMLInputElement).value !== (v?.texts[pointer] ?? ''))
			return false;
		state?.move(way);
	};
	useShortcuts({
		undo: move('undo'),
		redo: move('redo'),
		step: (e) => go(to(v?.plan.steps[(Number(e.key) + 9) % 10]?.step ?? 'measure')),
		walk: () => go(walk),
		unit: () => setShown(shown === 'mm' ? 'in' : 'mm'),
		entry: () => document.querySelector<HTMLElement>('[data-tape]')?.focus(),
	});
	if (query.isPending) return <Waiting text={say('door.fetching-the-door')} />;
	if (query.error && !state) return <NotThere error={query.error} retry={query.refetch} walk={walk} />;
	if (!state || !v || !leaf) return null;
	const first = v.plan.steps[0]?.step;
	// A door that hangs already begins at its gaps.
	if (first && !v.plan.steps.some((s) => s.step === step)) return <Navigate to={to(first)} replace />;
	// The second leaf hangs on the other jamb.
	const hand = which === 2 ? (v.opening.hand === 'left' ? 'right' : 'left') : v.opening.hand;
	return (
		<OpeningContext value={{ ...state, leaf, which, slab: which === 2 ? '/pair/slab' : '/slab' }}>
			<ShownIn value={shown}>
				<div className="door flex flex-col h-dvh">
					<Spoken view={v} />
					<Top trail={trail} unit={shown} setUnit={setShown}>
						<History undo={v.undo} redo={v.redo} move={state.move} />
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
						<Rod to={to} steps={v.plan.steps} />
						<div className="door-scroll max-lg:relative max-lg:grow max-lg:overflow-y-auto max-lg:min-h-0 lg:contents">
							<OpeningFigure
								step={step}
								view={v}
								which={which}
								leaf={leaf}
								hand={hand}
								times={times}
								setTimes={(n) => {
									setTimes(n);
									localStorage.setItem('magnify', String(n));
								}}
								pick={setLeaf}
								ask={(figure, title) => setAsked({ figure, title })}
								go={(s) => go(to(s))}
							/>
							<Panel step={step} to={to} walk={walk} shown={shown} pick={setLeaf} />
						</div>
					</div>
				</div>
			</ShownIn>
		</OpeningContext>
	);
}

/**
 * Spoken announces what is new of an opening: its doubts, each once, or that enough was measured. On its own, so that a
 * new text does not draw the page anew.
 */
function Spoken({ view }: { view: OpeningView }) {
	const before = useRef<Set<string>>(null);
	const [text, setText] = useState('');
	useEffect(() => {
		const { plan } = view;
		const doubts = new Set(
			[...plan.findings, ...plan.leaves.flatMap((l) => l.findings)]
				.filter((f) => f.gravity !== 'note')
				.map((f) => f.text),
		);
		const fresh = before.current ? [...doubts].filter((d) => !before.current?.has(d)) : [];
		before.current = doubts;
		const clash = plan.clashes[0]?.text;
		if (clash) setText(say('door.stop', { clash }));
		else if (fresh.length > 0) setText(fresh.join(' '));
		else
			setText(
				view.opening.readings.length > 0 && plan.toRead.length === 0 ? say('page.measured-enough') : '',
			);
	}, [view]);
	return (
		<p className="sr-only" role="status" data-spoken>
			{text}
		</p>
	);
}

/** NotThere is the page of an opening that cannot be fetched. */
function NotThere({ error, retry, walk }: { error: Error; retry: () => void; walk: string }) {
	return (
		<main>
			<h1 className="text-2xl px-6 pt-6" tabIndex={-1} data-home>
				{say('door.this-door-cannot-be-shown')}
			</h1>
			<Failed error={error} retry={retry} />
			<Link className="btn mx-6" to={walk}>
				{say('page.back-to-the-walk')}
			</Link>
		</main>
	);
}
