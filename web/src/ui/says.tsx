import { Info, OctagonAlert, TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { useRouteError } from 'react-router';
import type { Plan } from '../api/client';
import { say } from '../words/texts';
import { trade } from '../words/trade';

const looks = {
	stop: { Icon: OctagonAlert, word: 'page.stop', className: 'border-error text-error' },
	care: { Icon: TriangleAlert, word: 'page.care-word', className: 'border-warning text-warning' },
	note: { Icon: Info, word: 'page.note-word', className: 'border-info text-info' },
} as const;

/** Findings lists the findings of a step, what to do, and the key to do it by. */
export function Findings({
	list,
	action,
}: {
	list: Plan['findings'];
	action?: (f: Plan['findings'][number]) => ReactNode;
}) {
	return (
		<div className="grid gap-2 mb-3">
			{list.map((f) => {
				const { Icon, word, className } = looks[f.gravity];
				return (
					<div
						key={f.pointer + f.text}
						data-finding={f.gravity}
						data-code={f.code}
						className={`border-l-4 pl-3 py-1 flex gap-2 ${className}`}
					>
						<Icon size={22} className="shrink-0 mt-0.5" aria-hidden="true" />
						<div>
							<p>
								<strong>{say(word)}: </strong>
								<span className="text-base-content">{f.text}</span>
							</p>
							{action?.(f)}
						</div>
					</div>
				);
			})}
		</div>
	);
}

/** Cautions stand at the step of the danger, and cannot be closed. */
export function Cautions({ step }: { step: string }) {
	const list = trade.cautions.filter((c) => c.step === step);
	if (list.length === 0) return null;
	return (
		<section aria-label={say('page.cautions')} className="mt-5 border-t-2 border-warning pt-2 text-[0.95rem]">
			{list.map((c) => (
				<p key={c.text} className="flex gap-2 py-0.5">
					<TriangleAlert size={18} className="shrink-0 mt-1 text-warning" aria-hidden="true" />
					<span>{c.text}</span>
				</p>
			))}
			<p className="pl-7 font-semibold">{trade.codeFirst}</p>
		</section>
	);
}

/** TakenOff lists what was removed, each to be put back. */
export function TakenOff<T extends { id: string; name: string }>({
	what,
	list,
	back,
}: {
	what: string;
	list: T[];
	back?: (x: T) => void;
}) {
	if (list.length === 0) return null;
	return (
		<details className="mt-4" data-taken-off>
			<summary className="cursor-pointer min-h-11 flex items-center underline decoration-dotted underline-offset-4">
				{say('page.thing-taken-off-count', { thing: what, count: list.length })}
			</summary>
			<ul>
				{list.map((x) => (
					<li key={x.id} className="flex items-center gap-3 border-b border-base-300 py-1">
						<span className="grow text-lg">{x.name}</span>
						{back && (
							<button type="button" className="btn" onClick={() => back(x)} data-put-back={x.id}>
								{say('page.put-back')}
								<span className="sr-only"> {x.name}</span>
							</button>
						)}
					</li>
				))}
			</ul>
		</details>
	);
}

export function Waiting({ text }: { text: string }) {
	return (
		<p className="p-6 text-lg" role="status">
			{text}
		</p>
	);
}

export function Failed({ error, retry, alone }: { error: Error; retry: () => void; alone?: boolean }) {
	return (
		<div className="p-6 max-w-xl" role="alert">
			{alone && (
				<h1 className="text-2xl mb-3" tabIndex={-1} data-home>
					{say('page.this-page-could-not-be')}
				</h1>
			)}
			<p className="text-lg mb-3">{error.message}</p>
			<button type="button" className="btn btn-primary" onClick={retry}>
				{say('page.try-again')}
			</button>
		</div>
	);
}

/** Broken is the page of a route that failed to render. */
export function Broken() {
	const error = useRouteError() as Error | undefined;
	return (
		<main className="p-6 max-w-xl mx-auto" role="alert">
			<h1 className="text-2xl mb-3">{say('page.this-page-could-not-be')}</h1>
			<p className="text-lg mb-2">{say('page.nothing-that-was-saved-is')}</p>
			<p className="mb-4 opacity-80">{error?.message}</p>
			<div className="flex gap-3">
				<button type="button" className="btn btn-primary" onClick={() => location.reload()}>
					{say('page.load-it-again')}
				</button>
				<a className="btn" href="/">
					{say('page.all-jobs')}
				</a>
			</div>
		</main>
	);
}
