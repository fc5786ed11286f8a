import { useLayoutEffect, useState } from 'react';
import { say, type TextId } from '../words/texts';
import { Checkbox } from './checkbox';
import { Dialog } from './dialog';

type Page = 'jobs' | 'walk' | 'opening';

type Shortcut = {
	keys: string;
	what: TextId;
	/** The pages that list it. */
	pages: Page[];
	/** The keys, where the page listens for them; what an entry or a button does by itself has none. */
	press?: string[];
	/** A single key that writes a letter: these can be switched off. */
	single?: boolean;
};

/** The table of shortcuts: the dialog lists them and useShortcuts listens for them. */
const table = {
	enter: { keys: 'Enter', what: 'keys.enter', pages: ['opening'] },
	tab: { keys: 'Tab / Shift Tab', what: 'keys.tab', pages: ['jobs', 'walk', 'opening'] },
	leave: {
		keys: 'Esc',
		what: 'keys.leave',
		pages: ['opening'],
		press: ['escape'],
	},
	undo: {
		keys: 'Ctrl Z',
		what: 'keys.undo',
		pages: ['opening'],
		press: ['ctrl z'],
	},
	redo: { keys: 'Ctrl Y', what: 'keys.redo', pages: ['opening'], press: ['ctrl y', 'ctrl shift z'] },
	again: { keys: 'Alt R', what: 'keys.again', pages: ['opening'], press: ['alt r'] },
	strike: { keys: 'Alt X', what: 'keys.strike', pages: ['opening'], press: ['alt x'] },
	step: {
		keys: '1 to 9, 0',
		what: 'keys.step',
		pages: ['opening'],
		press: ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0'],
		single: true,
	},
	entry: {
		keys: 'n',
		what: 'keys.entry',
		pages: ['walk', 'opening'],
		press: ['n'],
		single: true,
	},
	walk: { keys: 'w', what: 'keys.walk', pages: ['opening'], press: ['w'], single: true },
	find: { keys: '/', what: 'keys.find', pages: ['walk'], press: ['/'], single: true },
	earlier: {
		keys: 'Alt ↑',
		what: 'keys.earlier',
		pages: ['walk'],
		press: ['alt arrowup'],
	},
	later: {
		keys: 'Alt ↓',
		what: 'keys.later',
		pages: ['walk'],
		press: ['alt arrowdown'],
	},
	unit: {
		keys: 'm',
		what: 'keys.unit',
		pages: ['walk', 'opening'],
		press: ['m'],
		single: true,
	},
	next: {
		keys: 'Space / →',
		what: 'keys.next',
		pages: ['opening'],
		press: ['space', 'arrowright'],
	},
	back: { keys: '←', what: 'keys.back', pages: ['opening'], press: ['arrowleft'] },
	tick: { keys: 'Enter', what: 'keys.tick', pages: ['opening'], press: ['enter'] },
	list: { keys: '?', what: 'keys.list', pages: ['jobs', 'walk', 'opening'], press: ['?'], single: true },
} satisfies Record<string, Shortcut>;

const shortcuts: [string, Shortcut][] = Object.entries(table);

const off = 'single keys off';

/**
 * pressed names a key press as the table does. Alt makes other letters on some keyboards, so there the physical key
 * counts.
 */
function pressed(e: KeyboardEvent): string {
	const key = e.altKey ? e.code.replace(/^Key/, '') : e.key === ' ' ? 'space' : e.key;
	const held = `${e.ctrlKey || e.metaKey ? 'ctrl ' : ''}${e.altKey ? 'alt ' : ''}`;
	// Shift is part of a letter or a sign, and counts beside another key.
	return `${held}${held && e.shiftKey ? 'shift ' : ''}${key}`.toLowerCase();
}

/** forPage reports whether a single key is for the page and not for the focused element. */
function forPage(e: KeyboardEvent): boolean {
	if (localStorage.getItem(off) || document.querySelector('dialog[open]')) return false;
	const el = e.target as HTMLElement;
	// In a button or an entry a letter is its own; on the page, the strip and a tick it is the page's.
	const tick = el instanceof HTMLInputElement && (el.type === 'radio' || el.type === 'checkbox');
	return el === document.body || el.dataset.home !== undefined || tick || !!el.closest('[data-rod]');
}

/**
 * useShortcuts handles the shortcuts while the component is mounted; a handler that returns false leaves the key to the
 * browser.
 */
export function useShortcuts(does: Partial<Record<keyof typeof table, (e: KeyboardEvent) => unknown>>) {
	// With what is drawn: a key that follows a card at once is for that card.
	useLayoutEffect(() => {
		const down = (e: KeyboardEvent) => {
			const name = pressed(e);
			for (const [id, s] of shortcuts) {
				const act = does[id as keyof typeof table];
				if (!act || !s.press?.includes(name) || (s.single && !forPage(e))) continue;
				if (act(e) !== false) e.preventDefault();
			}
		};
		addEventListener('keydown', down);
		return () => removeEventListener('keydown', down);
	});
}

/** KeysDialog is the button and the dialog that list the page's keys. */
export function KeysDialog({ page }: { page: Page }) {
	const [open, setOpen] = useState(false);
	const [silent, setSilent] = useState(() => !!localStorage.getItem(off));
	useShortcuts({
		list: () => setOpen(true),
		leave: () => {
			if (document.querySelector('dialog[open]')) return false;
			document.querySelector<HTMLElement>('[data-home]')?.focus({ preventScroll: true });
			return false;
		},
	});
	return (
		<>
			<button
				type="button"
				className="btn btn-ghost px-3 max-sm:hidden"
				data-keys
				onClick={() => setOpen(true)}
			>
				?<span className="sr-only"> {say('keys.keys')}</span>
			</button>
			{open && (
				<Dialog label={say('keys.keys')} close={() => setOpen(false)}>
					<h3 className="text-xl mb-3">{say('keys.keys')}</h3>
					<dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
						{shortcuts
							.filter(([, k]) => k.pages.includes(page) && !(silent && k.single))
							.map(([id, k]) => (
								<div key={id} className="contents">
									<dt className="font-bold whitespace-nowrap">{k.keys}</dt>
									<dd>{say(k.what)}</dd>
								</div>
							))}
					</dl>
					<Checkbox
						className="items-center mt-3"
						data-field="single-keys"
						checked={!silent}
						onChange={(e) => {
							if (e.target.checked) localStorage.removeItem(off);
							else localStorage.setItem(off, 'yes');
							setSilent(!e.target.checked);
						}}
					>
						{say('keys.use-single-keys-when-nothing')}
					</Checkbox>
					<div className="grid sm:grid-cols-2 gap-4 mt-3 text-[0.95rem]">
						<section>
							<h3 className="text-lg">±</h3>
							<p>{say('keys.the-truth-lies-within-19')}</p>
						</section>
						<section>
							<h3 className="text-lg">{say('keys.how-lengths-can-be-typed')}</h3>
							<p>{say('keys.lengths-examples')}</p>
						</section>
					</div>
				</Dialog>
			)}
		</>
	);
}
