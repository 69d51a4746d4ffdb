import { RE2JS } from 're2js';

/** How many values a comparison takes. */
export type Operands = 'none' | 'one' | 'two' | 'list' | 'count';

/** What a comparison can ask of a cell. `Figure` is whatever the asker takes for an exact number. */
export interface Compared<Figure = unknown> {
	/** Trimmed. */
	readonly text: string;
	readonly isEmpty: boolean;
	/** Its figure; undefined where it holds none. */
	readonly figure: Figure | undefined;
	/** −1, 0, 1 against an operand; undefined where the two are not alike (engine §11, *Cell rules*). */
	order(operand: unknown): number | undefined;
	/** Whether it is worth the operand, or reads the same. */
	equals(operand: unknown): boolean;
	/** Its place among the figures of its column, counted from the least and from the greatest, equal ones sharing the best. */
	rank(): { readonly least: number; readonly greatest: number } | undefined;
	/** Its figure against the mean of its column. */
	againstMean(): number | undefined;
	/** How often its text stands in its column. */
	repeats(): number;
	/** The text of the cell above it in its column; undefined for the first. */
	above(): string | undefined;
}

interface Definition {
	readonly is: string;
	readonly operands: Operands;
	/** As people say it; … stands for its value. */
	readonly words: string;
	holds(cell: Compared, value: unknown): boolean;
}

const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : [value]);
const ordered = (decide: (order: number) => boolean) => (cell: Compared, value: unknown) => {
	const order = cell.order(value);
	return order !== undefined && decide(order);
};
const definition = <const Is extends string>(own: Definition & { readonly is: Is }) => own;

/** Every comparison of a cell rule (engine §11, *Cell rules*), in the order in which they are offered. */
const LISTED = [
	definition({ is: '<', operands: 'one', words: 'is below …', holds: ordered((o) => o < 0) }),
	definition({ is: '<=', operands: 'one', words: 'is … or less', holds: ordered((o) => o <= 0) }),
	definition({ is: '=', operands: 'one', words: 'is …', holds: (cell, value) => cell.equals(value) }),
	definition({ is: '!=', operands: 'one', words: 'is not …', holds: (cell, value) => !cell.equals(value) }),
	definition({ is: '>=', operands: 'one', words: 'is … or more', holds: ordered((o) => o >= 0) }),
	definition({ is: '>', operands: 'one', words: 'is above …', holds: ordered((o) => o > 0) }),
	definition({
		is: 'between',
		operands: 'two',
		words: 'lies between …',
		holds(cell, value) {
			const [low, high] = list(value).map((operand) => cell.order(operand));
			return low !== undefined && high !== undefined && low >= 0 && high <= 0;
		}
	}),
	definition({
		is: 'oneOf',
		operands: 'list',
		words: 'is one of …',
		holds: (cell, value) => list(value).some((operand) => cell.equals(operand))
	}),
	definition({
		is: 'contains',
		operands: 'one',
		words: 'contains …',
		holds: ({ text }, value) => text.includes(String(value))
	}),
	definition({
		is: 'startsWith',
		operands: 'one',
		words: 'begins with …',
		holds: ({ text }, value) => text.startsWith(String(value))
	}),
	definition({
		is: 'endsWith',
		operands: 'one',
		words: 'ends with …',
		holds: ({ text }, value) => text.endsWith(String(value))
	}),
	definition({
		is: 'matches',
		operands: 'one',
		words: 'matches the expression …',
		holds: ({ text }, value) => compiled(String(value))?.matcher(text).find() ?? false
	}),
	definition({ is: 'empty', operands: 'none', words: 'is empty', holds: ({ isEmpty }) => isEmpty }),
	definition({
		is: 'notNumber',
		operands: 'none',
		words: 'holds text and no number',
		holds: ({ isEmpty, figure }) => !isEmpty && figure === undefined
	}),
	definition({
		is: 'repeated',
		operands: 'none',
		words: 'stands more than once in its column',
		holds: (cell) => cell.text !== '' && cell.repeats() > 1
	}),
	definition({
		is: 'least',
		operands: 'count',
		words: 'is among the … least',
		holds: (cell, value) => (cell.rank()?.least ?? Infinity) <= Number(value ?? 1)
	}),
	definition({
		is: 'greatest',
		operands: 'count',
		words: 'is among the … greatest',
		holds: (cell, value) => (cell.rank()?.greatest ?? Infinity) <= Number(value ?? 1)
	}),
	definition({
		is: 'aboveMean',
		operands: 'none',
		words: 'is above its column’s mean',
		holds: (cell) => (cell.againstMean() ?? 0) > 0
	}),
	definition({
		is: 'belowMean',
		operands: 'none',
		words: 'is below its column’s mean',
		holds: (cell) => (cell.againstMean() ?? 0) < 0
	}),
	definition({
		is: 'changes',
		operands: 'none',
		words: 'differs from the row above',
		holds(cell) {
			const above = cell.above();
			return above !== undefined && above !== cell.text;
		}
	})
] as const;

export type Comparison = (typeof LISTED)[number]['is'];
export const COMPARISONS: readonly (Definition & { readonly is: Comparison })[] = LISTED;

const byName = new Map<string, (typeof COMPARISONS)[number]>(COMPARISONS.map((one) => [one.is, one]));
export const comparison = (is: Comparison): (typeof COMPARISONS)[number] => byName.get(is)!;

/** Expressions come from files: they are matched in linear time (RE2 syntax), and few are remembered. */
const expressions = new Map<string, RE2JS | undefined>();
const MOST_EXPRESSIONS = 200;

function compiled(pattern: string): RE2JS | undefined {
	if (!expressions.has(pattern)) {
		if (expressions.size >= MOST_EXPRESSIONS) expressions.clear();
		try {
			expressions.set(pattern, RE2JS.compile(pattern));
		} catch {
			expressions.set(pattern, undefined);
		}
	}
	return expressions.get(pattern);
}

/** Why an expression cannot be read; undefined where it can. */
export function expressionFault(pattern: string): string | undefined {
	if (compiled(pattern)) return undefined;
	try {
		RE2JS.compile(pattern);
		return undefined;
	} catch (error) {
		return (error as Error).message;
	}
}
