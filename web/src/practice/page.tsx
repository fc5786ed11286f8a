import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type Schemas } from '../api/client';
import { resources } from '../api/resources';
import { whoNow } from '../api/who';
import { useHomeFocus } from '../ui/home-focus';
import { Failed, Waiting } from '../ui/says';
import { Top } from '../ui/top';
import { say } from '../words/texts';

type Practice = Schemas['Practice'];

const seed = () => 1 + Math.floor(Math.random() * 999_999);

/** PracticePage is where one learns to hang a slab without spoiling any. */
export function PracticePage() {
	const q = useQuery(resources.practice());
	const [drill, setDrill] = useState<{ kind: string; seed: number } | null>(null);
	const go = useNavigate();
	const [error, attempt] = useAttempt();
	useHomeFocus('practice');
	const v = q.data;
	return (
		<>
			<Top trail={[{ to: '/', text: say('page.jobs') }, { text: say('page.practice') }]} />
			<main className="p-4 sm:p-6 max-w-5xl mx-auto">
				<h1 className="text-3xl mb-1" tabIndex={-1} data-home>
					{say('page.practice')}
				</h1>
				<p className="text-lg mb-4">{say('practising.hang-a-door-in-a')}</p>
				{q.isPending && <Waiting text={say('practising.looking')} />}
				{q.error && <Failed error={q.error} retry={() => q.refetch()} />}
				{v && (
					<>
						<p className="border-l-8 border-primary pl-3 mb-4 text-lg" data-practise-next={v.next}>
							<strong>{say('practising.next')}</strong> {v.why}
						</p>
						{drill ? (
							<Drill
								key={`${drill.kind} ${drill.seed}`}
								kind={drill.kind}
								seed={drill.seed}
								another={() => setDrill({ kind: drill.kind, seed: seed() })}
								done={() => setDrill(null)}
							/>
						) : (
							<div className="grid lg:grid-cols-2 gap-x-8 gap-y-4 items-start">
								<section aria-label={say('practising.hidden-openings')}>
									<h2 className="text-xl mb-2">{say('practising.a-hidden-opening')}</h2>
									<div className="grid gap-2">
										{v.levels.map((l) => (
											<Link
												key={l.id}
												className="btn h-auto py-3 justify-start text-left"
												to={`/practice/opening/${l.id}/${seed()}`}
												data-level={l.id}
											>
												<span>
													<span className="block text-lg">{l.name}</span>
													<span className="block font-normal text-sm opacity-85">{l.why}</span>
												</span>
											</Link>
										))}
										<label className="btn h-auto py-3 justify-start">
											{say('practising.open-exercise')}

											<input
												type="file"
												accept=".json"
												className="sr-only"
												data-field="exercise-file"
												onChange={(e) => {
													const f = e.target.files?.[0];
													if (!f) return;
													attempt(async () => {
														const file = await f.text();
														await ask(client.POST('/api/practice/play', { body: { file, moves: [] } }));
														sessionStorage.setItem('exercise file', file);
														sessionStorage.removeItem('play file 0'); // the moves were of another
														go('/practice/opening/file/0');
													});
												}}
											/>
										</label>
										<Said error={error} />
									</div>
								</section>
								<section aria-label={say('practising.drills')}>
									<h2 className="text-xl mb-2">{say('practising.short-drills')}</h2>
									<div className="grid gap-2">
										{v.drills.map((d) => (
											<button
												key={d.id}
												type="button"
												className="btn justify-between h-12"
												onClick={() => setDrill({ kind: d.id, seed: seed() })}
												data-drill={d.id}
											>
												{d.name}
												<span className="font-normal opacity-85">
													{d.tried
														? say('practising.right-of-tried-right', { right: d.right, tried: d.tried })
														: say('practising.not-tried')}
												</span>
											</button>
										))}
									</div>
								</section>
							</div>
						)}
						<Runs list={v.runs} />
					</>
				)}
			</main>
		</>
	);
}

/** Runs are the results, the newest first. */
function Runs({ list }: { list: Practice['runs'] }) {
	if (list.length === 0) return null;
	return (
		<section className="mt-6" aria-label={say('practising.how-it-went')} data-runs={list.length}>
			<h2 className="text-xl">{say('practising.how-it-went')}</h2>
			<ul>
				{list.map((r) => (
					<li key={r.at + r.says} className="border-b border-base-300 py-1 flex flex-wrap gap-x-3">
						<span className="dim">{r.at.slice(0, 10)}</span>
						<strong>{r.name}</strong>
						<span>
							{say(r.right ? 'practising.right' : 'practising.not-right')}: {r.says}
						</span>
						{r.learn && <span className="opacity-85">{r.learn}</span>}
					</li>
				))}
			</ul>
		</section>
	);
}

/** Drill is one short question. */
function Drill({
	kind,
	seed,
	another,
	done,
}: {
	kind: string;
	seed: number;
	another: () => void;
	done: () => void;
}) {
	const cache = useQueryClient();
	const path = { params: { path: { kind }, query: { seed } } };
	const q = useQuery(resources.drill(kind, seed));
	const [told, setTold] = useState<(Schemas['DrillTold'] & { mine: number }) | null>(null);
	const [error, attempt] = useAttempt();
	const answer = (mine: number) =>
		attempt(async () => {
			const t = await ask(
				client.POST('/api/practice/drills/{kind}', { ...path, body: { answer: mine, by: whoNow() } }),
			);
			setTold({ ...t, mine });
			cache.invalidateQueries({ queryKey: resources.practice().queryKey });
		});
	if (!q.data)
		return q.error ? (
			<Failed error={q.error} retry={() => q.refetch()} />
		) : (
			<Waiting text={say('page.one-moment')} />
		);
	return (
		<section
			className="border-2 border-[var(--rod-edge)] p-4"
			aria-label={q.data.name}
			data-asks={q.data.kind}
		>
			<p className="opacity-85">{q.data.name}</p>
			<p className="text-2xl my-2">{q.data.asks}</p>
			<div className="grid sm:grid-cols-2 gap-2">
				{q.data.answers.map((a, i) => {
					const mark = told && (i === told.answer ? ' (right)' : i === told.mine ? ' (yours)' : '');
					return (
						<button
							key={a}
							type="button"
							className={`btn h-auto min-h-14 py-2 text-lg ${told && i === told.answer ? 'btn-success' : ''}`}
							disabled={!!told}
							onClick={() => answer(i)}
							data-answer={i}
						>
							{a}
							{mark}
						</button>
					);
				})}
			</div>
			<Said error={error} />
			{told && (
				<div className="mt-3" role="status" data-told={String(told.right)}>
					<p className="text-xl font-semibold">
						{told.right ? say('practising.answer-right') : say('practising.answer-not-right')}
					</p>
					<p className="text-lg mb-3">{told.why}</p>
					<button type="button" className="btn btn-primary mr-2" onClick={another} data-another-drill>
						{say('practising.another')}
					</button>
				</div>
			)}
			<button type="button" className="btn btn-ghost mt-2" onClick={done}>
				{say('page.back')}
			</button>
		</section>
	);
}
