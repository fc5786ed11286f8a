// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ended, forgetTyped, heard, lastHeard, letIn, putOut, since, typedHere } from './access';

beforeEach(() => {
	localStorage.clear();
	sessionStorage.clear();
	history.replaceState(null, '', '/pair'); // jsdom leads nowhere else
});

describe('a client that was put out', () => {
	it('stays out until it is let in, and forgets what it has seen', () => {
		const gone: string[] = [];
		vi.stubGlobal('caches', { delete: (name: string) => gone.push(name) });
		expect(ended()).toBe(false);
		putOut();
		expect(ended()).toBe(true);
		expect(gone).toEqual(['jobs']);
		letIn();
		expect(ended()).toBe(false);
		vi.unstubAllGlobals();
	});
	it('keeps what was typed until a hand deletes it', () => {
		localStorage.setItem('queue', JSON.stringify([{ key: 'a' }, { key: 'b' }]));
		sessionStorage.setItem('draft house hall /slab/width', '8');
		sessionStorage.setItem('walk house', '{}');
		putOut();
		expect(typedHere()).toBe(3);
		forgetTyped();
		expect(typedHere()).toBe(0);
		expect(sessionStorage.getItem('walk house')).toBe('{}');
	});
	it('counts nothing where what is kept cannot be read', () => {
		localStorage.setItem('queue', '[');
		expect(typedHere()).toBe(0);
	});
});

describe('when the server was there last', () => {
	it('is not known until it was', () => {
		expect(lastHeard()).toBeNull();
		const now = new Date(2026, 10, 30, 14, 30);
		vi.useFakeTimers({ now });
		heard();
		vi.useRealTimers();
		expect(lastHeard()).toEqual(now);
	});
	it('is the time today, and the day too before that', () => {
		const now = new Date(2026, 10, 30, 14, 30);
		expect(since(new Date(2026, 10, 30, 14, 5), now)).toMatch(/05/);
		expect(since(new Date(2026, 10, 30, 14, 5), now)).not.toMatch(/30/);
		expect(since(new Date(2026, 10, 28, 9, 5), now)).toMatch(/28/);
	});
});
