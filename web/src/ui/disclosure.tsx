import type { ReactNode } from 'react';

/** Disclosure hides what is seldom needed, under a line that opens it. field names the line for keys and tests. */
export function Disclosure({
	title,
	field,
	open,
	className,
	children,
}: {
	title: ReactNode;
	field?: string;
	open?: boolean;
	className?: string;
	children: ReactNode;
}) {
	return (
		<details className={className} open={open}>
			<summary className="min-h-11 flex items-center cursor-pointer underline" data-field={field}>
				{title}
			</summary>
			{children}
		</details>
	);
}
