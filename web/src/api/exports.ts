import { say } from '../words/texts';
import { ask, client, newKey, once, type Schemas, Trouble } from './client';

export type Wanted = Schemas['NewExport'];
export type Made = Schemas['Export'];

/** The interval, in ms, of polling an export's progress, and of retrying where nothing answers. */
const pause = 400;
const patience = 30;

/**
 * makeFile has a file made, reports its progress, and returns its address; undefined where it was stopped, by aborting
 * the signal. It throws Trouble where it fails.
 */
export async function makeFile(
	wanted: Wanted,
	told: (m: Made) => void,
	signal: AbortSignal,
): Promise<string> {
	let m = await ask(client.POST('/api/exports', { params: once(newKey()), body: wanted }));
	const params = { path: { export: m.id } };
	const stop = () => {
		client.DELETE('/api/exports/{export}', { params }).catch(() => {});
	};
	if (signal.aborted) stop();
	signal.addEventListener('abort', stop);
	let silent = 0;
	while (m.state === 'waiting' || m.state === 'making') {
		told(m);
		await new Promise((go) => setTimeout(go, pause));
		try {
			m = await ask(client.GET('/api/exports/{export}', { params }));
			silent = 0;
		} catch (e) {
			if ((e as Trouble).status !== 0 || ++silent > patience) throw e;
		}
	}
	signal.removeEventListener('abort', stop);
	if (m.state === 'stopped') return '';
	if (m.state !== 'done') throw new Trouble(m.problem, 422);
	return `/api/exports/${m.id}/file`;
}

/** makeList is the content of an export that is JSON. */
export async function makeList<T>(wanted: Wanted, told: (m: Made) => void, signal: AbortSignal): Promise<T> {
	const file = await makeFile(wanted, told, signal);
	const res = file && (await fetch(file, { signal }));
	if (!res) throw new Trouble(say('papers.stopped-nothing-was-made'), 0);
	if (!res.ok) throw new Trouble(say('papers.it-was-made-but-did'), res.status);
	return res.json();
}

/** howFar is an export's progress, in numbers. */
export const howFar = (m?: Made) =>
	!m
		? ''
		: m.state === 'waiting'
			? say('papers.waits-for-its-turn')
			: m.of
				? `${Math.floor((100 * m.done) / m.of)} %`
				: '';
