import { useState } from 'react';
import type { Unit } from '../../../api/client';
import { Checkbox } from '../../../ui/checkbox';
import { Tape } from '../../../ui/tape';
import { say } from '../../../words/texts';
import { kindOf, label, trade, wallName } from '../../../words/trade';
import { useOpening } from '../../state';
import { Offers } from './offers';
import { type Draft, TakeReading } from './take';

/** OtherReading is a reading of the carpenter's own choice. */
export function OtherReading({ close }: { close: () => void }) {
	const { view } = useOpening();
	const [kind, setKind] = useState('width');
	const [side, setSide] = useState('hinge');
	const [at, setAt] = useState('');
	const [from, setFrom] = useState('');
	const [to, setTo] = useState('');
	const [blocked, setBlocked] = useState(false);
	const offers = view.opening.offers ?? [];
	const [offer, setOffer] = useState(offers[0]?.id ?? '');
	const unit = view.job.unit as Unit;
	const known = kindOf(kind);
	const sides: string[] = known?.sides ?? [];
	const own = sides.includes(side) ? side : (sides[0] ?? '');
	const where = known ? label(known.at, own) : '';
	const start = known ? label(known.from, own) : '';
	const end = known ? label(known.to, own) : '';
	const toReading = () => document.querySelector<HTMLElement>('[data-field="next-reading"]')?.focus();
	const reading: Draft = {
		kind,
		...(where ? { at } : { at: 0 }),
		...(sides.length ? { side: own } : {}),
		...(start ? { from } : {}),
		...(end ? { to } : {}),
		...(kind === 'gap' ? { offer } : {}),
		...(kind === 'gap' && blocked ? { blocked } : {}),
	};
	return (
		<section
			aria-label={say('measure.another-reading')}
			className="border-2 border-[var(--rod-edge)] p-3 mb-4 grid gap-2"
		>
			<label>
				<span className="block">{say('page.what')}</span>
				<select
					className="select w-full"
					value={kind}
					onChange={(e) => setKind(e.target.value)}
					data-field="other-kind"
				>
					{trade.kinds.map((k) => (
						<option key={k.id} value={k.id}>
							{k.name}
						</option>
					))}
				</select>
			</label>
			{kind === 'gap' && <Offers chosen={offer} choose={setOffer} />}
			{(kind !== 'gap' || offer) && (
				<>
					{sides.length > 0 && (
						<label>
							<span className="block">
								{kind === 'diagonal' ? say('measure.up-from-the-bottom-of') : say('page.where')}
							</span>
							<select
								className="select w-full"
								value={own}
								onChange={(e) => setSide(e.target.value)}
								data-field="other-side"
							>
								{sides.map((s) => (
									<option key={s} value={s}>
										{wallName(s)}
									</option>
								))}
							</select>
						</label>
					)}
					{where && (
						<Tape id="other-at" label={where} value={at} unit={unit} onChange={setAt} onEnter={toReading} />
					)}
					{start && (
						<Tape
							id="other-from"
							label={start}
							value={from}
							unit={unit}
							onChange={setFrom}
							onEnter={toReading}
						/>
					)}
					{end && (
						<Tape id="other-to" label={end} value={to} unit={unit} onChange={setTo} onEnter={toReading} />
					)}
					{kind === 'gap' && (
						<Checkbox checked={blocked} onChange={(e) => setBlocked(e.target.checked)}>
							{say('measure.nothing-passes-the-reading-is')}
						</Checkbox>
					)}
					<TakeReading
						key={kind}
						name={known?.name ?? kind}
						reading={reading}
						labels={{ at: where, from: start, to: end }}
						how={known?.asks}
					/>
				</>
			)}
			<button type="button" className="btn btn-ghost" onClick={close}>
				{say('measure.back-to-the-best-next')}
			</button>
		</section>
	);
}
