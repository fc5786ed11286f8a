import { useState } from 'react';

/** useAttempt runs an action that may fail, and keeps the sentence to show when it did. */
export function useAttempt(): [said: string, attempt: (what: () => Promise<unknown>) => Promise<boolean>] {
	const [said, setSaid] = useState('');
	const attempt = async (what: () => Promise<unknown>) => {
		try {
			await what();
			setSaid('');
			return true;
		} catch (e) {
			setSaid((e as Error).message);
			return false;
		}
	};
	return [said, attempt];
}

/** Said shows that sentence, where there is one. */
export function Said({ error, className = '' }: { error: string; className?: string }) {
	if (!error) return null;
	return (
		<p role="alert" className={`text-error font-semibold ${className}`}>
			{error}
		</p>
	);
}
