import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import { InputError } from '../core/errors.ts';
import { COLUMN_KINDS, ROLE_PATTERN } from '../core/table/roles.ts';
import { ASPECTS } from '../core/style/types.ts';

const ajv = new Ajv2020({ allowUnionTypes: true });

const uuid = { type: 'string', pattern: '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$' };
const byNumber = (value: object) => ({
	type: 'object',
	propertyNames: { pattern: '^\\d{1,6}$' },
	additionalProperties: value
});
const closed = (properties: object, required: string[]) => ({
	type: 'object',
	additionalProperties: false,
	properties,
	required
});
const step = { type: 'integer', minimum: 0 };

const tableState = closed(
	{
		style: uuid,
		roles: byNumber({ type: 'string', pattern: ROLE_PATTERN }),
		kinds: byNumber({ enum: COLUMN_KINDS }),
		firstColumns: { type: 'integer', minimum: 0, maximum: 1000 },
		lastColumns: { type: 'integer', minimum: 0, maximum: 1000 },
		partsOff: { type: 'array', maxItems: 200, items: { type: 'string', maxLength: 200 } },
		carry: { type: 'array', uniqueItems: true, items: { enum: ASPECTS } }
	},
	[]
);

/** What the server routes take, as JSON Schemas. */
const SCHEMAS = {
	newStep: closed(
		{ after: step, label: { type: 'string', minLength: 1, maxLength: 200 }, tables: byNumber(tableState) },
		['after', 'label', 'tables']
	),
	moveStep: closed({ from: step, to: step }, ['from', 'to']),
	newStyle: closed({ from: uuid, how: { enum: ['inherit', 'copy'] }, definition: { type: 'object' } }, []),
	saveStyle: closed({ version: { type: 'integer', minimum: 1 }, definition: { type: 'object' } }, [
		'version',
		'definition'
	]),
	removeStyle: closed({ replacement: uuid }, [])
} as const;

export interface Requests {
	newStep: { after: number; label: string; tables: Record<number, import('../workbench/state.ts').TableState> };
	moveStep: { from: number; to: number };
	newStyle: { from?: string; how?: 'inherit' | 'copy'; definition?: unknown };
	saveStyle: { version: number; definition: unknown };
	removeStyle: { replacement?: string };
}

const validators = Object.fromEntries(
	Object.entries(SCHEMAS).map(([name, schema]) => [name, ajv.compile(schema)])
) as Record<keyof Requests, ValidateFunction>;
const isUuid = new RegExp(uuid.pattern);

/** Reads a JSON request body of the named kind. Throws InputError saying what is wrong where. */
export async function readRequest<K extends keyof Requests>(request: Request, kind: K): Promise<Requests[K]> {
	let body: unknown;
	try {
		body = await request.json();
	} catch {
		throw new InputError('request', 'The request is not JSON.');
	}
	const validate = validators[kind];
	if (!validate(body)) {
		const error = validate.errors![0]!;
		throw new InputError(
			'request',
			`The request is not as it should be: ${error.instancePath || 'at the top'} ${error.message}.`,
			error.instancePath || '/'
		);
	}
	return body as Requests[K];
}

/** An id from an address. */
export function readId(text: string, what: string): string {
	if (!isUuid.test(text)) throw new InputError('request', `“${text}” is not the id of a ${what}.`);
	return text;
}
