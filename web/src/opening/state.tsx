import { MutationObserver, useQuery, useQueryClient } from '@tanstack/react-query';
import { createContext, useCallback, useContext, useMemo, useRef, useState } from 'react';
import { ask, client, type Leaf, newKey, type Op, type OpeningView, Trouble } from '../api/client';
import { at } from '../api/pointer';
import { enqueue, handIn } from '../api/queue';
import { resources } from '../api/resources';
import { today, whoNow } from '../api/who';
import { say } from '../words/texts';

export type OpeningState = {
	view: OpeningView;
	/** Saves a change; rejects with Trouble, and then nothing was changed. */
	save: (ops: Op[], label: string) => Promise<OpeningView>;
	move: (way: 'undo' | 'redo') => Promise<void>;
	/** What failed, where no field shows it. */
	trouble: string;
	/** The plan of the leaf in hand. */
	leaf: Leaf;
	/** Which leaf of a pair that is, 1 or 2; 1 for a single slab. */
	which: number;
	/** The pointer to that leaf's slab. */
	slab: '/slab' | '/pair/slab';
};

export const OpeningContext = createContext<OpeningState | null>(null);

export function useOpening(): OpeningState {
	const d = useContext(OpeningContext);
	if (!d) throw new Error(say('door.no-door'));
	return d;
}

/** Change is sent with the version that it is made from, which was on the screen. */
type Change = { send: (version: number) => Promise<OpeningView>; from: number };

/** useOpeningState holds one opening; changes are sent one after another, each from the version before it. */
export function useOpeningState(job: string, opening: string) {
	const cache = useQueryClient();
	const key = useMemo(() => resources.opening(job, opening).queryKey, [job, opening]);
	const [trouble, setTrouble] = useState('');
	const query = useQuery(resources.opening(job, opening));
	// The versions that this page's own changes led to.
	const own = useRef(new Map<number, number>());
	const seen = query.data;

	// Not useMutation, which draws the page anew as a change leaves and once more after its answer.
	const changes = useMemo(
		() =>
			new MutationObserver(cache, {
				// One after another, each from the version before it.
				scope: { id: key.join(' ') },
				mutationFn: async ({ send, from }: Change) => {
					// From the version on the screen, and this page's own changes since.
					let version = from;
					for (let next = own.current.get(version); next; next = own.current.get(version)) version = next;
					const next = await send(version);
					// Undo leads back to an older version, which counts from then on.
					own.current.delete(next.version);
					if (next.version !== version) own.current.set(version, next.version);
					return next;
				},
				onSuccess: async (next) => {
					// An answer to an earlier request must not overwrite this one.
					await cache.cancelQueries({ queryKey: key });
					cache.setQueryData(key, next);
					cache.invalidateQueries({ queryKey: resources.walk(job).queryKey });
					setTrouble('');
				},
				onError: async (e) => {
					if (e instanceof Trouble && e.status === 412) await cache.refetchQueries({ queryKey: key });
				},
			}),
		[cache, key, job],
	);
	const change = useCallback(
		(send: Change['send']) => changes.mutate({ send, from: seen?.version ?? 0 }),
		[changes, seen],
	);

	const save = useCallback(
		(ops: Op[], label: string) => {
			const entry = {
				key: newKey(),
				job,
				opening,
				door: seen?.opening.name ?? '',
				ops: seen ? [...saw(seen, ops), ...ops] : ops,
				label,
				by: whoNow(),
				was: seen?.opening,
				at: today(),
			};
			return change(async (version) => {
				try {
					return await handIn({ ...entry, version });
				} catch (e) {
					// Without signal it waits in the queue.
					if (e instanceof Trouble && e.status === 0) {
						enqueue({ ...entry, version });
						throw new Trouble(say('page.waits'), 0);
					}
					throw e;
				}
			});
		},
		[change, job, opening, seen],
	);

	const move = useCallback(
		async (way: 'undo' | 'redo') => {
			const params = (version: number) => ({
				params: { path: { job, opening }, header: { 'If-Match': `"${version}"` } },
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

/** saw is a test, before a change, that each item of a list is the one that was on the screen. */
function saw(view: OpeningView, ops: Op[]): Op[] {
	const tests = new Map<string, Op>();
	for (const op of ops) {
		const thing = /^\/(?:readings|offers)\/\d+|^\/tried\/\d+\/hangs\/\d+(?:\/gaps\/\d+)?/.exec(op.path)?.[0];
		const id = thing && (at(view.opening, thing) as { id: string } | undefined)?.id;
		if (id) tests.set(thing, { op: 'test', path: `${thing}/id`, value: id });
		if (op.op === 'remove' && /^\/hinges\/pockets\/\d+$/.test(op.path))
			tests.set(op.path, { op: 'test', path: op.path, value: at(view.opening, op.path) });
	}
	return [...tests.values()];
}
