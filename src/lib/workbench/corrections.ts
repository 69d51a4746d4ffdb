import { textAt, type Table } from '../core/table/grid.ts';
import type { RowRole } from '../core/roles/index.ts';
import { PURPOSES, type Purpose } from '../core/recognise/purpose/kinds.ts';
import { COLUMN_KINDS, type ColumnKind } from '../core/table/columns.ts';
import type { DecimalMark } from '../core/values/parse.ts';
import type { TableState } from './state.ts';
import { isStoredRole } from './stored.ts';

/** What people said of tables of one shape: kinds by column, roles by what the row begins with. */
export interface Corrections {
	readonly kinds?: Readonly<Record<number, ColumnKind>>;
	readonly roles?: Readonly<Record<string, RowRole>>;
	readonly firstColumns?: number;
	readonly lastColumns?: number;
	readonly mark?: DecimalMark;
	readonly purpose?: Purpose;
}

const plain = (text: string): string => text.toLowerCase().replace(/\s+/g, ' ').trim();
/** How many rows at the top name the columns. */
const HEAD = 2;

/** Tables have one shape where they have as many columns with the same names at the top. */
export function shapeOf(table: Table): string {
	const head = Array.from({ length: Math.min(HEAD, table.rows) }, (_, r) =>
		Array.from({ length: table.columns }, (_, c) => plain(textAt(table, r, c)))
	);
	// Figures differ from table to table; what names the columns does not.
	const names = head.map((row) => row.map((text) => (/\d/.test(text) ? '#' : text)).join('|'));
	return `${table.columns}:${names.join('/')}`;
}

/** A row by its first words. */
const labelOf = (table: Table, r: number): string => {
	for (let c = 0; c < table.columns; c++) {
		const text = plain(textAt(table, r, c));
		if (text) return text;
	}
	return '';
};

/** What of a table's state is worth remembering; undefined where nothing was corrected. */
export function correctionsIn(table: Table, state: TableState): Corrections | undefined {
	const roles = Object.entries(state.roles ?? {}).flatMap(([r, role]) => {
		const label = Number(r) < table.rows ? labelOf(table, Number(r)) : '';
		return label ? [[label, role] as const] : [];
	});
	const said: Corrections = {
		...(state.kinds && { kinds: state.kinds }),
		...(roles.length && { roles: Object.fromEntries(roles) }),
		...(state.firstColumns !== undefined && { firstColumns: state.firstColumns }),
		...(state.lastColumns !== undefined && { lastColumns: state.lastColumns }),
		...(state.mark && { mark: state.mark }),
		...(state.purpose && { purpose: state.purpose })
	};
	return Object.keys(said).length ? said : undefined;
}

/** What was said of other tables of this shape, as corrections of this one; what cannot be read of it does not count. */
export function corrected(table: Table, said: Corrections): Pick<TableState, keyof Corrections> {
	const roles = Object.fromEntries(
		table.roles.flatMap((role, r) => {
			const wanted = said.roles?.[labelOf(table, r)];
			return wanted && wanted !== role && isStoredRole(wanted) ? [[r, wanted]] : [];
		})
	);
	const kinds = Object.fromEntries(
		Object.entries(said.kinds ?? {}).filter(
			([c, kind]) =>
				COLUMN_KINDS.includes(kind) && table.columnInfo[Number(c)] && table.columnInfo[Number(c)]!.kind !== kind
		)
	);
	return {
		...(Object.keys(kinds).length && { kinds }),
		...(Object.keys(roles).length && { roles }),
		...(said.firstColumns !== undefined &&
			said.firstColumns !== table.firstColumns && { firstColumns: said.firstColumns }),
		...(said.lastColumns !== undefined && said.lastColumns !== table.lastColumns && { lastColumns: said.lastColumns }),
		...((said.mark === '.' || said.mark === ',') && { mark: said.mark }),
		...(said.purpose && PURPOSES.includes(said.purpose) && { purpose: said.purpose })
	};
}
