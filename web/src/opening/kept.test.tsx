// @vitest-environment jsdom
import { act } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Op, Trouble } from '../api/client';
import { useKept } from './kept';
import { OpeningContext, type OpeningState } from './state';

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

let root: Root;
let kept: ReturnType<typeof useKept>;
const save = vi.fn<(ops: Op[], label: string) => Promise<{ texts: Record<string, string> }>>();

function Probe() {
	kept = useKept('/slab/width', 'Width');
	return null;
}

function draw(text: string, opening = 'hall') {
	const view = { job: { id: 'house' }, opening: { id: opening }, texts: { '/slab/width': text } };
	root.render(
		<OpeningContext value={{ view, save } as unknown as OpeningState}>
			<Probe key={opening} />
		</OpeningContext>,
	);
}

/** shows draws the entry with what the opening holds now. */
const shows = (text: string, opening?: string) => act(async () => draw(text, opening));

/** saves answers a change as the program does: the opening that comes back is drawn. */
const saves = (text: string) =>
	save.mockImplementation(async () => {
		draw(text);
		return { texts: { '/slab/width': text } };
	});

const types = (text: string) => act(async () => kept.type(text));
const enters = async (text: string, anyway = false) => {
	let was = false;
	await act(async () => {
		was = await kept.keep(text, anyway);
	});
	return was;
};

beforeEach(async () => {
	sessionStorage.clear();
	save.mockReset();
	root = createRoot(document.createElement('div'));
	await shows('762 mm');
});
afterEach(() => act(async () => root.unmount()));

describe('what is typed and not kept yet', () => {
	it('outlives the page, and is forgotten once it is kept', async () => {
		await types('76');
		await act(async () => root.unmount());
		root = createRoot(document.createElement('div'));
		await shows('762 mm');
		expect(kept.text).toBe('76');
		saves('765 mm');
		expect(await enters('765')).toBe(true);
		expect(save).toHaveBeenCalledWith([{ op: 'add', path: '/slab/width', value: '765' }], 'Width 765');
		expect(sessionStorage).toHaveLength(0);
		expect(kept.text).toBe('765 mm');
	});
	it('is of one opening alone', async () => {
		await types('76');
		await shows('838 mm', 'galley');
		expect(kept.text).toBe('838 mm');
	});
	it('stays as it was typed where it is refused', async () => {
		save.mockRejectedValue(new Trouble('no length', 422, []));
		await types('7 6');
		expect(await enters('7 6')).toBe(false);
		expect(kept.text).toBe('7 6');
		expect(kept.error).toBe('no length');
	});
	it('waits without being wrong where there is no signal', async () => {
		save.mockRejectedValue(new Trouble('kept here', 0, []));
		await types('770');
		expect(await enters('770')).toBe(false);
		expect(kept.error).toBe('');
		expect(kept.waits).toBe('kept here');
		await shows('770');
		expect(kept.waits).toBe('');
	});
});

describe('what another one kept meanwhile', () => {
	it('shows where nothing is typed, and never touches what is', async () => {
		await shows('770 mm');
		expect(kept.text).toBe('770 mm');
		await types('77');
		await shows('780 mm');
		expect(kept.text).toBe('77');
	});
	it('is not written over before a person has said which holds', async () => {
		await types('775');
		await shows('780 mm');
		expect(await enters('775')).toBe(false);
		expect(save).not.toHaveBeenCalled();
		expect(kept.clash?.theirs).toBe('780 mm');
		expect(kept.clash?.mine).toBe('775');
		saves('775 mm');
		await act(async () => {
			await kept.clash?.keep();
		});
		expect(save).toHaveBeenCalledTimes(1);
		expect(kept.text).toBe('775 mm');
	});
});
