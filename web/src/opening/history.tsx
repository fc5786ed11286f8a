import { Redo2, Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { ToolButton } from '../ui/toolbutton';
import { say } from '../words/texts';

type Props = {
	/** What the next undo and the next redo change; empty where there is none. */
	undo: string;
	redo: string;
	move: (way: 'undo' | 'redo') => void;
};

/** History has the buttons that undo and redo changes of the opening. */
export function History({ undo, redo, move }: Props) {
	return (
		<>
			<Move
				change={undo}
				name={say('page.undo')}
				title={undo ? say('door.undo-change', { change: undo }) : say('door.nothing-to-undo')}
				press={() => move('undo')}
				data-undo
			>
				<Undo2 size={20} aria-hidden="true" />
			</Move>
			<Move
				change={redo}
				name={say('door.redo')}
				title={redo ? say('door.redo-change', { change: redo }) : say('door.nothing-to-redo')}
				press={() => move('redo')}
				data-redo
			>
				<Redo2 size={20} aria-hidden="true" />
			</Move>
		</>
	);
}

type MoveProps = { change: string; name: string; title: string; press: () => void; children: ReactNode };

function Move({
	change,
	name,
	title,
	press,
	children,
	...hooks
}: MoveProps & Record<`data-${string}`, boolean>) {
	return (
		<ToolButton aria-disabled={!change} title={title} onClick={() => change && press()} {...hooks}>
			{children}
			<span className="max-xl:sr-only">{name}</span>
			<span className="sr-only">: {change || say('door.nothing-left')}</span>
		</ToolButton>
	);
}
