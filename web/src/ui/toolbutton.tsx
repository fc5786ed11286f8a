import type { ButtonHTMLAttributes } from 'react';

/** ToolButton is a button of a bar or of a row's end: no frame, an icon or a word, large enough for a thumb. */
export function ToolButton(button: ButtonHTMLAttributes<HTMLButtonElement>) {
	return <button type="button" className="btn btn-ghost px-2" {...button} />;
}
