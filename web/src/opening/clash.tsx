import { OctagonAlert } from 'lucide-react';
import { Said, useAttempt } from '../api/attempt';
import type { Op, Schemas } from '../api/client';
import { useShortcuts } from '../ui/keys';
import { Len } from '../ui/length';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';
import { edgeName } from '../words/trade';
import { useOpening } from './state';

type Settled = Schemas['Settled'];

/**
 * Clash stands at the step in hand while readings contradict each other: what, read it again, or strike it out, one key
 * each; after Measure also the plan without it, ready to be taken.
 */
export function Clash({ step }: { step: string }) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const clash = view.plan.clashes[0];
	const place = (id: string) => view.opening.readings.findIndex((r) => r.id === id);
	const again = () => {
		const entry = clash?.againId
			? `[data-field="/readings/${place(clash.againId)}/value"]`
			: '[data-field="next-reading"]';
		const field = document.querySelector<HTMLElement>(entry);
		field?.scrollIntoView({ block: 'center' });
		field?.focus();
	};
	const settle = async (id: string, swapped: string) => {
		const [a, b] = [place(id), place(swapped)];
		const [one, two] = [view.opening.readings[a], view.opening.readings[b]];
		const name = view.plan.readings[a]?.name ?? '';
		if (!one) return;
		const ops: Op[] = two
			? [
					{ op: 'add', path: `/readings/${a}/value`, value: two.value },
					{ op: 'add', path: `/readings/${b}/value`, value: one.value },
				]
			: [{ op: 'add', path: `/readings/${a}/struck`, value: say('clash.the-other-readings-disagree-with') }];
		await attempt(() =>
			save(ops, two ? say('clash.swapped-name', { name }) : say('page.struck-out-name', { name })),
		);
	};
	useShortcuts({
		again: () => (clash && step === 'measure' ? again() : false),
		strike: () => (clash ? void settle(clash.id, clash.swapped) : false),
	});
	if (!clash) return null;
	const more = view.plan.clashes.length - 1;
	return (
		<section
			aria-label={say('clash.readings-that-clash')}
			className="clash sticky top-0 lg:-top-4 z-10 bg-base-100 border-l-4 border-error pl-3 py-2 mb-4"
			data-finding="stop"
			data-clash={clash.id}
		>
			<p className="flex gap-2">
				<OctagonAlert size={22} className="shrink-0 mt-0.5 text-error" aria-hidden="true" />
				<span>
					<strong className="text-error">{say('clash.stop')} </strong>
					{clash.text}
					{more > 0 && ` ${say('clash.more', { count: more })}`}
				</span>
			</p>
			{step === 'measure' ? (
				<div className="flex flex-wrap gap-2 mt-2">
					<button type="button" className="btn btn-primary" onClick={again} data-again>
						{say('clash.read-it-again')} <kbd className="font-normal max-lg:hidden">Alt R</kbd>
					</button>
					<button
						type="button"
						className="btn"
						onClick={() => settle(clash.id, clash.swapped)}
						data-settle={clash.id}
					>
						{clash.swapped ? say('clash.swap-them') : say('page.strike-it-out')}{' '}
						<kbd className="font-normal max-lg:hidden">Alt X</kbd>
					</button>
				</div>
			) : (
				<>
					<p className="font-semibold mt-1">{say('clash.do-not-cut-or-mark')}</p>
					{view.plan.without.map((w) => (
						<Without key={w.id} w={w} take={() => settle(w.id, w.swapped)} />
					))}
				</>
			)}
			<Said error={error} />
		</section>
	);
}

/** Without is the plan with a clash settled one way, beside the doubtful one. */
function Without({ w, take }: { w: Settled; take: () => void }) {
	const leaf = w.plan.leaves[0];
	return (
		<div className="border-t border-base-300 mt-2 pt-2" data-without={w.id}>
			<p>
				{w.swapped
					? say('clash.with-the-two-values-swapped')
					: say('clash.without-the-reading', { reading: w.name })}
				{leaf?.finished && (
					<>
						{' '}
						<Phrase
							id="clash.finished"
							of={{
								width: <Len text={leaf.finished.width.text} />,
								length: <Len text={leaf.finished.length.text} unit />,
							}}
						/>
					</>
				)}
				{leaf?.cut && (
					<>
						{say('clash.comes-off')}{' '}
						{leaf.cut.edges.map((e, i) => {
							const [first, last] = [e.marks[0], e.marks[e.marks.length - 1]];
							return (
								<span key={e.side}>
									{i > 0 && ', '}
									{edgeName(e.side)} {first && <Len text={first.depth.text} />}
									{first && last && first.depth.mm !== last.depth.mm && (
										<>
											{' '}
											<Phrase id="clash.to" of={{ last: <Len text={last.depth.text} /> }} />
										</>
									)}
								</span>
							);
						})}
					</>
				)}
				.
			</p>
			<button type="button" className="btn mt-1" onClick={take} data-settle={w.id}>
				{w.swapped ? say('clash.swap-them-and-use-this') : say('clash.strike-it-out-and-use')}
			</button>
		</div>
	);
}
