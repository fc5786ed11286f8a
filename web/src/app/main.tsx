import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { ended, putOut } from '../api/access';
import { type JobHead, Trouble } from '../api/client';
import { listen } from '../api/live';
import { flush } from '../api/queue';
import { resources } from '../api/resources';
import { Keypad } from '../ui/keypad';
import { Broken, Waiting } from '../ui/says';
import { readTheme } from '../ui/top';
import { keepJobLocale } from '../words/locale';
import { say } from '../words/texts';
import { LineBar } from './line-bar';
import { Localized } from './localized';
import { fetchAll, opened, pages } from './pages';

// The opened page is rendered at once; the others are fetched when they are opened.
const first = await opened(location.pathname).catch(() => undefined);

const router = createBrowserRouter([
	{
		element: <Localized />,
		errorElement: <Broken />,
		hydrateFallbackElement: <Waiting text={say('page.one-moment')} />,
		children: [
			...pages.map(([path, lazy]) => (path === first?.path ? first : { path, lazy })),
			{ path: '/j/:job/:opening', element: <Navigate to="measure" replace /> },
			{ path: '*', element: <Navigate to="/" replace /> },
		],
	},
]);

// An answer is drawn in the task that it arrives in; by default a timer is waited for.
notifyManager.setScheduler(queueMicrotask);

const cache = new QueryClient({
	defaultOptions: {
		queries: { retry: (n, e) => !(e instanceof Trouble && e.status >= 400) && n < 2, networkMode: 'always' },
		mutations: { networkMode: 'always' },
	},
});

document.documentElement.dataset.theme = readTheme();
// Each answer about a job includes its locale.
cache.getQueryCache().subscribe(({ query }) => {
	const { data } = query.state;
	const heads = Array.isArray(data) ? data : [(data as { job?: JobHead } | undefined)?.job];
	for (const head of heads) if (head?.unit && head.tape) keepJobLocale(head);
});

const out = ended() && location.pathname !== '/pair';
if (out) putOut();
// A page restored from the browser's cache, after the client's pass was ended.
addEventListener('pageshow', (e) => e.persisted && ended() && putOut());

if (location.pathname !== '/pair' && !out) {
	const handInAll = () =>
		flush(async (e, view) => {
			await cache.cancelQueries({ queryKey: resources.opening(e.job, e.opening).queryKey });
			cache.setQueryData(resources.opening(e.job, e.opening).queryKey, view);
			cache.invalidateQueries({ queryKey: resources.walk(e.job).queryKey });
		});
	listen(cache, handInAll);
	handInAll();
	// A change whose answer was lost waits although the server answers: it is retried now and then.
	setInterval(handInAll, 5000);
}
/** loaded runs f after the load event, which may have been: the catalogue is read past it. */
function loaded(f: () => unknown) {
	if (document.readyState === 'complete') f();
	else addEventListener('load', f);
}

// Browsers allow it only on this machine and under TLS.
if ('serviceWorker' in navigator) {
	loaded(async () => {
		await navigator.serviceWorker.register('/sw.js').catch(() => undefined);
		const { active } = await navigator.serviceWorker.ready;
		// It may have become active while this page was loading, and then did not claim it.
		if (!navigator.serviceWorker.controller) active?.postMessage('claim');
	});
	// What was fetched before the worker was active is fetched again, and so cached, and so is what is being fetched
	// for the first time.
	navigator.serviceWorker.addEventListener('controllerchange', async () => {
		await Promise.allSettled(
			cache
				.getQueryCache()
				.findAll({ fetchStatus: 'fetching' })
				.map((q) => q.promise),
		);
		// So are the parts of the page that were loaded before.
		for (const e of performance.getEntriesByType('resource'))
			if (/\/assets\//.test(e.name)) fetch(e.name).catch(() => undefined);
		cache.invalidateQueries();
	});
} else loaded(fetchAll); // the service worker keeps them otherwise

const root = document.getElementById('root');
if (root && !out)
	createRoot(root).render(
		<StrictMode>
			<QueryClientProvider client={cache}>
				<RouterProvider router={router} />
				<LineBar />
				<Keypad />
			</QueryClientProvider>
		</StrictMode>,
	);
