import { useState } from 'react';
import { say } from '../words/texts';
import { Trouble } from './client';

/** Labels are those of a form's entries, by the last part of each one's pointer. */
export type Labels = Record<string, string>;

/** named is why a form was refused: the message of each of its entries after that one's label, in their order. */
export function named(e: unknown, labels: Labels = {}): string {
	const fields = e instanceof Trouble ? e.fields : [];
	const entries = Object.entries(labels).flatMap(([name, label]) =>
		fields
			.filter(({ pointer }) => pointer.endsWith(`/${name}`))
			.map(({ message }) => say('page.label-refused', { label, message })),
	);
	return entries.join(' ') || (e as Error).message;
}

/** useAttempt runs an action that may fail, and keeps the sentence to show when it did. */
export function useAttempt(
	labels?: Labels,
): [said: string, attempt: (what: () => Promise<unknown>) => Promise<boolean>] {
	const [said, setSaid] = useState('');
	const attempt = async (what: () => Promise<unknown>) => {
		try {
			await what();
			setSaid('');
			return true;
		} catch (e) {
			setSaid(named(e, labels));
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
