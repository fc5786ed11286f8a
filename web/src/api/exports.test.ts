// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Made } from './exports';

const made = (over: Partial<Made>): Made => ({
	id: 'e1',
	state: 'making',
	done: 0,
	of: 80,
	problem: '',
	file: 'house-card.pdf',
	...over,
});

/**
 * server answers with how the file stands, one after the other, and with the last from then on; an Error is an
 * answer that does not arrive.
 */
async function server(...answers: (Made | Error)[]) {
	const asked: string[] = [];
	vi.stubGlobal('fetch', async (what: Request | string) => {
		const [method, url] = typeof what === 'string' ? ['GET', what] : [what.method, what.url];
		asked.push(`${method} ${new URL(url, location.origin).pathname}`);
		if (method === 'DELETE') return Response.json(made({ state: 'stopped' }));
		if (url.endsWith('/file')) return Response.json({ doors: ['Bath'] });
		const next = answers.length > 1 ? answers.shift() : answers[0];
		if (next instanceof Error) throw next;
		return Response.json(next, { status: method === 'POST' ? 202 : 200 });
	});
	vi.resetModules(); // the client takes fetch when it is made
	await import('../app/test-setup');
	return { asked, ...(await import('./exports')) };
}

const never = new AbortController().signal;
const card = { what: 'card', job: 'j' };

beforeEach(() => {
	vi.useFakeTimers();
});
afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

test('a file is made, says how far it is, and gives its address', async () => {
	const { asked, howFar, makeFile } = await server(
		made({ state: 'waiting' }),
		made({ done: 20 }),
		made({ done: 79 }),
		made({ state: 'done', done: 80 }),
	);
	const far: string[] = [];
	const at = makeFile(card, (m) => far.push(howFar(m)), never);
	await vi.runAllTimersAsync();
	expect(await at).toBe('/api/exports/e1/file');
	expect(far).toEqual(['waits for its turn', '25 %', '98 %']);
	expect(asked).toEqual(['POST /api/exports', ...Array(3).fill('GET /api/exports/e1')]);
});

test('a network that fails for a moment does not lose it', async () => {
	const { makeList } = await server(
		made({}),
		new TypeError('gone'),
		new TypeError('gone'),
		made({ state: 'done' }),
	);
	const list = makeList<{ doors: string[] }>({ what: 'load-list', job: 'j' }, () => {}, never);
	await vi.runAllTimersAsync();
	expect(await list).toEqual({ doors: ['Bath'] });
});

test('one that fails for good is given up', async () => {
	const { asked, makeFile } = await server(made({}), new TypeError('gone'));
	const at = makeFile(card, () => {}, never);
	at.catch(() => {});
	await vi.runAllTimersAsync();
	await expect(at).rejects.toThrow('does not answer');
	expect(asked.length).toBeLessThan(40);
});

test('why it failed is said in the words of the server', async () => {
	const { makeFile } = await server(
		made({ state: 'failed', problem: 'There is no door to put on paper yet.' }),
	);
	await expect(makeFile(card, () => {}, never)).rejects.toThrow('There is no door to put on paper yet.');
});

test('who stops it, or leaves, stops it on the server', async () => {
	const { asked, makeFile } = await server(made({}), made({}), made({ state: 'stopped' }));
	const stop = new AbortController();
	const at = makeFile(card, () => stop.abort(), stop.signal);
	await vi.runAllTimersAsync();
	expect(await at).toBe('');
	expect(asked).toContain('DELETE /api/exports/e1');
});
