import { useEffect, useState } from 'react';
import { ended, forgetTyped, letIn, typedHere, wasPaired } from '../api/access';
import { Said, useAttempt } from '../api/attempt';
import { ask, client } from '../api/client';
import { say } from '../words/texts';

/** PairPage pairs this client, by the code that is shown where Kind Margin runs. */
export function PairPage() {
	const [code, setCode] = useState(() => decodeURIComponent(location.hash.slice(1)));
	const [name, setName] = useState('');
	const [error, attempt] = useAttempt();
	// The code is removed from the address and the history.
	useEffect(() => history.replaceState(history.state, '', '/pair'), []);
	const pair = async (e: React.FormEvent) => {
		e.preventDefault();
		await attempt(async () => {
			await ask(client.POST('/api/sharing/clients', { body: { code, name } }));
			location.replace(letIn());
		});
	};
	return (
		<main className="max-w-md mx-auto p-6">
			<h1 className="text-3xl mb-2" tabIndex={-1} data-home>
				{say('sharing.pair-this-client')}
			</h1>
			{ended() && wasPaired() && (
				<p role="status" className="border-l-4 border-warning pl-3 mb-4" data-pass-ended>
					{say('sharing.pass-ended')}
				</p>
			)}
			<p className="mb-4">{say('sharing.kind-margin-shows-a-code')}</p>
			<form onSubmit={pair} className="grid gap-3">
				<label>
					<span className="block mb-1">{say('sharing.code')}</span>
					<input
						className="input w-full text-2xl dim uppercase tracking-widest"
						data-field="pair-code"
						autoCapitalize="characters"
						autoComplete="one-time-code"
						value={code}
						onChange={(e) => setCode(e.target.value)}
					/>
				</label>
				<label>
					<span className="block mb-1">{say('sharing.what-this-client-is-called')}</span>
					<input
						className="input w-full text-lg"
						data-field="pair-name"
						placeholder={say('sharing.wrens-phone')}
						maxLength={60}
						value={name}
						onChange={(e) => setName(e.target.value)}
					/>
				</label>
				<Said error={error} />
				<button type="submit" className="btn btn-primary text-lg h-14" data-field="pair">
					{say('sharing.pair')}
				</button>
			</form>
			{ended() && <Typed />}
		</main>
	);
}

/** Typed is how many unsaved entries a client has whose pass was ended, and no more. */
function Typed() {
	const [n, setN] = useState(typedHere);
	const [sure, setSure] = useState(false);
	if (n === 0) return null;
	return (
		<section className="mt-8 border-l-4 border-warning pl-3" data-typed-here={n}>
			<p className="mb-2">{say('sharing.count-entries-that-were-typed', { count: n })}</p>
			{sure ? (
				<button
					type="button"
					className="btn btn-error"
					data-forget-typed
					onClick={() => {
						forgetTyped();
						setN(typedHere());
					}}
				>
					{n === 1 ? say('sharing.delete-it-for-good') : say('sharing.delete-them-for-good')}
				</button>
			) : (
				<button type="button" className="btn" data-forget onClick={() => setSure(true)}>
					{n === 1 ? say('sharing.delete-it') : say('sharing.delete-them')}
				</button>
			)}
		</section>
	);
}
