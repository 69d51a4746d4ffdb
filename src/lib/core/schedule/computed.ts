import { Decimal } from 'decimal.js';
import { amountOf, parseValue, type DecimalMark } from '../values/parse.ts';
import type { Formula, Operand, Operator } from './definition.ts';

/** Why a formula has no answer in a row. */
export class NoAnswer extends Error {}

/** Exact to this many digits. */
const Exact = Decimal.clone({ precision: 60 });

const STRONG: Readonly<Record<Operator, boolean>> = { '×': true, '÷': true, '+': false, '−': false };
const DO: Readonly<Record<Operator, (a: Decimal, b: Decimal) => Decimal>> = {
	'+': (a, b) => a.plus(b),
	'−': (a, b) => a.minus(b),
	'×': (a, b) => a.times(b),
	'÷': (a, b) => {
		if (b.isZero()) throw new NoAnswer('it divides by nothing');
		return a.div(b);
	}
};

const isOperand = (term: Operand | Operator | undefined): term is Operand => typeof term === 'object';

/** The first fault of a formula: operands and operators take turns, and columns are there. Undefined where there is none. */
export function formulaFault(formula: Formula, columns: readonly string[]): string | undefined {
	for (const [i, term] of formula.entries()) {
		if (isOperand(term) !== (i % 2 === 0)) return 'Operands and operators are to take turns.';
		if (!isOperand(term)) continue;
		if ('column' in term && !columns.includes(term.column)) return `There is no column “${term.column}”.`;
		if ('number' in term && !amountOf(parseValue(term.number))) return `“${term.number}” is not a number.`;
	}
	return formula.length % 2 ? undefined : 'The last operator has nothing after it.';
}

/** A formula's exact answer; `textOf` gives a column's text in the row. Throws NoAnswer saying why there is none. */
export function compute(formula: Formula, textOf: (column: string) => string, mark: DecimalMark): Decimal {
	const amount = (term: Operand | Operator | undefined): Decimal => {
		if (!isOperand(term)) throw new NoAnswer('a number or a column is missing');
		const text = 'number' in term ? term.number : textOf(term.column);
		const value = amountOf(parseValue(text, 'number' in term ? '.' : mark));
		if (!value) throw new NoAnswer('column' in term ? `“${term.column}” has no number` : `“${text}” is no number`);
		return new Exact(value.toFixed());
	};
	const sums: { operator: Operator; value: Decimal }[] = [];
	let current = amount(formula[0]);
	let pending: Operator = '+';
	for (let i = 1; i < formula.length; i += 2) {
		const operator = formula[i] as Operator;
		const next = amount(formula[i + 1]);
		if (STRONG[operator]) current = DO[operator](current, next);
		else {
			sums.push({ operator: pending, value: current });
			pending = operator;
			current = next;
		}
	}
	sums.push({ operator: pending, value: current });
	return sums.reduce((sum, { operator, value }) => DO[operator](sum, value), new Exact(0) as Decimal);
}
