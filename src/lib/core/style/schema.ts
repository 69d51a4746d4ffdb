import { ASPECTS } from './types.ts';
import { COLUMN_KINDS, ROLE_PATTERN } from '../table/roles.ts';
import { CASE_SCHEMA, FAMILY_SCHEMA, LEAVES, SIZE_SCHEMA, TRACKING_SCHEMA, WEIGHT_SCHEMA } from './leaves.ts';
import { PART_PATTERN } from './parts.ts';

type Schema = { [key: string]: unknown };

const closed = (properties: Schema, required: string[] = []): Schema => ({
	type: 'object',
	additionalProperties: false,
	required,
	properties
});
const orNull = (schema: Readonly<Schema>): Schema =>
	Array.isArray(schema.enum) ? { enum: [...schema.enum, null] } : { ...schema, type: [schema.type, 'null'] };

/** A part's settings, from the list of leaves, so that no leaf is written down twice. */
function partSettings(keepPath: (path: string) => boolean): Schema {
	const root = closed({});
	for (const { path, schema } of LEAVES) {
		if (!keepPath(path)) continue;
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

export const COMPARISONS = [
	'<',
	'<=',
	'=',
	'!=',
	'>=',
	'>',
	'between',
	'oneOf',
	'contains',
	'startsWith',
	'endsWith',
	'matches',
	'empty',
	'notNumber',
	'repeated',
	'least',
	'greatest',
	'aboveMean',
	'belowMean',
	'changes'
] as const;

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
					family: FAMILY_SCHEMA,
					size: SIZE_SCHEMA,
					weight: WEIGHT_SCHEMA,
					case: CASE_SCHEMA,
					tracking: TRACKING_SCHEMA
				})
			},
			bands: closed({
				rows: closed({ sizes, restartAtGroups: { type: 'boolean' } }),
				columns: closed({ sizes })
			}),
			parts: {
				type: 'object',
				propertyNames: { pattern: PART_PATTERN },
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
		settings: partSettings(() => true),
		conditions: { type: 'array', minItems: 1, maxItems: 100, items: { $ref: '#/$defs/condition' } },
		condition: {
			oneOf: [
				closed({ all: { $ref: '#/$defs/conditions' } }, ['all']),
				closed({ any: { $ref: '#/$defs/conditions' } }, ['any']),
				closed({ not: { $ref: '#/$defs/condition' } }, ['not']),
				closed(
					{
						column: name,
						kind: { enum: COLUMN_KINDS },
						any: { const: true },
						rows: { type: 'array', minItems: 1, items: { type: 'string' } },
						is: { enum: COMPARISONS },
						value: {}
					},
					['is']
				)
			]
		}
	}
};

const index = { type: 'integer', minimum: 0, maximum: 1_000_000 };
const extent = { type: 'integer', minimum: 1, maximum: 1_000_000 };

const touch = partSettings((path) => !path.startsWith('lines.between'));

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
				items: closed({ kind: { enum: COLUMN_KINDS }, name: { type: 'string' } }, ['kind'])
			},
			firstColumns: index,
			lastColumns: index,
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
