import { Interned, type Appearance, type Line, type Look } from '../core/cascade/look.ts';
import { createGrid, type Grid, type Span, type Table } from '../core/table/grid.ts';
import type { Emu } from '../core/units.ts';

/** The head of a table as it looks, small enough to be kept and sent with lists. */
export interface Thumbnail {
	readonly title: string;
	/** The text of each slot. */
	readonly texts: readonly (readonly string[])[];
	readonly spans: readonly Span[];
	/** What of `looks` each cell has. */
	readonly cellLook: readonly number[];
	readonly looks: readonly Look[];
	/** As those of an {@link Appearance}, of what is shown. */
	readonly across: readonly number[];
	readonly down: readonly number[];
	readonly lines: readonly (Line | null)[];
	/** None where the file says none. */
	readonly widths: readonly Emu[];
	readonly dir?: 'rtl';
}

const MOST = { rows: 9, columns: 8 };
/** So many letters of a cell are seen. */
const LETTERS = 40;

export function thumbnailOf(
	title: string,
	table: Table,
	appearance: Appearance,
	widths: readonly Emu[],
	most = MOST
): Thumbnail {
	const rows = Math.min(most.rows, table.rows);
	const columns = Math.min(most.columns, table.columns);
	const texts = Array.from({ length: rows }, () => Array<string>(columns).fill(''));
	const spans: Span[] = [];
	const cellLook: number[] = [];
	const looks = new Interned<Look>();
	// Cells come in the order of their first slots, as in any grid.
	for (const [i, { r, c, rows: high, cols: wide, text }] of table.cells.entries()) {
		if (r >= rows || c >= columns) continue;
		texts[r]![c] = text.slice(0, LETTERS);
		const span = { r, c, rows: Math.min(high, rows - r), cols: Math.min(wide, columns - c) };
		if (span.rows > 1 || span.cols > 1) spans.push(span);
		const look = appearance.looks[appearance.cellLook[i]!]!;
		cellLook.push(looks.add(look, look));
	}
	const lines = new Interned<Line | null>();
	const lineAt = (edge: number): number => {
		if (edge < 0) return edge;
		const line = appearance.lines[edge]!;
		return lines.add(line, line);
	};
	return {
		title,
		texts,
		spans,
		cellLook,
		looks: looks.items,
		across: Array.from({ length: (rows + 1) * columns }, (_, at) =>
			lineAt(appearance.across[Math.floor(at / columns) * table.columns + (at % columns)]!)
		),
		down: Array.from({ length: rows * (columns + 1) }, (_, at) =>
			lineAt(appearance.down[Math.floor(at / (columns + 1)) * (table.columns + 1) + (at % (columns + 1))]!)
		),
		lines: lines.items,
		widths: widths.slice(0, columns),
		...(table.dir && { dir: table.dir })
	};
}

/** A kept thumbnail as what draws tables takes it. */
export function openThumbnail({ texts, spans, dir, ...kept }: Thumbnail): {
	grid: Grid & Pick<Table, 'dir'>;
	appearance: Appearance;
} {
	return {
		grid: { ...createGrid(texts, spans), ...(dir && { dir }) },
		appearance: {
			cellLook: Int32Array.from(kept.cellLook),
			looks: kept.looks,
			across: Int32Array.from(kept.across),
			down: Int32Array.from(kept.down),
			lines: kept.lines
		}
	};
}
