import { Len, Row } from '../../../ui/length';
import { say } from '../../../words/texts';
import { useOpening } from '../../state';

/** Sizes are those of the slab after its cut. */
export function Sizes() {
	const { leaf } = useOpening();
	const t = leaf.try;
	if (!t) return null;
	const named = (texts: string[], list: typeof t.width, of: string) =>
		list.map((l, i) => (
			<Row key={texts[i]} label={`${of}, ${texts[i]}`}>
				<span data-size={`${of} ${texts[i]}`}>
					<Len text={l.text} />
				</span>
			</Row>
		));
	return (
		<>
			{named(
				[say('try.at-the-top'), say('try.in-the-middle'), say('try.at-the-bottom')],
				t.width,
				say('page.width'),
			)}
			{named([say('try.on-the-hinge-edge'), say('try.on-the-lock-edge')], t.length, say('page.length'))}
		</>
	);
}
