import type { ColumnKind } from '../table/columns.ts';
import { NUMERIC_KINDS } from '../table/columns.ts';
import type { Value } from '../values/parse.ts';
import {
	CODE_NAME,
	CURRENCY_NAME,
	DATE_NAME,
	MONEY_NAME,
	NUMBER_NAME,
	PERCENT_NAME,
	PERIOD,
	PLAIN_MONEY_NAME,
	SHARE_NAME,
	UNIT_NAME,
	YEAR_NAME
} from './words.ts';

export interface Guess<T> {
	readonly is: T;
	/** 0–1 */
	readonly confidence: number;
	/** In words, strongest first. */
	readonly reasons: readonly string[];
}

const guess = (is: ColumnKind, confidence: number, ...reasons: string[]): Guess<ColumnKind> => ({
	is,
	confidence,
	reasons
});

const isYear = (text: string) => /^(1[5-9]|20|21)\d\d$/.test(text);
const hasLeadingZero = (text: string) => /^0\d[\d ]*$/.test(text);
/** Letters and digits, capitals, or digits in groups as in a telephone number. */
const isCodeLike = (text: string) =>
	/^(?=.*[A-Z])(?=.*\d)[A-Z0-9][A-Z0-9./-]{0,15}$/.test(text) ||
	/^[A-Z]{1,4}$/.test(text) ||
	/^(?=(?:\D*\d){6})\+?[\d(][\d ()/-]{6,20}$/.test(text);

/** Four digits or more, each of them once: numbers that were given out, not counted. */
const isSerialLike = (filled: readonly { readonly text: string }[]): boolean =>
	filled.length >= 3 &&
	filled.every(({ text }) => /^\d{4,}$/.test(text)) &&
	new Set(filled.map(({ text }) => text)).size === filled.length;

/** Whether each number is as much more than the one before it as all others. */
const isSeries = (numbers: readonly number[]): boolean => {
	const step = numbers[1]! - numbers[0]!;
	return step !== 0 && numbers.every((number, i) => i === 0 || number - numbers[i - 1]! === step);
};

/** Whether numbers without a sign are shares of a whole: none below 0, and 100 together but for rounding. */
function makeHundred(values: readonly Value[]): boolean {
	let sum = 0;
	for (const value of values) {
		if (!('amount' in value)) continue;
		if (value.amount.isNegative()) return false;
		sum += value.amount.toNumber();
	}
	return Math.abs(sum - 100) <= 0.5;
}

/** So many cells of a column are looked at, at most about twice as many. */
const MOST_CELLS = 5_000;

const TESTS = {
	zero: (_: Value, text: string) => hasLeadingZero(text),
	digits: (_: Value, text: string) => /^[\d ./-]+$/.test(text),
	date: ({ type }: Value) => type === 'date' || type === 'time',
	year: (_: Value, text: string) => isYear(text),
	money: ({ type }: Value) => type === 'money',
	percent: ({ type }: Value) => type === 'percent',
	number: (value: Value) => 'amount' in value,
	unit: (value: Value) => value.type === 'number' && !!value.unit,
	plain: (value: Value) => value.type === 'number' && !value.unit,
	/** A negative in brackets, as accounts have it. */
	bracketed: (value: Value, text: string) => 'amount' in value && text.startsWith('('),
	/** A number that is not even written with decimals. */
	whole: (value: Value, text: string) => 'amount' in value && value.amount.isInteger() && !/[.,]\d\d\D*$/.test(text),
	large: (value: Value) => 'amount' in value && value.amount.abs().gte(1000),
	cents: (_: Value, text: string) => /[.,]\d\d\)?$/.test(text),
	text: ({ type }: Value) => type === 'text',
	code: (_: Value, text: string) => isCodeLike(text) && !PERIOD.test(text),
	short: (_: Value, text: string) => /^(?=.*\d)[\p{L}\d./-]{1,8}$|^\p{L}{1,3}$/u.test(text)
};
type Test = keyof typeof TESTS;
/** What numbers are of, by how they are written. */
const SORTS = ['plain', 'unit', 'money', 'percent'] as const satisfies readonly Test[];

/**
 * The kind of a column from its body cells and what its header says (engine §6). `isMoneyTable`: the table's title or the
 * corner of its header or the label of a total says that its figures are money.
 */
export function columnKind(
	name: string,
	texts: readonly string[],
	values: readonly Value[],
	isMoneyTable = false
): Guess<ColumnKind> {
	const all: { value: Value; text: string }[] = [];
	values.forEach((value, i) => {
		if (value.type !== 'empty') all.push({ value, text: texts[i]!.trim() });
	});
	// Of a long column, cells at even distances say enough.
	const stride = Math.max(1, Math.floor(all.length / MOST_CELLS));
	const filled = stride === 1 ? all : all.filter((_, i) => i % stride === 0);
	const n = filled.length;
	if (n === 0) return guess('text', 0.3, 'no body cell says anything');
	const counts = new Map<Test, number>();
	const count = (test: Test): number => {
		let known = counts.get(test);
		if (known === undefined) {
			known = 0;
			for (const { value, text } of filled) if (TESTS[test](value, text)) known++;
			counts.set(test, known);
		}
		return known;
	};
	const share = (test: Test) => count(test) / n;
	const of = (test: Test) => `${count(test)} of ${n} cells${stride > 1 ? ' looked at' : ''}`;

	// Of two conditions, the one that costs less or holds less often is asked first.
	if (share('zero') > 0.2 && share('digits') > 0.8) return guess('code', 0.95, `${of('zero')} start with a zero`);
	if (share('date') >= 0.6) return guess('date', 0.6 + 0.4 * share('date'), `${of('date')} are dates`);
	if ((YEAR_NAME.test(name) || DATE_NAME.test(name)) && share('year') === 1)
		return guess('date', 0.8, `years under “${name}”`);
	if (n >= 3 && share('year') === 1 && isSeries(filled.map(({ text }) => Number(text))))
		return guess('date', 0.7, 'years, one after the other');
	if (share('number') >= 0.25 && share('text') >= 0.3)
		return guess('mixed', 0.6, `${of('number')} are numbers, the rest is text`);
	if (share('number') >= 0.6) {
		const sure = 0.5 + 0.45 * share('number');
		if (share('text') + share('date') > 0 && SORTS.every((sort) => share(sort) < 0.5))
			return guess('mixed', 0.6, 'numbers of several sorts, and text');
		if (share('money') >= 0.5) return guess('money', sure, `${of('money')} are money`);
		if (share('percent') >= 0.5) return guess('percent', sure, `${of('percent')} are percentages`);
		if (PERCENT_NAME.test(name)) return guess('percent', sure, `numbers under “${name}”`);
		if (SHARE_NAME.test(name) && makeHundred(values)) return guess('percent', sure, `they make 100 under “${name}”`);
		if (CURRENCY_NAME.test(name)) return guess('money', sure, `numbers under “${name}”`);
		if (share('unit') >= 0.5) return guess('quantity', sure, `${of('unit')} are numbers with a unit`);
		if (UNIT_NAME.test(name)) return guess('quantity', sure, `numbers under “${name}”`);
		if (MONEY_NAME.test(name) && share('cents') > 0.4)
			return guess('money', sure * 0.95, `numbers with two decimals under “${name}”`);
		if (PLAIN_MONEY_NAME.test(name) && share('whole') > 0.5) return guess('money', 0.7, `numbers under “${name}”`);
		if (count('bracketed') > 0)
			return guess('money', sure * 0.8, `${of('bracketed')} are negatives in brackets, as in accounts`);
		if (isMoneyTable) return guess('money', sure * 0.8, 'the table says that its figures are money');
		if (share('cents') > 0.8 && count('large') > 0)
			return guess('money', sure * 0.75, `${of('cents')} are large numbers with two decimals`);
		if (count('whole') < count('number')) return guess('quantity', sure, 'numbers with decimals');
		if (CODE_NAME.test(name) && new Set(filled.map(({ text }) => text)).size === n)
			return guess('code', 0.7, `different whole numbers under “${name}”`);
		if (
			NUMBER_NAME.test(name) &&
			filled.every(({ text }) => text.length === filled[0]!.text.length) &&
			isSerialLike(filled)
		)
			return guess('code', 0.6, `different numbers of one length under “${name}”`);
		return guess('count', sure, `${of('number')} are whole numbers`);
	}
	if (share('number') >= 0.25 && share('text') >= 0.25)
		return guess('mixed', 0.6, `${of('number')} are numbers, the rest is text`);
	if (share('code') >= 0.8) return guess('code', 0.85, `${of('code')} look like codes`);
	if (CODE_NAME.test(name) && share('short') >= 0.8) return guess('code', 0.75, `short entries under “${name}”`);
	return guess('text', 0.9, `${of('text')} are text`);
}

/** Kinds that can label a row. */
export const canLabel = (kind: ColumnKind): boolean => !NUMERIC_KINDS.has(kind);
