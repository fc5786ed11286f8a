import createClient from 'openapi-fetch';
import { deviceLocale } from '../words/locale';
import { say } from '../words/texts';
import { putOut } from './access';
import type { components, paths } from './contract.gen';

export type Schemas = components['schemas'];
export type OpeningView = Schemas['OpeningView'];
export type Plan = Schemas['Plan'];
export type Leaf = Schemas['Leaf'];
export type Figure = Schemas['Figure'];
export type Swing = Schemas['Swing'];
export type Text = Schemas['Text'];
export type Walk = Schemas['Walk'];
export type OpeningRow = Schemas['OpeningRow'];
export type JobHead = Schemas['JobHead'];
export type Op = Schemas['Op'];
export type Drawing = Schemas['DrawingView'];
export type Trade = Schemas['Trade'];
export type Unit = 'mm' | 'in';
export type Side = 'head' | 'hinge' | 'lock' | 'foot';

/** pageID identifies this page among all open ones: it receives no events of its own changes. */
export const pageID = Math.random().toString(36).slice(2);

export const client = createClient<paths>({
	baseUrl: location.origin,
	headers: { 'X-Page': pageID },
	querySerializer: { array: { style: 'form', explode: false } },
});

client.use({
	onRequest: ({ request }) => request.headers.set('Accept-Language', deviceLocale()),
});

/** Trouble is the error of a request, in the server's words where it sent any. */
export class Trouble extends Error {
	constructor(
		message: string,
		readonly status: number,
		readonly fields: { message: string; pointer: string }[] = [],
		/** The request's ID in the log, for an internal error. */
		request = '',
	) {
		super(request ? `${message} (${request})` : message);
	}
}

/**
 * newKey is a unique key. Browsers have randomUUID only on this machine and under TLS; a phone that was paired without
 * TLS has only getRandomValues.
 */
export const newKey = () =>
	[...crypto.getRandomValues(new Uint32Array(4))].map((n) => n.toString(36)).join('-');

/** once is the header with an idempotency key. */
export const once = (key: string) => ({ header: { 'Idempotency-Key': key } });

type Answer<T> = { data?: T; error?: Schemas['ErrorModel']; response: Response };

/** ask returns an answer's data, or throws Trouble. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
	let answer: Answer<T>;
	try {
		answer = await call;
	} catch {
		throw new Trouble(say('page.silent'), 0);
	}
	const { data, error, response } = answer;
	if (response.status === 401) putOut();
	if (!response.ok) {
		const fields = (error?.errors ?? []).map((e) => ({
			message: e.message ?? '',
			pointer: e.location ?? '',
		}));
		const request = response.status >= 500 ? (response.headers.get('X-Request-Id') ?? '') : '';
		throw new Trouble(error?.detail ?? say('page.silent'), response.status, fields, request);
	}
	return data as T;
}

/** send uploads a file as it is; the server detects its type. */
export async function send<T>(path: string, file: File, key = ''): Promise<T> {
	if (file.size === 0) throw new Trouble(say('page.the-file-is-empty'), 0);
	const headers = {
		'Content-Type': 'application/octet-stream',
		'X-Page': pageID,
		'Accept-Language': deviceLocale(),
		...(key ? once(key).header : {}),
	};
	const res = await fetch(path, { method: 'POST', headers, body: file }).catch(() => {
		throw new Trouble(say('page.kind-margin-does-not-answer'), 0);
	});
	const answer = await res.json().catch(() => ({}));
	if (!res.ok) throw new Trouble(answer.detail ?? say('page.it-could-not-be-read'), res.status);
	return answer as T;
}
