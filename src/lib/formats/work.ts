import { type WorkTable } from '../core/work/table.ts';
import { tableOf, contentsOf } from '../core/work/convert.ts';
import { emu, type Emu } from '../core/units.ts';
import { recognise } from '../core/recognise/recognise.ts';
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
export function applyWork(entry: DocumentTable, work: WorkTable): DocumentTable {
	const table = { ...tableOf(work), partsOff: entry.table.partsOff, carry: entry.table.carry };
	const isSameShape = table.rows === entry.table.rows && table.columns === entry.table.columns;
	return {
		...entry,
		table,
		recognition: recognise(table),
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

/** A table that no file has yet. */
export function newEntry(work: WorkTable, index: number): DocumentTable {
	const table = tableOf(work);
	return {
		index,
		place: { where: 'body', part: 'new' },
		table,
		recognition: recognise(table),
		appearance: bareAppearance(table),
		widths: widthsOf(work),
		content: contentsOf(work),
		wornName: null,
		carried: null,
		work
	};
}

/** A table as it is read from the file that it was written to, with what the bench knows of it. */
export function worked(entry: DocumentTable, work: WorkTable): DocumentTable {
	const { roles, columnInfo, firstColumns, lastColumns, touches, rows, columns } = tableOf(work);
	if (entry.table.rows !== rows || entry.table.columns !== columns) return entry;
	// Read one by one: what is worked out when asked for is asked for no earlier.
	return Object.defineProperties({} as DocumentTable, {
		...Object.getOwnPropertyDescriptors(entry),
		table: { value: { ...entry.table, roles, columnInfo, firstColumns, lastColumns, touches }, enumerable: true },
		work: { value: work, enumerable: true },
		// A picture that was put in is not read from there.
		...(work.rows.some(({ cells }) => cells.some((slot) => 'picture' in slot && slot.picture)) && {
			content: { value: contentsOf(work), enumerable: true }
		})
	});
}
