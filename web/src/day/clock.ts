import { say } from '../words/texts';

/** toClock formats a minute of the day. */
export const toClock = (m: number) =>
	`${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`;

/** toMinute parses a time as a minute of the day; 0 for an invalid one. */
export function toMinute(clock: string) {
	const [, h, m] = /^(\d{1,2}):(\d{2})/.exec(clock) ?? [];
	return Number(h ?? 0) * 60 + Number(m ?? 0);
}

/** momentOf is the time by this client's clock, from which the day is planned. */
export function momentOf(d: Date) {
	const two = (n: number) => String(n).padStart(2, '0');
	return `${d.getFullYear()}-${two(d.getMonth() + 1)}-${two(d.getDate())}T${two(d.getHours())}:${two(d.getMinutes())}`;
}

/** byDay groups entries by day, in order. */
export function byDay<E extends { date: string; day: string }>(list: E[]) {
	const days: { date: string; day: string; entries: E[] }[] = [];
	for (const e of list) {
		const last = days.at(-1);
		if (last?.date === e.date) last.entries.push(e);
		else days.push({ date: e.date, day: e.day, entries: [e] });
	}
	return days;
}

/** nextOf is each carpenter's next entry, without repeats. */
export function nextOf<E extends { id: string; who: string[] }>(list: E[]) {
	const busy = new Set<string>();
	return list.filter((e, i) => {
		if (e.who.length === 0) return i === 0;
		const free = e.who.every((w) => !busy.has(w));
		for (const w of e.who) busy.add(w);
		return free;
	});
}

/** lasts formats minutes: "20 min", "1 h 30". */
export const lasts = (m: number) =>
	m < 60
		? say('day.minutes-min', { minutes: m })
		: m % 60 === 0
			? `${m / 60} h`
			: `${Math.floor(m / 60)} h ${m % 60}`;

/** numberIn is the number at the front of a text: "4 h", "2,5", "30 min"; undefined where there is none. */
export function numberIn(text: string): number | undefined {
	const m = /^\s*(-?\d+(?:[.,]\d+)?)/.exec(text);
	return m?.[1] === undefined ? undefined : Number(m[1].replace(',', '.'));
}
