import { useQuery } from '@tanstack/react-query';
import { Info, OctagonAlert, TriangleAlert } from 'lucide-react';
import { ask, client, type Plan } from './api';

const looks = {
	stop: { Icon: OctagonAlert, word: 'Stop', className: 'border-error text-error' },
	care: { Icon: TriangleAlert, word: 'Take care', className: 'border-warning text-warning' },
	note: { Icon: Info, word: 'Note', className: 'border-info text-info' },
};

/** Findings says what is wrong or worth knowing at a step, and what to do. */
export function Findings({ list }: { list: Plan['findings'] }) {
	return (
		<div className="grid gap-2 mb-3" aria-live="polite">
			{list.map((f) => {
				const { Icon, word, className } = looks[f.weight];
				return (
					<p
						key={f.pointer + f.text}
						data-finding={f.weight}
						className={`border-l-4 pl-3 py-1 flex gap-2 ${className}`}
					>
						<Icon size={22} className="shrink-0 mt-0.5" aria-hidden="true" />
						<span>
							<strong>{word}: </strong>
							<span className="text-base-content">{f.text}</span>
						</span>
					</p>
				);
			})}
		</div>
	);
}

export function useTrade() {
	return useQuery({ queryKey: ['trade'], queryFn: () => ask(client.GET('/api/trade')), staleTime: Infinity })
		.data;
}

/** Cautions stand where the hand is, and stay. */
export function Cautions({ step }: { step: string }) {
	const trade = useTrade();
	const list = trade?.cautions.filter((c) => c.step === step) ?? [];
	if (list.length === 0) return null;
	return (
		<section aria-label="Cautions" className="mt-5 border-t-2 border-warning pt-2 text-[0.95rem]">
			{list.map((c) => (
				<p key={c.text} className="flex gap-2 py-0.5">
					<TriangleAlert size={18} className="shrink-0 mt-1 text-warning" aria-hidden="true" />
					<span>{c.text}</span>
				</p>
			))}
			<p className="pl-7 font-semibold">{trade?.codeFirst}</p>
		</section>
	);
}

export function Waiting({ text }: { text: string }) {
	return (
		<p className="p-6 text-lg" role="status">
			{text}
		</p>
	);
}

export function Failed({ error, retry }: { error: Error; retry: () => void }) {
	return (
		<div className="p-6 max-w-xl" role="alert">
			<p className="text-lg mb-3">{error.message}</p>
			<button type="button" className="btn btn-primary" onClick={retry}>
				Try again
			</button>
		</div>
	);
}
