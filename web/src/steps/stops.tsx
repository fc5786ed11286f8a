import { Said, useAttempt } from '../attempt';
import { useDoor } from '../door-state';
import { LengthField } from '../field';
import { Row, Why } from '../length';

/** StopsStep places the stops that the shut slab lands on. */
export function StopsStep() {
	const { view, leaf } = useDoor();
	const s = leaf.stops;
	return (
		<>
			{s ? (
				<section className="mb-5">
					<Row label="Stop's face" note="from the jamb's pull-side corner">
						<Why figure={s.from} title="Stop's face, from the jamb's pull-side corner" id="stop-from" />
					</Row>
					{s.moves.map((m) => (
						<Row
							key={m.stop + m.end}
							label={`${m.stop}, ${m.end}`}
							note={m.by.mm < 0 ? 'away from the slab' : 'toward the slab'}
						>
							<Why figure={m.by} title={`${m.stop}, ${m.end}`} id={`stop-${m.stop}-${m.end}`} />
						</Row>
					))}
					{s.cross.terms.length > 0 && (
						<Row label="Out of one plane" note="corner across corner">
							<Why figure={s.cross} title="How far the corners are out of one plane" id="stop-cross" />
						</Row>
					)}
					<ol className="list-decimal pl-5 grid gap-1 mt-3">
						{s.steps.map((t) => (
							<li key={t}>{t}</li>
						))}
					</ol>
				</section>
			) : (
				<p className="mb-4">The stops wait for the slab's thickness.</p>
			)}
			<section className="grid sm:grid-cols-2 gap-3 mb-4">
				<LengthField pointer="/stops/play" label="Play at the stops" placeholder="a card, 1 mm" empty={0} />
				<LengthField
					pointer="/stops/paint"
					label="Paint still to come"
					note="on slab and stop together"
					empty={0}
				/>
			</section>
			<Stand />
			<p className="mt-4 no-print">
				<a
					className="btn"
					href={`/api/jobs/${view.job.id}/openings/${view.opening.id}/sheet?template=card&paper=${view.job.unit === 'in' ? 'letter' : 'a4'}`}
					download
					data-door-card
				>
					The whole door on paper
				</a>
			</p>
		</>
	);
}

/** Stand takes how far the shut slab stands off the stops that are there. */
export function Stand() {
	const { view, save } = useDoor();
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
								'stops that are there',
							);
						})
					}
				>
					The stops are there: read how the slab stands off them
				</button>
				<Said error={error} />
			</>
		);
	return (
		<section>
			<h2 className="text-lg">Shut and latched, it stands off by</h2>
			<p className="text-sm opacity-80 mb-2">
				Feelers or packers between slab and stop; below 0 it is sprung on.
			</p>
			<div className="grid grid-cols-2 gap-3">
				<LengthField pointer="/stops/stand/hingeHead" label="Hinge side, head" empty={0} />
				<LengthField pointer="/stops/stand/lockHead" label="Lock side, head" empty={0} />
				<LengthField pointer="/stops/stand/hingeFoot" label="Hinge side, foot" empty={0} />
				<LengthField pointer="/stops/stand/lockFoot" label="Lock side, foot" empty={0} />
			</div>
		</section>
	);
}
