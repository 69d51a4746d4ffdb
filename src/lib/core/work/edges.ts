import { type LineSettings } from '../style/types.ts';
import { type Side } from '../table/grid.ts';
import { type EdgeTouches, type Slot, type WorkTable, tidy } from './table.ts';

/** One name for each edge: the side of the slot before it, or of the table's own first row and column. */
export function edgeHome(r: number, c: number, side: Side): { r: number; c: number; side: Side } {
	if (side === 'top' && r > 0) return { r: r - 1, c, side: 'bottom' };
	if (side === 'start' && c > 0) return { r, c: c - 1, side: 'end' };
	return { r, c, side };
}

/** The same edge as the side of the slot beyond it; undefined at the table's rim. */
export function facing(
	{ rows, columns }: Pick<WorkTable, 'rows' | 'columns'>,
	r: number,
	c: number,
	side: Side
): { r: number; c: number; side: Side } | undefined {
	switch (side) {
		case 'top':
			return r > 0 ? { r: r - 1, c, side: 'bottom' } : undefined;
		case 'bottom':
			return r < rows.length - 1 ? { r: r + 1, c, side: 'top' } : undefined;
		case 'start':
			return c > 0 ? { r, c: c - 1, side: 'end' } : undefined;
		case 'end':
			return c < columns.length - 1 ? { r, c: c + 1, side: 'start' } : undefined;
	}
}

/**
 * Whose an edge is that is touched from a side (figures.md §7): the row's, or column's, that is not an ordinary one if
 * exactly one of the two is; else that of the side. It moves with its owner.
 */
export function edgeOwner(
	work: Pick<WorkTable, 'rows' | 'columns' | 'firstColumns' | 'lastColumns'>,
	r: number,
	c: number,
	side: Side
): { r: number; c: number; side: Side } {
	const own = { r, c, side };
	const other = facing(work, r, c, side);
	if (!other) return own;
	const isSpecial = (at: typeof own) =>
		side === 'top' || side === 'bottom'
			? work.rows[at.r]!.role !== 'body'
			: at.c < work.firstColumns || at.c >= work.columns.length - work.lastColumns;
	return isSpecial(other) && !isSpecial(own) ? other : own;
}

/** A slot with a line at a side, or without one there. */
export function withLine(slot: Slot, side: Side, line: LineSettings | undefined): Slot {
	const { lines, ...rest } = slot;
	const next: EdgeTouches = tidy({ ...lines, [side]: line });
	return (Object.keys(next).length ? { ...rest, lines: next } : rest) as Slot;
}
