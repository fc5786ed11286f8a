import { Printer, SquareStack } from 'lucide-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Said, useAttempt } from '../../../api/attempt';
import type { Leaf } from '../../../api/client';
import { Checkbox } from '../../../ui/checkbox';
import { Len, Why } from '../../../ui/length';
import { Phrase } from '../../../words/phrase';
import { capital, list, say } from '../../../words/texts';
import { edgeName, named, placeName, trade } from '../../../words/trade';
import { Choose, LengthField, Ticked } from '../../field';
import { useOpening } from '../../state';
import { EdgeCut } from './edge';

/** CutStep is the cut list: the decision, its reason, the other ways, and the marks edge by edge. */
export function CutStep() {
	const { view, leaf, save } = useOpening();
	const cut = leaf.cut;
	const [error, attempt] = useAttempt();
	// The cut waits for another reading, or is confirmed without it.
	const unsure = leaf.findings.some((f) => f.pointer === '/cut/knowing');
	if (!cut) return <p className="mb-4">{say('cut.first-read-a-width-and')}</p>;
	return (
		<>
			{(unsure || view.opening.cut.knowing) && (
				<div className="flex flex-wrap items-center gap-x-6 gap-y-2 mb-3">
					{unsure && (
						<Link className="btn" to={`/j/${view.job.id}/${view.opening.id}/measure`} data-read-first>
							{say('cut.read-first')}
						</Link>
					)}
					<Checkbox
						data-field="cut-knowing"
						checked={!!view.opening.cut.knowing}
						onChange={(e) =>
							attempt(() =>
								save(
									[{ op: 'add', path: '/cut/knowing', value: e.target.checked }],
									e.target.checked ? say('cut.cut-without-it-change') : say('cut.not-cut-without-it'),
								),
							)
						}
					>
						{say('cut.cut-without-it-knowingly')}
					</Checkbox>
				</div>
			)}
			<Said error={error} />
			<div className="mb-3" data-laid={`${cut.across}, ${cut.along}`}>
				<p className="text-lg">
					{cut.why[0]} {cut.why[1]}
				</p>
				{cut.rules.length > 0 && (
					<p className="opacity-85">{say('cut.why-rules', { rules: cut.rules.join('; ') })}</p>
				)}
			</div>
			<div className="no-print mb-4">
				<Link
					className="btn btn-primary text-lg h-auto min-h-12 py-1"
					to={`/cards/${view.job.id}/${view.opening.id}`}
					data-cards
				>
					<SquareStack size={20} aria-hidden="true" /> {say('cut.one-card-at-a-time')}
				</Link>
			</div>
			<div className="grid gap-5">
				{cut.edges.map((e, i) => (
					<EdgeCut key={e.side} edge={e} number={i + 1} />
				))}
			</div>
			<Inserts />
			<Others />
			{(['lockEdge', 'head'] as const).map((edge) => (
				<Choose
					key={edge}
					pointer={`/cut/${edge}`}
					label={capital(edgeName(edge === 'head' ? 'head' : 'lock'))}
					row
					unset="by-rule"
					options={[
						{ value: 'by-rule', text: say('page.by-rule') },
						{ value: 'straight', text: say('cut.straight') },
						{ value: 'scribed', text: say('cut.scribed') },
					]}
				/>
			))}
			<Choose
				pointer="/cut/leaveOn"
				label={say('cut.leave-on-at-the-first')}
				options={trade.habits.map((h) => ({ value: h.id, text: h.name, note: h.why }))}
			/>
			<section>
				<h2 className="text-lg">{say('page.after-the-first-cut')}</h2>
				<Three
					label={say('page.width')}
					figures={cut.width}
					names={['head', 'middle', 'foot'].map(placeName)}
				/>
				<Three
					label={say('page.length')}
					figures={cut.length}
					names={[edgeName('hinge'), placeName('middle'), edgeName('lock')]}
				/>
			</section>
			<button type="button" className="btn no-print mt-3" onClick={() => print()}>
				<Printer size={20} aria-hidden="true" /> {say('cut.print-this-sheet')}
			</button>
			<p className="mt-3">{say('cut.marks-run-from-the-top')}</p>
		</>
	);
}

/** Inserts are the edges of a hollow slab that are cut open, and how each is closed again. */
function Inserts() {
	const { view, leaf } = useOpening();
	const list = leaf.cut?.inserts ?? [];
	if (list.length === 0) return null;
	return (
		<section className="mt-5" data-inserts={list.flatMap((i) => i.ends).join(' ')}>
			{list.map((i) => (
				<div key={i.name} className="mb-3">
					<h2 className="text-lg">{say('cut.close-the-edge', { edge: i.name })}</h2>
					<ol className="list-decimal pl-6">
						{i.steps.map((s) => (
							<li key={s}>{s}</li>
						))}
					</ol>
				</div>
			))}
			<Ticked pointer="/cut/insert/new" text={say('cut.close-it-with-a-new')} />
			<details open={!!view.opening.cut.insert?.width}>
				<summary className="min-h-11 cursor-pointer flex items-center underline">
					{say('cut.a-piece-that-is-at')}
				</summary>
				<div className="grid sm:grid-cols-2 gap-3">
					<LengthField pointer="/cut/insert/width" label={say('page.width')} empty={0} />
					<LengthField pointer="/cut/insert/thickness" label={say('page.thickness')} empty={0} />
				</div>
			</details>
		</section>
	);
}

function Three({
	label,
	figures,
	names,
}: {
	label: string;
	figures: NonNullable<Leaf['cut']>['width'];
	names: string[];
}) {
	return (
		<div className="border-b border-base-300 py-1">
			<div className="font-semibold">{label}</div>
			<div className="grid grid-cols-3">
				{figures.map((f, i) => (
					<div key={names[i]}>
						<div className="text-sm opacity-80">{names[i]}</div>
						<Why
							figure={f}
							title={say('cut.label-after-the-first-cut', { label, names: names[i] })}
							className="text-xl dim"
						/>
					</div>
				))}
			</div>
		</div>
	);
}

/** Others are the ways to lay the slab, across and along, each with its cost, or left to the rules. */
function Others() {
	const { leaf } = useOpening();
	const cut = leaf.cut;
	if (!cut) return null;
	const across = cut.others.filter(
		(o) => o.along === (cut.along || 'keep-head') || o.across === 'as-offered',
	);
	const along = cut.others.filter((o) => o.across === cut.across && o.along);
	return (
		<div className="my-5 grid gap-4">
			<Ways
				pointer="/cut/registration"
				legend={say('cut.where-the-width-comes-off')}
				ways={across.map((o) => ({
					id: o.across,
					bad: o,
					cost: (
						<>
							{say('cut.off-hinge')} <Ends pair={o.hinge} />
							<br />
							{say('cut.off-lock')} <Ends pair={o.lock} />
						</>
					),
				}))}
			/>
			{along.length > 0 && (
				<Ways
					pointer="/cut/ends"
					legend={say('cut.where-the-length-comes-off')}
					ways={along.map((o) => ({
						id: o.along,
						bad: o,
						cost: (
							<>
								{say('cut.off-top')} <Len text={o.head.text} />
								<br />
								{say('cut.off-bottom')} <Len text={o.foot.text} />
							</>
						),
					}))}
				/>
			)}
		</div>
	);
}

function Ways({
	pointer,
	legend,
	ways,
}: {
	pointer: '/cut/registration' | '/cut/ends';
	legend: string;
	ways: { id: string; cost: ReactNode; bad: { short: boolean; over: string[] } }[];
}) {
	const { view, leaf, save } = useOpening();
	const [error, attempt] = useAttempt();
	const now = (pointer === '/cut/ends' ? view.opening.cut.ends : view.opening.cut.registration) || 'by-rule';
	const chosen = pointer === '/cut/ends' ? leaf.cut?.along : leaf.cut?.across;
	const table = pointer === '/cut/ends' ? trade.ends : trade.registrations;
	const radio = (id: string) => ({
		className: 'radio radio-primary mt-0.5',
		name: pointer,
		value: id,
		checked: now === id,
		onChange: async () => {
			await attempt(async () => {
				await save(
					[{ op: 'add', path: pointer, value: id }],
					say('cut.laid', { way: id === 'by-rule' ? say('page.by-rule') : named(table, id).name }),
				);
			});
		},
	});
	return (
		<fieldset>
			<legend className="text-lg mb-1">{legend}</legend>
			<label className="flex gap-3 items-start py-2 border-b border-base-300 cursor-pointer min-h-11">
				<input type="radio" {...radio('by-rule')} />
				<span>
					{say('page.by-rule')}{' '}
					<span className="opacity-80">{say('cut.now-name', { name: named(table, chosen ?? '').name })}</span>
				</span>
			</label>
			{ways.map((o) => (
				<label key={o.id} className="flex gap-3 items-start py-2 border-b border-base-300 cursor-pointer">
					<input type="radio" {...radio(o.id)} />
					<span className="grow">
						<span className="font-semibold">{named(table, o.id).name}</span>
						{o.bad.short && <span className="text-error font-semibold"> {say('cut.slab-too-small')}</span>}
						{o.bad.over.length > 0 && (
							<span className="text-error font-semibold">
								{' '}
								{say('cut.too-much-off-the-edges', { edges: list(o.bad.over.map(edgeName)) })}
							</span>
						)}
						<span className="block text-sm opacity-80">{named(table, o.id).why}</span>
					</span>
					<span className="text-right dim whitespace-nowrap">{o.cost}</span>
				</label>
			))}
			<Said error={error} />
		</fieldset>
	);
}

function Ends({ pair }: { pair: { mm: number; text: { mm: string; in: string } }[] }) {
	const [a, b] = pair;
	if (!a || !b) return null;
	return a.mm === b.mm ? (
		<Len text={a.text} />
	) : (
		<Phrase id="cut.ends" of={{ from: <Len text={a.text} />, to: <Len text={b.text} /> }} />
	);
}
