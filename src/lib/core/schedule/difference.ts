import type { ScheduleCell, ScheduleRow, ScheduleRows } from './rows.ts';
import { matchObjects } from './objects.ts';

/** What a re-read finds, cell by cell. `id` is the same as long as nothing else changes. */
export type RowChange =
	| { readonly id: string; readonly kind: 'added'; readonly row: string; readonly words: string }
	| {
			readonly id: string;
			readonly kind: 'gone';
			readonly row: string;
			readonly words: string;
			/** What was typed by hand in it and goes with it. */
			readonly typed: readonly string[];
	  }
	| {
			readonly id: string;
			readonly kind: 'changed';
			readonly row: string;
			readonly words: string;
			readonly column: string;
			readonly was: string;
			readonly is: string;
			/** A person wrote over what the drawing said, and the drawing says something else now. */
			readonly conflict: boolean;
	  };

/** How to answer a change: take what the drawing says, or keep what the table has and be asked no more. */
export type ChangeAnswer = 'take' | 'keep';

/** A row in words: its first cells that say something; of totals and headings, what they are called. */
const wordsOf = ({ cells, role }: ScheduleRow): string =>
	cells
		.map(({ text }) => text.trim())
		.filter((text) => text)
		.slice(0, role === 'body' ? 2 : 1)
		.join(' · ') || 'a row without text';

const cellsBy = ({ columns }: Pick<ScheduleRows, 'columns'>, row: ScheduleRow): Map<string, ScheduleCell> =>
	new Map(columns.map(({ name }, c) => [name, row.cells[c] ?? { text: '' }]));

/** For each row of now, the row of before that stands for the same: by its key, else by the objects they share. */
function pairRows(before: readonly ScheduleRow[], now: readonly ScheduleRow[]): Map<ScheduleRow, ScheduleRow> {
	const pairs = new Map<ScheduleRow, ScheduleRow>();
	const byKey = new Map(before.map((row) => [row.key, row]));
	const free = new Set(before);
	for (const row of now) {
		const old = byKey.get(row.key);
		if (!old || !free.delete(old)) continue;
		pairs.set(row, old);
	}
	const left = now.filter((row) => row.role === 'body' && !pairs.has(row));
	const freeRows = [...free].filter(({ role }) => role === 'body');
	if (!left.length || !freeRows.length) return pairs;
	const matched = matchObjects(
		freeRows.flatMap(({ objects }) => objects),
		left.flatMap(({ objects }) => objects)
	);
	const owner = new Map(freeRows.flatMap((row) => row.objects.map((key): [string, ScheduleRow] => [key, row])));
	const shares = left.flatMap((row) => {
		const counts = new Map<ScheduleRow, number>();
		for (const key of row.objects) {
			const old = owner.get(matched.get(key) ?? '');
			if (old) counts.set(old, (counts.get(old) ?? 0) + 1);
		}
		return [...counts].map(([old, count]) => ({ row, old, count }));
	});
	for (const { row, old } of shares.sort((a, b) => b.count - a.count))
		if (!pairs.has(row) && free.delete(old)) pairs.set(row, old);
	return pairs;
}

interface Paired {
	/** Rows of now, with hand-typed cells taken over from the rows that they stand for. */
	readonly rows: readonly ScheduleRow[];
	readonly pairs: ReadonlyMap<ScheduleRow, ScheduleRow>;
	readonly changes: readonly RowChange[];
}

function pair(before: ScheduleRows, now: ScheduleRows): Paired {
	const paired = pairRows(before.rows, now.rows);
	const changes: RowChange[] = [];
	const pairs = new Map<ScheduleRow, ScheduleRow>();
	const rows = now.rows.map((row): ScheduleRow => {
		const old = paired.get(row);
		if (!old) {
			changes.push({ id: `added ${row.key}`, kind: 'added', row: row.key, words: wordsOf(row) });
			return row;
		}
		const had = cellsBy(before, old);
		const cells = now.columns.map(({ name, typed }, c): ScheduleCell => {
			const cell = row.cells[c]!;
			const was = had.get(name);
			if (!was) return cell;
			if (typed && row.role === 'body') return was;
			const change = (conflict: boolean) =>
				changes.push({
					id: `changed ${row.key} ${name}`,
					kind: 'changed',
					row: row.key,
					words: wordsOf(old),
					column: name,
					was: was.text,
					is: cell.text,
					conflict
				});
			if (was.over !== undefined) {
				if (was.over === cell.text) return was;
				if (was.text !== cell.text) change(true);
				return cell;
			}
			if (was.text !== cell.text) change(false);
			return cell;
		});
		const merged = { ...row, cells };
		pairs.set(merged, old);
		return merged;
	});
	const kept = new Set(pairs.values());
	const typedColumns = before.columns.flatMap(({ typed }, c) => (typed ? [c] : []));
	for (const old of before.rows)
		if (!kept.has(old))
			changes.push({
				id: `gone ${old.key}`,
				kind: 'gone',
				row: old.key,
				words: wordsOf(old),
				typed: old.cells.flatMap(({ text, over }, c) =>
					text.trim() && (over !== undefined || (old.role === 'body' && typedColumns.includes(c))) ? [text] : []
				)
			});
	return { rows, pairs, changes };
}

/** What changed between the rows that a table has and those that its drawing gives now. */
export const differences = (before: ScheduleRows, now: ScheduleRows): readonly RowChange[] => pair(before, now).changes;

/**
 * The rows after some changes were answered; the others stay as the table has them. Hand-typed cells stay with their
 * rows. Also tells which row of before each row is, by key.
 */
export function accept(
	before: ScheduleRows,
	now: ScheduleRows,
	answers: ReadonlyMap<string, ChangeAnswer> | 'all'
): { readonly rows: ScheduleRows; readonly was: ReadonlyMap<string, string> } {
	const { rows, pairs, changes } = pair(before, now);
	const answer = (id: string): ChangeAnswer | undefined => (answers === 'all' ? 'take' : answers.get(id));
	const changed = new Map<string, RowChange>(changes.map((change) => [change.id, change]));
	const was = new Map<string, string>();
	const out: ScheduleRow[] = [];
	for (const row of rows) {
		const old = pairs.get(row);
		if (!old) {
			if (answer(`added ${row.key}`) === 'take') out.push(row);
			continue;
		}
		was.set(row.key, old.key);
		const had = cellsBy(before, old);
		const cells = now.columns.map(({ name }, c): ScheduleCell => {
			const id = `changed ${row.key} ${name}`;
			const own = changed.has(id) ? answer(id) : 'take';
			if (own === 'take') return row.cells[c]!;
			const kept = had.get(name)!;
			return own === 'keep' ? { ...kept, over: row.cells[c]!.text } : kept;
		});
		out.push({ ...row, cells });
	}
	// Rows that are gone but not let go stay after the row that they stood after.
	before.rows.forEach((old, i) => {
		if (!changed.has(`gone ${old.key}`) || answer(`gone ${old.key}`) === 'take') return;
		const above = before.rows
			.slice(0, i)
			.reverse()
			.map(({ key }) => out.findIndex((row) => row.key === key || was.get(row.key) === key))
			.find((at) => at >= 0);
		const had = cellsBy(before, old);
		const cells = now.columns.map(({ name }) => had.get(name) ?? { text: '' });
		out.splice((above ?? -1) + 1, 0, { ...old, cells });
		was.set(old.key, old.key);
	});
	return { rows: { columns: now.columns, rows: out, problems: now.problems }, was };
}
