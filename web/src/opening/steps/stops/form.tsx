import { Said, useAttempt } from '../../../api/attempt';
import { Row, Why } from '../../../ui/length';
import { say } from '../../../words/texts';
import { LengthField } from '../../field';
import { useOpening } from '../../state';

/** StopsStep places the stops for the shut slab. */
export function StopsStep() {
	const { view, leaf } = useOpening();
	const s = leaf.stops;
	return (
		<>
			{s ? (
				<section className="mb-5">
					<Row label={say('stops.doorstops-face')} note={say('stops.from-the-jambs-pull-side')}>
						<Why figure={s.from} title={say('stops.doorstops-face-from-the-jambs')} id="stop-from" />
					</Row>
					{s.moves.map((m) => (
						<Row
							key={m.stop + m.end}
							label={`${m.stop}, ${m.end}`}
							note={m.by.mm < 0 ? say('stops.away-from-the-slab') : say('stops.toward-the-slab')}
						>
							<Why figure={m.by} title={`${m.stop}, ${m.end}`} id={`stop-${m.stop}-${m.end}`} />
						</Row>
					))}
					{s.cross.terms.length > 0 && (
						<Row label={say('stops.out-of-one-plane')} note={say('stops.corner-across-corner')}>
							<Why figure={s.cross} title={say('stops.how-far-the-corners-are')} id="stop-cross" />
						</Row>
					)}
					<ol className="list-decimal pl-5 grid gap-1 mt-3">
						{s.steps.map((t) => (
							<li key={t}>{t}</li>
						))}
					</ol>
				</section>
			) : (
				<p className="mb-4">{say('stops.first-measure-the-slabs-thickness')}</p>
			)}
			<section className="grid sm:grid-cols-2 gap-3 mb-4">
				<LengthField
					pointer="/stops/play"
					label={say('stops.play-at-the-doorstops')}
					placeholder={say(view.job.unit === 'in' ? 'stops.a-card-in' : 'stops.a-card-mm')}
					empty={0}
				/>
				<LengthField
					pointer="/stops/gasket"
					label={say('stops.gasket')}
					note={say('stops.gasket-shut')}
					empty={0}
				/>
				<LengthField
					pointer="/stops/paint"
					label={say('page.paint-still-to-come')}
					note={say('stops.on-slab-and-doorstop-together')}
					empty={0}
				/>
			</section>
			<Stand />
			<p className="mt-4 no-print">
				<a
					className="btn"
					href={`/api/jobs/${view.job.id}/openings/${view.opening.id}/template?template=card&paper=${view.job.unit === 'in' ? 'letter' : 'a4'}`}
					download
					data-door-card
				>
					{say('stops.the-whole-door-on-paper')}
				</a>
			</p>
		</>
	);
}

/** Stand takes how far the shut slab is off the existing stops. */
export function Stand() {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	if (!view.opening.stops?.stand)
		return (
			<>
				<button
					type="button"
					className="btn"
					data-field="stand-add"
					onClick={() =>
						attempt(async () => {
							await save(
								[
									{
										op: 'add',
										path: '/stops/stand',
										value: { hingeHead: 0, lockHead: 0, hingeFoot: 0, lockFoot: 0 },
									},
								],
								say('stops.doorstops-already-on'),
							);
						})
					}
				>
					{say('stops.the-doorstops-are-on-already')}
				</button>
				<Said error={error} />
			</>
		);
	return (
		<section>
			<h2 className="text-lg">{say('stops.shut-and-latched-it-stands')}</h2>
			<p className="text-sm opacity-80 mb-2">{say('stops.feelers-or-packers-between-slab')}</p>
			<div className="grid grid-cols-2 gap-3">
				<LengthField pointer="/stops/stand/hingeHead" label={say('stops.hinge-side-top')} empty={0} />
				<LengthField pointer="/stops/stand/lockHead" label={say('stops.lock-side-top')} empty={0} />
				<LengthField pointer="/stops/stand/hingeFoot" label={say('stops.hinge-side-bottom')} empty={0} />
				<LengthField pointer="/stops/stand/lockFoot" label={say('stops.lock-side-bottom')} empty={0} />
			</div>
		</section>
	);
}
