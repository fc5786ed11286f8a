import {
	type Announcements,
	DndContext,
	DragOverlay,
	PointerSensor,
	pointerWithin,
	useSensor,
	useSensors,
} from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState } from 'react';
import type { OpeningRow } from '../api/client';
import { resources } from '../api/resources';
import { say } from '../words/texts';
import { CardHigh, CardWide, type OnWalk, OpeningCard } from './card';

type Shown = { opening: OpeningRow; number: number };

/** OpeningList renders only the openings that are in view. */
export function OpeningList({
	list,
	on,
	place,
}: {
	list: Shown[];
	on: OnWalk;
	place: (id: string, before: string) => void;
}) {
	const box = useRef<HTMLOListElement>(null);
	const [at, setAt] = useState({ columns: 3, top: 0 });
	const [dragged, setDragged] = useState('');
	useLayoutEffect(() => {
		const el = box.current;
		if (!el) return;
		const look = () =>
			setAt({
				columns: Math.max(1, Math.floor(el.clientWidth / CardWide)),
				top: el.getBoundingClientRect().top + scrollY,
			});
		look();
		const eye = new ResizeObserver(look);
		eye.observe(el);
		eye.observe(document.body); // what stands above it may have grown
		return () => eye.disconnect();
	}, []);
	const rows = useWindowVirtualizer({
		count: Math.ceil(list.length / at.columns),
		estimateSize: () => CardHigh,
		overscan: 2,
		scrollMargin: at.top,
	});
	// A tap on the handle is no drag, nor is a trembling finger.
	const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
	const drop = (id: string, over: string) => {
		const from = list.findIndex((x) => x.opening.id === id);
		const to = list.findIndex((x) => x.opening.id === over);
		if (from < 0 || to < 0 || from === to) return;
		// It takes the place of the one that it is dropped on.
		place(id, from < to ? (list[to + 1]?.opening.id ?? '') : over);
	};
	return (
		<DndContext
			sensors={sensors}
			collisionDetection={pointerWithin}
			accessibility={{ announcements: told(list) }}
			onDragStart={(e) => setDragged(String(e.active.id))}
			onDragCancel={() => setDragged('')}
			onDragEnd={(e) => {
				setDragged('');
				if (e.over) drop(String(e.active.id), String(e.over.id));
			}}
		>
			<ol ref={box} className="relative" style={{ height: rows.getTotalSize() }} data-list={list.length}>
				{rows.getVirtualItems().map((r) => {
					const row = list.slice(r.index * at.columns, (r.index + 1) * at.columns);
					return row.map((x, column) => (
						<Placed
							key={x.opening.id}
							shown={x}
							row={row}
							on={on}
							total={list.length}
							style={{
								width: `calc((100% - ${at.columns - 1}rem) / ${at.columns})`,
								// Not by a transform: what is dragged over is found without it.
								left: `calc(${column} * (100% + 1rem) / ${at.columns})`,
								top: r.start - at.top,
							}}
						/>
					));
				})}
			</ol>
			<DragOverlay dropAnimation={null}>
				{dragged && (
					<p className="bg-primary text-primary-content px-3 py-2 text-lg font-semibold">
						{list.find((x) => x.opening.id === dragged)?.opening.name}
					</p>
				)}
			</DragOverlay>
		</DndContext>
	);
}

/** told announces the drag and its target, by name. */
const told = (list: Shown[]): Announcements => {
	const name = (id: string | number) => list.find((x) => x.opening.id === id)?.opening.name ?? '';
	return {
		onDragStart: ({ active }) => say('walk.name-is-picked-up', { name: name(active.id) }),
		onDragOver: ({ over }) => (over ? say('walk.over-name', { name: name(over.id) }) : undefined),
		onDragEnd: ({ active, over }) =>
			over
				? say('walk.name-takes-the-place-of', { name: name(active.id), other: name(over.id) })
				: say('walk.name-stays-where-it-was', { name: name(active.id) }),
		onDragCancel: ({ active }) => say('walk.name-stays-where-it-was', { name: name(active.id) }),
	};
};

/** Placed is an opening in its place; its drawing is fetched with those of its row. */
function Placed({
	shown,
	row,
	on,
	total,
	style,
}: {
	shown: Shown;
	row: Shown[];
	on: OnWalk;
	total: number;
	style: React.CSSProperties;
}) {
	const wanted = row.filter((x) => x.opening.drawn).map((x) => `${x.opening.id}@${x.opening.version}`);
	const drawings = useQuery({ ...resources.drawings(on.job, wanted), enabled: wanted.length > 0 });
	return (
		<OpeningCard
			opening={shown.opening}
			number={shown.number}
			drawing={drawings.data?.find((x) => x.id === shown.opening.id)?.drawing}
			on={on}
			total={total}
			style={style}
		/>
	);
}
