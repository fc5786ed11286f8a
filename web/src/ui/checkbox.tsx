import type { InputHTMLAttributes } from 'react';

/** Checkbox is a checkbox with its label, all of it large enough for a thumb. */
export function Checkbox({
	children,
	className = 'items-center',
	large,
	...input
}: InputHTMLAttributes<HTMLInputElement> & { large?: boolean }) {
	return (
		<label className={`flex gap-3 min-h-11 cursor-pointer ${className}`}>
			<input type="checkbox" className={large ? 'checkbox checkbox-lg mt-0.5' : 'checkbox'} {...input} />
			{children}
		</label>
	);
}
