import type { Purpose } from '../recognise/purpose/kinds.ts';
import { recognisedTable, tableAs, withRoles } from '../recognise/table.ts';
import { checkTableFile } from '../style/validate.ts';
import { ASPECTS, type Aspect } from '../style/types.ts';
import { InputError } from '../errors.ts';
import { createGrid, type Direction, type Span, type Table, type Touch } from './grid.ts';
import type { RowRole } from '../roles/index.ts';
import type { Measure } from '../values/figure.ts';
import type { DecimalMark } from '../values/parse.ts';
import type { Summary } from '../values/summary.ts';
import type { ColumnKind } from './columns.ts';

/** A table as its file says it (formats.md, "Table files"). */
export interface TableFile {
	format: 'heptarch-table';
	version: 1;
	cells: (string | null)[][];
	spans?: Span[];
	rows?: RowRole[];
	/** `formula`: what works out the column's body cells, as a person types it. */
	columns?: { kind?: ColumnKind; name?: string; formula?: string }[];
	firstColumns?: number;
	lastColumns?: number;
	/** What it is for; as recognised where it is left out. */
	purpose?: { purpose: Purpose; sure?: number; why?: readonly string[] };
	partsOff?: string[];
	/** Left to right where it is left out. */
	dir?: Direction;
	carry?: Aspect[];
	touches?: Touch[];
	/** The marks of its figures; decided by them where it is left out. */
	numbers?: { decimal: DecimalMark; grouping?: string | null };
	/** Cells with a formula of their own, and those that tell what their column comes to. */
	formulas?: { r: number; c: number; formula: string }[];
	totals?: { r: number; c: number; is: Summary }[];
	/** What is worked out, in full; for programs that read it: it is worked out anew when it is opened. */
	figures?: { r: number; c: number; amount: string; measure: Measure }[];
	about?: Record<string, unknown>;
}

/**
 * Reads a table file. What it leaves out is recognised. Throws InputError with the place for anything that is not
 * a table: wrong schema, spans that overlap, as many roles as there are no rows.
 */
export function tableFromFile(value: unknown): Table {
	checkTableFile(value);
	const file = value as TableFile;
	const grid = createGrid(file.cells, file.spans);
	if (file.rows && file.rows.length !== grid.rows)
		throw new InputError(
			'table',
			`The table has ${grid.rows} rows, but "rows" names ${file.rows.length} roles.`,
			'/rows'
		);
	if (file.columns && file.columns.length !== grid.columns)
		throw new InputError(
			'table',
			`The table has ${grid.columns} columns, but "columns" names ${file.columns.length}.`,
			'/columns'
		);
	const recognised = recognisedTable(grid);
	let table = file.purpose ? tableAs(recognised.table, recognised.recognition, file.purpose.purpose) : recognised.table;
	if (file.rows) table = withRoles(table, file.rows);
	const named = table.columnInfo;
	return {
		...table,
		columnInfo: file.columns
			? file.columns.map(({ kind, name }, c) => ({
					kind: kind ?? named[c]!.kind,
					name: (name ?? named[c]!.name).trim()
				}))
			: named,
		firstColumns: Math.min(file.firstColumns ?? table.firstColumns, grid.columns),
		lastColumns: Math.min(file.lastColumns ?? table.lastColumns, grid.columns),
		partsOff: file.partsOff ?? table.partsOff,
		carry: file.carry ?? ASPECTS,
		touches: file.touches ?? [],
		...(file.dir === 'rtl' && { dir: 'rtl' })
	};
}

/** Writes a table as its file; spans, null in covered slots. */
export function tableToFile(table: Table, about?: Record<string, unknown>): TableFile {
	const cells: (string | null)[][] = Array.from({ length: table.rows }, () =>
		Array<string | null>(table.columns).fill(null)
	);
	for (const { r, c, text } of table.cells) cells[r]![c] = text;
	return {
		format: 'heptarch-table',
		version: 1,
		cells,
		spans: table.merged.map((index) => {
			const { r, c, rows, cols } = table.cells[index]!;
			return { r, c, rows, cols };
		}),
		rows: [...table.roles],
		columns: table.columnInfo.map(({ kind, name }) => ({ kind, name })),
		firstColumns: table.firstColumns,
		lastColumns: table.lastColumns,
		...(table.dir && { dir: table.dir }),
		partsOff: [...table.partsOff],
		carry: [...table.carry],
		touches: [...table.touches],
		...(about && { about })
	};
}
