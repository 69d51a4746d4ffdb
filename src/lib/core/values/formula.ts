import { minus, negated, over, plus, readFigure, rounded, times, together, type Figure } from './figure.ts';
import { NoAnswer } from './no-answer.ts';
import type { DateOrder } from './dates.ts';
import type { DecimalMark } from './parse.ts';
import { SUMMARIES, type Summary } from './summary.ts';

export const OPERATORS = ['+', '−', '×', '÷'] as const;
export type Operator = (typeof OPERATORS)[number];

export type Operand =
	/** A figure as typed, its measure with it: `1.5`, `19 %`, `30 d`. */
	| { readonly number: string }
	/** The column of that name, in the same row. */
	| { readonly column: string }
	| { readonly group: Formula }
	| { readonly minus: Operand }
	/** What a whole column comes to, or a list of formulas in the same row. */
	| { readonly summary: Summary; readonly column: string }
	| { readonly summary: Summary; readonly list: readonly Formula[] }
	| { readonly round: Formula; readonly to: number }
	/** The total of the column of that name. */
	| { readonly total: string }
	/** The cell above, in the column whose formula it is. */
	| { readonly above: true };
/** Operands with operators between them; × and ÷ go before + and −. */
export type Formula = readonly (Operand | Operator)[];

const closed = (properties: object) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required: Object.keys(properties)
});
const text = { type: 'string', minLength: 1, maxLength: 200 };
/** Brackets, lists and roundings go so deep at most. */
export const DEPTH = 8;
/** Figures are rounded to so many decimals at most. */
export const MOST_PLACES = 40;
/** Operands by how deep brackets may still go inside them; each level stands once. */
const levels = Array.from({ length: DEPTH }, (_, i) => {
	const inner = { $ref: `#/$defs/formula${i}` };
	const operand = [
		closed({ number: text }),
		closed({ column: text }),
		closed({ summary: { enum: SUMMARIES }, column: text }),
		closed({ total: text }),
		closed({ above: { const: true } }),
		...(i
			? [
					closed({ group: inner }),
					closed({ minus: { $ref: `#/$defs/operand${i}` } }),
					closed({ summary: { enum: SUMMARIES }, list: { type: 'array', minItems: 1, maxItems: 20, items: inner } }),
					closed({ round: inner, to: { type: 'integer', minimum: 0, maximum: MOST_PLACES } })
				]
			: [])
	];
	const items = { oneOf: [{ enum: OPERATORS }, { $ref: `#/$defs/operand${i + 1}` }] };
	return [
		[`operand${i + 1}`, { oneOf: operand }],
		[`formula${i + 1}`, { type: 'array', minItems: 1, maxItems: 99, items }]
	] as const;
});
/** JSON Schema (2020-12) of a formula; to be added to whatever checks something that has formulas. */
export const FORMULA_DOCUMENT = {
	$id: 'heptarch-formula',
	$ref: `#/$defs/formula${DEPTH}`,
	$defs: Object.fromEntries(levels.flat())
};
export const FORMULA_SCHEMA = { $ref: FORMULA_DOCUMENT.$id };

const STRONG: Readonly<Record<Operator, boolean>> = { '×': true, '÷': true, '+': false, '−': false };
const DO: Readonly<Record<Operator, (a: Figure, b: Figure) => Figure>> = {
	'+': plus,
	'−': minus,
	'×': times,
	'÷': over
};

const isOperand = (term: Operand | Operator | undefined): term is Operand => typeof term === 'object';

/** Formulas that stand inside an operand. */
function innerOf(operand: Operand): readonly Formula[] {
	if ('group' in operand) return [operand.group];
	if ('minus' in operand) return [[operand.minus]];
	if ('round' in operand) return [operand.round];
	return 'list' in operand ? operand.list : [];
}
/** The columns that an operand names itself. */
function namedBy(operand: Operand): string | undefined {
	if ('column' in operand) return operand.column;
	return 'total' in operand ? operand.total : undefined;
}
/** All operands of a formula, those inside others among them. */
function* operandsIn(formula: Formula): Generator<Operand> {
	for (const term of formula) {
		if (!isOperand(term)) continue;
		yield term;
		for (const inner of innerOf(term)) yield* operandsIn(inner);
	}
}

/** The figure that a literal says, read with a table's mark. Throws NoAnswer for what is none. */
export function literalFigure(text: string, mark: DecimalMark, order?: DateOrder): Figure {
	const figure = readFigure(text, mark, order);
	if (!figure) throw new NoAnswer(`“${text}” is no number`);
	return figure;
}
/** Whether a text is a literal with one mark or the other. */
const isLiteral = (text: string): boolean => !!readFigure(text, '.') || !!readFigure(text, ',');

/** The first fault of a formula: operands and operators take turns, and columns are there. Undefined where there is none. */
export function formulaFault(formula: Formula, columns: readonly string[]): string | undefined {
	for (const [i, term] of formula.entries()) {
		if (isOperand(term) !== (i % 2 === 0)) return 'Operands and operators are to take turns.';
		if (!isOperand(term)) continue;
		for (const inner of innerOf(term)) {
			const fault = inner.length ? formulaFault(inner, columns) : 'A pair of brackets is empty.';
			if (fault) return fault;
		}
		const name = namedBy(term);
		if (name !== undefined && !columns.includes(name)) return `There is no column “${name}”.`;
		if ('number' in term && !isLiteral(term.number)) return `“${term.number}” is not a number.`;
	}
	return formula.length % 2 ? undefined : 'The last operator has nothing after it.';
}

/** Where a formula takes its figures from; undefined is what is empty, which makes an answer empty, too. */
export interface Reading {
	/** A column's figure in the row. Throws NoAnswer where the cell holds words. */
	column(name: string): Figure | undefined;
	/** The figure that a literal says. */
	literal(text: string): Figure;
	/** What a whole column comes to. */
	summary(how: Summary, column: string): Figure | undefined;
	total(column: string): Figure | undefined;
	above(): Figure | undefined;
}

function valueOf(term: Operand | Operator | undefined, reading: Reading): Figure | undefined {
	if (!isOperand(term)) throw new NoAnswer('a number or a column is missing');
	if ('summary' in term) {
		if ('column' in term) return reading.summary(term.summary, term.column);
		const values = term.list.map((one) => compute(one, reading));
		return together(
			term.summary,
			values.filter((one) => one !== undefined)
		);
	}
	if ('column' in term) return reading.column(term.column);
	if ('number' in term) return reading.literal(term.number);
	if ('group' in term) return compute(term.group, reading);
	if ('total' in term) return reading.total(term.total);
	if ('above' in term) return reading.above();
	if ('minus' in term) {
		const value = valueOf(term.minus, reading);
		return value && negated(value);
	}
	const value = compute(term.round, reading);
	return value && rounded(value, term.to);
}

/**
 * A formula's exact answer with its measure; undefined where an operand is empty, though the others are looked at all the
 * same. Throws NoAnswer saying why there is none.
 */
export function compute(formula: Formula, reading: Reading): Figure | undefined {
	let sum: Figure | undefined;
	let pending: Operator | undefined;
	let current = valueOf(formula[0], reading);
	let isEmpty = !current;
	for (let i = 1; i < formula.length; i += 2) {
		const operator = formula[i] as Operator;
		const next = valueOf(formula[i + 1], reading);
		isEmpty ||= !next;
		if (STRONG[operator]) current = current && next && DO[operator](current, next);
		else {
			sum = pending ? sum && current && DO[pending](sum, current) : current;
			pending = operator;
			current = next;
		}
	}
	const answer = pending ? sum && current && DO[pending](sum, current) : current;
	return isEmpty ? undefined : answer;
}

/** Whether one of some operators stands anywhere in a formula. */
export const hasOperator = (formula: Formula, ...operators: readonly Operator[]): boolean =>
	formula.some((term) =>
		isOperand(term) ? innerOf(term).some((inner) => hasOperator(inner, ...operators)) : operators.includes(term)
	);

/** Whether a mean is taken anywhere in a formula. */
export const takesMean = (formula: Formula): boolean =>
	[...operandsIn(formula)].some((operand) => 'summary' in operand && operand.summary === 'mean');

/** Whether a formula takes more than the cells of its own row. */
export const reachesOut = (formula: Formula): boolean =>
	[...operandsIn(formula)].some(
		(operand) => 'total' in operand || 'above' in operand || ('summary' in operand && 'column' in operand)
	);
/** Whether a formula divides by, or multiplies with, a column: then that column's cells are no addends. */
export const isFactor = (formula: Formula, column: string): boolean =>
	formula.some(
		(term, i) =>
			isOperand(term) &&
			(('column' in term && !('summary' in term) && term.column === column
				? [formula[i - 1], formula[i + 1]].some((one) => one === '×' || one === '÷')
				: false) ||
				innerOf(term).some((inner) => isFactor(inner, column)))
	);

/** The columns that a formula names. */
export const columnsIn = (formula: Formula): string[] => [
	...new Set([...operandsIn(formula)].map(namedBy).filter((name) => name !== undefined))
];

/** A formula in which a column is called otherwise. */
export function withColumnNamed(formula: Formula, from: string, to: string): Formula {
	const named = (operand: Operand): Operand => {
		if ('group' in operand) return { group: withColumnNamed(operand.group, from, to) };
		if ('minus' in operand) return { minus: named(operand.minus) };
		if ('round' in operand) return { ...operand, round: withColumnNamed(operand.round, from, to) };
		if ('list' in operand) return { ...operand, list: operand.list.map((one) => withColumnNamed(one, from, to)) };
		if ('column' in operand && operand.column === from) return { ...operand, column: to };
		return 'total' in operand && operand.total === from ? { total: to } : operand;
	};
	return formula.map((term) => (isOperand(term) ? named(term) : term));
}
