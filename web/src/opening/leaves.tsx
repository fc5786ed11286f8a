import type { Leaf } from '../api/client';
import { Why } from '../ui/length';
import { capital, say } from '../words/texts';
import { edgeName, jambName } from '../words/trade';
import { useOpening } from './state';

type Figures = {
	label: string;
	id: string;
	of: (leaf: Leaf) => Parameters<typeof Why>[0]['figure'] | undefined;
};

/** deepest is the most that comes off an edge of a leaf. */
function deepest(leaf: Leaf, side: string) {
	const marks = leaf.cut?.edges.find((e) => e.side === side)?.marks ?? [];
	return marks.map((m) => m.depth).sort((a, b) => b.mm - a.mm)[0];
}

/** BothLeaves shows the leaves of a pair side by side: what each comes to, and on Cut what comes off its edges. */
export function BothLeaves({ step }: { step: string }) {
	const { leaves } = useOpening().view.plan;
	const off: Figures[] = (leaves[0]?.cut?.edges ?? []).map(({ side }) => ({
		label: `${capital(edgeName(side))}, ${say('page.off')}`,
		id: `off-${side}`,
		of: (l) => deepest(l, side),
	}));
	const rows: Figures[] = [
		{ label: say('slab.finished-width'), id: 'finished-width', of: (l) => l.finished?.width },
		{ label: say('slab.finished-length'), id: 'finished-length', of: (l) => l.finished?.length },
		...(step === 'cut' ? off : []),
	];
	if (!leaves.every((l) => l.finished)) return null;
	return (
		<table className="w-full mb-4" data-both-leaves>
			<thead>
				<tr className="text-sm opacity-80">
					<td />
					{leaves.map((l) => (
						<th key={l.jamb} className="font-normal text-right pl-3">
							{capital(say('page.leaf-on', { jamb: jambName(l.jamb) }))}
						</th>
					))}
				</tr>
			</thead>
			<tbody>
				{rows.map((r) => (
					<tr key={r.id} className="border-t border-base-300">
						<th scope="row" className="font-normal text-left">
							{r.label}
						</th>
						{leaves.map((l, n) => {
							const figure = r.of(l);
							return (
								<td key={l.jamb} className="text-right text-xl dim">
									{figure && <Why figure={figure} title={r.label} id={`both-${n + 1}-${r.id}`} />}
								</td>
							);
						})}
					</tr>
				))}
			</tbody>
		</table>
	);
}
