import { InputError } from '../errors.ts';
import { type Aspect, type LineSettings, type PartSettings } from '../style/types.ts';
import type { CellContent, CellPicture } from '../table/content.ts';
import { type Span, type Side } from '../table/grid.ts';
import { atLevel, type RowRole } from '../roles/index.ts';
import { type ColumnKind } from '../table/columns.ts';
import type { Emu } from '../units.ts';
import type { Formula } from '../values/formula.ts';
import type { Summary } from '../values/summary.ts';
import type { DateOrder } from '../values/dates.ts';
import { type DecimalMark } from '../values/parse.ts';

/** A slot of a table, by row and column from 0. */
export interface Position {
	readonly r: number;
	readonly c: number;
}

/** Sides of a slot, on which the touches of edges stand. */
export type EdgeTouches = { readonly [side in Side]?: LineSettings };

/** What a cell is locked against. */
export const LOCKS = ['content', 'look', 'both'] as const;
export type Lock = (typeof LOCKS)[number];

/** A cell that is being worked on. What is absent says nothing. */
export interface WorkCell {
	readonly text: string;
	/** Its paragraphs, where they are more than plain text: emphasis, tables inside. */
	readonly content?: readonly CellContent[];
	/** How many rows and columns it covers; 1 where absent. */
	readonly rows?: number;
	readonly cols?: number;
	readonly touch?: PartSettings;
	readonly lines?: EdgeTouches;
	readonly lock?: Lock;
	/** Its text is worked out from the column. */
	readonly total?: Summary;
	/** Its text is worked out by a formula of its own. */
	readonly formula?: Formula;
	readonly picture?: CellPicture;
	/** The cell of its file whose markup and look it keeps, by index. */
	readonly from?: number;
}

/** A slot that a joined cell covers. Edges inside a long side can be touched one by one, so it may have lines. */
export interface CoveredSlot {
	readonly covered: true;
	readonly lines?: EdgeTouches;
}
export type Slot = WorkCell | CoveredSlot;

export interface WorkRow {
	/** Stays with the row wherever it goes. */
	readonly id: number;
	readonly role: RowRole;
	/** The least height. */
	readonly height?: Emu;
	readonly cells: readonly Slot[];
}

export interface WorkColumn {
	readonly kind: ColumnKind;
	/** Nobody said the kind: it goes by what is typed. */
	readonly isGuessed?: true;
	/** As wide as its content wants where absent. */
	readonly width?: Emu;
	/** Works out its cells in body rows, naming other columns. */
	readonly formula?: Formula;
	/** Works out its cells from the figures of their row. */
	readonly across?: Summary;
}

/** What a table wears: a style of the house by its id, in an edition, and what of it. */
export interface Wears {
	readonly style?: string;
	readonly edition?: number;
	readonly pinned?: boolean;
	readonly partsOff?: readonly string[];
	readonly carry?: readonly Aspect[];
	/** Nothing but text. */
	readonly cleared?: boolean;
}

/**
 * A table that is being worked on by hand. Invariant: every row has as many slots as there are columns; every slot is a
 * cell or is covered by exactly one that does not reach outside; row ids are unique and below `nextId`. Immutable:
 * rows that an edit leaves alone stay the same objects.
 */
export interface WorkTable {
	readonly rows: readonly WorkRow[];
	readonly columns: readonly WorkColumn[];
	readonly firstColumns: number;
	readonly lastColumns: number;
	/** What its figures are written with. */
	readonly mark: DecimalMark;
	/** Somebody said which mark it is; else it goes by what is typed. */
	readonly isMarkSaid?: true;
	/** What comes first in its dates where they do not tell; the day where absent. */
	readonly dates?: DateOrder;
	/** Its columns run from right to left. */
	readonly dir?: 'rtl';
	/** What parts their thousands where somebody said so; else it goes by what is typed. */
	readonly grouping?: string;
	readonly nextId: number;
	/** What it wears; absent where it wears nothing of the house. */
	readonly wears?: Wears;
}

/** A table has so many cells at most. */
export const MOST_CELLS = 250_000;
export const MOST_COLUMNS = 1_000;

export const COVERED: CoveredSlot = { covered: true };
export const EMPTY_CELL: WorkCell = { text: '' };

export const isCovered = (slot: Slot): slot is CoveredSlot => 'covered' in slot;
export const isJoined = (slot: Slot): slot is WorkCell =>
	!isCovered(slot) && ((slot.rows ?? 1) > 1 || (slot.cols ?? 1) > 1);

/** A record without fields that are undefined. */
export function tidy<T extends object>(value: T): T {
	for (const key in value)
		if (value[key] === undefined)
			return Object.fromEntries(Object.entries(value).filter(([, one]) => one !== undefined)) as T;
	return value;
}

/** Throws InputError where a table would have no cell, or more than can be worked on. */
export function checkSize(rows: number, columns: number): void {
	if (!Number.isInteger(rows) || !Number.isInteger(columns) || rows < 1 || columns < 1)
		throw new InputError('size', 'A table has at least one row and one column.');
	if (columns > MOST_COLUMNS || rows * columns > MOST_CELLS)
		throw new InputError(
			'size',
			`A table of ${rows.toLocaleString('en')} × ${columns.toLocaleString('en')} cells is larger than what can be worked on by hand: up to ${MOST_COLUMNS.toLocaleString('en')} columns and ${MOST_CELLS.toLocaleString('en')} cells.`
		);
}

/** An empty table. */
export function emptyTable(
	rows: number,
	columns: number,
	{ headers = 1, totals = 0 }: { headers?: number; totals?: number } = {}
): WorkTable {
	checkSize(rows, columns);
	return {
		rows: Array.from({ length: rows }, (_, r): WorkRow => ({
			id: r + 1,
			role: r < headers ? atLevel('header', r + 1) : r >= rows - totals ? 'total' : 'body',
			cells: Array<Slot>(columns).fill(EMPTY_CELL)
		})),
		columns: Array.from({ length: columns }, (): WorkColumn => ({ kind: 'text', isGuessed: true })),
		firstColumns: columns > 1 ? 1 : 0,
		lastColumns: 0,
		mark: '.',
		nextId: rows + 1
	};
}

/** Indices of joined cells by their first slot, in reading order. */
const joined = new WeakMap<readonly WorkRow[], readonly Span[]>();
export function joinedCells({ rows }: Pick<WorkTable, 'rows'>): readonly Span[] {
	let known = joined.get(rows);
	if (!known) {
		const found: Span[] = [];
		rows.forEach((row, r) => {
			for (const span of joinedIn(row)) found.push({ r, ...span });
		});
		joined.set(rows, (known = found));
	}
	return known;
}
const joinedInRow = new WeakMap<WorkRow, readonly Omit<Span, 'r'>[]>();
function joinedIn(row: WorkRow): readonly Omit<Span, 'r'>[] {
	let known = joinedInRow.get(row);
	if (!known) {
		known = row.cells.flatMap((slot, c) => (isJoined(slot) ? [{ c, rows: slot.rows ?? 1, cols: slot.cols ?? 1 }] : []));
		joinedInRow.set(row, known);
	}
	return known;
}

/** The first slot and the extent of the cell that covers a slot. */
export function anchorOf(work: Pick<WorkTable, 'rows'>, r: number, c: number): Span {
	const slot = work.rows[r]!.cells[c]!;
	if (!isCovered(slot)) return { r, c, rows: slot.rows ?? 1, cols: slot.cols ?? 1 };
	for (let y = r; y >= 0; y--)
		for (let x = c; x >= 0; x--) {
			const one = work.rows[y]!.cells[x]!;
			if (isCovered(one)) continue;
			if (y + (one.rows ?? 1) > r && x + (one.cols ?? 1) > c)
				return { r: y, c: x, rows: one.rows ?? 1, cols: one.cols ?? 1 };
			if (y === r) break;
		}
	throw new Error(`No cell covers row ${r}, column ${c}.`);
}

export const cellOf = (work: Pick<WorkTable, 'rows'>, r: number, c: number): WorkCell => {
	const { r: y, c: x } = anchorOf(work, r, c);
	return work.rows[y]!.cells[x] as WorkCell;
};

/** The first broken promise of the invariant, or undefined. */
export function workFault(work: WorkTable): string | undefined {
	const ids = new Set<number>();
	const width = work.columns.length;
	if (!work.rows.length || !width) return 'there is no cell';
	const owner = new Int32Array(work.rows.length * width).fill(-1);
	for (const [r, row] of work.rows.entries()) {
		if (ids.has(row.id) || row.id >= work.nextId) return `the id of row ${r + 1} is not its own`;
		ids.add(row.id);
		if (row.cells.length !== width) return `row ${r + 1} has ${row.cells.length} slots for ${width} columns`;
	}
	for (const [r, row] of work.rows.entries())
		for (const [c, slot] of row.cells.entries()) {
			if (isCovered(slot)) continue;
			for (let y = r; y < r + (slot.rows ?? 1); y++)
				for (let x = c; x < c + (slot.cols ?? 1); x++) {
					if (y >= work.rows.length || x >= width) return `the cell in row ${r + 1}, column ${c + 1} reaches outside`;
					if (owner[y * width + x] !== -1) return `two cells cover row ${y + 1}, column ${x + 1}`;
					if ((y !== r || x !== c) && !isCovered(work.rows[y]!.cells[x]!))
						return `two cells cover row ${y + 1}, column ${x + 1}`;
					owner[y * width + x] = r * width + c;
				}
		}
	const open = owner.indexOf(-1);
	if (open >= 0) return `no cell covers row ${Math.floor(open / width) + 1}, column ${(open % width) + 1}`;
	if (work.firstColumns > width || work.lastColumns > width) return 'more first or last columns than columns';
	return undefined;
}

/** Plain texts as content, shared by cells that say the same. */
const contents = new Map<string, readonly CellContent[]>();
export function contentOfCell({ text, content }: WorkCell): readonly CellContent[] {
	if (content) return content;
	let known = contents.get(text);
	if (!known) {
		if (contents.size > 50_000) contents.clear();
		contents.set(text, (known = text.split('\n').map((line) => ({ runs: line ? [{ text: line }] : [] }))));
	}
	return known;
}

/** What a cell shows: its picture, then its words. */
export const shownIn = (cell: WorkCell): readonly CellContent[] =>
	cell.picture ? [{ picture: cell.picture }, ...(cell.text ? contentOfCell(cell) : [])] : contentOfCell(cell);

/** The text of content: paragraphs part lines. */
export const textOfContent = (content: readonly CellContent[]): string =>
	content.flatMap((piece) => ('runs' in piece ? [piece.runs.map(({ text }) => text).join('')] : [])).join('\n');

/** Whether the content says nothing beyond its text: no emphasis, picture or inner table. */
export const isPlain = (content: readonly CellContent[] | undefined, text: string): boolean =>
	!content ||
	(content.every(
		(piece) =>
			'runs' in piece &&
			piece.runs.every(({ text: _, ...emphasis }) => Object.values(emphasis).every((one) => one === undefined))
	) &&
		content.map((piece) => ('runs' in piece ? piece.runs.map((run) => run.text).join('') : '')).join('\n') === text);

/** What a cell is worked out from goes; what it shows stays. */
export function asTyped(cell: WorkCell): WorkCell {
	if (!cell.total && !cell.formula) return cell;
	const { total: _, formula: _f, ...rest } = cell;
	return rest;
}
/** A cell that says something else; what it was worked out from is gone. */
export function withContent(cell: WorkCell, content: readonly CellContent[]): WorkCell {
	const { content: _, ...rest } = asTyped(cell);
	const text = textOfContent(content);
	return isPlain(content, text) ? { ...rest, text } : { ...rest, text, content };
}

export const withText = (cell: WorkCell, text: string): WorkCell => {
	if (cell.text === text && !cell.content && asTyped(cell) === cell) return cell;
	const { content, ...rest } = asTyped(cell);
	const inner = content?.filter((piece) => 'nested' in piece) ?? [];
	return inner.length ? { ...rest, text, content: [...contentOfCell({ text }), ...inner] } : { ...rest, text };
};

/** A table with some of its cells replaced; `change` may give back the same cell. Rows without a change stay. */
export function withCells(
	work: WorkTable,
	places: Iterable<{ readonly r: number; readonly c: number }>,
	change: (cell: WorkCell, r: number, c: number) => WorkCell
): WorkTable {
	const changed = new Map<number, Slot[]>();
	for (const { r, c } of places) {
		const cell = (changed.get(r) ?? work.rows[r]!.cells)[c]!;
		if (isCovered(cell)) continue;
		const next = change(cell, r, c);
		if (next === cell) continue;
		let cells = changed.get(r);
		if (!cells) changed.set(r, (cells = [...work.rows[r]!.cells]));
		cells[c] = next;
	}
	if (!changed.size) return work;
	const rows = [...work.rows];
	for (const [r, cells] of changed) rows[r] = { ...rows[r]!, cells };
	return { ...work, rows };
}
