import type { Column } from '../table/grid.ts';
import type { ColumnKind } from '../table/columns.ts';
import type { RowRole } from '../roles/index.ts';
import type { Guess } from './columns.ts';
import type { Purpose } from './purpose/kinds.ts';

/** What each row and column is taken for. */
export interface Judged {
	readonly rows: readonly Guess<RowRole>[];
	readonly columns: readonly (Guess<ColumnKind> & { readonly name: string })[];
	readonly firstColumns: Guess<number>;
	readonly lastColumns: Guess<number>;
}

/** The same, with what kind of table it is. */
export interface Recognition extends Judged {
	readonly purpose: Guess<Purpose>;
	/** What its rows and columns would be as those of a data table, where they are not that. */
	readonly asData?: Judged;
}

/** The table's columns as a style speaks of them. */
export const columnsOf = (recognition: Judged): Column[] =>
	recognition.columns.map(({ is, name }) => ({ kind: is, name }));
