import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { since } from './access';
import { ask, client, type Schemas } from './api';
import { Said, useAttempt } from './attempt';
import { Failed, Waiting } from './says';
import { Top } from './top';

type Sharing = Schemas['SharingView'];

/** DevicesPage shows how other devices are let in, and which are. */
export function DevicesPage() {
	const sharing = useQuery({
		queryKey: ['sharing'],
		queryFn: () => ask(client.GET('/api/sharing')),
		refetchInterval: 20_000,
	});
	const trail = useMemo(() => [{ to: '/', text: 'Jobs' }, { text: 'Devices' }], []);
	const [error, attempt] = useAttempt();
	const s = sharing.data;
	return (
		<>
			<Top trail={trail} />
			<main className="max-w-3xl mx-auto p-4 sm:p-6 grid gap-6">
				{sharing.isPending && <Waiting text="Looking who is there…" />}
				{sharing.error && <Failed error={sharing.error} retry={() => sharing.refetch()} />}
				{s && (
					<>
						<section>
							<h1 className="text-3xl mb-2" tabIndex={-1} data-home>
								Devices
							</h1>
							{s.on ? <LetIn s={s} again={() => sharing.refetch()} /> : <Alone />}
						</section>
						<section>
							<h2 className="text-2xl mb-2">Let in</h2>
							{s.passes.length === 0 && <p>No other device has a pass.</p>}
							{s.passes.length > 0 && (
								<p className="opacity-80 max-w-prose mb-2">
									A device reads and enters. One that runs the house also takes backups, restores them, ends
									passes and takes jobs off. A pass that is not used for 90 days ends by itself.
								</p>
							)}
							<ul>
								{s.passes.map((p) => (
									<li
										key={p.id}
										className="flex items-center gap-3 border-b border-base-300 py-2"
										data-pass={p.name}
									>
										<span className="grow">
											<strong className="text-lg">{p.name}</strong>
											{p.this && ' (this device)'}
											<span className="block opacity-80">
												since {p.made.slice(0, 10)}, last here {p.seen.slice(0, 13).replace('T', ' at ')} h
											</span>
										</span>
										{s.here && (
											<label className="flex items-center gap-2 min-h-11">
												<input
													type="checkbox"
													className="toggle toggle-primary"
													checked={p.runs}
													data-raise={p.name}
													onChange={async (e) => {
														const runs = e.target.checked;
														await attempt(() =>
															ask(
																client.PUT('/api/passes/{pass}', {
																	params: { path: { pass: p.id } },
																	body: { runs },
																}),
															),
														);
														sharing.refetch();
													}}
												/>
												runs the house<span className="sr-only">: {p.name}</span>
											</label>
										)}
										<button
											type="button"
											className="btn"
											disabled={!s.runs && !p.this}
											onClick={async () => {
												await attempt(() =>
													ask(client.DELETE('/api/passes/{pass}', { params: { path: { pass: p.id } } })),
												);
												sharing.refetch();
											}}
											data-end-pass={p.name}
										>
											End its pass<span className="sr-only">: {p.name}</span>
										</button>
									</li>
								))}
							</ul>
							<Said error={error} className="mt-2" />
						</section>
					</>
				)}
			</main>
		</>
	);
}

function Alone() {
	return (
		<p className="text-lg max-w-prose">
			Only this machine is let in. Start Kind Margin with <code className="dim">--share</code>, and a phone at
			the opening can read beside the laptop on the trestles.
		</p>
	);
}

function LetIn({ s, again }: { s: Sharing; again: () => void }) {
	const [error, attempt] = useAttempt();
	return (
		<div className="flex flex-wrap gap-6 items-start">
			<div className="grow basis-72 grid gap-3">
				<p>
					On the other device, open
					{s.urls.map((u) => (
						<strong key={u} className="block text-2xl dim break-all" data-url>
							{u}
						</strong>
					))}
				</p>
				{s.here && s.code && (
					<p>
						and give this code
						<strong className="block text-4xl dim tracking-widest" data-code>
							{s.code}
						</strong>
						or point its camera at the picture. It lets one device in, until {since(new Date(s.until))}.
					</p>
				)}
				{s.here ? (
					<p>
						<button
							type="button"
							className={`btn text-lg ${s.code ? '' : 'btn-primary'}`}
							data-new-code
							onClick={async () => {
								await attempt(() => ask(client.POST('/api/pairing')));
								again();
							}}
						>
							{s.code ? 'Show another code' : 'Show a code'}
						</button>
						<Said error={error} />
					</p>
				) : (
					<p>The code is shown on the machine that Kind Margin runs on.</p>
				)}
				{s.fingerprint && (
					<p>
						Its browser warns once, since the certificate was made here. The fingerprint that it shows must be
						<code className="block dim break-all">{s.fingerprint}</code>
					</p>
				)}
				{!s.tls && (
					<p className="border-l-4 border-warning pl-3">
						It goes unencrypted over your network, and without signal the page only works while it stays open.
						With <code className="dim">--tls</code> it is encrypted, and opens without signal too.
					</p>
				)}
			</div>
			{s.qr.length > 0 && <Code rows={s.qr} />}
		</div>
	);
}

/** Code is a QR code: dark squares on white, with the quiet zone that a camera wants. */
function Code({ rows }: { rows: string[] }) {
	const size = rows.length + 8;
	const path = rows
		.flatMap((row, y) => [...row].map((c, x) => (c === '#' ? `M${x + 4} ${y + 4}h1v1h-1z` : '')))
		.join('');
	return (
		<svg
			viewBox={`0 0 ${size} ${size}`}
			className="w-64 h-64 bg-white shrink-0"
			role="img"
			aria-label="Address and code for a camera"
			shapeRendering="crispEdges"
			data-qr
		>
			<path d={path} fill="#000" />
		</svg>
	);
}
