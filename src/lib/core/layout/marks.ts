import type { Line } from '../cascade/look.ts';
import type { Shadow } from '../properties/shadow.ts';
import type { Hex } from '../colour.ts';
import type { CellPicture } from '../table/content.ts';
import type { LaidPiece } from './paragraph.ts';
import { strokes } from './strokes.ts';
import { baselineIn, boxOf, layTable, tableWidth, type LaidTable, type TableInput } from './table.ts';
import type { Faces } from './faces.ts';

/** What is drawn on a page. Lengths are EMU from the page's top left corner. */
export type Mark =
	| {
			readonly kind: 'fill';
			readonly x: number;
			readonly y: number;
			readonly width: number;
			readonly height: number;
			readonly ink: Hex;
	  }
	| {
			readonly kind: 'line';
			readonly x1: number;
			readonly y1: number;
			readonly x2: number;
			readonly y2: number;
			readonly line: Line;
	  }
	/** What a box throws beside itself; drawn below everything. */
	| {
			readonly kind: 'shadow';
			readonly x: number;
			readonly y: number;
			readonly width: number;
			readonly height: number;
			readonly shadow: Shadow;
	  }
	/** Text from its baseline's start, turned clockwise about it. */
	| {
			readonly kind: 'text';
			readonly x: number;
			readonly y: number;
			readonly turn: 0 | 90 | 270;
			readonly piece: LaidPiece;
			readonly shadow?: Shadow;
	  }
	| {
			readonly kind: 'picture';
			readonly x: number;
			readonly y: number;
			readonly width: number;
			readonly height: number;
			readonly picture: CellPicture;
	  };

/** The marks of one cell, and of the tables inside it. */
export interface CellMarks {
	/** Index in the grid. */
	readonly cell: number;
	readonly marks: readonly Mark[];
	readonly tables: readonly TableMarks[];
	/** Heads of tables inside it that stand again where it goes on. */
	readonly repeated: readonly TableMarks[];
}

/** A stretch of a table: what is behind and around its cells, and each cell's own text. */
export interface TableMarks {
	readonly laid: LaidTable;
	readonly fills: readonly Mark[];
	readonly lines: readonly Mark[];
	readonly cells: readonly CellMarks[];
}

/** Heads of tables that stand in cells, where those go on in the middle of one. */
export interface InnerHeads {
	/** How high the heads are that stand before what goes on at a place of a table, the table's own left out. */
	lead(laid: LaidTable, at: number): number;
	/** The head of a table that goes on at a place; undefined where it begins there, or has none. */
	headAt(laid: LaidTable, at: number): LaidTable | undefined;
}
const NO_HEADS: InnerHeads = { lead: () => 0, headAt: () => undefined };

/** The heads of inner tables, by how many rows of each repeat. One taller than `most` does not. */
export function innerHeads(rowsOf: (laid: LaidTable) => number, most: number, faces: Faces): InnerHeads {
	const known = new Map<LaidTable, LaidTable | undefined>();
	const headOfTable = (laid: LaidTable) => {
		if (!known.has(laid)) {
			const rows = rowsOf(laid);
			known.set(laid, rows && laid.tops[rows]! <= most ? headOf(laid, rows, '', faces) : undefined);
		}
		return known.get(laid);
	};
	const headAt = (laid: LaidTable, at: number) => {
		const head = headOfTable(laid);
		return head && at >= head.tops.at(-1)! && at < laid.tops.at(-1)! ? head : undefined;
	};
	const lead = (laid: LaidTable, at: number): number =>
		at <= 0
			? 0
			: laid.cells
					.flatMap(({ tables }) => tables)
					.filter(({ top, laid: one }) => top < at && at < top + one.tops.at(-1)!)
					.reduce(
						(most, { top, laid: one }) =>
							Math.max(most, (headAt(one, at - top)?.tops.at(-1) ?? 0) + lead(one, at - top)),
						0
					);
	return { lead, headAt };
}

/**
 * Draws the stretch of a table between two places, `from` at (x, y). `isHeaded`: rows that repeat stand right above, and their line
 * shows where the stretch begins. `heads` are heads of tables inside that go on here: they stand at the stretch's own head, and what is
 * in the table follows them.
 */
export function marksOf(
	laid: LaidTable,
	[from, to]: readonly [number, number],
	x: number,
	y: number,
	isHeaded = false,
	heads: InnerHeads = NO_HEADS
): TableMarks {
	const { input, lefts, tops, cells } = laid;
	const { table, appearance } = input;
	const lead = heads.lead(laid, from);
	const dy = y + lead - from;
	/** Where a place is drawn: what began before the stretch begins at its head. */
	const drawnAt = (place: number) => (place < from ? y : place + dy);
	const fills: Mark[] = [];
	const lines: Mark[] = [];
	if (appearance.shadow)
		fills.push({
			kind: 'shadow',
			x,
			y,
			width: tableWidth(laid),
			height: lead + to - from,
			shadow: appearance.shadow
		});
	const drawn: CellMarks[] = [];
	table.cells.forEach(({ r, c, rows, cols }, i) => {
		const top = Math.max(tops[r]!, from);
		const bottom = Math.min(tops[r + rows]!, to);
		if (bottom <= top && !(tops[r]! === tops[r + rows]! && top >= from && top < to)) return;
		const look = appearance.looks[appearance.cellLook[i]!]!;
		const { x: left, width } = boxOf(laid, { r, c, rows, cols });
		if (look.fill && look.fill !== 'none')
			fills.push({
				kind: 'fill',
				x: x + left,
				y: drawnAt(tops[r]!),
				width,
				height: bottom + dy - drawnAt(tops[r]!),
				ink: look.fill
			});
		const isWhole = tops[r]! >= from && tops[r + rows]! <= to;
		if (isWhole) {
			const corners = { y1: top + dy, y2: bottom + dy };
			const diagonal = (line: Line | null | undefined, x1: number, x2: number) => {
				if (line && line.pattern !== 'none') lines.push({ kind: 'line', x1: x + x1, x2: x + x2, ...corners, line });
			};
			diagonal(look.diagonalDown, left, left + width);
			diagonal(look.diagonalUp, left + width, left);
		}
		const cell = cells[i]!;
		const marks: Mark[] = [];
		const shaded = look.textShadow ? { shadow: look.textShadow } : {};
		for (const placed of cell.lines) {
			const { line, baseline, top: lineTop } = placed;
			if (cell.rotate) {
				// Turned text is drawn where its cell begins, and only there.
				if (tops[r]! < from || tops[r]! >= to) continue;
				const offset = placed.top;
				const box = { top: tops[r]!, bottom: tops[r + rows]! };
				const margins = [look.marginStart ?? 0, look.marginEnd ?? 0] as const;
				const [start, end] = table.dir === 'rtl' ? margins.toReversed() : margins;
				for (const piece of line.pieces) {
					const along = placed.x + piece.x;
					if (cell.rotate === 90)
						marks.push({
							kind: 'text',
							x: x + left + width - end! - offset - baselineIn(look, line) - piece.rise,
							y: box.top + (look.marginTop ?? 0) + along + dy,
							turn: 90,
							piece,
							...shaded
						});
					else
						marks.push({
							kind: 'text',
							x: x + left + start! + offset + baselineIn(look, line) - piece.rise,
							y: box.bottom - (look.marginBottom ?? 0) - along + dy,
							turn: 270,
							piece,
							...shaded
						});
				}
				continue;
			}
			if (lineTop < from - 1 || lineTop >= to - 1) continue;
			for (const piece of line.pieces)
				marks.push({
					kind: 'text',
					x: x + placed.x + piece.x,
					y: baseline - piece.rise + dy,
					turn: 0,
					piece,
					...shaded
				});
		}
		for (const { x: across, top: at, width, height, picture } of cell.pictures)
			if (at >= from - 1 && at < to - 1)
				marks.push({ kind: 'picture', x: x + across, y: at + dy, width, height, picture });
		const inner: TableMarks[] = [];
		const repeated: TableMarks[] = [];
		for (const { x: left, top, laid: one } of cell.tables) {
			const height = one.tops.at(-1)!;
			const stretch = [Math.max(0, from - top), Math.min(height, to - top)] as const;
			if (stretch[1] - stretch[0] <= 1 && !(height <= 1 && top >= from && top < to)) continue;
			const own = heads.lead(one, stretch[0]);
			const at = Math.max(top, from) + dy;
			const head = heads.headAt(one, stretch[0]);
			if (head) {
				const headHeight = head.tops.at(-1)!;
				repeated.push(marksOf(head, [0, headHeight], x + left, at - own - headHeight));
			}
			inner.push(marksOf(one, stretch, x + left, at - own, head !== undefined, heads));
		}
		if (marks.length || inner.length || (tops[r]! >= from && tops[r]! < to))
			drawn.push({ cell: i, marks, tables: inner, repeated });
	});
	const place = (value: number) => Math.min(Math.max(value, from), to);
	for (const { at, from: start, to: stop, line } of strokes(appearance, table, 'across')) {
		const where = tops[at]!;
		if (!line || where < from || where > to || (isHeaded && where === from)) continue;
		lines.push({ kind: 'line', x1: x + lefts[start]!, x2: x + lefts[stop]!, y1: where + dy, y2: where + dy, line });
	}
	for (const { at, from: start, to: stop, line } of strokes(appearance, table, 'down')) {
		const y1 = place(tops[start]!);
		const y2 = place(tops[stop]!);
		if (line && y2 > y1)
			lines.push({
				kind: 'line',
				x1: x + lefts[at]!,
				x2: x + lefts[at]!,
				y1: drawnAt(tops[start]!),
				y2: y2 + dy,
				line
			});
	}
	return { laid, fills, lines, cells: drawn };
}

/**
 * The rows at the head of a laid table as a table of their own, for the pages that it goes on to; its title, where it
 * has one, says so.
 */
export function headOf(laid: LaidTable, rows: number, continued: string, faces: Faces): LaidTable {
	const { table, appearance, content, nested } = laid.input;
	const { columns } = table;
	const cells = table.cells.filter(({ r }) => r < rows);
	const head: TableInput = {
		table: {
			...table,
			rows,
			cells,
			slots: table.slots.slice(0, rows * columns),
			merged: table.merged.filter((i) => i < cells.length)
		},
		appearance: {
			...appearance,
			cellLook: appearance.cellLook.slice(0, cells.length),
			across: appearance.across.slice(0, (rows + 1) * columns),
			down: appearance.down.slice(0, rows * (columns + 1))
		},
		content: cells.map(({ r, text }, i) => {
			const own = content[i]!;
			const last = own.at(-1);
			if (table.roles[r] !== 'title' || !text.trim() || !last || !('runs' in last)) return own;
			return [...own.slice(0, -1), { runs: [...last.runs, { text: continued }] }];
		}),
		widths: laid.widths.map((fixed) => ({ fixed })),
		...(nested && { nested })
	};
	return layTable(head, laid.widths.reduce<number>((sum, width) => sum + width, 0) as never, faces);
}
