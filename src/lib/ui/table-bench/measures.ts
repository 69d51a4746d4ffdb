import { isCovered, type WorkRow, type WorkTable } from '$lib/core/work/table.ts';
import { fractionOf } from '../table/fractions.ts';

/** By column: the letters of the longest text, and those from the decimal mark on of the figure that has the most of them. */
export interface Measures {
	readonly longest: readonly number[];
	readonly fractions: readonly number[];
}

/** Rows stay the same objects while they are not edited, and so are measured once. */
const measured = new WeakMap<WorkRow, Measures>();
function measuresOfRow(row: WorkRow): Measures {
	let known = measured.get(row);
	if (!known) {
		const texts = row.cells.map((slot) => (isCovered(slot) || (slot.cols ?? 1) > 1 ? '' : slot.text));
		known = { longest: texts.map(({ length }) => length), fractions: texts.map(fractionOf) };
		measured.set(row, known);
	}
	return known;
}

export function measuresOf({ rows, columns }: Pick<WorkTable, 'rows' | 'columns'>): Measures {
	const longest = Array<number>(columns.length).fill(0);
	const fractions = Array<number>(columns.length).fill(0);
	for (const row of rows) {
		const own = measuresOfRow(row);
		for (let c = 0; c < longest.length; c++) {
			if (own.longest[c]! > longest[c]!) longest[c] = own.longest[c]!;
			if (own.fractions[c]! > fractions[c]!) fractions[c] = own.fractions[c]!;
		}
	}
	return { longest, fractions };
}
