import { contentsOf, tableOf, type WorkTable } from '../core/work/table.ts';
import { emu, type Emu } from '../core/units.ts';
import { bareAppearance } from './bare.ts';
import type { DocumentTable } from './document.ts';

/** Columns without a width of their own get this one, where a format wants to know all of them. */
const USUAL = emu(25 * 36_000);

/** The widths of a table's columns in EMU; none where all are as wide as they want. */
export function widthsOf({ columns }: WorkTable): readonly Emu[] {
	const set = columns.flatMap(({ width }) => width ?? []);
	if (!set.length) return [];
	const mean = emu(set.reduce<number>((sum, width) => sum + width, 0) / set.length) || USUAL;
	return columns.map(({ width }) => width ?? mean);
}

/** A document's table as it was worked on, in the place of what its file says. */
export function withWork(entry: DocumentTable, work: WorkTable): DocumentTable {
	const table = { ...tableOf(work), partsOff: entry.table.partsOff, carry: entry.table.carry };
	const isSameShape = table.rows === entry.table.rows && table.columns === entry.table.columns;
	return {
		...entry,
		table,
		appearance:
			isSameShape && entry.appearance.cellLook.length === table.cells.length ? entry.appearance : bareAppearance(table),
		widths: widthsOf(work),
		content: contentsOf(work),
		carried: entry.carried && {
			...entry.carried,
			roles: table.roles,
			columns: table.columnInfo,
			touches: table.touches
		},
		work
	};
}
