import { Fragment } from 'react';
import type { Leaf } from '../../../api/client';
import { Len, Why } from '../../../ui/length';
import { Phrase } from '../../../words/phrase';
import { capital, say } from '../../../words/texts';
import { edgeName, placeName } from '../../../words/trade';
import { PickField } from '../../field';

type Edge = NonNullable<Leaf['cut']>['edges'][number];

/** The places of the marks along an edge; those between have no name. */
const ends: Record<string, string[]> = {
	head: ['hinge-corner', 'middle', 'lock-corner'],
	foot: ['hinge-corner', 'middle', 'lock-corner'],
	hinge: ['head', '', 'middle', '', 'foot'],
	lock: ['head', '', 'middle', '', 'foot'],
};

/** endName is the name of a mark's place. */
function endName(side: string, mark: number) {
	const end = ends[side]?.[mark];
	return end && placeName(end);
}

/** EdgeCut is one edge of the cut list: how it is cut, its marks, and where the saw's guide lies. */
export function EdgeCut({ edge: e, number }: { edge: Edge; number: number }) {
	return (
		<section aria-label={edgeName(e.side)} data-edge={e.side}>
			<h2 className="text-xl flex items-baseline gap-2">
				{number}. {capital(edgeName(e.side))}
				<span className="text-base font-normal opacity-80">{e.method}</span>
			</h2>
			<p className="mb-1">{e.says}</p>
			{e.passes.length > 1 && <Passes edge={e} />}
			{e.marks.some((m) => m.depth.mm > 0) && <Marks edge={e} />}
			{e.pencils.length > 0 && <Pencils edge={e} />}
			{e.sawing && <SawGuide edge={e} sawing={e.sawing} />}
			{e.ways.length > 1 && <MeansOf edge={e} />}
		</section>
	);
}

/** Marks are the depths along an edge. */
function Marks({ edge: e }: { edge: Edge }) {
	return (
		<table className="w-full">
			<thead>
				<tr className="text-left text-sm opacity-80">
					<th className="font-normal">
						{e.side === 'head' || e.side === 'foot'
							? say('cut.from-the-hinge-edge')
							: say('cut.down-from-the-top')}
					</th>
					<th className="font-normal" />
					<th className="font-normal text-right">{say('page.off')}</th>
				</tr>
			</thead>
			<tbody>
				{e.marks.map((m, k) => (
					<tr key={m.at.mm} className="border-t border-base-300">
						<td className="text-xl dim">
							<Len text={m.at.text} />
						</td>
						<td className="text-sm opacity-80">{endName(e.side, k)}</td>
						<td className="text-right text-2xl dim">
							<Why
								figure={m.depth}
								title={say('cut.mark', {
									edge: edgeName(e.side),
									where: endName(e.side, k) || say('cut.between'),
								})}
								id={`cut-${e.side}-${k}`}
							/>
						</td>
					</tr>
				))}
			</tbody>
		</table>
	);
}

/** Pencils is where the cut lies from the lines that were pencilled on the slab as it stood against its opening. */
function Pencils({ edge: e }: { edge: Edge }) {
	return (
		<details className="mt-1" data-pencils={e.side}>
			<summary className="min-h-11 flex items-center cursor-pointer underline decoration-dotted underline-offset-4">
				{say('cut.by-the-pencil')}
			</summary>
			<table className="w-full">
				<tbody>
					{e.pencils.map((m) => (
						<tr key={m.at.mm} className="border-t border-base-300">
							<td className="text-xl dim">
								<Len text={m.at.text} />
							</td>
							<td className="text-right text-lg">{m.says}</td>
						</tr>
					))}
				</tbody>
			</table>
		</details>
	);
}

/** SawGuide is where the guide is clamped, or how the fence is set, and how the edge is sawn. */
function SawGuide({ edge: e, sawing }: { edge: Edge; sawing: NonNullable<Edge['sawing']> }) {
	const fence = sawing.fence ? [{ from: say('cut.fence'), along: sawing.fence }] : [];
	return (
		<div className="mt-2 border-l-4 border-[var(--chalk)] pl-3" data-sawing={e.side}>
			<h3 className="text-sm opacity-80">{fence.length > 0 ? say('cut.table-saw') : say('cut.guide')}</h3>
			<table className="w-full">
				<tbody>
					{[...sawing.clamps, ...fence].map((c, k) => (
						<tr key={c.from} className="border-t border-base-300">
							<th scope="row" className="font-normal text-left">
								{capital(c.from)}
							</th>
							<td className="text-right text-2xl dim whitespace-nowrap">
								<Why figure={c.along} title={capital(c.from)} id={`guide-${e.side}-${k}`} />
							</td>
						</tr>
					))}
				</tbody>
			</table>
			<ol className="list-decimal pl-5 mt-1">
				{sawing.steps.map((s) => (
					<li key={s}>{s}</li>
				))}
			</ol>
		</div>
	);
}

/** MeansOf chooses saw or plane; each says its minutes. */
function MeansOf({ edge: e }: { edge: Edge }) {
	return (
		<div className="no-print mt-3">
			<PickField
				pointer={`/cut/means/${e.side}`}
				label={say('cut.saw-or-plane')}
				options={[
					{ value: '', text: say('cut.by-minutes') },
					...e.ways.map((w) => ({
						value: w.means === 'saw' || w.means === 'table-saw' ? 'saw' : 'plane',
						text: say('cut.means', { means: w.name, minutes: w.minutes }),
					})),
				]}
				note={e.ways.map((w) => say('cut.means', { means: w.name, minutes: w.minutes })).join('; ')}
			/>
		</div>
	);
}

/** runs are passes over the same stretch, one after the other, told once; numbered from 1. */
function runs(passes: Edge['passes']) {
	const list: (Edge['passes'][number] & { first: number; last: number })[] = [];
	passes.forEach((p, i) => {
		const same = list.at(-1);
		if (same && same.from.mm === p.from.mm && same.to.mm === p.to.mm) same.last = i + 1;
		else list.push({ ...p, first: i + 1, last: i + 1 });
	});
	return list;
}

/** Passes are those of a plane: 1 mm at a time, each a little longer. */
function Passes({ edge }: { edge: NonNullable<Leaf['cut']>['edges'][number] }) {
	const even = edge.passes.every(
		(p) => p.from.mm === edge.passes[0]?.from.mm && p.to.mm === edge.passes[0]?.to.mm,
	);
	return (
		<p className="mb-1 dim" data-passes={edge.passes.length}>
			{even ? (
				<Phrase
					id="cut.passes"
					of={{
						passes: edge.passes.length,
						bite: <Len text={edge.passes[0]?.bite ?? { mm: '', in: '' }} unit />,
					}}
				/>
			) : (
				runs(edge.passes).map((r, i, all) => (
					<Fragment key={r.first}>
						<span className="whitespace-nowrap">
							<Phrase
								id="cut.pass"
								of={{
									number: r.first === r.last ? r.first : `${r.first}–${r.last}`,
									from: <Len text={r.from.text} />,
									to: <Len text={r.to.text} />,
								}}
							/>
						</span>
						{i < all.length - 1 && ' · '}
					</Fragment>
				))
			)}
		</p>
	);
}
