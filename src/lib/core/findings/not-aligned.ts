import type { Appearance } from '../cascade/look.ts';
import { isBody } from '../roles/index.ts';
import { NUMERIC_KINDS } from '../table/columns.ts';
import type { Table } from '../table/grid.ts';
import { findingKind, found, type Finding } from './finding.ts';

interface Args {
	readonly column: number;
	readonly name: string;
	readonly askew: number;
	readonly all: number;
}

export const notAligned = findingKind({
	code: 'not-aligned',
	called: 'figures not at the end',
	of: ['table'],
	words: ({ column, name, askew, all }: Args) =>
		`column ${column + 1}${name ? ` “${name}”` : ''}: ${askew} of ${all} figures do not stand at the end`,
	weight: () => 0.3
});

/** Columns of figures that do not stand at the end, where their decimals could line up. */
export const findNotAligned = (table: Table, appearance: Appearance): Finding[] =>
	table.columnInfo.flatMap(({ kind, name }, c) => {
		if (!NUMERIC_KINDS.has(kind)) return [];
		const cells = table.cells.flatMap((cell, i) =>
			cell.c === c && cell.cols === 1 && isBody(table.roles[cell.r]!) && cell.text.trim() ? [i] : []
		);
		const askew = cells.filter((i) => {
			const { h } = appearance.looks[appearance.cellLook[i]!]!;
			return h !== undefined && h !== 'end' && h !== 'decimal';
		});
		return askew.length ? [found(notAligned, { column: c, name, askew: askew.length, all: cells.length }, { c })] : [];
	});
