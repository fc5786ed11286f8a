import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import './app.css';
import { Trouble } from './api';
import { CardsPage } from './cards';
import { DoorPage } from './door';
import { Home } from './home';
import { KitPage } from './kit';
import { LoadPage } from './load-page';
import { PapersPage } from './papers-page';
import { RodPage } from './rod-page';
import { Broken } from './says';
import { readTheme } from './top';
import { WalkPage } from './walk/page';

const router = createBrowserRouter([
	{
		errorElement: <Broken />,
		children: [
			{ path: '/', element: <Home /> },
			{ path: '/j/:job', element: <WalkPage /> },
			{ path: '/kit/:job', element: <KitPage /> },
			{ path: '/load/:job', element: <LoadPage /> },
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

const root = document.getElementById('root');
if (root)
	createRoot(root).render(
		<StrictMode>
			<QueryClientProvider client={cache}>
				<RouterProvider router={router} />
			</QueryClientProvider>
		</StrictMode>,
	);
