// Without signal the page still opens, and shows what it last saw: pages and scripts come from
// here, and so do the jobs that were looked at, where the server does not answer. Nothing that
// is entered goes through here: the page itself keeps it and hands it in.
const pages = 'pages';
const jobs = 'jobs';
const patience = 4000;

self.addEventListener('install', (e) => {
	e.waitUntil(
		(async () => {
			await keep(await fetch('/', { cache: 'no-cache' }));
			await self.skipWaiting();
		})(),
	);
});

/** keep keeps the page of now with all its parts, also those that no one opened yet: a script names what it fetches. */
async function keep(index) {
	const cache = await caches.open(pages);
	const text = await index.clone().text();
	const was = await cache.match('/');
	if (was && (await was.text()) === text) return;
	let named = [...text.matchAll(/(?:src|href)="(\/[^"]+)"/g)].map((m) => m[1]);
	for (const seen = new Set(); named.length > 0; ) {
		const fresh = [...new Set(named)].filter((part) => !seen.has(part));
		for (const part of fresh) seen.add(part);
		const texts = await Promise.all(
			fresh.map(async (part) => {
				if (!(await cache.match(part))) await cache.add(part);
				return /\.js$/.test(part) ? (await cache.match(part)).text() : '';
			}),
		);
		named = texts.flatMap((t) => [...t.matchAll(/assets\/[\w.-]+\.(?:js|css)/g)].map((m) => `/${m[0]}`));
	}
	await cache.put('/', index);
}

self.addEventListener('activate', (e) => e.waitUntil(self.clients.claim()));
self.addEventListener('message', (e) => {
	if (e.data === 'claim') e.waitUntil(self.clients.claim()); // a page that was not there yet
});

/** kept are the addresses whose answers are kept: a job's walk, its doors and their light. */
const kept = /^\/api\/(jobs|sharing)(\/[^/]+(\/(drawings|openings\/[^/]+))?)?$/;

self.addEventListener('fetch', (e) => {
	const url = new URL(e.request.url);
	if (e.request.method !== 'GET' || url.origin !== location.origin) return;
	if (e.request.mode === 'navigate') e.respondWith(page(e));
	else if (/^\/(assets\/|icon|manifest)/.test(url.pathname)) e.respondWith(asset(e.request));
	else if (kept.test(url.pathname)) e.respondWith(job(e.request));
});

/** page is the page of now, or the one that was last seen. */
async function page(e) {
	const cache = await caches.open(pages);
	try {
		const now = await fetch(e.request, { signal: AbortSignal.timeout(patience) });
		// The one before stays until all parts of this one are here.
		if (now.ok) e.waitUntil(keep(now.clone()).catch(() => undefined));
		return now;
	} catch (failed) {
		const was = await cache.match('/');
		if (was) return was;
		throw failed;
	}
}

/** asset is named by what is in it: once here, it is right for good. */
async function asset(request) {
	const cache = await caches.open(pages);
	const was = await cache.match(request);
	if (was) return was;
	const now = await fetch(request);
	if (now.ok) await cache.put(request, now.clone());
	return now;
}

/** job is a job as it stands, or as it was last seen; a device whose pass was ended keeps none. */
async function job(request) {
	const cache = await caches.open(jobs);
	try {
		const now = await fetch(request);
		if (now.ok) await cache.put(request, now.clone());
		else if (now.status === 401) await caches.delete(jobs);
		return now;
	} catch (e) {
		const was = await cache.match(request);
		if (was) return was;
		throw e;
	}
}
