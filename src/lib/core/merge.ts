/** A value as JSON has it. */
type Json = unknown;
type Group = Readonly<Record<string, Json>>;

const isGroup = (value: Json): value is Group => typeof value === 'object' && value !== null && !Array.isArray(value);
export const same = (a: Json, b: Json): boolean => {
	if (a === b) return true;
	if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((one, i) => same(one, b[i]));
	if (!isGroup(a) || !isGroup(b)) return false;
	const names = new Set([...Object.keys(a), ...Object.keys(b)]);
	return [...names].every((name) => same(a[name], b[name]));
};

/** A place where two changes of one thing do not agree. Undefined: it is not there. */
export interface Clash {
	/** Names from the outside in. */
	readonly path: readonly string[];
	readonly mine: Json;
	readonly theirs: Json;
}

/**
 * Two changes of one thing laid over each other, leaf by leaf: what one of them left alone is as the other made it. Where both
 * changed a leaf, and not to the same, `merged` has theirs, and the clash is named; lists are leaves. `mine` laid over `merged` at
 * the clashes is what stands if one's own counts there.
 */
export function mergedLeaves<T>(base: T, mine: T, theirs: T): { merged: T; mine: T; clashes: Clash[] } {
	const clashes: Clash[] = [];
	const both = (a: Json, b: Json, c: Json, path: readonly string[]): readonly [merged: Json, mine: Json] => {
		if (same(b, c) || same(a, b)) return [c, c];
		if (same(a, c)) return [b, b];
		// A group that one side took out is one whose leaves it took out.
		const groups = [a, b, c].map((one) => (one === undefined ? {} : one));
		if (groups.every(isGroup) && [b, c].some(isGroup)) {
			const [before, mine, theirs] = groups as [Group, Group, Group];
			const [merged, own]: [Record<string, Json>, Record<string, Json>] = [{}, {}];
			for (const name of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
				const [one, other] = both(before[name], mine[name], theirs[name], [...path, name]);
				if (one !== undefined) merged[name] = one;
				if (other !== undefined) own[name] = other;
			}
			const isThere = [b, c].every(isGroup);
			return [merged, own].map((group) => (isThere || Object.keys(group).length ? group : undefined)) as [Json, Json];
		}
		clashes.push({ path, mine: b, theirs: c });
		return [c, b];
	};
	const [merged, own] = both(base, mine, theirs, []);
	return { merged: merged as T, mine: own as T, clashes };
}
