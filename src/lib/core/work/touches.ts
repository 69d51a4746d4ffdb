import { SIDES, type Side } from '../table/grid.ts';
import { leavesOf, settingsOf } from '../style/leaves.ts';
import type { LeafValue, LineSettings, PartSettings } from '../style/types.ts';
import { guard } from './locks.ts';
import { cellsIn, isIn, type Range } from './selection.ts';
import {
	anchorOf,
	cellOf,
	isCovered,
	tidy,
	withCells,
	type EdgeTouches,
	type Slot,
	type Position,
	type WorkCell,
	type WorkTable
} from './table.ts';
import { edgeOwner, facing, withLine } from './edges.ts';

/** One edge: a side of a slot. */
export interface Edge extends Position {
	readonly side: Side;
}

const withTouch = (cell: WorkCell, leaves: ReadonlyMap<string, LeafValue>): WorkCell => {
	const { touch: _, ...rest } = cell;
	return leaves.size ? { ...rest, touch: settingsOf(leaves) } : rest;
};

/** Sets leaves on cells, or takes them off where undefined. Throws InputError where a look is locked. */
export function touched(
	work: WorkTable,
	places: readonly Position[],
	leaves: readonly (readonly [path: string, value: LeafValue | undefined])[]
): WorkTable {
	guard(work, places, 'look');
	return withCells(work, places, (cell) => {
		const now = new Map(leavesOf(cell.touch ?? {}));
		let isChanged = false;
		for (const [path, value] of leaves) {
			if (now.get(path) === value) continue;
			isChanged = true;
			if (value === undefined) now.delete(path);
			else now.set(path, value);
		}
		return isChanged ? withTouch(cell, now) : cell;
	});
}

/** What a selection's touches say of a leaf: one value, several, or nothing (where `set` is 0). */
export interface TouchedLeaf {
	readonly value: LeafValue | undefined;
	/** In how many of the cells it is set. */
	readonly set: number;
	readonly of: number;
	/** Set differently, or only in some. */
	readonly isMixed: boolean;
}

export function touchedLeaf(cells: readonly WorkCell[], path: string): TouchedLeaf {
	const values = new Set<LeafValue | undefined>();
	let set = 0;
	for (const { touch } of cells) {
		const value = touch && leavesOf(touch).get(path);
		values.add(value);
		if (value !== undefined) set++;
	}
	const [value] = values;
	return { value: values.size === 1 ? value : undefined, set, of: cells.length, isMixed: values.size > 1 };
}

/** Sets the line of edges; `null` takes the touch away, so that the style decides again. Sides of one edge are one. */
export function lined(work: WorkTable, edges: readonly Edge[], line: LineSettings | null): WorkTable {
	const owners = edges.map(({ r, c, side }) => edgeOwner(work, r, c, side));
	guard(work, owners, 'look');
	const changed = new Map<number, Slot[]>();
	const put = ({ r, c, side }: Edge, to: LineSettings | undefined) => {
		let cells = changed.get(r);
		if (!cells) changed.set(r, (cells = [...work.rows[r]!.cells]));
		cells[c] = withLine(cells[c]!, side, to);
	};
	for (const owner of owners) {
		const other = facing(work, owner.r, owner.c, owner.side);
		if (other && work.rows[other.r]!.cells[other.c]!.lines?.[other.side]) put(other, undefined);
		put(owner, line ?? undefined);
	}
	const rows = [...work.rows];
	for (const [r, cells] of changed) rows[r] = { ...rows[r]!, cells };
	return { ...work, rows };
}

/** What touches say of an edge; undefined where none does. */
export function lineAt(work: WorkTable, { r, c, side }: Edge): LineSettings | undefined {
	const owner = edgeOwner(work, r, c, side);
	const said = ({ r, c, side }: Edge) => work.rows[r]!.cells[c]!.lines?.[side];
	const other = facing(work, owner.r, owner.c, owner.side);
	return said(owner) ?? (other && said(other));
}

/** Families of edges that a selection has. */
export const FAMILIES = ['rim', 'between rows', 'between columns'] as const;
export type EdgeFamily = (typeof FAMILIES)[number];

/** The edges of a family in a range; edges inside joined cells are none. */
export function edgesIn(work: WorkTable, range: Range, family: EdgeFamily): Edge[] {
	const { top, bottom, start, end } = range;
	const edges: Edge[] = [];
	const same = (a: Position, b: Position) => {
		const [x, y] = [anchorOf(work, a.r, a.c), anchorOf(work, b.r, b.c)];
		return x.r === y.r && x.c === y.c;
	};
	for (let r = top; r <= bottom; r++)
		for (let c = start; c <= end; c++) {
			if (family === 'rim') {
				if (r === top) edges.push({ r, c, side: 'top' });
				if (r === bottom) edges.push({ r, c, side: 'bottom' });
				if (c === start) edges.push({ r, c, side: 'start' });
				if (c === end) edges.push({ r, c, side: 'end' });
			} else if (family === 'between rows') {
				if (r < bottom && !same({ r, c }, { r: r + 1, c })) edges.push({ r, c, side: 'bottom' });
			} else if (c < end && !same({ r, c }, { r, c: c + 1 })) edges.push({ r, c, side: 'end' });
		}
	return edges;
}

/** A table without the touches of some cells, edges inside and around them included. */
export function untouched(work: WorkTable, ranges: readonly Range[]): WorkTable {
	const places = cellsIn(work, ranges).filter(({ r, c }) => cellOf(work, r, c).touch);
	guard(work, places, 'look');
	const next = withCells(work, places, (cell) => withTouch(cell, new Map()));
	const edges = ranges.flatMap((range) =>
		(['rim', 'between rows', 'between columns'] as const).flatMap((family) => edgesIn(next, range, family))
	);
	const said = edges.filter((edge) => lineAt(next, edge));
	return said.length ? lined(next, said, null) : next;
}

/** Every touched leaf of a table, cell by cell and edge by edge, in reading order. */
export function touchList(work: WorkTable): { r: number; c: number; side?: Side; set: PartSettings }[] {
	return work.rows.flatMap((row, r) =>
		row.cells.flatMap((slot, c) => [
			...(!isCovered(slot) && slot.touch ? [{ r, c, set: slot.touch }] : []),
			...SIDES.flatMap((side) => {
				const line = slot.lines?.[side];
				return line ? [{ r, c, side, set: { lines: { [side]: line } } }] : [];
			})
		])
	);
}

export const isTouched = (slot: Slot): boolean => !!slot.lines || (!isCovered(slot) && !!slot.touch);

/** A cell's whole look as touches: what its own touches say, and how its own edges are touched. */
export interface CopiedLook {
	readonly touch: PartSettings | undefined;
	readonly lines: EdgeTouches;
}

export function copiedLook(work: WorkTable, r: number, c: number): CopiedLook {
	const place = anchorOf(work, r, c);
	const lines = tidy(
		Object.fromEntries(
			SIDES.map((side) => [
				side,
				lineAt(work, {
					r: side === 'bottom' ? place.r + place.rows - 1 : place.r,
					c: side === 'end' ? place.c + place.cols - 1 : place.c,
					side
				})
			])
		) as { [side in Side]?: LineSettings }
	);
	return { touch: cellOf(work, r, c).touch, lines };
}

/** Gives cells another cell's touches in the place of their own. */
export function withLook(work: WorkTable, ranges: readonly Range[], { touch, lines }: CopiedLook): WorkTable {
	const places = cellsIn(work, ranges);
	guard(work, places, 'look');
	let next = withCells(work, places, (cell) => withTouch(cell, leavesOf(touch ?? {})));
	for (const { r, c } of places) {
		const place = anchorOf(next, r, c);
		for (const side of SIDES) {
			const line = lines[side] ?? null;
			const edges: Edge[] =
				side === 'top' || side === 'bottom'
					? Array.from({ length: place.cols }, (_, i) => ({
							r: side === 'top' ? r : r + place.rows - 1,
							c: c + i,
							side
						}))
					: Array.from({ length: place.rows }, (_, i) => ({
							r: r + i,
							c: side === 'start' ? c : c + place.cols - 1,
							side
						}));
			const open = edges.filter((edge) => line || lineAt(next, edge));
			// Between two cells that both take the look, the edge is said once.
			const outer = line
				? open
				: open.filter((edge) => !ranges.some((range) => isIn(range, edge.r, edge.c) && lines[edge.side]));
			if (outer.length) next = lined(next, outer, line);
		}
	}
	return next;
}
