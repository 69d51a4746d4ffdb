import { LOOK_FIELDS, type Appearance } from '../../core/cascade/look.ts';
import type { Grid, Side } from '../../core/table/grid.ts';
import { sameLine } from '../../core/properties/line.ts';
import { type Prepared } from '../job.ts';
import { type SeenLeaf } from '../read-back.ts';
import { CellSides, OPPOSITE } from '../sides.ts';
import { sameShown } from '../../core/properties/shadow.ts';
import type { Emu } from '../../core/units.ts';
import type { Element } from './dom.ts';
import { columnElements, type HtmlGrid } from './grid.ts';
import { hasBorder } from './looks.ts';
import type { HtmlDocument } from './read.ts';
import { fillingInside, hasBackground } from './properties/fill.ts';
import { isRightToLeft } from './properties/property.ts';
import { declare, SAYABLE } from './properties/index.ts';
import { declareLine } from './properties/lines.ts';
import { shadowValue } from './properties/shadow.ts';

/** What the elements of a table say of themselves, because nothing else makes them look as meant. */
export interface TableFixes {
	/** Declarations by cell. */
	readonly cells: Map<number, string[]>;
	/** The space between the paragraphs of cells. */
	readonly gaps: Map<number, Emu>;
	/** Cells in which something behind the text goes. */
	readonly behind: Set<number>;
	/**
	 * What is said of `table`, `columns 2` (the third `colgroup` or `col`), `section 3` or `row 3` (a section by any of its rows): a background that would show through
	 * cells without one, or a border that would beat theirs, is none.
	 */
	readonly blocks: Map<string, Set<string>>;
}
/** By table. */
export type Directs = ReadonlyMap<number, TableFixes>;

export const bump = (counts: Map<SeenLeaf, number>, leaf: SeenLeaf, count: number) => {
	if (count) counts.set(leaf, (counts.get(leaf) ?? 0) + count);
};

export interface Fixes {
	readonly directs: Directs;
	/** By table: how many settings of which leaf travel directly. */
	readonly counts: Map<number, Map<SeenLeaf, number>>;
}

/** A table as it is to be seen on the page that is written. */
interface Meant {
	readonly index: number;
	readonly table: Grid;
	readonly wanted: Appearance;
	/** Its lines are the style's, and none is the table's, a section's or a row's own. */
	readonly carriesLines: boolean;
}

/**
 * How the tables with a job are to be seen, and those inside them without one: CSS hands what text looks like down to
 * them, and they are to stay as they are.
 */
export function meantBy(document: HtmlDocument, prepared: readonly Prepared[]): Meant[] {
	const meant = new Map<number, Meant>();
	for (const { job, wanted } of prepared) {
		const { index, table } = job;
		meant.set(index, { index, table, wanted, carriesLines: table.carry.includes('linework') });
	}
	// An outer table comes before those in it.
	for (const { index, place, table, appearance } of document.tables)
		if (place.inside !== undefined && meant.has(place.inside) && !meant.has(index))
			meant.set(index, { index, table, wanted: appearance, carriesLines: false });
	return [...meant.values()];
}

/** What the page shows otherwise than meant, as declarations of the cells. */
export function fixesFor(document: HtmlDocument, meant: readonly Meant[]): Fixes {
	const directs = new Map<number, TableFixes>();
	const counts: Fixes['counts'] = new Map();
	for (const { index, table, wanted, carriesLines } of meant) {
		const got = document.tables[index]!.appearance;
		const own = new Map<number, string[]>();
		const gaps = new Map<number, Emu>();
		const behind = new Set<number>();
		const grid = document.grids[index]!;
		const isRight = isRightToLeft(document.pageStyles.computed(grid.node));
		const count = new Map<SeenLeaf, number>();
		const add = (cell: number, ...declarations: string[]) => own.set(cell, [...(own.get(cell) ?? []), ...declarations]);
		let showsThrough = false;
		table.cells.forEach((_, i) => {
			const want = SAYABLE.look(wanted.looks[wanted.cellLook[i]!]!);
			const have = got.looks[got.cellLook[i]!]!;
			if (Object.keys(have).length === 0) return;
			for (const field of LOOK_FIELDS)
				if (want[field] !== undefined && !sameShown(want[field], have[field])) {
					if (field === 'paragraphGap') {
						// Lines that are no elements of their own have no space that could be said.
						if (have.paragraphGap === undefined) continue;
						gaps.set(i, want.paragraphGap!);
					}
					bump(count, field, 1);
					const element = grid.cells[i];
					const isOther = !!element && isRightToLeft(document.pageStyles.computed(element)) !== isRight;
					add(i, ...declare(field, want, { isRight, isOther }));
					if (field === 'fill' && element && fillingInside(element, document.pageStyles).length) behind.add(i);
					showsThrough ||= field === 'fill' && want.fill === 'none';
				}
		});
		const lines = fixLines(table, wanted, got, isRight, add);
		bump(count, 'lines', lines);
		const blocks = new Map<string, Set<string>>();
		for (const [block, element] of showsThrough || (lines && carriesLines) ? blocksOf(grid) : []) {
			const said = new Set<string>();
			if (showsThrough && hasBackground(element, document.pageStyles)) said.add('background-color: transparent');
			if (lines && carriesLines && hasBorder(element, document.pageStyles)) said.add('border: none');
			if (said.size) blocks.set(block, said);
		}
		if (!sameShown(wanted.shadow, got.shadow)) {
			blocks.set('table', (blocks.get('table') ?? new Set()).add(`box-shadow: ${shadowValue(wanted.shadow ?? null)}`));
			bump(count, 'tableShadow', 1);
		}
		directs.set(index, { cells: own, gaps, behind, blocks });
		counts.set(index, count);
	}
	return { directs, counts };
}

/** The table, rows and sections of a table, as {@link TableFixes.blocks} calls them. */
function* blocksOf(grid: HtmlGrid): Generator<[block: string, element: Element]> {
	const { node, rows } = grid;
	yield ['table', node];
	for (const [k, element] of [...new Set(columnElements(grid).flat())].entries()) yield [`columns ${k}`, element];
	for (const [r, row] of rows.entries()) {
		yield [`row ${r}`, row.node];
		if (row.section) yield [`section ${r}`, row.section];
	}
}

/** Borders of the cells beside every edge that shows otherwise: both sides of the edge say the same. */
function fixLines(
	table: Grid,
	wanted: Appearance,
	got: Appearance,
	isRight: boolean,
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
		add(cell, declareLine(side, line, isRight));
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
export function merged(a: Directs, b: Directs): Directs {
	const out = new Map<number, TableFixes>();
	for (const from of [a, b])
		for (const [table, { cells, gaps, behind, blocks }] of from) {
			let own = out.get(table);
			if (!own) out.set(table, (own = { cells: new Map(), gaps: new Map(), behind: new Set(), blocks: new Map() }));
			for (const [cell, declarations] of cells)
				own.cells.set(cell, lastOfEach([...(own.cells.get(cell) ?? []), ...declarations]));
			for (const [cell, gap] of gaps) own.gaps.set(cell, gap);
			for (const cell of behind) own.behind.add(cell);
			for (const [block, said] of blocks) own.blocks.set(block, new Set([...(own.blocks.get(block) ?? []), ...said]));
		}
	return out;
}

/** The last declaration of each property. */
const lastOfEach = (declarations: readonly string[]): string[] => [
	...new Map(declarations.map((one) => [one.slice(0, one.indexOf(':')), one])).values()
];
