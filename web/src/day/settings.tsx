import { useState } from 'react';
import type { Schemas } from '../api/client';
import { newKey } from '../api/client';
import { Checkbox } from '../ui/checkbox';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import { numberIn, toClock, toMinute } from './clock';

type Day = Schemas['Day'];
type Place = Schemas['Own']['place'];

/** Settings are the carpenters and their hours, drying times, and own tasks. */
export function Settings({
	day,
	tasks,
	names,
	set,
}: {
	day: Day;
	tasks: { id: string; name: string; opening: string }[];
	names: string[][];
	set: (d: Day) => void;
}) {
	const person = (i: number, change: Partial<Day['carpenters'][number]>) =>
		set({ ...day, carpenters: day.carpenters.map((c, k) => (k === i ? { ...c, ...change } : c)) });
	const pause = { from: day.break?.from ?? 0, to: day.break?.to ?? 0 };
	return (
		<details className="no-print mb-5" data-settings>
			<summary className="min-h-11 flex items-center cursor-pointer text-lg underline">
				{say('day.hours-people-glue-and-paint')}
			</summary>
			<div className="grid sm:grid-cols-2 gap-x-6 gap-y-3 mt-2">
				<label className="block">
					<span className="block mb-1">{say('day.first-day')}</span>
					<input
						type="date"
						className="input w-full"
						data-field="date"
						defaultValue={day.date}
						onBlur={(e) =>
							e.target.value && e.target.value !== day.date && set({ ...day, date: e.target.value })
						}
					/>
				</label>
				<Checkbox
					className="items-center self-end"
					checked={!!day.weekends}
					onChange={(e) => set({ ...day, weekends: e.target.checked })}
				>
					{say('day.work-on-saturdays-and-sundays')}
				</Checkbox>
				<fieldset className="sm:col-span-2">
					<legend className="text-lg">{say('day.who-is-there')}</legend>
					{day.carpenters.map((c, i) => (
						// biome-ignore lint/suspicious/noArrayIndexKey: a carpenter is known by the place in the list
						<div key={i} className="flex flex-wrap gap-2 items-end mb-2" data-carpenter={i}>
							<label className="grow">
								<span className="block text-sm">{say('day.name')}</span>
								<input
									className="input w-full"
									maxLength={80}
									data-field={`name-${i}`}
									defaultValue={c.name}
									placeholder={say('day.carpenter-number', { number: i + 1 })}
									onBlur={(e) => e.target.value !== c.name && person(i, { name: e.target.value })}
								/>
							</label>
							<Time
								id={`from-${i}`}
								label={say('page.from')}
								value={c.from}
								set={(from) => person(i, { from })}
							/>
							<Time id={`to-${i}`} label={say('day.to')} value={c.to} set={(to) => person(i, { to })} />
							{day.carpenters.length > 1 && (
								<button
									type="button"
									className="btn btn-ghost"
									onClick={() => set({ ...day, carpenters: day.carpenters.filter((_, k) => k !== i) })}
								>
									{say('day.not-there')}
								</button>
							)}
						</div>
					))}
					<button
						type="button"
						className="btn"
						onClick={() =>
							set({ ...day, carpenters: [...day.carpenters, { name: '', from: 8 * 60, to: 17 * 60 }] })
						}
						data-another
					>
						{say('day.a-second-person')}
					</button>
				</fieldset>
				<div className="flex gap-2">
					<Time
						id="break-from"
						label={say('day.break-from')}
						value={pause.from}
						set={(from) => set({ ...day, break: { ...pause, from } })}
					/>
					<Time
						id="break-to"
						label={say('day.break-to')}
						value={pause.to}
						set={(to) => set({ ...day, break: { ...pause, to } })}
					/>
				</div>
				<fieldset>
					<legend>{say('day.glue-for-an-insert')}</legend>
					{[false, true].map((clamps) => (
						<label key={String(clamps)} className="flex items-center gap-3 min-h-11">
							<input
								type="radio"
								className="radio radio-primary"
								name="clamps"
								checked={!!day.clamps === clamps}
								onChange={() => set({ ...day, clamps })}
								data-field={clamps ? 'clamps' : 'tape'}
							/>
							{clamps ? say('day.in-clamps-overnight') : say('day.under-tape-20-minutes-until')}
						</label>
					))}
				</fieldset>
				<Count
					id="coats"
					label={say('day.coats-of-paint-on-each')}
					value={day.coats ?? 0}
					set={(coats) => set({ ...day, coats })}
				/>
				<Count
					id="coat-dries"
					label={say('day.hours-to-the-next-coat')}
					value={(day.coatDries ?? 0) / 60}
					set={(h) => set({ ...day, coatDries: Math.round(h * 60) })}
				/>
				<p className="sm:col-span-2" data-doors>
					{day.openings.length === 0
						? say('day.all-doors-not-signed-off')
						: say('day.doors', {
								doors: day.openings.map((id) => names.find((n) => n[0] === id)?.[1] ?? id).join(', '),
							})}
				</p>
				<OwnTasks day={day} tasks={tasks} set={set} />
			</div>
		</details>
	);
}

function Time({
	id,
	label,
	value,
	set,
}: {
	id: string;
	label: string;
	value: number;
	set: (m: number) => void;
}) {
	return (
		<label>
			<span className="block text-sm">{label}</span>
			<input
				type="time"
				className="input w-40 text-lg"
				data-field={id}
				defaultValue={toClock(value)}
				onBlur={(e) => toMinute(e.target.value) !== value && set(toMinute(e.target.value))}
			/>
		</label>
	);
}

function Count({
	id,
	label,
	value,
	set,
}: {
	id: string;
	label: string;
	value: number;
	set: (n: number) => void;
}) {
	return (
		<label className="block">
			<span className="block mb-1">{label}</span>
			<input
				className="input w-full text-lg"
				inputMode="numeric"
				data-field={id}
				defaultValue={String(value)}
				onBlur={(e) => {
					const n = numberIn(e.target.value);
					if (n === undefined)
						e.target.value = String(value); // what stands holds
					else if (n !== value) set(n);
				}}
			/>
		</label>
	);
}

/** OwnTasks are tasks that no plan contains: fetch, sweep, wait for somebody. */
function OwnTasks({
	day,
	tasks,
	set,
}: {
	day: Day;
	tasks: { id: string; name: string; opening: string }[];
	set: (d: Day) => void;
}) {
	const [name, setName] = useState('');
	const [minutes, setMinutes] = useState('30');
	const [place, setPlace] = useState('outside');
	const [after, setAfter] = useState('');
	return (
		<fieldset className="sm:col-span-2">
			<legend className="text-lg">{say('day.your-own-tasks')}</legend>
			{(day.own ?? []).map((o) => (
				<p key={o.id} className="flex gap-2 items-center" data-own={o.name}>
					<span className="grow">{say('day.name-minutes-min', { name: o.name, minutes: o.minutes })}</span>
					<button
						type="button"
						className="btn btn-ghost"
						onClick={() => set({ ...day, own: (day.own ?? []).filter((x) => x.id !== o.id) })}
					>
						{say('page.take-it-away')}
					</button>
				</p>
			))}
			<form
				className="grid sm:grid-cols-4 gap-2 items-end"
				onSubmit={(e) => {
					e.preventDefault();
					set({
						...day,
						own: [
							...(day.own ?? []),
							{
								id: newKey().slice(0, 12),
								name,
								minutes: Math.round(numberIn(minutes) ?? 0),
								place: place as Place,
								...(after && { after: [after] }),
							},
						],
					});
				}}
			>
				<label className="sm:col-span-2">
					<span className="block text-sm">{say('page.what')}</span>
					<input
						className="input w-full"
						data-field="own-name"
						required
						maxLength={80}
						value={name}
						onChange={(e) => setName(e.target.value)}
					/>
				</label>
				<label>
					<span className="block text-sm">{say('page.minutes')}</span>
					<input
						className="input w-full"
						data-field="own-minutes"
						inputMode="numeric"
						value={minutes}
						onChange={(e) => setMinutes(e.target.value)}
					/>
				</label>
				<label>
					<span className="block text-sm">{say('page.where')}</span>
					<select className="select w-full" value={place} onChange={(e) => setPlace(e.target.value)}>
						{trade.places.map((p) => (
							<option key={p.id} value={p.id}>
								{p.name}
							</option>
						))}
					</select>
				</label>
				<label className="sm:col-span-3">
					<span className="block text-sm">{say('day.after')}</span>
					<select className="select w-full" value={after} onChange={(e) => setAfter(e.target.value)}>
						<option value="">{say('page.nothing')}</option>
						{tasks.map((t) => (
							<option key={t.id} value={t.id}>
								{t.opening ? `${t.opening}: ` : ''}
								{t.name}
							</option>
						))}
					</select>
				</label>
				<button type="submit" className="btn">
					{say('page.put-it-in')}
				</button>
			</form>
		</fieldset>
	);
}
