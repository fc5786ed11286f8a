import type { QueryClient } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { heard, lastHeard, putOut } from './access';
import { pageID } from './client';
import { enter, type Length } from './instrument';
import { resources } from './resources';

/** Change is what another page did, as it is told. */
export type Change = {
	job: string;
	opening: string;
	version: number;
	label: string;
	by: string;
	client: string;
	from: string;
};

/** What is known of the line to the server, and what came over it last. */
export type Line = {
	/** The server answers; unknown until it was first heard or missed. */
	on: boolean;
	/** When it was there last, while it is not. */
	since: Date | null;
	/** A client that was let in, until that was put out of sight. */
	client: { pass: string; name: string } | null;
	/** What another page did last. */
	change: (Change & { at: number }) | null;
	/** The program is of another build than this page. */
	newer: boolean;
	/** Lengths that instruments sent and no entry has taken. */
	lengths: Length[];
};

let line: Line = { on: true, since: null, client: null, change: null, newer: false, lengths: [] };
const ears = new Set<() => void>();
const put = (more: Partial<Line>) => {
	line = { ...line, ...more };
	for (const f of ears) f();
};

/** useLine is the line to the server as it stands. */
export function useLine(): Line {
	return useSyncExternalStore(
		(f) => {
			ears.add(f);
			return () => ears.delete(f);
		},
		() => line,
	);
}

/** taken forgets a length that an entry has taken, or that was put aside. */
export const taken = (id: string) => put({ lengths: line.lengths.filter((l) => l.id !== id) });

/** seen puts what another page did out of sight. */
export const seen = () => put({ change: null });

/** known puts a client that was let in out of sight. */
export const known = () => put({ client: null });

/** noted is how often it is noted that the server is there, ms. */
const noted = 15_000;

const build = () =>
	document.querySelector<HTMLScriptElement>('script[type=module][src]')?.src.split('/').at(-1);

/** mostLengths is how many lengths wait for an entry; the oldest goes. */
const mostLengths = 5;

/**
 * listen hears what other pages do, brings what they changed up to date, and tells when the server is
 * there again. It never touches what is being typed: an entry takes a newer value only where nothing is.
 * What it returns ends it.
 */
export function listen(cache: QueryClient, again: () => void): () => void {
	const ends = new AbortController();
	const { signal } = ends;
	let source: EventSource | undefined;
	let lost: number | undefined;
	let off = false;
	let retry: number | undefined;
	const back = () => {
		clearTimeout(lost);
		lost = undefined;
		const was = off;
		off = false;
		heard();
		put({ on: true, since: null });
		if (was) cache.invalidateQueries(); // what was told meanwhile was not heard
		again();
	};
	const open = () => {
		source = new EventSource('/api/events');
		source.addEventListener('hello', (e) => {
			const { pages } = JSON.parse((e as MessageEvent).data);
			put({ newer: !!pages && !!build() && pages !== build() });
			back();
		});
		source.addEventListener('change', (e) => {
			const c: Change = JSON.parse((e as MessageEvent).data);
			if (c.from === pageID) return;
			if (!c.job) cache.invalidateQueries();
			else {
				cache.invalidateQueries({ queryKey: resources.walk(c.job).queryKey });
				cache.invalidateQueries({ queryKey: ['day', c.job] });
				cache.invalidateQueries({ queryKey: c.opening ? ['opening', c.job, c.opening] : ['opening', c.job] });
			}
			put({ change: { ...c, at: Date.now() } });
		});
		source.addEventListener('client', (e) => {
			cache.invalidateQueries({ queryKey: resources.sharing().queryKey });
			put({ client: JSON.parse((e as MessageEvent).data) });
		});
		source.addEventListener('ended', putOut);
		source.addEventListener('air', (e) => {
			cache.invalidateQueries({ queryKey: resources.air(JSON.parse((e as MessageEvent).data).job).queryKey });
		});
		source.addEventListener('length', (e) => {
			const l: Length = JSON.parse((e as MessageEvent).data);
			if (!enter(l)) put({ lengths: [...line.lengths, l].slice(-mostLengths) });
		});
		source.onerror = () => {
			// A blink is no loss.
			lost ??= window.setTimeout(() => {
				off = true;
				put({ on: false, since: lastHeard() });
			}, 1500);
			if (source?.readyState !== EventSource.CLOSED) return;
			// Refused for good, a source does not say why, nor try again by itself.
			fetch('/api/sharing').then(
				(r) => r.status === 401 && putOut(),
				() => undefined,
			);
			retry = window.setTimeout(open, 2000);
		};
	};
	// A page out of sight does not listen: browsers hold few lines to one host, and those in sight need
	// theirs. Seen again, it reads anew what it missed.
	const note = setInterval(() => source?.readyState === EventSource.OPEN && heard(), noted);
	const away = () => {
		clearTimeout(lost);
		clearTimeout(retry);
		lost = undefined;
		source?.close();
		source = undefined;
		off = true;
	};
	const here = () => {
		if (!source && document.visibilityState === 'visible') open();
	};
	addEventListener('pagehide', away, { signal });
	addEventListener('pageshow', here, { signal });
	document.addEventListener(
		'visibilitychange',
		() => (document.visibilityState === 'hidden' ? away() : here()),
		{ signal },
	);
	here();
	return () => {
		ends.abort();
		clearInterval(note);
		away();
	};
}
