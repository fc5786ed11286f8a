import { beforeEach, expect, test, vi } from 'vitest';
import code from '../../public/sw.js?raw';

type Event = { request?: Request; data?: unknown; waitUntil: (p: Promise<unknown>) => void };
type Fetched = Event & { respondWith: (p: Promise<Response>) => void };

const origin = 'https://margin.test';
const claimed = vi.fn(async () => undefined);
/** What the server has, by path; an error where it does not answer. */
let server: Record<string, Response | Error>;
let signal = true;
let hear: Record<string, (e: Fetched) => void>;
let stores: Map<string, Map<string, Response>>;

const path = (r: RequestInfo | URL) => new URL(r instanceof Request ? r.url : String(r), origin).pathname;

async function fetched(r: RequestInfo | URL) {
	if (!signal) throw new Error('no signal');
	const answer = server[path(r)] ?? new Response('', { status: 404 });
	if (answer instanceof Error) throw answer;
	return answer.clone();
}

/** caches as browsers have them, as far as the worker asks. */
const caches = {
	async open(name: string) {
		const store = stores.get(name) ?? new Map<string, Response>();
		stores.set(name, store);
		return {
			match: async (r: RequestInfo) => store.get(path(r))?.clone(),
			put: async (r: RequestInfo, to: Response) => void store.set(path(r), to),
			async add(r: RequestInfo) {
				const got = await fetched(r);
				if (!got.ok) throw new TypeError('not ok');
				store.set(path(r), got);
			},
		};
	},
	delete: async (name: string) => stores.delete(name),
};

/** sends gives the worker an event, and waits for what it waits for. */
async function sends(type: string, e: Partial<Event> = {}) {
	const until: Promise<unknown>[] = [];
	hear[type]?.({ ...e, waitUntil: (p) => until.push(p), respondWith: () => undefined });
	await Promise.all(until);
}

/** asks is what the worker answers a page's request with; nothing where it leaves it to the browser. */
async function asks(to: string, mode: RequestMode | 'navigate' = 'cors') {
	const until: Promise<unknown>[] = [];
	let answer: Promise<Response> | undefined;
	const request = new Request(origin + to);
	Object.defineProperty(request, 'mode', { value: mode });
	hear.fetch?.({ request, waitUntil: (p) => until.push(p), respondWith: (p) => (answer = p) });
	const got = await answer;
	await Promise.all(until);
	return got?.text();
}

const page = (build: string) => new Response(`<script src="/assets/start-${build}.js"></script>`);

beforeEach(async () => {
	server = {
		'/': page('a'),
		'/assets/start-a.js': new Response('import("./assets/door-a.js")'),
		'/assets/door-a.js': new Response('door a'),
		'/api/jobs/h/openings/o': new Response('the opening'),
	};
	signal = true;
	hear = {};
	stores = new Map();
	claimed.mockClear();
	const self = {
		addEventListener: (type: string, f: (e: Fetched) => void) => {
			hear[type] = f;
		},
		skipWaiting: async () => undefined,
		clients: { claim: claimed },
	};
	new Function('self', 'caches', 'fetch', 'location', code)(self, caches, fetched, { origin });
	await sends('install');
});

const gone = () => {
	signal = false;
};

test('without signal the page opens, with parts that no one opened and what was last seen', async () => {
	expect(await asks('/api/jobs/h/openings/o')).toBe('the opening');
	gone();
	expect(await asks('/j/h/o/cut', 'navigate')).toContain('start-a');
	expect(await asks('/assets/door-a.js')).toBe('door a');
	expect(await asks('/api/jobs/h/openings/o')).toBe('the opening');
	await expect(asks('/api/jobs/h')).rejects.toThrow('no signal');
});

test('the page of before stays until all parts of the new one are here', async () => {
	server['/'] = server['/j/h'] = page('b');
	server['/assets/start-b.js'] = new Error('broken off');
	expect(await asks('/j/h', 'navigate')).toContain('start-b');
	gone();
	expect(await asks('/j/h', 'navigate')).toContain('start-a');
});

test('a client whose pass was ended keeps no job', async () => {
	await asks('/api/jobs/h/openings/o');
	server['/api/jobs/h/openings/o'] = new Response('', { status: 401 });
	await asks('/api/jobs/h/openings/o');
	gone();
	await expect(asks('/api/jobs/h/openings/o')).rejects.toThrow('no signal');
});

test('changes, events and other addresses are left to the browser', async () => {
	expect(await asks('/api/events')).toBeUndefined();
	expect(await asks('/api/jobs/h/openings/o/log')).toBeUndefined();
});

test('it claims the pages that are there, and one that asks', async () => {
	await sends('activate');
	await sends('message', { data: 'claim' });
	expect(claimed).toHaveBeenCalledTimes(2);
});
