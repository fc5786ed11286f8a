import type { Locale } from './locale';

/**
 * catalogue loads the tables and the texts of a locale: shipped with the page, so that no failure hides a caution, one
 * locale at a time.
 */
export const catalogue: Record<Locale, () => Promise<{ default: unknown }[]>> = {
	'en-GB': () => Promise.all([import('./trade.en-GB.gen.json'), import('./texts.en-GB.gen.json')]),
	'en-US': () => Promise.all([import('./trade.en-US.gen.json'), import('./texts.en-US.gen.json')]),
};
