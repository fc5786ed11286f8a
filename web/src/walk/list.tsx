import { DndContext, DragOverlay, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { useQuery } from '@tanstack/react-query';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState } from 'react';
import { ask, client, type Door } from '../api';
import { CardHigh, CardWide, DoorCard, type OnWalk } from './card';

type Shown = { door: Door; number: number };

/** DoorList draws as many of the doors as are seen. */
export function DoorList({
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
	// A tap on the handle is no drag, nor is a finger that trembles.
	const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
	const drop = (id: string, over: string) => {
		const from = list.findIndex((x) => x.door.id === id);
		const to = list.findIndex((x) => x.door.id === over);
		if (from < 0 || to < 0 || from === to) return;
		// It takes the place of the one that it is dropped on.
		place(id, from < to ? (list[to + 1]?.door.id ?? '') : over);
	};
	return (
		<DndContext
			sensors={sensors}
			onDragStart={(e) => setDragged(String(e.active.id))}
			onDragCancel={() => setDragged('')}
			onDragEnd={(e) => {
				setDragged('');
				if (e.over) drop(String(e.active.id), String(e.over.id));
			}}
		>
			<ol ref={box} className="relative" style={{ height: rows.getTotalSize() }} data-list={list.length}>
				{rows.getVirtualItems().map((row) => {
					const doors = list.slice(row.index * at.columns, (row.index + 1) * at.columns);
					return (
						<Row
							key={row.index}
							doors={doors}
							on={on}
							total={list.length}
							columns={at.columns}
							top={row.start - at.top}
						/>
					);
				})}
			</ol>
			<DragOverlay dropAnimation={null}>
				{dragged && (
					<p className="bg-primary text-primary-content px-3 py-2 text-lg font-semibold">
						{list.find((x) => x.door.id === dragged)?.door.name}
					</p>
				)}
			</DragOverlay>
		</DndContext>
	);
}

/** Row is one row of doors, with the drawings of those alone. */
function Row({
	doors,
	on,
	total,
	columns,
	top,
}: {
	doors: Shown[];
	on: OnWalk;
	total: number;
	columns: number;
	top: number;
}) {
	const wanted = doors.filter((x) => x.door.drawn).map((x) => `${x.door.id}@${x.door.version}`);
	const drawings = useQuery({
		queryKey: ['drawings', on.job, ...wanted],
		enabled: wanted.length > 0,
		staleTime: Number.POSITIVE_INFINITY,
		gcTime: 60_000,
		queryFn: () =>
			ask(
				client.GET('/api/jobs/{job}/drawings', {
					params: {
						path: { job: on.job },
						query: { doors: wanted.map((w) => w.slice(0, w.lastIndexOf('@'))) },
					},
				}),
			),
	});
	return (
		<li
			role="presentation"
			className="absolute inset-x-0"
			style={{ transform: `translateY(${top}px)`, height: CardHigh }}
		>
			<ol
				role="presentation"
				className="grid gap-x-4"
				style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}
			>
				{doors.map(({ door, number }) => (
					<DoorCard
						key={door.id}
						door={door}
						number={number}
						drawing={drawings.data?.find((x) => x.id === door.id)?.drawing}
						on={on}
						total={total}
					/>
				))}
			</ol>
		</li>
	);
}
