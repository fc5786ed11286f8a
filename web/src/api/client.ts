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

/** pageID is this page, among all that are open: what it did itself it need not be told. */
export const pageID = Math.random().toString(36).slice(2);

export const client = createClient<paths>({
	baseUrl: location.origin,
	headers: { 'X-Page': pageID },
	querySerializer: { array: { style: 'form', explode: false } },
});

client.use({
	onRequest: ({ request }) => request.headers.set('Accept-Language', deviceLocale()),
});

/** Trouble is why something was not saved, in the server's own words where it gave any. */
export class Trouble extends Error {
	constructor(
		message: string,
		readonly status: number,
		readonly fields: { message: string; pointer: string }[] = [],
		/** The request's number in the log, where something went wrong inside. */
		request = '',
	) {
		super(request ? `${message} (${request})` : message);
	}
}

/**
 * newKey is a key that no other request has. Browsers give randomUUID on this machine and under TLS alone;
 * a phone that is let in without TLS has only getRandomValues.
 */
export const newKey = () =>
	[...crypto.getRandomValues(new Uint32Array(4))].map((n) => n.toString(36)).join('-');

/** once is a header that makes the same request, sent again, make nothing more. */
export const once = (key: string) => ({ header: { 'Idempotency-Key': key } });

type Answer<T> = { data?: T; error?: Schemas['ErrorModel']; response: Response };

/** ask turns an answer into its data, or throws Trouble. */
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

/** send sends a file as it is; what it is made of is the server's to find out. */
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
