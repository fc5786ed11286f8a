/** The two Englishes that the program speaks. */
export type Locale = 'en-GB' | 'en-US';

const listeners = new Set<() => void>();
const keptAs = (job: string) => `words:${job}`;
const isLocale = (l: string | null): l is Locale => l === 'en-GB' || l === 'en-US';

/** subscribe calls f when the locale of a page may have changed; it returns what ends that. */
export function subscribe(f: () => void) {
	listeners.add(f);
	return () => listeners.delete(f);
}

/** deviceLocale is that of pages without a job: the one chosen here, else the first English that the browser reads. */
export function deviceLocale(): Locale {
	const chosen = chosenLocale();
	if (chosen) return chosen;
	const read = navigator.languages.find((l) => l.startsWith('en'));
	return read === 'en-US' ? 'en-US' : 'en-GB';
}

/** chosenLocale is the one that was chosen on this client; empty where none was. */
export function chosenLocale(): Locale | '' {
	const chosen = localStorage.getItem('words');
	return isLocale(chosen) ? chosen : '';
}

/** chooseLocale sets the locale of this client; empty leaves it to the browser. */
export function chooseLocale(l: Locale | '') {
	if (l) localStorage.setItem('words', l);
	else localStorage.removeItem('words');
	for (const f of listeners) f();
}

/** keepJobLocale keeps the locale of a job, so that its pages open in it. */
export function keepJobLocale(head: { id: string; unit: string; language: string }) {
	const l = head.language || (head.unit === 'in' ? 'en-US' : 'en-GB');
	if (localStorage.getItem(keptAs(head.id)) === l) return;
	localStorage.setItem(keptAs(head.id), l);
	for (const f of listeners) f();
}

/** localeOf is the locale of a page: that of its job, else that of the client. */
export function localeOf(path: string): Locale {
	const [, page, job] = path.split('/');
	const kept = job && page !== 'practice' ? localStorage.getItem(keptAs(job)) : null;
	return isLocale(kept) ? kept : deviceLocale();
}
