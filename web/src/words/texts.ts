import i18next from 'i18next';
import type { Locale } from './locale';
import type british from './texts.en-GB.gen.json';

type Plain<K> = K extends `${infer id}_one` | `${infer id}_other` ? id : K;

/** The ID of a text of the page, in `words/page` of the catalogue. */
export type TextId = Plain<keyof typeof british>;

/** What a text is said with; its `count` chooses between singular and plural. */
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

// Texts without arguments, as they were said: a page says some hundred of them each time that it is drawn.
const said = new Map<TextId, string>();

/** readTexts makes the texts of a locale those of the page. */
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

/** parts are the pieces of a text, and in every second place the name of what goes between them. */
export function parts(id: TextId, count?: number): string[] {
	return i18next.t(id, { skipInterpolation: true, count }).split(/\{\{\.(\w+)\}\}/);
}

/** capital is a text with its first letter large. */
export function capital(text: string) {
	return text.charAt(0).toUpperCase() + text.slice(1);
}

/** list joins names as they are spoken: "Ada, Bo and Cy". */
export function list(names: string[]) {
	if (names.length < 2) return names.join();
	return say('page.list-and', { before: names.slice(0, -1).join(', '), last: names.at(-1) });
}
