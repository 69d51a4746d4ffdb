import { Decimal } from 'decimal.js';
import { behaviour, isBody } from '../roles/index.ts';
import { columnsIn, compute, formulaFault, NoAnswer } from '../values/formula.ts';
import { amountOf, type DecimalMark, type Value } from '../values/parse.ts';
import { valueOf } from './sort.ts';
import {
	isCovered,
	tableOf,
	withText,
	type Slot,
	type Summary,
	type WorkCell,
	type WorkRow,
	type WorkTable
} from './table.ts';

/** Figures are written with so many decimals at most, unless the figures that they come from have more. */
const MOST_DECIMALS = 6;
const Exact = Decimal.clone({ precision: 60 });

/** Why a cell that is worked out has no figure. */
export interface Problem {
	readonly r: number;
	readonly c: number;
	readonly why: string;
}

interface Written {
	readonly before: string;
	readonly digits: string;
	readonly after: string;
}
const FIGURE = /\d[\d.,'’ \u00A0\u2009\u202F]*\d|\d/;
/** Signs and brackets round a figure say that it is negative. */
const SIGNS = /[()\-−–+]/g;

function written(text: string): Written | undefined {
	const match = FIGURE.exec(text);
	if (!match) return undefined;
	return {
		before: text.slice(0, match.index).replace(SIGNS, ''),
		digits: match[0],
		after: text.slice(match.index + match[0].length).replace(SIGNS, '')
	};
}

const decimals = (digits: string, mark: DecimalMark): number => {
	const at = digits.lastIndexOf(mark);
	return at < 0 ? 0 : digits.length - at - 1;
};

interface Writing {
	/** At least so many decimals. */
	readonly least?: number;
	/** An amount that never ends, or nearly so, is cut to as many decimals as the figures have. */
	readonly isRounded?: boolean;
	/** Figures that tell how thousands are parted; the samples where absent. */
	readonly beside?: readonly string[];
}

/**
 * An amount written as figures beside it are: with their unit or currency, their thousands and as many decimals as the
 * longest has, or as it needs.
 */
export function writtenLike(
	amount: Decimal,
	samples: readonly string[],
	mark: DecimalMark,
	{ least = 0, isRounded = false, beside = samples }: Writing = {}
): string {
	const known = samples.flatMap((text) => written(text) ?? []);
	const model = known.find(({ before, after }) => before.trim() || after.trim()) ?? known[0];
	const own = amount.decimalPlaces();
	const digits = Math.max(
		least,
		...known.map((one) => decimals(one.digits, mark)),
		isRounded ? 0 : Math.min(own, MOST_DECIMALS)
	);
	const group = beside
		.map((text) => written(text))
		.map((one) => one && /\d(['’., \u00A0\u2009\u202F])\d{3}(?!\d)/.exec(one.digits)?.[1])
		.find((one) => one && one !== mark);
	const [digitsOfWhole, fraction] = amount.abs().toFixed(digits, Decimal.ROUND_HALF_UP).split('.') as [
		string,
		string | undefined
	];
	const whole = group ? digitsOfWhole.replace(/\B(?=(\d{3})+$)/g, group) : digitsOfWhole;
	const figure = fraction ? `${whole}${mark}${fraction}` : whole;
	const sign = amount.isNegative() && !amount.isZero() ? '−' : '';
	return model ? `${sign}${model.before}${figure}${model.after}` : `${sign}${figure}`;
}

const textsIn = (cells: readonly WorkCell[]) => cells.map(({ text }) => text).filter(Boolean);

/** What some cells come to; empty where they hold nothing that could. Throws NoAnswer where they do not go together. */
export function summarised(
	how: Summary,
	cells: readonly WorkCell[],
	mark: DecimalMark,
	grouped: readonly string[] = []
): string {
	const values = cells.map((cell) => valueOf(cell, mark)).filter(({ type }) => type !== 'empty');
	if (how === 'count') return String(values.length);
	const dates = values.filter((value): value is Value & { type: 'date' } => value.type === 'date');
	const amounts = values.flatMap((value) => amountOf(value) ?? []);
	if (!amounts.length && dates.length && (how === 'least' || how === 'greatest')) {
		const sorted = dates.map(({ iso }) => iso).sort();
		const wanted = how === 'least' ? sorted[0] : sorted.at(-1);
		return cells.find((cell) => {
			const value = valueOf(cell, mark);
			return value.type === 'date' && value.iso === wanted;
		})!.text;
	}
	if (!amounts.length) return '';
	const currencies = new Set(
		values.flatMap((value) => (value.type === 'money' && value.currency ? [value.currency] : []))
	);
	if (currencies.size > 1) throw new NoAnswer(`it holds ${[...currencies].join(' and ')}`);
	const units = new Set(values.flatMap((value) => (value.type === 'number' && value.unit ? [value.unit] : [])));
	if (units.size > 1) throw new NoAnswer(`it holds ${[...units].join(' and ')}`);
	const sum = amounts.reduce((total, one) => total.plus(one), new Exact(0) as Decimal);
	const numbers = cells.filter((cell) => amountOf(valueOf(cell, mark)));
	const samples = textsIn(numbers);
	const beside = [...samples, ...grouped];
	switch (how) {
		case 'sum':
			return writtenLike(sum, samples, mark, { beside });
		case 'mean':
			return writtenLike(new Exact(sum).div(amounts.length), samples, mark, { least: 1, isRounded: true, beside });
		case 'least':
			return writtenLike(Decimal.min(...amounts), samples, mark, { beside });
		case 'greatest':
			return writtenLike(Decimal.max(...amounts), samples, mark, { beside });
	}
}

/** The body rows that a total or subtotal row is about: its block, or all of them. */
export function rowsAbout(work: WorkTable, r: number): number[] {
	const reach = (y: number) => behaviour(work.rows[y]!.role).sums;
	const counts = (y: number) => isBody(work.rows[y]!.role);
	if (reach(r) !== 'block') return work.rows.flatMap((_, y) => (counts(y) ? [y] : []));
	const rows: number[] = [];
	for (let y = r - 1; y >= 0; y--)
		if (counts(y)) rows.unshift(y);
		else if (rows.length || reach(y) !== 'block') break;
	return rows;
}

const cellsDown = (work: WorkTable, rows: readonly number[], c: number): WorkCell[] =>
	rows.flatMap((r) => {
		const slot = work.rows[r]!.cells[c]!;
		return isCovered(slot) ? [] : [slot];
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

function workOut(work: WorkTable): WorkedOut {
	const problems: Problem[] = [];
	const hasTotals = work.rows.some(
		({ role, cells }) => role !== 'body' && cells.some((slot) => !isCovered(slot) && slot.total)
	);
	if (!hasTotals && !work.columns.some(({ formula, across }) => formula || across)) return { work, problems };
	const names = tableOf(work).columnInfo.map(({ name }) => name);
	const { order, circles } = inOrder(work, names);
	const grouped = groupedFigure(work);
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
	const answer = (r: number, c: number, work: () => string) => {
		try {
			put(r, c, work());
		} catch (error) {
			if (!(error instanceof NoAnswer)) throw error;
			put(r, c, '');
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
						row.cells.flatMap((slot, i) => (i === c || i < work.firstColumns || isCovered(slot) ? [] : [slot])),
						work.mark,
						grouped
					);
				// A row that says nothing yet has no figure, and nothing is wrong with that.
				const named = columnsIn(formula!).map((name) => row.cells[names.indexOf(name)]!);
				if (named.every((slot) => isCovered(slot) || !slot.text.trim())) return '';
				const used: string[] = [];
				const amount = compute(
					formula!,
					(name) => {
						const slot = row.cells[names.indexOf(name)]!;
						if (isCovered(slot)) return '';
						used.push(slot.text);
						return slot.text;
					},
					work.mark
				);
				const isRounded = amount.decimalPlaces() > MOST_DECIMALS;
				return writtenLike(amount, usedSamples(used), work.mark, {
					least: isRounded ? 2 : 0,
					isRounded,
					beside: [...used, ...grouped]
				});
			});
		});
	}
	work.rows.forEach(({ role, cells }, r) => {
		if (role === 'body') return;
		const about = rowsAbout(work, r);
		cells.forEach((slot, c) => {
			if (isCovered(slot) || !slot.total) return;
			answer(r, c, () => summarised(slot.total!, cellsDown(now(), about, c), work.mark, grouped));
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
			if (group && group !== mark && amountOf(valueOf(slot, mark))) return [slot.text];
		}
	return [];
}

/** Of the figures in a formula, those that its answer is written like: the ones with a currency, else all. */
function usedSamples(texts: readonly string[]): readonly string[] {
	const marked = texts.filter((text) => {
		const one = written(text);
		return one && (one.before.trim() || one.after.trim()) && !/%/.test(text);
	});
	const kinds = new Set(
		marked.map((text) => written(text)!).map(({ before, after }) => `${before.trim()} ${after.trim()}`)
	);
	if (kinds.size === 1) return marked;
	return texts.flatMap((text) => written(text)?.digits ?? []).filter((digits) => !/%/.test(digits));
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

/** A typed figure in a total or subtotal row that is not what its column comes to. */
export interface WrongSum {
	readonly r: number;
	readonly c: number;
	/** What it should be, written as the column's figures are. */
	readonly should: string;
	/** By how much it is off. */
	readonly off: string;
}

const SUMMED = new Set(['count', 'quantity', 'money', 'mixed']);

/** Typed totals that do not add up. A row in which no figure is a sum is taken for something else than a total. */
export function wrongSums(work: WorkTable): WrongSum[] {
	return work.rows.flatMap(({ role, cells }, r) => {
		if (!behaviour(role).sums) return [];
		const about = rowsAbout(work, r);
		const found: WrongSum[] = [];
		let isOnly = true;
		cells.forEach((slot, c) => {
			if (isCovered(slot) || slot.total || !SUMMED.has(work.columns[c]!.kind)) return;
			const is = amountOf(valueOf(slot, work.mark));
			if (!is) return;
			const addends = cellsDown(work, about, c);
			const amounts = addends.flatMap((cell) => amountOf(valueOf(cell, work.mark)) ?? []);
			if (!amounts.length) return;
			const sum = amounts.reduce((total, one) => total.plus(one), new Exact(0) as Decimal);
			if (sum.equals(is)) {
				isOnly = false;
				return;
			}
			const samples = textsIn(addends.filter((cell) => amountOf(valueOf(cell, work.mark))));
			found.push({
				r,
				c,
				should: writtenLike(sum, samples, work.mark),
				off: writtenLike(is.minus(sum), samples, work.mark)
			});
		});
		return isOnly && found.length > 2 ? [] : found;
	});
}
