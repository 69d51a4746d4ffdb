/** A value that is made when it is first asked for, and only then. */
export function once<T>(make: () => T): () => T {
	let made: { readonly value: T } | undefined;
	return () => (made ??= { value: make() }).value;
}
