import { say } from '../words/texts';
import { ask, client, newKey, once, type Schemas, Trouble } from './client';

export type Wanted = Schemas['NewExport'];
export type Made = Schemas['Export'];

/** Every so many ms it is asked how far a file is, and so often again where nothing answers. */
const pause = 400;
const patience = 30;

/**
 * makeFile has a file made, tells how far it is, and gives its address; none where it was stopped, which aborting the
 * signal does. It throws Trouble where it fails.
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

/** makeList is what a file that is made holds, where that is JSON. */
export async function makeList<T>(wanted: Wanted, told: (m: Made) => void, signal: AbortSignal): Promise<T> {
	const file = await makeFile(wanted, told, signal);
	const res = file && (await fetch(file, { signal }));
	if (!res) throw new Trouble(say('papers.stopped-nothing-was-made'), 0);
	if (!res.ok) throw new Trouble(say('papers.it-was-made-but-did'), res.status);
	return res.json();
}

/** howFar says how far a file is, in numbers. */
export const howFar = (m?: Made) =>
	!m
		? ''
		: m.state === 'waiting'
			? say('papers.waits-for-its-turn')
			: m.of
				? `${Math.floor((100 * m.done) / m.of)} %`
				: '';
