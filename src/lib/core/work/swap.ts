import { atLevel, behaviour, isBody, isHeader } from '../roles/index.ts';
import type { Formula } from '../values/formula.ts';
import { formulaText } from '../values/formula-text.ts';
import type { Summary } from '../values/summary.ts';
import { columnNames } from './names.ts';
import {
	asTyped,
	checkSize,
	COVERED,
	isCovered,
	tidy,
	type WorkCell,
	type WorkColumn,
	type WorkRow,
	type WorkTable
} from './table.ts';

/** A list in a formula names so many columns at most. */
const MOST_LISTED = 20;

/** How what is worked out can be said once rows are columns. */
interface Turned {
	/** By row: what its cells, then a column, come to of their rows. */
	readonly across: ReadonlyMap<number, Summary>;
	/** By cell, where the whole row cannot: a formula of its own that lists the columns. */
	readonly lists: ReadonlyMap<string, Formula>;
	/** By column: what it, then a row, tells of each column. */
	readonly totals: ReadonlyMap<number, Summary>;
	/** What cannot be said, in words; its text stays. */
	readonly lost: readonly string[];
}

function turnedOf(work: WorkTable): Turned {
	const { rows, columns, firstColumns } = work;
	const names = columnNames(work);
	const across = new Map<number, Summary>();
	const lists = new Map<string, Formula>();
	const totals = new Map<number, Summary>();
	const lost: string[] = [];
	const body = rows.flatMap(({ role }, r) => (isBody(role) ? [r] : []));
	const isWhole = rows.every(({ role }) => isBody(role) || isHeader(role) || behaviour(role).sums === 'all');
	const labels = body.map((r) => labelOf(rows[r]!));
	const isListed =
		firstColumns === 1 && body.length <= MOST_LISTED && new Set(labels).size === labels.length && labels.every(Boolean);
	columns.forEach(({ formula, across: how }, c) => {
		if (how) totals.set(c, how);
		else if (formula) lost.push(`“${names[c]}”: ${formulaText(formula)}`);
	});
	rows.forEach(({ role, cells }, r) => {
		const found = cells.flatMap((slot, c) => (!isCovered(slot) && slot.total ? [{ c, total: slot.total }] : []));
		cells.forEach((slot, c) => {
			if (!isCovered(slot) && slot.formula) lost.push(`row ${r + 1}, “${names[c]}”: ${formulaText(slot.formula)}`);
		});
		if (!found.length) return;
		const [{ total }] = found as [(typeof found)[number]];
		const isEach =
			found.length === columns.length - firstColumns &&
			found.every((one) => one.total === total && one.c >= firstColumns);
		if (
			isWhole &&
			isEach &&
			behaviour(role).sums === 'all' &&
			rows.filter((row) => behaviour(row.role).sums).length === 1
		)
			return void across.set(r, total);
		for (const { c, total: how } of found)
			if (isWhole && isListed && behaviour(role).sums === 'all')
				lists.set(`${r},${c}`, [{ summary: how, list: labels.map((column) => [{ column }]) }]);
			else lost.push(`row ${r + 1}, “${names[c]}”: ${how} of the column`);
	});
	return { across, lists, totals, lost };
}
const labelOf = ({ cells }: WorkRow): string => {
	const [slot] = cells;
	return slot && !isCovered(slot) ? slot.text.trim() : '';
};

/** What is worked out by formulas that cannot be said once rows and columns are swapped, in words. */
export const lostBySwapping = (work: WorkTable): readonly string[] => turnedOf(work).lost;

/**
 * Rows become columns and columns rows. What was a header is a first column then, and the other way round. Totals go along
 * as columns that come from their rows, and those as totals; formulas name columns, so what they worked out stays as text
 * (`lostBySwapping`).
 */
export function swapped(work: WorkTable): WorkTable {
	const width = work.rows.length;
	checkSize(work.columns.length, width);
	const { across, lists, totals } = turnedOf(work);
	const headers = work.rows.findIndex((row) => !isHeader(row.role));
	const turn = (lines: WorkCell['lines']): WorkCell['lines'] =>
		lines && tidy({ top: lines.start, bottom: lines.end, start: lines.top, end: lines.bottom });
	const rows = work.columns.map((_, c): WorkRow => {
		const total = totals.get(c);
		return {
			id: c + 1,
			role: c < work.firstColumns ? atLevel('header', c + 1) : total ? 'total' : 'body',
			cells: work.rows.map(({ role, cells }, r) => {
				const slot = cells[c]!;
				const lines = turn(slot.lines);
				if (isCovered(slot)) return lines ? { covered: true, lines } : COVERED;
				const { rows: down, cols, lines: _, ...rest } = asTyped(slot);
				const formula = lists.get(`${r},${c}`);
				const own = total && isBody(role) ? total : undefined;
				return tidy({ ...rest, rows: cols, cols: down, lines, formula, total: own });
			})
		};
	});
	return {
		rows,
		columns: work.rows.map((_, r): WorkColumn => tidy({ kind: 'mixed', isGuessed: true, across: across.get(r) })),
		firstColumns: Math.max(0, headers),
		lastColumns: 0,
		mark: work.mark,
		...(work.isMarkSaid && { isMarkSaid: true as const }),
		...(work.dir && { dir: work.dir }),
		...(work.dates && { dates: work.dates }),
		...(work.grouping && { grouping: work.grouping }),
		nextId: rows.length + 1
	};
}
