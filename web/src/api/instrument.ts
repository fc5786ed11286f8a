/** Length is a length sent by an instrument, as typed. */
export type Length = { id: string; text: string; from: string };

/** Taker is an entry that accepts an instrument's length. */
export type Taker = {
	/** What is typed in it. */
	typed: () => string;
	/** Enters a text as if it was typed and ended with Enter. */
	take: (text: string) => void;
	/** It accepts a length without focus: the reading or the gap that comes next. */
	next?: boolean;
};

const takers = new Set<Taker>();
let inHand: Taker | undefined;

/** register adds an entry until the returned function is called. */
export function register(taker: Taker): () => void {
	takers.add(taker);
	return () => {
		takers.delete(taker);
		if (inHand === taker) inHand = undefined;
	};
}

/** hold makes an entry the current one; pressing a button does not change which one that is. */
export function hold(taker: Taker) {
	inHand = taker;
}

/** apart is how far apart the lengths of two instruments must be, in ms, for both to be entered. */
const apart = 1500;
let last = { at: 0, from: '' };

/**
 * enter types a length into the current entry, with Enter. It does not where there is none, where something is half
 * typed, or where another instrument has only just sent one: then a person decides which was meant.
 */
export function enter(l: Length, anyway = false): boolean {
	const soon = Date.now() - last.at < apart && last.from !== l.from;
	const taker = inHand ?? [...takers].find((t) => t.next);
	if (!taker || (!anyway && (taker.typed() !== '' || soon))) return false;
	last = { at: Date.now(), from: l.from };
	taker.take(l.text);
	return true;
}
