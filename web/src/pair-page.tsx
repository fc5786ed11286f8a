import { useEffect, useState } from 'react';
import { ended, forgetTyped, letIn, typedHere } from './access';
import { ask, client } from './api';
import { Said, useAttempt } from './attempt';

/** PairPage lets this device in, by the code that is shown where Kind Margin runs. */
export function PairPage() {
	const [code, setCode] = useState(() => decodeURIComponent(location.hash.slice(1)));
	const [name, setName] = useState('');
	const [error, attempt] = useAttempt();
	// The code stands in no address that is kept, nor in its history.
	useEffect(() => history.replaceState(history.state, '', '/pair'), []);
	const pair = async (e: React.FormEvent) => {
		e.preventDefault();
		await attempt(async () => {
			await ask(client.POST('/api/pair', { body: { code, name } }));
			letIn();
			location.replace('/');
		});
	};
	return (
		<main className="max-w-md mx-auto p-6">
			<h1 className="text-3xl mb-2" tabIndex={-1} data-home>
				Pair this device
			</h1>
			<p className="mb-4">
				It is let in once, by the code that Kind Margin shows on the machine it runs on, under Devices. A code
				lets one device in, for ten minutes.
			</p>
			<form onSubmit={pair} className="grid gap-3">
				<label>
					<span className="block mb-1">Code</span>
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
					<span className="block mb-1">What this device is called</span>
					<input
						className="input w-full text-lg"
						data-field="pair-name"
						placeholder="Wren's phone"
						maxLength={60}
						value={name}
						onChange={(e) => setName(e.target.value)}
					/>
				</label>
				<Said error={error} />
				<button type="submit" className="btn btn-primary text-lg h-14" data-field="pair">
					Pair
				</button>
			</form>
			{ended() && <Typed />}
		</main>
	);
}

/** Typed is what was typed on a device that was put out: how much, and no more. */
function Typed() {
	const [n, setN] = useState(typedHere);
	const [sure, setSure] = useState(false);
	if (n === 0) return null;
	return (
		<section className="mt-8 border-l-4 border-warning pl-3" data-typed-here={n}>
			<p className="mb-2">
				{n === 1
					? '1 entry that was typed here waits. It is shown and sent once this device is let in again.'
					: `${n} entries that were typed here wait. They are shown and sent once this device is let in again.`}
			</p>
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
					{n === 1 ? 'Delete it for good' : 'Delete them for good'}
				</button>
			) : (
				<button type="button" className="btn" data-forget onClick={() => setSure(true)}>
					{n === 1 ? 'Delete it…' : 'Delete them…'}
				</button>
			)}
		</section>
	);
}
