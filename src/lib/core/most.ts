/** What most of some values are, the first of several; those of one key count together. There has to be one. */
export function mostOf<T>(values: readonly T[], keyOf: (value: T) => unknown = (value) => value): T {
	const counts = new Map<unknown, { value: T; count: number }>();
	for (const value of values) {
		const key = keyOf(value);
		const known = counts.get(key);
		if (known) known.count++;
		else counts.set(key, { value, count: 1 });
	}
	return [...counts.values()].reduce((most, one) => (one.count > most.count ? one : most)).value;
}
