/** Whether this client is let in, as far as it has heard. */
const key = 'ended';

/** ended tells that this client was put out: it shows nothing until it is let in again. */
export const ended = () => localStorage.getItem(key) !== null;

/** putOut forgets what this client has seen of the house. What was typed here is kept, and not shown. */
export function putOut() {
	if (!ended()) localStorage.setItem(key, new Date().toISOString());
	if ('caches' in globalThis) caches.delete('jobs');
	if (location.pathname !== '/pair') location.replace('/pair');
}

/** letIn is said once a code has let this client in. */
export const letIn = () => localStorage.removeItem(key);

/** typedHere is how many entries and half-typed fields wait on this client. */
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

/** forgetTyped deletes them, as a hand asked for. */
export function forgetTyped() {
	localStorage.removeItem('queue');
	for (const k of drafts()) sessionStorage.removeItem(k);
}

const last = 'heard';

/** heard notes that the server was there just now; lastHeard tells when that was. */
export const heard = () => localStorage.setItem(last, String(Date.now()));

export function lastHeard(): Date | null {
	const at = Number(localStorage.getItem(last));
	return at > 0 ? new Date(at) : null;
}

/** since is a moment in a few words: the time today, or the day and the time. */
export function since(at: Date, now = new Date()): string {
	const time = at.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
	if (at.toDateString() === now.toDateString()) return time;
	return `${at.toLocaleDateString(undefined, { day: 'numeric', month: 'short' })}, ${time}`;
}
