import { figureOf, isShare, plainFigure, together, type Figure } from '../values/figure.ts';
import type { DateOrder } from '../values/dates.ts';
import type { DecimalMark } from '../values/parse.ts';
import { Rational } from '../values/rational.ts';
import type { Summary } from '../values/summary.ts';
import { currencyDecimals, decimalsIn, writtenFigure } from '../values/written.ts';
import { listed, pluralWord } from '../words.ts';
import { dateOrder, markOf } from './marks.ts';
import { columnNames, headingMeasure, inMeasure } from './names.ts';
import { valueOf } from './sort.ts';
import type { WorkCell, WorkTable } from './table.ts';

/** A sum or difference in several units is written as exactly as so many decimals more allow. */
export const MORE_DECIMALS = 3;

const figures = {
	'.': new WeakMap<WorkCell, { figure: Figure | undefined }>(),
	',': new WeakMap<WorkCell, { figure: Figure | undefined }>()
};

/** The figure that a cell's text says; asked again, the same. */
export function figureIn(cell: WorkCell, mark: DecimalMark, order?: DateOrder): Figure | undefined {
	let known = figures[mark].get(cell);
	if (!known) figures[mark].set(cell, (known = { figure: figureOf(valueOf(cell, mark)) }));
	const isDate = known.figure?.measure.kind === 'date';
	// Few dates depend on it.
	return isDate && order === 'month' ? figureOf(valueOf(cell, mark, order)) : known.figure;
}

/** Whether a cell says something, figure or not. */
export const holdsWords = (cell: WorkCell, mark: DecimalMark): boolean =>
	!!cell.text.trim() && valueOf(cell, mark).type !== 'empty';

/** The figures of a table as they are typed: those of a column are in the measure that its heading says. */
export function typedFigures(work: WorkTable): (c: number, cell: WorkCell) => Figure | undefined {
	const [mark, order] = [markOf(work), dateOrder(work)];
	const measures = columnNames(work).map(headingMeasure);
	return (c, cell) => {
		if (isWordy(work, c)) return undefined;
		const figure = figureIn(cell, mark, order);
		return measures[c] ? inMeasure(figure, measures[c]) : figure;
	};
}

/** Whether a column holds words, whatever its cells look like. */
export const isWordy = ({ columns }: Pick<WorkTable, 'columns'>, c: number): boolean =>
	['text', 'code'].includes(columns[c]!.kind);

/** A cell with the figure that it holds, in full where it is worked out. */
export interface Held {
	readonly cell: WorkCell;
	readonly figure: Figure | undefined;
	/** Which row it stands in, from 0. */
	readonly r: number;
	/** It is worked out, and has no figure for a reason. */
	readonly isMissing?: boolean;
}

/** What is worked out, and how it is written. */
export interface Answer {
	readonly text: string;
	readonly figure: Figure | undefined;
	/** Rows that it leaves out, from 0: they hold text, or have no figure for another reason. */
	readonly without: readonly number[];
	readonly isWithoutText?: boolean;
}

/** The answer of what is empty. */
export const NOTHING: Answer = { text: '', figure: undefined, without: [] };

/**
 * What some cells come to, written as they are; empty where they hold nothing that could. Of a column of words their number
 * is counted, else that of their figures. Throws NoAnswer where they do not go together.
 */
export function summarised(
	how: Summary,
	held: readonly Held[],
	mark: DecimalMark,
	{ grouped = [], isOfWords = false }: { grouped?: readonly string[]; isOfWords?: boolean } = {}
): Answer {
	const filled = held.filter(({ cell, figure, isMissing }) => figure ?? (isMissing || holdsWords(cell, mark)));
	const amounts = filled.filter((one): one is Held & { figure: Figure } => !!one.figure);
	if (how === 'count') {
		const count = isOfWords ? filled.length : amounts.length;
		return { text: String(count), figure: plainFigure(Rational.of(count)), without: [] };
	}
	if (!amounts.length) return NOTHING;
	const figure = together(
		how,
		amounts.map((one) => one.figure)
	)!;
	const left = filled.filter((one) => !one.figure);
	const without = left.map(({ r }) => r);
	const isWithoutText = left.every(({ isMissing }) => !isMissing);
	const at = amounts.find((one) => one.figure === figure);
	if ((how === 'least' || how === 'greatest') && at) return { text: at.cell.text, figure, without, isWithoutText };
	const samples = amounts.map(({ cell }) => cell.text).filter(Boolean);
	const most = Math.max(currencyDecimals(figure.measure) ?? 0, ...samples.map((text) => decimalsIn(text, mark)));
	// With the decimals that exactness needs where units were converted, within reason.
	const exact = isShare(figure.measure) ? most : Math.min(figure.amount.decimals ?? 0, most + MORE_DECIMALS);
	const decimals = how === 'mean' ? Math.max(2, most) : Math.max(most, exact);
	return {
		text: writtenFigure(figure, { mark, decimals, samples, beside: [...samples, ...grouped] }),
		figure,
		without,
		isWithoutText
	};
}

/** What a sum leaves out, in words. */
export function withoutWords({ without, isWithoutText }: Pick<Answer, 'without' | 'isWithoutText'>): string {
	const rows = `${pluralWord(without.length, 'row', 'rows')} ${listed(without.map((y) => String(y + 1)))}`;
	const what = isWithoutText === false ? ['has no figure', 'have no figure'] : ['is text', 'are text'];
	return `without ${rows}, which ${pluralWord(without.length, what[0]!, what[1]!)}`;
}
