import { behaviour, isBody } from '../roles/index.ts';
import { isShare, type Figure } from '../values/figure.ts';
import {
	columnsIn,
	compute,
	formulaFault,
	hasOperator,
	literalFigure,
	reachesOut,
	takesMean,
	type Formula,
	type Reading
} from '../values/formula.ts';
import { NoAnswer } from '../values/no-answer.ts';
import type { DecimalMark } from '../values/parse.ts';
import type { Summary } from '../values/summary.ts';
import { currencyDecimals, decimalsIn, writtenFigure } from '../values/written.ts';
import type { DateOrder } from '../values/dates.ts';
import { dateOrder, markOf } from './marks.ts';
import { columnNames } from './names.ts';
import {
	anchorOf,
	asTyped,
	isCovered,
	withText,
	type Slot,
	type WorkCell,
	type WorkColumn,
	type WorkRow,
	type WorkTable
} from './table.ts';
import {
	type Answer,
	type Held,
	MORE_DECIMALS,
	NOTHING,
	figureIn,
	holdsWords,
	isWordy,
	summarised,
	typedFigures,
	withoutWords
} from './figures.ts';
import { rowsAbout } from './reach.ts';

/** Why a cell that is worked out has no figure, or only a part of one. */
export interface Problem {
	readonly r: number;
	readonly c: number;
	readonly why: string;
	/** It has a figure, which leaves some rows out or is too small to be seen. */
	readonly isPartial?: true;
}

/** A cell that is worked out, with its figure in full; `text` is what it shows. */
export interface Worked extends Answer {
	readonly r: number;
	readonly c: number;
	readonly problem: string | undefined;
}

export interface WorkedOut {
	readonly work: WorkTable;
	readonly worked: readonly Worked[];
	readonly problems: readonly Problem[];
}

/** The figures of all cells by slot: in full where they are worked out, else as they are typed. */
export function allFigures(given: WorkTable): (r: number, c: number) => Figure | undefined {
	const { work, worked } = workedOut(given);
	const full = new Map(worked.map(({ r, c, figure }) => [`${r} ${c}`, figure]));
	const typed = typedFigures(work);
	return (r, c) => {
		const slot = work.rows[r]!.cells[c]!;
		if (isCovered(slot)) return undefined;
		const key = `${r} ${c}`;
		return full.has(key) ? full.get(key) : typed(c, slot);
	};
}

/** Whether a cell is worked out, by a formula, its row or its column. */
export const isWorkedOut = (work: WorkTable, r: number, c: number): boolean => !!sourceOf(work, r, c);

/** What works a cell out: a formula of its own or of its column, its row, or its column. */
type Source = { readonly formula: Formula } | { readonly across: Summary } | { readonly total: Summary };

function sourceOf({ rows, columns }: WorkTable, r: number, c: number): Source | undefined {
	const { role, cells } = rows[r]!;
	const slot = cells[c]!;
	if (isCovered(slot)) return undefined;
	if (slot.formula) return { formula: slot.formula };
	const { formula, across } = columns[c]!;
	if (role === 'body') return formula ? { formula } : across && { across };
	return slot.total && { total: slot.total };
}

/** The decimals of an answer: its currency's, or the most of its operands; a quotient of whole numbers has two. */
function decimalsOf({ amount, measure }: Figure, formula: Formula, used: readonly string[], mark: DecimalMark): number {
	const own = currencyDecimals(measure);
	if (own !== undefined) return own;
	const [only] = formula;
	if (formula.length === 1 && typeof only === 'object' && 'round' in only) return only.to;
	const places = (text: string) =>
		decimalsIn(text, mark) + (isShare(measure) ? 0 : /%/.test(text) ? 2 : /‰/.test(text) ? 3 : 0);
	const most = Math.max(0, ...used.map(places));
	if (takesMean(formula)) return Math.max(2, most);
	if (!hasOperator(formula, '×', '÷')) return Math.max(most, Math.min(amount.decimals ?? 0, most + MORE_DECIMALS));
	return most || (hasOperator(formula, '÷') && amount.decimals !== 0 ? 2 : 0);
}

const CIRCLE = 'it goes round in a circle';
/** A cell rests on so many others one after the other at most, columns in their order left out. */
const MOST_DEEP = 300;

/** Columns, each after those that its formula names, as far as there is such an order: so that none waits for a long row of others. */
function columnsInOrder({ columns }: WorkTable, names: readonly string[]): number[] {
	const order: number[] = [];
	const seen = new Set<number>();
	const visit = (c: number) => {
		if (seen.has(c)) return;
		seen.add(c);
		const { formula } = columns[c]!;
		for (const name of formula ? columnsIn(formula) : []) {
			const on = names.indexOf(name);
			if (on >= 0) visit(on);
		}
		order.push(c);
	};
	columns.forEach((_, c) => visit(c));
	return order;
}

/** What a row came to, with what worked its cells out. */
interface KnownRow {
	readonly row: WorkRow;
	readonly worked: readonly Worked[];
}

const rowsKnown = new WeakMap<readonly WorkColumn[], { key: string; rows: WeakMap<WorkRow, KnownRow> }>();

/** Rows that were worked out before, of a table whose formulas stay in their rows; undefined for another. */
function rowsWorkedOut(
	{ columns, mark, firstColumns }: WorkTable,
	names: readonly string[],
	grouped: readonly string[],
	order: DateOrder
): WeakMap<WorkRow, KnownRow> | undefined {
	if (columns.some(({ formula }) => formula && reachesOut(formula))) return undefined;
	const key = JSON.stringify([mark, order, firstColumns, names, grouped]);
	let known = rowsKnown.get(columns);
	if (known?.key !== key) rowsKnown.set(columns, (known = { key, rows: new WeakMap() }));
	return known.rows;
}

/** Whether a body row's cells come from no other row. */
const isOnItsOwn = ({ role, cells }: WorkRow): boolean =>
	role === 'body' && cells.every((slot) => !isCovered(slot) && !slot.formula && (slot.rows ?? 1) === 1);

/** One working out of a table: cells are worked out when they are asked for, each once. */
class Working {
	readonly worked: Worked[] = [];
	readonly names: readonly string[];
	private readonly grouped: readonly string[];
	readonly order: DateOrder;
	private readonly typedFigure: (c: number, cell: WorkCell) => Figure | undefined;
	private readonly body: readonly number[];
	readonly totalRows: readonly number[];
	/** Slots of rows that show something else now. */
	private readonly fresh = new Map<number, Slot[]>();
	/** By slot, row by row: what is worked out, or that it is on its way. */
	private readonly done = new Map<number, Worked | 'on its way'>();
	/** Columns on their way, by which a circle is told. */
	private readonly path: number[] = [];

	constructor(readonly work: WorkTable) {
		this.names = columnNames(work);
		this.grouped = groupedFigure(work);
		this.order = dateOrder(work);
		this.typedFigure = typedFigures(work);
		this.body = work.rows.flatMap(({ role }, r) => (isBody(role) ? [r] : []));
		this.totalRows = work.rows.flatMap(({ role }, r) => (behaviour(role).sums === 'all' ? [r] : []));
	}

	run(): WorkRow[] {
		const { rows } = this.work;
		const order = columnsInOrder(this.work, this.names);
		const before = rowsWorkedOut(this.work, this.names, this.grouped, this.order);
		const taken = rows.map((row, r) => this.take(before?.get(row), r));
		rows.forEach((_, r) => taken[r] ?? order.forEach((c) => void this.at(r, c)));
		this.worked.sort((a, b) => a.r - b.r || a.c - b.c);
		const next = rows.map((row, r) => {
			const cells = this.fresh.get(r);
			return taken[r] ?? (cells ? { ...row, cells } : row);
		});
		if (before) {
			const worked = new Map<number, Worked[]>();
			for (const one of this.worked) worked.set(one.r, [...(worked.get(one.r) ?? []), one]);
			next.forEach((row, r) => {
				if (taken[r] || !isOnItsOwn(row)) return;
				const known = { row, worked: worked.get(r) ?? [] };
				before.set(rows[r]!, known);
				before.set(row, known);
			});
		}
		return next;
	}
	/** Takes up what a row came to before. */
	private take(known: KnownRow | undefined, r: number): WorkRow | undefined {
		if (!known) return undefined;
		for (const one of known.worked) {
			const worked = one.r === r ? one : { ...one, r };
			this.done.set(r * this.work.columns.length + one.c, worked);
			this.worked.push(worked);
		}
		this.fresh.set(r, known.row.cells as Slot[]);
		return known.row;
	}
	private slot(r: number, c: number): Slot {
		return this.fresh.get(r)?.[c] ?? this.work.rows[r]!.cells[c]!;
	}
	private at(r: number, c: number): Worked | undefined {
		const source = sourceOf(this.work, r, c);
		if (!source) return undefined;
		const key = r * this.work.columns.length + c;
		const known = this.done.get(key);
		if (known === 'on its way') {
			const round = this.path.slice(this.path.indexOf(c));
			// Told from its first column on, wherever it was come upon.
			const first = round.indexOf(Math.min(...round));
			const told = [...round.slice(first), ...round.slice(0, first), round[first]!];
			const circle = told.map((one) => `“${this.names[one]}”`).join(' → ');
			throw new NoAnswer(`${CIRCLE}: ${circle}`);
		}
		if (known) return known;
		if (this.path.length >= MOST_DEEP)
			throw new NoAnswer(`it rests on more than ${MOST_DEEP} cells, one after the other`);
		this.done.set(key, 'on its way');
		this.path.push(c);
		let answer = NOTHING;
		let problem: string | undefined;
		try {
			answer = 'total' in source ? this.ofColumn(source.total, r, c) : this.inRow(source, r, c);
		} catch (error) {
			if (!(error instanceof NoAnswer)) throw error;
			problem = error.message;
		}
		this.path.pop();
		const worked: Worked = { r, c, ...answer, problem };
		this.done.set(key, worked);
		this.worked.push(worked);
		this.put(r, c, answer.text);
		return worked;
	}
	private put(r: number, c: number, text: string): void {
		const slot = this.slot(r, c) as WorkCell;
		if (slot.text === text) return;
		let cells = this.fresh.get(r);
		if (!cells) this.fresh.set(r, (cells = [...this.work.rows[r]!.cells]));
		const { total, formula } = slot;
		cells[c] = { ...withText(asTyped(slot), text), ...(total && { total }), ...(formula && { formula }) };
	}

	/** A cell as a sum sees it. */
	private held(r: number, c: number): Held {
		const worked = this.at(r, c);
		const cell = this.slot(r, c) as WorkCell;
		if (!worked) return { cell, figure: this.typedFigure(c, cell), r };
		return { cell, figure: worked.figure, r, isMissing: worked.problem !== undefined };
	}
	/** A cell as a formula sees it, which names it so; one that spans rows counts in each of them. */
	operand(r: number, c: number, name: string, used: string[]): Figure | undefined {
		const at = isCovered(this.slot(r, c)) ? anchorOf(this.work, r, c) : { r, c };
		const { cell, figure } = this.held(at.r, at.c);
		const { problem } = this.at(at.r, at.c) ?? {};
		if (problem?.startsWith(CIRCLE)) throw new NoAnswer(problem);
		if (!figure && (problem !== undefined || holdsWords(cell, this.work.mark)))
			throw new NoAnswer(`${name} has no number`);
		if (cell.text.trim()) used.push(cell.text);
		return figure;
	}
	private readonly ofBodies = new Map<string, Answer>();
	/** What all body rows of a column come to. */
	ofBody(how: Summary, c: number): Answer {
		const key = `${how} ${c}`;
		let answer = this.ofBodies.get(key);
		if (!answer) this.ofBodies.set(key, (answer = this.summary(how, c, this.body)));
		return answer;
	}
	private ofColumn(how: Summary, r: number, c: number): Answer {
		return this.summary(how, c, rowsAbout(this.work, r));
	}
	/** What some rows of a column come to. Those without a figure of their own for a reason are left out. */
	summary(how: Summary, c: number, rows: readonly number[]): Answer {
		if (this.work.columns[c]!.kind === 'date' && (how === 'sum' || how === 'mean') && !this.source(c))
			if (rows.some((r) => this.figureOrNone(r, c)?.measure.kind === 'plain'))
				throw new NoAnswer('years cannot be added');
		const held = rows.flatMap((r) => (isCovered(this.slot(r, c)) ? [] : [this.held(r, c)]));
		const isOfWords = isWordy(this.work, c) && !this.source(c);
		return summarised(how, held, this.work.mark, { grouped: this.grouped, isOfWords });
	}
	private source(c: number): boolean {
		return !!(this.work.columns[c]!.formula ?? this.work.columns[c]!.across);
	}
	figureOrNone(r: number, c: number): Figure | undefined {
		const slot = this.slot(r, c);
		return isCovered(slot) ? undefined : this.typedFigure(c, slot);
	}

	private inRow(source: { readonly formula: Formula } | { readonly across: Summary }, r: number, c: number): Answer {
		const { mark } = this.work;
		if ('across' in source) {
			const others = this.work.columns.flatMap((_, i) =>
				i === c || i < this.work.firstColumns || isCovered(this.slot(r, i)) ? [] : [this.held(r, i)]
			);
			return summarised(source.across, others, mark, { grouped: this.grouped });
		}
		const { formula } = source;
		const fault = this.fault(formula);
		if (fault) throw new NoAnswer(fault.replace(/\.$/, ''));
		const reading = new RowReading(this, r, c);
		const figure = compute(formula, reading);
		if (!figure) return NOTHING;
		const { used } = reading;
		const decimals = decimalsOf(figure, formula, used, mark);
		const near = this.work.grouping ? [] : used;
		const beside = this.grouped.length ? [...near, ...this.grouped] : used;
		return {
			text: writtenFigure(figure, { mark, decimals, samples: used, beside, order: this.order }),
			figure,
			without: []
		};
	}
	private readonly faults = new Map<Formula, string | undefined>();
	private fault(formula: Formula): string | undefined {
		if (!this.faults.has(formula)) this.faults.set(formula, formulaFault(formula, this.names));
		return this.faults.get(formula);
	}
}

/** What a formula in one cell reads. */
class RowReading implements Reading {
	/** The texts of what was read. */
	readonly used: string[] = [];
	constructor(
		private readonly working: Working,
		private readonly r: number,
		private readonly c: number
	) {}

	column(name: string): Figure | undefined {
		return this.working.operand(this.r, this.working.names.indexOf(name), `“${name}”`, this.used);
	}
	literal(text: string): Figure {
		this.used.push(text);
		return literalFigure(text, this.working.work.mark, this.working.order);
	}
	summary(how: Summary, name: string): Figure | undefined {
		const { text, figure } = this.working.ofBody(how, this.working.names.indexOf(name));
		if (text && how !== 'count') this.used.push(text);
		return figure;
	}
	/** A column's total: the cell in the row that has it, else what its body rows come to. */
	total(name: string): Figure | undefined {
		const { work, names } = this.working;
		const c = names.indexOf(name);
		const r = this.working.totalRows.find(
			(y) => !isCovered(work.rows[y]!.cells[c]!) && (sourceOf(work, y, c) ?? this.working.figureOrNone(y, c))
		);
		return r !== undefined
			? this.working.operand(r, c, `the total of “${name}”`, this.used)
			: this.summary('sum', name);
	}
	above(): Figure | undefined {
		const isFirst = this.r === 0 || behaviour(this.working.work.rows[this.r - 1]!.role).isHeader;
		return isFirst ? undefined : this.working.operand(this.r - 1, this.c, 'the cell above', this.used);
	}
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
	const hasWork =
		work.columns.some(({ formula, across }) => formula || across) ||
		work.rows.some(({ cells }) => cells.some((slot) => !isCovered(slot) && (slot.total || slot.formula)));
	if (!hasWork) return { work, worked: [], problems: [] };
	const working = new Working(work);
	const rows = working.run();
	const { worked } = working;
	const isSame = rows.every((row, r) => row === work.rows[r]);
	return { work: isSame ? work : { ...work, rows }, worked, problems: worked.flatMap(problemsOf) };
}

function problemsOf(worked: Worked): Problem[] {
	const { r, c, text, figure, without, problem } = worked;
	if (problem !== undefined) return [{ r, c, why: problem }];
	const found: Problem[] = [];
	const isAmount = figure && !['date', 'time'].includes(figure.measure.kind);
	if (isAmount && !figure.amount.isZero && !/[1-9]/.test(text))
		found.push({ r, c, why: 'it is not 0, but too small for the decimals that are shown', isPartial: true });
	if (without.length) found.push({ r, c, why: withoutWords(worked), isPartial: true });
	return found;
}

/** A figure of the table whose thousands are parted, as a sample for those that are worked out; none where none is. */
function groupedFigure({ rows, mark, grouping }: WorkTable): string[] {
	if (grouping) return [`1${grouping}000`];
	for (const { cells } of rows)
		for (const slot of cells) {
			if (isCovered(slot) || slot.text.length > 40) continue;
			const group = /\d(['’., \u00A0\u2009\u202F])\d{3}(?!\d)/.exec(slot.text)?.[1];
			if (group && group !== mark && figureIn(slot, mark)) return [slot.text];
		}
	return [];
}

/** What works a cell out, in words; undefined for one that is typed. */
export function workedOutBy(work: WorkTable, r: number, c: number): string | undefined {
	const source = sourceOf(work, r, c);
	if (!source) return undefined;
	if ('total' in source) return 'from its column';
	if ('across' in source) return 'from its row';
	return source.formula === work.columns[c]!.formula ? 'by its column’s formula' : 'by a formula of its own';
}

/** Columns whose cells depend on a column, straight or through others. */
export function dependents(work: WorkTable, c: number): Set<number> {
	const names = columnNames(work);
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
