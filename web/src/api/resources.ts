import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { ask, client, type Walk } from './client';

const openings = (job: string) => ['opening', job];

/** resources are the factories of query options: each has its key and its request. */
export const resources = {
	jobs: () => queryOptions({ queryKey: ['jobs'], queryFn: () => ask(client.GET('/api/jobs')) }),

	/** A job's walk; it is fetched again while plans are being worked out. */
	walk: (job: string) =>
		queryOptions({
			queryKey: ['walk', job],
			queryFn: () => ask(client.GET('/api/jobs/{job}', { params: { path: { job } } })),
			refetchInterval: (q: { state: { data?: Walk } }) => (q.state.data?.working ? 150 : (false as const)),
			placeholderData: keepPreviousData,
		}),

	/** The key of all openings of a job. */
	openings,

	opening: (job: string, opening: string) =>
		queryOptions({
			queryKey: [...openings(job), opening],
			queryFn: () =>
				ask(client.GET('/api/jobs/{job}/openings/{opening}', { params: { path: { job, opening } } })),
		}),

	/** The drawings of some openings, each an ID and its version. */
	drawings: (job: string, at: string[]) =>
		queryOptions({
			queryKey: ['drawings', job, ...at],
			staleTime: Number.POSITIVE_INFINITY,
			gcTime: 60_000,
			queryFn: () =>
				ask(
					client.GET('/api/jobs/{job}/drawings', {
						params: { path: { job }, query: { openings: at.map((w) => w.slice(0, w.lastIndexOf('@'))) } },
					}),
				),
		}),

	/** The record of an opening; where its changes matter, at a version. */
	log: (job: string, opening: string, version?: number) =>
		queryOptions({
			queryKey: version === undefined ? ['log', job, opening] : ['log', job, opening, version],
			queryFn: () =>
				ask(client.GET('/api/jobs/{job}/openings/{opening}/log', { params: { path: { job, opening } } })),
			placeholderData: keepPreviousData,
		}),

	/** What changed a finished step of an opening at a version. */
	changed: (job: string, opening: string, step: string, version: number) =>
		queryOptions({
			queryKey: ['changed', job, opening, step, version],
			queryFn: () =>
				ask(
					client.GET('/api/jobs/{job}/openings/{opening}/changed', {
						params: { path: { job, opening }, query: { step: step as 'measure' } },
					}),
				),
			placeholderData: keepPreviousData,
		}),

	/** The hinges that could be used for a leaf, of an opening and a job at their versions. */
	hinges: (job: string, opening: string, leaf: number, version: number, head: number) =>
		queryOptions({
			queryKey: ['hinges', job, opening, version, head, leaf],
			queryFn: () =>
				ask(
					client.GET('/api/jobs/{job}/openings/{opening}/hinges', {
						params: { path: { job, opening }, query: { leaf } },
					}),
				),
			placeholderData: keepPreviousData,
		}),

	/** The stock sizes for a leaf of an opening at a version. */
	stock: (job: string, opening: string, leaf: number, version: number) =>
		queryOptions({
			queryKey: ['stock', job, opening, version, leaf],
			queryFn: () =>
				ask(
					client.GET('/api/jobs/{job}/openings/{opening}/stock', {
						params: { path: { job, opening }, query: { leaf } },
					}),
				),
			placeholderData: keepPreviousData,
		}),

	air: (job: string) =>
		queryOptions({
			queryKey: ['air', job],
			queryFn: () => ask(client.GET('/api/jobs/{job}/air', { params: { path: { job } } })),
			retry: false,
		}),

	/** A job's day, planned from a moment. */
	day: (job: string, now: () => string) =>
		queryOptions({
			queryKey: ['day', job],
			queryFn: () =>
				ask(client.GET('/api/jobs/{job}/day', { params: { path: { job }, query: { now: now() } } })),
			refetchInterval: 60_000,
		}),

	sharing: () => queryOptions({ queryKey: ['sharing'], queryFn: () => ask(client.GET('/api/sharing')) }),

	practice: () =>
		queryOptions({ queryKey: ['practice'], queryFn: () => ask(client.GET('/api/practice', {})) }),

	drill: (kind: string, seed: number) =>
		queryOptions({
			queryKey: ['drill', kind, seed],
			queryFn: () =>
				ask(client.GET('/api/practice/drills/{kind}', { params: { path: { kind }, query: { seed } } })),
			staleTime: Number.POSITIVE_INFINITY,
		}),
};
