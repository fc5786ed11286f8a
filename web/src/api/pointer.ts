/** at reads the value at a JSON pointer. */
export function at(doc: unknown, pointer: string): unknown {
	let v = doc;
	for (const token of pointer.split('/').slice(1)) v = (v as Record<string, unknown> | undefined)?.[token];
	return v;
}
