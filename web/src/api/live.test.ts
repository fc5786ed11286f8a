// @vitest-environment jsdom
import type { QueryClient } from '@tanstack/react-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** Source is an event source that is told what it hears. */
class Source extends EventTarget {
	static all: Source[] = [];
	static OPEN = 1;
	static CLOSED = 2;
	readyState = 0;
	onerror: (() => void) | null = null;
	closed = false;
	constructor(readonly url: string) {
		super();
		Source.all.push(this);
	}
	hears(kind: string, data: unknown) {
		this.dispatchEvent(new MessageEvent(kind, { data: JSON.stringify(data) }));
	}
	fails(forGood = false) {
		if (forGood) this.readyState = Source.CLOSED;
		this.onerror?.();
	}
	close() {
		this.closed = true;
	}
}

const stale: unknown[] = [];
const cache = {
	invalidateQueries: (q?: { queryKey: unknown }) => stale.push(q?.queryKey ?? 'all'),
} as unknown as QueryClient;

type Live = typeof import('./live');
let live: Live;
let again = 0;
let stop = () => {};
const only = () => Source.all.at(-1) as Source;

beforeEach(async () => {
	vi.useFakeTimers();
	vi.resetModules();
	vi.stubGlobal('EventSource', Source);
	document.body.innerHTML = '';
	Source.all = [];
	stale.length = 0;
	again = 0;
	live = await import('./live');
	stop = live.listen(cache, () => again++);
});
afterEach(() => {
	stop();
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

describe('the line to the server', () => {
	it('hands in what waits when it is there, and reads all anew where it was away', () => {
		only().hears('hello', { pages: '' });
		expect(again).toBe(1);
		expect(stale).toEqual([]);
		only().fails();
		vi.advanceTimersByTime(2000);
		only().hears('hello', { pages: '' });
		expect(again).toBe(2);
		expect(stale).toEqual(['all']);
	});
	it('does not call a blink a loss', () => {
		only().hears('hello', { pages: '' });
		only().fails();
		vi.advanceTimersByTime(1000);
		only().hears('hello', { pages: '' });
		vi.advanceTimersByTime(5000);
		expect(stale).toEqual([]);
	});
	it('asks again where it was refused for good', () => {
		only().fails(true);
		expect(Source.all).toHaveLength(1);
		vi.advanceTimersByTime(2100);
		expect(Source.all).toHaveLength(2);
	});
	it('is put out where that was why it was refused, or where it is told so', async () => {
		history.replaceState(null, '', '/pair');
		const { ended, letIn } = await import('./access');
		vi.stubGlobal('fetch', async () => new Response('{}', { status: 200 }));
		only().fails(true);
		await vi.advanceTimersByTimeAsync(10);
		expect(ended()).toBe(false);
		vi.stubGlobal('fetch', async () => new Response('{}', { status: 401 }));
		only().fails(true);
		await vi.advanceTimersByTimeAsync(10);
		expect(ended()).toBe(true);
		letIn();
		only().hears('ended', {});
		expect(ended()).toBe(true);
		letIn();
	});
	it('does not listen out of sight', () => {
		dispatchEvent(new Event('pagehide'));
		expect(only().closed).toBe(true);
		dispatchEvent(new Event('pageshow'));
		expect(Source.all).toHaveLength(2);
		only().hears('hello', { pages: '' });
		expect(stale).toEqual(['all']);
	});
});

describe('what other pages did', () => {
	const change = {
		job: 'house',
		opening: 'hall',
		version: 4,
		label: 'width',
		by: 'Wren',
		client: 'phone',
		from: 'x',
	};
	it('makes what is shown of it stale, and no more', () => {
		only().hears('change', change);
		expect(stale).toEqual([
			['walk', 'house'],
			['day', 'house'],
			['opening', 'house', 'hall'],
		]);
	});
	it('is all, where a backup was restored', () => {
		only().hears('change', { ...change, job: '' });
		expect(stale).toEqual(['all']);
	});
	it('is not told of what this page did', async () => {
		const { pageID } = await import('./client');
		only().hears('change', { ...change, from: pageID });
		expect(stale).toEqual([]);
	});
});
