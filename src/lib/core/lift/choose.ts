/** Things that share the same statements: what they should show, and how many of them. */
export interface Demand<V> {
	/** Names of what could say it, weakest first; the strongest that says something wins. */
	readonly sayers: readonly string[];
	/** Wanted values with their counts; undefined is nothing said. */
	readonly wanted: ReadonlyMap<V | undefined, number>;
}

/**
 * Chooses what each sayer says so that the number of settings plus the number of things that come out otherwise than
 * wanted is least. Greedy: the change that saves most, again and again; ties go to the weaker sayer.
 */
export function choose<V>(
	demands: readonly Demand<V>[],
	/** Sayers in the order in which they are preferred. */
	order: readonly string[]
): { settings: Map<string, V>; missed: number } {
	const settings = new Map<string, V>();
	const concerned = new Map<string, number[]>();
	const offered = new Map<string, Set<V>>();
	demands.forEach(({ sayers, wanted }, i) => {
		for (const sayer of sayers) {
			concerned.set(sayer, [...(concerned.get(sayer) ?? []), i]);
			const values = offered.get(sayer) ?? new Set<V>();
			offered.set(sayer, values);
			for (const value of wanted.keys()) if (value !== undefined) values.add(value);
		}
	});
	const totals = demands.map(({ wanted }) => [...wanted.values()].reduce((sum, count) => sum + count, 0));
	const missedIn = (i: number): number => {
		const { sayers, wanted } = demands[i]!;
		const winner = sayers.findLast((sayer) => settings.has(sayer));
		return totals[i]! - (wanted.get(winner === undefined ? undefined : settings.get(winner)) ?? 0);
	};
	const missed = demands.map((_, i) => missedIn(i));
	const names = order.filter((name) => concerned.has(name));
	/** What a change saves: fewer missed, less what the setting costs. */
	const saved = (name: string, value: V | undefined): number => {
		const before = settings.get(name);
		if (value === before) return 0;
		let change = (before === undefined ? 0 : 1) - (value === undefined ? 0 : 1);
		if (value === undefined) settings.delete(name);
		else settings.set(name, value);
		for (const i of concerned.get(name)!) change += missed[i]! - missedIn(i);
		if (before === undefined) settings.delete(name);
		else settings.set(name, before);
		return change;
	};
	for (let steps = 0; steps < 400; steps++) {
		let best: { name: string; value: V | undefined; gain: number } | undefined;
		for (const name of names)
			for (const value of [undefined, ...offered.get(name)!]) {
				const gain = saved(name, value);
				if (gain > (best?.gain ?? 0)) best = { name, value, gain };
			}
		if (!best) break;
		if (best.value === undefined) settings.delete(best.name);
		else settings.set(best.name, best.value);
		for (const i of concerned.get(best.name)!) missed[i] = missedIn(i);
	}
	return { settings, missed: missed.reduce((sum, count) => sum + count, 0) };
}
