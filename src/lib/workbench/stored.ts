import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import { once } from '../core/once.ts';
import { MOST_INTEGER } from '../core/well-formed.ts';
import { ROLE_PATTERN } from '../core/roles/index.ts';
import { COLUMN_KINDS } from '../core/table/columns.ts';
import { PURPOSES } from '../core/recognise/purpose/kinds.ts';
import { TOUCH_SCHEMA } from '../core/style/schema.ts';
import { ASPECTS } from '../core/style/types.ts';
import { mapTables, type DocumentState, type TableState } from './state.ts';

/* JSON Schemas of what is kept of tables: the same for what comes in and for what was stored. */

export const UUID = { type: 'string', pattern: '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' };
/** A record by index, as JSON has it: by numbers written as text. */
export const byIndex = (value: object) => ({
	type: 'object',
	propertyNames: { pattern: '^\\d{1,6}$' },
	additionalProperties: value
});
export const closed = <P extends object>(properties: P, required: string[]) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required
});
export const PARTS_OFF = { type: 'array', maxItems: 200, items: { type: 'string', maxLength: 200 } };
export const CARRY = { type: 'array', uniqueItems: true, items: { enum: ASPECTS } };

export const TABLE_STATE = closed(
	{
		style: UUID,
		edition: { type: 'integer', minimum: 1, maximum: MOST_INTEGER },
		pinned: { type: 'boolean' },
		roles: byIndex({ type: 'string', pattern: ROLE_PATTERN }),
		kinds: byIndex({ enum: COLUMN_KINDS }),
		mark: { enum: ['.', ','] },
		purpose: { enum: PURPOSES },
		firstColumns: { type: 'integer', minimum: 0, maximum: 1000 },
		lastColumns: { type: 'integer', minimum: 0, maximum: 1000 },
		partsOff: PARTS_OFF,
		carry: CARRY,
		touches: { type: 'array', maxItems: 20_000, items: TOUCH_SCHEMA },
		cleared: { type: 'boolean' },
		work: { type: 'integer', minimum: 1, maximum: Number.MAX_SAFE_INTEGER },
		dropsEmphasis: { type: 'boolean' },
		widths: { type: 'array', maxItems: 16_384, items: { type: 'integer', minimum: 0, maximum: 100_000_000 } },
		unreadable: closed({ why: { type: 'string', maxLength: 2_000 }, stored: {} }, ['why', 'stored'])
	},
	[]
);

const ajv = once(() => new Ajv2020({ allowUnionTypes: true, unicodeRegExp: true }));
const isTableState = once<ValidateFunction>(() => ajv().compile(TABLE_STATE));
const isRole = once<ValidateFunction>(() => ajv().compile({ type: 'string', pattern: ROLE_PATTERN }));

/**
 * A stored state in which every table can be read. One that cannot says so, and keeps what was stored, in the place of
 * whatever it said: the table is as its file has it, and all other tables are as they were.
 */
export const readState = (state: DocumentState): DocumentState =>
	mapTables(state, (own): TableState => {
		const validate = isTableState();
		if (validate(own)) return own;
		const { instancePath } = validate.errors![0]!;
		return { unreadable: { why: whatIs(own, instancePath), stored: own } };
	});

const LONGEST = 60;
/** What stands at a place of a value, named by its JSON Pointer (RFC 6901), in words. */
function whatIs(value: unknown, pointer: string): string {
	const keys = pointer.split('/').slice(1);
	const at = keys.reduce((inside, key) => (inside as Record<string, unknown>)[unescaped(key)], value);
	const text = JSON.stringify(at);
	return `${keys.map(unescaped).join(' ') || 'it'} is ${text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text}`;
}
const unescaped = (key: string): string => key.replaceAll('~1', '/').replaceAll('~0', '~');

/** Whether a value that was stored is the role of a row. */
export const isStoredRole = (value: unknown): boolean => isRole()(value);
