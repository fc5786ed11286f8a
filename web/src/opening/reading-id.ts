/** readingID identifies what is read, in any language: "width 1800", "plumb hinge 1800 200". */
export function readingID(r: { kind: string; side?: string; at?: number; from?: number; to?: number }) {
	return [r.kind, r.side, r.at, r.from, r.to].filter(Boolean).join(' ');
}
