import type { Table } from '../table/grid.ts';
import { LOOK_FIELDS, type Appearance, type Line, type LookField } from './look.ts';

/** When two values of a field of a look, or two lines, count as the same. */
interface Sameness {
	readonly value: (field: LookField, a: unknown, b: unknown) => boolean;
	readonly line: (a: Line | null | undefined, b: Line | null | undefined) => boolean;
}

/** Indices of the cells whose own look, or the line on one of whose sides, is another. */
export function changedCells(
	{ cells, slots, rows, columns }: Pick<Table, 'cells' | 'slots' | 'rows' | 'columns'>,
	before: Appearance,
	after: Appearance,
	same: Sameness
): Set<number> {
	const changed = new Set<number>();
	const isOther = new Map<string, boolean>();
	cells.forEach((_, i) => {
		const key = `${before.cellLook[i]} ${after.cellLook[i]}`;
		let other = isOther.get(key);
		if (other === undefined) {
			const [old, now] = [before.looks[before.cellLook[i]!]!, after.looks[after.cellLook[i]!]!];
			isOther.set(key, (other = LOOK_FIELDS.some((field) => !same.value(field, old[field], now[field]))));
		}
		if (other) changed.add(i);
	});
	const mark = (r: number, c: number) => {
		if (r >= 0 && c >= 0 && r < rows && c < columns) changed.add(slots[r * columns + c]!);
	};
	const differs = (which: 'across' | 'down', i: number) => {
		const [edge, other] = [before[which][i]!, after[which][i]!];
		return edge >= 0 && other >= 0 && !same.line(before.lines[edge], after.lines[other]);
	};
	before.across.forEach((_, i) => {
		const [r, c] = [Math.floor(i / columns), i % columns];
		if (differs('across', i)) [r - 1, r].forEach((at) => mark(at, c));
	});
	before.down.forEach((_, i) => {
		const [r, c] = [Math.floor(i / (columns + 1)), i % (columns + 1)];
		if (differs('down', i)) [c - 1, c].forEach((at) => mark(r, at));
	});
	return changed;
}
