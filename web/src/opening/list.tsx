import { type ReactNode, useId, useRef } from 'react';
import { type Labels, useAttempt } from '../api/attempt';
import { useTaker } from '../ui/taker';
import { say } from '../words/texts';
import { useOpening } from './state';

/** useList edits a list of the opening as a whole; a refusal names the entries of a new item by their labels. */
export function useList(path: string, labels?: Labels) {
	const { save } = useOpening();
	const [error, attempt] = useAttempt(labels);
	const put = (value: unknown[], label: string) =>
		attempt(async () => {
			await save([{ op: 'add', path, value }], label);
		});
	return { error, put };
}

/** TakeOut is the button that removes an item of a list. */
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

/** AddForm adds an item to a list: its entries are saved together, by a button or Enter. */
export function AddForm({
	field,
	add,
	children,
}: {
	field: string;
	add: () => Promise<void>;
	children: ReactNode;
}) {
	return (
		<form
			className="flex items-end gap-2 flex-wrap"
			onSubmit={(e) => {
				e.preventDefault();
				add();
			}}
		>
			{children}
			<button type="submit" className="btn" data-field={field}>
				{say('page.add')}
			</button>
		</form>
	);
}

/** Entry is one entry of an item that is added whole. */
export function Entry(p: {
	label: string;
	value: string;
	set: (v: string) => void;
	field: string;
	number?: boolean;
	/** Common values. */
	often?: string[];
}) {
	const list = useId();
	const input = useRef<HTMLInputElement>(null);
	const held = useTaker(input, { value: p.value, type: p.set });
	return (
		<label className="grow basis-24">
			<span className="block mb-1">{p.label}</span>
			<input
				ref={input}
				data-tape
				onFocus={held}
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

/** Either is a choice of two for a new item, as radio buttons. */
export function Either({
	name,
	legend,
	choices,
	value,
	set,
}: {
	name: string;
	legend: string;
	choices: [value: boolean, text: string][];
	value: boolean;
	set: (value: boolean) => void;
}) {
	return (
		<fieldset className="flex gap-4 basis-full">
			<legend className="sr-only">{legend}</legend>
			{choices.map(([v, text]) => (
				<label key={text} className="flex items-center gap-2 min-h-11">
					<input
						type="radio"
						name={name}
						className="radio radio-primary"
						checked={value === v}
						onChange={() => set(v)}
					/>
					{text}
				</label>
			))}
		</fieldset>
	);
}
