import { behaviour, isBody } from '../roles/index.ts';
import { measureWords, together, type Figure, type Measure } from '../values/figure.ts';
import { NoAnswer } from '../values/no-answer.ts';
import { SUMMARIES, type Summary } from '../values/summary.ts';
import { unitOf } from '../values/units.ts';
import { currencyDecimals, decimalsIn, writtenFigure } from '../values/written.ts';
import { dateOrder } from './marks.ts';
import { allFigures, workedOut } from './working.ts';
import { rowsAbout } from './reach.ts';
import { isCovered, type Position, type WorkTable } from './table.ts';
import { typedSums } from './sums.ts';

/** What some cells make together, of one dimension or currency. */
export interface Together {
	/** What they are measured in, in words. */
	readonly measure: string;
	/** By summary, written as the cells are; absent where it has no meaning (dates have no sum). */
	readonly figures: Partial<Readonly<Record<Summary, string>>>;
}

const dimensionOf = (measure: Measure): string =>
	'unit' in measure
		? (unitOf(measure.unit)?.dimension ?? measure.unit)
		: 'currency' in measure
			? measure.currency
			: measure.kind === 'permille'
				? 'percent'
				: measure.kind;

/** What selected cells make together, by what they are measured in, in the order in which they come; text is left out. */
export function selectedFigures(given: WorkTable, cells: readonly Position[]): Together[] {
	const { work } = workedOut(given);
	const figureAt = allFigures(work);
	const groups = new Map<string, { figure: Figure; text: string }[]>();
	for (const { r, c } of cells) {
		const slot = work.rows[r]!.cells[c]!;
		if (isCovered(slot)) continue;
		const figure = figureAt(r, c);
		if (!figure) continue;
		const dimension = dimensionOf(figure.measure);
		const group = groups.get(dimension);
		if (group) group.push({ figure, text: slot.text });
		else groups.set(dimension, [{ figure, text: slot.text }]);
	}
	return [...groups.values()].map((group) => {
		const samples = group.map(({ text }) => text).filter(Boolean);
		const figures: Partial<Record<Summary, string>> = {};
		let measure = group[0]!.figure.measure;
		for (const how of SUMMARIES)
			try {
				const figure = together(
					how,
					group.map((one) => one.figure)
				)!;
				if (how === 'sum') ({ measure } = figure);
				const most = Math.max(
					currencyDecimals(figure.measure) ?? 0,
					...samples.map((text) => decimalsIn(text, work.mark))
				);
				const decimals = how === 'count' ? 0 : how === 'mean' ? Math.max(2, most) : most;
				figures[how] = writtenFigure(figure, {
					mark: work.mark,
					order: dateOrder(work),
					decimals,
					samples: how === 'count' ? [] : samples
				});
			} catch (error) {
				if (!(error instanceof NoAnswer)) throw error;
			}
		return { measure: measureWords(measure), figures };
	});
}

/** What a sum covers and what it leaves out: rows of its column, or columns of its row. */
export interface Reach {
	readonly covers: readonly Position[];
	readonly without: readonly Position[];
}

/** What the sum in a cell covers: one that is worked out or one that is typed in a row of totals; undefined for no sum. */
export function reachOf(given: WorkTable, r: number, c: number): Reach | undefined {
	const { work, worked } = workedOut(given);
	const slot = work.rows[r]?.cells[c];
	if (!slot || isCovered(slot)) return undefined;
	const down = (rows: readonly number[]) => rows.map((y) => ({ r: y, c }));
	if (slot.total) {
		const without = worked.find((one) => one.r === r && one.c === c)?.without ?? [];
		const held = rowsAbout(work, r).filter((y) => {
			const other = work.rows[y]!.cells[c]!;
			return !isCovered(other) && other.text.trim() && !without.includes(y);
		});
		return { covers: down(held), without: down(without) };
	}
	const { across, formula } = work.columns[c]!;
	if (isBody(work.rows[r]!.role) && across && !formula) {
		const others = work.columns.flatMap((_, i) => (i === c || i < work.firstColumns ? [] : [{ r, c: i }]));
		return { covers: others, without: [] };
	}
	if (!behaviour(work.rows[r]!.role).sums) return undefined;
	const sum = typedSums(work).find((one) => one.r === r && one.c === c);
	return sum && { covers: down(sum.covers), without: down(sum.without) };
}
