import { Fragment, type ReactNode } from 'react';
import { parts, type TextId } from './texts';

/** Phrase is a text with elements among its arguments. */
export function Phrase({ id, of }: { id: TextId; of: Record<string, ReactNode> }) {
	return parts(id).map((p, i) => (
		// biome-ignore lint/suspicious/noArrayIndexKey: the parts of a text stay in their places
		<Fragment key={i}>{i % 2 ? of[p] : p}</Fragment>
	));
}
