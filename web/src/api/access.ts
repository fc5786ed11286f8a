/** Whether this client has a pass, as far as it knows. */
const key = 'ended';
const place = 'place';
const paired = 'paired';

/** ended records that this client's pass was ended: it shows nothing until it is paired again. */
export const ended = () => localStorage.getItem(key) !== null;

/** putOut deletes what this client has cached of the house. Unsaved entries are kept, but not shown. */
export function putOut() {
	if (!ended()) localStorage.setItem(key, new Date().toISOString());
	if ('caches' in globalThis) caches.delete('jobs');
	if (location.pathname === '/pair') return;
	sessionStorage.setItem(place, location.pathname);
	location.replace('/pair');
}

/** wasPaired reports whether this client had a pass before. */
export const wasPaired = () => localStorage.getItem(paired) !== null;

/** letIn records that this client was paired, and gives the address to go on at: where it was when its pass ended. */
export function letIn(): string {
	localStorage.removeItem(key);
	localStorage.setItem(paired, '1');
	const back = sessionStorage.getItem(place) ?? '/';
	sessionStorage.removeItem(place);
	return back;
}

/** typedHere is the number of entries and drafts that wait on this client. */
export function typedHere(): number {
	let entries = 0;
	try {
		entries = JSON.parse(localStorage.getItem('queue') ?? '[]').length;
	} catch {
		entries = 0;
	}
	return entries + drafts().length;
}

const drafts = () => Object.keys(sessionStorage).filter((k) => k.startsWith('draft '));

/** forgetTyped deletes them, on request. */
export function forgetTyped() {
	localStorage.removeItem('queue');
	for (const k of drafts()) sessionStorage.removeItem(k);
}

const last = 'heard';

/** heard records that the server answered just now; lastHeard is when that last was. */
export const heard = () => localStorage.setItem(last, String(Date.now()));

export function lastHeard(): Date | null {
	const at = Number(localStorage.getItem(last));
	return at > 0 ? new Date(at) : null;
}

/** since formats a time in a few words: the time today, or the day and the time. */
export function since(at: Date, now = new Date()): string {
	const time = at.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
	if (at.toDateString() === now.toDateString()) return time;
	return `${at.toLocaleDateString(undefined, { day: 'numeric', month: 'short' })}, ${time}`;
}
