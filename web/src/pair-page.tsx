import { useState } from 'react';
import { ask, client } from './api';
import { Said, useAttempt } from './attempt';

/** PairPage lets this device in, by the code that is shown where Kind Margin runs. */
export function PairPage() {
	const [code, setCode] = useState(() => decodeURIComponent(location.hash.slice(1)));
	const [name, setName] = useState('');
	const [error, attempt] = useAttempt();
	const pair = async (e: React.FormEvent) => {
		e.preventDefault();
		await attempt(async () => {
			await ask(client.POST('/api/pair', { body: { code, name } }));
			location.replace('/');
		});
	};
	return (
		<main className="max-w-md mx-auto p-6">
			<h1 className="text-3xl mb-2" tabIndex={-1} data-home>
				Pair this device
			</h1>
			<p className="mb-4">
				It is let in once, by the code that Kind Margin shows on the machine it runs on, and stays until its
				pass is ended there.
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
		</main>
	);
}
