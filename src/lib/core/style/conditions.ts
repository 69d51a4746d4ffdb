import { comparison, expressionFault } from './comparisons.ts';
import type { Condition, Test } from './types.ts';

export type { Test } from './types.ts';

export type Combination = 'all' | 'any' | 'not';

/** Which of the three combinations a condition is; undefined for a test. */
export function combinationOf(condition: Condition): Combination | undefined {
	if ('all' in condition) return 'all';
	if ('any' in condition && Array.isArray(condition.any)) return 'any';
	return 'not' in condition ? 'not' : undefined;
}

/** The conditions that a combination combines. */
export function membersOf(condition: Condition): readonly Condition[] {
	if ('all' in condition) return condition.all;
	if ('any' in condition && Array.isArray(condition.any)) return condition.any;
	return 'not' in condition ? [condition.not] : [];
}

const quoted = (value: unknown) => (typeof value === 'number' ? String(value) : `“${String(value ?? '')}”`);

function testWords(test: Test): string {
	const subject =
		test.column !== undefined
			? `in column “${test.column}” a cell`
			: test.kind !== undefined
				? `in ${test.kind} columns a cell`
				: 'a cell';
	const { operands, words } = comparison(test.is);
	const values: unknown[] = Array.isArray(test.value) ? test.value : [test.value];
	const operand =
		operands === 'two'
			? `${quoted(values[0])} and ${quoted(values[1])}`
			: operands === 'count'
				? String(test.value ?? 1)
				: values.map(quoted).join(', ');
	const rows = test.rows && test.rows.join() !== 'body' ? ` (${test.rows.join(', ')} rows)` : '';
	return `${subject} ${words.replace('…', operand)}${rows}`;
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
	const { operands, words } = comparison(is);
	switch (operands) {
		case 'one':
		case 'list':
			if (missing) return `“${words}” needs a value.`;
			break;
		case 'two':
			if (values.length !== 2 || values.some((one) => String(one ?? '').trim() === ''))
				return '“lies between” needs two values.';
			break;
		case 'count':
			if (!Number.isInteger(Number(value)) || Number(value) < 1) return 'How many? Write a whole number from 1 up.';
	}
	const fault = is === 'matches' && expressionFault(String(value));
	return fault ? `The expression cannot be read: ${fault}.` : undefined;
}
