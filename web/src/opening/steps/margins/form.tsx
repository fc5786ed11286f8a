import { useQueryClient } from '@tanstack/react-query';
import { useContext, useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import { ask, client } from '../../../api/client';
import { resources } from '../../../api/resources';
import { Checkbox } from '../../../ui/checkbox';
import { pick, Row, ShownIn, Why } from '../../../ui/length';
import { capital, say } from '../../../words/texts';
import { marginName, trade } from '../../../words/trade';
import { Choose, LengthField } from '../../field';
import { useOpening } from '../../state';
import { Season } from './season';

/** Presets are the job's own sets of margins. */
function Presets() {
	const { view, save } = useOpening();
	const cache = useQueryClient();
	const [name, setName] = useState('');
	const [error, attempt] = useAttempt();
	const presets = view.job.presets;
	const keep = (list: typeof presets) =>
		attempt(async () => {
			await ask(
				client.PATCH('/api/jobs/{job}', {
					params: { path: { job: view.job.id }, header: { 'If-Match': `"${view.job.version}"` } },
					body: { presets: list },
				}),
			);
			setName('');
			await cache.refetchQueries({ queryKey: resources.opening(view.job.id, view.opening.id).queryKey });
		});
	return (
		<fieldset className="mb-4">
			<legend className="mb-1">{say('margins.your-own')}</legend>
			{presets.map((p) => (
				<div key={p.name} className="flex gap-2 mb-1" data-preset={p.name}>
					<button
						type="button"
						className="btn grow justify-start"
						onClick={() =>
							attempt(() =>
								save(
									[{ op: 'replace', path: '/margins', value: p.margins }],
									say('margins.change', { name: p.name }),
								),
							)
						}
					>
						{p.name}
					</button>
					<button
						type="button"
						className="btn btn-ghost"
						aria-label={say('margins.forget-name', { name: p.name })}
						onClick={() => keep(presets.filter((q) => q.name !== p.name))}
					>
						{say('margins.forget')}
					</button>
				</div>
			))}
			<form
				className="flex gap-2"
				onSubmit={(e) => {
					e.preventDefault();
					keep([...presets, { name, margins: view.opening.margins }]);
				}}
			>
				<input
					className="input grow"
					aria-label={say('margins.name-for-these-margins')}
					placeholder={say('margins.keep-these-margins-as')}
					data-field="preset-name"
					value={name}
					onChange={(e) => setName(e.target.value)}
				/>
				<button type="submit" className="btn">
					{say('page.keep')}
				</button>
			</form>
			<Said error={error} />
		</fieldset>
	);
}

/** Sweep is whether a sweep or shoe is fitted, for which the foot is cut twice. */
function Sweep() {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	return (
		<div className="col-span-2">
			<Checkbox
				data-field="sweep"
				checked={!!view.opening.margins.sweep}
				onChange={async (e) => {
					await attempt(async () => {
						await save(
							[{ op: 'add', path: '/margins/sweep', value: e.target.checked }],
							e.target.checked ? say('margins.sweep-change') : say('margins.no-sweep'),
						);
					});
				}}
			>
				{say('margins.a-sweep-at-the-bottom')}
			</Checkbox>
			<Said error={error} />
			<LengthField
				pointer="/margins/seal"
				label={say('margins.a-drop-seal')}
				note={say('margins.how-far-it-drops')}
				empty={0}
			/>
		</div>
	);
}

/** MarginsStep sets the wanted margins, and shows what a straight edge can give. */
export function MarginsStep() {
	const { view, leaf } = useOpening();
	const unit = useContext(ShownIn);
	const school = trade.schools.find((s) => s.id === view.opening.margins.school);
	return (
		<>
			<Choose
				pointer="/margins/school"
				label={say('margins.whose-margins')}
				options={trade.schools.map((s) => ({
					value: s.id,
					text: s.name,
					note:
						s.id === view.opening.margins.school
							? s.note
							: s.margins
									.map((m) => `${marginName(m.side)} ${pick(m.text, unit) || say('page.by-the-hinge')}`)
									.join(', '),
				}))}
			/>
			<Presets />
			<section className="grid sm:grid-cols-2 gap-x-3 gap-y-2 mb-4">
				<h2 className="text-lg sm:col-span-2">{say('margins.wanted-for-this-door')}</h2>
				{['head', 'hinge', 'lock', 'foot'].map((s) => (
					<LengthField
						key={s}
						pointer={`/margins/${s}`}
						label={capital(marginName(s))}
						optional
						placeholder={
							pick(
								school?.margins.find((m) => m.side === s)?.text ?? { mm: '', in: '' },
								view.job.unit as 'mm' | 'in',
							) || say('page.by-the-hinge')
						}
					/>
				))}
				<LengthField pointer="/margins/least" label={say('margins.smallest-gap-anywhere')} />
				<LengthField pointer="/margins/uneven" label={say('margins.unevenness-that-is-all-right')} />
				<LengthField
					pointer="/margins/paint"
					label={say('page.paint-still-to-come')}
					optional
					note={say('margins.slab-and-jamb-together')}
				/>
				<LengthField
					pointer="/margins/floor"
					label={say('margins.floor-still-to-come')}
					optional
					note={say('margins.carpet-boards-tiles')}
				/>
				<Sweep />
			</section>
			<Season />
			<section>
				<h2 className="text-lg">{say('margins.the-gaps-a-straight-edge')}</h2>
				{['head', 'hinge', 'lock', 'foot'].map((s) => (
					<div key={s} className="border-b border-base-300 py-1">
						<div className="font-semibold">{capital(marginName(s))}</div>
						<div className="grid grid-cols-3">
							{leaf.light
								.filter((m) => m.side === s)
								.map((m) => (
									<div key={m.place}>
										<div className="text-sm opacity-80">{m.where}</div>
										<Why
											figure={m.figure}
											title={say('page.margin-margin-where', {
												margin: marginName(s),
												where: m.where,
											})}
											className="text-xl dim"
											id={`margin-${s}-${m.place}`}
										/>
									</div>
								))}
						</div>
					</div>
				))}
			</section>
			<Row label={say('margins.what-the-hinge-gives')} note={say('margins.closed-both-leaves-flush')}>
				<Why figure={leaf.gauges.flush} title={say('page.hinge-margin-leaves-flush')} />
			</Row>
		</>
	);
}
