/** The locales of the program. */
export type Locale = 'en-GB' | 'en-US';

const listeners = new Set<() => void>();
const keptAs = (job: string) => `words:${job}`;
const isLocale = (l: string | null): l is Locale => l === 'en-GB' || l === 'en-US';

/** subscribe calls f when a page's locale may have changed; it returns the unsubscribe function. */
export function subscribe(f: () => void) {
	listeners.add(f);
	return () => listeners.delete(f);
}

/** deviceLocale is the locale of pages without a job: the one chosen here, otherwise the browser's first English. */
export function deviceLocale(): Locale {
	const chosen = chosenLocale();
	if (chosen) return chosen;
	const read = navigator.languages.find((l) => l.startsWith('en'));
	return read === 'en-US' ? 'en-US' : 'en-GB';
}

/** chosenLocale is the locale chosen on this client; empty for none. */
export function chosenLocale(): Locale | '' {
	const chosen = localStorage.getItem('words');
	return isLocale(chosen) ? chosen : '';
}

/** chooseLocale sets this client's locale; empty leaves it to the browser. */
export function chooseLocale(l: Locale | '') {
	if (l) localStorage.setItem('words', l);
	else localStorage.removeItem('words');
	for (const f of listeners) f();
}

/** keepJobLocale keeps a job's locale, so that its pages open in it. */
export function keepJobLocale(head: { id: string; unit: string; language: string }) {
	const l = head.language || (head.unit === 'in' ? 'en-US' : 'en-GB');
	if (localStorage.getItem(keptAs(head.id)) === l) return;
	localStorage.setItem(keptAs(head.id), l);
	for (const f of listeners) f();
}

/** localeOf is the locale of a page: its job's, otherwise the client's. */
export function localeOf(path: string): Locale {
	const [, page, job] = path.split('/');
	const kept = job && page !== 'practice' ? localStorage.getItem(keptAs(job)) : null;
	return isLocale(kept) ? kept : deviceLocale();
}
