import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import { ask, client, newKey, once, type Schemas, Trouble } from './api';
import { useDoor } from './door-state';
import { whoNow } from './who';

type Photo = Schemas['PhotoView'];

/** How large a photograph is kept, at its longer side. */
const widest = 1600;
const largestFile = 60 << 20;

/** smaller brings a picture down before it is sent, and leaves out all that it says of where it was taken. */
async function smaller(file: File): Promise<Blob> {
	if (file.size > largestFile)
		throw new Trouble(
			`${file.name} is ${Math.round(file.size / 2 ** 20)} MB: that is no photograph of a door.`,
			0,
		);
	const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => {
		throw new Trouble(`${file.name} is not a picture that can be read, or it is damaged.`, 0);
	});
	const by = Math.min(widest / Math.max(bitmap.width, bitmap.height), 1);
	const canvas = document.createElement('canvas');
	canvas.width = Math.max(Math.round(bitmap.width * by), 1);
	canvas.height = Math.max(Math.round(bitmap.height * by), 1);
	canvas.getContext('2d')?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
	bitmap.close();
	return new Promise((done, fail) =>
		canvas.toBlob(
			(b) => (b ? done(b) : fail(new Trouble('The picture could not be made smaller.', 0))),
			'image/jpeg',
			0.85,
		),
	);
}

/** useLog is the story of the door in hand; where its changes matter, as of its newest version. */
export function useLog(changes = false) {
	const { view } = useDoor();
	const path = { job: view.job.id, opening: view.opening.id };
	return useQuery({
		queryKey: ['log', path.job, path.opening, changes ? view.version : 0],
		queryFn: () => ask(client.GET('/api/jobs/{job}/openings/{opening}/log', { params: { path } })),
		placeholderData: (before) => before,
	});
}

/** photoURL is where a photograph's picture is. */
export const photoURL = (job: string, opening: string, id: string) =>
	`/api/jobs/${job}/openings/${opening}/photos/${id}`;

/** Photos are those of one step, to add to and to take off. */
export function Photos({ step }: { step: string }) {
	const { view } = useDoor();
	const cache = useQueryClient();
	const log = useLog();
	const path = { job: view.job.id, opening: view.opening.id };
	const [said, say] = useState('');
	const [gone, setGone] = useState<Photo | null>(null);
	const list = (log.data?.photos ?? []).filter((p) => p.step === step);
	const again = () => cache.invalidateQueries({ queryKey: ['log', path.job, path.opening] });
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
				// Where the answer was lost on the way, it is sent again, and kept once.
				const r = await post()
					.catch(post)
					.catch(() => {
						throw new Trouble('Kind Margin does not answer: the photograph was not kept. Try it again.', 0);
					});
				if (!r.ok)
					throw new Trouble(
						(await r.json().catch(() => ({}))).detail ?? 'The photograph was not kept.',
						r.status,
					);
			}
		},
		onSuccess: () => say(''),
		onError: (e) => say(e.message),
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
			say('');
		} catch (e) {
			say((e as Error).message);
		}
		again();
	};
	return (
		<section className="mb-4 no-print" aria-label="Photographs">
			<ul className="flex flex-wrap gap-2">
				{list.map((p) => (
					<li key={p.id} className="relative">
						<a href={photoURL(path.job, path.opening, p.id)} target="_blank" rel="noreferrer">
							<img
								src={photoURL(path.job, path.opening, p.id)}
								alt={p.caption || `Photograph, ${p.at.slice(0, 10)}`}
								className="h-28 w-auto object-cover"
								data-photo={p.id}
							/>
						</a>
						<button type="button" className="btn btn-sm min-h-11" onClick={() => take(p, true)}>
							Take off
						</button>
					</li>
				))}
			</ul>
			{gone && (
				<p className="my-1">
					A photograph was taken off.{' '}
					<button type="button" className="btn" onClick={() => take(gone, false)}>
						Put it back
					</button>
				</p>
			)}
			<label className="btn cursor-pointer mt-1">
				<Camera size={20} aria-hidden="true" />
				{add.isPending ? 'Keeping it…' : 'Add a photograph'}
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
