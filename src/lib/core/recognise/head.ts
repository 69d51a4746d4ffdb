import type { Grid } from '../table/grid.ts';
import { atLevel, type RowRole } from '../roles/index.ts';
import type { Value } from '../values/parse.ts';
import type { Guess } from './columns.ts';
import { role, type Hints, type RowFacts } from './facts.ts';
import { ONLY_UNIT } from './words.ts';

const isYear = (text: string) => /^\s*(19|20|21)\d\d\s*$/.test(text);
/** A year with what its figures are in, as a column of accounts is named: “2031 £”. */
const isYearIn = (text: string) => /^\s*(19|20|21)\d\d\s*(\p{Sc}|[A-Z]{3}|%)?\s*$/u.test(text);
/** A number of something, such as TH-3300, which stands beside its name and heads no column. */
const isSerial = (text: string) => /^\s*(?=.*\d{3})[A-Z]+[-./]?\d+([-./]\w+)?\s*$/.test(text);

/** What is asked of the rows that may be the head of a table. */
class HeadRows {
	constructor(
		private readonly grid: Grid,
		private readonly facts: readonly RowFacts[],
		private readonly hints: Hints
	) {}

	/** Bold or filled, where the row below is not, or otherwise. */
	looksDifferent(row: number): boolean {
		const { bold, fill } = this.hints;
		if (row + 1 >= this.grid.rows) return false;
		if (bold?.(row) && !bold(row + 1)) return true;
		const own = fill?.(row);
		return own !== undefined && own !== fill?.(row + 1);
	}
	/** Names rather than figures; a year can be either. */
	holdsNames(row: number): boolean {
		const { values, texts, filled } = this.facts[row]!;
		return (
			filled > 0 &&
			values.every(
				({ type }, c) =>
					(type === 'text' && !isSerial(texts[c]!)) || type === 'empty' || isYearIn(texts[c]!) || type === 'date'
			)
		);
	}
	/** Some column holds numbers (but no years) below the row. */
	figuresBelow(row: number): boolean {
		return this.facts[row]!.texts.some((_, c) => {
			const below = this.below(row).map(({ amounts, texts }) => (isYear(texts[c]!) ? undefined : amounts[c]));
			return below.filter(Boolean).length * 2 > below.length;
		});
	}
	/** Every row below has something in its first column. */
	labelsBelow(row: number): boolean {
		return this.grid.rows - row > 2 && this.below(row).every(({ texts }) => texts[0]!.trim());
	}
	holdsUnits(row: number): boolean {
		const filled = this.facts[row]!.texts.filter((text) => text.trim());
		return filled.length > 0 && filled.every((text) => ONLY_UNIT.test(text.trim()));
	}
	/** The title of a table whose first row was not joined into one cell. */
	isLonelyTitle(): boolean {
		const [own, next] = this.facts;
		if (own!.filled !== 1 || !own!.texts[0]!.trim() || !this.holdsNames(0)) return false;
		return next!.filled > 1 && !!next!.texts[0]!.trim() && this.holdsNames(1) && this.figuresBelow(1);
	}
	/** Benches, places or classes by number: after the first cell nothing but 1, 2, 3 and so on. */
	countsUp(row: number): boolean {
		const [, ...numbers] = this.facts[row]!.amounts;
		return numbers.length >= 3 && numbers.every((number, i) => number?.equals(i + 1));
	}
	/** Sizes or shares as names: each with a unit or a percent sign, which no figure below has. */
	holdsSizes(row: number): boolean {
		const isSize = (value: Value) => value.type === 'percent' || (value.type === 'number' && !!value.unit);
		const [, ...sizes] = this.facts[row]!.values;
		const below = this.below(row);
		return (
			sizes.length > 1 && sizes.every((size, i) => isSize(size) && !below.some(({ values }) => isSize(values[i + 1]!)))
		);
	}
	/** The first cell is one of the labels: like all below it, it ends with a colon or a question mark. */
	asksLikeOthers(row: number): boolean {
		return [':', '?'].some((mark) => this.facts.slice(row).every(({ texts }) => texts[0]!.trim().endsWith(mark)));
	}
	/** A cell holds digits, as most cells below it do: an address, a telephone number, no name of a column. */
	isNumberedLikeOthers(row: number): boolean {
		const below = this.below(row);
		const hasDigit = (text: string) => /\p{Nd}/u.test(text);
		return this.facts[row]!.texts.some(
			(text, c) => hasDigit(text) && below.filter(({ texts }) => hasDigit(texts[c]!)).length * 2 > below.length
		);
	}
	/** Names with gaps beside them, as where cells were left apart instead of being joined. */
	hasGaps(row: number): boolean {
		const [, ...others] = this.facts[row]!.texts.map((text) => text.trim());
		return others.some((text, i) => !text && i > 0 && !!others[i - 1]);
	}
	/** The last row that cells of this one reach down into. */
	reachOf(row: number): number {
		const tall = this.grid.cells.filter((cell) => cell.r === row && cell.rows > 1 && cell.rows < this.grid.rows - row);
		return Math.max(row, ...tall.map((cell) => cell.r + cell.rows - 1));
	}
	/** The text of a cell across several columns. */
	spanningText(row: number): string {
		return this.grid.cells.find((cell) => cell.r === row && cell.cols > 1 && cell.text.trim())?.text.trim() ?? '';
	}

	private below(row: number): readonly RowFacts[] {
		return this.facts.slice(row + 1);
	}
}

/** Titles and header tiers from the top; returns the index of the first row after them. */
export function recogniseHead(grid: Grid, facts: readonly RowFacts[], hints: Hints, out: Guess<RowRole>[]): number {
	const rows = new HeadRows(grid, facts, hints);
	let r = 0;
	while (r < grid.rows - 1 && facts[r]!.whole && facts[r]!.filled > 0 && !hints.header?.[r]) {
		out[r] = role('title', r === 0 ? 0.95 : 0.8, 'one cell across the whole width at the top');
		r++;
	}
	if (r === 0 && grid.rows > 3 && !hints.header?.[0] && rows.isLonelyTitle()) {
		out[r] = role('title', 0.75, 'only its first cell says anything, and names above numbers follow');
		r++;
	}
	const first = r;
	let tier = 1;
	const header = (confidence: number, reason: string) => {
		out[r++] = role(atLevel('header', tier++), confidence, reason);
	};
	while (r < grid.rows && hints.header?.[r]) header(0.98, 'the file calls it a header row');
	if (r === first && r < grid.rows - (grid.rows > 1 ? 1 : 0)) {
		const names = rows.holdsNames(r);
		const { filled, texts } = facts[r]!;
		const years = texts.some(isYear);
		const distinct = new Set(texts.filter(Boolean)).size === texts.filter(Boolean).length;
		if (facts[r]!.spans && names && grid.rows - r > 2)
			header(0.85, `“${rows.spanningText(r)}” in it spans several columns`);
		else if (names && rows.figuresBelow(r) && (!years || filled > 1)) header(0.9, 'names above numbers');
		else if (names && rows.looksDifferent(r) && filled > 1)
			header(0.85, 'it is formatted differently from the rows below');
		else if (
			names &&
			!years &&
			filled === texts.length &&
			distinct &&
			grid.rows > 2 &&
			texts.every((text) => text.length <= 40) &&
			!rows.asksLikeOthers(r) &&
			!rows.isNumberedLikeOthers(r)
		)
			header(0.6, 'first row, every cell a short name');
		else if (names && !texts[0]!.trim() && filled > 1 && filled === texts.length - 1 && distinct && rows.labelsBelow(r))
			header(0.8, 'an empty corner above the labels of the rows');
		else if (rows.countsUp(r) && rows.figuresBelow(r)) header(0.75, 'its figures count 1, 2, 3 …');
		else if (rows.holdsSizes(r) && rows.figuresBelow(r)) header(0.75, 'sizes or shares above figures of another sort');
		if (r > first && grid.rows - r > 1) {
			const reach = Math.min(rows.reachOf(r - 1), grid.rows - 2);
			while (r <= reach && rows.holdsNames(r)) header(0.9, 'cells of the row above reach down into it');
		}
	}
	while (r > first && r < grid.rows - 1 && facts[r - 1]!.spans && rows.holdsNames(r) && !out[r]) {
		header(0.9, `“${rows.spanningText(r - 1)}” above spans several of its columns`);
	}
	if (r === first + 1 && r < grid.rows - 1 && !out[r] && rows.hasGaps(r - 1)) {
		const { filled, texts } = facts[r]!;
		if (filled === texts.length && rows.holdsNames(r) && rows.figuresBelow(r))
			header(0.8, 'finer names below names with gaps');
	}
	if (r > first && r < grid.rows - 1 && !out[r] && rows.holdsUnits(r))
		header(0.85, 'nothing but units below the names');
	return r;
}
