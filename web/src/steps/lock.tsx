import { useDoor } from '../door-state';
import { Choose, LengthField } from '../field';
import { Len, Row, Why } from '../length';

/** LockStep marks latch and strike. */
export function LockStep() {
	const { view, leaf } = useDoor();
	const l = leaf.latch;
	const from = view.opening.lock.from;
	return (
		<>
			{l ? (
				<section className="mb-5">
					<Row label="Latch on the slab" note="down its lock edge, from the finished top">
						<Why figure={l.slab} title="Latch on the slab" id="latch-slab" bare />
					</Row>
					<Row label="Strike in the jamb" note="centre, down from the head">
						<Why figure={l.jamb} title="Strike in the jamb" id="latch-jamb" bare />
					</Row>
					<Row label="Backset" note="finished lock edge to the spindle">
						<Why figure={l.backset} title="Backset" id="latch-backset" />
					</Row>
					<Row label="Latch bore" note="centre, from either face">
						<Why figure={l.centre} title="Latch bore" id="latch-centre" />
					</Row>
					<Row label="Wall beside the bore" note="each side">
						<Len text={l.wall.text} />
					</Row>
					<Row label="Handle above the floor">
						<Why figure={l.floor} title="Handle above the floor" id="latch-floor" />
					</Row>
				</section>
			) : (
				!leaf.findings.some((f) => f.code === 'bolted-leaf') && (
					<p className="mb-4">The latch waits for readings and the slab's thickness.</p>
				)
			)}
			<Choose
				pointer="/lock/from"
				label="Its height comes from"
				options={[
					{ value: 'strike', text: 'the strike that is in the jamb', note: 'the strike decides' },
					{ value: 'handle', text: 'a handle height above the floor' },
				]}
			/>
			<section className="grid gap-3">
				{from === 'strike' ? (
					<LengthField pointer="/lock/strike" label="Head to the strike's centre, on the lock jamb" />
				) : (
					<LengthField pointer="/lock/handle" label="Handle above the floor" />
				)}
				<div className="grid sm:grid-cols-2 gap-3">
					<LengthField pointer="/lock/backset" label="Backset" note="off the latch in hand" />
					<LengthField pointer="/lock/bore" label="Latch bore" note="diameter" />
				</div>
			</section>
			<p className="mt-3">
				Pilot right through, then bore from both faces to the middle so that nothing breaks out.
			</p>
		</>
	);
}
