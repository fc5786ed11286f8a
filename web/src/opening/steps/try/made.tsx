import { Said, useAttempt } from '../../../api/attempt';
import type { Schemas } from '../../../api/client';
import { Disclosure } from '../../../ui/disclosure';
import { capital, say } from '../../../words/texts';
import { edgeName, placeName } from '../../../words/trade';
import { LengthField } from '../../field';
import { useOpening } from '../../state';
import { Sizes } from './sizes';

type Did = Schemas['Did'];

/** Made is the slab as it was cut, its recesses as they were let in, and what was done since. */
export function Made() {
	const { view, leaf, which } = useOpening();
	const kept = view.opening.tried?.[which - 1];
	const m = kept?.made;
	if (!m) return null;
	const at = `/tried/${which - 1}`;
	const did = kept.hangs.at(-1)?.did;
	const last = `${at}/hangs/${kept.hangs.length - 1}/did`;
	const names = leaf.try?.hinges ?? [];
	return (
		<>
			{did && <Otherwise did={did} at={last} names={names} />}
			<Disclosure className="mb-4" title={say('try.the-slab-and-its-recesses')} field="made-open">
				<Sizes />
				<p className="my-2">{say('try.where-the-tape-reads-otherwise')}</p>
				<div className="grid grid-cols-2 gap-3">
					{places(m.lock.length, placeName('foot'), placeName('head')).map((where, i) => (
						<LengthField
							key={where}
							pointer={`${at}/made/lock/${i}`}
							label={say('page.width-at', { where })}
						/>
					))}
					{places(m.foot.length, edgeName('hinge'), edgeName('lock')).map((where, i) => (
						<LengthField
							key={where}
							pointer={`${at}/made/foot/${i}`}
							label={say('page.length-at', { where })}
						/>
					))}
					{places(m.head.length, placeName('hinge-corner'), placeName('lock-corner'))
						.slice(1)
						.map((where, i) => (
							<LengthField
								key={where}
								pointer={`${at}/made/head/${i + 1}`}
								label={say('try.top-above-square-where', { where })}
								note={say('try.minus-below-square')}
								empty={0}
							/>
						))}
					<LengthField pointer={`${at}/made/margin`} label={say('try.top-gap-at-the-hinge')} empty={0} />
				</div>
				{m.hinges.map((_, i) => (
					<fieldset key={names[i]} className="grid grid-cols-3 gap-2 mt-2">
						<legend className="first-letter:uppercase">{names[i]}</legend>
						<LengthField pointer={`${at}/made/hinges/${i}/slab`} label={say('try.slabs-recess')} empty={0} />
						<LengthField pointer={`${at}/made/hinges/${i}/jamb`} label={say('try.jambs-recess')} empty={0} />
						<LengthField pointer={`${at}/made/hinges/${i}/pack`} label={say('try.packed-by')} empty={0} />
					</fieldset>
				))}
			</Disclosure>
		</>
	);
}

/** places names a number of places along an edge. */
const places = (n: number, from: string, to: string) =>
	Array.from({ length: n }, (_, i) =>
		i === 0
			? from
			: i === n - 1
				? to
				: n === 3
					? placeName('middle')
					: say('try.along', { part: i, of: n - 1 }),
	);

/** Otherwise is what was done before the last try, where it differs from the advice. */
function Otherwise({ did, at, names }: { did: Did; at: string; names: string[] }) {
	const { save } = useOpening();
	const [error, attempt] = useAttempt();
	return (
		<Disclosure className="mb-2" title={say('try.it-was-done-another-way')} field="did-open">
			<div className="grid grid-cols-2 gap-3">
				{(did.pack ?? []).map((_, i) => (
					<LengthField
						// biome-ignore lint/suspicious/noArrayIndexKey: hinges stand in their order
						key={i}
						pointer={`${at}/pack/${i}`}
						label={say('try.hinge-packed-out-by', { hinge: names[i] })}
						note={say('try.below-0-set-deeper')}
						empty={0}
					/>
				))}
				<LengthField
					pointer={`${at}/up`}
					label={say('try.all-hinges-raised-by')}
					note={say('try.below-0-lowered')}
					optional
				/>
				{(did.planed ?? []).flatMap((p, i) =>
					places(
						3,
						placeName(p.side === 'lock' ? 'foot' : 'hinge-corner'),
						placeName(p.side === 'lock' ? 'head' : 'lock-corner'),
					).map((where, j) => (
						<LengthField
							key={p.side + where}
							pointer={`${at}/planed/${i}/off/${j}`}
							label={say('try.planed-off-the-edge-where', { edge: edgeName(p.side), where })}
							empty={0}
						/>
					)),
				)}
				{(did.fore ?? []).map((_, i) => (
					<LengthField
						// biome-ignore lint/suspicious/noArrayIndexKey: hinges stand in their order
						key={i}
						pointer={`${at}/fore/${i}`}
						label={say('try.hinge-moved-toward-you-by', { hinge: names[i] })}
						note={say('try.below-0-away-from-you')}
						empty={0}
					/>
				))}
			</div>
			<div className="flex flex-wrap gap-2 mt-2">
				{(['head', 'lock', 'foot'] as const)
					.filter((s) => !did.planed?.some((p) => p.side === s))
					.map((s) => (
						<button
							key={s}
							type="button"
							className="btn"
							data-also={s}
							onClick={() =>
								attempt(async () => {
									const value = [...(did.planed ?? []), { side: s, off: [0, 0, 0] }];
									await save(
										[{ op: 'add', path: `${at}/planed`, value }],
										say('try.the-edge-was-planed-as', { edge: edgeName(s) }),
									);
								})
							}
						>
							{say('try.planed-as-well', { edge: capital(edgeName(s)) })}
						</button>
					))}
				{!did.fore && (
					<button
						type="button"
						className="btn"
						data-also="fore"
						onClick={() =>
							attempt(async () => {
								await save(
									[{ op: 'add', path: `${at}/fore`, value: names.map(() => 0) }],
									say('try.a-hinge-was-moved-toward'),
								);
							})
						}
					>
						{say('try.a-hinge-moved-toward-or')}
					</button>
				)}
			</div>
			<Said error={error} />
		</Disclosure>
	);
}
