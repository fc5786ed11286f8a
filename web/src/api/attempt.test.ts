// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { named } from './attempt';
import { Trouble } from './client';

const empty = 'Type a length, such as 777.5.';

test('a refused form says which of its entries are empty', () => {
	const refused = new Trouble(empty, 422, [
		{ pointer: '/offers/0/length', message: empty },
		{ pointer: '/offers/0/width', message: empty },
	]);
	expect(named(refused, { width: 'Width', length: 'Length' })).toBe(
		'Width: Type a length, such as 777.5. Length: Type a length, such as 777.5.',
	);
});

test('what is no entry of the form, or of no form, speaks for itself', () => {
	const clash = new Trouble('They overlap.', 422, [
		{ pointer: '/hinges/places/1', message: 'They overlap.' },
	]);
	expect(named(clash, { at: 'Down to it' })).toBe('They overlap.');
	expect(named(new Error('No signal.'))).toBe('No signal.');
});
