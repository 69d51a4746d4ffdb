import type { ColumnKind } from '../table/roles.ts';
import type { Condition } from './types.ts';
import { COMPARISONS } from './schema.ts';

export type Comparison = (typeof COMPARISONS)[number];

/** A condition without `all`, `any`, `not` in it. */
export interface Test {
	readonly column?: string;
	readonly kind?: ColumnKind;
	readonly any?: true;
	readonly rows?: string[];
	readonly is: Comparison;
	readonly value?: unknown;
}

export type Combination = 'all' | 'any' | 'not';

/** Which of the three combinations a condition is; undefined for a test. */
export function combinationOf(condition: Condition): Combination | undefined {
	if ('all' in condition) return 'all';
	if ('any' in condition && Array.isArray(condition.any)) return 'any';
	return 'not' in condition ? 'not' : undefined;
}

/** The conditions that a combination combines. */
export function membersOf(condition: Condition): Condition[] {
	if ('all' in condition) return condition.all;
	if ('any' in condition && Array.isArray(condition.any)) return condition.any;
	return 'not' in condition ? [condition.not] : [];
}

/** How many values a comparison takes: none, one, two, or a list. */
export const OPERANDS: Record<Comparison, 'none' | 'one' | 'two' | 'list' | 'count'> = {
	'<': 'one',
	'<=': 'one',
	'=': 'one',
	'!=': 'one',
	'>=': 'one',
	'>': 'one',
	between: 'two',
	oneOf: 'list',
	contains: 'one',
	startsWith: 'one',
	endsWith: 'one',
	matches: 'one',
	empty: 'none',
	notNumber: 'none',
	repeated: 'none',
	least: 'count',
	greatest: 'count',
	aboveMean: 'none',
	belowMean: 'none',
	changes: 'none'
};

/** Each comparison as people say it; … stands for its value. */
export const COMPARISON_WORDS: Record<Comparison, string> = {
	'<': 'is below …',
	'<=': 'is … or less',
	'=': 'is …',
	'!=': 'is not …',
	'>=': 'is … or more',
	'>': 'is above …',
	between: 'lies between …',
	oneOf: 'is one of …',
	contains: 'contains …',
	startsWith: 'begins with …',
	endsWith: 'ends with …',
	matches: 'matches the expression …',
	empty: 'is empty',
	notNumber: 'holds text and no number',
	repeated: 'stands more than once in its column',
	least: 'is among the … least',
	greatest: 'is among the … greatest',
	aboveMean: 'is above its column’s mean',
	belowMean: 'is below its column’s mean',
	changes: 'differs from the row above'
};

const quoted = (value: unknown) => (typeof value === 'number' ? String(value) : `“${String(value ?? '')}”`);

function testWords(test: Test): string {
	const subject =
		test.column !== undefined
			? `in column “${test.column}” a cell`
			: test.kind !== undefined
				? `in ${test.kind} columns a cell`
				: 'a cell';
	const values = Array.isArray(test.value) ? test.value : [test.value];
	const operand =
		OPERANDS[test.is] === 'two'
			? `${quoted(values[0])} and ${quoted(values[1])}`
			: OPERANDS[test.is] === 'count'
				? String(test.value ?? 1)
				: values.map(quoted).join(', ');
	const rows = test.rows && test.rows.join() !== 'body' ? ` (${test.rows.join(', ')} rows)` : '';
	return `${subject} ${COMPARISON_WORDS[test.is].replace('…', operand)}${rows}`;
}

/** A condition in words: "in column “Variance” a cell is below 0". */
export function conditionWords(condition: Condition): string {
	const combination = combinationOf(condition);
	if (!combination) return testWords(condition as Test);
	const members = membersOf(condition).map((member) =>
		combinationOf(member) && combinationOf(member) !== 'not' ? `(${conditionWords(member)})` : conditionWords(member)
	);
	if (combination === 'not') return `not: ${members.join(' and ')}`;
	return members.join(combination === 'all' ? ' and ' : ' or ');
}

/** The first fault of a condition that the schema cannot see (a value that is missing, an expression that is none), as a sentence. */
export function conditionFault(condition: Condition): string | undefined {
	const combination = combinationOf(condition);
	if (combination) {
		for (const member of membersOf(condition)) {
			const fault = conditionFault(member);
			if (fault) return fault;
		}
		return undefined;
	}
	const { is, value, column } = condition as Test;
	if (column !== undefined && !column.trim()) return 'Say which column it is about.';
	const values = Array.isArray(value) ? value : [value];
	const missing = values.every((one) => one === undefined || String(one).trim() === '');
	switch (OPERANDS[is]) {
		case 'one':
		case 'list':
			if (missing) return `“${COMPARISON_WORDS[is]}” needs a value.`;
			break;
		case 'two':
			if (values.length !== 2 || values.some((one) => String(one ?? '').trim() === ''))
				return '“lies between” needs two values.';
			break;
		case 'count':
			if (!Number.isInteger(Number(value)) || Number(value) < 1) return 'How many? Write a whole number from 1 up.';
	}
	if (is === 'matches')
		try {
			new RegExp(String(value), 'u');
		} catch (error) {
			return `The expression cannot be read: ${(error as Error).message}.`;
		}
	return undefined;
}
