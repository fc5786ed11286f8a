/** Length is a length that an instrument sent, as it is typed. */
export type Length = { id: string; text: string; from: string };

/** Taker is an entry that takes the length of an instrument. */
export type Taker = {
	/** What is typed in it. */
	typed: () => string;
	/** Takes a text as if it was typed and ended with Enter. */
	take: (text: string) => void;
	/** It takes a length though no hand is on it: the reading or the gap that comes next. */
	next?: boolean;
};

const takers = new Set<Taker>();
let inHand: Taker | undefined;

/** register lets an entry take lengths until what it returns is called. */
export function register(taker: Taker): () => void {
	takers.add(taker);
	return () => {
		takers.delete(taker);
		if (inHand === taker) inHand = undefined;
	};
}

/** hold makes an entry the one in hand; a tap on a button does not change which one was meant. */
export function hold(taker: Taker) {
	inHand = taker;
}

/** apart is how far apart two instruments speak to be taken each at its word, ms. */
const apart = 1500;
let last = { at: 0, from: '' };

/**
 * enter puts a length into the entry that waits, as if it was typed with Enter. It does not where none
 * waits, where something is half typed, or where another instrument has only just spoken: which of two
 * was meant for it a person decides.
 */
export function enter(l: Length, anyway = false): boolean {
	const soon = Date.now() - last.at < apart && last.from !== l.from;
	const taker = inHand ?? [...takers].find((t) => t.next);
	if (!taker || (!anyway && (taker.typed() !== '' || soon))) return false;
	last = { at: Date.now(), from: l.from };
	taker.take(l.text);
	return true;
}
