import { type ReactNode, useEffect, useRef } from 'react';
import { say } from '../words/texts';

/** Dialog lies over the page until it is closed: by its button, Esc, or a tap beside it. */
export function Dialog({
	label,
	close,
	children,
}: {
	label: string;
	close: () => void;
	children: ReactNode;
}) {
	const dialog = useRef<HTMLDialogElement>(null);
	useEffect(() => dialog.current?.showModal(), []);
	return (
		<dialog ref={dialog} className="modal modal-bottom sm:modal-middle" aria-label={label} onClose={close}>
			<div className="modal-box text-left text-base font-normal">
				{children}
				<form method="dialog" className="mt-4">
					<button type="submit" className="btn btn-primary w-full">
						{say('page.close')}
					</button>
				</form>
			</div>
			<form method="dialog" className="modal-backdrop">
				<button type="submit">{say('page.close')}</button>
			</form>
		</dialog>
	);
}
