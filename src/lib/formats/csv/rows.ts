import { textAt, type Table } from '../../core/table/grid.ts';
import { writeRows } from './parse.ts';

/** The tables of a document as rows (RFC 4180), with an empty line between tables. */
export function rowsOf(tables: readonly Table[]): string {
	return tables
		.map((table) =>
			writeRows(
				Array.from({ length: table.rows }, (_, r) =>
					Array.from({ length: table.columns }, (_, c) => textAt(table, r, c))
				)
			)
		)
		.join('\r\n');
}
