import type { FlatStyle } from '../style/inherit.ts';
import type { Part } from '../style/parts.ts';
import type { Condition } from '../style/types.ts';
import type { Table } from '../table/grid.ts';
import { roleFamily, type RowRole } from '../table/roles.ts';
import { amountOf, decimalMarkOf, parseValue, type Value } from '../values/parse.ts';
import { Decimal } from 'decimal.js';

type Test = Exclude<Condition, { all: Condition[] } | { any: Condition[] } | { not: Condition }> & {
	column?: string;
	kind?: string;
	is: string;
	value?: unknown;
	rows?: string[];
};

const asArray = (value: unknown): unknown[] => (Array.isArray(value) ? value : [value]);

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
		this.decimal = decimalMarkOf(table.cells.map(({ text }) => text));
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

	private equal(index: number, operand: unknown): boolean {
		const order = compareLike(this.value(index), this.operand(operand));
		return order === undefined ? this.table.cells[index]!.text.trim() === String(operand).trim() : order === 0;
	}

	private holds(index: number, test: Test): boolean {
		const text = this.table.cells[index]!.text.trim();
		const value = this.value(index);
		const order = (operand: unknown) => compareLike(value, this.operand(operand));
		const is = (decide: (order: number) => boolean, operand: unknown = test.value) => {
			const result = order(operand);
			return result !== undefined && decide(result);
		};
		switch (test.is) {
			case '<':
				return is((o) => o < 0);
			case '<=':
				return is((o) => o <= 0);
			case '>=':
				return is((o) => o >= 0);
			case '>':
				return is((o) => o > 0);
			case '=':
				return this.equal(index, test.value);
			case '!=':
				return !this.equal(index, test.value);
			case 'between': {
				const [low, high] = asArray(test.value);
				return is((o) => o >= 0, low) && is((o) => o <= 0, high);
			}
			case 'oneOf':
				return asArray(test.value).some((operand) => this.equal(index, operand));
			case 'contains':
				return text.includes(String(test.value));
			case 'startsWith':
				return text.startsWith(String(test.value));
			case 'endsWith':
				return text.endsWith(String(test.value));
			case 'matches':
				try {
					return new RegExp(String(test.value), 'u').test(text);
				} catch {
					return false;
				}
			case 'empty':
				return value.type === 'empty';
			case 'notNumber':
				return value.type !== 'empty' && !amountOf(value);
			case 'repeated':
				return text !== '' && this.column(index, test).texts.get(text)! > 1;
			case 'least':
			case 'greatest': {
				const amount = amountOf(value);
				if (!amount) return false;
				const { ascending } = this.column(index, test);
				const at = Math.min(Number(test.value ?? 1), ascending.length);
				const limit = ascending[test.is === 'least' ? at - 1 : ascending.length - at];
				return !!limit && (test.is === 'least' ? amount.lte(limit) : amount.gte(limit));
			}
			case 'aboveMean':
			case 'belowMean': {
				const amount = amountOf(value);
				const { mean } = this.column(index, test);
				if (!amount || !mean) return false;
				return test.is === 'aboveMean' ? amount.gt(mean) : amount.lt(mean);
			}
			case 'changes': {
				const above = this.column(index, test).above.get(index);
				return above !== undefined && this.table.cells[above]!.text.trim() !== text;
			}
			default:
				return false;
		}
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
		if ('all' in condition) return condition.all.every((part) => this.met(index, part));
		if ('any' in condition && Array.isArray(condition.any)) return condition.any.some((part) => this.met(index, part));
		if ('not' in condition) return !this.met(index, condition.not);
		const test = condition as Test;
		return this.concerns(index, test) && this.holds(index, test);
	}
}

/** Which rows meet a condition: each of its tests by any cell of the row that the test speaks of. */
export function rowsMeeting(table: Table, condition: Condition): boolean[] {
	const evaluator = new Evaluator(table);
	const meets = (cells: readonly number[], part: Condition): boolean => {
		if ('all' in part) return part.all.every((one) => meets(cells, one));
		if ('any' in part && Array.isArray(part.any)) return part.any.some((one) => meets(cells, one));
		if ('not' in part) return !meets(cells, part.not);
		return cells.some((index) => evaluator.met(index, part));
	};
	const cellsOf: number[][] = Array.from({ length: table.rows }, () => []);
	table.cells.forEach(({ r }, index) => cellsOf[r]!.push(index));
	return cellsOf.map((cells) => meets(cells, condition));
}

/** The row roles that a condition speaks of anywhere in it; `body` where it says nothing. */
function rowsOf(condition: Condition): string[] {
	if ('all' in condition) return condition.all.flatMap(rowsOf);
	if ('any' in condition && Array.isArray(condition.any)) return condition.any.flatMap(rowsOf);
	if ('not' in condition) return rowsOf(condition.not);
	return (condition as Test).rows ?? ['body'];
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
