import { useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, useCallback, useContext, useMemo, useRef, useState } from 'react';
import { ask, client, type Op, type OpeningView, Trouble } from './api';

export type DoorState = {
	view: OpeningView;
	/** Saves a change; rejects with Trouble, and then nothing was changed. */
	save: (ops: Op[], label: string) => Promise<OpeningView>;
	move: (way: 'undo' | 'redo') => Promise<void>;
	/** What could not be done, where no field says it. */
	trouble: string;
	/** Which leaf of a pair is in hand, 1 or 2; 1 for a single door. */
	leaf: number;
	/** Where that leaf's slab is kept. */
	slab: '/slab' | '/pair/slab';
};

export const DoorContext = createContext<DoorState | null>(null);

export function useDoor(): DoorState {
	const d = useContext(DoorContext);
	if (!d) throw new Error('no door');
	return d;
}

/** useDoorState holds one opening; changes go one after another, each from the version before it. */
export function useDoorState(job: string, opening: string) {
	const cache = useQueryClient();
	const key = useMemo(() => ['opening', job, opening], [job, opening]);
	const path = { job, opening };
	const [trouble, setTrouble] = useState('');
	const query = useQuery({
		queryKey: key,
		queryFn: () => ask(client.GET('/api/jobs/{job}/openings/{opening}', { params: { path } })),
	});
	const queue = useRef<Promise<unknown>>(Promise.resolve());

	const change = useCallback(
		(send: (ifMatch: string) => Promise<OpeningView>) => {
			const run = async () => {
				const now = cache.getQueryData<OpeningView>(key);
				try {
					const next = await send(`"${now?.version ?? 0}"`);
					cache.setQueryData(key, next);
					cache.invalidateQueries({ queryKey: ['walk', job] });
					setTrouble('');
					return next;
				} catch (e) {
					if (e instanceof Trouble && e.status === 412) await cache.refetchQueries({ queryKey: key });
					throw e;
				}
			};
			const done = queue.current.then(run, run);
			queue.current = done.catch(() => undefined);
			return done;
		},
		[cache, job, key],
	);

	const save = useCallback(
		(ops: Op[], label: string) =>
			change((ifMatch) =>
				ask(
					client.PATCH('/api/jobs/{job}/openings/{opening}', {
						params: { path: { job, opening }, header: { 'If-Match': ifMatch }, query: { label } },
						body: ops,
					}),
				),
			),
		[change, job, opening],
	);

	const move = useCallback(
		async (way: 'undo' | 'redo') => {
			const params = (ifMatch: string) => ({
				params: { path: { job, opening }, header: { 'If-Match': ifMatch } },
			});
			try {
				await change((m) =>
					ask(
						way === 'undo'
							? client.POST('/api/jobs/{job}/openings/{opening}/undo', params(m))
							: client.POST('/api/jobs/{job}/openings/{opening}/redo', params(m)),
					),
				);
			} catch (e) {
				setTrouble((e as Error).message);
			}
		},
		[change, job, opening],
	);

	const state = query.data ? { view: query.data, save, move, trouble } : null;
	return { state, query, setTrouble };
}

/** at reads the value at a JSON pointer. */
export function at(doc: unknown, pointer: string): unknown {
	let v = doc;
	for (const token of pointer.split('/').slice(1)) v = (v as Record<string, unknown> | undefined)?.[token];
	return v;
}
