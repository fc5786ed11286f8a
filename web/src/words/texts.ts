import i18next from 'i18next';
import type { Locale } from './locale';
import type british from './texts.en-GB.gen.json';

type Plain<K> = K extends `${infer id}_one` | `${infer id}_other` ? id : K;

/** The ID of a text of the page, in `words/page` of the catalogue. */
export type TextId = Plain<keyof typeof british>;

/** A text's arguments; `count` chooses between singular and plural. */
export type Args = Record<string, string | number | undefined>;

i18next.init({
	fallbackLng: 'en-GB',
	showSupportNotice: false, // nothing but what goes wrong stands in the console
	keySeparator: false,
	nsSeparator: false,
	resources: {},
	// As the catalogue writes them. React escapes what it shows.
	interpolation: { prefix: '{{.', suffix: '}}', escapeValue: false },
});

// A cache of texts without arguments: a page renders some hundred of them each time.
const said = new Map<TextId, string>();

/** readTexts loads the texts of a locale. */
export function readTexts(l: Locale, texts: Record<string, string>) {
	said.clear();
	i18next.addResourceBundle(l, 'translation', texts);
	i18next.changeLanguage(l);
}

/** say is a text of the page. */
export function say(id: TextId, args?: Args): string {
	if (args) return i18next.t(id, args);
	let text = said.get(id);
	if (text === undefined) {
		text = i18next.t(id);
		said.set(id, text);
	}
	return text;
}

/** parts are the pieces of a text, and at every odd index the name of the argument between them. */
export function parts(id: TextId, count?: number): string[] {
	return i18next.t(id, { skipInterpolation: true, count }).split(/\{\{\.(\w+)\}\}/);
}

/** capital capitalises the first letter. */
export function capital(text: string) {
	return text.charAt(0).toUpperCase() + text.slice(1);
}

/** list joins names: "Ada, Bo and Cy". */
export function list(names: string[]) {
	if (names.length < 2) return names.join();
	return say('page.list-and', { before: names.slice(0, -1).join(', '), last: names.at(-1) });
}
