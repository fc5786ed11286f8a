import { Said, useAttempt } from '../../attempt';
import { useDoor } from '../../door-state';
import { LengthField } from '../../field';
import { Sizes } from './step';

/** Made is the slab as it really was cut, its pockets as they were let in, and what was really done since. */
export function Made() {
	const { view, leaf, which, save } = useDoor();
	const [error, attempt] = useAttempt();
	const kept = view.opening.tried?.[which - 1];
	const m = kept?.made;
	if (!m) return null;
	const at = `/tried/${which - 1}`;
	const did = kept.hangs.at(-1)?.did;
	const d = `${at}/hangs/${kept.hangs.length - 1}/did`;
	const names = leaf.try?.hinges ?? [];
	const places = (n: number, from: string, to: string) =>
		Array.from({ length: n }, (_, i) =>
			i === 0 ? from : i === n - 1 ? to : n === 3 ? 'middle' : `${i}/${n - 1} along`,
		);
	return (
		<>
			{did && (
				<details className="mb-2">
					<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="did-open">
						It was done another way
					</summary>
					<div className="grid grid-cols-2 gap-3">
						{(did.pack ?? []).map((_, i) => (
							<LengthField
								// biome-ignore lint/suspicious/noArrayIndexKey: hinges stand in their order
								key={i}
								pointer={`${d}/pack/${i}`}
								label={`${names[i]}, packed out by`}
								note="let in below 0"
								empty={0}
							/>
						))}
						<LengthField pointer={`${d}/up`} label="All hinges raised by" note="lowered below 0" optional />
						{(did.planed ?? []).flatMap((p, i) =>
							places(
								3,
								p.side === 'lock' ? 'foot' : 'hinge corner',
								p.side === 'lock' ? 'head' : 'lock corner',
							).map((where, j) => (
								<LengthField
									key={p.side + where}
									pointer={`${d}/planed/${i}/off/${j}`}
									label={`Planed off the ${p.side}, ${where}`}
									empty={0}
								/>
							)),
						)}
						{(did.fore ?? []).map((_, i) => (
							<LengthField
								// biome-ignore lint/suspicious/noArrayIndexKey: hinges stand in their order
								key={i}
								pointer={`${d}/fore/${i}`}
								label={`${names[i]}, moved toward you by`}
								note="away from you below 0"
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
											await save([{ op: 'add', path: `${d}/planed`, value }], `the ${s} was planed as well`);
										})
									}
								>
									{s === 'lock' ? 'Lock edge' : s === 'head' ? 'Head' : 'Foot'} planed as well
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
											[{ op: 'add', path: `${d}/fore`, value: names.map(() => 0) }],
											'a hinge was moved to or fro',
										);
									})
								}
							>
								A hinge moved to or fro
							</button>
						)}
					</div>
					<Said error={error} />
				</details>
			)}
			<details className="mb-4">
				<summary className="min-h-11 flex items-center cursor-pointer underline" data-field="made-open">
					As it was cut and let in
				</summary>
				<Sizes />
				<p className="my-2">Where the tape says otherwise on the cut slab, enter that:</p>
				<div className="grid grid-cols-2 gap-3">
					{places(m.lock.length, 'foot', 'head').map((where, i) => (
						<LengthField key={where} pointer={`${at}/made/lock/${i}`} label={`Width, ${where}`} />
					))}
					{places(m.foot.length, 'hinge edge', 'lock edge').map((where, i) => (
						<LengthField key={where} pointer={`${at}/made/foot/${i}`} label={`Length, ${where}`} />
					))}
					{places(m.head.length, 'hinge corner', 'lock corner')
						.slice(1)
						.map((where, i) => (
							<LengthField
								key={where}
								pointer={`${at}/made/head/${i + 1}`}
								label={`Head above square, ${where}`}
								note="below square: minus"
								empty={0}
							/>
						))}
					<LengthField
						pointer={`${at}/made/margin`}
						label="Head margin at the hinge corner, as hung"
						empty={0}
					/>
				</div>
				{m.hinges.map((_, i) => (
					<fieldset key={names[i]} className="grid grid-cols-3 gap-2 mt-2">
						<legend className="first-letter:uppercase">{names[i]}</legend>
						<LengthField pointer={`${at}/made/hinges/${i}/slab`} label="Slab's recess" empty={0} />
						<LengthField pointer={`${at}/made/hinges/${i}/jamb`} label="Jamb's recess" empty={0} />
						<LengthField pointer={`${at}/made/hinges/${i}/pack`} label="Packed by" empty={0} />
					</fieldset>
				))}
			</details>
		</>
	);
}
