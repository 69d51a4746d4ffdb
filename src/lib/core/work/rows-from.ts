import { plainText } from '../pair/likeness.ts';
import { linesBetween } from '../pair/rows.ts';
import { isBody } from '../roles/index.ts';
import { ASPECTS } from '../style/types.ts';
import { createGrid, type Table } from '../table/grid.ts';
import { typed } from './cells.ts';
import { insertRows, removeLines } from './lines.ts';
import { columnNames } from './names.ts';
import { cellOf, isCovered, type WorkTable } from './table.ts';

/** Rows that come from a file or the clipboard, with what their columns are called. */
export interface RowsSource {
	readonly names: readonly string[];
	readonly rows: readonly (readonly string[])[];
}

/** Rows whose first says what the columns are called. Undefined where nothing is there. */
export function sourceOf(rows: readonly (readonly string[])[]): RowsSource | undefined {
	const at = rows.findIndex((row) => row.some((text) => text.trim()));
	if (at < 0) return undefined;
	const body = rows.slice(at + 1).filter((row) => row.some((text) => text.trim()));
	return { names: rows[at]!.map((name) => name.trim()), rows: body.map((row) => row.map((text) => text.trim())) };
}

const bare = (name: string): string => plainText(name).toLowerCase();

/**
 * For each column of a table, which one of the source fills it: the one of its name, where there is one such; undefined where
 * there is none, or the column is worked out.
 */
export function columnsByName(work: WorkTable, { names }: RowsSource): (number | undefined)[] {
	const own = columnNames(work).map(bare);
	const theirs = names.map(bare);
	return work.columns.map(({ formula, across }, c) => {
		const name = own[c]!;
		if (formula || across || !name || own.indexOf(name) !== own.lastIndexOf(name)) return undefined;
		const at = theirs.indexOf(name);
		return at >= 0 && at === theirs.lastIndexOf(name) ? at : undefined;
	});
}

/** What accepting would do to one row of the table. */
export type RowDifference =
	| { readonly kind: 'added'; readonly source: number; readonly texts: readonly string[] }
	| { readonly kind: 'gone'; readonly id: number; readonly texts: readonly string[] }
	| {
			readonly kind: 'changed';
			readonly id: number;
			readonly source: number;
			readonly label: string;
			readonly cells: readonly { readonly c: number; readonly was: string; readonly is: string }[];
	  };

/** Body rows of a table, with the row of the source that each is. */
interface Compared {
	readonly differences: readonly RowDifference[];
	/** Ids of body rows by the row of the source. */
	readonly idOf: ReadonlyMap<number, number>;
}

const plainTable = (rows: readonly (readonly string[])[], names: readonly string[]): Table => ({
	...createGrid(rows),
	roles: rows.map(() => 'body'),
	columnInfo: names.map((name) => ({ kind: 'text', name })),
	firstColumns: 0,
	lastColumns: 0,
	partsOff: [],
	carry: ASPECTS,
	touches: []
});

/** What differs between the body of a table and the rows of a source, by the columns that it fills. */
export function compareRows(work: WorkTable, source: RowsSource, columns: readonly (number | undefined)[]): Compared {
	const filled = columns.flatMap((from, c) => (from === undefined ? [] : [{ c, from }]));
	if (!filled.length) return { differences: [], idOf: new Map() };
	const body = work.rows.filter(({ role, cells }) => isBody(role) && !cells.some(isCovered));
	const names = filled.map(({ c }) => `column ${c}`);
	const mine = body.map(({ cells }) => filled.map(({ c }) => textIn(cells[c]!)));
	const theirs = source.rows.map((row) => filled.map(({ from }) => row[from] ?? ''));
	const { rows } = linesBetween(plainTable(mine, names), plainTable(theirs, names));
	const idOf = new Map<number, number>();
	const changed: RowDifference[] = [];
	const gone: RowDifference[] = [];
	body.forEach(({ id }, i) => {
		const at = rows.get(i);
		if (at === undefined) {
			gone.push({ kind: 'gone', id, texts: mine[i]! });
			return;
		}
		idOf.set(at, id);
		const cells = filled.flatMap(({ c }, k) => {
			const [was, is] = [mine[i]![k]!, theirs[at]![k]!];
			return plainText(was) === plainText(is) ? [] : [{ c, was, is }];
		});
		if (cells.length) changed.push({ kind: 'changed', id, source: at, label: mine[i]!.find(Boolean) ?? '', cells });
	});
	const added = theirs.flatMap((texts, at): RowDifference[] =>
		idOf.has(at) ? [] : [{ kind: 'added', source: at, texts }]
	);
	return { differences: [...changed, ...added, ...gone], idOf };
}
const textIn = (slot: WorkTable['rows'][number]['cells'][number]): string => (isCovered(slot) ? '' : slot.text);

/** A name for a difference, by which it is taken or left: of a cell of a changed row, with its column. */
export const differenceKey = (difference: RowDifference, c?: number): string =>
	difference.kind === 'added' ? `+${difference.source}` : `${difference.id}${c === undefined ? '' : ` ${c}`}`;

/**
 * A table with the differences that are taken. Rows that are new stand after the one that stands before them in the source;
 * what is not taken stays as it is. Styles, touches, formulas and totals stay with their rows and columns. Throws InputError
 * where a cell is locked.
 */
export function withRowsFrom(
	work: WorkTable,
	source: RowsSource,
	columns: readonly (number | undefined)[],
	isTaken: (key: string) => boolean = () => true
): WorkTable {
	const { differences, idOf } = compareRows(work, source, columns);
	const placeOf = (table: WorkTable, id: number) => table.rows.findIndex((row) => row.id === id);
	const filled = columns.flatMap((from, c) => (from === undefined ? [] : [{ c, from }]));
	let next = work;
	for (const difference of differences)
		if (difference.kind === 'changed')
			for (const { c, is } of difference.cells)
				if (isTaken(differenceKey(difference, c))) next = typed(next, placeOf(next, difference.id), c, is);
	const at = new Map(idOf);
	for (const difference of differences) {
		if (difference.kind !== 'added' || !isTaken(differenceKey(difference))) continue;
		let before = difference.source - 1;
		while (before >= 0 && !at.has(before)) before--;
		const first = next.rows.findIndex(({ role }) => isBody(role));
		const row = before >= 0 ? placeOf(next, at.get(before)!) + 1 : first < 0 ? next.rows.length : first;
		// A new row is like the body row beside it.
		const beside = before >= 0 ? row - 1 : first < 0 ? next.rows.length - 1 : first;
		next = insertRows(next, row, 1, beside);
		next = { ...next, rows: next.rows.map((one, r) => (r === row ? { ...one, role: 'body' } : one)) };
		at.set(difference.source, next.rows[row]!.id);
		filled.forEach(({ c }, k) => {
			if (cellOf(next, row, c).text !== difference.texts[k]) next = typed(next, row, c, difference.texts[k]!);
		});
	}
	const gone = new Set(
		differences.flatMap((one) => (one.kind === 'gone' && isTaken(differenceKey(one)) ? [placeOf(next, one.id)] : []))
	);
	// A table keeps one row at least.
	if (gone.size && gone.size < next.rows.length) next = removeLines(next, 'rows', gone);
	return next;
}
