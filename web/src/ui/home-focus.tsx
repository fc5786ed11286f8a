import { useEffect, useRef } from 'react';

/**
 * useHomeFocus moves the focus to the page's heading when its element is gone: a step was left, a reading taken or
 * removed, a change undone. The heading is announced, and Tab goes on from there.
 */
export function useHomeFocus(key: string) {
	const first = useRef(true);
	// biome-ignore lint/correctness/useExhaustiveDependencies: it runs after each change
	useEffect(() => {
		if (first.current) {
			first.current = false;
			return;
		}
		const frame = requestAnimationFrame(() => {
			if (document.activeElement === document.body)
				document.querySelector<HTMLElement>('[data-home]')?.focus({ preventScroll: true });
		});
		return () => cancelAnimationFrame(frame);
	}, [key]);
}
