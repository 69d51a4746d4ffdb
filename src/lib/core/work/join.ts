import { InputError } from '../errors.ts';
import type { CellContent } from '../table/content.ts';
import { roleFamily } from '../roles/index.ts';
import { insertColumns, insertRows } from './lines.ts';
import { guard } from './locks.ts';
import { cellsIn, whole, type Range } from './selection.ts';
import {
	anchorOf,
	contentOfCell,
	COVERED,
	EMPTY_CELL,
	isCovered,
	tidy,
	withContent,
	type Slot,
	type WorkCell,
	type WorkTable
} from './table.ts';

/** How cells are joined: into one, along each row, or down each column. */
export const JOINS = ['one', 'rows', 'columns'] as const;
export type Join = (typeof JOINS)[number];

/** Joins the cells of a range; their texts come one under the other. Throws InputError where that cannot be. */
export function joinCells(work: WorkTable, range: Range, how: Join): WorkTable {
	const all = whole(work, range);
	const pieces: Range[] =
		how === 'one'
			? [all]
			: how === 'rows'
				? Array.from({ length: all.bottom - all.top + 1 }, (_, i) => ({
						...all,
						top: all.top + i,
						bottom: all.top + i
					}))
				: Array.from({ length: all.end - all.start + 1 }, (_, i) => ({
						...all,
						start: all.start + i,
						end: all.start + i
					}));
	return pieces.reduce(joinOne, work);
}

function joinOne(work: WorkTable, piece: Range): WorkTable {
	const range = whole(work, piece);
	const { top, bottom, start, end } = range;
	if (range !== piece)
		throw new InputError('joined', 'A joined cell reaches out of these rows or columns. Split it first.');
	const places = cellsIn(work, [range]);
	if (places.length < 2) return work;
	const families = new Set(work.rows.slice(top, bottom + 1).map(({ role }) => roleFamily(role)));
	if (families.size > 1)
		throw new InputError(
			'roles',
			`A joined cell has one role, but these rows are ${[...families].join(' and ')}. Join the cells of each by themselves, or change the roles first.`
		);
	guard(work, places, 'content');
	const cells = places.map(({ r, c }) => work.rows[r]!.cells[c] as WorkCell);
	const content: CellContent[] = [];
	for (const cell of cells)
		if (cell.text.trim() || cell.content) {
			const own = contentOfCell(cell);
			content.push(...own);
		}
	const first = cells[0]!;
	const picture = cells.find((cell) => cell.picture)?.picture;
	const rows = [...work.rows];
	for (let r = top; r <= bottom; r++) {
		const slots: Slot[] = [...rows[r]!.cells];
		for (let c = start; c <= end; c++) {
			const lines = outerLines(slots[c]!, r === top, r === bottom, c === start, c === end);
			slots[c] = lines ? { covered: true, lines } : COVERED;
		}
		rows[r] = { ...rows[r]!, cells: slots };
	}
	const corner = rows[top]!.cells[start]!.lines;
	const said = withContent({ ...first, text: '' }, content);
	(rows[top]!.cells as Slot[])[start] = tidy<WorkCell>({
		...said,
		rows: bottom > top ? bottom - top + 1 : undefined,
		cols: end > start ? end - start + 1 : undefined,
		lines: corner,
		picture
	});
	return { ...work, rows };
}

/** Of a slot's touched edges, those that stay edges in a joined cell. */
function outerLines({ lines }: Slot, isTop: boolean, isBottom: boolean, isStart: boolean, isEnd: boolean) {
	if (!lines) return undefined;
	const kept = tidy({
		top: isTop ? lines.top : undefined,
		bottom: isBottom ? lines.bottom : undefined,
		start: isStart ? lines.start : undefined,
		end: isEnd ? lines.end : undefined
	});
	return Object.keys(kept).length ? kept : undefined;
}

/**
 * Parts a cell into `down` × `across` cells. What it says stays in the first. Where it does not cover so many rows or
 * columns, new ones come in, and the cells beside it reach over them.
 */
export function splitCell(work: WorkTable, r: number, c: number, down: number, across: number): WorkTable {
	if (![down, across].every((n) => Number.isInteger(n) && n >= 1 && n <= 100))
		throw new InputError('size', 'A cell is split into 1 to 100 rows and 1 to 100 columns.');
	const place = anchorOf(work, r, c);
	guard(work, [place], 'content');
	let next = work;
	if (down > place.rows) next = widened(next, 'rows', place, down - place.rows);
	if (across > place.cols) next = widened(next, 'columns', place, across - place.cols);
	const { rows: height, cols: width } = anchorOf(next, place.r, place.c);
	const cell = next.rows[place.r]!.cells[place.c] as WorkCell;
	const ends = (length: number, parts: number) =>
		Array.from({ length: parts }, (_, i) => Math.floor(((i + 1) * length) / parts));
	const rows = [...next.rows];
	let y = 0;
	for (const bottom of ends(height, down)) {
		let x = 0;
		for (const end of ends(width, across)) {
			for (let yy = y; yy < bottom; yy++) {
				const slots: Slot[] = [...rows[place.r + yy]!.cells];
				for (let xx = x; xx < end; xx++) {
					const { lines } = slots[place.c + xx]!;
					const isFirst = yy === y && xx === x;
					const own: WorkCell = y === 0 && x === 0 ? cell : tidy({ ...EMPTY_CELL, touch: cell.touch, from: cell.from });
					slots[place.c + xx] = isFirst
						? tidy<WorkCell>({
								...own,
								rows: bottom - y > 1 ? bottom - y : undefined,
								cols: end - x > 1 ? end - x : undefined,
								lines
							})
						: lines
							? { covered: true, lines }
							: COVERED;
				}
				rows[place.r + yy] = { ...rows[place.r + yy]!, cells: slots };
			}
			x = end;
		}
		y = bottom;
	}
	return { ...next, rows };
}

/** New rows or columns at the end of a cell that reaches over them, as do all cells beside it. */
function widened(
	work: WorkTable,
	axis: 'rows' | 'columns',
	place: { r: number; c: number; rows: number; cols: number },
	count: number
): WorkTable {
	const isRows = axis === 'rows';
	const last = isRows ? place.r + place.rows - 1 : place.c + place.cols - 1;
	const grown = isRows ? insertRows(work, last + 1, count, last) : insertColumns(work, last + 1, count, last);
	const rows = grown.rows.map((row) => ({ ...row, cells: [...row.cells] }));
	// The rows that were inserted take the role of the row they are parted from.
	if (isRows) for (let r = last + 1; r <= last + count; r++) rows[r] = { ...rows[r]!, role: work.rows[last]!.role };
	const seen = new Set<string>();
	const beside = isRows ? work.columns.length : work.rows.length;
	for (let i = 0; i < beside; i++) {
		const { r, c, rows: height, cols: width } = isRows ? anchorOf(work, last, i) : anchorOf(work, i, last);
		if (seen.has(`${r},${c}`)) continue;
		seen.add(`${r},${c}`);
		// A cell that ends further on was stretched by the insertion itself.
		if (isRows ? r + height - 1 > last : c + width - 1 > last) continue;
		const [tall, wide] = isRows ? [height + count, width] : [height, width + count];
		for (let y = r; y < r + tall; y++)
			for (let x = c; x < c + wide; x++) {
				if (y === r && x === c) continue;
				const { lines } = rows[y]!.cells[x]!;
				rows[y]!.cells[x] = lines ? { covered: true, lines } : COVERED;
			}
		const slot = rows[r]!.cells[c] as WorkCell;
		rows[r]!.cells[c] = tidy({ ...slot, rows: tall > 1 ? tall : undefined, cols: wide > 1 ? wide : undefined });
	}
	return { ...grown, rows };
}

/** Joined cells of some ranges, each parted into the slots that it covers. */
export function partAll(work: WorkTable, ranges: readonly Range[]): WorkTable {
	return cellsIn(work, ranges).reduce((table, { r, c }) => {
		const slot = table.rows[r]!.cells[c]!;
		return isCovered(slot) || ((slot.rows ?? 1) === 1 && (slot.cols ?? 1) === 1)
			? table
			: splitCell(table, r, c, slot.rows ?? 1, slot.cols ?? 1);
	}, work);
}
