import type { ComponentType } from 'react';

/** The pages: each a chunk of its own, fetched when it is opened. */
export const pages: [path: string, page: () => Promise<{ Component: ComponentType }>][] = [
	['/', async () => ({ Component: (await import('../house/jobs')).Home })],
	['/j/:job', async () => ({ Component: (await import('../house/page')).WalkPage })],
	['/kit/:job', async () => ({ Component: (await import('../house/kit')).KitPage })],
	['/practice', async () => ({ Component: (await import('../practice/page')).PracticePage })],
	[
		'/practice/opening/:level/:seed',
		async () => ({ Component: (await import('../practice/play')).PlayPage }),
	],
	['/load/:job', async () => ({ Component: (await import('../house/load')).LoadPage })],
	['/day/:job', async () => ({ Component: (await import('../day/page')).DayPage })],
	['/sharing', async () => ({ Component: (await import('../sharing/page')).SharingPage })],
	['/devices', async () => ({ Component: (await import('../sharing/page')).SharingPage })], // bookmarks of before
	['/pair', async () => ({ Component: (await import('../sharing/join')).PairPage })],
	['/papers/:job', async () => ({ Component: (await import('../house/papers')).PapersPage })],
	['/cards/:job/:opening', async () => ({ Component: (await import('../opening/cards/page')).CardsPage })],
	['/rod/:job/:opening', async () => ({ Component: (await import('../house/story-rod')).RodPage })],
	['/j/:job/:opening/:step', async () => ({ Component: (await import('../opening/page')).OpeningPage })],
];

/** fetchAll fetches the remaining pages, so that each opens without signal. */
export const fetchAll = () => Promise.allSettled(pages.map(([, page]) => page()));

/**
 * opened is the page of an address, fetched; it rejects where that fails. It matches the path itself: the router's
 * matchPath would have to be fetched before the first page.
 */
export async function opened(address: string) {
	const page = pages.find(([path]) => new RegExp(`^${path.replace(/:\w+/g, '[^/]+')}$`).test(address));
	return page && { path: page[0], ...(await page[1]()) };
}
