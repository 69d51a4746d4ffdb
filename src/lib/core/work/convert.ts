import { columnName } from '../recognise/recognise.ts';
import { settingsOf, leavesOf } from '../style/leaves.ts';
import { ASPECTS, type LineSettings } from '../style/types.ts';
import type { CellContent } from '../table/content.ts';
import { createGrid, type Cell, type Grid, type Table, type Touch, SIDES, type Side } from '../table/grid.ts';
import { isHeader } from '../roles/index.ts';
import type { Emu } from '../units.ts';
import { markOfTable } from '../values/parse.ts';
import { edgeOwner } from './edges.ts';
import { guard } from './locks.ts';
import {
	type WorkCell,
	type Slot,
	type WorkRow,
	type WorkTable,
	COVERED,
	isCovered,
	tidy,
	joinedCells,
	anchorOf,
	isPlain,
	shownIn
} from './table.ts';

/**
 * A table of a document, opened for work. Widths are those of its file; none leaves columns as wide as they want. `locked`
 * are the cells that it protects against typing, by index.
 */
export function workOf(
	table: Table,
	content?: readonly (readonly CellContent[])[],
	widths: readonly Emu[] = [],
	locked: readonly number[] = []
): WorkTable {
	const isLocked = new Set(locked);
	const rows = table.roles.map((role, r) => ({ id: r + 1, role, cells: Array<Slot>(table.columns).fill(COVERED) }));
	table.cells.forEach(({ r, c, rows: down, cols, text }, i) => {
		rows[r]!.cells[c] = tidy<WorkCell>({
			text,
			content: isPlain(content?.[i], text) ? undefined : content![i],
			rows: down > 1 ? down : undefined,
			cols: cols > 1 ? cols : undefined,
			lock: isLocked.has(i) ? 'content' : undefined,
			from: i
		});
	});
	const work: WorkTable = {
		rows,
		columns: table.columnInfo.map(({ kind }, c) => tidy({ kind, width: widths[c] || undefined })),
		firstColumns: table.firstColumns,
		lastColumns: table.lastColumns,
		mark: markOfTable(table),
		...(table.mark && { isMarkSaid: true as const }),
		...(table.dir && { dir: table.dir }),
		nextId: table.rows + 1
	};
	for (const touch of table.touches) takeTouch(work, rows, touch);
	return work;
}

/** Lays a touch of a table on the rows of one that is being made. */
function takeTouch(work: WorkTable, rows: { cells: Slot[] }[], { r, c, set }: Touch): void {
	if (r >= rows.length || c >= work.columns.length) return;
	const lines: Partial<Record<Side, LineSettings>> = {};
	const own = new Map(leavesOf(set));
	for (const side of SIDES) {
		if (set.lines?.[side]) lines[side] = set.lines[side];
		for (const property of ['pattern', 'weight', 'ink']) own.delete(`lines.${side}.${property}`);
	}
	for (const side of SIDES) {
		const line = lines[side];
		if (!line) continue;
		const at = edgeOwner({ ...work, rows: rows as unknown as WorkRow[] }, r, c, side);
		const slot = rows[at.r]!.cells[at.c]!;
		rows[at.r]!.cells[at.c] = { ...slot, lines: { ...slot.lines, [at.side]: { ...slot.lines?.[at.side], ...line } } };
	}
	if (!own.size) return;
	const anchor = anchorOf({ ...work, rows: rows as unknown as WorkRow[] }, r, c);
	const cell = rows[anchor.r]!.cells[anchor.c] as WorkCell;
	rows[anchor.r]!.cells[anchor.c] = {
		...cell,
		touch: settingsOf(new Map([...leavesOf(cell.touch ?? {}), ...own]))
	};
}

/** A table with these touches and no others. Throws InputError where the look of a cell is locked that would change. */
export function retouched(work: WorkTable, touches: readonly Touch[]): WorkTable {
	const bare = work.rows.map((row) => ({
		...row,
		cells: row.cells.map((slot): Slot => {
			const { lines: _lines, ...rest } = slot;
			if (isCovered(rest as Slot)) return rest as Slot;
			const { touch: _touch, ...cell } = rest as WorkCell;
			return cell;
		})
	}));
	for (const touch of touches) takeTouch(work, bare, touch);
	const isSame = (r: number, c: number) => touchText(bare[r]!.cells[c]!) === touchText(work.rows[r]!.cells[c]!);
	const changed = work.rows.map(({ cells }, r) => cells.flatMap((_, c) => (isSame(r, c) ? [] : [{ r, c }])));
	guard(work, changed.flat(), 'look');
	if (!changed.some(({ length }) => length)) return work;
	// A row that comes to the same stays itself, so that a patch says only what changed.
	return { ...work, rows: work.rows.map((row, r) => (changed[r]!.length ? bare[r]! : row)) };
}

/** What touches say of a slot, as a text. */
function touchText(slot: Slot): string {
	const lines = leavesOf({ lines: slot.lines ?? {} });
	const own = isCovered(slot) ? new Map() : leavesOf(slot.touch ?? {});
	return JSON.stringify([...lines, ...own].sort());
}

/** The tables that were asked for last: few, for each takes much more room than its work. */
const recent: { readonly work: WorkTable; readonly table: Table }[] = [];
const MOST_RECENT = 4;

/** The table as styles see it: grid, roles, kinds, touches. Asked again soon, the same. */
export function tableOf(work: WorkTable): Table {
	let known = recent.find((one) => one.work === work);
	if (!known) {
		// Most edits change a row or two of the table before, and its other cells stay.
		known = { work, table: makeTable(work, recent[0]) };
		recent.unshift(known);
		recent.length = Math.min(recent.length, MOST_RECENT);
	}
	return known.table;
}

/** The grid of a table; cells of rows that stand in `before` where they stand now stay the same objects. */
function gridOf(work: WorkTable, before: (typeof recent)[number] | undefined): Grid {
	const spans = joinedCells(work);
	if (spans.length)
		return createGrid(
			work.rows.map(({ cells }) => cells.map((slot) => (isCovered(slot) ? null : slot.text))),
			spans
		);
	const [rows, columns] = [work.rows.length, work.columns.length];
	const known = before?.work.columns.length === columns && !before.table.merged.length ? before : undefined;
	const cells = Array<Cell>(rows * columns);
	let at = 0;
	work.rows.forEach((row, r) => {
		if (row === known?.work.rows[r]) {
			for (const end = at + columns; at < end; at++) cells[at] = known.table.cells[at]!;
			return;
		}
		row.cells.forEach((slot, c) => {
			cells[at++] = { r, c, rows: 1, cols: 1, text: (slot as WorkCell).text };
		});
	});
	const slots = known?.table.rows === rows ? known.table.slots : new Int32Array(cells.length).map((_, i) => i);
	return { rows, columns, cells, slots, merged: [] };
}

function makeTable(work: WorkTable, before: (typeof recent)[number] | undefined): Table {
	const grid = gridOf(work, before);
	const roles = work.rows.map(({ role }) => role);
	const headers = roles.flatMap((role, r) => (isHeader(role) ? [r] : []));
	return {
		...grid,
		roles,
		columnInfo: work.columns.map(({ kind }, c) => ({ kind, name: columnName(grid, headers, c) })),
		firstColumns: work.firstColumns,
		lastColumns: work.lastColumns,
		partsOff: [],
		carry: ASPECTS,
		touches: work.rows.flatMap((row, r) => touchesIn(row).map(({ c, set }) => ({ r, c, set }))),
		...(work.isMarkSaid && { mark: work.mark }),
		...(work.dir && { dir: work.dir })
	};
}

const touchedInRow = new WeakMap<WorkRow, readonly Omit<Touch, 'r'>[]>();
function touchesIn(row: WorkRow): readonly Omit<Touch, 'r'>[] {
	let known = touchedInRow.get(row);
	if (!known) {
		known = row.cells.flatMap((slot, c) => {
			const touch = isCovered(slot) ? undefined : slot.touch;
			if (!touch && !slot.lines) return [];
			return [{ c, set: slot.lines ? { ...touch, lines: { ...touch?.lines, ...slot.lines } } : touch! }];
		});
		touchedInRow.set(row, known);
	}
	return known;
}

/** What every cell of the grid of {@link tableOf} shows. */
export const contentsOf = (work: WorkTable): (readonly CellContent[])[] =>
	tableOf(work).cells.map(({ r, c }) => shownIn(work.rows[r]!.cells[c] as WorkCell));

/** A table whose cells and columns are worked out as those of another of the same size are. */
export function withSources(work: WorkTable, from: WorkTable): WorkTable {
	if (work.rows.length !== from.rows.length || work.columns.length !== from.columns.length) return work;
	const rows = work.rows.map((row, r) => ({
		...row,
		cells: row.cells.map((slot, c): Slot => {
			const other = from.rows[r]!.cells[c]!;
			if (isCovered(slot) || isCovered(other)) return slot;
			return tidy({ ...slot, total: other.total, formula: other.formula });
		})
	}));
	const columns = work.columns.map((column, c) => {
		const { formula, across } = from.columns[c]!;
		return tidy({ ...column, formula, across });
	});
	return { ...work, rows, columns };
}
