import { useState } from 'react';
import { Said, useAttempt } from '../api/attempt';
import type { JobHead, Unit } from '../api/client';
import { typed } from '../opening/kept';
import { Checkbox } from '../ui/checkbox';
import { onward, Tape } from '../ui/tape';
import { say } from '../words/texts';
import { trade } from '../words/trade';

/** SawForm is the kit's saw: what guides it, and how far its cut lies from the guide, as one cut on scrap proves it. */
export function SawForm({ head, put }: { head: JobHead; put: (kit: JobHead['kit']) => Promise<unknown> }) {
	const kept = head.kit.saw ?? {};
	const [saw, setSaw] = useState(kept);
	const [text, setText] = useState({
		near: head.saw['/near'] ?? '',
		far: head.saw['/far'] ?? '',
		depth: head.saw['/depth'] ?? '',
	});
	const guide = trade.sawGuides.find((g) => g.id === (saw.guide || 'made'));
	const labels = {
		near: say('saw.near'),
		far: guide?.offset ? say('saw.far') : say('saw.kerf'),
		depth: say('saw.depth'),
	};
	const [error, attempt] = useAttempt(labels);
	const keep = () => {
		const of = (t: string) => typed(t, head.unit);
		const near = guide?.offset ? of(text.near) : 0;
		return attempt(() =>
			put({ ...head.kit, saw: { ...saw, near, far: of(text.far), depth: of(text.depth) } }),
		);
	};
	const length = (at: keyof typeof text) => (
		<Tape
			id={`saw-${at}`}
			label={labels[at]}
			value={text[at]}
			unit={head.unit as Unit}
			onChange={(t) => setText({ ...text, [at]: t })}
			onEnter={() => onward(document.activeElement as HTMLElement)}
		/>
	);
	const tick = (at: 'down' | 'outside' | 'table', label: string) => (
		<Checkbox
			data-field={`saw-${at}`}
			checked={!!saw[at]}
			onChange={(e) => setSaw({ ...saw, [at]: e.target.checked })}
		>
			{label}
		</Checkbox>
	);
	return (
		<section className="my-5 border-t-2 border-base-300 pt-3" data-saw>
			<h2 className="text-xl mb-1">{say('saw.saw')}</h2>
			<div className="grid sm:grid-cols-2 gap-x-4 gap-y-3 mb-2">
				<label>
					<span className="block mb-1">{say('saw.guide')}</span>
					<select
						className="select w-full"
						data-field="saw-guide"
						value={saw.guide || 'made'}
						onChange={(e) => setSaw({ ...saw, guide: e.target.value })}
					>
						{trade.sawGuides.map((g) => (
							<option key={g.id} value={g.id}>
								{g.name}
							</option>
						))}
					</select>
					<span className="block text-sm opacity-80">{guide?.note}</span>
				</label>
				{length('depth')}
				{guide?.offset && length('near')}
				{length('far')}
			</div>
			<p className="text-sm opacity-80 max-w-prose">
				{guide?.offset ? say('saw.prove-offset') : say('saw.prove-kerf')}
			</p>
			{tick('down', say('saw.teeth-down'))}
			{guide?.offset && tick('outside', say('saw.guide-outside'))}
			{tick('table', say('saw.long-on-table'))}
			<Said error={error} />
			<button type="button" className="btn" data-field="saw-keep" onClick={keep}>
				{say('page.keep')}
			</button>
		</section>
	);
}

/** RouterForm is the router's own guide bush and cutter, for which templates and jigs are drawn. */
export function RouterForm({ head, put }: { head: JobHead; put: (kit: JobHead['kit']) => Promise<unknown> }) {
	const [text, setText] = useState({
		bush: head.kit.bush ? `${head.kit.bush} mm` : '',
		cutter: head.kit.cutter ? `${head.kit.cutter} mm` : '',
	});
	const labels = { bush: say('papers.guide-bush'), cutter: say('papers.cutter') };
	const [error, attempt] = useAttempt(labels);
	const length = (at: keyof typeof text, usual: string) => (
		<Tape
			id={`router-${at}`}
			label={labels[at]}
			value={text[at]}
			unit={head.unit as Unit}
			placeholder={usual}
			onChange={(t) => setText({ ...text, [at]: t })}
			onEnter={() => onward(document.activeElement as HTMLElement)}
		/>
	);
	const keep = () =>
		attempt(() =>
			put({ ...head.kit, bush: typed(text.bush, head.unit), cutter: typed(text.cutter, head.unit) }),
		);
	return (
		<section className="my-5" data-router>
			<h2 className="text-xl mb-1">{say('saw.router')}</h2>
			<div className="grid sm:grid-cols-2 gap-x-4 gap-y-3 mb-2">
				{length('bush', '16 mm')}
				{length('cutter', '12 mm')}
			</div>
			<Said error={error} />
			<button type="button" className="btn" data-field="router-keep" onClick={keep}>
				{say('page.keep')}
			</button>
		</section>
	);
}
