import type { Appearance, Line, Look } from '../core/cascade/look.ts';
import type { Grid, Side } from '../core/table/grid.ts';
import { sameLine } from '../core/properties/line.ts';

export const OPPOSITE: Readonly<Record<Side, Side>> = { top: 'bottom', bottom: 'top', start: 'end', end: 'start' };
export type MaybeLine = Line | null;

/** A look as a format says it that knows left and right only, in a table that starts at the right; and back. */
export const mirrored = (look: Look): Look =>
	look.marginStart === look.marginEnd
		? look
		: {
				...look,
				...(look.marginEnd !== undefined && { marginStart: look.marginEnd }),
				...(look.marginStart !== undefined && { marginEnd: look.marginStart })
			};

/** Alignment across of a paragraph that may start at the other side than its table, from one's words to the other's. */
export const acrossFrom = (h: NonNullable<Look['h']>, isOther: boolean): NonNullable<Look['h']> =>
	!isOther ? h : h === 'start' ? 'end' : h === 'end' ? 'start' : h;

export const isEven = (lines: readonly MaybeLine[]): boolean => lines.every((line) => sameLine(line, lines[0]));

/** The line that most of these are, null among them; of equals the thicker, then the first. */
export function commonLine(lines: readonly MaybeLine[]): MaybeLine {
	const counts: { line: MaybeLine; count: number }[] = [];
	for (const line of lines) {
		const known = counts.find((one) => sameLine(one.line, line));
		if (known) known.count++;
		else counts.push({ line, count: 1 });
	}
	counts.sort((a, b) => b.count - a.count || (b.line?.weight ?? 0) - (a.line?.weight ?? 0));
	return counts[0]?.line ?? null;
}

/**
 * What the cells of a table say on their sides, in a format in which a cell says one line a side. Edges are single
 * segments (engine §5.3), so a merged cell can show several along one side: then the finer cells beyond say them, and
 * it says nothing. Where those cannot, at the rim or where they are merged otherwise, it says what most of that is to
 * be; the read-back shows the rest.
 */
export class CellSides {
	private readonly lines: readonly MaybeLine[];

	constructor(
		private readonly table: Grid,
		private readonly appearance: Appearance,
		sayable: (line: MaybeLine) => MaybeLine
	) {
		this.lines = appearance.lines.map(sayable);
	}

	/** The line on a side of a cell, null for none; undefined where the cells beyond say it. */
	line(cell: number, side: Side): MaybeLine | undefined {
		const edges = this.edges(cell, side);
		if (isEven(edges)) return edges[0] ?? null;
		const left = edges.filter((_, k) => {
			const other = this.beyondAt(cell, side, k);
			return other === undefined || !isEven(this.edges(other, OPPOSITE[side]));
		});
		return commonLine(left) ?? undefined;
	}

	/** The cells on the other side; none at the rim. */
	beyond(cell: number, side: Side): number[] {
		const all = this.edges(cell, side).map((_, k) => this.beyondAt(cell, side, k));
		return [...new Set(all)].filter((other) => other !== undefined);
	}

	/** The cell beyond a segment of a side. */
	private beyondAt(cell: number, side: Side, segment: number): number | undefined {
		const { r, c, rows, cols } = this.table.cells[cell]!;
		const { columns, slots } = this.table;
		const row = side === 'top' ? r - 1 : side === 'bottom' ? r + rows : r + segment;
		const column = side === 'start' ? c - 1 : side === 'end' ? c + cols : c + segment;
		return row < 0 || column < 0 || row >= this.table.rows || column >= columns
			? undefined
			: slots[row * columns + column]!;
	}

	private edges(cell: number, side: Side): MaybeLine[] {
		const { r, c, rows, cols } = this.table.cells[cell]!;
		const { columns } = this.table;
		const line = (edge: number) => (edge < 0 ? null : (this.lines[edge] ?? null));
		if (side === 'top' || side === 'bottom') {
			const from = (side === 'top' ? r : r + rows) * columns + c;
			return Array.from({ length: cols }, (_, k) => line(this.appearance.across[from + k]!));
		}
		const x = side === 'start' ? c : c + cols;
		return Array.from({ length: rows }, (_, k) => line(this.appearance.down[(r + k) * (columns + 1) + x]!));
	}
}
