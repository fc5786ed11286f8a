import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { since } from '../api/access';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type Schemas } from '../api/client';
import { resources } from '../api/resources';
import { Failed, Waiting } from '../ui/says';
import { Top } from '../ui/top';
import { Phrase } from '../words/phrase';
import { say } from '../words/texts';

type Sharing = Schemas['SharingView'];

/** SharingPage shows how other clients are let in, and which are. */
export function SharingPage() {
	const sharing = useQuery({ ...resources.sharing(), refetchInterval: 20_000 });
	const trail = useMemo(() => [{ to: '/', text: say('page.jobs') }, { text: say('page.clients') }], []);
	const [error, attempt] = useAttempt();
	const s = sharing.data;
	return (
		<>
			<Top trail={trail} />
			<main className="max-w-3xl mx-auto p-4 sm:p-6 grid gap-6">
				{sharing.isPending && <Waiting text={say('sharing.looking-for-clients')} />}
				{sharing.error && (
					<Failed error={sharing.error} retry={() => sharing.refetch()} alone={!sharing.data} />
				)}
				{s && (
					<>
						<section>
							<h1 className="text-3xl mb-2" tabIndex={-1} data-home>
								{say('page.clients')}
							</h1>
							{s.on ? <LetIn s={s} again={() => sharing.refetch()} /> : <Alone />}
						</section>
						<section>
							<h2 className="text-2xl mb-2">{say('sharing.let-in')}</h2>
							{s.passes.length === 0 && <p>{say('sharing.no-other-client-has-a')}</p>}
							{s.passes.length > 0 && (
								<p className="opacity-80 max-w-prose mb-2">{say('sharing.a-client-can-read-and')}</p>
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
											{p.this && ` ${say('sharing.this-client')}`}
											<span className="block opacity-80">
												{say('sharing.since-day-last-here-seen', {
													day: p.made.slice(0, 10),
													seen: p.seen.slice(0, 10),
													hour: p.seen.slice(11, 13),
												})}
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
																client.PUT('/api/sharing/clients/{client}', {
																	params: { path: { client: p.id } },
																	body: { runs },
																}),
															),
														);
														sharing.refetch();
													}}
												/>
												{say('sharing.runs-the-house')}
												<span className="sr-only">: {p.name}</span>
											</label>
										)}
										<button
											type="button"
											className="btn"
											disabled={!s.runs && !p.this}
											onClick={async () => {
												await attempt(() =>
													ask(
														client.DELETE('/api/sharing/clients/{client}', {
															params: { path: { client: p.id } },
														}),
													),
												);
												sharing.refetch();
											}}
											data-end-pass={p.name}
										>
											{say('sharing.end-its-pass')}
											<span className="sr-only">: {p.name}</span>
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
			<Phrase id="sharing.only-this-machine-can-use" of={{ share: <code className="dim">--share</code> }} />
		</p>
	);
}

function LetIn({ s, again }: { s: Sharing; again: () => void }) {
	const [error, attempt] = useAttempt();
	return (
		<div className="flex flex-wrap gap-6 items-start">
			<div className="grow basis-72 grid gap-3">
				<p>
					{say('sharing.open')}
					{s.urls.map((u) => (
						<strong key={u} className="block text-2xl dim break-all" data-url>
							{u}
						</strong>
					))}
				</p>
				{s.here && s.code && (
					<p>
						<Phrase
							id="sharing.enter-code"
							of={{
								code: (
									<strong className="block text-4xl dim tracking-widest" data-code>
										{s.code}
									</strong>
								),
								until: since(new Date(s.until)),
							}}
						/>
					</p>
				)}
				{s.here ? (
					<p>
						<button
							type="button"
							className={`btn text-lg ${s.code ? '' : 'btn-primary'}`}
							data-new-code
							onClick={async () => {
								await attempt(() => ask(client.POST('/api/sharing/code')));
								again();
							}}
						>
							{s.code ? say('sharing.show-another-code') : say('sharing.show-a-code')}
						</button>
						<Said error={error} />
					</p>
				) : (
					<p>{say('sharing.the-code-is-shown-on')}</p>
				)}
				{s.fingerprint && (
					<p>
						{say('sharing.fingerprint')}
						<code className="block dim break-all">{s.fingerprint}</code>
					</p>
				)}
				{!s.tls && (
					<p className="border-l-4 border-warning pl-3">
						<Phrase id="sharing.plain" of={{ tls: <code className="dim">--tls</code> }} />
					</p>
				)}
			</div>
			{s.qr.length > 0 && <Code rows={s.qr} />}
		</div>
	);
}

/** Code is a QR code: dark squares on white, with its quiet zone. */
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
			aria-label={say('sharing.address-and-code-for-a')}
			shapeRendering="crispEdges"
			data-qr
		>
			<path d={path} fill="#000" />
		</svg>
	);
}
