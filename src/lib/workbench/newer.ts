import type { Pairing, TablePair } from '../core/pair/tables.ts';
import { linesBetween, type Lines, type RowChanges } from '../core/pair/rows.ts';
import { plural } from '../core/words.ts';
import type { DocumentTable } from '../formats/document.ts';
import type { TableState } from './state.ts';
import { stateTable, without } from './table.ts';

/** A table of an old file and the one of the newer file that it became, with what came along. */
export interface CarriedOver {
	readonly old: number;
	readonly new: number;
	readonly changes: RowChanges;
	/** What it is from now on. */
	readonly own: TableState;
	/** What does not come along, in words. */
	readonly left: readonly string[];
}

/** A record by rows or columns with its keys where they are now; how many of them are gone. */
function moved<T>(
	record: Readonly<Record<number, T>> | undefined,
	to: ReadonlyMap<number, number>
): { kept: Record<number, T>; gone: number } {
	const entries = Object.entries(record ?? {});
	const kept = entries.flatMap(([at, value]) => {
		const now = to.get(Number(at));
		return now === undefined ? [] : [[now, value] as const];
	});
	return { kept: Object.fromEntries(kept), gone: entries.length - kept.length };
}

/** What a table wore and was said of it, on the table that it became: with the rows, columns and cells that are still there. */
export function carriedOver(old: DocumentTable, now: DocumentTable, own: TableState): Omit<CarriedOver, 'old' | 'new'> {
	const before = stateTable(old, own);
	const lines: Lines = linesBetween(before, stateTable(now, undefined));
	const { rows, columns, changes } = lines;
	const roles = moved(own.roles, rows);
	const kinds = moved(own.kinds, columns);
	const touches = (own.touches ?? []).flatMap(({ r, c, set }) => {
		const [row, column] = [rows.get(r), columns.get(c)];
		return row === undefined || column === undefined ? [] : [{ r: row, c: column, set }];
	});
	const lost = (own.touches?.length ?? 0) - touches.length;
	const isAsWide = columns.size === now.table.columns && old.table.columns === now.table.columns;
	const { widths } = own;
	const newWidths = widths?.length && isAsWide ? placed(widths, columns) : undefined;
	const left = [
		...(own.work === undefined ? [] : ['the work on it at the table bench']),
		...(roles.gone ? [plural(roles.gone, 'corrected row')] : []),
		...(kinds.gone ? [plural(kinds.gone, 'corrected column')] : []),
		...(lost ? [plural(lost, 'touch', 'touches')] : []),
		...(widths?.length && !newWidths ? ['the widths of its columns'] : []),
		...(own.unreadable ? ['what was stored of it and cannot be read'] : [])
	];
	const ends = (count: number | undefined) => (count === undefined ? undefined : Math.min(count, now.table.columns));
	const [firstColumns, lastColumns] = [ends(own.firstColumns), ends(own.lastColumns)];
	return {
		changes,
		left,
		own: {
			...without(own, 'work', 'roles', 'kinds', 'touches', 'widths', 'unreadable', 'firstColumns', 'lastColumns'),
			...(Object.keys(roles.kept).length && { roles: roles.kept }),
			...(Object.keys(kinds.kept).length && { kinds: kinds.kept }),
			...(touches.length && { touches }),
			...(newWidths && { widths: newWidths }),
			...(firstColumns !== undefined && { firstColumns }),
			...(lastColumns !== undefined && { lastColumns })
		}
	};
}

const placed = <T>(values: readonly T[], to: ReadonlyMap<number, number>): T[] => {
	const out = [...values];
	for (const [from, at] of to) out[at] = values[from]!;
	return out;
};

/** Everything that the tables of a newer file take over. */
export function takenOver(
	old: readonly DocumentTable[],
	now: readonly DocumentTable[],
	stateOf: (index: number) => TableState | undefined,
	pairs: readonly Pick<TablePair, 'old' | 'new'>[]
): CarriedOver[] {
	return pairs.map((pair) => ({
		old: pair.old,
		new: pair.new,
		...carriedOver(old[pair.old]!, now[pair.new]!, stateOf(pair.old) ?? {})
	}));
}

/** Pairs that somebody said, with the likeness of those that were found. */
export const saidPairs = (found: Pairing, said: readonly (readonly [old: number, now: number])[]): TablePair[] =>
	said.map(
		([old, now]) =>
			found.pairs.find((pair) => pair.old === old && pair.new === now) ?? {
				old,
				new: now,
				sure: 1,
				why: ['you said so']
			}
	);
