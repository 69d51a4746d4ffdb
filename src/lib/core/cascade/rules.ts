import type { FlatStyle } from '../style/inherit.ts';
import type { Part } from '../style/parts.ts';
import { comparison, type Compared } from '../style/comparisons.ts';
import { combinationOf, membersOf, type Combination } from '../style/conditions.ts';
import type { Condition, Test } from '../style/types.ts';
import type { Table } from '../table/grid.ts';
import { roleFamily, type RowRole } from '../roles/index.ts';
import { amountOf, markOfTable, parseValue, type Value } from '../values/parse.ts';
import { Decimal } from 'decimal.js';

/** −1, 0, 1 between like values; undefined between unlike ones (engine §11, *Cell rules*). */
function compareLike(a: Value, b: Value): number | undefined {
	if (a.type === 'date' && b.type === 'date') return a.iso < b.iso ? -1 : a.iso > b.iso ? 1 : 0;
	if (a.type === 'money' || b.type === 'money') {
		const [money, other] = a.type === 'money' ? [a, b] : [b as Extract<Value, { type: 'money' }>, a];
		if (other.type !== 'money' && other.type !== 'number') return undefined;
		if (other.type === 'money' && money.currency && other.currency && money.currency !== other.currency)
			return undefined;
		if (other.type === 'number' && other.unit) return undefined;
	} else if (
		a.type !== b.type &&
		!(a.type === 'percent' && b.type === 'number') &&
		!(a.type === 'number' && b.type === 'percent')
	)
		return undefined;
	const left = amountOf(a);
	const right = amountOf(b);
	return left && right ? left.comparedTo(right) : undefined;
}

function matchesRole(role: RowRole, wanted: readonly string[]): boolean {
	return wanted.includes(role) || wanted.includes(roleFamily(role));
}

interface ColumnFacts {
	/** How often each text stands in it. */
	readonly texts: ReadonlyMap<string, number>;
	/** The cell above each one but the first. */
	readonly above: ReadonlyMap<number, number>;
	readonly ascending: readonly Decimal[];
	readonly mean: Decimal | undefined;
}

/** Evaluates conditions on one table; values are read once. */
class Evaluator {
	private readonly values = new Map<number, Value>();
	private readonly decimal;
	constructor(private readonly table: Table) {
		this.decimal = markOfTable(table);
	}

	private value(index: number): Value {
		let value = this.values.get(index);
		if (!value) this.values.set(index, (value = parseValue(this.table.cells[index]!.text, this.decimal)));
		return value;
	}

	private operand(value: unknown): Value {
		return typeof value === 'number'
			? { type: 'number', amount: new Decimal(value) }
			: parseValue(String(value ?? ''), this.decimal);
	}

	private readonly columns = new Map<string, ColumnFacts>();

	/** What is known of the cells of one column that stand in rows the condition speaks of; worked out once. */
	private column(index: number, test: Test): ColumnFacts {
		const { c } = this.table.cells[index]!;
		const rows = test.rows ?? ['body'];
		const key = `${c} ${rows.join()}`;
		let facts = this.columns.get(key);
		if (!facts) {
			const peers: number[] = [];
			this.table.cells.forEach((cell, i) => {
				if (cell.c === c && matchesRole(this.table.roles[cell.r]!, rows)) peers.push(i);
			});
			const texts = new Map<string, number>();
			const above = new Map<number, number>();
			peers.forEach((peer, i) => {
				const text = this.table.cells[peer]!.text.trim();
				texts.set(text, (texts.get(text) ?? 0) + 1);
				if (i > 0) above.set(peer, peers[i - 1]!);
			});
			const ascending = peers.flatMap((peer) => amountOf(this.value(peer)) ?? []).sort((a, b) => a.comparedTo(b));
			facts = {
				texts,
				above,
				ascending,
				mean: ascending.length ? Decimal.sum(...ascending).div(ascending.length) : undefined
			};
			this.columns.set(key, facts);
		}
		return facts;
	}

	/** A cell as a comparison asks of it. */
	private compared(index: number, test: Test): Compared<Decimal> {
		const text = this.table.cells[index]!.text.trim();
		const value = this.value(index);
		const figure = amountOf(value);
		const order = (operand: unknown) => compareLike(value, this.operand(operand));
		const column = () => this.column(index, test);
		const { cells } = this.table;
		return {
			text,
			isEmpty: value.type === 'empty',
			figure,
			order,
			equals(operand) {
				const found = order(operand);
				return found === undefined ? text === String(operand).trim() : found === 0;
			},
			rank() {
				if (!figure) return undefined;
				const { ascending } = column();
				return {
					least: ascending.findIndex((one) => one.gte(figure)) + 1,
					greatest: ascending.length - ascending.findLastIndex((one) => one.lte(figure))
				};
			},
			againstMean() {
				const { mean } = column();
				return figure && mean && figure.comparedTo(mean);
			},
			repeats: () => column().texts.get(text) ?? 0,
			above() {
				const above = column().above.get(index);
				return above === undefined ? undefined : cells[above]!.text.trim();
			}
		};
	}

	/** Whether the condition speaks of this cell at all: its column, kind and row. */
	private concerns(index: number, test: Test): boolean {
		const { r, c } = this.table.cells[index]!;
		const info = this.table.columnInfo[c]!;
		if (test.column !== undefined && info.name !== test.column) return false;
		if (test.kind !== undefined && info.kind !== test.kind) return false;
		return matchesRole(this.table.roles[r]!, test.rows ?? ['body']);
	}

	met(index: number, condition: Condition): boolean {
		const how = combinationOf(condition);
		if (how) return combined(how, membersOf(condition), (member) => this.met(index, member));
		const test = condition as Test;
		return this.concerns(index, test) && comparison(test.is).holds(this.compared(index, test), test.value);
	}
}

/** Whether a combination holds, by whether its members do. */
function combined(how: Combination, members: readonly Condition[], holds: (member: Condition) => boolean): boolean {
	if (how === 'all') return members.every(holds);
	return how === 'any' ? members.some(holds) : !members.some(holds);
}

/** Which rows meet a condition: each of its tests by any cell of the row that the test speaks of. */
export function rowsMeeting(table: Table, condition: Condition): boolean[] {
	const evaluator = new Evaluator(table);
	const meets = (cells: readonly number[], part: Condition): boolean => {
		const how = combinationOf(part);
		if (how) return combined(how, membersOf(part), (member) => meets(cells, member));
		return cells.some((index) => evaluator.met(index, part));
	};
	const cellsOf: number[][] = Array.from({ length: table.rows }, () => []);
	table.cells.forEach(({ r }, index) => cellsOf[r]!.push(index));
	return cellsOf.map((cells) => meets(cells, condition));
}

/** The row roles that a condition speaks of anywhere in it; `body` where it says nothing. */
function rowsOf(condition: Condition): readonly string[] {
	return combinationOf(condition) ? membersOf(condition).flatMap(rowsOf) : ((condition as Test).rows ?? ['body']);
}

/** Which rules hit which cells (rank VI): cell index → rules as parts, in the order in which they apply. */
export function ruleHits(table: Table, style: FlatStyle): Map<number, Part[]> {
	const hits = new Map<number, Part[]>();
	if (style.rules.length === 0) return hits;
	const evaluator = new Evaluator(table);
	style.rules.forEach((rule, order) => {
		if (rule.off) return;
		const rows = rowsOf(rule.where);
		const inRows = (index: number) => matchesRole(table.roles[table.cells[index]!.r]!, rows);
		const reached = new Set<number>();
		const met = table.cells.flatMap((_, index) => (inRows(index) && evaluator.met(index, rule.where) ? [index] : []));
		const lines = new Set(met.map((index) => (rule.extends === 'row' ? table.cells[index]!.r : table.cells[index]!.c)));
		if (rule.extends === 'row' || rule.extends === 'column')
			table.cells.forEach((cell, index) => {
				if (lines.has(rule.extends === 'row' ? cell.r : cell.c) && inRows(index)) reached.add(index);
			});
		else for (const index of met) reached.add(index);
		const part: Part = { name: `rule:${rule.name}`, rank: 6, order, family: 'rule', number: 0 };
		for (const index of reached) hits.set(index, [...(hits.get(index) ?? []), part]);
	});
	return hits;
}
