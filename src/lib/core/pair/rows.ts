import { isHeader } from '../roles/index.ts';
import type { Table } from '../table/grid.ts';
import { bagOf, plainText, slotText } from './likeness.ts';

/** What became of the rows of a table: indices of the new one in `added`, of the old one in `gone`, of both in `changed`. */
export interface RowChanges {
	readonly added: readonly number[];
	readonly gone: readonly number[];
	readonly changed: readonly (readonly [old: number, now: number])[];
}

/** Rows and columns of an old table by those of a new one that they became. */
export interface Lines {
	/** By the old row, changed ones and moved ones included. */
	readonly rows: ReadonlyMap<number, number>;
	readonly columns: ReadonlyMap<number, number>;
	readonly changes: RowChanges;
}

const textsOf = (table: Table): string[][] =>
	Array.from({ length: table.rows }, (_, r) => Array.from({ length: table.columns }, (_, c) => slotText(table, r, c)));

/** How much two columns say the same in their cells below the header, from 0 to 1. */
function likeColumns(a: readonly string[], b: readonly string[]): number {
	const [x, y] = [bagOf(a), bagOf(b)];
	let both = 0;
	for (const [text, count] of x) both += Math.min(count, y.get(text) ?? 0);
	const all = a.filter(Boolean).length + b.filter(Boolean).length;
	return all ? (2 * both) / all : 0;
}

/** Which column became which: by name, then by what they say, then by their place between those. */
function pairColumns(old: Table, now: Table, was: string[][], is: string[][]): Map<number, number> {
	const pairs = new Map<number, number>();
	const taken = new Set<number>();
	const put = (a: number, b: number) => {
		if (pairs.has(a) || taken.has(b)) return;
		pairs.set(a, b);
		taken.add(b);
	};
	const below = (texts: string[][], table: Table, c: number) =>
		texts.flatMap((row, r) => (isHeader(table.roles[r]!) ? [] : [row[c]!]));
	const name = (table: Table, c: number) => plainText(table.columnInfo[c]!.name).toLowerCase();
	const columnsOf = (table: Table) => Array.from({ length: table.columns }, (_, c) => c);
	const isOnly = (table: Table, wanted: string) =>
		columnsOf(table).filter((c) => name(table, c) === wanted).length === 1;
	for (const a of columnsOf(old)) {
		const wanted = name(old, a);
		if (!wanted || !isOnly(old, wanted) || !isOnly(now, wanted)) continue;
		put(
			a,
			columnsOf(now).find((b) => name(now, b) === wanted)!
		);
	}
	const likely = columnsOf(old)
		.flatMap((a) => columnsOf(now).map((b) => ({ a, b, sure: likeColumns(below(was, old, a), below(is, now, b)) })))
		.filter(({ sure }) => sure >= 0.5)
		.sort((x, y) => y.sure - x.sure || Math.abs(x.a - x.b) - Math.abs(y.a - y.b) || x.a + x.b - y.a - y.b);
	for (const { a, b } of likely) put(a, b);
	// As many left on both sides between two that are known: they are the same ones, called or filled anew.
	const left = columnsOf(old).filter((c) => !pairs.has(c));
	const open = columnsOf(now).filter((c) => !taken.has(c));
	if (left.length === open.length)
		left.forEach((a, i) => old.columnInfo[a]!.kind === now.columnInfo[open[i]!]!.kind && put(a, open[i]!));
	return pairs;
}

/** Indices that two sequences share in order, as many as there can be; long ones are looked at near their diagonal. */
function common(a: readonly string[], b: readonly string[]): [number, number][] {
	let start = 0;
	while (start < a.length && start < b.length && a[start] === b[start]) start++;
	let end = 0;
	while (end < a.length - start && end < b.length - start && a.at(-1 - end) === b.at(-1 - end)) end++;
	const [rows, columns] = [a.length - start - end, b.length - start - end];
	const middle: [number, number][] = [];
	if (rows * columns <= MOST_STEPS) {
		const best = new Uint32Array((rows + 1) * (columns + 1));
		const at = (i: number, j: number) => i * (columns + 1) + j;
		for (let i = rows - 1; i >= 0; i--)
			for (let j = columns - 1; j >= 0; j--)
				best[at(i, j)] =
					a[start + i] === b[start + j]
						? best[at(i + 1, j + 1)]! + 1
						: Math.max(best[at(i + 1, j)]!, best[at(i, j + 1)]!);
		for (let i = 0, j = 0; i < rows && j < columns;)
			if (a[start + i] === b[start + j]) middle.push([start + i++, start + j++]);
			else if (best[at(i + 1, j)]! >= best[at(i, j + 1)]!) i++;
			else j++;
	} else {
		// Rows that stand once on each side hold their order.
		const places = new Map<string, number>();
		for (let j = start; j < b.length - end; j++) places.set(b[j]!, places.has(b[j]!) ? -1 : j);
		let last = start - 1;
		for (let i = start; i < a.length - end; i++) {
			const j = places.get(a[i]!) ?? -1;
			if (j > last) {
				middle.push([i, j]);
				last = j;
			}
		}
	}
	return [
		...Array.from({ length: start }, (_, i): [number, number] => [i, i]),
		...middle,
		...Array.from({ length: end }, (_, i): [number, number] => [a.length - end + i, b.length - end + i])
	];
}
const MOST_STEPS = 4_000_000;

/**
 * What became of the rows and columns of a table. A row that says the same in the columns that both tables have is unchanged,
 * wherever it stands; one is changed where its label, or its place between unchanged ones, says that it is the same row.
 */
export function linesBetween(old: Table, now: Table): Lines {
	const [was, is] = [textsOf(old), textsOf(now)];
	const columns = pairColumns(old, now, was, is);
	const [mine, theirs] = [[...columns.keys()], [...columns.values()]];
	const keyOf = (row: readonly string[], of: readonly number[]) => of.map((c) => row[c]).join('\u0000');
	const wasKeys = was.map((row) => keyOf(row, mine));
	const isKeys = is.map((row) => keyOf(row, theirs));
	const rows = new Map<number, number>();
	const taken = new Set<number>();
	const put = (a: number, b: number) => {
		rows.set(a, b);
		taken.add(b);
	};
	const isKept = new Set<number>();
	for (const [a, b] of common(wasKeys, isKeys)) {
		put(a, b);
		isKept.add(a);
	}
	// Those that moved: the same words elsewhere, in their order.
	const elsewhere = new Map<string, number[]>();
	isKeys.forEach((key, b) => {
		if (taken.has(b) || !key.replaceAll('\u0000', '')) return;
		const places = elsewhere.get(key);
		if (places) places.push(b);
		else elsewhere.set(key, [b]);
	});
	wasKeys.forEach((key, a) => {
		const b = rows.has(a) ? undefined : elsewhere.get(key)?.shift();
		if (b === undefined) return;
		put(a, b);
		isKept.add(a);
	});
	// Header rows stand for each other in their order.
	const heads = (table: Table, isFree: (r: number) => boolean) =>
		table.roles.flatMap((role, r) => (isHeader(role) && isFree(r) ? [r] : []));
	const oldHeads = heads(old, (r) => !rows.has(r));
	heads(now, (r) => !taken.has(r)).forEach((b, i) => oldHeads[i] !== undefined && put(oldHeads[i]!, b));
	// Then what begins with the same label, where that is said once among what is left on each side.
	const labelOf = (row: readonly string[], of: readonly number[]) => of.map((c) => row[c]!).find(Boolean) ?? '';
	const byLabel = new Map<string, number[]>();
	is.forEach((row, b) => {
		const label = labelOf(row, theirs);
		if (taken.has(b) || !label) return;
		byLabel.set(label, [...(byLabel.get(label) ?? []), b]);
	});
	const left = was.flatMap((_, a) => (rows.has(a) ? [] : [a]));
	const labelled = new Map<string, number[]>();
	for (const a of left) {
		const label = labelOf(was[a]!, mine);
		if (label) labelled.set(label, [...(labelled.get(label) ?? []), a]);
	}
	for (const [label, mineHere] of labelled) {
		const theirsHere = byLabel.get(label) ?? [];
		if (theirsHere.length === mineHere.length) mineHere.forEach((a, i) => put(a, theirsHere[i]!));
	}
	betweenKept(was.length, is.length, rows, taken, (a, b) => {
		const same = mine.filter((c, i) => was[a]![c] && was[a]![c] === is[b]![theirs[i]!]).length;
		return same;
	}).forEach(([a, b]) => put(a, b));

	const isSame = (a: number, b: number) =>
		isKept.has(a) && !(isHeader(old.roles[a]!) && was[a]!.join('\u0000') !== is[b]!.join('\u0000'));
	return {
		rows,
		columns,
		changes: {
			added: is.flatMap((_, b) => (taken.has(b) ? [] : [b])),
			gone: was.flatMap((_, a) => (rows.has(a) ? [] : [a])),
			changed: [...rows].filter(([a, b]) => !isSame(a, b)).sort(([a], [b]) => a - b)
		}
	};
}

/** Rows that are left between two known ones, as many on both sides, or that still say something the same. */
function betweenKept(
	olds: number,
	news: number,
	rows: ReadonlyMap<number, number>,
	taken: ReadonlySet<number>,
	same: (a: number, b: number) => number
): [number, number][] {
	const found: [number, number][] = [];
	let [a, b] = [0, 0];
	const known = [...rows].sort(([x], [y]) => x - y);
	// Only pairs that do not cross others bound a gap.
	const bounds: [number, number][] = [];
	let highest = -1;
	for (const [x, y] of known)
		if (y > highest) {
			bounds.push([x, y]);
			highest = y;
		}
	for (const [endA, endB] of [...bounds, [olds, news] as [number, number]]) {
		const mine = range(a, endA).filter((r) => !rows.has(r));
		const theirs = range(b, endB).filter((r) => !taken.has(r));
		if (mine.length && mine.length === theirs.length) mine.forEach((r, i) => found.push([r, theirs[i]!]));
		else {
			const open = new Set(theirs);
			for (const r of mine) {
				const best = [...open].map((s) => ({ s, score: same(r, s) })).sort((x, y) => y.score - x.score || x.s - y.s)[0];
				if (!best || best.score === 0) continue;
				found.push([r, best.s]);
				open.delete(best.s);
			}
		}
		[a, b] = [endA + 1, endB + 1];
	}
	return found;
}
const range = (from: number, to: number): number[] =>
	Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
