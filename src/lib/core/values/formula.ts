import { InputError } from '../errors.ts';
import { minus, over, plus, readFigure, times, type Figure } from './figure.ts';
import { NoAnswer } from './no-answer.ts';
import { amountOf, parseValue, type DecimalMark } from './parse.ts';

export const OPERATORS = ['+', '−', '×', '÷'] as const;
export type Operator = (typeof OPERATORS)[number];
/** A number as typed, a column of the table by its name, or a formula of its own in brackets. */
export type Operand = { readonly number: string } | { readonly column: string } | { readonly group: Formula };
/** Operands with operators between them; × and ÷ go before + and −. */
export type Formula = readonly (Operand | Operator)[];

const closed = (name: string, value: object) => ({
	type: 'object',
	additionalProperties: false,
	properties: { [name]: value },
	required: [name]
});
const text = { type: 'string', minLength: 1, maxLength: 200 };
/** Brackets go so deep at most. */
const DEPTH = 8;
const termsOf = (depth: number): object => ({
	type: 'array',
	minItems: 1,
	maxItems: 99,
	items: {
		oneOf: [
			{ enum: OPERATORS },
			closed('number', text),
			closed('column', text),
			...(depth > 1 ? [closed('group', termsOf(depth - 1))] : [])
		]
	}
});

/** JSON Schema (2020-12) of a formula. */
export const FORMULA_SCHEMA = termsOf(DEPTH);

const STRONG: Readonly<Record<Operator, boolean>> = { '×': true, '÷': true, '+': false, '−': false };
const DO: Readonly<Record<Operator, (a: Figure, b: Figure) => Figure>> = {
	'+': plus,
	'−': minus,
	'×': times,
	'÷': over
};

const isOperand = (term: Operand | Operator | undefined): term is Operand => typeof term === 'object';

/** The first fault of a formula: operands and operators take turns, and columns are there. Undefined where there is none. */
export function formulaFault(formula: Formula, columns: readonly string[]): string | undefined {
	for (const [i, term] of formula.entries()) {
		if (isOperand(term) !== (i % 2 === 0)) return 'Operands and operators are to take turns.';
		if (!isOperand(term)) continue;
		if ('group' in term) {
			const fault = term.group.length ? formulaFault(term.group, columns) : 'A pair of brackets is empty.';
			if (fault) return fault;
			continue;
		}
		if ('column' in term && !columns.includes(term.column)) return `There is no column “${term.column}”.`;
		if ('number' in term && !amountOf(parseValue(term.number))) return `“${term.number}” is not a number.`;
	}
	return formula.length % 2 ? undefined : 'The last operator has nothing after it.';
}

/**
 * A formula's exact answer with its measure; `figureIn` gives a column's figure in the row, and undefined for one that is
 * empty, which makes the answer empty, too. Literals are read with the table's mark. Throws NoAnswer saying why there is none.
 */
export function compute(
	formula: Formula,
	figureIn: (column: string) => Figure | undefined,
	mark: DecimalMark
): Figure | undefined {
	const valueOf = (term: Operand | Operator | undefined): Figure | undefined => {
		if (!isOperand(term)) throw new NoAnswer('a number or a column is missing');
		if ('group' in term) return compute(term.group, figureIn, mark);
		if ('column' in term) return figureIn(term.column);
		const literal = readFigure(term.number, mark);
		if (!literal) throw new NoAnswer(`“${term.number}” is no number`);
		return literal;
	};
	/** Whether some operand is empty: what the others are is looked at all the same. */
	let isEmpty = false;
	const operate = (operator: Operator, a: Figure | undefined, b: Figure | undefined): Figure | undefined => {
		if (a && b) return DO[operator](a, b);
		isEmpty = true;
		return undefined;
	};
	let sum: Figure | undefined;
	let pending: Operator | undefined;
	let current = valueOf(formula[0]);
	const close = () => {
		sum = pending ? operate(pending, sum, current) : current;
		isEmpty ||= !current;
	};
	for (let i = 1; i < formula.length; i += 2) {
		const operator = formula[i] as Operator;
		const next = valueOf(formula[i + 1]);
		if (STRONG[operator]) current = operate(operator, current, next);
		else {
			close();
			pending = operator;
			current = next;
		}
	}
	close();
	return isEmpty ? undefined : sum;
}

/** Whether an operator stands anywhere in a formula. */
export const hasOperator = (formula: Formula, operator: Operator): boolean =>
	formula.some(
		(term) => term === operator || (isOperand(term) && 'group' in term && hasOperator(term.group, operator))
	);

/** The columns that a formula names. */
export const columnsIn = (formula: Formula): string[] => [
	...new Set(
		formula.flatMap((term) =>
			!isOperand(term) ? [] : 'group' in term ? columnsIn(term.group) : 'column' in term ? [term.column] : []
		)
	)
];

/** A formula in which a column is called otherwise. */
export const withColumnNamed = (formula: Formula, from: string, to: string): Formula =>
	formula.map((term) =>
		!isOperand(term)
			? term
			: 'group' in term
				? { group: withColumnNamed(term.group, from, to) }
				: 'column' in term && term.column === from
					? { column: to }
					: term
	);

const NUMBER = /^[\d.,\u202F\u00A0]*\d$/;
const needsQuotes = (name: string) => NUMBER.test(name) || /[+−×÷*/()“”]|(^|\s)-(\s|$)/.test(name);

/** A formula as a person types it: `Price × (Count + 2)`; names that could be misread stand in quotes. */
export const formulaText = (formula: Formula): string =>
	formula
		.map((term) =>
			!isOperand(term)
				? term
				: 'group' in term
					? `(${formulaText(term.group)})`
					: 'number' in term
						? term.number
						: needsQuotes(term.column)
							? `“${term.column}”`
							: term.column
		)
		.join(' ');

const TYPED_OPERATORS: Readonly<Record<string, Operator>> = {
	'+': '+',
	'−': '−',
	'-': '−',
	'×': '×',
	'*': '×',
	'÷': '÷',
	'/': '÷'
};

/**
 * Reads a typed formula. Operators are + − × ÷ (also * and /; a hyphen where spaces stand around it or no name goes on).
 * Throws InputError saying what cannot be read; whether the columns are there is for {@link formulaFault}.
 */
export function parseFormula(text: string): Formula {
	let at = 0;
	const fail = (message: string): never => {
		throw new InputError('formula', message);
	};
	const read = (depth: number): Formula => {
		const isInside = depth > 1;
		const terms: (Operand | Operator)[] = [];
		let name = '';
		const close = () => {
			const word = name.trim();
			name = '';
			if (word) terms.push(NUMBER.test(word) ? { number: word } : { column: word });
		};
		for (; at < text.length; at++) {
			const letter = text[at]!;
			if (letter === '“' || letter === '"') {
				const end = text.slice(at + 1).search(/[”"]/);
				if (end < 0) fail('A quotation mark is not closed.');
				close();
				terms.push({ column: text.slice(at + 1, at + 1 + end).trim() });
				at += end + 1;
			} else if (letter === '(' && !name.trim()) {
				at++;
				if (depth === DEPTH) fail(`Brackets go ${DEPTH} deep at most.`);
				terms.push({ group: read(depth + 1) });
			} else if (letter === ')' && isInside && !/\([^)]*$/.test(name)) {
				close();
				return terms;
			} else {
				const operator = TYPED_OPERATORS[letter];
				const isHyphenInName = letter === '-' && /\S$/.test(name) && /^\S/.test(text.slice(at + 1));
				if (!operator || isHyphenInName) name += letter;
				else {
					close();
					terms.push(operator);
				}
			}
		}
		if (isInside) fail('A bracket is not closed.');
		close();
		return terms;
	};
	const formula = read(1);
	if (formula.length === 0) fail('A formula names columns and numbers, such as “Price × Count”.');
	return formula;
}
