import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import { ask, client, newKey, once, type Schemas, Trouble } from '../../../api/client';
import { resources } from '../../../api/resources';
import { whoNow } from '../../../api/who';
import { say } from '../../../words/texts';
import { useOpening } from '../../state';

type Photo = Schemas['PhotoView'];

/** The size of a kept photograph, at its longer side. */
const widest = 1600;
const largestFile = 60 << 20;

/** smaller scales a picture down before it is sent, without its metadata. */
async function smaller(file: File): Promise<Blob> {
	if (file.size > largestFile)
		throw new Trouble(
			say('page.file-is-size-mb-too', { file: file.name, size: Math.round(file.size / 2 ** 20) }),
			0,
		);
	const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
		throw new Trouble(say('page.file-cannot-be-read-as', { file: file.name }), 0);
	});
	const by = Math.min(widest / Math.max(bitmap.width, bitmap.height), 1);
	const canvas = document.createElement('canvas');
	canvas.width = Math.max(Math.round(bitmap.width * by), 1);
	canvas.height = Math.max(Math.round(bitmap.height * by), 1);
	canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
	bitmap.close();
	return new Promise((done, fail) =>
		canvas.toBlob(
			(b) => (b ? done(b) : fail(new Trouble(say('page.the-picture-could-not-be'), 0))),
			'image/jpeg',
			0.85,
		),
	);
}

/** useLog is the record of the opening in hand; where its changes matter, at its newest version. */
export function useLog(changes = false) {
	const { view } = useOpening();
	const path = { job: view.job.id, opening: view.opening.id };
	return useQuery(resources.log(path.job, path.opening, changes ? view.version : 0));
}

/** photoURL is the address of a photograph. */
export const photoURL = (job: string, opening: string, id: string) =>
	`/api/jobs/${job}/openings/${opening}/photos/${id}`;

/** Photos are those of one step, to add to and to remove. */
export function Photos({ step }: { step: string }) {
	const { view } = useOpening();
	const cache = useQueryClient();
	const log = useLog();
	const path = { job: view.job.id, opening: view.opening.id };
	const [said, setSaid] = useState('');
	const [gone, setGone] = useState<Photo | null>(null);
	const list = (log.data?.photos ?? []).filter((p) => p.step === step);
	const again = () => cache.invalidateQueries({ queryKey: resources.log(path.job, path.opening).queryKey });
	const add = useMutation({
		mutationFn: async (files: File[]) => {
			for (const file of files) {
				const body = await smaller(file);
				const query = new URLSearchParams({ step, by: whoNow(), caption: '' });
				const key = newKey();
				const post = () =>
					fetch(`/api/jobs/${path.job}/openings/${path.opening}/photos?${query}`, {
						method: 'POST',
						headers: { 'Content-Type': 'image/jpeg', ...once(key).header },
						body,
					});
				// Where the answer was lost it is sent again, and stored once.
				const r = await post()
					.catch(post)
					.catch(() => {
						throw new Trouble(say('page.photo-not-kept'), 0);
					});
				if (!r.ok)
					throw new Trouble(
						(await r.json().catch(() => ({}))).detail ?? say('page.the-photograph-was-not-kept'),
						r.status,
					);
			}
		},
		onSuccess: () => setSaid(''),
		onError: (e) => setSaid(e.message),
		onSettled: again,
	});
	const take = async (p: Photo, off: boolean) => {
		const params = { path: { ...path, photo: p.id } };
		try {
			await ask(
				off
					? client.DELETE('/api/jobs/{job}/openings/{opening}/photos/{photo}', { params })
					: client.POST('/api/jobs/{job}/openings/{opening}/photos/{photo}/restore', { params }),
			);
			setGone(off ? p : null);
			setSaid('');
		} catch (e) {
			setSaid((e as Error).message);
		}
		again();
	};
	return (
		<section className="mb-4 no-print" aria-label={say('page.photographs')}>
			<ul className="flex flex-wrap gap-2">
				{list.map((p) => (
					<li key={p.id} className="relative">
						<a href={photoURL(path.job, path.opening, p.id)} target="_blank" rel="noreferrer">
							<img
								src={photoURL(path.job, path.opening, p.id)}
								alt={p.caption || say('page.photograph', { of: p.at.slice(0, 10) })}
								className="h-28 w-auto object-cover"
								data-photo={p.id}
							/>
						</a>
						<button type="button" className="btn btn-sm min-h-11" onClick={() => take(p, true)}>
							{say('page.take-off')}
						</button>
					</li>
				))}
			</ul>
			{gone && (
				<p className="my-1">
					{say('page.photo-off')}{' '}
					<button type="button" className="btn" onClick={() => take(gone, false)}>
						{say('page.put-it-back')}
					</button>
				</p>
			)}
			<label className="btn cursor-pointer mt-1">
				<Camera size={20} aria-hidden="true" />
				{add.isPending ? say('page.keeping-it') : say('page.add-a-photograph')}
				<input
					type="file"
					accept="image/*"
					multiple
					className="sr-only"
					data-field="photo"
					onChange={(e) => {
						const files = [...(e.target.files ?? [])];
						e.target.value = '';
						if (files.length > 0) add.mutate(files);
					}}
				/>
			</label>
			{said && (
				<p role="alert" className="text-error font-semibold">
					{said}
				</p>
			)}
		</section>
	);
}
