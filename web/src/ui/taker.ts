import { type RefObject, useEffect, useRef } from 'react';
import { flushSync } from 'react-dom';
import { hold, register, type Taker } from '../api/instrument';

/**
 * useTaker lets an entry accept an instrument's length: it is typed there, and ended with Enter where that has a
 * meaning. The returned function is called on focus.
 */
export function useTaker(
	input: RefObject<HTMLInputElement | null>,
	entry: { value: string; type: (text: string) => void; enter?: (text: string) => void; next?: boolean },
) {
	const now = useRef(entry);
	now.current = entry;
	const taker = useRef<Taker>(null);
	useEffect(() => {
		const t: Taker = {
			typed: () => now.current.value,
			take: (text) => {
				input.current?.focus();
				flushSync(() => now.current.type(text));
				now.current.enter?.(text);
			},
			next: now.current.next,
		};
		taker.current = t;
		return register(t);
	}, [input]);
	return () => taker.current && hold(taker.current);
}
