import type { QueryClient } from '@tanstack/react-query';
import { useSyncExternalStore } from 'react';
import { heard, lastHeard, putOut } from './access';
import { pageID } from './client';
import { enter, type Length } from './instrument';
import { resources } from './resources';

/** Change is the event of a change by another page. */
export type Change = {
	job: string;
	opening: string;
	version: number;
	label: string;
	by: string;
	client: string;
	machine: string;
	onJob: string;
	onOpening: string;
	from: string;
};

/** The state of the connection to the server, and its latest events. */
export type Line = {
	/** Whether the server answers; unknown until the first answer or failure. */
	on: boolean;
	/** When it last answered, while it does not. */
	since: Date | null;
	/** A client that was paired, until its notice is closed. */
	client: { pass: string; name: string } | null;
	/** The latest change by another page. */
	change: (Change & { at: number }) | null;
	/** The program is of another build than this page. */
	newer: boolean;
	/** Lengths of instruments that no entry has taken. */
	lengths: Length[];
};

let line: Line = { on: true, since: null, client: null, change: null, newer: false, lengths: [] };
const ears = new Set<() => void>();
const put = (more: Partial<Line>) => {
	line = { ...line, ...more };
	for (const f of ears) f();
};

/** useLine is the state of the connection. */
export function useLine(): Line {
	return useSyncExternalStore(
		(f) => {
			ears.add(f);
			return () => ears.delete(f);
		},
		() => line,
	);
}

/** taken removes a length that was entered, or put aside. */
export const taken = (id: string) => put({ lengths: line.lengths.filter((l) => l.id !== id) });

/** seen closes the notice of another page's change. */
export const seen = () => put({ change: null });

/** known closes the notice of a paired client. */
export const known = () => put({ client: null });

/** noted is the interval, in ms, of recording that the server is there. */
const noted = 15_000;

const build = () =>
	document.querySelector<HTMLScriptElement>('script[type=module][src]')?.src.split('/').at(-1);

/** mostLengths is how many lengths wait for an entry; the oldest is dropped. */
const mostLengths = 5;

/**
 * listen subscribes to the server's events, refetches what other pages changed, and reports when the server is back. It
 * never touches what is being typed: an entry shows a newer value only where there is no draft. It returns a function
 * that unsubscribes.
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
			// What is done in another job is not told here.
			const here = location.pathname.split('/')[2];
			if (!c.job || !here || c.job === here) put({ change: { ...c, at: Date.now() } });
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
			// A short interruption is not shown.
			lost ??= window.setTimeout(() => {
				off = true;
				put({ on: false, since: lastHeard() });
			}, 1500);
			if (source?.readyState !== EventSource.CLOSED) return;
			// An event source that was refused for good neither says why nor reconnects.
			fetch('/api/sharing').then(
				(r) => r.status === 401 && putOut(),
				() => undefined,
			);
			retry = window.setTimeout(open, 2000);
		};
	};
	// A hidden page does not subscribe: browsers limit the connections to one host, and visible pages need them. It
	// refetches when it is shown again.
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
