import { plural } from '../words.ts';
import { isHeader, roleFamily } from '../roles/index.ts';
import { anchorOf, isCovered, joinedCells, type WorkTable } from './table.ts';
import { tableOf } from './convert.ts';

/** A rectangle of slots; both ends belong to it. */
export interface Range {
	readonly top: number;
	readonly bottom: number;
	readonly start: number;
	readonly end: number;
}

/**
 * What is selected: ranges, the last of which is being made, and where it was begun and where it is led to. Ranges never
 * cut a joined cell.
 */
export interface Selection {
	readonly ranges: readonly Range[];
	readonly anchor: { readonly r: number; readonly c: number };
	readonly focus: { readonly r: number; readonly c: number };
}

export const rangeOf = (a: { r: number; c: number }, b: { r: number; c: number }): Range => ({
	top: Math.min(a.r, b.r),
	bottom: Math.max(a.r, b.r),
	start: Math.min(a.c, b.c),
	end: Math.max(a.c, b.c)
});

export const isIn = ({ top, bottom, start, end }: Range, r: number, c: number): boolean =>
	r >= top && r <= bottom && c >= start && c <= end;

/** The least range around another that cuts no joined cell. */
export function whole(work: WorkTable, range: Range): Range {
	let { top, bottom, start, end } = range;
	for (let isWider = true; isWider;) {
		isWider = false;
		for (const { r, c, rows, cols } of joinedCells(work)) {
			if (r > bottom || r + rows - 1 < top || c > end || c + cols - 1 < start) continue;
			if (r >= top && r + rows - 1 <= bottom && c >= start && c + cols - 1 <= end) continue;
			top = Math.min(top, r);
			bottom = Math.max(bottom, r + rows - 1);
			start = Math.min(start, c);
			end = Math.max(end, c + cols - 1);
			isWider = true;
		}
	}
	return top === range.top && bottom === range.bottom && start === range.start && end === range.end
		? range
		: { top, bottom, start, end };
}

/** One cell, by any slot of it. */
export function oneCell(work: WorkTable, r: number, c: number): Selection {
	const { r: y, c: x, rows, cols } = anchorOf(work, r, c);
	return {
		ranges: [{ top: y, bottom: y + rows - 1, start: x, end: x + cols - 1 }],
		anchor: { r: y, c: x },
		focus: { r: y, c: x }
	};
}

export const everything = (work: WorkTable): Range => ({
	top: 0,
	bottom: work.rows.length - 1,
	start: 0,
	end: work.columns.length - 1
});

/** A selection fitted to a table that changed under it. */
export function fitted(work: WorkTable, { ranges, anchor, focus }: Selection): Selection {
	const r = (row: number) => Math.min(row, work.rows.length - 1);
	const c = (column: number) => Math.min(column, work.columns.length - 1);
	const inside = ranges.map((one) =>
		whole(work, { top: r(one.top), bottom: r(one.bottom), start: c(one.start), end: c(one.end) })
	);
	return { ranges: inside, anchor: { r: r(anchor.r), c: c(anchor.c) }, focus: { r: r(focus.r), c: c(focus.c) } };
}

/** The first slots of the cells of some ranges, each once, in reading order inside each range. */
export function cellsIn(work: WorkTable, ranges: readonly Range[]): { r: number; c: number }[] {
	const found: { r: number; c: number }[] = [];
	const seen = ranges.length > 1 ? new Set<number>() : undefined;
	for (const { top, bottom, start, end } of ranges)
		for (let r = top; r <= bottom; r++)
			for (let c = start; c <= end; c++) {
				if (isCovered(work.rows[r]!.cells[c]!)) continue;
				const key = r * work.columns.length + c;
				if (seen?.has(key)) continue;
				seen?.add(key);
				found.push({ r, c });
			}
	return found;
}

export const linesOf = (ranges: readonly Range[], axis: 'rows' | 'columns'): Set<number> => {
	const lines = new Set<number>();
	for (const { top, bottom, start, end } of ranges)
		for (let i = axis === 'rows' ? top : start; i <= (axis === 'rows' ? bottom : end); i++) lines.add(i);
	return lines;
};

/** Some cells as ranges: neighbours in a row are one. */
export function rangesOf(work: WorkTable, places: readonly { readonly r: number; readonly c: number }[]): Range[] {
	const ranges: Range[] = [];
	for (const { r, c } of places) {
		const { rows, cols } = anchorOf(work, r, c);
		const last = ranges.at(-1);
		if (rows === 1 && last && last.top === r && last.bottom === r && last.end === c - 1)
			ranges[ranges.length - 1] = { ...last, end: c + cols - 1 };
		else ranges.push({ top: r, bottom: r + rows - 1, start: c, end: c + cols - 1 });
	}
	// Whole stretches of rows one under the other are one.
	const merged: Range[] = [];
	for (const range of ranges) {
		const above = merged.findLast((one) => one.start === range.start && one.end === range.end);
		if (above && above.bottom === range.top - 1) merged[merged.indexOf(above)] = { ...above, bottom: range.bottom };
		else merged.push(range);
	}
	return merged;
}

/** A selection in words: “3 rows × 2 columns, body”. */
export function selectionWords(work: WorkTable, { ranges }: Selection): string {
	const roles = new Set([...linesOf(ranges, 'rows')].map((r) => roleFamily(work.rows[r]!.role)));
	const where = [...roles].slice(0, 3).join(', ') + (roles.size > 3 ? ' …' : '');
	if (ranges.length > 1) return `${plural(cellsIn(work, ranges).length, 'cell')} in ${ranges.length} ranges, ${where}`;
	const { top, bottom, start, end } = ranges[0]!;
	const rows = bottom - top + 1;
	const columns = end - start + 1;
	const cell = anchorOf(work, top, start);
	if (cell.rows === rows && cell.cols === columns) {
		const name = tableOf(work).columnInfo[start]!.name;
		const isHead = isHeader(work.rows[top]!.role);
		return `${rows * columns > 1 ? 'joined cell' : 'cell'}, row ${top + 1}, ${name && !isHead ? `“${name}”` : `column ${start + 1}`}, ${where}`;
	}
	if (rows === work.rows.length && columns === work.columns.length)
		return `the whole table, ${plural(rows, 'row')} × ${plural(columns, 'column')}`;
	if (columns === work.columns.length) return `${plural(rows, 'whole row')}, ${where}`;
	if (rows === work.rows.length) return `${plural(columns, 'whole column')}`;
	return `${plural(rows, 'row')} × ${plural(columns, 'column')}, ${where}`;
}
