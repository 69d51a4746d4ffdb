import { InputError } from '../errors.ts';
import type { Aspect, PartSettings } from '../style/types.ts';
import type { RowRole } from '../roles/index.ts';
import type { ColumnKind } from './columns.ts';

/** The sides of a cell; `start` is where reading starts. */
export const SIDES = ['top', 'bottom', 'start', 'end'] as const;
export type Side = (typeof SIDES)[number];

/** Which way a table runs: where its first column stands. */
export type Direction = 'ltr' | 'rtl';

/** One cell: its top-start slot, its span, its text. A merged cell is one cell. */
export interface Cell {
	readonly r: number;
	readonly c: number;
	readonly rows: number;
	readonly cols: number;
	readonly text: string;
}

export interface Column {
	readonly kind: ColumnKind;
	/** The text of its lowest header tier, trimmed. */
	readonly name: string;
}

/** A one-off setting of a cell (or, by its `lines`, of the edges of slot r, c): rank VII. */
export interface Touch {
	readonly r: number;
	readonly c: number;
	readonly set: PartSettings;
}

/**
 * The grid invariant: `slots` has rows × columns entries, each the index of the one cell that covers that
 * slot; cells stand in reading order of their top-start slots and do not reach outside the grid.
 */
export interface Grid {
	readonly rows: number;
	readonly columns: number;
	readonly cells: readonly Cell[];
	readonly slots: Int32Array;
	/** Indices of the cells that cover more than one slot. */
	readonly merged: readonly number[];
}

export interface Table extends Grid {
	readonly roles: readonly RowRole[];
	readonly columnInfo: readonly Column[];
	readonly firstColumns: number;
	readonly lastColumns: number;
	readonly partsOff: readonly string[];
	readonly carry: readonly Aspect[];
	readonly touches: readonly Touch[];
	/** The decimal mark of its figures where somebody said it; else they tell (`markOfTable`). */
	readonly mark?: '.' | ',';
	/** Its columns run from right to left; from left to right where absent. */
	readonly dir?: 'rtl';
}

export interface Span {
	readonly r: number;
	readonly c: number;
	readonly rows: number;
	readonly cols: number;
}

const at = (r: number, c: number) => `row ${r}, column ${c}`;

/**
 * Builds a grid from the text of each slot and the spans. Slots that a span covers are ignored in `texts`.
 * Throws InputError where a span leaves the grid or two spans overlap. Rows and columns count from 0.
 */
export function createGrid(texts: readonly (readonly (string | null)[])[], spans: readonly Span[] = []): Grid {
	const rows = texts.length;
	const columns = texts.reduce((most, row) => Math.max(most, row.length), 0);
	const slots = new Int32Array(rows * columns).fill(-1);
	const spanAt = new Map<number, Span>();
	for (const span of spans) {
		if (span.r + span.rows > rows || span.c + span.cols > columns)
			throw new InputError('span', `The span at ${at(span.r, span.c)} reaches outside the table.`, at(span.r, span.c));
		if (spanAt.has(span.r * columns + span.c))
			throw new InputError('span', `Two spans start at ${at(span.r, span.c)}.`, at(span.r, span.c));
		spanAt.set(span.r * columns + span.c, span);
	}
	const cells: Cell[] = [];
	const merged: number[] = [];
	for (let r = 0; r < rows; r++)
		for (let c = 0; c < columns; c++) {
			const slot = r * columns + c;
			const span = spanAt.get(slot);
			if (slots[slot] !== -1) {
				if (span) throw new InputError('span', `The span at ${at(r, c)} overlaps another one.`, at(r, c));
				continue;
			}
			const index = cells.length;
			const spanRows = span?.rows ?? 1;
			const spanCols = span?.cols ?? 1;
			cells.push({ r, c, rows: spanRows, cols: spanCols, text: texts[r]![c] ?? '' });
			if (spanRows === 1 && spanCols === 1) {
				slots[slot] = index;
				continue;
			}
			merged.push(index);
			for (let y = r; y < r + spanRows; y++)
				for (let x = c; x < c + spanCols; x++) {
					if (slots[y * columns + x] !== -1)
						throw new InputError('span', `The span at ${at(r, c)} overlaps another one.`, at(r, c));
					slots[y * columns + x] = index;
				}
		}
	return { rows, columns, cells, slots, merged };
}

/** The cell that covers slot (r, c). */
export function cellAt(grid: Grid, r: number, c: number): Cell {
	return grid.cells[grid.slots[r * grid.columns + c]!]!;
}

/** The indices of the cells that begin in row r. */
export const cellsInRow = ({ slots, columns, cells }: Grid, r: number): number[] =>
	[...slots.subarray(r * columns, (r + 1) * columns)].filter((cell, c) => cells[cell]!.r === r && cells[cell]!.c === c);

/** Text of slot (r, c) as seen by a person reading along the row: '' in the covered slots of a merged cell. */
export function textAt(grid: Grid, r: number, c: number): string {
	const cell = cellAt(grid, r, c);
	return cell.r === r && cell.c === c ? cell.text : '';
}

/** The first broken promise of the grid invariant, or undefined. For tests and for input from outside. */
export function gridFault(grid: Grid): string | undefined {
	if (grid.slots.length !== grid.rows * grid.columns) return 'slots do not fill the grid';
	const covered = new Int32Array(grid.cells.length);
	for (let slot = 0; slot < grid.slots.length; slot++) {
		const cell = grid.cells[grid.slots[slot]!];
		const r = Math.floor(slot / grid.columns);
		const c = slot % grid.columns;
		if (!cell) return `no cell at ${at(r, c)}`;
		if (r < cell.r || r >= cell.r + cell.rows || c < cell.c || c >= cell.c + cell.cols)
			return `${at(r, c)} names a cell that does not cover it`;
		covered[grid.slots[slot]!]!++;
	}
	const short = grid.cells.findIndex((cell, i) => covered[i] !== cell.rows * cell.cols);
	return short < 0 ? undefined : `cell ${short} does not own all its slots`;
}
