import { useContext, useState } from 'react';
import { useDoor } from '../door-state';
import { Choose, LengthField } from '../field';
import { pick, Row, ShownIn, Why } from '../length';
import { useTrade } from '../says';

/** Sweep says that a sweep or shoe is fitted, so that the foot is cut twice. */
function Sweep() {
	const { view, save } = useDoor();
	const [error, setError] = useState('');
	return (
		<div className="col-span-2">
			<label className="flex items-center gap-3 min-h-11">
				<input
					type="checkbox"
					className="checkbox"
					data-field="sweep"
					checked={!!view.opening.margins.sweep}
					onChange={async (e) => {
						try {
							await save(
								[{ op: 'add', path: '/margins/sweep', value: e.target.checked }],
								e.target.checked ? 'a sweep at the foot' : 'no sweep',
							);
							setError('');
						} catch (e) {
							setError((e as Error).message);
						}
					}}
				/>
				A sweep or shoe at the foot: the foot is cut twice
			</label>
			{error && (
				<p role="alert" className="text-error font-semibold">
					{error}
				</p>
			)}
		</div>
	);
}

const sideNames: Record<string, string> = { head: 'Head', hinge: 'Hinge', lock: 'Lock', foot: 'Foot' };

/** MarginsStep sets the light that is wanted, and shows what a straight edge can give. */
export function MarginsStep() {
	const { view } = useDoor();
	const trade = useTrade();
	const unit = useContext(ShownIn);
	const school = trade?.schools.find((s) => s.id === view.opening.margins.school);
	return (
		<>
			<Choose
				pointer="/margins/school"
				label="School"
				options={(trade?.schools ?? []).map((s) => ({
					value: s.id,
					text: s.name,
					note:
						s.id === view.opening.margins.school
							? s.note
							: s.margins.map((m) => `${m.side} ${pick(m.text, unit) || 'by the hinge'}`).join(', '),
				}))}
			/>
			<section className="grid grid-cols-2 gap-x-3 gap-y-2 mb-4">
				<h2 className="text-lg col-span-2">Wanted for this door</h2>
				{['head', 'hinge', 'lock', 'foot'].map((s) => (
					<LengthField
						key={s}
						pointer={`/margins/${s}`}
						label={sideNames[s] ?? s}
						optional
						placeholder={
							pick(
								school?.margins.find((m) => m.side === s)?.text ?? { mm: '', in: '' },
								view.job.unit as 'mm' | 'in',
							) || 'by the hinge'
						}
					/>
				))}
				<LengthField pointer="/margins/least" label="Least anywhere" />
				<LengthField pointer="/margins/uneven" label="Unevenness accepted" />
				<LengthField
					pointer="/margins/paint"
					label="Paint still to come"
					optional
					note="slab and jamb together"
				/>
				<LengthField
					pointer="/margins/floor"
					label="Floor still to come"
					optional
					note="carpet, boards, tiles"
				/>
				<Sweep />
			</section>
			<section>
				<h2 className="text-lg">The light a straight edge gives</h2>
				{['head', 'hinge', 'lock', 'foot'].map((s) => (
					<div key={s} className="border-b border-base-300 py-1">
						<div className="font-semibold">{sideNames[s]}</div>
						<div className="grid grid-cols-3">
							{view.plan.margins
								.filter((m) => m.side === s)
								.map((m) => (
									<div key={m.where}>
										<div className="text-sm opacity-80">{m.where}</div>
										<Why
											figure={m.figure}
											title={`${sideNames[s]} margin, ${m.where}`}
											className="text-xl dim"
											id={`margin-${s}-${m.where}`}
										/>
									</div>
								))}
						</div>
					</div>
				))}
			</section>
			<Row label="What the hinge gives" note="closed, both leaves flush">
				<Why figure={view.plan.gauges.flush} title="Hinge margin, leaves flush" />
			</Row>
		</>
	);
}
