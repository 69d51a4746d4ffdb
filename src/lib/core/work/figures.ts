import { behaviour, isBody, splitRole } from '../roles/index.ts';
import { alike, converted, figureOf, plainFigure, type Figure } from '../values/figure.ts';
import { columnsIn, compute, formulaFault, hasOperator } from '../values/formula.ts';
import { NoAnswer } from '../values/no-answer.ts';
import type { DecimalMark } from '../values/parse.ts';
import { Rational } from '../values/rational.ts';
import { currencyDecimals, decimalsIn, writtenFigure } from '../values/written.ts';
import type { Formula } from '../values/formula.ts';
import { listed, pluralWord } from '../words.ts';
import { markOf } from './marks.ts';
import { valueOf } from './sort.ts';
import { isCovered, withText, type Slot, type Summary, type WorkCell, type WorkRow, type WorkTable } from './table.ts';
import { tableOf } from './convert.ts';

/** An answer that ends is written with so many decimals at most. */
const MOST_DECIMALS = 6;

/** Why a cell that is worked out has no figure, or only a part of one. */
export interface Problem {
	readonly r: number;
	readonly c: number;
	readonly why: string;
	/** It has a figure, which leaves some rows out or is too small to be seen. */
	readonly isPartial?: true;
}

const figures = {
	'.': new WeakMap<WorkCell, { figure: Figure | undefined }>(),
	',': new WeakMap<WorkCell, { figure: Figure | undefined }>()
};
/** The figure that a cell's text says; asked again, the same. */
export function figureIn(cell: WorkCell, mark: DecimalMark): Figure | undefined {
	let known = figures[mark].get(cell);
	if (!known) figures[mark].set(cell, (known = { figure: figureOf(valueOf(cell, mark)) }));
	return known.figure;
}

/** A cell with the figure that it holds, in full where it is worked out. */
export interface Held {
	readonly cell: WorkCell;
	readonly figure: Figure | undefined;
	/** Which row it stands in, from 0. */
	readonly r: number;
}
interface WorkedFigure {
	readonly text: string;
	readonly figure: Figure | undefined;
	/** Rows that are left out, since they hold text, from 0. */
	readonly without: readonly number[];
}

const NOTHING: WorkedFigure = { text: '', figure: undefined, without: [] };

/** What some cells come to; empty where they hold nothing that could. Throws NoAnswer where they do not go together. */
export function summarised(
	how: Summary,
	held: readonly Held[],
	mark: DecimalMark,
	grouped: readonly string[] = []
): WorkedFigure {
	const filled = held.filter(({ cell }) => valueOf(cell, mark).type !== 'empty');
	if (how === 'count')
		return { text: String(filled.length), figure: plainFigure(Rational.of(filled.length)), without: [] };
	const amounts = filled.filter((one): one is Held & { figure: Figure } => !!one.figure);
	if (!amounts.length) return NOTHING;
	const without = filled.filter(({ figure }) => !figure).map(({ r }) => r);
	const hasDates = amounts.some(({ figure }) => figure.measure.kind === 'date');
	if (hasDates && (how === 'sum' || how === 'mean')) {
		if (amounts.every(({ figure }) => figure.measure.kind === 'date')) return NOTHING;
		throw new NoAnswer('dates cannot be added');
	}
	const { amounts: values, measure } = alike(amounts.map(({ figure }) => figure));
	const samples = amounts.map(({ cell }) => cell.text).filter(Boolean);
	const most = Math.max(currencyDecimals(measure) ?? 0, ...samples.map((text) => decimalsIn(text, mark)));
	const shown = (amount: Rational, decimals: number): WorkedFigure => {
		const figure = { amount, measure };
		return {
			text: writtenFigure(figure, { mark, decimals, samples, beside: [...samples, ...grouped] }),
			figure,
			without
		};
	};
	/** With the decimals that exactness needs where units were converted, within reason. */
	const exactly = (amount: Rational) => shown(amount, Math.max(most, Math.min(amount.decimals ?? 0, most + 3)));
	const sum = values.reduce((total, one) => total.plus(one), Rational.ZERO);
	if (how === 'sum') return exactly(sum);
	if (how === 'mean') return shown(sum.over(Rational.of(values.length)), Math.max(2, most));
	const at = values.reduce(
		(best, one, i) => (one.compare(values[best]!) * (how === 'least' ? -1 : 1) > 0 ? i : best),
		0
	);
	const { figure, cell } = amounts[at]!;
	return { text: cell.text, figure, without };
}

/**
 * The body rows that a total or subtotal row is about (figures.md §3): all of them; or those since the last break of its
 * level or a higher one, which is a heading or subtotal of that level, or a header.
 */
export function rowsAbout(work: Pick<WorkTable, 'rows'>, r: number): number[] {
	const { rows } = work;
	const counts = (y: number) => isBody(rows[y]!.role);
	if (behaviour(rows[r]!.role).sums !== 'block') return rows.flatMap((_, y) => (counts(y) ? [y] : []));
	const { level } = splitRole(rows[r]!.role);
	const about: number[] = [];
	for (let y = r - 1; y >= 0; y--) {
		if (counts(y)) {
			about.unshift(y);
			continue;
		}
		const own = splitRole(rows[y]!.role);
		const isBreak =
			own.role.isHeader ||
			own.family === 'title' ||
			((own.family === 'group' || own.role.sums === 'block') && own.level <= level);
		if (isBreak && (about.length || own.role.sums === 'block')) break;
	}
	return about;
}

const heldDown = (
	work: WorkTable,
	rows: readonly number[],
	c: number,
	figureAt: (r: number, c: number, cell: WorkCell) => Figure | undefined
): Held[] =>
	rows.flatMap((r) => {
		const cell = work.rows[r]!.cells[c]!;
		return isCovered(cell) ? [] : [{ cell, figure: figureAt(r, c, cell), r }];
	});

/** Columns that are worked out, each after those that it names; those in a circle apart, with the circle in words. */
function inOrder(work: WorkTable, names: readonly string[]): { order: number[]; circles: Map<number, string> } {
	const order: number[] = [];
	const circles = new Map<number, string>();
	const done = new Set<number>();
	const visit = (c: number, path: readonly number[]) => {
		const again = path.indexOf(c);
		if (again >= 0) {
			const circle = [...path.slice(again), c].map((one) => `“${names[one]}”`).join(' → ');
			for (const one of path.slice(again)) circles.set(one, `it goes round in a circle: ${circle}`);
			return;
		}
		if (done.has(c)) return;
		const { formula } = work.columns[c]!;
		for (const name of formula ? columnsIn(formula) : []) {
			const on = names.indexOf(name);
			if (on >= 0 && (work.columns[on]!.formula || work.columns[on]!.across)) visit(on, [...path, c]);
		}
		done.add(c);
		order.push(c);
	};
	work.columns.forEach(({ formula, across }, c) => {
		if (formula || across) visit(c, []);
	});
	return { order, circles };
}

export interface WorkedOut {
	readonly work: WorkTable;
	readonly problems: readonly Problem[];
}
const known = new WeakMap<WorkTable, WorkedOut>();

/** A table with all cells that are worked out up to date, and those that have no figure with the reason. */
export function workedOut(work: WorkTable): WorkedOut {
	let result = known.get(work);
	if (!result) {
		known.set(work, (result = workOut(work)));
		known.set(result.work, result);
	}
	return result;
}

function workOut(given: WorkTable): WorkedOut {
	const mark = markOf(given);
	const work = mark === given.mark ? given : { ...given, mark };
	const problems: Problem[] = [];
	const hasTotals = work.rows.some(
		({ role, cells }) => role !== 'body' && cells.some((slot) => !isCovered(slot) && slot.total)
	);
	if (!hasTotals && !work.columns.some(({ formula, across }) => formula || across)) return { work, problems };
	const names = tableOf(work).columnInfo.map(({ name }) => name);
	const { order, circles } = inOrder(work, names);
	const grouped = groupedFigure(work);
	/** An answer with the decimals of its currency or of its operands; a quotient of whole numbers that is none has two. */
	const writtenAnswer = (figure: Figure, formula: Formula, used: readonly string[]): string => {
		const most = Math.max(0, ...used.map((text) => decimalsIn(text, work.mark)));
		const own = figure.amount.decimals;
		const isCut = own === undefined || own > MOST_DECIMALS;
		const decimals =
			currencyDecimals(figure.measure) ??
			(isCut ? Math.max(most, hasOperator(formula, '÷') ? 2 : 0) : Math.max(most, own));
		return writtenFigure(figure, { mark: work.mark, decimals, samples: used, beside: [...used, ...grouped] });
	};
	const rows: WorkRow[] = [...work.rows];
	const now = (): WorkTable => ({ ...work, rows });
	const put = (r: number, c: number, text: string) => {
		const slot = rows[r]!.cells[c]!;
		if (isCovered(slot) || slot.text === text) return;
		const cells: Slot[] = [...rows[r]!.cells];
		const { total, ...rest } = slot;
		cells[c] = { ...withText(rest, text), ...(total && { total }) };
		rows[r] = { ...rows[r]!, cells };
	};
	/** Figures that were worked out, in full: what depends on them takes these, never their texts. */
	const inFull = new Map<string, Figure | undefined>();
	const figureAt = (r: number, c: number, cell: WorkCell): Figure | undefined => {
		const key = `${r} ${c}`;
		return inFull.has(key) ? inFull.get(key) : figureIn(cell, work.mark);
	};
	const answer = (r: number, c: number, work: () => WorkedFigure) => {
		try {
			const { text, figure, without } = work();
			put(r, c, text);
			inFull.set(`${r} ${c}`, figure);
			if (figure && !figure.amount.isZero && figure.measure.kind !== 'date' && !/[1-9]/.test(text))
				problems.push({ r, c, why: 'it is not 0, but too small for the decimals that are shown', isPartial: true });
			if (without.length)
				problems.push({
					r,
					c,
					why: `without ${pluralWord(without.length, 'row', 'rows')} ${listed(without.map((y) => String(y + 1)))}, which ${pluralWord(without.length, 'is', 'are')} text`,
					isPartial: true
				});
		} catch (error) {
			if (!(error instanceof NoAnswer)) throw error;
			put(r, c, '');
			inFull.set(`${r} ${c}`, undefined);
			problems.push({ r, c, why: error.message });
		}
	};
	for (const c of order) {
		const { formula, across } = work.columns[c]!;
		const missing =
			formula &&
			formulaFault(
				formula,
				names.filter((_, i) => i !== c)
			);
		const fault = circles.get(c) ?? missing;
		rows.forEach(({ role, cells }, r) => {
			if (role !== 'body' || isCovered(cells[c]!)) return;
			answer(r, c, () => {
				if (fault) throw new NoAnswer(fault.replace(/\.$/, ''));
				const row = rows[r]!;
				if (across)
					return summarised(
						across,
						row.cells.flatMap((cell, i) =>
							i === c || i < work.firstColumns || isCovered(cell) ? [] : [{ cell, figure: figureAt(r, i, cell), r }]
						),
						work.mark,
						grouped
					);
				const used: string[] = [];
				const figure = compute(
					formula!,
					(name) => {
						const on = names.indexOf(name);
						const slot = row.cells[on]!;
						if (isCovered(slot)) return undefined;
						const own = figureAt(r, on, slot);
						if (!own && slot.text.trim() && valueOf(slot, work.mark).type !== 'empty')
							throw new NoAnswer(`“${name}” has no number`);
						if (slot.text.trim()) used.push(slot.text);
						return own;
					},
					work.mark
				);
				return figure ? { text: writtenAnswer(figure, formula!, used), figure, without: [] } : NOTHING;
			});
		});
	}
	work.rows.forEach(({ role, cells }, r) => {
		if (role === 'body') return;
		const about = rowsAbout(work, r);
		cells.forEach((slot, c) => {
			if (isCovered(slot) || !slot.total) return;
			answer(r, c, () => summarised(slot.total!, heldDown(now(), about, c, figureAt), work.mark, grouped));
		});
	});
	const isSame = rows.every((row, r) => row === work.rows[r]);
	return { work: isSame ? work : { ...work, rows }, problems };
}

/** A figure of the table whose thousands are parted, as a sample for those that are worked out; none where none is. */
function groupedFigure({ rows, mark }: WorkTable): string[] {
	for (const { cells } of rows)
		for (const slot of cells) {
			if (isCovered(slot) || slot.text.length > 40) continue;
			const group = /\d(['’., \u00A0\u2009\u202F])\d{3}(?!\d)/.exec(slot.text)?.[1];
			if (group && group !== mark && figureIn(slot, mark)) return [slot.text];
		}
	return [];
}

/** What works a cell out, in words; undefined for one that is typed. */
export function workedOutBy({ rows, columns }: WorkTable, r: number, c: number): string | undefined {
	const { role, cells } = rows[r]!;
	const { formula, across } = columns[c]!;
	if (role === 'body') return formula ? 'by its column’s formula' : across && 'from its row';
	const slot = cells[c]!;
	return !isCovered(slot) && slot.total ? 'from its column' : undefined;
}

/** Columns whose cells depend on a column, straight or through others. */
export function dependents(work: WorkTable, c: number): Set<number> {
	const names = tableOf(work).columnInfo.map(({ name }) => name);
	const found = new Set<number>();
	const visit = (on: number) =>
		work.columns.forEach(({ formula, across }, i) => {
			const isOn = formula ? columnsIn(formula).includes(names[on]!) : !!across && i !== on;
			if (isOn && !found.has(i)) {
				found.add(i);
				visit(i);
			}
		});
	visit(c);
	return found;
}

/** A typed figure in a total or subtotal row, against what its column comes to. */
export interface TypedSum {
	readonly r: number;
	readonly c: number;
	/** Rows whose figures it is about, and those among them that hold text instead; from 0. */
	readonly covers: readonly number[];
	readonly without: readonly number[];
	/** What it should be; undefined where the figures do not go together, which `problem` says. */
	readonly should: Figure | undefined;
	readonly problem: string | undefined;
	readonly isRight: boolean | undefined;
	/** What it should be, written as the column's figures are, and by how much it is off; empty where that means nothing. */
	readonly text: string;
	readonly off: string;
}

const SUMMED = new Set(['count', 'quantity', 'money', 'mixed']);

/**
 * The typed figures that are taken for sums. A row of several figures none of which is a sum is taken for something else than
 * a total.
 */
export function typedSums(work: WorkTable): TypedSum[] {
	const mark = markOf(work);
	return work.rows.flatMap(({ role, cells }, r) => {
		if (!behaviour(role).sums) return [];
		const about = rowsAbout(work, r);
		const found = cells.flatMap((slot, c): TypedSum[] => {
			if (isCovered(slot) || slot.total || !SUMMED.has(work.columns[c]!.kind)) return [];
			const is = figureIn(slot, mark);
			if (!is || is.measure.kind === 'date') return [];
			const addends = heldDown(work, about, c, (_r, _c, cell) => figureIn(cell, mark));
			const covers = addends.filter(({ figure }) => figure).map((one) => one.r);
			if (!covers.length) return [];
			const known = { r, c, covers, text: '', off: '' };
			try {
				const { figure, text, without } = summarised('sum', addends, mark);
				if (!figure) return [];
				const { measure } = figure;
				const typed = is.measure.kind === 'plain' ? is.amount : converted(is, measure);
				// Compared after the rounding of its own decimals (figures.md §3); in another measure it cannot be right.
				const decimals = decimalsIn(slot.text, mark) + (measure.kind === 'percent' ? 2 : 0);
				const isRight = !!typed && Rational.parse(figure.amount.toFixed(decimals)).equals(typed);
				const samples = addends.filter((one) => one.figure).map(({ cell }) => cell.text);
				const most = Math.max(decimalsIn(slot.text, mark), ...samples.map((one) => decimalsIn(one, mark)));
				const off = typed && { amount: typed.minus(figure.amount), measure };
				return [
					{
						...known,
						without,
						should: figure,
						problem: undefined,
						isRight,
						text,
						off: off && !isRight ? writtenFigure(off, { mark, decimals: most, samples }) : ''
					}
				];
			} catch (error) {
				if (!(error instanceof NoAnswer)) throw error;
				return [{ ...known, without: [], should: undefined, problem: error.message, isRight: undefined }];
			}
		});
		const wrong = found.filter(({ isRight }) => isRight === false);
		return wrong.length > 2 && !found.some(({ isRight }) => isRight) ? [] : found;
	});
}

/** A typed sum that is off. */
export interface WrongSum {
	readonly r: number;
	readonly c: number;
	/** What it should be, written as the column's figures are. */
	readonly should: string;
	/** By how much it is off. */
	readonly off: string;
}
/** Typed sums that do not add up. */
export const wrongSums = (work: WorkTable): WrongSum[] =>
	typedSums(work).flatMap(({ r, c, isRight, text, off }) =>
		isRight === false && off ? [{ r, c, should: text, off }] : []
	);
