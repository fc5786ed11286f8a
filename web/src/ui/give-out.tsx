import { X } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Said, useAttempt } from '../api/attempt';
import { howFar, type Made, makeFile, type Wanted } from '../api/exports';
import { say } from '../words/texts';
import { trade } from '../words/trade';

/**
 * GiveOut downloads a file: by a plain link for few openings; for more it is made in the background, with its progress
 * and a stop button.
 */
export function GiveOut({
	openings,
	atOnce = trade.atOnce,
	href,
	wanted,
	children,
	className = '',
	...hooks
}: {
	openings: number;
	atOnce?: number;
	href: string;
	wanted: Wanted;
	children: ReactNode;
	className?: string;
	[hook: `data-${string}`]: string | boolean;
}) {
	const [made, setMade] = useState<Made>();
	const [busy, setBusy] = useState(false);
	const [file, setFile] = useState<string>();
	const [error, attempt] = useAttempt();
	const stop = useRef<AbortController>(undefined);
	useEffect(() => () => stop.current?.abort(), []); // who leaves waits for it no more
	if (openings <= atOnce) {
		return (
			<a className={`btn ${className}`} href={href} download {...hooks}>
				{children}
			</a>
		);
	}
	const make = async () => {
		const mine = new AbortController();
		stop.current = mine;
		setFile(undefined);
		setBusy(true);
		await attempt(async () => {
			const at = await makeFile(wanted, setMade, mine.signal);
			setFile(at);
			if (at && !mine.signal.aborted) location.assign(at); // it comes as a file: the page stays
		});
		setMade(undefined);
		setBusy(false);
	};
	return (
		<span className="inline-flex flex-wrap items-center justify-end gap-2">
			{made ? (
				<>
					<progress
						className="progress progress-primary w-20"
						aria-label={say('papers.how-far-it-is')}
						{...(made.of && made.state === 'making' ? { value: made.done, max: made.of } : {})}
					/>
					<span role="status" className="tabular-nums" data-made>
						{howFar(made)}
					</span>
					<button
						type="button"
						className={`btn ${className}`}
						onClick={() => stop.current?.abort()}
						data-stop
					>
						<X size={18} aria-hidden="true" /> {say('page.stop')}
					</button>
				</>
			) : (
				<>
					{file && (
						<a className="link" href={file} download data-made-file>
							{say('papers.save-it-again')}
						</a>
					)}
					{file === '' && <span role="status">{say('papers.stopped')}</span>}
					<button type="button" className={`btn ${className}`} disabled={busy} onClick={make} {...hooks}>
						{children}
					</button>
				</>
			)}
			<Said error={error} className="max-w-64" />
		</span>
	);
}
