import { createGrid, textAt, type Span, type Table } from '../core/table/grid.ts';
import type { CellContent } from '../core/table/content.ts';

export interface Excerpt {
	readonly table: Table;
	readonly content: readonly (readonly CellContent[])[];
}

/** The head of a long table and its last two rows, for small renderings; short tables as they are. */
export function excerpt(table: Table, content: readonly (readonly CellContent[])[], most: number): Excerpt {
	if (table.rows <= most) return { table, content };
	const kept = [...Array(most - 2).keys(), table.rows - 2, table.rows - 1];
	const texts = kept.map((r) => Array.from({ length: table.columns }, (_, c) => textAt(table, r, c)));
	const spans: Span[] = [];
	const origin = new Map<string, number>();
	const isKept = new Set(kept);
	table.cells.forEach((cell, index) => {
		if (cell.rows === 1 && !isKept.has(cell.r)) return;
		const rows = kept.flatMap((r, i) => (r >= cell.r && r < cell.r + cell.rows ? [i] : []));
		if (rows.length === 0) return;
		origin.set(`${rows[0]} ${cell.c}`, index);
		if (rows.length > 1 || cell.cols > 1) spans.push({ r: rows[0]!, c: cell.c, rows: rows.length, cols: cell.cols });
	});
	const grid = createGrid(texts, spans);
	return {
		table: { ...table, ...grid, roles: kept.map((r) => table.roles[r]!), touches: [] },
		content: grid.cells.map(({ r, c }) => content[origin.get(`${r} ${c}`) ?? -1] ?? [])
	};
}
