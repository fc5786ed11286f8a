import type { Op, Plan, Unit } from '../../api';
import { Said, useAttempt } from '../../attempt';
import { useDoor } from '../../door-state';
import { LengthField, PickField } from '../../field';
import { Len, Row, Why } from '../../length';
import { Findings } from '../../says';
import { trade } from '../../trade';

/** beginFrame is what a frame made to the slab is begun with: its boards and its margins. */
export const beginFrame = (unit: Unit): Op[] => [
	{
		op: 'add',
		path: '/lining',
		value: { thick: unit === 'in' ? 28.575 : 28, wall: [0, 0, 0, 0, 0, 0], width: [0, 0, 0], height: [0, 0] },
	},
	{ op: 'add', path: '/margins/school', value: 'newframe' },
];

const places = ['foot', 'middle', 'head'];

/** LiningPanel makes the frame: slab and wall in, cut list and packing out. */
export function LiningPanel() {
	const { view, save } = useDoor();
	const [error, attempt] = useAttempt();
	const l = view.plan.lining;
	const stands = !!view.opening.lining?.stands;
	const found = view.plan.findings.filter((f) => f.pointer.startsWith('/lining'));
	const stopped = found.some((f) => f.gravity === 'stop');
	if (!view.opening.lining) {
		// Of a file of another hand: the way was said, and nothing of the boards.
		return (
			<button
				type="button"
				className="btn btn-primary w-full h-14"
				onClick={() => attempt(() => save(beginFrame(view.job.unit as Unit), 'a frame made to the slab'))}
			>
				Begin the frame
			</button>
		);
	}
	return (
		<section aria-label="The frame" data-lining>
			<fieldset className="grid sm:grid-cols-3 gap-x-3">
				<legend className="text-lg">The slab it is made to</legend>
				<LengthField pointer="/slab/width" label="Width" empty={0} />
				<LengthField pointer="/slab/length" label="Length" empty={0} />
				<LengthField pointer="/slab/thickness" label="Thickness" empty={0} />
				{view.opening.pair && (
					<LengthField pointer="/pair/slab/width" label="The other leaf's width" empty={0} />
				)}
			</fieldset>
			<fieldset className="grid sm:grid-cols-3 gap-x-3 mt-2">
				<legend className="text-lg">The wall, finish to finish</legend>
				{[0, 1, 2, 3, 4, 5].map((i) => (
					<LengthField
						key={i}
						pointer={`/lining/wall/${i}`}
						label={`${i < 3 ? 'Hinge' : 'Lock'} side, ${places[i % 3]}`}
						empty={0}
					/>
				))}
			</fieldset>
			<fieldset className="grid sm:grid-cols-3 gap-x-3 mt-2">
				<legend className="text-lg">The rough opening</legend>
				{places.map((p, i) => (
					<LengthField key={p} pointer={`/lining/width/${i}`} label={`Width, ${p}`} empty={0} />
				))}
				<LengthField pointer="/lining/height/0" label="Height, hinge side" empty={0} />
				<LengthField pointer="/lining/height/1" label="Height, lock side" empty={0} />
				<LengthField
					pointer="/lining/floor"
					label="Floor under the lock jamb, higher by"
					optional
					note="against the hinge jamb's; 0 where level, minus where lower"
				/>
				<LengthField
					pointer="/lining/high"
					label="Floor's highest place, higher by"
					optional
					note="between the jambs and where the door swings"
				/>
			</fieldset>
			<fieldset className="grid sm:grid-cols-3 gap-x-3 mt-2">
				<legend className="text-lg">The boards</legend>
				<LengthField pointer="/lining/thick" label="Thickness" empty={0} />
				<LengthField pointer="/lining/board" label="Width they come in" optional />
				<PickField
					pointer="/lining/joint"
					label="Head and jambs"
					options={trade.joints.map((j) => ({ value: j.id, text: j.name }))}
					note={trade.joints.find((j) => j.id === (view.opening.lining?.joint ?? ''))?.why}
				/>
			</fieldset>
			<Findings list={found} />
			{l ? (
				<FrameOf lining={l} />
			) : (
				<p className="my-3">The slab's width, length and the boards' thickness make the frame.</p>
			)}
			{l && (
				<button
					type="button"
					className={`btn w-full h-14 my-3 text-lg ${stands ? '' : 'btn-primary'}`}
					disabled={stopped && !stands}
					onClick={() =>
						attempt(() =>
							save(
								[{ op: 'add', path: '/lining/stands', value: !stands }],
								stands ? 'the frame does not stand yet' : 'the frame is made and stands',
							),
						)
					}
					data-stands={stands}
				>
					{stands ? 'It does not stand yet' : 'It is made and stands: read it'}
				</button>
			)}
			<Said error={error} />
		</section>
	);
}

/** FrameOf is the frame as it is cut and set. */
function FrameOf({ lining: l }: { lining: NonNullable<Plan['lining']> }) {
	return (
		<>
			<h2 className="text-lg mt-3">Clear, inside</h2>
			<Row label="Width, between the jambs">
				<Why figure={l.width} title="Clear width of the frame" id="frame-width" />
			</Row>
			<Row label="Height, floor to head">
				<Why figure={l.height} title="Clear height of the frame" id="frame-height" />
			</Row>
			<h2 className="text-lg mt-3">Cut list</h2>
			<ul data-cut-list>
				{l.parts.map((p) => (
					<li
						key={p.id}
						className="flex items-baseline gap-3 border-b border-base-300 py-1"
						data-part={p.id}
						data-long={p.long.mm}
					>
						<span className="grow">
							{p.count} {p.name}
							{p.note && <span className="block text-sm opacity-75">{p.note}</span>}
						</span>
						<span className="text-2xl dim">
							<Len text={p.long.text} />
						</span>
						<span className="dim text-lg opacity-85 whitespace-nowrap">
							{p.wide.mm > 0 && (
								<>
									{' × '}
									<Len text={p.wide.text} />
								</>
							)}
							{' × '}
							<Len text={p.thick.text} />
						</span>
					</li>
				))}
			</ul>
			{l.taper && (
				<>
					<h2 className="text-lg mt-3">Rip to a taper</h2>
					{l.rip.map((r) => (
						<Row
							key={r.name}
							label={r.name}
							note={r.marks.length === 3 ? 'foot, middle, head' : 'hinge end, lock end'}
						>
							{r.marks.map((m, i) => (
								// biome-ignore lint/suspicious/noArrayIndexKey: a mark is known by its place
								<span key={i}>
									{i > 0 && ', '}
									<Len text={m.text} />
								</span>
							))}
						</Row>
					))}
				</>
			)}
			{l.packs.length > 0 && (
				<>
					<h2 className="text-lg mt-3">Packing, about</h2>
					{l.packs.map((p) => (
						<Row
							key={p.side + p.what}
							label={`${p.side} jamb, behind ${p.what}`}
							note={
								<>
									<Len text={p.up.text} unit /> up
								</>
							}
						>
							<Len text={p.thick.text} />
						</Row>
					))}
				</>
			)}
			<h2 className="text-lg mt-3">How</h2>
			<ol className="list-decimal pl-6" data-frame-steps>
				{l.steps.map((s) => (
					<li key={s} className="mb-1">
						{s}
					</li>
				))}
			</ol>
		</>
	);
}
