import { useEffect, useRef, useState } from 'react';
import type { Op, Trouble } from '../api/client';
import { say } from '../words/texts';
import { useOpening } from './state';

/** useDraft is a draft: what is typed and not saved; it outlives a reload. An empty one is removed. */
export function useDraft(name: string, kept: string) {
	const { view } = useOpening();
	const key = `draft ${view.job.id} ${view.opening.id} ${name}`;
	const [text, setText] = useState(() => sessionStorage.getItem(key) ?? kept);
	const remember = (draft?: string) =>
		draft === undefined ? sessionStorage.removeItem(key) : sessionStorage.setItem(key, draft);
	return { text, setText, remember };
}

/** typed is a length as typed, a bare number in the job's unit; empty is 0. */
export const typed = (text: string, unit: string) =>
	(text.trim() === '' ? 0 : /[a-z"']/i.test(text) ? text : `${text} ${unit}`) as number;

/** saidOf is why a value was refused, in the words for its own field where there are any. */
export function saidOf(e: unknown, mine: (pointer: string) => boolean): string {
	const t = e as Trouble;
	return (t.fields?.find((f) => mine(f.pointer)) ?? t.fields?.[0])?.message ?? t.message;
}

/**
 * useKept keeps one length of the opening at a JSON pointer: what is typed is a draft until it is saved, and a refused
 * one stays. gone is what an emptied entry means: its removal, or a value.
 */
export function useKept(pointer: string, label: string, gone?: 'remove' | number) {
	const { view, save } = useOpening();
	const kept = view.texts[pointer] ?? '';
	const last = useRef(kept);
	const { text, setText, remember } = useDraft(pointer, kept);
	const [error, setError] = useState('');
	const [waits, setWaits] = useState('');
	// The value was changed elsewhere while this one was typed.
	const [clash, setClash] = useState(false);
	// The value when typing began.
	const base = useRef<string | null>(null);
	const clashes = () => {
		setClash(true);
		setError(say('page.another-hand', { value: kept || say('page.nothing') }));
	};
	useEffect(() => {
		// A value from elsewhere is shown unless there is a draft.
		const before = last.current;
		if (before === kept) return;
		last.current = kept;
		if (text === before) setText(kept);
		else if (text !== kept && base.current !== null && base.current !== kept) clashes();
		if (text === kept) {
			// A queued change was sent.
			remember();
			setError('');
			setWaits('');
		}
	});
	const type = (t: string) => {
		if (t === last.current) base.current = null;
		else base.current ??= last.current;
		setText(t);
		remember(t === last.current ? undefined : t);
		setError('');
		setWaits('');
		setClash(false);
	};
	/** Resolves to whether it is saved. */
	const keep = async (typed: string, anyway = false) => {
		const bare = typed.trim();
		// Enter saves and moves on, and blur saves too: the second finds it done.
		if (bare === last.current) {
			type(last.current);
			return true;
		}
		if (!anyway && base.current !== null && base.current !== last.current) {
			clashes();
			return false;
		}
		base.current = last.current;
		// In a list the item is replaced: adding would insert another before it.
		const set = /\/\d+$/.test(pointer) ? 'replace' : 'add';
		let op: Op = { op: set, path: pointer, value: typed };
		if (bare === '' && gone === 'remove') op = { op: 'remove', path: pointer };
		else if (bare === '' && gone !== undefined) op = { op: set, path: pointer, value: gone };
		try {
			const next = await save([op], `${label} ${typed}`.trim());
			last.current = next.texts[pointer] ?? '';
			type(last.current);
			return true;
		} catch (e) {
			const said = saidOf(e, (p) => p === pointer);
			setClash((e as Trouble).status === 412);
			if ((e as Trouble).status === 0) setWaits(said);
			else setError(said);
			return false;
		}
	};
	const settle = { theirs: kept, mine: text, keep: () => keep(text, true), leave: () => type(kept) };
	return {
		text,
		type,
		keep,
		error,
		waits,
		dirty: text !== kept,
		clash: clash && text !== kept ? settle : undefined,
	};
}
