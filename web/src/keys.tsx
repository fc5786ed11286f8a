import { useEffect, useState } from 'react';
import { Sheet } from './sheet';

type Page = 'jobs' | 'walk' | 'door';

/** What each key does, and on which pages; single keys can be switched off. */
const table: { keys: string; what: string; pages: Page[]; single?: boolean }[] = [
	{ keys: 'Enter', what: 'take the entry and go on to the next', pages: ['door'] },
	{ keys: 'Tab / Shift Tab', what: 'next or previous place', pages: ['jobs', 'walk', 'door'] },
	{ keys: 'Esc', what: 'leave the entry or the button, so that single keys work', pages: ['door'] },
	{ keys: 'Ctrl Z', what: 'undo, also out of an entry that is saved', pages: ['door'] },
	{ keys: 'Ctrl Y', what: 'redo', pages: ['door'] },
	{ keys: 'Alt R', what: 'where readings clash: read it again', pages: ['door'] },
	{ keys: 'Alt X', what: 'where readings clash: strike it out', pages: ['door'] },
	{ keys: '1 to 6', what: 'to a step of the rod, in order', pages: ['door'], single: true },
	{ keys: 'n', what: 'to the next reading or the first entry', pages: ['walk', 'door'], single: true },
	{ keys: 'w', what: 'back to the walk', pages: ['door'], single: true },
	{ keys: 'm', what: 'figures in mm or in inches', pages: ['walk', 'door'], single: true },
	{ keys: '?', what: 'this sheet', pages: ['jobs', 'walk', 'door'], single: true },
];

const off = 'single keys off';

/** single gives the single key that was pressed, where it is for the page and not for what has the focus. */
export function single(e: KeyboardEvent): string {
	if (e.ctrlKey || e.metaKey || e.altKey || localStorage.getItem(off)) return '';
	const el = e.target as HTMLElement;
	if (document.querySelector('dialog[open]')) return '';
	// On a button or in an entry a letter is its own; on the page itself, on the rod and on a tick it is ours.
	const tick = el instanceof HTMLInputElement && (el.type === 'radio' || el.type === 'checkbox');
	return el === document.body || el.dataset.home !== undefined || tick || el.closest('[data-rod]')
		? e.key
		: '';
}

/** useKeys listens for as long as the component stands. */
export function useKeys(down: (e: KeyboardEvent) => void) {
	useEffect(() => {
		addEventListener('keydown', down);
		return () => removeEventListener('keydown', down);
	});
}

/** KeySheet is the button for the sheet that lists the page's keys. */
export function KeySheet({ page }: { page: Page }) {
	const [open, setOpen] = useState(false);
	const [silent, setSilent] = useState(() => !!localStorage.getItem(off));
	useKeys((e) => {
		if (single(e) === '?') setOpen(true);
		if (e.key === 'Escape' && !document.querySelector('dialog[open]'))
			document.querySelector<HTMLElement>('[data-home]')?.focus({ preventScroll: true });
	});
	return (
		<>
			<button
				type="button"
				className="btn btn-ghost px-3 max-sm:hidden"
				data-keys
				onClick={() => setOpen(true)}
			>
				?<span className="sr-only"> Keys</span>
			</button>
			{open && (
				<Sheet label="Keys" close={() => setOpen(false)}>
					<h3 className="text-xl mb-3">Keys</h3>
					<dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
						{table
							.filter((k) => k.pages.includes(page) && !(silent && k.single))
							.map((k) => (
								<div key={k.keys} className="contents">
									<dt className="font-bold whitespace-nowrap">{k.keys}</dt>
									<dd>{k.what}</dd>
								</div>
							))}
					</dl>
					<label className="flex items-center gap-3 min-h-11 mt-3">
						<input
							type="checkbox"
							className="checkbox"
							data-field="single-keys"
							checked={!silent}
							onChange={(e) => {
								if (e.target.checked) localStorage.removeItem(off);
								else localStorage.setItem(off, 'yes');
								setSilent(!e.target.checked);
							}}
						/>
						Single keys, where nothing is being typed and no button has the focus
					</label>
					<h3 className="text-lg mt-4 mb-1">Lengths, as you write them</h3>
					<p>778 · 777,5 · 77.8 cm · 30 5/8 · 30-5/8" · 2' 6 5/8" · -1/16</p>
				</Sheet>
			)}
		</>
	);
}
