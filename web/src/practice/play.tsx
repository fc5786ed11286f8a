import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { useParams } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type Schemas } from '../api/client';
import { resources } from '../api/resources';
import { whoNow } from '../api/who';
import { ShownIn } from '../ui/length';
import { Failed, Waiting } from '../ui/says';
import { Top, useShownIn } from '../ui/top';
import { say } from '../words/texts';
import { Adjust } from './adjust';
import { Choose } from './choose';
import { GradeOf } from './grade';
import { Picture } from './picture';
import { Read } from './read';

type Move = Schemas['Move'];

/** Play is an attempt at a hidden opening, move by move; its moves are kept on this client. */
export function PlayPage() {
	const { level = '', seed = '' } = useParams();
	const own = level === 'file' ? (sessionStorage.getItem('exercise file') ?? '') : '';
	const key = `play ${level} ${seed}`;
	const [moves, setMoves] = useState<Move[]>(() => JSON.parse(sessionStorage.getItem(key) ?? '[]'));
	const cache = useQueryClient();
	const [unit, setUnit] = useShownIn('practice', 'mm');
	const [error, attempt] = useAttempt();
	const body = { ...(own ? { file: own } : { seed: Number(seed), level }), by: whoNow() };
	const q = useQuery({
		queryKey: ['play', own, key, moves.length],
		queryFn: () => ask(client.POST('/api/practice/play', { body: { ...body, moves } })),
		placeholderData: keepPreviousData,
		staleTime: Number.POSITIVE_INFINITY,
		retry: false,
	});
	const move = (m: Move) =>
		attempt(async () => {
			const next = [...moves, m];
			const v = await ask(
				client.POST('/api/practice/play', { body: { ...body, moves: next, keep: m.do === 'done' } }),
			);
			cache.setQueryData(['play', own, key, next.length], v);
			sessionStorage.setItem(key, JSON.stringify(next));
			setMoves(next);
			if (m.do === 'done') cache.invalidateQueries({ queryKey: resources.practice().queryKey });
		});
	const v = q.data;
	const [enough, setEnough] = useState(moves.some((m) => m.do !== 'read'));
	return (
		<ShownIn value={unit}>
			<Top
				trail={[
					{ to: '/practice', text: say('page.practice') },
					{ text: v?.name ?? say('practising.a-hidden-opening') },
				]}
				unit={unit}
				setUnit={setUnit}
			/>
			<main className="p-4 sm:p-6 max-w-6xl mx-auto">
				{q.isPending && <Waiting text={say('practising.drawing-an-opening')} />}
				{q.error && <Failed error={q.error} retry={() => q.refetch()} />}
				{v && (
					<div className="grid lg:grid-cols-[22rem_1fr] gap-6 items-start">
						<Picture
							played={v}
							read={
								enough || v.hung
									? undefined
									: (a) => move({ do: 'read', reading: a.reading as unknown as Move['reading'] })
							}
						/>
						<div>
							<h1 className="text-2xl">
								{v.done && v.class
									? say('practising.handed-in')
									: v.done
										? say('practising.how-it-came-out')
										: v.hung
											? say('practising.it-hangs')
											: enough
												? say('practising.choose-and-cut')
												: say('practising.read-the-opening')}
							</h1>
							<p className="mb-3 opacity-85" data-minutes={Math.round(v.minutes)}>
								{say('practising.count-readings', { count: v.readings.length })},{' '}
								{say('day.minutes-min', { minutes: Math.round(v.minutes) })}
								{v.hung && `, ${say('practising.count-trips', { count: v.trips })}`}
							</p>
							<Said error={error} className="mb-3 text-lg" />
							{!enough && !v.hung && <Read played={v} move={move} enough={() => setEnough(true)} />}
							{enough && !v.hung && (
								<Choose played={v} move={move} back={() => setEnough(false)} unit={unit} />
							)}
							{v.hung && !v.done && <Adjust move={move} unit={unit} goesIn={v.goesIn} />}
							{v.grade && <GradeOf played={v} grade={v.grade} />}
							{v.done && v.class && <HandIn attempt={v.attempt ?? ''} />}
							{moves.length > 0 && !v.class && (
								<p className="mt-4">
									<button
										type="button"
										className="btn"
										data-begin-again
										onClick={() => {
											sessionStorage.removeItem(key);
											setMoves([]);
											setEnough(false);
										}}
									>
										{say('practising.begin-again')}
									</button>
								</p>
							)}
							{!v.done && !v.hung && <Exercise level={level} seed={seed} own={!!own} />}
						</div>
					</div>
				)}
			</main>
		</ShownIn>
	);
}

/** HandIn is the end of a class's opening: only the teacher sees how the slab hangs. */
function HandIn({ attempt }: { attempt: string }) {
	return (
		<div data-handed-in>
			<p className="text-lg mb-3">{say('practising.the-slab-is-cut-save')}</p>
			<a
				className="btn btn-primary text-lg"
				href={`data:application/json,${encodeURIComponent(attempt)}`}
				download="attempt.exercise.json"
				data-attempt
			>
				<Download size={20} aria-hidden="true" /> {say('practising.this-attempt-to-hand-in')}
			</a>
		</div>
	);
}

/** Exercise hands the same opening to a class. */
function Exercise({ level, seed, own }: { level: string; seed: string; own: boolean }) {
	if (own) return null;
	return (
		<p className="mt-6">
			<a className="btn" href={`/api/practice/exercise?level=${level}&seed=${seed}`} download data-hand-out>
				<Download size={20} aria-hidden="true" /> {say('practising.this-opening-as-a-file')}
			</a>
		</p>
	);
}
