import { useDoor } from '../door-state';
import { LengthField } from '../field';
import { Row, Why } from '../length';

/** SlabStep says what size of slab the opening takes, and takes the size of the one there is. */
export function SlabStep() {
	const { view } = useDoor();
	const wanted = view.plan.slab;
	return (
		<>
			{wanted ? (
				<section className="mb-5">
					<h2 className="text-lg">The finished slab</h2>
					<Row label="Width" note="at its widest; buy this or more">
						<Why figure={wanted.width} title="Finished width" id="finished-width" />
					</Row>
					<Row label="Length" note="at its longest; buy this or more">
						<Why figure={wanted.length} title="Finished length" id="finished-length" />
					</Row>
				</section>
			) : (
				<p className="mb-4">Read a width and a height first: then the size to buy stands here.</p>
			)}
			<section className="grid gap-3">
				<h2 className="text-lg">The slab on the trestles, uncut</h2>
				<LengthField pointer="/slab/width" label="Width, at its narrowest" />
				<LengthField pointer="/slab/length" label="Length, at its shortest" />
				<LengthField pointer="/slab/thickness" label="Thickness" />
			</section>
		</>
	);
}
