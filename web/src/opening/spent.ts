import { useEffect } from 'react';
import { client } from '../api/client';

const key = 'count time';

/** counts is whether the minutes at each step are counted on this client. */
export const counts = () => localStorage.getItem(key) === 'yes';

export const setCounts = (on: boolean) =>
	on ? localStorage.setItem(key, 'yes') : localStorage.removeItem(key);

/** useSpent counts the seconds that a step is open and visible, where that was switched on. */
export function useSpent(job: string, opening: string, step: string) {
	useEffect(() => {
		let since = performance.now();
		const send = () => {
			const seconds = Math.min(Math.round((performance.now() - since) / 1000), 3600);
			since = performance.now();
			if (!counts() || seconds < 5) return;
			// Nothing waits for it: a lost count is no loss of work.
			client
				.POST('/api/jobs/{job}/openings/{opening}/time', {
					params: { path: { job, opening } },
					body: { step: step as never, seconds },
					keepalive: true,
				})
				.catch(() => undefined);
		};
		const seen = () => {
			if (document.visibilityState === 'visible') since = performance.now();
			else send();
		};
		document.addEventListener('visibilitychange', seen);
		return () => {
			document.removeEventListener('visibilitychange', seen);
			send();
		};
	}, [job, opening, step]);
}
