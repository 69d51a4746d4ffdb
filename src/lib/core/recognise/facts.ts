import type { Decimal } from 'decimal.js';
import type { Grid } from '../table/grid.ts';
import type { RowRole } from '../roles/index.ts';
import { amountOf, decimalMarkOf, parseValue, type Value } from '../values/parse.ts';
import type { Guess } from './columns.ts';
import { wordsIn, type WordEvidence } from './words.ts';

/** What the source says or shows of its rows, if anything. Arrays have one entry per row; what is shown is asked for few. */
export interface Hints {
	/** The file itself calls this row a header. */
	readonly header?: readonly boolean[];
	/** Every filled cell of the row is bold. */
	readonly bold?: (r: number) => boolean;
	/** The background that most of the row's cells have. */
	readonly fill?: (r: number) => string | undefined;
	/** Cells whose text is the result of a field that adds up. */
	readonly formula?: readonly boolean[];
	/** What stands in a cell beside its text, by the cell's index. */
	readonly things?: (cell: number) => Things;
	/** No cell has a fill, and no edge a line. */
	readonly isPlain?: () => boolean;
}

/** How many pictures, boxes to tick, fields to fill in and inner tables a cell holds. */
export interface Things {
	readonly pictures?: number;
	readonly boxes?: number;
	readonly fields?: number;
	readonly inner?: number;
}

/** What is asked of a row again and again. */
export interface RowFacts {
	readonly texts: readonly string[];
	readonly values: readonly Value[];
	readonly amounts: readonly (Decimal | undefined)[];
	readonly filled: number;
	/** One cell across the whole width. */
	readonly whole: boolean;
	/** A cell across several columns, but not all. */
	readonly spans: boolean;
	readonly label: string;
	/** What its label says of its job. */
	readonly words: WordEvidence;
	readonly hasAmount: boolean;
}

export function factsOf(grid: Grid): RowFacts[] {
	const decimal = decimalMarkOf(grid.cells.map(({ text }) => text));
	const known = new Map<string, Value>();
	const valueOf = (text: string): Value => {
		let value = known.get(text);
		if (!value) known.set(text, (value = parseValue(text, decimal)));
		return value;
	};
	const starts: (typeof grid.cells)[number][][] = Array.from({ length: grid.rows }, () => []);
	for (const cell of grid.cells) starts[cell.r]!.push(cell);
	return starts.map((cells) => {
		const texts = Array<string>(grid.columns).fill('');
		for (const { c, text } of cells) texts[c] = text;
		const values = texts.map(valueOf);
		const amounts = values.map(amountOf);
		const label = texts.find((text) => text.trim() !== '')?.trim() ?? '';
		return {
			texts,
			values,
			amounts,
			label,
			words: wordsIn(label),
			hasAmount: amounts.some((amount) => amount !== undefined),
			filled: cells.filter(({ text }) => text.trim() !== '').length,
			whole: grid.columns > 1 && cells.length > 0 && cells[0]!.cols === grid.columns,
			spans: cells.some(({ cols }) => cols > 1 && cols < grid.columns)
		};
	});
}

/** What a row is, how surely, and why. */
export const role = (is: RowRole, confidence: number, ...reasons: string[]): Guess<RowRole> => ({
	is,
	confidence,
	reasons
});
