import { LOOK_FIELDS, type Appearance } from '../../core/cascade/look.ts';
import type { Grid, Side } from '../../core/table/grid.ts';
import { sameLine, type Prepared, type SeenLeaf } from '../account.ts';
import { CellSides, OPPOSITE } from '../sides.ts';
import type { HtmlDocument } from './read.ts';
import { declare, declareLine, SAYABLE } from './say.ts';

/** Declarations that a cell gets of its own, by table and cell. */
export type Directs = ReadonlyMap<number, ReadonlyMap<number, readonly string[]>>;
export const bump = (counts: Map<SeenLeaf, number>, leaf: SeenLeaf, count: number) => {
	if (count) counts.set(leaf, (counts.get(leaf) ?? 0) + count);
};

export interface Fixes {
	readonly directs: Map<number, Map<number, string[]>>;
	/** By table: how many settings of which leaf travel directly. */
	readonly counts: Map<number, Map<SeenLeaf, number>>;
}

/** A table as it is to be seen on the page that is written. */
interface Meant {
	readonly index: number;
	readonly table: Grid;
	readonly wanted: Appearance;
}

/**
 * How the tables with a job are to be seen, and those inside them without one: CSS hands what text looks like down to
 * them, and they are to stay as they are.
 */
export function meantBy(document: HtmlDocument, prepared: readonly Prepared[]): Meant[] {
	const meant = new Map<number, Meant>();
	for (const { job, wanted } of prepared) meant.set(job.index, { index: job.index, table: job.table, wanted });
	// An outer table comes before those in it.
	for (const { index, place, table, appearance } of document.tables)
		if (place.inside !== undefined && meant.has(place.inside) && !meant.has(index))
			meant.set(index, { index, table, wanted: appearance });
	return [...meant.values()];
}

/** What the page shows otherwise than meant, as declarations of the cells. */
export function fixesFor(document: HtmlDocument, meant: readonly Meant[]): Fixes {
	const directs = new Map<number, Map<number, string[]>>();
	const counts: Fixes['counts'] = new Map();
	for (const { index, table, wanted } of meant) {
		const got = document.tables[index]!.appearance;
		const own = new Map<number, string[]>();
		const count = new Map<SeenLeaf, number>();
		const add = (cell: number, ...declarations: string[]) => own.set(cell, [...(own.get(cell) ?? []), ...declarations]);
		table.cells.forEach((_, i) => {
			const want = SAYABLE.look(wanted.looks[wanted.cellLook[i]!]!);
			const have = got.looks[got.cellLook[i]!]!;
			if (Object.keys(have).length === 0) return;
			for (const field of LOOK_FIELDS)
				if (want[field] !== undefined && want[field] !== have[field]) {
					bump(count, field, 1);
					add(i, ...declare(field, want));
				}
		});
		bump(count, 'lines', fixLines(table, wanted, got, add));
		directs.set(index, own);
		counts.set(index, count);
	}
	return { directs, counts };
}

/** Borders of the cells beside every edge that shows otherwise: both sides of the edge say the same. */
function fixLines(
	table: Grid,
	wanted: Appearance,
	got: Appearance,
	add: (cell: number, declaration: string) => void
): number {
	const sides = new CellSides(table, wanted, SAYABLE.line);
	const lines = wanted.lines.map(SAYABLE.line);
	const said = new Set<string>();
	let count = 0;
	const say = (cell: number, side: Side) => {
		if (said.has(`${cell} ${side}`)) return;
		said.add(`${cell} ${side}`);
		const line = sides.line(cell, side);
		add(cell, declareLine(side, line));
		for (const other of sides.beyond(cell, side)) say(other, OPPOSITE[side]);
	};
	const differs = (edges: 'across' | 'down', i: number) =>
		wanted[edges][i]! >= 0 && !sameLine(lines[wanted[edges][i]!], got.lines[got[edges][i]!]);
	const { rows, columns, slots } = table;
	for (let r = 0; r <= rows; r++)
		for (let c = 0; c < columns; c++)
			if (differs('across', r * columns + c)) {
				count++;
				if (r > 0) say(slots[(r - 1) * columns + c]!, 'bottom');
				else say(slots[c]!, 'top');
			}
	for (let r = 0; r < rows; r++)
		for (let c = 0; c <= columns; c++)
			if (differs('down', r * (columns + 1) + c)) {
				count++;
				if (c > 0) say(slots[r * columns + c - 1]!, 'end');
				else say(slots[r * columns]!, 'start');
			}
	return count;
}

/** Later declarations after earlier ones. */
export function merged(
	a: ReadonlyMap<number, ReadonlyMap<number, readonly string[]>>,
	b: ReadonlyMap<number, ReadonlyMap<number, readonly string[]>>
): Map<number, Map<number, string[]>> {
	const out = new Map<number, Map<number, string[]>>();
	for (const from of [a, b])
		for (const [table, cells] of from) {
			const own = out.get(table) ?? new Map<number, string[]>();
			out.set(table, own);
			for (const [cell, declarations] of cells) own.set(cell, [...(own.get(cell) ?? []), ...declarations]);
		}
	return out;
}
