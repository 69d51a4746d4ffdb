import { InputError } from '../errors.ts';
import { compareFigures, figureOf } from '../values/figure.ts';
import type { DateOrder } from '../values/dates.ts';
import { parseValue, type DecimalMark, type Value } from '../values/parse.ts';
import { orderRows } from './lines.ts';
import { forbids } from './locks.ts';
import { dateOrder, markOf } from './marks.ts';
import { cellOf, isCovered, joinedCells, type WorkCell, type WorkRow, type WorkTable } from './table.ts';

export interface SortKey {
	readonly column: number;
	readonly order: 'rising' | 'falling';
}

const values = { '.': new WeakMap<WorkCell, Value>(), ',': new WeakMap<WorkCell, Value>() };

/** What a cell's text means; asked again, the same. */
export function valueOf(cell: WorkCell, mark: DecimalMark, order?: DateOrder): Value {
	const known = values[mark];
	let value = known.get(cell);
	if (!value) known.set(cell, (value = parseValue(cell.text, mark)));
	// Few dates depend on it.
	return value.type === 'date' && order === 'month' ? parseValue(cell.text, mark, order) : value;
}

/** Numbers before dates before words; what is empty comes last, whichever way the order runs. */
const KIND_ORDER: Readonly<Record<Value['type'], number>> = {
	number: 0,
	money: 0,
	percent: 0,
	date: 1,
	time: 1,
	text: 2,
	empty: 3
};

/** Compares two values: figures by what they are worth across units (300 mm before 1 m), dates as dates, words by the collation of a locale. */
export function compareValues(a: Value, b: Value, collator: Intl.Collator): number {
	const kind = KIND_ORDER[a.type] - KIND_ORDER[b.type];
	if (kind) return kind;
	const [x, y] = [figureOf(a), figureOf(b)];
	if (x && y) return compareFigures(x, y) ?? x.amount.compare(y.amount);
	if (a.type === 'date' && b.type === 'date') return a.iso < b.iso ? -1 : a.iso > b.iso ? 1 : 0;
	if (a.type === 'text' && b.type === 'text') return collator.compare(a.text, b.text);
	return 0;
}

/** Whether a row has a cell whose content is locked. */
const isHeld = ({ cells }: WorkRow): boolean => cells.some((slot) => !isCovered(slot) && forbids(slot.lock, 'content'));

/**
 * Sorts body rows by several columns, stably. Rows of any other role stay where they are, and body rows stay between
 * them; rows that joined cells hold together stay together, and count as their first. Columns of codes sort as text.
 */
export function sortRows(work: WorkTable, keys: readonly SortKey[], locale: string): WorkTable {
	for (const { column } of keys)
		if (column < 0 || column >= work.columns.length)
			throw new InputError('sort', `There is no column ${column + 1} to sort by.`);
	const [mark, dates] = [markOf(work), dateOrder(work)];
	const collator = new Intl.Collator(locale, { numeric: true });
	const isText = keys.map(({ column }) => ['text', 'code'].includes(work.columns[column]!.kind));
	const tied = new Uint8Array(work.rows.length);
	for (const { r, rows } of joinedCells(work)) for (let y = r + 1; y < r + rows; y++) tied[y] = 1;
	const order: number[] = [];
	let blocks: number[][] = [];
	const flush = () => {
		const keyed = blocks.map((rows) => ({
			rows,
			values: keys.map(({ column }, k): Value => {
				const cell = cellOf(work, rows[0]!, column);
				const value = valueOf(cell, mark, dates);
				return isText[k] && value.type !== 'empty' ? { type: 'text', text: cell.text.trim() } : value;
			})
		}));
		keyed.sort((a, b) => {
			for (const [k, { order: direction }] of keys.entries()) {
				const [x, y] = [a.values[k]!, b.values[k]!];
				const difference = compareValues(x, y, collator);
				if (!difference) continue;
				const isEmpty = x.type === 'empty' || y.type === 'empty';
				return direction === 'falling' && !isEmpty ? -difference : difference;
			}
			return 0;
		});
		// Rows with a cell whose content is locked keep their places; the others go round them.
		const isFixed = blocks.map((rows) => rows.some((r) => isHeld(work.rows[r]!)));
		const free = keyed.filter(({ rows }) => !rows.some((r) => isHeld(work.rows[r]!)));
		let next = 0;
		blocks.forEach((rows, i) => order.push(...(isFixed[i] ? rows : free[next++]!.rows)));
		blocks = [];
	};
	work.rows.forEach(({ role }, r) => {
		if (tied[r] && blocks.length) blocks.at(-1)!.push(r);
		else if (role === 'body') blocks.push([r]);
		else {
			flush();
			order.push(r);
		}
	});
	flush();
	return order.every((row, place) => row === place) ? work : orderRows(work, order);
}
