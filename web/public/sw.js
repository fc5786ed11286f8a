// Without signal the page still opens and shows what it last fetched: pages, scripts and the jobs that were open come
// from this cache where the server does not answer. Entries never pass through here: the page itself queues them and
// sends them.
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

/** keep caches the present page with all its parts, also those not opened yet: a script names what it imports. */
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

/** kept are the addresses whose answers are cached: a job's walk, its openings and their drawings. */
const kept = /^\/api\/(jobs|sharing)(\/[^/]+(\/(drawings|openings\/[^/]+))?)?$/;

self.addEventListener('fetch', (e) => {
	const url = new URL(e.request.url);
	if (e.request.method !== 'GET' || url.origin !== location.origin) return;
	if (e.request.mode === 'navigate') e.respondWith(page(e));
	else if (/^\/(assets\/|icon|manifest)/.test(url.pathname)) e.respondWith(asset(e.request));
	else if (kept.test(url.pathname)) e.respondWith(job(e.request));
});

/** page is the present page, or the cached one. */
async function page(e) {
	const cache = await caches.open(pages);
	try {
		const now = await fetch(e.request, { signal: AbortSignal.timeout(patience) });
		// The old version stays until every part of this one is cached.
		if (now.ok) e.waitUntil(keep(now.clone()).catch(() => undefined));
		return now;
	} catch (failed) {
		const was = await cache.match('/');
		if (was) return was;
		throw failed;
	}
}

/** asset is named by a hash of its content, so a cached one is always current. */
async function asset(request) {
	const cache = await caches.open(pages);
	const was = await cache.match(request);
	if (was) return was;
	const now = await fetch(request);
	if (now.ok) await cache.put(request, now.clone());
	return now;
}

/** job is a job as it is, or as it was cached; a client whose pass was ended keeps none. */
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
