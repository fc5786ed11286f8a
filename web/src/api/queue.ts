import { useSyncExternalStore } from 'react';
import { say } from '../words/texts';
import { ask, client, type Op, type OpeningView, once, Trouble } from './client';
import { moot, untouched } from './rebase';

/** Entry is a change that waits on this client until the server is there again. */
export type Entry = {
	/** Its own name: handed in twice, it is made once. */
	key: string;
	job: string;
	opening: string;
	door: string;
	ops: Op[];
	label: string;
	by: string;
	/** The version that it was made from, and the door as it stood there. */
	version: number;
	was: unknown;
	/** When it was entered, by this client's own clock; nothing is decided by it. */
	at: string;
	/** Why it waits for a hand to decide; empty while it waits for the server alone. */
	trouble?: string;
};

const place = 'queue';

const read = (): Entry[] => {
	try {
		return JSON.parse(localStorage.getItem(place) ?? '[]');
	} catch {
		return [];
	}
};
let list = read();
const ears = new Set<() => void>();
const write = (next: Entry[]) => {
	list = next;
	localStorage.setItem(place, JSON.stringify(next));
	for (const f of ears) f();
};
addEventListener('storage', (e) => {
	if (e.key !== place) return;
	list = read();
	for (const f of ears) f();
});

/** useQueue is what waits on this client. */
export function useQueue(): Entry[] {
	return useSyncExternalStore(
		(f) => {
			ears.add(f);
			return () => ears.delete(f);
		},
		() => list,
	);
}

/** enqueue keeps a change on this client. A place that is set anew takes the place of what was to be set there. */
export function enqueue(e: Entry) {
	const sets = (x: Entry) =>
		x.ops.length === 1 && !x.ops[0]?.path.endsWith('/-') && x.ops[0]?.op !== 'remove';
	const before = read().find(
		(x) =>
			x.job === e.job && x.opening === e.opening && sets(x) && sets(e) && x.ops[0]?.path === e.ops[0]?.path,
	);
	// What the first of them was made from is what the last is held against.
	if (before)
		write([
			...read().filter((x) => x !== before && x.key !== before.key),
			{ ...e, version: before.version, was: before.was },
		]);
	else write([...read(), e]);
}

/** drop lets go of an entry. */
export const drop = (key: string) => write(read().filter((e) => e.key !== key));

const mark = (key: string, trouble: string) =>
	write(read().map((e) => (e.key === key ? { ...e, trouble } : e)));

/** patch makes a change, from a version. */
export function patch(e: Pick<Entry, 'key' | 'job' | 'opening' | 'ops' | 'label' | 'by'>, version: number) {
	return ask(
		client.PATCH('/api/jobs/{job}/openings/{opening}', {
			params: {
				path: { job: e.job, opening: e.opening },
				header: { 'If-Match': `"${version}"`, ...once(e.key).header },
				query: { label: e.label, by: e.by },
			},
			body: e.ops,
		}),
	);
}

/** opening is a door as it stands. */
export const opening = (job: string, id: string) =>
	ask(client.GET('/api/jobs/{job}/openings/{opening}', { params: { path: { job, opening: id } } }));

/**
 * handIn makes a change from the version that it was made from, or from that of now where what it sets
 * has not been touched since; anyway makes it whatever was. It throws Trouble: 412 where another hand was there.
 */
export async function handIn(e: Entry, anyway = false): Promise<OpeningView> {
	let version = e.version;
	for (let tries = 0; ; tries++) {
		try {
			return await patch(e, version);
		} catch (err) {
			if (!(err instanceof Trouble) || err.status !== 412 || tries > 5) throw err;
			// Another hand was quicker. Where it changed something else, both hold; what it took off is off.
			const now = await opening(e.job, e.opening);
			if (moot(now.opening, e.ops)) return now;
			if (!anyway && !untouched(e.was, now.opening, e.ops)) throw err;
			version = now.version;
		}
	}
}

let busy = false;

/** flush hands in what waits, one after the other; it stops where the server is silent again. */
export async function flush(done: (e: Entry, view: OpeningView) => void) {
	if (busy) return;
	busy = true;
	try {
		for (const e of read()) {
			if (e.trouble) continue;
			try {
				const view = await handIn(e);
				drop(e.key);
				done(e, view);
			} catch (err) {
				const t = err as Trouble;
				if (t.status === 0 || t.status === 401 || t.status >= 500) return;
				mark(e.key, t.status === 412 ? say('page.someone-else-changed-it-meanwhile') : t.message);
			}
		}
	} finally {
		busy = false;
	}
}
