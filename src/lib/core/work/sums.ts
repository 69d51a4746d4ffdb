import { behaviour } from '../roles/index.ts';
import { amountIn, isShare, momentOf, rounded, type Figure } from '../values/figure.ts';
import { isFactor } from '../values/formula.ts';
import { NoAnswer } from '../values/no-answer.ts';
import type { DecimalMark } from '../values/parse.ts';
import { Rational } from '../values/rational.ts';
import { decimalsIn, writtenFigure } from '../values/written.ts';
import { allFigures } from './working.ts';
import { rowsAbout } from './reach.ts';
import { summarised, type Held } from './figures.ts';
import { markOf } from './marks.ts';
import { columnNames } from './names.ts';
import { isCovered, type WorkCell, type WorkTable } from './table.ts';

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

const SUMMED = new Set(['count', 'quantity', 'money', 'mixed', 'percent']);
/** A product of two columns is looked for among so many columns at most. */
const MOST_FACTORS = 16;
const ONE_HUNDREDTH = Rational.of(1n, 100n);

/**
 * The typed figures that are taken for sums. A row of several figures none of which is a sum is taken for something else than
 * a total; figures of columns that are multiplied elsewhere, and shares that do not say 100 %, are none (figures.md §3).
 */
export function typedSums(work: WorkTable): readonly TypedSum[] {
	let sums = known.get(work);
	if (!sums) known.set(work, (sums = checkedSums(work)));
	return sums;
}
const known = new WeakMap<WorkTable, readonly TypedSum[]>();

function checkedSums(work: WorkTable): TypedSum[] {
	if (!work.rows.some(({ role }) => behaviour(role).sums)) return [];
	const check = new Checking(work);
	return work.rows.flatMap(({ role, cells }, r) => {
		if (!behaviour(role).sums) return [];
		const found = cells.flatMap((_, c) => check.at(r, c) ?? []);
		const wrong = found.filter(({ isRight }) => isRight === false);
		if (!found.some(({ isRight }) => isRight)) return wrong.length > 2 ? [] : found;
		return found.filter((one) => one.isRight !== false || !check.isWithin(one));
	});
}

class Checking {
	private readonly mark: DecimalMark;
	/** The figure of a slot; undefined where there is none. */
	private readonly figure: (r: number, c: number) => Figure | undefined;
	private readonly factors: ReadonlySet<number>;

	constructor(private readonly work: WorkTable) {
		this.mark = markOf(work);
		this.figure = allFigures(work);
		this.factors = new Set([...factorsByFormula(work), ...this.factorsByFigures()]);
	}

	private held(rows: readonly number[], c: number): Held[] {
		return rows.flatMap((r) => {
			const cell = this.work.rows[r]!.cells[c]!;
			return isCovered(cell) ? [] : [{ cell, figure: this.figure(r, c), r }];
		});
	}

	/** The typed sum of a slot; undefined where it holds none. */
	at(r: number, c: number): TypedSum | undefined {
		const slot = this.work.rows[r]!.cells[c]!;
		if (isCovered(slot) || slot.total || slot.formula || this.factors.has(c)) return undefined;
		if (!SUMMED.has(this.work.columns[c]!.kind)) return undefined;
		const is = this.figure(r, c);
		if (!is || momentOf(is.measure)) return undefined;
		const addends = this.held(rowsAbout(this.work, r), c);
		const covers = addends.filter(({ figure }) => figure).map((one) => one.r);
		if (!covers.length) return undefined;
		if (isShare(is.measure) || addends.some(({ figure }) => figure && isShare(figure.measure)))
			return this.shares(r, c, slot, is, addends, covers);
		try {
			const { figure, text, without } = summarised('sum', addends, this.mark);
			if (!figure) return undefined;
			const sum = this.against(r, c, slot, is, { figure, text, without, covers });
			const among = sum.isRight ? undefined : this.amongTotals(r, c, slot, is);
			return among === 'no sum' ? undefined : (among ?? sum);
		} catch (error) {
			if (!(error instanceof NoAnswer)) throw error;
			const none = { should: undefined, isRight: undefined, text: '', off: '', without: [] };
			return { r, c, covers, ...none, problem: error.message };
		}
	}

	/** A figure inside the range of what it would sum up is a mean or a rate, where others of its row are sums. */
	isWithin({ r, c, covers }: TypedSum): boolean {
		const is = this.figure(r, c)!;
		const amounts = covers.map((y) => amountIn(this.figure(y, c)!, is.measure));
		const given = amounts.filter((one) => one !== undefined);
		return (
			given.length > 1 &&
			given.some((one) => one.compare(is.amount) <= 0) &&
			given.some((one) => one.compare(is.amount) >= 0)
		);
	}

	/** Compared after the rounding of its own decimals, or exactly; in another measure it cannot be right. */
	private against(
		r: number,
		c: number,
		slot: WorkCell,
		is: Figure,
		{
			figure,
			text,
			without,
			covers,
			isExact
		}: { figure: Figure; text: string; without: readonly number[]; covers: readonly number[]; isExact?: boolean }
	): TypedSum {
		const typed = amountIn(is, figure.measure);
		const decimals = decimalsIn(slot.text, this.mark);
		const isRight = isExact
			? !!typed?.equals(figure.amount)
			: !!typed && rounded(figure, decimals).amount.equals(typed);
		const samples = covers.map((y) => (this.work.rows[y]!.cells[c] as WorkCell).text);
		const most = Math.max(decimals, ...samples.map((one) => decimalsIn(one, this.mark)));
		const off = typed && !isRight ? { amount: typed.minus(figure.amount), measure: figure.measure } : undefined;
		return {
			r,
			c,
			covers,
			without,
			should: figure,
			problem: undefined,
			isRight,
			text,
			off: off ? writtenFigure(off, { mark: this.mark, decimals: most, samples }) : ''
		};
	}

	/** Shares that should make 100 %: off by up to half of the last digit for each row is right. */
	private shares(
		r: number,
		c: number,
		slot: WorkCell,
		is: Figure,
		addends: readonly Held[],
		covers: readonly number[]
	): TypedSum | undefined {
		const all = addends.filter(({ figure }) => figure);
		if (!isShare(is.measure) || !is.amount.equals(Rational.ONE)) return undefined;
		if (!all.every(({ figure }) => isShare(figure!.measure))) return undefined;
		const { figure, text, without } = summarised('sum', addends, this.mark);
		const places = Math.max(...all.map(({ cell }) => decimalsIn(cell.text, this.mark)));
		const tolerance = ONE_HUNDREDTH.times(Rational.of(all.length, 2n * 10n ** BigInt(places)));
		const isOff = figure!.amount.minus(Rational.ONE).abs().compare(tolerance) > 0;
		if (isOff) return this.against(r, c, slot, is, { figure: figure!, text, without, covers, isExact: true });
		return { r, c, covers, without, should: is, problem: undefined, isRight: true, text: slot.text, off: '' };
	}

	/** A total under others that is one of them with the rows between added or taken away: net, tax, gross. */
	private amongTotals(r: number, c: number, slot: WorkCell, is: Figure): TypedSum | 'no sum' | undefined {
		const { rows } = this.work;
		if (behaviour(rows[r]!.role).sums !== 'all') return undefined;
		let [from, to] = [r, r];
		const isTotal = (y: number) => !!rows[y] && behaviour(rows[y].role).sums === 'all';
		while (isTotal(from - 1)) from--;
		while (isTotal(to + 1)) to++;
		const others = Array.from({ length: to - from + 1 }, (_, i) => from + i).filter(
			(y) => y !== r && this.figure(y, c)
		);
		for (const first of others) {
			const between = others.filter((y) => y > Math.min(first, r) && y < Math.max(first, r));
			for (const rest of [between, others.filter((y) => y !== first && y !== r)])
				for (const sign of [1, -1] as const) {
					if (!rest.length) continue;
					const covers = [first, ...rest].sort((a, b) => a - b);
					const amount = rest.reduce<Rational | undefined>(
						(sum, y) => {
							const own = amountIn(this.figure(y, c)!, is.measure);
							return sum && own && (sign > 0 ? sum.plus(own) : sum.minus(own));
						},
						amountIn(this.figure(first, c)!, is.measure)
					);
					if (!amount?.equals(is.amount)) continue;
					return { r, c, covers, without: [], should: is, problem: undefined, isRight: true, text: slot.text, off: '' };
				}
		}
		// Between a total and another it is what leads from one to the other: a tax, which is no sum.
		return r > from && r < to ? 'no sum' : this.lastOf(r, c, slot, is, from, others);
	}
	/** The last of several totals should be the first with the rows between. */
	private lastOf(
		r: number,
		c: number,
		slot: WorkCell,
		is: Figure,
		from: number,
		others: readonly number[]
	): TypedSum | undefined {
		if (r === from || others.length < 2 || others.some((y) => y > r)) return undefined;
		const { figure, text } = summarised('sum', this.held(others, c), this.mark);
		return figure && this.against(r, c, slot, is, { figure, text, without: [], covers: others });
	}

	/** Columns that are multiplied with each other into a third, row by row, as their figures say. */
	private factorsByFigures(): number[] {
		const { columns, rows } = this.work;
		const body = rows.flatMap(({ role }, r) => (role === 'body' ? [r] : [])).slice(0, 40);
		const able = columns.flatMap(({ kind }, c) => (SUMMED.has(kind) ? [c] : []));
		if (able.length < 3 || able.length > MOST_FACTORS || !body.some((r) => r >= 0)) return [];
		const at = new Map(able.map((c) => [c, body.map((r) => this.figure(r, c))]));
		return able.flatMap((c) =>
			able.flatMap((a, i) =>
				able.slice(i + 1).flatMap((b) => {
					if (a === c || b === c) return [];
					let rowsSeen = 0;
					let isTrivial = true;
					for (const [k, r] of body.entries()) {
						const [x, y, z] = [at.get(a)![k], at.get(b)![k], at.get(c)![k]];
						if (!x || !y || !z) continue;
						const text = (rows[r]!.cells[c] as WorkCell).text;
						const product = { amount: x.amount.times(y.amount), measure: z.measure };
						if (!rounded(product, decimalsIn(text, this.mark)).amount.equals(z.amount)) return [];
						rowsSeen++;
						isTrivial &&= [x, y, z].some(({ amount }) => amount.isZero || amount.abs().equals(Rational.ONE));
					}
					return rowsSeen >= 2 && !isTrivial ? [a, b] : [];
				})
			)
		);
	}
}

/** Columns that a formula of the table multiplies or divides. */
function factorsByFormula(work: WorkTable): number[] {
	const formulas = [
		...work.columns.map(({ formula }) => formula),
		...work.rows.flatMap(({ cells }) => cells.map((slot) => (isCovered(slot) ? undefined : slot.formula)))
	].filter((one) => one !== undefined);
	if (!formulas.length) return [];
	return columnNames(work).flatMap((name, c) => (formulas.some((one) => isFactor(one, name)) ? [c] : []));
}

/** A typed sum that is off. */
export interface WrongSum {
	readonly r: number;
	readonly c: number;
	/** What it should be, written as the column's figures are. */
	readonly should: string;
	/** By how much it is off; empty where it is in another measure. */
	readonly off: string;
}
/** Typed sums that do not add up. */
export const wrongSums = (work: WorkTable): WrongSum[] =>
	typedSums(work).flatMap(({ r, c, isRight, text, off }) => (isRight === false ? [{ r, c, should: text, off }] : []));
