import { Ajv2020 } from 'ajv/dist/2020.js';
import { InputError } from '../errors.ts';
import { once } from '../once.ts';
import { STYLE_SCHEMA } from '../style/schema.ts';
import { ROLE_PATTERN } from '../roles/index.ts';
import { COLUMN_KINDS } from '../table/columns.ts';
import { LENGTH_PATTERN } from '../units.ts';
import { FORMULA_DOCUMENT } from '../values/formula.ts';
import { scheduleSchema, type ScheduleDefinition } from './definition.ts';
import { CORNERS, type PlacedTable } from './placed.ts';
import { checkWork } from '../work/validate.ts';
import { checkNames, MOST_ROWS } from './rows.ts';

const closed = (properties: object, required: readonly string[]) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required
});
const text = { type: 'string', maxLength: 20_000 };
const name = { type: 'string', minLength: 1, maxLength: 200 };
const length = { type: 'number', minimum: -1_000_000, maximum: 1_000_000 };

/** JSON Schema (2020-12) of a schedule's definition. Published at `/schema/schedule.json`. */
export const SCHEDULE_SCHEMA = {
	$schema: 'https://json-schema.org/draft/2020-12/schema',
	$id: 'heptarch-schedule',
	title: 'Heptarch schedule',
	...scheduleSchema({ $ref: '#/$defs/condition' }),
	$defs: { ...(STYLE_SCHEMA.$defs as object), ...FORMULA_DOCUMENT.$defs }
};

const definition = { $ref: 'heptarch-schedule' };
const rows = closed(
	{
		columns: {
			type: 'array',
			minItems: 1,
			maxItems: 60,
			items: closed(
				{
					name,
					kind: { enum: COLUMN_KINDS },
					width: { type: 'string', pattern: LENGTH_PATTERN },
					turned: { type: 'boolean' },
					typed: { type: 'boolean' }
				},
				['name']
			)
		},
		rows: {
			type: 'array',
			maxItems: MOST_ROWS * 2,
			items: closed(
				{
					key: { type: 'string' },
					role: { type: 'string', pattern: ROLE_PATTERN },
					cells: { type: 'array', maxItems: 60, items: closed({ text, symbol: name, over: text }, ['text']) },
					objects: { type: 'array', items: { type: 'string' } }
				},
				['key', 'role', 'cells', 'objects']
			)
		},
		problems: { type: 'array', items: { type: 'string' } }
	},
	['columns', 'rows', 'problems']
);

/** JSON Schema of a table on a sheet. */
export const PLACED_SCHEMA = closed(
	{
		id: { type: 'string', pattern: '^[A-Za-z_][A-Za-z0-9_-]{0,99}$' },
		source: {
			oneOf: [
				closed(
					{
						from: { const: 'objects' },
						definition,
						with: { type: 'array', maxItems: 200, items: closed({ id: name, name }, ['id', 'name']) }
					},
					['from', 'definition']
				),
				closed({ from: { const: 'revisions' } }, ['from']),
				closed({ from: { const: 'bench' }, work: { type: 'object' } }, ['from', 'work'])
			]
		},
		rows,
		at: closed({ x: length, y: length }, ['x', 'y']),
		corner: { enum: CORNERS },
		reads: { enum: ['down', 'up'] },
		widths: {
			type: 'object',
			maxProperties: 60,
			additionalProperties: { type: 'number', minimum: 0.5, maximum: 100_000 }
		},
		textHeight: { type: 'number', minimum: 0.5, maximum: 1_000 },
		seriesLines: { type: 'boolean' }
	},
	['id', 'source', 'rows', 'at', 'corner', 'reads']
);

const ajv = once(() => new Ajv2020({ allowUnionTypes: true, unicodeRegExp: true }).addSchema(SCHEDULE_SCHEMA));
const validators = {
	definition: once(() => ajv().getSchema('heptarch-schedule')!),
	placed: once(() => ajv().compile(PLACED_SCHEMA))
};

function check(which: keyof typeof validators, what: string, value: unknown): void {
	const validate = validators[which]();
	if (validate(value)) return;
	const error = validate.errors![0]!;
	throw new InputError(
		'schedule',
		`This is not a valid ${what}: ${error.instancePath || 'at the top'} ${error.message}.`,
		error.instancePath || '/'
	);
}

/** Returns `value` as a schedule's definition. Throws InputError with the place and the reason where it is none. */
export function checkDefinition(value: unknown): ScheduleDefinition {
	check('definition', 'schedule', value);
	checkNames(value as ScheduleDefinition);
	return value as ScheduleDefinition;
}

/** Returns `value` as a table on a sheet. Throws InputError where it is none. */
export function checkPlaced(value: unknown): PlacedTable {
	check('placed', 'table on a sheet', value);
	const placed = value as PlacedTable;
	if (placed.source.from === 'objects') checkNames(placed.source.definition);
	if (placed.source.from === 'bench') checkWork(placed.source.work);
	if (placed.rows.rows.length === 0) throw new InputError('schedule', 'A table on a sheet has one row at least.');
	return placed;
}
