import type { Wears } from '../core/work/table.ts';
import type { Touch } from '../core/table/grid.ts';
import type { DrawingEdits } from '../formats/svg/read.ts';
import type { Emu } from '../core/units.ts';
import type { DecimalMark } from '../core/values/parse.ts';
import type { Purpose } from '../core/recognise/purpose/kinds.ts';
import type { RowRole } from '../core/roles/index.ts';
import type { ColumnKind } from '../core/table/columns.ts';

/**
 * What a person decided about one table of a document; everything absent is as recognised. An edition is absent while none is out, or where the draft itself is worn; a pinned table stays with its edition when a
 * newer one is rolled out.
 */
export interface TableState extends Wears {
	/** Corrections, by row and by column. */
	readonly roles?: Readonly<Record<number, RowRole>>;
	readonly kinds?: Readonly<Record<number, ColumnKind>>;
	/** What kind of table it is. */
	readonly purpose?: Purpose;
	/** The decimal mark of its figures. */
	readonly mark?: DecimalMark;
	readonly firstColumns?: number;
	readonly lastColumns?: number;
	/** The emphasis inside its text goes. */
	readonly dropsEmphasis?: boolean;
	/** Widths of its columns, matched from another table; as in the file where absent. */
	readonly widths?: readonly Emu[];
	/** The step of its work on the table bench that it stands at; its rows, roles and touches are those. */
	readonly work?: number;
	/** One-off settings of its cells and edges. */
	readonly touches?: readonly Touch[];
	/** What was stored of it where that cannot be read, and why. */
	readonly unreadable?: { readonly why: string; readonly stored: unknown };
}

/** What a person changed of a drawing beside the styles of its tables. */
export interface DrawingState extends DrawingEdits {
	/** Hash of a newer file that took the place of the one that came. */
	readonly file?: string;
}

/** The state of a document at one step: by table index. */
export interface DocumentState {
	readonly tables: Readonly<Record<number, TableState>>;
	/** Hash of a newer file that took the place of the one that came; a drawing says so of its own. */
	readonly file?: string;
	/** Tables that were put in: each after a block of the file, −1 for its beginning. What they hold is their work. */
	readonly added?: readonly { readonly after: number }[];
	/** Tables of the file that were taken out, by the index that they have in it. */
	readonly gone?: readonly number[];
	/** For drawings. */
	readonly drawing?: DrawingState;
}

export const EMPTY_STATE: DocumentState = { tables: {} };

/** A state whose tables are changed one by one; everything else in it stays. The same state where no table changes. */
export function mapTables(state: DocumentState, change: (own: TableState, index: number) => TableState): DocumentState {
	let isChanged = false;
	const tables = Object.fromEntries(
		Object.entries(state.tables).map(([index, own]) => {
			const next = change(own, Number(index));
			if (next !== own) isChanged = true;
			return [index, next];
		})
	);
	return isChanged ? { ...state, tables } : state;
}

/**
 * What is worn once a style is gone: another (in its newest edition, where one is out) or nothing in its place. Parts in
 * use and carry stay; the edition goes, for it was one of the style that is gone. The same object where it wears another.
 */
export function wornInstead<T extends Wears>(own: T, gone: string, instead: Wears): T {
	if (own.style !== gone) return own;
	const { style: _style, edition: _edition, pinned: _pinned, ...rest } = own;
	return { ...(rest as T), ...instead };
}
