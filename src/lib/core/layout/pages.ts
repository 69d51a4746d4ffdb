import type { Resolved } from '../cascade/resolve.ts';
import { behaviour, type RowRole } from '../roles/index.ts';
import type { LaidTable, TableInput } from './table.ts';

/** How a row behaves at the foot of a page. */
export interface RowKeep {
	/** Is not cut in two while a page can hold it. */
	readonly together: boolean;
	/** Does not end a page. */
	readonly withNext: boolean;
	/** Does not begin a page. */
	readonly withPrevious: boolean;
	/** Stands again at the head of each page that the table goes on to. */
	readonly repeat: boolean;
}

/** What rows do by their role, and by what a style says of them (`keep.together`, `keep.withNext`, `keep.repeat`). */
export function rowKeeps(roles: readonly RowRole[], resolved?: Resolved): RowKeep[] {
	return roles.map((role, r): RowKeep => {
		const { keeps, inHead } = behaviour(role);
		const said = resolved?.leaves[resolved.structure.cellSignature[r * resolved.structure.table.columns]!];
		const leaf = (name: string, otherwise: boolean) => (said?.get(`keep.${name}`)?.value ?? otherwise) === true;
		return {
			together: leaf('together', true),
			withNext: leaf('withNext', keeps === 'with next'),
			withPrevious: keeps === 'with previous',
			repeat: leaf('repeat', inHead)
		};
	});
}

/** Rows at the head of a table that stand again on each of its pages. */
export function repeatedRows({ table }: TableInput, keeps: readonly RowKeep[]): number {
	let rows = 0;
	while (rows < table.rows && keeps[rows]!.repeat) rows++;
	// A merged cell that reaches below them holds them back.
	while (
		rows > 0 &&
		table.merged.some((i) => table.cells[i]!.r < rows && table.cells[i]!.r + table.cells[i]!.rows > rows)
	)
		rows--;
	return rows < table.rows ? rows : 0;
}

/** Places, in EMU from the table's top, where it can be cut, with the cost of doing so, 0 the least. Ascending by place. */
interface Cut {
	readonly at: number;
	readonly cost: 0 | 1 | 2;
}

/** What stands in cells and is not cut, tables inside them included, and the edges between the rows of those tables. */
function standing(cells: LaidTable['cells'], offset = 0): { lines: [top: number, end: number][]; edges: number[] } {
	const lines: [number, number][] = [];
	const edges: number[] = [];
	for (const cell of cells) {
		if (cell.rotate) continue;
		for (const { top, height } of [...cell.lines, ...cell.pictures]) lines.push([offset + top, offset + top + height]);
		for (const { top, laid } of cell.tables) {
			const inner = standing(laid.cells, offset + top);
			lines.push(...inner.lines);
			edges.push(...inner.edges, ...laid.tops.slice(1).map((edge) => offset + top + edge));
		}
	}
	return { lines, edges };
}

function possibleCuts({ tops, cells }: LaidTable, keeps: readonly RowKeep[]): Cut[] {
	const { lines, edges } = standing(cells);
	// Lines sorted by where they begin: a place is free where no line that began before it still runs.
	const sorted = [...lines].sort(([a], [b]) => a - b);
	const isFree = (() => {
		const reach: number[] = [];
		let most = 0;
		for (const [, end] of sorted) reach.push((most = Math.max(most, end)));
		return (at: number) => {
			let low = 0;
			let high = sorted.length;
			while (low < high) {
				const middle = (low + high) >> 1;
				if (sorted[middle]![0] < at) low = middle + 1;
				else high = middle;
			}
			return low === 0 || reach[low - 1]! <= at + 1;
		};
	})();
	const cuts: Cut[] = [];
	for (let r = 1; r < tops.length; r++) {
		if (keepsCut(r - 1)) {
			for (const [, end] of rowLines(r - 1)) if (isFree(end)) cuts.push({ at: end, cost: 2 });
			for (const edge of edges)
				if (edge > tops[r - 1]! && edge < tops[r]! && isFree(edge)) cuts.push({ at: edge, cost: 1 });
		}
		const isClean = r === tops.length - 1 || (!keeps[r - 1]!.withNext && !keeps[r]!.withPrevious);
		if (isFree(tops[r]!)) cuts.push({ at: tops[r]!, cost: isClean ? 0 : 1 });
	}
	return cuts.sort((a, b) => a.at - b.at);

	function rowLines(r: number) {
		return sorted.filter(([top, end]) => top >= tops[r]! && end < tops[r + 1]!);
	}
	function keepsCut(r: number) {
		return !keeps[r]!.together || tops[r + 1]! - tops[r]! > TALL;
	}
}

/** Rows taller than this may have to be cut in two, since no page holds them (about half a page). */
const TALL = 4 * 914_400;

/**
 * Cuts a table into stretches for pages: `first` is the room that is left on the page, `next` that of the pages after
 * it, beside the rows that repeat. `leadAt` is the room at the head of a page that heads of tables inside take where the table
 * goes on from a place. An empty first stretch says that the table begins on the next page.
 */
export function cutTable(
	laid: LaidTable,
	keeps: readonly RowKeep[],
	first: number,
	next: number,
	leadAt: (at: number) => number = () => 0
): [from: number, to: number][] {
	const end = laid.tops.at(-1)!;
	const cuts = possibleCuts(laid, keeps);
	const out: [number, number][] = [];
	let from = 0;
	let room = first;
	while (from < end) {
		if (end - from <= room) {
			out.push([from, end]);
			break;
		}
		const within = cuts.filter(({ at }) => at > from && at <= from + room);
		const best = (cost: number) => within.filter((cut) => cut.cost <= cost).at(-1)?.at;
		// Row by row if that can be; on the first page, rather begin on the next one than break a rule.
		const clean = best(0);
		const isFresh = out.length > 0 || first >= next;
		if (clean === undefined && !isFresh) {
			out.push([0, 0]);
			room = next;
			continue;
		}
		const to = clean ?? best(1) ?? best(2) ?? from + room;
		out.push([from, to]);
		from = to;
		room = next - leadAt(to);
	}
	return out;
}
