import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, type ReactNode, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import './app.css';
import { ended, putOut } from './access';
import { type JobHead, Trouble } from './api';
import { CardsPage } from './cards';
import { DayPage } from './day/page';
import { DevicesPage } from './devices';
import { DoorPage } from './door';
import { Home } from './home';
import { KitPage } from './kit';
import { LineBar } from './line';
import { listen } from './live';
import { LoadPage } from './load-page';
import { keepJobLocale } from './locale';
import { Localized } from './localized';
import { PairPage } from './pair-page';
import { PapersPage } from './papers-page';
import { flush } from './queue';
import { RodPage } from './rod-page';
import { Broken, Waiting } from './says';
import { readTheme } from './top';
import { WalkPage } from './walk/page';

// Practice asks the server for every move, so that it needs no part of the first load.
const PracticePage = lazy(async () => ({ default: (await import('./practice/page')).PracticePage }));
const PlayPage = lazy(async () => ({ default: (await import('./practice/play')).PlayPage }));
const fetched = (page: ReactNode) => <Suspense fallback={<Waiting text="One moment…" />}>{page}</Suspense>;

const router = createBrowserRouter([
	{
		element: <Localized />,
		errorElement: <Broken />,
		children: [
			{ path: '/', element: <Home /> },
			{ path: '/j/:job', element: <WalkPage /> },
			{ path: '/kit/:job', element: <KitPage /> },
			{ path: '/practice', element: fetched(<PracticePage />) },
			{ path: '/practice/opening/:level/:seed', element: fetched(<PlayPage />) },
			{ path: '/load/:job', element: <LoadPage /> },
			{ path: '/day/:job', element: <DayPage /> },
			{ path: '/devices', element: <DevicesPage /> },
			{ path: '/pair', element: <PairPage /> },
			{ path: '/papers/:job', element: <PapersPage /> },
			{ path: '/cards/:job/:opening', element: <CardsPage /> },
			{ path: '/rod/:job/:opening', element: <RodPage /> },
			{ path: '/j/:job/:opening', element: <Navigate to="measure" replace /> },
			{ path: '/j/:job/:opening/:step', element: <DoorPage /> },
			{ path: '*', element: <Navigate to="/" replace /> },
		],
	},
]);

const cache = new QueryClient({
	defaultOptions: {
		queries: { retry: (n, e) => !(e instanceof Trouble && e.status >= 400) && n < 2, networkMode: 'always' },
		mutations: { networkMode: 'always' },
	},
});

document.documentElement.dataset.theme = readTheme();
// Each answer about a job tells its locale.
cache.getQueryCache().subscribe(({ query }) => {
	const { data } = query.state;
	const heads = Array.isArray(data) ? data : [(data as { job?: JobHead } | undefined)?.job];
	for (const head of heads) if (head?.unit && head.tape) keepJobLocale(head);
});

const out = ended() && location.pathname !== '/pair';
if (out) location.replace('/pair');
// A page that is brought back as it was, after the device was put out.
addEventListener('pageshow', (e) => e.persisted && ended() && putOut());

if (location.pathname !== '/pair' && !out) {
	const handInAll = () =>
		flush(async (e, view) => {
			await cache.cancelQueries({ queryKey: ['opening', e.job, e.opening] });
			cache.setQueryData(['opening', e.job, e.opening], view);
			cache.invalidateQueries({ queryKey: ['walk', e.job] });
		});
	listen(cache, handInAll);
	handInAll();
	// A change whose answer alone was lost waits while the line is on: it is tried again by and by.
	setInterval(handInAll, 5000);
}
// Browsers allow it on this machine and under TLS alone.
if ('serviceWorker' in navigator) {
	const register = () => navigator.serviceWorker.register('/sw.js');
	// The page's words may be read past the load.
	if (document.readyState === 'complete') register();
	else addEventListener('load', register);
	// What was read before it stood by is read again, and so kept; what is being read for the first time
	// went past it, and is read again once it is there.
	navigator.serviceWorker.addEventListener('controllerchange', async () => {
		await Promise.allSettled(
			cache
				.getQueryCache()
				.findAll({ fetchStatus: 'fetching' })
				.map((q) => q.promise),
		);
		// So are the parts of the page that came by before it stood by.
		for (const e of performance.getEntriesByType('resource'))
			if (/\/assets\//.test(e.name)) fetch(e.name).catch(() => undefined);
		cache.invalidateQueries();
	});
}

const root = document.getElementById('root');
if (root && !out)
	createRoot(root).render(
		<StrictMode>
			<QueryClientProvider client={cache}>
				<RouterProvider router={router} />
				<LineBar />
			</QueryClientProvider>
		</StrictMode>,
	);
