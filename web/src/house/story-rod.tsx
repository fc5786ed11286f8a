import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { ask, client, type Schemas, type Unit } from '../api/client';
import { howFar, type Made, makeList } from '../api/exports';
import { resources } from '../api/resources';
import { useHomeFocus } from '../ui/home-focus';
import { Len, ShownIn, SvgDigits, Why } from '../ui/length';
import { Failed, Waiting } from '../ui/says';
import { Top, useShownIn } from '../ui/top';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';
import { jambName, trade } from '../words/trade';

type StoryRod = Schemas['StoryRod'];

/** RodPage is one story rod for the house: its marks, and the openings that differ from it. */
export function RodPage() {
	const { job = '', opening = '' } = useParams();
	const path = { job, opening };
	const walk = useQuery(resources.walk(job));
	const [far, setFar] = useState<Made>();
	const rod = useQuery({
		queryKey: ['rod', job, opening],
		enabled: walk.isSuccess,
		queryFn: ({ signal }) =>
			(walk.data?.openings.length ?? 0) > trade.atOnce
				? makeList<StoryRod>({ what: 'story-rod', job, from: opening }, setFar, signal)
				: ask(client.GET('/api/jobs/{job}/openings/{opening}/rod', { params: { path } })),
		staleTime: 0,
	});
	const head = walk.data?.job;
	const [shown, setShown] = useShownIn(job, (head?.unit as Unit) ?? 'mm');
	const trail = useMemo(
		() => (head ? [{ to: `/j/${job}`, text: head.name }, { text: say('story-rod.story-rod') }] : []),
		[head, job],
	);
	useHomeFocus(rod.data?.of ?? '');
	return (
		<ShownIn value={shown}>
			<Top trail={trail} unit={shown} setUnit={setShown} />
			<main className="p-4 sm:p-6 max-w-5xl mx-auto" data-story-rod>
				{walk.error && <Failed error={walk.error} retry={() => walk.refetch()} alone={!walk.data} />}
				{rod.isPending && !walk.error && (
					<Waiting text={say('story-rod.marking-the-rod-far', { far: howFar(far) })} />
				)}
				{rod.error && <Failed error={rod.error} retry={() => rod.refetch()} />}
				{rod.data && (
					<>
						<h1 className="text-3xl mb-1" tabIndex={-1} data-home>
							{say('story-rod.story-rod-of-door', { door: rod.data.of })}
						</h1>
						<p className="mb-4 max-w-prose">{say('story-rod.cut-a-straight-stick-mark')}</p>
						<div className="grid lg:grid-cols-[22rem_1fr] gap-6">
							<Stick rod={rod.data} />
							<div>
								<table className="w-full mb-5">
									<thead>
										<tr className="text-left text-sm opacity-80">
											<th className="font-normal">{say('story-rod.mark')}</th>
											<th className="font-normal text-right">{say('page.jamb-from-the-head')}</th>
											<th className="font-normal text-right">{say('page.slab-from-its-top')}</th>
										</tr>
									</thead>
									<tbody>
										{rod.data.marks.map((m) => (
											<tr key={m.name} className="border-t border-base-300">
												<td className="py-1">{m.name}</td>
												<td className="text-right text-2xl dim">
													<Why
														figure={m.jamb}
														title={say('story-rod.name-in-the-jamb', { name: m.name })}
														bare
													/>
												</td>
												<td className="text-right text-2xl dim">
													<Why
														figure={m.slab}
														title={say('story-rod.name-on-the-slab', { name: m.name })}
														bare
													/>
												</td>
											</tr>
										))}
									</tbody>
								</table>
								<h2 className="text-lg mb-1">{say('story-rod.the-other-doors')}</h2>
								<ul className="grid gap-2">
									{rod.data.openings.map((d) => (
										<li
											key={d.id + d.leaf}
											className="border-l-4 pl-3 py-1"
											style={{ borderColor: d.meets ? 'var(--color-success)' : 'var(--color-warning)' }}
											data-rod-door={d.id}
											data-meets={d.meets}
										>
											<strong>
												{d.name}
												{d.leaf === 2 && `, ${say('page.leaf-on', { jamb: jambName('lock') })}`}
											</strong>{' '}
											{d.meets ? say('story-rod.meets') : d.missing || say('story-rod.differs')}
											{!d.missing &&
												d.off.map((o) => (
													<div key={o.name}>
														<Phrase
															id={o.jamb.mm < 0 ? 'story-rod.higher' : 'story-rod.lower'}
															of={{
																mark: o.name,
																by: (
																	<Len
																		text={{
																			mm: o.jamb.text.mm.replace('-', ''),
																			in: o.jamb.text.in.replace('-', ''),
																		}}
																		unit
																	/>
																),
															}}
														/>
													</div>
												))}
										</li>
									))}
								</ul>
							</div>
						</div>
						<p className="mt-6">
							<Link className="btn" to={`/j/${job}/${opening}/hinges`}>
								{say('story-rod.back-to-the-hinges')}
							</Link>
						</p>
					</>
				)}
			</main>
		</ShownIn>
	);
}

/** Stick draws the rod with its marks. */
function Stick({ rod }: { rod: StoryRod }) {
	const end = Math.max(...rod.marks.map((m) => m.jamb.mm)) + 150;
	const font = end / 34;
	return (
		<svg
			viewBox={`0 -20 ${end * 0.5} ${end + 40}`}
			className="w-full max-h-[34rem]"
			role="img"
			aria-label={say('story-rod.the-rod-with-its-marks')}
		>
			<rect
				x={20}
				y={0}
				width={end * 0.06}
				height={end}
				fill="var(--rod)"
				stroke="var(--rod-edge)"
				strokeWidth={6}
			/>
			{rod.marks.map((m, i) => {
				const latch = m.id === 'latch';
				return (
					<g key={m.id}>
						<line
							x1={20}
							x2={20 + end * 0.06}
							y1={m.jamb.mm}
							y2={m.jamb.mm}
							stroke="var(--rod-ink)"
							strokeWidth={latch ? 14 : 8}
							strokeDasharray={latch ? '10 8' : undefined}
						/>
						<text
							x={40 + end * 0.06}
							y={m.jamb.mm + font * (i % 2 ? 0.9 : -0.1)}
							fontSize={font}
							fill="currentColor"
							className="dim"
						>
							<SvgDigits text={m.jamb.text} /> {m.name}
						</text>
					</g>
				);
			})}
		</svg>
	);
}
