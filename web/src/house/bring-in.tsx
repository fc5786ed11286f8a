import { useQuery, useQueryClient } from '@tanstack/react-query';
import { FileInput, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, newKey, type Schemas, send } from '../api/client';
import { resources } from '../api/resources';
import { say } from '../words/texts';

type Import = Schemas['Import'];

const underWay = (i?: Import) => i?.state === 'reading' || i?.state === 'keeping';

/** BringIn imports a job file, or a zip with its photographs, with its progress. */
export function BringIn() {
	const go = useNavigate();
	const cache = useQueryClient();
	const input = useRef<HTMLInputElement>(null);
	const [id, setID] = useState('');
	const [sending, setSending] = useState(false);
	const [error, attempt] = useAttempt();
	const state = useQuery({
		queryKey: ['import', id],
		queryFn: () => ask(client.GET('/api/imports/{import}', { params: { path: { import: id } } })),
		enabled: !!id,
		refetchInterval: (q) => (underWay(q.state.data) ? 400 : false),
	});
	const now = id ? state.data : undefined;
	const job = now?.state === 'done' ? now.job?.id : undefined;
	useEffect(() => {
		if (!job) return;
		cache.invalidateQueries({ queryKey: resources.jobs().queryKey });
		go(`/j/${job}`);
	}, [job, cache, go]);
	const bring = async (file?: File) => {
		if (!file) return;
		setID('');
		setSending(true);
		await attempt(async () => setID((await send<Import>('/api/imports', file, newKey())).id));
		setSending(false);
	};
	const stop = () =>
		attempt(async () => {
			await ask(client.DELETE('/api/imports/{import}', { params: { path: { import: id } } }));
			state.refetch();
		});
	const busy = sending || underWay(now);
	return (
		<section data-bring-in>
			<h2 className="text-2xl mb-2">{say('home.bring-in-a-job-file')}</h2>
			<input
				ref={input}
				type="file"
				accept=".json,application/json,.zip"
				className="hidden"
				aria-label={say('home.job-file')}
				onChange={(e) => {
					bring(e.target.files?.[0]);
					e.target.value = ''; // so that the same file, mended, can be chosen again
				}}
			/>
			<p className="flex flex-wrap gap-2">
				<button type="button" className="btn text-lg" disabled={busy} onClick={() => input.current?.click()}>
					<FileInput aria-hidden="true" /> {say('page.choose-a-file')}
				</button>
				{underWay(now) && (
					<button type="button" className="btn text-lg" data-stop-import onClick={stop}>
						<X aria-hidden="true" /> {say('page.stop')}
					</button>
				)}
			</p>
			{busy && <Far sending={sending} now={now} />}
			{now?.state === 'stopped' && (
				<p role="status" className="mt-2">
					{say('home.stopped-nothing-came-in')}
				</p>
			)}
			<Said
				error={error || (now?.state === 'refused' ? now.problem : '') || (state.error?.message ?? '')}
				className="mt-2"
			/>
		</section>
	);
}

/** Far is the progress of an import. */
function Far({ sending, now }: { sending: boolean; now?: Import }) {
	const says = sending
		? say('home.sending-the-file')
		: now?.state === 'keeping'
			? say('page.keeping-it')
			: now?.of
				? say('home.reading-photographs-done-of-of', { done: now.done, of: now.of })
				: say('home.reading-it');
	return (
		<div className="mt-2 grid gap-1 max-w-md">
			<p role="status" data-import-says>
				{says}
			</p>
			<progress
				className="progress progress-primary w-full"
				aria-label={say('home.how-much-has-come-in')}
				{...(now?.of && now.state === 'reading' ? { value: now.done, max: now.of } : {})}
			/>
		</div>
	);
}
