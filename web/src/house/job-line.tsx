import { useQuery } from '@tanstack/react-query';
import { DoorOpen } from 'lucide-react';
import { Link } from 'react-router';
import { since } from '../api/access';
import type { JobHead } from '../api/client';
import { resources } from '../api/resources';
import { Daylight } from '../opening/drawing';
import { say } from '../words/texts';
import { stepName } from '../words/trade';
import { summary } from './openings';

/** most is how many openings a job has at most for its state to be told on the list of jobs. */
const most = 200;

/** JobLine is a job on the list: how it stands, what is next and its light, and when it was last touched. */
export function JobLine({ job: j }: { job: JobHead }) {
	const told = j.openings > 0 && j.openings <= most;
	const walk = useQuery({ ...resources.walk(j.id), enabled: told });
	const openings = walk.data?.openings;
	const next = openings?.find((d) => d.now) ?? openings?.find((d) => d.next);
	const at = next?.drawn ? [`${next.id}@${next.version}`] : [];
	const drawings = useQuery({ ...resources.drawings(j.id, at), enabled: at.length > 0 });
	const drawing = drawings.data?.[0]?.drawing;
	return (
		<Link
			to={`/j/${j.id}`}
			className="grow min-w-0 flex items-center gap-4 py-3 hover:bg-base-200 px-2 min-h-24"
			data-job={j.id}
		>
			<span
				className="w-14 h-18 shrink-0 overflow-hidden flex items-center justify-center"
				style={{ background: 'var(--shade)' }}
			>
				{drawing && next ? (
					<Daylight
						drawing={drawing}
						hand={next.hand}
						times={14}
						label={say('home.light-of-door', { door: next.name })}
						className="w-full h-full"
					/>
				) : (
					<DoorOpen aria-hidden="true" className="text-[var(--on-shade)]" />
				)}
			</span>
			<span className="grow min-w-0">
				<span className="block text-xl font-semibold">{j.name}</span>
				<span className="block" data-stands>
					{openings ? summary(openings) : say('page.count-doors', { count: j.openings })}
				</span>
				{next && (
					<span className="block" data-next-door>
						{say('home.next-door', { door: next.name, step: stepName(next.next), says: next.says })}
					</span>
				)}
				<span className="block text-sm opacity-80">
					{say(j.unit === 'in' ? 'home.in-inches' : 'home.in-millimetres')}
					{j.touched && ` · ${say('home.last-touched', { at: since(new Date(j.touched)) })}`}
				</span>
			</span>
		</Link>
	);
}
