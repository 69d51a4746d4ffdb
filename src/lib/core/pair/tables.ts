import { likenessOf, portraitOf, type Likeness, type Pairable, type Portrait } from './likeness.ts';

/** Two tables that are one in two versions of a document, by their indices. */
export interface TablePair extends Likeness {
	readonly old: number;
	readonly new: number;
}

export interface Pairing {
	/** By their place in the old document. */
	readonly pairs: readonly TablePair[];
	readonly gone: readonly number[];
	readonly new: readonly number[];
}

/** Less like each other, two tables are two. */
const LEAST = 0.38;
/** Up to so many tables are each looked at with all others. */
const FEW = 120;
/** Where there are more, with so many each: those that share most texts first. */
const MOST_LOOKED_AT = 40;

/** The pairs of tables that are worth looking at: all of them, or those that share texts. */
function candidates(before: readonly Pairable[], after: readonly Pairable[]): (readonly number[])[] {
	const all = after.map((_, j) => j);
	if (after.length <= FEW && before.length <= FEW) return before.map(() => all);
	const at = new Map<string, number[]>();
	const textsOf = ({ table, place }: Pairable) =>
		new Set([...table.cells.map(({ text }) => text.trim()), place.caption ?? '', `${table.rows}×${table.columns}`]);
	after.forEach((one, j) => {
		for (const text of textsOf(one)) {
			const known = at.get(text);
			if (known) known.push(j);
			else at.set(text, [j]);
		}
	});
	return before.map((one, i) => {
		const scores = new Map<number, number>();
		for (const text of textsOf(one)) {
			const places = at.get(text) ?? [];
			// What stands everywhere tells nothing apart.
			const worth = 1 / Math.max(1, places.length);
			for (const j of places) scores.set(j, (scores.get(j) ?? 0) + worth);
		}
		const near = (j: number) => Math.abs(j / after.length - i / before.length);
		return [...scores]
			.sort(([a, x], [b, y]) => y - x || near(a) - near(b))
			.slice(0, MOST_LOOKED_AT)
			.map(([j]) => j);
	});
}

/**
 * Pairs the tables of two versions of a document, each at most once: the likeliest first; among twins the order stays. The
 * other way round it finds the same pairs.
 */
export function pairTables(before: readonly Pairable[], after: readonly Pairable[]): Pairing {
	const was = before.map(portraitOf);
	const is = after.map(portraitOf);
	const known = new Map<number, Likeness>();
	const key = (i: number, j: number) => i * after.length + j;
	const likeness = (i: number, j: number): Likeness => {
		let found = known.get(key(i, j));
		if (!found) known.set(key(i, j), (found = likenessOf(was[i]!, is[j]!)));
		return found;
	};
	const offers: [number, number][] = [];
	const offered = new Set<number>();
	const offer = (i: number, j: number) => {
		if (offered.has(key(i, j))) return;
		offered.add(key(i, j));
		if (likeness(i, j).sure >= LEAST) offers.push([i, j]);
	};
	candidates(before, after).forEach((some, i) => some.forEach((j) => offer(i, j)));
	candidates(after, before).forEach((some, j) => some.forEach((i) => offer(i, j)));
	const rounded = ([i, j]: [number, number]) => Math.round(likeness(i, j).sure * 1e6);
	offers.sort(
		(a, b) => rounded(b) - rounded(a) || Math.abs(a[0] - a[1]) - Math.abs(b[0] - b[1]) || a[0] + a[1] - b[0] - b[1]
	);
	const ofOld = new Map<number, number>();
	const taken = new Set<number>();
	for (const [i, j] of offers) {
		if (ofOld.has(i) || taken.has(j)) continue;
		ofOld.set(i, j);
		taken.add(j);
	}
	inOrder(ofOld, was, is);
	const pairs = [...ofOld]
		.sort(([a], [b]) => a - b)
		.map(([i, j]): TablePair => ({
			old: i,
			new: j,
			sure: Number(likeness(i, j).sure.toFixed(2)),
			why: likeness(i, j).why
		}));
	return {
		pairs,
		gone: before.flatMap((_, i) => (ofOld.has(i) ? [] : [i])),
		new: after.flatMap((_, j) => (taken.has(j) ? [] : [j]))
	};
}

/** Tables that say the same and have the same around them stay in their order. */
function inOrder(ofOld: Map<number, number>, was: readonly Portrait[], is: readonly Portrait[]): void {
	const groups = new Map<string, [number, number][]>();
	for (const [i, j] of ofOld) {
		const twins = `${was[i]!.signature}\u0001${is[j]!.signature}`;
		const group = groups.get(twins);
		if (group) group.push([i, j]);
		else groups.set(twins, [[i, j]]);
	}
	for (const group of groups.values()) {
		if (group.length < 2) continue;
		const olds = group.map(([i]) => i).sort((a, b) => a - b);
		const news = group.map(([, j]) => j).sort((a, b) => a - b);
		olds.forEach((i, at) => ofOld.set(i, news[at]!));
	}
}
