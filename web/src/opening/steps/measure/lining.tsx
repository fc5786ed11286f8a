import { Said, useAttempt } from '../../../api/attempt';
import type { Op, Plan, Unit } from '../../../api/client';
import { Len, Row, Why } from '../../../ui/length';
import { Findings } from '../../../ui/says';
import { capital, say } from '../../../words/texts';
import { jambName, marginName, placeName, trade } from '../../../words/trade';
import { LengthField, PickField } from '../../field';
import { useOpening } from '../../state';

/** beginFrame are the defaults of a frame made to the slab: its boards and its margins. */
export const beginFrame = (unit: Unit): Op[] => [
	{
		op: 'add',
		path: '/lining',
		value: { thick: unit === 'in' ? 28.575 : 28, wall: [0, 0, 0, 0, 0, 0], width: [0, 0, 0], height: [0, 0] },
	},
	{ op: 'add', path: '/margins/school', value: 'newframe' },
];

const places = ['foot', 'middle', 'head'];

/** LiningPanel is the frame made to the slab: slab and wall in, cut list and packing out. */
export function LiningPanel() {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const l = view.plan.lining;
	const stands = !!view.opening.lining?.stands;
	const found = view.plan.findings.filter((f) => f.pointer.startsWith('/lining'));
	const comes = view.opening.lining?.comes ?? '';
	const stopped = found.some((f) => f.gravity === 'stop');
	if (!view.opening.lining) {
		// An imported file may have the choice and no boards.
		return (
			<button
				type="button"
				className="btn btn-primary w-full h-14"
				onClick={() =>
					attempt(() => save(beginFrame(view.job.unit as Unit), say('frame.a-frame-made-to-the')))
				}
			>
				{say('frame.begin-the-frame')}
			</button>
		);
	}
	return (
		<section aria-label={say('frame.the-frame')} data-lining>
			<PickField
				pointer="/lining/comes"
				label={say('frame.it-comes')}
				options={trade.comes.map((c) => ({ value: c.id, text: c.name }))}
				note={trade.comes.find((c) => c.id === comes)?.why}
			/>
			<fieldset className="grid sm:grid-cols-3 gap-x-3">
				<legend className="text-lg">
					{comes === 'set' ? say('frame.the-slab-in-it') : say('frame.the-slab-it-is-made')}
				</legend>
				<LengthField pointer="/slab/width" label={say('page.width')} empty={0} />
				<LengthField pointer="/slab/length" label={say('page.length')} empty={0} />
				<LengthField pointer="/slab/thickness" label={say('page.thickness')} empty={0} />
				{view.opening.pair && (
					<LengthField pointer="/pair/slab/width" label={say('frame.the-other-leafs-width')} empty={0} />
				)}
			</fieldset>
			{comes === '' && <Wall />}
			<fieldset className="grid sm:grid-cols-3 gap-x-3 mt-2">
				<legend className="text-lg">{say('frame.the-rough-opening')}</legend>
				{places.map((p, i) => (
					<LengthField
						key={p}
						pointer={`/lining/width/${i}`}
						label={say('page.width-at', { where: placeName(p) })}
						empty={0}
					/>
				))}
				<LengthField pointer="/lining/height/0" label={say('frame.height-hinge-side')} empty={0} />
				<LengthField pointer="/lining/height/1" label={say('frame.height-lock-side')} empty={0} />
				<LengthField
					pointer="/lining/floor"
					label={say('frame.floor-under-the-lock-jamb')}
					optional
					note={say('frame.against-the-hinge-jambs-0')}
				/>
				<LengthField
					pointer="/lining/high"
					label={say('frame.highest-place-of-the-floor')}
					optional
					note={say('frame.between-the-jambs-and-where')}
				/>
			</fieldset>
			<Boards />
			<Findings list={found} />
			{l ? <FrameOf lining={l} /> : <p className="my-3">{say('frame.the-frame-needs-the-slabs')}</p>}
			{l && (
				<button
					type="button"
					className={`btn w-full h-14 my-3 text-lg ${stands ? '' : 'btn-primary'}`}
					disabled={stopped && !stands}
					onClick={() =>
						attempt(() =>
							save(
								[{ op: 'add', path: '/lining/stands', value: !stands }],
								stands ? say('frame.the-frame-does-not-stand') : say('frame.the-frame-is-made-and'),
							),
						)
					}
					data-stands={stands}
				>
					{stands ? say('frame.it-does-not-stand-yet') : say('frame.it-stands')}
				</button>
			)}
			<Said error={error} />
		</section>
	);
}

/** Wall is how thick the wall is, where the frame is ripped to it. */
function Wall() {
	return (
		<fieldset className="grid sm:grid-cols-3 gap-x-3 mt-2">
			<legend className="text-lg">{say('frame.the-wall-finish-to-finish')}</legend>
			{[0, 1, 2, 3, 4, 5].map((i) => (
				<LengthField
					key={i}
					pointer={`/lining/wall/${i}`}
					label={say('frame.wall-at', {
						side: capital(marginName(i < 3 ? 'hinge' : 'lock')),
						where: placeName(places[i % 3] ?? ''),
					})}
					empty={0}
				/>
			))}
		</fieldset>
	);
}

/** Boards are those of the frame, or what was measured of a set. */
function Boards() {
	const { view } = useOpening();
	const comes = view.opening.lining?.comes ?? '';
	return (
		<fieldset className="grid sm:grid-cols-3 gap-x-3 mt-2">
			<legend className="text-lg">{comes === 'set' ? say('frame.the-set') : say('frame.the-boards')}</legend>
			<LengthField pointer="/lining/thick" label={say('frame.thickness-of-a-leg')} empty={0} />
			{comes === 'set' ? (
				<>
					<LengthField pointer="/lining/outer" label={say('frame.width-over-all')} optional />
					<LengthField
						pointer="/lining/leg"
						label={say('frame.length-of-its-legs')}
						optional
						note={say('frame.from-under-its-head')}
					/>
				</>
			) : (
				<>
					<LengthField pointer="/lining/board" label={say('frame.width-as-bought')} optional />
					<PickField
						pointer="/lining/joint"
						label={say('frame.head-and-jambs')}
						options={trade.joints.map((j) => ({ value: j.id, text: j.name }))}
						note={trade.joints.find((j) => j.id === (view.opening.lining?.joint ?? ''))?.why}
					/>
				</>
			)}
			<LengthField
				pointer="/lining/rebate"
				label={say('frame.depth-of-its-rebate')}
				optional
				note={say('frame.empty-where-a-stop')}
			/>
		</fieldset>
	);
}

/** FrameOf is the frame as it is cut and set. */
function FrameOf({ lining: l }: { lining: NonNullable<Plan['lining']> }) {
	return (
		<>
			<h2 className="text-lg mt-3">{say('frame.inside')}</h2>
			<Row label={say('frame.width-between-the-jambs')}>
				<Why figure={l.width} title={say('frame.clear-width-of-the-frame')} id="frame-width" />
			</Row>
			<Row label={say('frame.height-floor-to-head')}>
				<Why figure={l.height} title={say('frame.clear-height-of-the-frame')} id="frame-height" />
			</Row>
			<h2 className="text-lg mt-3">{l.set ? say('frame.its-legs') : say('frame.cut-list')}</h2>
			<ul data-cut-list>
				{l.parts.map((p) => (
					<li
						key={p.id}
						className="flex items-baseline gap-3 border-b border-base-300 py-1"
						data-part={p.id}
						data-long={p.long.mm}
					>
						<span className="grow">
							{say('frame.part', { number: p.count, part: p.name })}
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
			{l.feet.length > 0 && (
				<>
					<h2 className="text-lg mt-3">{say('frame.off-its-feet')}</h2>
					{l.feet.map((f) => (
						<Row key={f.side} label={capital(jambName(f.side))}>
							<span className="text-2xl dim" data-foot={f.side}>
								<Len text={f.off.text} />
							</span>
						</Row>
					))}
				</>
			)}
			{l.taper && (
				<>
					<h2 className="text-lg mt-3">{say('frame.rip-to-a-taper')}</h2>
					{l.rip.map((r) => (
						<Row
							key={r.name}
							label={r.name}
							note={r.marks.length === 3 ? say('frame.bottom-middle-top') : say('frame.hinge-end-lock-end')}
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
					<h2 className="text-lg mt-3">{say('frame.packing-about')}</h2>
					{l.packs.map((p) => (
						<Row
							key={p.side + p.what}
							label={say('frame.packing-at', { jamb: capital(jambName(p.side)), place: p.what })}
							note={
								<>
									<Len text={p.up.text} unit /> {say('frame.up')}
								</>
							}
						>
							<Len text={p.thick.text} />
						</Row>
					))}
				</>
			)}
			<h2 className="text-lg mt-3">{say('frame.how')}</h2>
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
