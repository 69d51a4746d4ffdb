import type { DocumentTable } from '../formats/document.ts';
import type { Purpose } from '../core/recognise/purpose/kinds.ts';
import type { Recognition } from '../core/recognise/recognition.ts';
import { tableAs, withRoles } from '../core/recognise/table.ts';
import type { Table, Touch } from '../core/table/grid.ts';
import type { TableState } from './state.ts';

/** What kind of table it is: as somebody said, or as it was recognised. */
export const purposeOf = (entry: Pick<DocumentTable, 'recognition'>, state: TableState | undefined): Purpose =>
	state?.purpose ?? entry.recognition.purpose.is;

/** A document's table with what a person decided laid over what was recognised. */
export function stateTable(
	entry: Pick<DocumentTable, 'table'> & { readonly recognition?: Recognition },
	state: TableState | undefined
): Table {
	let { table } = entry;
	if (!state) return table;
	if (state.purpose && entry.recognition) table = tableAs(table, entry.recognition, state.purpose);
	if (state.roles)
		table = withRoles(
			table,
			table.roles.map((role, r) => state.roles![r] ?? role)
		);
	return {
		...table,
		columnInfo: state.kinds
			? table.columnInfo.map((column, c) => ({ ...column, kind: state.kinds![c] ?? column.kind }))
			: table.columnInfo,
		firstColumns: Math.min(state.firstColumns ?? table.firstColumns, table.columns),
		lastColumns: Math.min(state.lastColumns ?? table.lastColumns, table.columns),
		partsOff: state.partsOff ?? table.partsOff,
		carry: state.carry ?? table.carry,
		...(state.mark && { mark: state.mark }),
		touches: state.touches ? touchesWithin(table, state.touches) : table.touches
	};
}

/**
 * A table that a person touched and gave no style, as it is resolved: it carries nothing, so that its touches go over
 * whatever it came with. Undefined where nobody touched it.
 */
export function touchedTable(
	entry: Pick<DocumentTable, 'table' | 'work'>,
	state: TableState | undefined
): Table | undefined {
	if (!state?.touches && state?.work === undefined && !entry.work) return undefined;
	const table = stateTable(entry, state);
	return table.touches.length ? { ...table, carry: [], partsOff: [] } : undefined;
}

/** Touches whose cells the table has. */
export const touchesWithin = ({ rows, columns }: Table, touches: readonly Touch[]): Touch[] =>
	touches.filter(({ r, c }) => r < rows && c < columns);

/** A record without some of its fields. */
export function without<T extends object, K extends keyof T>(from: T, ...keys: K[]): Omit<T, K> {
	return Object.fromEntries(Object.entries(from).filter(([key]) => !keys.includes(key as K))) as Omit<T, K>;
}
