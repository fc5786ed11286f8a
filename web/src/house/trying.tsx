import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { Said, useAttempt } from '../api/attempt';
import { ask, client, type JobHead, newKey, once } from '../api/client';
import { resources } from '../api/resources';
import { deviceLocale, keepJobLocale } from '../words/locale';
import { say } from '../words/texts';

const place = 'trying';

/** trying is the ID of the job of a door to try on this client; empty for none. */
const trying = () => localStorage.getItem(place) ?? '';

/** TryADoor begins a door to try, without a job being asked for. */
export function TryADoor() {
	const go = useNavigate();
	const cache = useQueryClient();
	const [error, attempt] = useAttempt();
	// Asked again after an answer that was lost, it is still one job and one door.
	const [key, doorKey] = useMemo(() => [newKey(), newKey()], []);
	const begin = () =>
		attempt(async () => {
			const name = say('home.a-door-to-try');
			const unit = deviceLocale() === 'en-US' ? 'in' : 'mm';
			const j = await ask(client.POST('/api/jobs', { params: once(key), body: { name, unit } }));
			keepJobLocale(j);
			const v = await ask(
				client.POST('/api/jobs/{job}/openings', {
					params: { path: { job: j.id }, ...once(doorKey) },
					body: { name, room: '' },
				}),
			);
			localStorage.setItem(place, j.id);
			cache.invalidateQueries({ queryKey: resources.jobs().queryKey });
			go(`/j/${j.id}/${v.opening.id}/measure`);
		});
	return (
		<p className="mt-4">
			<button type="button" className="btn text-lg" onClick={begin} data-try-door>
				{say('home.try-a-door')}
			</button>{' '}
			<span className="opacity-80">{say('home.without-a-job')}</span>
			<Said error={error} />
		</p>
	);
}

/** Trying asks, where a job is that of a door to try, whether it is kept or thrown away. */
export function Trying({ head, done }: { head: JobHead; done: () => void }) {
	const go = useNavigate();
	const cache = useQueryClient();
	const [is, setIs] = useState(trying() === head.id);
	const [error, attempt] = useAttempt();
	if (!is) return null;
	const settled = () => {
		localStorage.removeItem(place);
		setIs(false);
		cache.invalidateQueries({ queryKey: resources.jobs().queryKey });
		done();
	};
	const throwAway = () =>
		attempt(async () => {
			await ask(
				client.DELETE('/api/jobs/{job}', {
					params: { path: { job: head.id }, header: { 'If-Match': `"${head.version}"` } },
				}),
			);
			settled();
			go('/');
		});
	return (
		<div className="border-l-4 border-info pl-3 mb-3 flex flex-wrap gap-3 items-center" data-trying>
			<span className="grow">{say('home.this-is-a-door-to-try')}</span>
			<button type="button" className="btn" onClick={settled} data-keep-it>
				{say('home.keep-it')}
			</button>
			<button type="button" className="btn" onClick={throwAway} data-throw-away>
				{say('home.throw-it-away')}
			</button>
			<Said error={error} className="basis-full" />
		</div>
	);
}
