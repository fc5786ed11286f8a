/** The two Englishes that the program speaks. */
export type English = 'en-GB' | 'en-US';

const ears = new Set<() => void>();
const keptAs = (job: string) => `words:${job}`;
const isEnglish = (e: string | null): e is English => e === 'en-GB' || e === 'en-US';

/** hear calls f when a page's words may be others; it gives back what stops that. */
export function hear(f: () => void) {
	ears.add(f);
	return () => ears.delete(f);
}

/** deviceEnglish is that of pages without a job: the one chosen here, else the first that the browser reads. */
export function deviceEnglish(): English {
	const chosen = chosenEnglish();
	if (chosen) return chosen;
	const read = navigator.languages.find((l) => l.startsWith('en'));
	return read === 'en-US' ? 'en-US' : 'en-GB';
}

/** chosenEnglish is the one that was chosen on this device; empty where none was. */
export function chosenEnglish(): English | '' {
	const chosen = localStorage.getItem('words');
	return isEnglish(chosen) ? chosen : '';
}

/** chooseEnglish makes one that of this device; empty leaves it to the browser. */
export function chooseEnglish(e: English | '') {
	if (e) localStorage.setItem('words', e);
	else localStorage.removeItem('words');
	for (const f of ears) f();
}

/** jobEnglish keeps what a job speaks, so that its pages open in it. */
export function jobEnglish(head: { id: string; unit: string; language: string }) {
	const e = head.language || (head.unit === 'in' ? 'en-US' : 'en-GB');
	if (localStorage.getItem(keptAs(head.id)) === e) return;
	localStorage.setItem(keptAs(head.id), e);
	for (const f of ears) f();
}

/** wordsOf is the English of a page: that of its job, else that of the device. */
export function wordsOf(path: string): English {
	const [, page, job] = path.split('/');
	const kept = job && page !== 'practice' ? localStorage.getItem(keptAs(decodeURIComponent(job))) : null;
	return isEnglish(kept) ? kept : deviceEnglish();
}
