import { SIDES } from '../table/grid.ts';
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import { InputError } from '../errors.ts';
import { once } from '../once.ts';
import { TABLE_SCHEMA } from '../style/schema.ts';
import { ASPECTS, LINE_PATTERNS } from '../style/types.ts';
import { INK_PATTERN } from '../properties/property.ts';
import { ROLE_PATTERN } from '../roles/index.ts';
import { COLUMN_KINDS } from '../table/columns.ts';
import { LENGTH_PATTERN } from '../units.ts';
import { FORMULA_DOCUMENT, FORMULA_SCHEMA } from '../values/formula.ts';
import { GROUPINGS } from '../values/parse.ts';
import { SUMMARIES } from '../values/summary.ts';
import type { Patch } from './patch.ts';
import { MOST_INTEGER } from '../well-formed.ts';
import { LOCKS, MOST_CELLS, MOST_COLUMNS, workFault, type WorkTable } from './table.ts';

const closed = (properties: object, required: readonly string[] = []) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required
});
const natural = { type: 'integer', minimum: 0, maximum: 1_000_000_000 };
const span = { type: 'integer', minimum: 1, maximum: MOST_CELLS };
const text = { type: 'string', maxLength: 200_000 };
const length = { type: 'integer', minimum: 0, maximum: 100_000_000 };
const line = closed({
	pattern: { enum: [...LINE_PATTERNS, null] },
	weight: { type: ['string', 'null'], pattern: LENGTH_PATTERN },
	ink: { type: ['string', 'null'], pattern: `${INK_PATTERN}|^none$` }
});
const lines = closed(Object.fromEntries(SIDES.map((side) => [side, line])));
const run = closed(
	{
		text,
		weight: { type: 'number' },
		italic: { type: 'boolean' },
		underline: { enum: ['none', 'single', 'double'] },
		ink: { type: 'string', pattern: '^#[0-9A-Fa-f]{6}$' },
		position: { enum: ['super', 'sub'] },
		link: { type: 'string', maxLength: 2_000 }
	},
	['text']
);
const content = {
	type: 'array',
	maxItems: 10_000,
	items: {
		oneOf: [
			closed({ runs: { type: 'array', maxItems: 10_000, items: run } }, ['runs']),
			closed({ nested: natural }, ['nested'])
		]
	}
};
/** A picture's address holds the picture itself, so that nothing is ever loaded from elsewhere. */
const PICTURE_PATTERN = '^data:image/(png|jpeg|svg\\+xml);base64,[A-Za-z0-9+/=]+$';
const cell = closed(
	{
		text,
		content,
		rows: span,
		cols: span,
		touch: { $ref: 'heptarch-table#/$defs/touch' },
		lines,
		lock: { enum: LOCKS },
		total: { enum: SUMMARIES },
		formula: FORMULA_SCHEMA,
		picture: closed(
			{
				source: { type: 'string', maxLength: 8_000_000, pattern: PICTURE_PATTERN },
				pixels: { type: 'string', maxLength: 8_000_000, pattern: PICTURE_PATTERN },
				alternative: { type: 'string', maxLength: 1_000 },
				width: length,
				height: length,
				fits: { enum: ['cell', 'row'] }
			},
			['source', 'alternative', 'width', 'height', 'fits']
		),
		from: natural
	},
	['text']
);
const row = closed(
	{
		id: natural,
		role: { type: 'string', pattern: ROLE_PATTERN },
		height: length,
		cells: {
			type: 'array',
			minItems: 1,
			maxItems: MOST_COLUMNS,
			items: {
				if: { type: 'object', required: ['covered'] },
				then: closed({ covered: { const: true }, lines }, ['covered']),
				else: cell
			}
		}
	},
	['id', 'role', 'cells']
);
const rows = { type: 'array', maxItems: MOST_CELLS, items: row };
const column = closed(
	{
		kind: { enum: COLUMN_KINDS },
		isGuessed: { const: true },
		width: length,
		formula: FORMULA_SCHEMA,
		across: { enum: SUMMARIES }
	},
	['kind']
);
const rest = {
	columns: { type: 'array', minItems: 1, maxItems: MOST_COLUMNS, items: column },
	firstColumns: natural,
	lastColumns: natural,
	mark: { enum: ['.', ','] },
	nextId: natural
};
const said = {
	isMarkSaid: { const: true },
	dir: { const: 'rtl' },
	dates: { enum: ['day', 'month'] },
	grouping: { enum: GROUPINGS }
};
const wears = closed({
	style: { type: 'string', pattern: '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' },
	edition: { type: 'integer', minimum: 1, maximum: MOST_INTEGER },
	pinned: { type: 'boolean' },
	partsOff: { type: 'array', maxItems: 200, items: { type: 'string', maxLength: 200 } },
	carry: { type: 'array', uniqueItems: true, items: { enum: ASPECTS } },
	cleared: { type: 'boolean' }
});

const ajv = once(() =>
	new Ajv2020({ allowUnionTypes: true, unicodeRegExp: true }).addSchema([TABLE_SCHEMA, FORMULA_DOCUMENT])
);
const isWork = once(() => ajv().compile(closed({ rows, ...rest, ...said, wears }, ['rows', ...Object.keys(rest)])));
const isPatch = once(() =>
	ajv().compile(
		closed({
			order: {
				type: 'array',
				maxItems: MOST_CELLS,
				items: { type: 'array', minItems: 2, maxItems: 2, items: natural }
			},
			rows,
			rest: closed({ ...rest, ...said, wears }, Object.keys(rest))
		})
	)
);

function check(validate: ValidateFunction, what: string, value: unknown): void {
	if (validate(value)) return;
	const error = validate.errors![0]!;
	throw new InputError(
		'work',
		`This is not a valid ${what}: ${error.instancePath || 'at the top'} ${error.message}.`,
		error.instancePath || '/'
	);
}

/** Returns `value` as a table that is worked on. Throws InputError with the place and the reason where it is none. */
export function checkWork(value: unknown): WorkTable {
	check(isWork(), 'table', value);
	const work = value as WorkTable;
	const fault = workFault(work);
	if (fault) throw new InputError('work', `This is not a whole table: ${fault}.`, '/rows');
	return work;
}

/** Returns `value` as a change of such a table; whether it fits one is found when it is applied. */
export function checkPatch(value: unknown): Patch {
	check(isPatch(), 'change of a table', value);
	return value as Patch;
}
