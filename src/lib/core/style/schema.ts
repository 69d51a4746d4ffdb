import { ASPECTS } from './types.ts';
import { LEAVES } from '../properties/index.ts';
import { CASE_SCHEMA } from '../properties/case.ts';
import { lengthSchema, positiveLengthSchema, wordsSchema, type Leaf } from '../properties/property.ts';
import { WEIGHT_SCHEMA } from '../properties/weight.ts';
import { ROLE_PATTERN, ROWS_PATTERN } from '../roles/index.ts';
import { PURPOSES } from '../recognise/purpose/kinds.ts';
import { COLUMN_KINDS } from '../table/columns.ts';
import { SIDES } from '../table/grid.ts';
import { COMPARISONS, type Operands } from './comparisons.ts';
import { GROUPINGS } from '../values/parse.ts';
import { SUMMARIES } from '../values/summary.ts';
import { PART_PATTERN } from './parts.ts';

type Schema = { [key: string]: unknown };

const closed = (properties: Schema, required: string[] = []): Schema => ({
	type: 'object',
	additionalProperties: false,
	required,
	properties
});
const listOf = (properties: Schema): Schema => ({
	type: 'array',
	items: closed(properties, Object.keys(properties))
});
const pairs = <T>(list: readonly T[]) =>
	list.flatMap((one, i) => list.slice(i + 1).map((other) => [one, other] as const));
const orNull = (schema: Readonly<Schema>): Schema =>
	Array.isArray(schema.enum)
		? { enum: [...(schema.enum as unknown[]), null] }
		: { ...schema, type: [schema.type, 'null'] };

/** A part's settings, from the list of leaves, so that no leaf is written down twice. */
function partSettings(isMeant: (leaf: Leaf) => boolean): Schema {
	const root = closed({});
	for (const leaf of LEAVES) {
		if (!isMeant(leaf)) continue;
		const { path, schema } = leaf;
		const steps = path.split('.');
		let place = root;
		for (const step of steps.slice(0, -1)) {
			const properties = place.properties as Record<string, Schema>;
			place = properties[step] ??= closed({});
		}
		(place.properties as Schema)[steps.at(-1)!] = orNull(schema);
	}
	return root;
}

const name = { type: 'string', minLength: 1, maxLength: 200 };
const inkName = { pattern: '^(?!none$)[\\p{L}][\\p{L}\\p{N} _-]*$' };
const sizes = { type: 'array', minItems: 1, maxItems: 50, items: { type: 'integer', minimum: 1, maximum: 1000 } };

/** What a comparison takes beside its cell. An empty text is a value that is not said yet. */
const VALUES: Readonly<Record<Operands, Schema>> = {
	none: {},
	one: { type: ['string', 'number'] },
	two: { type: 'array', minItems: 2, maxItems: 2, items: { type: ['string', 'number'] } },
	list: { type: 'array', maxItems: 1_000, items: { type: ['string', 'number'] } },
	count: { type: 'integer', minimum: 1, maximum: 1_000_000 }
};

/** A condition that is one test: about a column, a kind or any cell, and with the value that its comparison takes. */
const test: Schema = {
	...closed(
		{
			column: name,
			kind: { enum: COLUMN_KINDS },
			any: { const: true },
			rows: { type: 'array', minItems: 1, maxItems: 50, items: { type: 'string', pattern: ROWS_PATTERN } },
			is: { enum: COMPARISONS.map(({ is }) => is) },
			value: {}
		},
		['is']
	),
	allOf: [
		...pairs(['column', 'kind', 'any']).map(([one, other]) => ({
			description: `is about “${one}” or “${other}”, not about both`,
			not: { type: 'object', required: [one, other] }
		})),
		...COMPARISONS.filter(({ operands }) => operands !== 'none' && operands !== 'count').map(({ is, operands }) => ({
			if: { type: 'object', properties: { is: { const: is } } },
			then: { type: 'object', required: ['value'], properties: { value: VALUES[operands] } }
		})),
		...COMPARISONS.filter(({ operands }) => operands === 'count').map(({ is, operands }) => ({
			if: { type: 'object', properties: { is: { const: is } } },
			then: { type: 'object', properties: { value: VALUES[operands] } }
		}))
	]
};

/** JSON Schema (2020-12) of the style file, engine §3. Published at `/schema/style.json`. */
export const STYLE_SCHEMA: Schema = {
	$schema: 'https://json-schema.org/draft/2020-12/schema',
	$id: 'heptarch-style',
	title: 'Heptarch style',
	...closed(
		{
			format: { const: 'heptarch-style' },
			version: { const: 1 },
			name,
			description: { type: 'string', maxLength: 4000 },
			category: { type: 'string', maxLength: 200 },
			basedOn: { type: ['string', 'null'], minLength: 1, maxLength: 200 },
			reading: { enum: ['down', 'up'] },
			inks: {
				type: 'object',
				propertyNames: inkName,
				additionalProperties: { type: 'string', pattern: '^#[0-9A-Fa-f]{6}$' }
			},
			typeRoles: {
				type: 'object',
				propertyNames: name,
				additionalProperties: closed({
					family: wordsSchema(1, 200),
					size: positiveLengthSchema,
					weight: WEIGHT_SCHEMA,
					case: CASE_SCHEMA,
					tracking: lengthSchema
				})
			},
			bands: closed({
				rows: closed({ sizes, restartAtGroups: { type: 'boolean' } }),
				columns: closed({ sizes })
			}),
			parts: {
				type: 'object',
				propertyNames: { pattern: PART_PATTERN },
				properties: { ground: { $ref: '#/$defs/ground' } },
				additionalProperties: { $ref: '#/$defs/settings' }
			},
			bases: { type: 'array', maxItems: 50, items: { $ref: '#' } },
			rules: {
				type: 'array',
				maxItems: 500,
				items: closed(
					{
						name,
						where: { $ref: '#/$defs/condition' },
						extends: { enum: ['cell', 'row', 'column'] },
						off: { type: 'boolean' },
						set: { $ref: '#/$defs/settings' }
					},
					['name', 'where', 'set']
				)
			}
		},
		['format', 'version', 'name', 'parts']
	),
	$defs: {
		ground: partSettings(() => true),
		settings: partSettings(({ only }) => only === undefined),
		conditions: { type: 'array', minItems: 1, maxItems: 100, items: { $ref: '#/$defs/condition' } },
		condition: {
			type: 'object',
			if: { type: 'object', required: ['is'] },
			then: { $ref: '#/$defs/test' },
			else: {
				oneOf: [
					closed({ all: { $ref: '#/$defs/conditions' } }, ['all']),
					closed({ any: { $ref: '#/$defs/conditions' } }, ['any']),
					closed({ not: { $ref: '#/$defs/condition' } }, ['not'])
				]
			}
		},
		test
	}
};

const index = { type: 'integer', minimum: 0, maximum: 1_000_000 };
const extent = { type: 'integer', minimum: 1, maximum: 1_000_000 };

/** Touches speak for their own cell and its sides: nothing of a table's inside, and nothing of the whole table. */
const touch = partSettings(
	({ only, edge }) => only === undefined && !(edge && !(SIDES as readonly string[]).includes(edge.place))
);

/** A one-off setting of one cell. */
export const TOUCH_SCHEMA = closed({ r: index, c: index, set: touch }, ['r', 'c', 'set']);

/** JSON Schema (2020-12) of the table file, formats.md "Table files". Published at `/schema/table.json`. */
export const TABLE_SCHEMA: Schema = {
	$schema: 'https://json-schema.org/draft/2020-12/schema',
	$id: 'heptarch-table',
	title: 'Heptarch table',
	...closed(
		{
			format: { const: 'heptarch-table' },
			version: { const: 1 },
			cells: { type: 'array', items: { type: 'array', items: { type: ['string', 'null'] } } },
			spans: {
				type: 'array',
				items: closed({ r: index, c: index, rows: extent, cols: extent }, ['r', 'c', 'rows', 'cols'])
			},
			rows: { type: 'array', items: { type: 'string', pattern: ROLE_PATTERN } },
			columns: {
				type: 'array',
				items: closed({
					kind: { enum: COLUMN_KINDS },
					name: { type: 'string' },
					formula: { type: 'string', minLength: 1, maxLength: 2_000 }
				})
			},
			numbers: closed({ decimal: { enum: ['.', ','] }, grouping: { enum: [...GROUPINGS, null] } }, ['decimal']),
			formulas: listOf({ r: index, c: index, formula: { type: 'string', minLength: 1, maxLength: 2_000 } }),
			totals: listOf({ r: index, c: index, is: { enum: SUMMARIES } }),
			figures: listOf({ r: index, c: index, amount: { type: 'string' }, measure: { type: 'object' } }),
			firstColumns: index,
			lastColumns: index,
			dir: { enum: ['ltr', 'rtl'] },
			/** What it is for, as `read --json` says it. */
			purpose: closed(
				{ purpose: { enum: PURPOSES }, sure: { type: 'number' }, why: { type: 'array', items: { type: 'string' } } },
				['purpose']
			),
			partsOff: { type: 'array', items: { type: 'string' } },
			carry: { type: 'array', items: { enum: ASPECTS }, uniqueItems: true },
			touches: {
				type: 'array',
				items: closed({ r: index, c: index, set: { $ref: '#/$defs/touch' } }, ['r', 'c', 'set'])
			},
			/** What `read --json` adds for people and scripts; `resolve` takes it and leaves it alone. */
			about: { type: 'object' }
		},
		['format', 'version', 'cells']
	),
	$defs: { touch }
};
