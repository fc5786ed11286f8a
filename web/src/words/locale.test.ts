// @vitest-environment jsdom
import { beforeEach, describe, expect, test, vi } from 'vitest';
import { chooseLocale, deviceLocale, keepJobLocale, localeOf, subscribe } from './locale';

const reads = (...languages: string[]) => vi.spyOn(navigator, 'languages', 'get').mockReturnValue(languages);

beforeEach(() => {
	localStorage.clear();
	vi.restoreAllMocks();
	vi.resetModules();
});

describe('the locale of a client', () => {
	test('is the first English that its browser reads, and American only where that is said', () => {
		reads('de-DE', 'en-US', 'en-GB');
		expect(deviceLocale()).toBe('en-US');
		reads('en-AU', 'en-US');
		expect(deviceLocale()).toBe('en-GB');
		reads('de-DE');
		expect(deviceLocale()).toBe('en-GB');
	});
	test('is the one that was chosen, until it is left to the browser again', () => {
		reads('en-GB');
		chooseLocale('en-US');
		expect(deviceLocale()).toBe('en-US');
		chooseLocale('');
		expect(deviceLocale()).toBe('en-GB');
	});
});

describe('the locale of a page', () => {
	test('is that of its job, by its unit where none was chosen for it', () => {
		reads('en-GB');
		keepJobLocale({ id: 'a', unit: 'in', language: '' });
		keepJobLocale({ id: 'b', unit: 'in', language: 'en-GB' });
		expect(localeOf('/j/a/door/cut')).toBe('en-US');
		expect(localeOf('/cards/b/door')).toBe('en-GB');
		expect(localeOf('/j/never-seen')).toBe('en-GB');
		expect(localeOf('/practice/a')).toBe('en-GB');
		expect(localeOf('/j/%E0%A4%A')).toBe('en-GB');
	});
	test('is told once when it changes', () => {
		const told = vi.fn();
		const end = subscribe(told);
		keepJobLocale({ id: 'a', unit: 'in', language: '' });
		keepJobLocale({ id: 'a', unit: 'in', language: '' });
		expect(told).toHaveBeenCalledTimes(1);
		end();
		keepJobLocale({ id: 'a', unit: 'mm', language: '' });
		expect(told).toHaveBeenCalledTimes(1);
	});
});

describe('the tables of a locale', () => {
	test('are those of the other one where they cannot be had, so that the page still opens', async () => {
		reads('en-US');
		vi.doMock('./trade.en-US.gen.json', () => {
			throw new Error('no signal');
		});
		const { locale, stepName } = await import('./trade');
		expect(locale).toBe('en-GB');
		expect(stepName('cut')).toBe('Cut');
		vi.doUnmock('./trade.en-US.gen.json');
	});
	test('of the one asked for last stay', async () => {
		reads('en-GB');
		const t = await import('./trade');
		await Promise.all([t.loadLocale('en-US'), t.loadLocale('en-GB')]);
		expect(t.locale).toBe('en-GB');
		await t.loadLocale('en-US');
		expect(t.locale).toBe('en-US');
		expect(document.documentElement.lang).toBe('en-US');
	});
});
