import { useState } from 'react';
import { say } from '../words/texts';

const key = 'hand name';

/** whoNow is the name of the person at this client, as last given; empty for none. */
export const whoNow = () => localStorage.getItem(key) ?? '';

const two = (n: number) => String(n).padStart(2, '0');

/** stampOf is a time in the form of records: to the minute, by this client's clock. */
export const stampOf = (d: Date) =>
	`${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())} ${two(d.getHours())}:${two(d.getMinutes())}`;

export const today = () => stampOf(new Date());

/** Who asks for the name; changes from then on are recorded under it. */
export function Who({ label = say('sharing.who-works-on-this-client') }: { label?: string }) {
	const [name, setName] = useState(whoNow);
	return (
		<label className="block">
			<span className="block mb-1">{label}</span>
			<input
				className="input w-full text-lg"
				data-field="who"
				maxLength={120}
				autoComplete="name"
				value={name}
				onChange={(e) => {
					setName(e.target.value);
					localStorage.setItem(key, e.target.value);
				}}
			/>
		</label>
	);
}
