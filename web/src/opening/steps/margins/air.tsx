import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Said, useAttempt } from '../../../api/attempt';
import type { Unit } from '../../../api/client';
import { at } from '../../../api/pointer';
import { resources } from '../../../api/resources';
import { Tape } from '../../../ui/tape';
import { say } from '../../../words/texts';
import { useOpening } from '../../state';

/** degrees is the symbol of the degrees that go with a unit. */
export const degrees = (unit: string) => (unit === 'in' ? '°F' : '°C');

/** AirEntry is the air of the room at an opening: typed, or by the house's hygrometer. */
export function AirEntry({ pointer, label }: { pointer: string; label: string }) {
	const { view, save } = useOpening();
	const [error, attempt] = useAttempt();
	const kept = at(view.opening, pointer) as { celsius: number; humidity: number } | undefined;
	const texts = [view.texts[`${pointer}/celsius`] ?? '', view.texts[`${pointer}/humidity`] ?? ''];
	const [typed, setTyped] = useState<[string?, string?]>([]);
	const log = useQuery(resources.air(view.job.id)).data;
	const put = (celsius: string | number, humidity: string | number, says: string) =>
		attempt(async () => {
			await save([{ op: 'add', path: pointer, value: { celsius, humidity } }], `${label}: ${says}`);
			setTyped([]);
		});
	const [t, h] = [typed[0] ?? texts[0] ?? '', typed[1] ?? texts[1] ?? ''];
	const both = () => {
		if (t.trim() && h.trim() && (typed[0] !== undefined || typed[1] !== undefined))
			put(t, h, `${t} ${degrees(view.job.unit)}, ${h} %`);
	};
	return (
		<fieldset className="sm:col-span-2 grid gap-2 mb-2">
			<legend className="mb-1">{label}</legend>
			<div className="grid grid-cols-2 gap-3">
				<Tape
					id={`${pointer}/celsius`}
					label={say('season.temperature')}
					value={t}
					unit={view.job.unit as Unit}
					sign={degrees(view.job.unit)}
					onChange={(v) => setTyped([v, typed[1]])}
					onEnter={both}
					onLeave={both}
				/>
				<Tape
					id={`${pointer}/humidity`}
					label={say('season.relative-humidity')}
					value={h}
					unit={view.job.unit as Unit}
					sign="%"
					onChange={(v) => setTyped([typed[0], v])}
					onEnter={both}
					onLeave={both}
				/>
			</div>
			<Said error={error} />
			{[log?.mean, log?.newest].map(
				(a) =>
					a && (
						<p key={a.from} className="flex flex-wrap items-center gap-2" data-logged={a.from}>
							<span className="grow">
								{a.from}: <strong>{a.text}</strong>
								<span className="block text-sm opacity-75">
									{say(a === log?.mean ? 'season.logged-from' : 'season.logged-at', {
										at: a.at.slice(0, 16).replace('T', ' '),
										moisture: a.moisture,
									})}
								</span>
							</span>
							<button
								type="button"
								className="btn"
								onClick={() => put(a.celsius, a.humidity, `${a.text} (${a.from})`)}
							>
								{say('page.use-it')}
							</button>
						</p>
					),
			)}
			{kept && (
				<button
					type="button"
					className="btn btn-ghost justify-self-start"
					onClick={() =>
						attempt(() => save([{ op: 'remove', path: pointer }], say('page.took-out-label', { label })))
					}
				>
					{say('page.take-it-away')}
				</button>
			)}
		</fieldset>
	);
}
