import { recognisedTable } from '../recognise/table.ts';
import type { Recognition } from '../recognise/recognition.ts';
import { ASPECTS } from '../style/types.ts';
import { createGrid, type Grid, type Span, type Table, type Touch } from '../table/grid.ts';
import { behaviour, isHeader, type Role, type RowRole } from '../roles/index.ts';
import type { ScheduleRow, ScheduleRows } from './rows.ts';

/** Which way a table reads: from its header downwards, or upwards with its header at the foot. */
export type Reading = 'down' | 'up';

/**
 * Rows in the order in which they stand on the sheet, from the top: those that read upwards from their header at the
 * foot, under their title and above their notes. Done twice, it changes nothing.
 */
export function standing<T extends { readonly role: RowRole }>(rows: readonly T[], reads: Reading): T[] {
	if (reads === 'down') return [...rows];
	const fixed = (where: Role['fixed']) => rows.filter(({ role }) => behaviour(role).fixed === where);
	return [...fixed('top'), ...fixed(null).reverse(), ...fixed('foot')];
}

/**
 * A schedule's rows as a table, as they stand on the sheet. Titles and group headings reach across; headings that run
 * upwards are turned by touches of their own.
 */
export function tableOf({ columns, rows }: ScheduleRows, reads: Reading): { table: Table; recognition: Recognition } {
	// What its columns are is told from the header down, whichever way it stands.
	const { recognition } = recognisedTable(gridOf(columns, rows));
	const shown = standing(rows, reads);
	const grid = gridOf(columns, shown);
	const roles = shown.map(({ role }) => role);
	const table: Table = {
		...grid,
		roles,
		columnInfo: columns.map(({ name, kind }, c) => ({ name, kind: kind ?? recognition.columns[c]!.is })),
		firstColumns: 0,
		lastColumns: 0,
		partsOff: [],
		carry: ASPECTS,
		touches: turnedHeadings(columns, roles),
		// What drawings say is written with the point.
		mark: '.'
	};
	const said = roles.map((is) => ({ is, confidence: 1, reasons: ['the schedule says so'] }));
	return { table, recognition: { ...recognition, rows: said } };
}

function gridOf(columns: ScheduleRows['columns'], rows: ScheduleRows['rows']): Grid {
	const isAcross = ({ role }: ScheduleRow) => columns.length > 1 && behaviour(role).isAcross;
	return createGrid(
		rows.map((row) => columns.map((_, c) => (isAcross(row) && c > 0 ? null : (row.cells[c]?.text ?? '')))),
		rows.flatMap((row, r): Span[] => (isAcross(row) ? [{ r, c: 0, rows: 1, cols: columns.length }] : []))
	);
}

function turnedHeadings(columns: ScheduleRows['columns'], roles: Table['roles']): Touch[] {
	const header = roles.findIndex(isHeader);
	if (header < 0) return [];
	return columns.flatMap(({ turned }, c): Touch[] =>
		turned ? [{ r: header, c, set: { rotate: 270, align: { v: 'middle' } } }] : []
	);
}
