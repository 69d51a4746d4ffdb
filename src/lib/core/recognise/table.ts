import { ASPECTS } from '../style/types.ts';
import type { Grid, Table } from '../table/grid.ts';
import { isHeader, type RowRole } from '../roles/index.ts';
import type { Hints } from './facts.ts';
import { partsOffFor } from './purpose/index.ts';
import type { Purpose } from './purpose/kinds.ts';
import { columnsOf, type Recognition } from './recognition.ts';
import { columnName, recognise, recognisedAs } from './recognise.ts';

/** A grid with its rows and columns recognised, all parts in use, everything carried, nothing touched. */
export function recognisedTable(grid: Grid, hints?: Hints): { table: Table; recognition: Recognition } {
	const recognition = recognise(grid, hints);
	const table: Table = {
		...grid,
		roles: recognition.rows.map(({ is }) => is),
		columnInfo: columnsOf(recognition),
		firstColumns: recognition.firstColumns.is,
		lastColumns: recognition.lastColumns.is,
		partsOff: partsOffFor(recognition.purpose.is),
		carry: ASPECTS,
		touches: []
	};
	return { table, recognition };
}

/** A table as it is where somebody says what it is for. */
export function tableAs(table: Table, recognition: Recognition, purpose: Purpose): Table {
	if (purpose === recognition.purpose.is) return table;
	const said = recognisedAs(table, recognition, purpose);
	return {
		...table,
		roles: said.rows.map(({ is }) => is),
		columnInfo: columnsOf(said),
		firstColumns: said.firstColumns.is,
		lastColumns: said.lastColumns.is,
		partsOff: partsOffFor(purpose)
	};
}

/** Column names again, after the roles of rows were corrected. */
export function withRoles(table: Table, roles: readonly RowRole[]): Table {
	const headers = roles.flatMap((role, r) => (isHeader(role) ? [r] : []));
	const columnInfo = table.columnInfo.map(({ kind }, c) => ({ kind, name: columnName(table, headers, c) }));
	return { ...table, roles, columnInfo };
}
