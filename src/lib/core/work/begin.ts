import { recognisedTable } from '../recognise/table.ts';
import { createGrid, type Span } from '../table/grid.ts';
import { columnKind } from '../recognise/columns.ts';
import type { Clip } from './cells.ts';
import { valueOf } from './sort.ts';
import { checkSize, contentOfCell, isCovered, type Slot, type WorkCell, type WorkTable } from './table.ts';
import { tableOf, workOf } from './convert.ts';

/** A table of cells that come from elsewhere, with its rows and columns recognised. */
export function workOfClip({ cells }: Clip): WorkTable {
	checkSize(cells.length, Math.max(0, ...cells.map((row) => row.length)));
	const spans: Span[] = [];
	const known: (WorkCell | null)[] = [];
	cells.forEach((row, r) =>
		row.forEach((cell, c) => {
			if (!cell) return;
			known.push(cell);
			const [rows, cols] = [cell.rows ?? 1, cell.cols ?? 1];
			if (rows * cols > 1) spans.push({ r, c, rows, cols });
		})
	);
	const grid = createGrid(
		cells.map((row) => row.map((cell) => cell?.text ?? null)),
		spans
	);
	const { table } = recognisedTable(grid);
	return fresh(
		workOf(
			table,
			known.map((cell) => contentOfCell(cell!))
		)
	);
}

/** Rows of texts as a table. */
export const workOfRows = (rows: readonly (readonly string[])[]): WorkTable => {
	const width = Math.max(0, ...rows.map((row) => row.length));
	return workOfClip({ cells: rows.map((row) => Array.from({ length: width }, (_, c) => ({ text: row[c] ?? '' }))) });
};

/** Kinds are guessed from at most so many rows of a column: they are guessed again as somebody types. */
const GUESSED_FROM = 400;

/** A table in which the kinds that nobody said go by what its columns hold now; `before` tells which columns changed. */
export function withKinds(work: WorkTable, before: WorkTable): WorkTable {
	if (work.rows === before.rows || !work.columns.some(({ isGuessed }) => isGuessed)) return work;
	const body = work.rows.filter(({ role }) => role === 'body').slice(0, GUESSED_FROM);
	const names = tableOf(work).columnInfo.map(({ name }) => name);
	const kinds = work.columns.map(({ kind, isGuessed, formula, across }, c) => {
		if (!isGuessed) return kind;
		const cells = body.map(({ cells }) => cells[c]!).filter((slot): slot is WorkCell => !isCovered(slot));
		if (!cells.some(({ text }) => text.trim())) return formula || across ? 'quantity' : kind;
		return columnKind(
			names[c]!,
			cells.map(({ text }) => text),
			cells.map((cell) => valueOf(cell, work.mark)),
			false
		).is;
	});
	return kinds.every((kind, c) => kind === work.columns[c]!.kind)
		? work
		: {
				...work,
				columns: work.columns.map((column, c) => (column.kind === kinds[c] ? column : { ...column, kind: kinds[c]! }))
			};
}

/** A table that comes from no file: its cells keep the markup of none. */
export const fresh = (work: WorkTable): WorkTable => mapCells(work, ({ from: _, ...cell }) => cell);

/** A starter without its content: what body rows say goes, what is worked out and what labels them stays. */
export function withoutContent(work: WorkTable): WorkTable {
	return {
		...work,
		rows: work.rows.map((row) =>
			row.role === 'body'
				? { ...row, cells: row.cells.map((slot): Slot => (isCovered(slot) ? slot : emptied(slot))) }
				: row
		)
	};
}
const emptied = ({ content: _, picture: _p, ...cell }: WorkCell): WorkCell => ({ ...cell, text: '' });

const mapCells = (work: WorkTable, change: (cell: WorkCell) => WorkCell): WorkTable => ({
	...work,
	rows: work.rows.map((row) => ({ ...row, cells: row.cells.map((slot) => (isCovered(slot) ? slot : change(slot))) }))
});
