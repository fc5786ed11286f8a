// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Op, OpeningView } from './client';
import type { Entry } from './queue';

type Queue = typeof import('./queue');

const opening = { room: 'Hall', slab: { width: 826 }, readings: [{ id: 'r1', value: 826 }] };
const view = (version: number, now: unknown = opening) =>
	({ version, opening: now }) as unknown as OpeningView;
const set = (path: string, value: unknown): Op[] => [{ op: 'add', path, value }];
const entry = (more: Partial<Entry> = {}): Entry => ({
	key: 'k1',
	job: 'house',
	opening: 'hall',
	door: 'Hall',
	ops: set('/slab/width', '828'),
	label: 'width 828',
	by: 'Wren',
	version: 3,
	was: opening,
	at: '2026-11-30',
	...more,
});

type Asked = { method: string; url: string; match: string | null; key: string | null; body: string };
type Answer = { status: number; body?: unknown } | 'silent';
let answers: Answer[] = [];
let asked: Asked[] = [];

/** server answers each request from now on in its turn: with a status and a body, or not at all. */
function server(...list: Answer[]) {
	answers = list;
	asked = [];
	return asked;
}

async function answer(input: Request) {
	asked.push({
		method: input.method,
		url: new URL(input.url).pathname,
		match: input.headers.get('If-Match'),
		key: input.headers.get('Idempotency-Key'),
		body: await input.text(),
	});
	const a = answers.shift() ?? 'silent';
	if (a === 'silent') throw new TypeError('failed to fetch');
	return new Response(JSON.stringify(a.body ?? {}), {
		status: a.status,
		headers: { 'Content-Type': 'application/json' },
	});
}

let queue: Queue;
beforeEach(async () => {
	localStorage.clear();
	vi.stubGlobal('fetch', answer); // the client takes it when it is made
	vi.resetModules();
	await import('../app/test-setup');
	queue = await import('./queue');
});
afterEach(() => vi.unstubAllGlobals());

const waiting = (): Entry[] => JSON.parse(localStorage.getItem('queue') ?? '[]');

describe('what waits on a client', () => {
	it('is handed in one after the other, in the order of the hand', async () => {
		queue.enqueue(entry());
		queue.enqueue(entry({ key: 'k2', ops: set('/room', 'Loft'), label: 'room' }));
		const asked = server({ status: 200, body: view(4) }, { status: 200, body: view(5) });
		const done: string[] = [];
		await queue.flush((e) => done.push(e.key));
		expect(done).toEqual(['k1', 'k2']);
		expect(asked.map((a) => [a.method, a.match, a.key])).toEqual([
			['PATCH', '"3"', 'k1'],
			['PATCH', '"3"', 'k2'],
		]);
		expect(waiting()).toEqual([]);
	});
	it('stays while the server is silent, or fails, and nothing after it is handed in', async () => {
		for (const answer of ['silent', { status: 503 }, { status: 507 }, { status: 500 }] as const) {
			localStorage.clear();
			vi.resetModules();
			queue = await import('./queue');
			queue.enqueue(entry());
			queue.enqueue(entry({ key: 'k2', ops: set('/room', 'Loft') }));
			const asked = server(answer, { status: 200, body: view(4) });
			await queue.flush(() => undefined);
			expect(asked).toHaveLength(1);
			expect(waiting().map((e) => [e.key, e.trouble])).toEqual([
				['k1', undefined],
				['k2', undefined],
			]);
		}
	});
	it('is kept across a reload', async () => {
		queue.enqueue(entry());
		vi.resetModules();
		const again: Queue = await import('./queue');
		const asked = server({ status: 200, body: view(4) });
		await again.flush(() => undefined);
		expect(asked).toHaveLength(1);
	});
	it('waits for a hand where it was refused, and the next goes on', async () => {
		queue.enqueue(entry());
		queue.enqueue(entry({ key: 'k2', ops: set('/room', 'Loft') }));
		server({ status: 422, body: { detail: 'That is no width.' } }, { status: 200, body: view(4) });
		await queue.flush(() => undefined);
		expect(waiting().map((e) => [e.key, e.trouble])).toEqual([['k1', 'That is no width.']]);
	});
	it('is one entry where a place is set twice, held against what the first was made from', () => {
		queue.enqueue(entry());
		queue.enqueue(entry({ key: 'k2', ops: set('/slab/width', '830'), version: 9, was: { room: 'x' } }));
		expect(waiting()).toHaveLength(1);
		expect(waiting()[0]).toMatchObject({ key: 'k2', version: 3, was: opening });
		queue.enqueue(entry({ key: 'k3', ops: set('/readings/-', {}) }));
		queue.enqueue(entry({ key: 'k4', ops: set('/readings/-', {}) }));
		expect(waiting().map((e) => e.key)).toEqual(['k2', 'k3', 'k4']);
	});
	it('is not handed in twice at once', async () => {
		queue.enqueue(entry());
		const asked = server({ status: 200, body: view(4) }, { status: 200, body: view(5) });
		await Promise.all([queue.flush(() => undefined), queue.flush(() => undefined)]);
		expect(asked).toHaveLength(1);
	});
});

describe('a change that another hand came before', () => {
	it('holds where something else was changed', async () => {
		const asked = server(
			{ status: 412 },
			{ status: 200, body: view(7, { ...opening, room: 'Loft' }) },
			{ status: 200, body: view(8) },
		);
		expect((await queue.handIn(entry())).version).toBe(8);
		expect(asked.map((a) => [a.method, a.match, a.key])).toEqual([
			['PATCH', '"3"', 'k1'],
			['GET', null, null],
			['PATCH', '"7"', 'k1'],
		]);
	});
	it('waits for a hand where the same place was', async () => {
		queue.enqueue(entry());
		server({ status: 412 }, { status: 200, body: view(7, { ...opening, slab: { width: 830 } }) });
		await queue.flush(() => undefined);
		expect(waiting()[0]?.trouble).toBe('Someone else changed it meanwhile.');
	});
	it('is made all the same where the hand says so', async () => {
		server(
			{ status: 412 },
			{ status: 200, body: view(7, { ...opening, slab: { width: 830 } }) },
			{ status: 200, body: view(8) },
		);
		expect((await queue.handIn(entry(), true)).version).toBe(8);
	});
});
