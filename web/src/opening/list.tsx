import { useId } from 'react';
import { useAttempt } from '../api/attempt';
import { say } from '../words/texts';
import { useDoor } from './state';

/** useList keeps a list of the opening whole. */
export function useList(path: string) {
	const { save } = useDoor();
	const [error, attempt] = useAttempt();
	const put = (value: unknown[], label: string) =>
		attempt(async () => {
			await save([{ op: 'add', path, value }], label);
		});
	return { error, put };
}

/** TakeOut takes one of a list out. */
export function TakeOut<T>({
	list,
	at,
	put,
	label,
}: {
	list: T[];
	at: number;
	put: (value: T[], label: string) => unknown;
	label: string;
}) {
	return (
		<button
			type="button"
			className="btn btn-ghost"
			onClick={() =>
				put(
					list.filter((_, k) => k !== at),
					say('page.took-out-label', { label }),
				)
			}
		>
			{say('page.take-out')}
		</button>
	);
}

/** Entry is one value typed into something that is added whole. */
export function Entry(p: {
	label: string;
	value: string;
	set: (v: string) => void;
	field: string;
	number?: boolean;
	/** What is often typed there. */
	often?: string[];
}) {
	const list = useId();
	return (
		<label className="grow basis-24">
			<span className="block mb-1">{p.label}</span>
			<input
				data-tape
				data-field={p.field}
				inputMode={p.number ? 'numeric' : undefined}
				className="input w-full text-xl dim"
				value={p.value}
				onChange={(e) => p.set(e.target.value)}
				list={p.often && list}
			/>
			{p.often && (
				<datalist id={list}>
					{p.often.map((o) => (
						<option key={o} value={o} />
					))}
				</datalist>
			)}
		</label>
	);
}
