import { expect, test } from 'vitest';
import { bars } from './year';

test('the widest month fills four fifths, the others their share, none less than a hair', () => {
	expect(bars([2, 4, 1, 0, -1], 100)).toEqual([40, 80, 20, 1, 1]);
	expect(bars([0, 0], 50)).toEqual([1, 1]);
});
