import { accept, differences, type ChangeAnswer, type RowChange } from '../core/schedule/difference.ts';
import type { DrawingObject } from '../core/schedule/objects.ts';
import type { PlacedTable } from '../core/schedule/placed.ts';
import { makeRows, type ScheduleRows, type SheetFacts } from '../core/schedule/rows.ts';
import { standing } from '../core/schedule/table.ts';
import type { Touch } from '../core/table/grid.ts';
import type { TableState } from './state.ts';

/** The rows that a placed table's drawing gives now; undefined where its rows are typed. */
export const rowsNow = (
	{ source }: PlacedTable,
	objects: readonly DrawingObject[],
	facts: SheetFacts
): ScheduleRows | undefined => (source.from === 'objects' ? makeRows(source.definition, objects, facts) : undefined);

/** What a placed table is behind its drawing. */
export const changesOf = (placed: PlacedTable, now: ScheduleRows | undefined): readonly RowChange[] =>
	now ? differences(placed.rows, now) : [];

/** A placed table and what it wears after some changes were answered: touches stay with their rows and columns. */
export function answered(
	placed: PlacedTable,
	own: TableState,
	now: ScheduleRows,
	answers: ReadonlyMap<string, ChangeAnswer> | 'all'
): { placed: PlacedTable; own: TableState } {
	const { rows, was } = accept(placed.rows, now, answers);
	return withRows({ placed, own }, rows, was);
}

/** A placed table with other rows; `was` tells which row of before each one is, by key. */
export function withRows(
	{ placed, own }: { readonly placed: PlacedTable; readonly own: TableState },
	rows: ScheduleRows,
	was: ReadonlyMap<string, string> = new Map(rows.rows.map(({ key }) => [key, key])),
	reads = placed.reads
): { placed: PlacedTable; own: TableState } {
	const next: PlacedTable = { ...placed, rows, reads };
	if (!own.touches?.length) return { placed: next, own };
	const before = standing(placed.rows.rows, placed.reads).map(({ key }) => key);
	const nowAt = new Map(standing(rows.rows, reads).map(({ key }, r) => [was.get(key) ?? key, r]));
	const columnAt = new Map(rows.columns.map(({ name }, c) => [name, c]));
	const touches = own.touches.flatMap((touch): Touch[] => {
		const r = nowAt.get(before[touch.r] ?? '');
		const c = columnAt.get(placed.rows.columns[touch.c]?.name ?? '');
		return r === undefined || c === undefined ? [] : [{ ...touch, r, c }];
	});
	return { placed: next, own: { ...own, touches } };
}
