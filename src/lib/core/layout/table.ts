import type { Appearance, Look } from '../cascade/look.ts';
import type { CellContent, CellPicture } from '../table/content.ts';
import type { Cell, Direction, Table } from '../table/grid.ts';
import { behaviour } from '../roles/index.ts';
import { markOfTable } from '../values/parse.ts';
import { emu, type Emu } from '../units.ts';
import { ordered } from './bidi.ts';
import { baseOf } from './direction.ts';
import type { Faces } from './faces.ts';
import { fillLines, justified, measureParagraph, pieceWidth, type LaidLine, type Measured } from './paragraph.ts';
import { lineHeightOf, piecesOf } from './text.ts';
import { columnWidths, type ColumnWidth, type Need } from './widths.ts';

/** A table with everything that its layout depends on. */
export interface TableInput {
	readonly table: Pick<Table, 'rows' | 'columns' | 'cells' | 'slots' | 'merged' | 'roles' | 'firstColumns' | 'dir'>;
	readonly appearance: Appearance;
	/** Per cell of the grid. */
	readonly content: readonly (readonly CellContent[])[];
	/** Per column; columns without one are fitted. */
	readonly widths: readonly ColumnWidth[];
	/** Per row, where it is no lower. */
	readonly leastHeights?: readonly (number | undefined)[];
	/** Room, per cell of the grid, for something that is drawn in it besides its text. */
	readonly pictures?: ReadonlyMap<number, { readonly width: number; readonly height: number }>;
	/** Finds a table that stands inside a cell. */
	readonly nested?: (index: number) => TableInput | undefined;
}

/** A line of a cell, from the table's top left corner; `x` is where the line's pieces count from. */
export interface PlacedLine {
	readonly x: number;
	readonly top: number;
	readonly height: number;
	readonly baseline: number;
	readonly line: LaidLine;
}

export interface PlacedTable {
	readonly x: number;
	readonly top: number;
	readonly laid: LaidTable;
}

export interface PlacedPicture {
	readonly x: number;
	readonly top: number;
	readonly width: number;
	readonly height: number;
	readonly picture: CellPicture;
}

export interface LaidCell {
	readonly lines: readonly PlacedLine[];
	readonly tables: readonly PlacedTable[];
	/** Pictures stand upright in a cell whose text is turned, too. */
	readonly pictures: readonly PlacedPicture[];
	/** Where the cell's text is turned: lines count from its top-start corner before the turn. */
	readonly rotate: 0 | 90 | 270;
}

/** A table laid out at a measure. Lengths are EMU. */
export interface LaidTable {
	readonly input: TableInput;
	readonly widths: readonly Emu[];
	readonly heights: readonly Emu[];
	/** Edges of the columns and rows: one more than there are. Those of columns fall where the table runs from right to left. */
	readonly lefts: readonly number[];
	readonly tops: readonly number[];
	/** Per cell of the grid. */
	readonly cells: readonly LaidCell[];
}

type Piece =
	| { readonly measured: Measured; readonly base: Direction }
	| { readonly inner: TableInput }
	| { readonly picture: CellPicture };
interface Prepared {
	readonly look: Look;
	readonly pieces: readonly Piece[];
	/** Text of a one-line figure that lines up on its decimal mark: how far it reaches to both sides of it. */
	readonly figure?: { readonly before: number; readonly after: number };
	readonly need: Need;
}

const across = (look: Look) => (look.marginStart ?? 0) + (look.marginEnd ?? 0);
const down = (look: Look) => (look.marginTop ?? 0) + (look.marginBottom ?? 0);
const running = (lengths: readonly number[]) => {
	const edges = [0];
	for (const length of lengths) edges.push(edges.at(-1)! + length);
	return edges;
};

/** A picture gives way to a narrow column down to this width (10 mm). */
const LEAST_PICTURE = 360_000;

/** Widths are whole EMU; a text as wide as its column is not broken for the fraction. */
const ROUNDING = 1;

function prepareCells(input: TableInput, faces: Faces): Prepared[] {
	const { table, appearance, content } = input;
	const mark = markOfTable(table);
	return table.cells.map(({ r }, i): Prepared => {
		const look = appearance.looks[appearance.cellLook[i]!]!;
		let min = 0;
		let max = 0;
		let figure: Prepared['figure'];
		const pieces = content[i]!.flatMap((one): Piece[] => {
			if ('picture' in one) {
				const { width } = one.picture;
				min = Math.max(min, Math.min(width, LEAST_PICTURE));
				max = Math.max(max, width);
				return [one];
			}
			if ('nested' in one) {
				const inner = input.nested?.(one.nested);
				if (!inner) return [];
				const needs = prepareCells(inner, faces).map(({ need }) => need);
				const least = columnWidths(inner.table, needs, [], 1 as Emu);
				const widest = columnWidths(inner.table, needs, inner.widths, Number.MAX_SAFE_INTEGER as Emu);
				min = Math.max(min, least.length ? needs.reduce((most, need) => Math.max(most, need.min), 0) : 0);
				max = Math.max(
					max,
					widest.reduce((sum, width) => sum + width, 0)
				);
				return [{ inner }];
			}
			const texts = piecesOf(one.runs, look, faces);
			const measured = measureParagraph(texts);
			min = Math.max(min, measured.min);
			max = Math.max(max, measured.max);
			if (
				look.h === 'decimal' &&
				content[i]!.length === 1 &&
				texts.length === 1 &&
				behaviour(table.roles[r]!).holdsFigures
			) {
				const text = texts[0]!.text.trimEnd();
				const at = text.lastIndexOf(mark);
				const before = at < 0 ? text.replace(/[^\d)]*$/, '') : text.slice(0, at);
				if (/\d/.test(text)) {
					const reach = pieceWidth(texts[0]!, before);
					figure = { before: reach, after: pieceWidth(texts[0]!, text) - reach };
				}
			}
			return [{ measured, base: baseOf(texts.map(({ text }) => text).join(''), table.dir ?? 'ltr') }];
		});
		const turned = (look.rotate ?? 0) !== 0;
		const picture = input.pictures?.get(i);
		if (picture) min = max = Math.max(max, picture.width);
		const widest = pieces.reduce((most, piece) => Math.max(most, 'picture' in piece ? piece.picture.width : 0), 0);
		const lines = Math.max(lineHeightOf(look) * Math.max(1, pieces.length), widest);
		return {
			look,
			pieces,
			...(figure && { figure }),
			need: turned
				? { min: lines + across(look), max: lines + across(look) }
				: { min: min + across(look), max: max + across(look) }
		};
	});
}

/** What a cell's content is at a measure, from the content's own top: lines, tables, and how high it all is. */
function fill({ look, pieces }: Prepared, measure: number, faces: Faces) {
	const height = lineHeightOf(look);
	const items: (
		| { readonly top: number; readonly line: LaidLine; readonly base: Direction }
		| { readonly top: number; readonly laid: LaidTable }
		| { readonly top: number; readonly picture: CellPicture; readonly width: number; readonly height: number }
	)[] = [];
	let top = 0;
	for (const [at, piece] of pieces.entries()) {
		if (at > 0) top += look.paragraphGap ?? 0;
		if ('inner' in piece) {
			const laid = layTable(piece.inner, emu(measure), faces);
			items.push({ top, laid });
			top += laid.tops.at(-1)!;
		} else if ('picture' in piece) {
			const { picture } = piece;
			// As wide as the cell, or as large as it is by itself where there is room for that.
			const width = picture.fits === 'cell' && !look.rotate ? measure : Math.min(picture.width, measure);
			const size = { width, height: (picture.height * width) / picture.width };
			items.push({ top, picture, ...size });
			top += size.height;
		} else
			for (const line of fillLines(piece.measured, measure)) {
				items.push({ top, line, base: piece.base });
				top += height;
			}
	}
	return { items, height: Math.max(top, height) };
}

/** Lays a table out at a measure: widths of columns, heights of rows, and the place of every line of text. */
export function layTable(input: TableInput, measure: Emu, faces: Faces): LaidTable {
	const { table } = input;
	const prepared = prepareCells(input, faces);
	// Figures that line up may reach farther together than any of them does alone.
	const fractions = new Array<number>(table.columns).fill(0);
	const wholes = new Array<number>(table.columns).fill(0);
	table.cells.forEach(({ c, cols }, i) => {
		const figure = prepared[i]!.figure;
		if (!figure || cols > 1) return;
		fractions[c] = Math.max(fractions[c]!, figure.after);
		wholes[c] = Math.max(wholes[c]!, figure.before);
	});
	const needs = prepared.map(({ figure, need, look }, i): Need => {
		const { c, cols } = table.cells[i]!;
		if (!figure || cols > 1) return need;
		const together = wholes[c]! + fractions[c]! + across(look);
		return { min: Math.max(need.min, together), max: Math.max(need.max, together) };
	});
	const widths = columnWidths(table, needs, input.widths, measure);
	const lefts = running(widths);
	const dir = table.dir ?? 'ltr';
	/** Where something stands from the left, by its distance from where the table starts. */
	const fromLeft = (start: number, width: number) => (dir === 'rtl' ? lefts.at(-1)! - start - width : start);

	const filled = prepared.map((cell, i) => {
		const { c, cols } = table.cells[i]!;
		const turned = (cell.look.rotate ?? 0) !== 0;
		const inside = lefts[c + cols]! - lefts[c]! - across(cell.look);
		return fill(cell, turned ? Number.MAX_SAFE_INTEGER : Math.max(inside + ROUNDING, 1), faces);
	});
	/** How high a cell wants to be: turned text is as high as its longest line is long. */
	const wants = filled.map(({ items, height }, i) => {
		const { look } = prepared[i]!;
		const content = look.rotate
			? items.reduce(
					(most, item) => Math.max(most, 'line' in item ? item.line.width : 'picture' in item ? item.height : 0),
					0
				)
			: height;
		return Math.max(content, input.pictures?.get(i)?.height ?? 0) + down(look);
	});
	const heights = Array.from({ length: table.rows }, (_, r) => input.leastHeights?.[r] ?? 0);
	table.cells.forEach(({ r, rows }, i) => {
		if (rows === 1) heights[r] = Math.max(heights[r]!, Math.ceil(wants[i]!));
	});
	const tall = table.merged
		.filter((i) => table.cells[i]!.rows > 1)
		.sort((a, b) => table.cells[a]!.rows - table.cells[b]!.rows);
	for (const i of tall) {
		const { r, rows } = table.cells[i]!;
		const have = heights.slice(r, r + rows).reduce((sum, height) => sum + height, 0);
		heights[r + rows - 1]! += Math.max(0, Math.ceil(wants[i]!) - have);
	}
	const tops = running(heights);

	const cells = table.cells.map(({ r, c, rows, cols }, i): LaidCell => {
		const { look, figure } = prepared[i]!;
		const { items, height } = filled[i]!;
		const rotate = look.rotate ?? 0;
		const box = { width: lefts[c + cols]! - lefts[c]!, height: tops[r + rows]! - tops[r]! };
		// Turned text runs along the cell's height: what is across for it is down for the cell.
		const room = rotate ? box.height - down(look) : box.width - across(look);
		const depth = rotate ? box.width - across(look) : box.height - down(look);
		const spare = Math.max(0, depth - height);
		const v = look.v ?? 'top';
		const shift = v === 'bottom' ? spare : v === 'middle' ? spare / 2 : 0;
		const originX = rotate ? 0 : lefts[c]! + (look.marginStart ?? 0);
		const originY = rotate ? 0 : tops[r]! + (look.marginTop ?? 0);
		const lines: PlacedLine[] = [];
		const tables: PlacedTable[] = [];
		const pictures: PlacedPicture[] = [];
		for (const item of items) {
			const top = originY + shift + item.top;
			if ('laid' in item) {
				tables.push({ x: fromLeft(originX, tableWidth(item.laid)), top, laid: item.laid });
				continue;
			}
			if ('picture' in item) {
				const { picture, width, height } = item;
				const free = Math.max(0, box.width - across(look) - width);
				const x = look.h === 'end' || look.h === 'decimal' ? free : look.h === 'middle' ? free / 2 : 0;
				const upright = {
					x: fromLeft(lefts[c]! + (look.marginStart ?? 0) + x, width),
					top: rotate ? tops[r]! + (look.marginTop ?? 0) : top
				};
				pictures.push({ ...upright, width, height, picture });
				continue;
			}
			const filledLine = look.h === 'justify' ? justified(item.line, room) : item.line;
			const line = ordered(filledLine, item.base);
			const free = room - line.width;
			const x =
				figure && cols === 1
					? dir === 'rtl'
						? // Digits run to the right in any script: their marks line up from the right.
							fractions[c]! - figure.after
						: room - fractions[c]! - figure.before
					: look.h === 'end' || look.h === 'decimal'
						? free
						: look.h === 'middle'
							? free / 2
							: 0;
			const left = rotate ? originX + x : fromLeft(originX + x, line.width);
			lines.push({ x: left, top, height: lineHeightOf(look), baseline: top + baselineIn(look, line), line });
		}
		return { lines, tables, pictures, rotate };
	});
	const edges = dir === 'rtl' ? lefts.map((left) => lefts.at(-1)! - left) : lefts;
	return { input, widths, heights: heights.map(emu), lefts: edges, tops, cells };
}

export const tableWidth = ({ widths }: Pick<LaidTable, 'widths'>): number =>
	widths.reduce<number>((sum, width) => sum + width, 0);

/** Where a cell stands, from the table's top left corner. */
export function boxOf({ lefts, tops }: LaidTable, { r, c, rows, cols }: Pick<Cell, 'r' | 'c' | 'rows' | 'cols'>) {
	const [x1, x2] = [lefts[c]!, lefts[c + cols]!];
	return { x: Math.min(x1, x2), y: tops[r]!, width: Math.abs(x2 - x1), height: tops[r + rows]! - tops[r]! };
}

/** Where a line's baseline is below its top: its tallest face stands in the middle of the line. */
export function baselineIn(look: Look, { pieces }: LaidLine): number {
	const height = lineHeightOf(look);
	const tallest = pieces.reduce<{ up: number; down: number }>(
		({ up, down }, { face, size, rise }) =>
			rise === 0 ? { up: Math.max(up, face.ascent * size), down: Math.max(down, face.descent * size) } : { up, down },
		{ up: 0, down: 0 }
	);
	return (height - tallest.up - tallest.down) / 2 + tallest.up;
}
