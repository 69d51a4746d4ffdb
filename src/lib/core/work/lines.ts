import { pluralWord } from '../words.ts';
import { InputError } from '../errors.ts';
import { behaviour, isBody, isHeader, type RowRole } from '../roles/index.ts';
import type { LineSettings } from '../style/types.ts';
import type { Side, Span } from '../table/grid.ts';
import { guard } from './locks.ts';
import {
	checkSize,
	COVERED,
	EMPTY_CELL,
	isCovered,
	joinedCells,
	tidy,
	type Slot,
	type WorkCell,
	type WorkColumn,
	type WorkRow,
	type WorkTable
} from './table.ts';
import { withLine } from './edges.ts';

/** Rows or columns: what is said of one holds for the other. */
export type Axis = 'rows' | 'columns';

/** What stands at each place after an edit: a row or column from before by its index, or null for a new one. */
type Order = readonly (number | null)[];

/**
 * Where a stretch of lines that a joined cell covers comes to be; undefined where none of them is left. New lines
 * inside a stretch belong to it. Throws InputError where the stretch would be torn apart.
 */
function stretch(
	order: Order,
	places: Int32Array,
	from: number,
	length: number
): [from: number, length: number] | undefined {
	let low = -1;
	let high = -1;
	for (let line = from; line < from + length; line++) {
		const place = places[line]!;
		if (place < 0) continue;
		if (low < 0 || place < low) low = place;
		if (place > high) high = place;
	}
	if (low < 0) return undefined;
	for (let place = low; place <= high; place++) {
		const line = order[place]!;
		if (line !== null && (line < from || line >= from + length))
			throw new InputError('joined', 'This would tear a joined cell apart. Split it first, or take all of it along.');
	}
	return [low, high - low + 1];
}

const extent = (cell: WorkCell, rows: number, cols: number): WorkCell => {
	const { rows: _r, cols: _c, ...rest } = cell;
	return tidy({ ...rest, rows: rows > 1 ? rows : undefined, cols: cols > 1 ? cols : undefined });
};

const cover = (slot: Slot | undefined): Slot => (slot?.lines ? { covered: true, lines: slot.lines } : COVERED);

/** Puts lines of an axis in another order, with new ones among them; joined cells go along. */
function reorder(
	work: WorkTable,
	axis: Axis,
	order: Order,
	make: {
		row: (place: number, id: number) => WorkRow;
		column: (place: number) => WorkColumn;
		cell: (row: WorkRow, place: number) => Slot;
	}
): WorkTable {
	const isRows = axis === 'rows';
	const places = new Int32Array(isRows ? work.rows.length : work.columns.length).fill(-1);
	order.forEach((line, place) => {
		if (line !== null) places[line] = place;
	});
	checkSize(isRows ? order.length : work.rows.length, isRows ? work.columns.length : order.length);
	let { nextId } = work;
	let rows: WorkRow[] = isRows
		? order.map((line, place) => (line === null ? make.row(place, nextId++) : work.rows[line]!))
		: work.rows.map((row) => ({
				...row,
				cells: order.map((line, place) => (line === null ? make.cell(row, place) : row.cells[line]!))
			}));
	const joined = joinedCells(work);
	if (joined.length) {
		const changed = new Map<number, Slot[]>();
		const cellsAt = (r: number) => {
			let cells = changed.get(r);
			if (!cells) changed.set(r, (cells = [...rows[r]!.cells]));
			return cells;
		};
		for (const { r, c, rows: down, cols } of joined) {
			const moved = isRows ? stretch(order, places, r, down) : stretch(order, places, c, cols);
			if (!moved) continue;
			const now: Span = isRows
				? { r: moved[0], rows: moved[1], c, cols }
				: { r, rows: down, c: moved[0], cols: moved[1] };
			const cell = work.rows[r]!.cells[c] as WorkCell;
			if (
				isRows &&
				moved[1] === down &&
				order[moved[0]] === r &&
				(down === 1 || order.slice(moved[0], moved[0] + down).every((line, i) => line === r + i))
			)
				continue;
			for (let y = now.r; y < now.r + now.rows; y++)
				for (let x = now.c; x < now.c + now.cols; x++) cellsAt(y)[x] = cover(cellsAt(y)[x]);
			const first = cellsAt(now.r)[now.c]!;
			const { lines: _, ...rest } = extent(cell, now.rows, now.cols);
			cellsAt(now.r)[now.c] = tidy({ ...rest, lines: isCovered(first) ? first.lines : cell.lines });
		}
		for (const [r, cells] of changed) rows[r] = { ...rows[r]!, cells };
	}
	if (isRows && rows.length === work.rows.length && rows.every((row, r) => row === work.rows[r]))
		rows = work.rows as WorkRow[];
	const columns = isRows
		? work.columns
		: order.map((line, place) => (line === null ? make.column(place) : work.columns[line]!));
	return { ...work, rows, columns, nextId };
}

const none = (): never => {
	throw new Error('Nothing new was asked for.');
};
const NOTHING_NEW = { row: none, column: none, cell: none };

/** What a row that comes between two others is: body beside body, else what the one that it is put beside is. */
function roleBetween(beside: RowRole, other: RowRole | undefined): RowRole {
	if (isHeader(beside) && other && isBody(other)) return 'body';
	return behaviour(beside).begets === 'itself' ? beside : 'body';
}

/** Cells like those beside them, without their words and whatever else was theirs alone. */
const blank = (slot: Slot): Slot =>
	isCovered(slot) || slot.from === undefined ? EMPTY_CELL : { text: '', from: slot.from };

/**
 * Inserts rows before the row `at` (the number of rows: after the last). They take role and file look from the row
 * `beside` them, by default the one before.
 */
export function insertRows(work: WorkTable, at: number, count: number, beside = at > 0 ? at - 1 : 0): WorkTable {
	checkCount(count);
	const model = work.rows[beside]!;
	const other = work.rows[beside < at ? at : at - 1];
	const role = roleBetween(model.role, other?.role);
	const order: (number | null)[] = work.rows.map((_, r) => r);
	order.splice(at, 0, ...Array<null>(count).fill(null));
	const next = reorder(work, 'rows', order, {
		...NOTHING_NEW,
		row: (_, id) => tidy({ id, role, height: model.height, cells: model.cells.map(blank) })
	});
	// A line at the table's rim stays there.
	if (at === work.rows.length)
		return linesMoved(next, 'rows', { line: at - 1, side: 'bottom' }, { line: next.rows.length - 1, side: 'bottom' });
	return at === 0 ? linesMoved(next, 'rows', { line: count, side: 'top' }, { line: 0, side: 'top' }) : next;
}

/** Inserts columns before the column `at`; they take kind and width from the column beside them. */
export function insertColumns(work: WorkTable, at: number, count: number, beside = at > 0 ? at - 1 : 0): WorkTable {
	checkCount(count);
	const order: (number | null)[] = work.columns.map((_, c) => c);
	order.splice(at, 0, ...Array<null>(count).fill(null));
	const { kind, width } = work.columns[beside]!;
	const isLabel = beside < work.firstColumns;
	let next = reorder(work, 'columns', order, {
		...NOTHING_NEW,
		column: () => tidy({ kind: isLabel ? 'text' : kind, isGuessed: true as const, width }),
		cell: (row) => blank(row.cells[beside]!)
	});
	if (at === work.columns.length)
		next = linesMoved(next, 'columns', { line: at - 1, side: 'end' }, { line: next.columns.length - 1, side: 'end' });
	else if (at === 0) next = linesMoved(next, 'columns', { line: count, side: 'start' }, { line: 0, side: 'start' });
	const inFirst = at < work.firstColumns;
	const inLast = at > work.columns.length - work.lastColumns;
	return {
		...next,
		firstColumns: work.firstColumns + (inFirst ? count : 0),
		lastColumns: work.lastColumns + (inLast ? count : 0)
	};
}

/** A side of a row or a column: where the touches of its edges stand. */
interface EdgeLine {
	readonly line: number;
	readonly side: Side;
}

/**
 * The lines at a side of one row or column handed on to another, slot by slot, where that has none and `unless`, the same edge
 * from its other side, has none either.
 */
function linesMoved(work: WorkTable, axis: Axis, from: EdgeLine, to: EdgeLine, unless: EdgeLine = to): WorkTable {
	const at = ({ line }: EdgeLine, r: number, c: number) =>
		axis === 'rows' ? ([line, c] as const) : ([r, line] as const);
	const changed = new Map<number, Slot[]>();
	const slotAt = (r: number, c: number) => (changed.get(r) ?? work.rows[r]!.cells)[c]!;
	const put = (r: number, c: number, side: Side, line: LineSettings | undefined) => {
		let cells = changed.get(r);
		if (!cells) changed.set(r, (cells = [...work.rows[r]!.cells]));
		cells[c] = withLine(cells[c]!, side, line);
	};
	const count = axis === 'rows' ? work.columns.length : work.rows.length;
	for (let i = 0; i < count; i++) {
		const source = at(from, i, i);
		const line = slotAt(...source).lines?.[from.side];
		if (!line) continue;
		put(...source, from.side, undefined);
		const isTaken = [to, unless].some((one) => slotAt(...at(one, i, i)).lines?.[one.side]);
		if (!isTaken) put(...at(to, i, i), to.side, line);
	}
	return changed.size
		? { ...work, rows: work.rows.map((row, r) => (changed.has(r) ? { ...row, cells: changed.get(r)! } : row)) }
		: work;
}

/**
 * A table of which some rows or columns are about to go, with their touched edges at the neighbours that will have them
 * (figures.md §7), where those have none of their own.
 */
function linesHandedOn(work: WorkTable, axis: Axis, lines: ReadonlySet<number>): WorkTable {
	const [before, after]: [Side, Side] = axis === 'rows' ? ['top', 'bottom'] : ['start', 'end'];
	const all = axis === 'rows' ? work.rows.length : work.columns.length;
	let next = work;
	for (let first = 0; first < all; first++) {
		if (!lines.has(first)) continue;
		let last = first;
		while (lines.has(last + 1)) last++;
		// The edge that comes to be, as either of its neighbours has it; at the rim there is one.
		const upper = first > 0 ? { line: first - 1, side: after } : undefined;
		const lower = last < all - 1 ? { line: last + 1, side: before } : undefined;
		const heir = (upper ?? lower)!;
		next = linesMoved(next, axis, { line: first, side: before }, heir, lower ?? heir);
		next = linesMoved(next, axis, { line: last, side: after }, (lower ?? upper)!, upper ?? lower);
		first = last;
	}
	return next;
}

function checkCount(count: number): void {
	if (!Number.isInteger(count) || count < 1) throw new InputError('size', 'How many? Say a whole number from 1.');
}

const lineWords = (axis: Axis, count: number) =>
	`${count} ${axis === 'rows' ? pluralWord(count, 'row') : pluralWord(count, 'column')}`;

/** Takes rows or columns out. Throws InputError where none would be left, or a cell in them is locked. */
export function removeLines(work: WorkTable, axis: Axis, lines: ReadonlySet<number>): WorkTable {
	const all = axis === 'rows' ? work.rows.length : work.columns.length;
	if (lines.size >= all)
		throw new InputError(
			'size',
			`All ${lineWords(axis, all)} cannot go: a table has at least one. Remove the table instead.`
		);
	guard(work, cellsOfLines(work, axis, lines), 'content');
	const kept = Array.from({ length: all }, (_, i) => i).filter((i) => !lines.has(i));
	const next = reorder(linesHandedOn(work, axis, lines), axis, kept, NOTHING_NEW);
	if (axis === 'rows') return next;
	const gone = (from: number, to: number) => [...lines].filter((c) => c >= from && c < to).length;
	return {
		...next,
		firstColumns: work.firstColumns - gone(0, work.firstColumns),
		lastColumns: work.lastColumns - gone(all - work.lastColumns, all)
	};
}

/** Moves a stretch of rows or columns before the line `to` (the number of lines: to the end). */
export function moveLines(work: WorkTable, axis: Axis, from: number, count: number, to: number): WorkTable {
	if (to >= from && to <= from + count) return work;
	const all = Array.from({ length: axis === 'rows' ? work.rows.length : work.columns.length }, (_, i) => i);
	const moved = all.splice(from, count);
	all.splice(to > from ? to - count : to, 0, ...moved);
	return reorder(work, axis, all, NOTHING_NEW);
}

/** Puts rows in another order: `order` names each row once. */
export const orderRows = (work: WorkTable, order: readonly number[]): WorkTable =>
	reorder(work, 'rows', order, NOTHING_NEW);

function* cellsOfLines(work: WorkTable, axis: Axis, lines: ReadonlySet<number>) {
	for (const line of lines)
		if (axis === 'rows') for (let c = 0; c < work.columns.length; c++) yield { r: line, c };
		else for (let r = 0; r < work.rows.length; r++) yield { r, c: line };
}

/** How many cells of some rows or columns are not empty: what somebody is asked about before they go. */
export function filledIn(work: WorkTable, axis: Axis, lines: ReadonlySet<number>): number {
	let count = 0;
	for (const { r, c } of cellsOfLines(work, axis, lines)) {
		const slot = work.rows[r]!.cells[c]!;
		if (!isCovered(slot) && (slot.text.trim() || slot.picture)) count++;
	}
	return count;
}

/** Splits a table before a row: what is above, and what is below with the header rows of the whole again. */
export function splitTable(work: WorkTable, at: number): [above: WorkTable, below: WorkTable] {
	if (at < 1 || at >= work.rows.length)
		throw new InputError('size', 'Choose a row inside the table: it begins the second one.');
	if (joinedCells(work).some(({ r, rows }) => r < at && r + rows > at))
		throw new InputError(
			'joined',
			'A joined cell reaches over the place where the table is to be split. Split the cell first.'
		);
	const headers = work.rows.slice(0, at).filter(({ role }) => isHeader(role));
	return [
		{ ...work, rows: work.rows.slice(0, at) },
		{ ...work, rows: [...(isHeader(work.rows[at]!.role) ? [] : headers), ...work.rows.slice(at)] }
	];
}

/** Puts another table under one. Its header goes where it says the same; a narrower one is filled up with empty cells. */
export function joinTables(above: WorkTable, below: WorkTable): WorkTable {
	const width = Math.max(above.columns.length, below.columns.length);
	const said = (row: WorkRow) => row.cells.map((slot) => (isCovered(slot) ? null : slot.text.trim())).join('\u0000');
	const headers = new Set(above.rows.filter(({ role }) => isHeader(role)).map(said));
	const wide = (work: WorkTable) =>
		work.columns.length === width ? work : insertColumns(work, work.columns.length, width - work.columns.length);
	const [first, second] = [wide(above), wide(below)];
	let { nextId } = first;
	const rows = second.rows
		.filter((row, r) => !(isHeader(row.role) && headers.has(said(below.rows[r]!))))
		.map((row) => ({
			...row,
			id: nextId++,
			cells: row.cells.map((slot) => (isCovered(slot) ? slot : withoutSource(slot)))
		}));
	checkSize(first.rows.length + rows.length, width);
	return { ...first, rows: [...first.rows, ...rows], nextId };
}

const withoutSource = ({ from: _, ...cell }: WorkCell): WorkCell => cell;
