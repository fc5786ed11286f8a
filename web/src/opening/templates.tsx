import { FileDown } from 'lucide-react';
import { useState } from 'react';
import { Disclosure } from '../ui/disclosure';
import { say } from '../words/texts';
import { trade } from '../words/trade';
import { useOpening } from './state';

/** kept is a setting of this client: paper, router, the printer's scale. */
function useSetting(key: string, usual: string) {
	const [value, set] = useState(() => localStorage.getItem(key) ?? usual);
	const put = (v: string) => {
		set(v);
		localStorage.setItem(key, v);
	};
	return [value, put] as const;
}

/** Templates are the full-size templates of a step, each previewed before it is fetched. */
export function Templates({ step }: { step: string }) {
	const { view, leaf, which } = useOpening();
	const [paper, setPaper] = useSetting('paper', view.job.unit === 'in' ? 'letter' : 'a4');
	// The kit's own pair, or for once another.
	const { kit } = view.job;
	const [bush, setBush] = useState(`${kit.bush || 16} mm`);
	const [cutter, setCutter] = useState(`${kit.cutter || 12} mm`);
	const [read, setRead] = useSetting('ruler printed', '100 mm');
	const [seen, setSeen] = useState('');
	const list = trade.templates.filter((t) => t.step === step);
	if (list.length === 0) return null;
	const address = (template: string, format: string) => {
		const q = new URLSearchParams({
			template,
			format,
			paper,
			leaf: String(which),
			bush,
			cutter,
			printed: read,
		});
		return `/api/jobs/${view.job.id}/openings/${view.opening.id}/template?${q}`;
	};
	const router = list.some((t) => !['lock', 'block', 'rod'].includes(t.id));
	return (
		<Disclosure className="mb-4 no-print" title={say('papers.templates-at-full-size')} field="sheets-open">
			<div className="grid gap-3">
				<div className="flex flex-wrap gap-2 items-end">
					<label className="grow basis-28">
						<span className="block mb-1">{say('page.paper')}</span>
						<select
							className="select w-full uppercase"
							data-field="paper"
							value={paper}
							onChange={(e) => setPaper(e.target.value)}
						>
							{trade.papers.map((p) => (
								<option key={p} value={p}>
									{p}
								</option>
							))}
						</select>
					</label>
					<Plain label={say('papers.its-100-mm-ruler-measures')} value={read} set={setRead} />
					{router && <Plain label={say('papers.guide-bush')} value={bush} set={setBush} />}
					{router && <Plain label={say('papers.cutter')} value={cutter} set={setCutter} />}
				</div>
				{list.map((t) => (
					<section key={t.id} className="border-b border-base-300 pb-2" data-template={t.id}>
						<h3 className="font-semibold first-letter:uppercase">{t.name}</h3>
						<p className="text-sm opacity-80">
							{t.note} {leaf.jigs.find((j) => j.id === t.id)?.says}
						</p>
						<p className="flex flex-wrap gap-2 mt-1">
							<button
								type="button"
								className="btn"
								onClick={() => setSeen(seen === t.id ? '' : t.id)}
								data-see={t.id}
							>
								{seen === t.id ? say('papers.fold-it-away') : say('papers.see-it')}
							</button>
							{['pdf', 'svg', 'dxf', ...(t.body ? ['stl'] : [])].map((f) => (
								<a key={f} className="btn" href={address(t.id, f)} download>
									<FileDown size={18} aria-hidden="true" /> {f.toUpperCase()}
								</a>
							))}
						</p>
						{seen === t.id && (
							<Seen key={address(t.id, 'svg')} address={address(t.id, 'svg')} name={t.name} />
						)}
					</section>
				))}
			</div>
		</Disclosure>
	);
}

/** Seen is a template's preview, or why it cannot be made. */
function Seen({ address, name }: { address: string; name: string }) {
	const [error, setError] = useState('');
	if (error)
		return (
			<p role="alert" className="text-error font-semibold mt-2">
				{error}
			</p>
		);
	return (
		<img
			src={address}
			alt={say('papers.the-name-as-it-will', { name })}
			className="mt-2 bg-white max-h-[26rem] w-full object-contain"
			onError={async () => {
				const answer = await fetch(address);
				const said = (await answer.json().catch(() => null)) as { detail?: string } | null;
				setError(said?.detail ?? say('papers.it-cannot-be-drawn'));
			}}
		/>
	);
}

function Plain({ label, value, set }: { label: string; value: string; set: (v: string) => void }) {
	return (
		<label className="grow basis-24">
			<span className="block mb-1">{label}</span>
			<input
				className="input w-full dim text-lg"
				data-field={label}
				value={value}
				onChange={(e) => set(e.target.value)}
			/>
		</label>
	);
}
