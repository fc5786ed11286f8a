import { Said, useAttempt } from '../../../api/attempt';
import type { Schemas } from '../../../api/client';
import { today, whoNow } from '../../../api/who';
import { Checkbox } from '../../../ui/checkbox';
import { say } from '../../../words/texts';
import { trade } from '../../../words/trade';
import { LengthField, PickField } from '../../field';
import { useOpening } from '../../state';

type Wrong = NonNullable<Schemas['Service']['wrong']>[number];

/** Service is a door that hangs already: what is wrong with it, its sizes, and then its gaps. */
export function Service() {
	const { view, leaf, save } = useOpening();
	const [error, attempt] = useAttempt();
	const wrong: Wrong[] = view.opening.service?.wrong ?? [];
	const made = leaf.try?.planned;
	const set = (id: Wrong, on: boolean) =>
		attempt(() =>
			save(
				[{ op: 'add', path: '/service/wrong', value: on ? [...wrong, id] : wrong.filter((w) => w !== id) }],
				say('service.what-is-wrong'),
			),
		);
	const begin = () =>
		attempt(async () => {
			const stamp = { on: today(), by: whoNow() };
			const hang = { id: '', ...stamp, gaps: [] };
			const tried = [{ made: { ...made, ...stamp } as never, hangs: [hang] }];
			await save([{ op: 'add', path: '/tried', value: tried }], say('service.its-gaps-are-read'));
		});
	return (
		<section className="mb-4 grid gap-4" data-service>
			<fieldset>
				<legend className="text-lg mb-1">{say('service.what-is-wrong')}</legend>
				{trade.complaints.map((c) => (
					<Checkbox
						key={c.id}
						data-field={`wrong-${c.id}`}
						checked={wrong.includes(c.id as Wrong)}
						onChange={(e) => set(c.id as Wrong, e.target.checked)}
					>
						{c.name}
					</Checkbox>
				))}
			</fieldset>
			<div className="grid sm:grid-cols-3 gap-3">
				<LengthField pointer="/slab/width" label={say('page.width')} />
				<LengthField pointer="/slab/length" label={say('page.length')} />
				<LengthField pointer="/slab/thickness" label={say('page.thickness')} />
			</div>
			<PickField
				pointer="/slab/construction"
				label={say('slab.how-it-is-built')}
				options={[
					{ value: '', text: say('page.not-known-yet') },
					...trade.constructions.map((c) => ({ value: c.id, text: c.name })),
				]}
			/>
			<Said error={error} />
			{made && (
				<button type="button" className="btn btn-primary text-lg h-14 w-full" data-read-gaps onClick={begin}>
					{say('service.read-its-gaps')}
				</button>
			)}
		</section>
	);
}
