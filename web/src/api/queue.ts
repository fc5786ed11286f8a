import { useSyncExternalStore } from 'react';
import { say } from '../words/texts';
import { ask, client, type Op, type OpeningView, once, Trouble } from './client';
import { moot, untouched } from './rebase';

/** Entry is a change that waits on this client for the server. */
export type Entry = {
	/** Its idempotency key. */
	key: string;
	job: string;
	opening: string;
	door: string;
	ops: Op[];
	label: string;
	by: string;
	/** The version that it was made from, and the opening at that version. */
	version: number;
	was: unknown;
	/** When it was entered, by this client's clock; nothing depends on it. */
	at: string;
	/** Why a person has to decide about it; empty while it only waits for the server. */
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

/** useQueue is the queue of this client. */
export function useQueue(): Entry[] {
	return useSyncExternalStore(
		(f) => {
			ears.add(f);
			return () => ears.delete(f);
		},
		() => list,
	);
}

/** enqueue adds a change. A place that is set again replaces the earlier change of it. */
export function enqueue(e: Entry) {
	const sets = (x: Entry) =>
		x.ops.length === 1 && !x.ops[0]?.path.endsWith('/-') && x.ops[0]?.op !== 'remove';
	const before = read().find(
		(x) =>
			x.job === e.job && x.opening === e.opening && sets(x) && sets(e) && x.ops[0]?.path === e.ops[0]?.path,
	);
	// The last one is compared with what the first was made from.
	if (before)
		write([
			...read().filter((x) => x !== before && x.key !== before.key),
			{ ...e, version: before.version, was: before.was },
		]);
	else write([...read(), e]);
}

/** drop removes an entry. */
export const drop = (key: string) => write(read().filter((e) => e.key !== key));

const mark = (key: string, trouble: string) =>
	write(read().map((e) => (e.key === key ? { ...e, trouble } : e)));

/** patch sends a change from a version. */
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

/** opening fetches an opening. */
export const opening = (job: string, id: string) =>
	ask(client.GET('/api/jobs/{job}/openings/{opening}', { params: { path: { job, opening: id } } }));

/**
 * handIn sends a change from the version that it was made from, or from the present one where what it sets was not
 * changed since; with anyway, whatever was changed. It throws Trouble: 412 where it was.
 */
export async function handIn(e: Entry, anyway = false): Promise<OpeningView> {
	let version = e.version;
	for (let tries = 0; ; tries++) {
		try {
			return await patch(e, version);
		} catch (err) {
			if (!(err instanceof Trouble) || err.status !== 412 || tries > 5) throw err;
			// It was changed in between. Changes of other places both hold; what it removed stays removed.
			const now = await opening(e.job, e.opening);
			if (moot(now.opening, e.ops)) return now;
			if (!anyway && !untouched(e.was, now.opening, e.ops)) throw err;
			version = now.version;
		}
	}
}

let busy = false;

/** flush sends the queue in order; it stops where the server does not answer. */
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
