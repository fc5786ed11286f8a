import { useDraggable, useDroppable } from '@dnd-kit/core';
import { GripVertical, OctagonAlert, Trash2, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import type { Drawing, OpeningRow } from '../api/client';
import { Daylight } from '../opening/drawing';
import { say } from '../words/texts';
import { stepName } from '../words/trade';

/** The actions on an opening of the walk. */
export type OnWalk = {
	job: string;
	take: (d: OpeningRow) => void;
	/** Set while openings are being chosen: a tap chooses one. */
	choose?: (id: string) => void;
	chosen: Set<string>;
	/** Openings can be moved: the list is in the order of the walk. */
	moves: boolean;
};

/** CardHigh is the height of a card, and CardWide its least width, in px. */
export const CardHigh = 204;
export const CardWide = 384;

/** OpeningCard is one opening of the walk: its drawing, its step, what it waits for, its doubts. */
export function OpeningCard({
	opening: d,
	number,
	drawing,
	on,
	total,
	style,
}: {
	opening: OpeningRow;
	number: number;
	drawing?: Drawing;
	on: OnWalk;
	total: number;
	style: React.CSSProperties;
}) {
	const drop = useDroppable({ id: d.id });
	const drag = useDraggable({ id: d.id, disabled: !on.moves });
	const over = drop.isOver && on.moves && !drag.isDragging;
	const done = d.steps.filter((s) => s === 'done').length;
	const light = (
		<span className="block w-[7.5rem] shrink-0 overflow-hidden bg-[var(--shade)]">
			{drawing && (
				<Daylight
					drawing={drawing}
					hand={d.hand}
					times={14}
					label={say('walk.name-the-gaps-round-the', { name: d.name })}
					className="w-full h-full"
				/>
			)}
		</span>
	);
	const words = (
		<span className="block min-w-0 grow py-1">
			<span className="flex items-baseline gap-2">
				<strong className="text-xl truncate">
					{number}. {d.name}
				</strong>
			</span>
			<span className="block opacity-80 truncate">
				{[d.room || say('walk.room-not-named'), d.slab].filter(Boolean).join(' · ')}
			</span>
			<Steps opening={d} />
			<span className="block leading-snug line-clamp-2">
				{d.working ? (
					say('walk.being-worked-out')
				) : d.signed ? (
					say('walk.signed-off')
				) : d.next ? (
					<>
						<strong>{stepName(d.next)}</strong>: {d.says}
					</>
				) : (
					say('walk.done')
				)}
			</span>
			{d.stops[0] && (
				<span className="flex gap-1.5 text-error font-semibold leading-snug">
					<OctagonAlert size={18} className="shrink-0 mt-0.5" aria-hidden="true" />
					<span className="line-clamp-2">{d.stops[0]}</span>
				</span>
			)}
			{!d.stops[0] && d.cares > 0 && (
				<span className="flex gap-1.5 text-warning leading-snug">
					<TriangleAlert size={18} className="shrink-0 mt-0.5" aria-hidden="true" />
					{say('walk.count-things-ask-for-care', { count: d.cares })}
				</span>
			)}
			<span className="sr-only">{say('walk.done-of-steps-steps-done', { done, steps: d.steps.length })}</span>
		</span>
	);
	const ground = 'flex gap-3 h-36 w-full text-left hover:bg-base-200 focus-visible:relative';
	return (
		<li
			ref={drop.setNodeRef}
			data-door={d.id}
			data-over={over || undefined}
			aria-setsize={total}
			aria-posinset={number}
			style={style}
			className={`absolute min-w-0 border-t-4 ${over ? 'border-primary' : 'border-transparent'} ${drag.isDragging ? 'opacity-40' : ''}`}
		>
			{on.choose ? (
				<label className={`${ground} cursor-pointer relative`}>
					{light}
					{words}
					<input
						type="checkbox"
						className="checkbox checkbox-primary absolute left-2 top-2 size-9 not-checked:bg-base-100"
						checked={on.chosen.has(d.id)}
						onChange={() => on.choose?.(d.id)}
						aria-label={say('walk.choose-name', { name: d.name })}
						data-choose={d.id}
					/>
				</label>
			) : (
				<Link to={`/j/${on.job}/${d.id}/${d.next || 'log'}`} className={ground}>
					{light}
					{words}
				</Link>
			)}
			<span className="flex">
				{on.moves && (
					<button
						type="button"
						ref={drag.setNodeRef}
						{...drag.listeners}
						className="btn btn-ghost font-normal px-2 cursor-grab touch-none"
						data-move={d.id}
					>
						<GripVertical size={18} aria-hidden="true" /> {say('walk.move')}
						<span className="sr-only"> {say('walk.name-drag-it-or-press', { name: d.name })}</span>
					</button>
				)}
				<button
					type="button"
					className="btn btn-ghost font-normal px-2"
					onClick={() => on.take(d)}
					data-take-off={d.id}
				>
					<Trash2 size={18} aria-hidden="true" /> {say('page.take-off')}
					<span className="sr-only">: {d.name}</span>
				</button>
			</span>
		</li>
	);
}

/** Steps is the opening's strip of steps, small: a notch is done, a slash has changed, a triangle is the next one. */
function Steps({ opening: d }: { opening: OpeningRow }) {
	// In its own order, the next one is the first that is not done.
	const next = d.steps.findIndex((s) => s !== 'done');
	return (
		<svg viewBox="0 0 200 16" className="w-full max-w-52 h-4 my-0.5" aria-hidden="true">
			<rect x="0" y="5" width="200" height="9" fill="var(--rod)" stroke="var(--rod-edge)" />
			{d.steps.map((state, i) => {
				const x = 10 + i * 20;
				return (
					// biome-ignore lint/suspicious/noArrayIndexKey: a step is its place in the order
					<g key={i}>
						{state === 'done' && <path d={`M${x - 6} 5 L${x} 14 L${x + 6} 5 Z`} fill="var(--rod-ink)" />}
						{state === 'changed' && (
							<path d={`M${x - 5} 5 L${x + 3} 13`} stroke="var(--rod-ink)" strokeWidth="2" />
						)}
						{i === next && <path d={`M${x - 5} 0 L${x + 5} 0 L${x} 6 Z`} fill="var(--chalk)" />}
					</g>
				);
			})}
		</svg>
	);
}
