import { combinationOf, membersOf, type Test } from '../style/conditions.ts';
import type { Condition } from '../style/types.ts';
import { FORMULA_DOCUMENT, withColumnNamed, type Formula } from '../values/formula.ts';
import { COLUMN_KINDS, type ColumnKind } from '../table/columns.ts';
import { LENGTH_PATTERN } from '../units.ts';

/** Where the cells of a column come from. */
export type ColumnSource =
	| { readonly from: 'attribute'; readonly attribute: string }
	/** Of the objects of a row, together. */
	| { readonly from: 'sum'; readonly attribute: string }
	| { readonly from: 'count' }
	| { readonly from: 'kind' | 'symbol' | 'layer' | 'drawing' | 'x' | 'y' }
	| { readonly from: 'computed'; readonly formula: Formula }
	/** By hand; stays with its row. */
	| { readonly from: 'typed' };
export type SourceName = ColumnSource['from'];

export type ScheduleColumn = ColumnSource & {
	readonly name: string;
	/** Sorts, groups, filters and tells rows apart, but is not shown. */
	readonly hidden?: boolean;
	readonly kind?: ColumnKind;
	/** A length; as wide as its content wants where absent. */
	readonly width?: string;
	/** Its heading runs upwards. */
	readonly turned?: boolean;
	/** Whether subtotals and the total add it up; what is counted or summed is, where absent. */
	readonly total?: boolean;
};

export interface ScheduleDefinition {
	readonly format: 'heptarch-schedule';
	readonly version: 1;
	readonly title: string;
	/** Kinds of objects; all where absent. */
	readonly kinds?: readonly string[];
	/** One row for every object, or for all that say the same. */
	readonly rows: 'each' | 'merged';
	readonly columns: readonly ScheduleColumn[];
	readonly where?: Condition;
	readonly sort?: readonly { readonly by: string; readonly order: 'rising' | 'falling' }[];
	/** Name of the column whose values head groups of rows. */
	readonly groupBy?: string;
	readonly subtotals?: boolean;
	readonly total?: boolean;
}

/** What each source is called. */
export const SOURCE_WORDS: Readonly<Record<SourceName, string>> = {
	attribute: 'attribute',
	sum: 'sum of an attribute',
	count: 'how many',
	kind: 'what it is',
	symbol: 'its symbol',
	layer: 'its layer',
	drawing: 'its drawing',
	x: 'metres from the left',
	y: 'metres from the top',
	computed: 'computed',
	typed: 'typed by hand'
};

/** Sources whose cells are worked out from several objects, so that they tell no rows apart. */
export const GATHERED: ReadonlySet<SourceName> = new Set(['sum', 'count', 'computed', 'typed']);

/** The columns that a condition names. */
const namedIn = (condition: Condition): string[] => {
	const members = membersOf(condition);
	const { column } = condition as Test;
	return members.length ? members.flatMap(namedIn) : column === undefined ? [] : [column];
};

/** Whether a schedule's filter is on its rows, since it names what is gathered from several objects, and not on objects. */
export function isFilterOnRows({ columns, where }: ScheduleDefinition): boolean {
	const named = new Set(where ? namedIn(where) : []);
	return columns.some(({ name, from }) => named.has(name) && GATHERED.has(from));
}

/** The first column that a definition sorts, groups or filters by and does not have. */
export function missingColumn({ columns, sort, groupBy, where }: ScheduleDefinition): string | undefined {
	const names = new Set(columns.map(({ name }) => name));
	return [
		...(sort ?? []).map(({ by }) => by),
		...(groupBy === undefined ? [] : [groupBy]),
		...(where ? namedIn(where) : [])
	].find((name) => !names.has(name));
}

/** A definition in which a column is called otherwise, wherever it is named. */
export function renamed(definition: ScheduleDefinition, from: string, to: string): ScheduleDefinition {
	const instead = (name: string) => (name === from ? to : name);
	const inCondition = (condition: Condition): Condition => {
		switch (combinationOf(condition)) {
			case 'all':
				return { all: membersOf(condition).map(inCondition) };
			case 'any':
				return { any: membersOf(condition).map(inCondition) };
			case 'not':
				return { not: inCondition(membersOf(condition)[0]!) };
			default: {
				const { column } = condition as Test;
				return column === from ? ({ ...condition, column: to } as Condition) : condition;
			}
		}
	};
	const { sort, groupBy, where } = definition;
	return {
		...definition,
		columns: definition.columns.map((column) => ({
			...column,
			name: instead(column.name),
			...(column.from === 'computed' && {
				formula: withColumnNamed(column.formula, from, to)
			})
		})),
		...(sort && { sort: sort.map(({ by, order }) => ({ by: instead(by), order })) }),
		...(groupBy !== undefined && { groupBy: instead(groupBy) }),
		...(where && { where: inCondition(where) })
	};
}

/** A definition without a column; what sorted, grouped or filtered by it goes with it. Formulas that name it do not. */
export function withoutColumn(definition: ScheduleDefinition, name: string): ScheduleDefinition {
	const { sort, groupBy, where, ...rest } = definition;
	return {
		...rest,
		columns: definition.columns.filter((column) => column.name !== name),
		...(sort && { sort: sort.filter(({ by }) => by !== name) }),
		...(groupBy !== undefined && groupBy !== name && { groupBy }),
		...(where && !namedIn(where).includes(name) && { where })
	};
}

const closed = (properties: object, required: readonly string[]) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required
});
const text = { type: 'string', minLength: 1, maxLength: 200 };
const columnRest = {
	name: text,
	hidden: { type: 'boolean' },
	kind: { enum: COLUMN_KINDS },
	width: { type: 'string', pattern: LENGTH_PATTERN },
	turned: { type: 'boolean' },
	total: { type: 'boolean' }
};
const column = (from: readonly SourceName[], more: object = {}) =>
	closed({ from: { enum: from }, ...more, ...columnRest }, ['from', 'name', ...Object.keys(more)]);
/** JSON Schema (2020-12) of a schedule's definition; `condition` is the schema of conditions. */
export const scheduleSchema = (condition: object) =>
	closed(
		{
			format: { const: 'heptarch-schedule' },
			version: { const: 1 },
			title: { type: 'string', maxLength: 200 },
			kinds: { type: 'array', items: text, maxItems: 1_000 },
			rows: { enum: ['each', 'merged'] },
			columns: {
				type: 'array',
				minItems: 1,
				maxItems: 60,
				items: {
					oneOf: [
						column(['attribute', 'sum'], { attribute: text }),
						column(['count', 'kind', 'symbol', 'layer', 'drawing', 'x', 'y', 'typed']),
						column(['computed'], { formula: { $ref: FORMULA_DOCUMENT.$ref } })
					]
				}
			},
			where: condition,
			sort: {
				type: 'array',
				maxItems: 8,
				items: closed({ by: text, order: { enum: ['rising', 'falling'] } }, ['by', 'order'])
			},
			groupBy: text,
			subtotals: { type: 'boolean' },
			total: { type: 'boolean' }
		},
		['format', 'version', 'title', 'rows', 'columns']
	);
