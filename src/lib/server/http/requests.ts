import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js';
import { PAPERS, type PaperName } from '../../core/layout/paper.ts';
import { TRAVELS } from '../../formats/job.ts';
import { OPENED, OUT_KINDS } from '../../formats/kinds.ts';
import type { Output } from '../documents/writing.ts';
import { InputError } from '../../core/errors.ts';
import { DOCUMENT_ORDERS, type DocumentQuery } from '../documents/list.ts';
import { MOST_KEPT_DAYS } from '../../workbench/house.ts';
import { checkWellFormed, MOST_INTEGER, wellFormed } from '../../core/well-formed.ts';
import type { PlacedTable } from '../../core/schedule/placed.ts';
import { checkPlaced } from '../../core/schedule/validate.ts';
import type { Patch } from '../../core/work/patch.ts';
import type { WorkTable } from '../../core/work/table.ts';
import { checkPatch, checkWork } from '../../core/work/validate.ts';
import type { StarterWears } from '../database.ts';
import type { RunWish } from '../runs/runs.ts';
import type { ProposalAnswer } from '../styles/proposals.ts';
import type { Among, CensusOf } from '../census/among.ts';
import type { DrawingEdits } from '../../formats/svg/read.ts';
import { UNITS } from '../../formats/svg/sheet.ts';
import type { TableState } from '../../workbench/state.ts';
import { byIndex, CARRY, closed, PARTS_OFF, TABLE_STATE, UUID } from '../../workbench/stored.ts';
import type { Aspect, Condition, PartSettings } from '../../core/style/types.ts';
import { EVENT_NAMES, type EventName } from '../../workbench/events.ts';
import { ROLES, type Role } from '../../workbench/roles.ts';
import { CLASH_CHOICES, type ClashChoice } from '../../workbench/stylebook.ts';

const ajv = new Ajv2020({ allowUnionTypes: true, unicodeRegExp: true });

const step = { type: 'integer', minimum: 0, maximum: MOST_INTEGER };
/** What a window saw of a document: it counts from 0 with every change, undo and redo among them. */
const version = { type: 'integer', minimum: 0, maximum: MOST_INTEGER };
const count = { type: 'integer', minimum: 1, maximum: MOST_INTEGER };
const label = { type: 'string', minLength: 1, maxLength: 200 };
const renaming = { type: 'object', maxProperties: 500, additionalProperties: { type: 'string', maxLength: 200 } };

const workStep = { type: ['integer', 'null'], minimum: 1, maximum: Number.MAX_SAFE_INTEGER };
const tableName = { type: 'string', minLength: 1, maxLength: 120, pattern: '\\S' };
const words = { type: 'string', maxLength: 2_000 };
const wears = closed(
	{
		style: UUID,
		edition: count,
		pinned: { type: 'boolean' },
		partsOff: PARTS_OFF,
		carry: CARRY
	},
	[]
);
/** What a person or a house is called. */
const personName = { type: 'string', minLength: 1, maxLength: 100, pattern: '\\S' };
const password = { type: 'string', maxLength: 128 };
const role = { enum: ROLES };
/** A place in a document: after which of its blocks; −1 before the first. */
const into = closed({ document: UUID, after: { type: 'integer', minimum: -1, maximum: MOST_INTEGER }, version }, [
	'document',
	'after',
	'version'
]);

const sheetAnswer = closed(
	{ scale: { type: 'number', exclusiveMinimum: 0, maximum: 1_000_000 }, unit: { enum: Object.keys(UNITS) } },
	[]
);
/** Looked through by {@link checkPlaced}, which says what is wrong. */
const placed = { type: 'object' };
const drawing = closed(
	{
		sheet: sheetAnswer,
		placed: { type: 'array', maxItems: 200, items: placed },
		attributes: {
			type: 'object',
			maxProperties: 10_000,
			additionalProperties: {
				type: 'object',
				propertyNames: { pattern: '^[a-z][a-z0-9_.-]{0,60}$' },
				additionalProperties: { type: ['string', 'null'], maxLength: 2_000 }
			}
		}
	},
	[]
);

/** What the server routes take, as JSON Schemas. */
export const SCHEMAS = {
	newStep: closed({ version, label, tables: byIndex(TABLE_STATE), drawing }, ['version', 'label', 'tables']),
	drawTables: closed(
		{
			tables: { type: 'array', maxItems: 60, items: closed({ placed, state: TABLE_STATE }, ['placed', 'state']) }
		},
		['tables']
	),
	reuseSchedule: closed(
		{ placed, state: TABLE_STATE, drawings: { type: 'array', minItems: 1, maxItems: 500, items: UUID } },
		['placed', 'state', 'drawings']
	),
	moveStep: closed({ version, to: step }, ['version', 'to']),
	newWork: closed({ after: workStep, label, patch: { type: 'object' } }, ['after', 'label', 'patch']),
	moveWork: closed({ from: workStep, to: step }, ['from', 'to']),
	newTable: closed({ name: tableName, work: { type: 'object' }, wears, into, starter: UUID }, [
		'name',
		'work',
		'wears'
	]),
	promote: closed(
		{ place: { type: 'string', minLength: 1, maxLength: 200 }, set: { type: 'object' }, where: { type: 'object' } },
		['place', 'set']
	),
	newStarter: closed(
		{ name: tableName, category: words, description: words, work: { type: 'object' }, wears, document: UUID },
		['name', 'category', 'description', 'work', 'wears']
	),
	changeStarter: closed({ version: count, name: tableName, category: words, description: words }, ['version']),
	takeOut: closed({ version }, ['version']),
	lift: closed(
		{
			table: step,
			name: { type: 'string', minLength: 1, maxLength: 100, pattern: '\\S' },
			wear: { type: 'boolean' },
			version
		},
		['table', 'name', 'wear', 'version']
	),
	startRun: closed(
		{
			style: UUID,
			bring: closed({ setting: { type: 'string', maxLength: 100 }, value: { type: 'string', maxLength: 500 } }, [
				'setting',
				'value'
			]),
			mend: { type: 'string', maxLength: 100 },
			documents: { type: 'array', minItems: 1, maxItems: 2_000, items: UUID },
			kind: { enum: OPENED.map(({ kind }) => kind) },
			among: {
				...closed(
					{
						looks: { type: 'array', minItems: 1, maxItems: 500, items: count },
						setting: { type: 'string', maxLength: 100 },
						values: { type: 'array', minItems: 1, maxItems: 500, items: { type: 'string', maxLength: 500 } },
						finding: { type: 'string', maxLength: 100 },
						rule: { type: 'string', maxLength: 100 }
					},
					[]
				),
				oneOf: [['looks'], ['setting', 'values'], ['finding'], ['rule']].map((required) => ({
					required,
					maxProperties: required.length
				}))
			},
			partsOff: PARTS_OFF,
			carry: CARRY,
			takesAll: { type: 'boolean' }
		},
		[]
	),
	startReread: closed({ documents: { type: 'array', minItems: 1, maxItems: 2_000, items: UUID } }, ['documents']),
	changeRun: closed({ to: { enum: ['stop', 'resume', 'undo'] } }, ['to']),
	keepDocument: closed({ archived: { type: 'boolean' }, removed: { const: false } }, []),
	keepStyle: closed({ aside: { type: 'boolean' } }, ['aside']),
	useStyle: {
		...closed(
			{
				kinds: {
					type: 'array',
					minItems: 1,
					maxItems: OPENED.length,
					uniqueItems: true,
					items: { enum: OPENED.map(({ kind }) => kind) }
				},
				document: UUID
			},
			[]
		),
		maxProperties: 1
	},
	newStyle: closed(
		{
			from: UUID,
			how: { enum: ['inherit', 'copy'] },
			name: label,
			description: { type: 'string', maxLength: 4000 },
			definition: { type: 'object' }
		},
		[]
	),
	saveStyle: closed(
		{
			version: count,
			from: step,
			at: step,
			steps: {
				type: 'array',
				maxItems: 500,
				items: closed({ label, definition: { type: 'object' } }, ['label', 'definition'])
			}
		},
		['version', 'from', 'at', 'steps']
	),
	pushUp: closed(
		{ version: count, place: { type: 'string', maxLength: 200 }, path: { type: 'string', maxLength: 60 } },
		['version', 'place', 'path']
	),
	chooseSpecimens: closed(
		{ keys: { type: ['array', 'null'], maxItems: 12, items: { type: 'string', maxLength: 60 } } },
		['keys']
	),
	publish: closed({ version: count, note: { type: 'string', maxLength: 2000 } }, ['version', 'note']),
	answerProposal: closed(
		{ answer: { enum: ['publish', 'send back', 'take back'] }, note: { type: 'string', maxLength: 2000 } },
		['answer', 'note']
	),
	/** What is absent stays as it is; null is as recognised (RFC 7396). */
	changeTable: closed(
		Object.fromEntries(
			Object.entries(TABLE_STATE.properties)
				.filter(([name]) => name !== 'work' && name !== 'unreadable')
				.map(([name, schema]) => [name, { anyOf: [schema, { type: 'null' }] }])
		),
		[]
	),
	applyStyle: closed(
		{
			style: UUID,
			edition: count,
			tables: { type: 'array', minItems: 1, maxItems: 10_000, uniqueItems: true, items: step },
			partsOff: PARTS_OFF,
			carry: CARRY
		},
		['style']
	),
	goToStep: closed({ to: step }, ['to']),
	note: closed({ note: { type: 'string', maxLength: 2000 } }, []),
	/** Looked through by {@link checkStyle}, which says what is wrong. */
	styleFile: { type: 'object' },
	newToken: closed({ name: personName, role, days: { type: 'integer', minimum: 1, maximum: 366 } }, [
		'name',
		'role',
		'days'
	]),
	newWebhook: closed(
		{
			url: { type: 'string', maxLength: 2_000 },
			events: { type: 'array', minItems: 1, uniqueItems: true, items: { enum: EVENT_NAMES } }
		},
		['url', 'events']
	),
	keeping: closed({ days: { type: ['integer', 'null'], minimum: 1, maximum: MOST_KEPT_DAYS } }, ['days']),
	secondEyes: closed({ asks: { type: 'boolean' } }, ['asks']),
	rollOut: closed({ edition: count, documents: { type: 'array', minItems: 1, maxItems: 10_000, items: UUID } }, [
		'edition',
		'documents'
	]),
	changeHouse: closed(
		{
			version: count,
			label,
			state: closed(
				{
					inks: { type: 'object' },
					typeRoles: { type: 'object' },
					locale: { type: 'string', minLength: 2, maxLength: 20 },
					/** Looked through by checkPolicy, which says what is wrong. */
					policy: { type: ['object', 'null'] }
				},
				['inks', 'typeRoles', 'locale']
			),
			inks: renaming,
			typeRoles: renaming
		},
		['version', 'label', 'state']
	),
	mendTables: closed(
		{
			version,
			rule: { type: 'string', maxLength: 100 },
			tables: { type: 'array', minItems: 1, maxItems: 10_000, uniqueItems: true, items: step }
		},
		['version', 'rule', 'tables']
	),
	moveHouse: closed({ version: count, to: step }, ['version', 'to']),
	removeStyle: closed({ replacement: UUID }, []),
	signIn: closed({ username: personName, password }, ['username', 'password']),
	workIn: closed({ house: UUID }, ['house']),
	goTo: closed({ to: { type: 'string', maxLength: 2_000, pattern: '^/(?![/\\\\])' } }, ['to']),
	sayCode: closed({ code: { type: 'string', minLength: 6, maxLength: 40 } }, ['code']),
	showPassword: closed({ password }, ['password']),
	enter: closed({ name: personName, username: personName, password }, []),
	renameMe: closed({ name: personName }, ['name']),
	setPassword: closed({ username: personName, password, old: password }, ['username', 'password']),
	invite: closed({ name: { type: 'string', maxLength: 100 }, role }, ['role']),
	setRole: closed({ role }, ['role']),
	nameHouse: closed({ name: personName }, ['name'])
} as const;

export interface Requests {
	newStep: {
		version: number;
		label: string;
		tables: Record<number, TableState>;
		drawing?: DrawingEdits;
	};
	drawTables: { tables: { placed: PlacedTable; state: TableState }[] };
	reuseSchedule: { placed: PlacedTable; state: TableState; drawings: string[] };
	moveStep: { version: number; to: number };
	newWork: { after: number | null; label: string; patch: Patch };
	moveWork: { from: number | null; to: number };
	newTable: {
		name: string;
		work: WorkTable;
		wears: StarterWears;
		into?: { document: string; after: number; version: number };
		/** The one that it is made from. */
		starter?: string;
	};
	promote: { place: string; set: PartSettings; where?: Condition };
	newStarter: {
		name: string;
		category: string;
		description: string;
		work: WorkTable;
		wears: StarterWears;
		document?: string;
	};
	changeStarter: { version: number; name?: string; category?: string; description?: string };
	takeOut: { version: number };
	lift: { table: number; name: string; wear: boolean; version: number };
	startRun: RunWish;
	startReread: { documents: string[] };
	changeRun: { to: 'stop' | 'resume' | 'undo' };
	keepDocument: { archived?: boolean; removed?: false };
	keepStyle: { aside: boolean };
	useStyle: { kinds?: readonly string[]; document?: string };
	newStyle: { from?: string; how?: 'inherit' | 'copy'; name?: string; description?: string; definition?: unknown };
	saveStyle: { version: number; from: number; at: number; steps: { label: string; definition: unknown }[] };
	pushUp: { version: number; place: string; path: string };
	chooseSpecimens: { keys: string[] | null };
	publish: { version: number; note: string };
	answerProposal: { answer: ProposalAnswer; note: string };
	changeTable: { [K in Exclude<keyof TableState, 'work' | 'unreadable'>]?: TableState[K] | null };
	applyStyle: { style: string; edition?: number; tables?: number[]; partsOff?: string[]; carry?: Aspect[] };
	goToStep: { to: number };
	note: { note?: string };
	styleFile: object;
	newToken: { name: string; role: Role; days: number };
	newWebhook: { url: string; events: EventName[] };
	keeping: { days: number | null };
	secondEyes: { asks: boolean };
	rollOut: { edition: number; documents: string[] };
	changeHouse: {
		version: number;
		label: string;
		state: {
			inks: Record<string, unknown>;
			typeRoles: Record<string, unknown>;
			locale: string;
			policy?: unknown;
		};
		inks?: Record<string, string>;
		typeRoles?: Record<string, string>;
	};
	mendTables: { version: number; rule: string; tables: number[] };
	moveHouse: { version: number; to: number };
	removeStyle: { replacement?: string };
	signIn: { username: string; password: string };
	workIn: { house: string };
	goTo: { to: string };
	sayCode: { code: string };
	showPassword: { password: string };
	enter: { name?: string; username?: string; password?: string };
	renameMe: { name: string };
	setPassword: { username: string; password: string; old?: string };
	invite: { name?: string; role: Role };
	setRole: { role: Role };
	nameHouse: { name: string };
}

const validators = Object.fromEntries(
	Object.entries(SCHEMAS).map(([name, schema]) => [name, ajv.compile(schema)])
) as Record<keyof Requests, ValidateFunction>;
const uuidPattern = new RegExp(UUID.pattern);
export const isUuid = (text: string): boolean => uuidPattern.test(text);

/** What the server's own limit of a body says, once a body without a length has gone over it. */
export const isTooLarge = (error: unknown): boolean =>
	error instanceof Error && (error as { status?: number }).status === 413;

/** Reads a JSON request body of the named kind. Throws InputError saying what is wrong where. */
export async function readRequest<K extends keyof Requests>(request: Request, kind: K): Promise<Requests[K]> {
	let body: unknown;
	if (!/^application\/([\w.-]+\+)?json\b/i.test(request.headers.get('content-type') ?? ''))
		throw new InputError('media-type', 'This address takes JSON: its media type is application/json.');
	try {
		body = await request.json();
	} catch (error) {
		if (isTooLarge(error)) throw new InputError('too-large', 'The request is larger than what is taken.');
		throw new InputError('request', 'The request is not JSON.');
	}
	checkWellFormed(body);
	const validate = validators[kind];
	if (!validate(body)) {
		const error = validate.errors![0]!;
		throw new InputError(
			'request',
			`The request is not as it should be: ${error.instancePath || 'at the top'} ${error.message}.`,
			error.instancePath || '/'
		);
	}
	if (kind === 'newStep') (body as Requests['newStep']).drawing?.placed?.forEach(checkPlaced);
	if (kind === 'newWork') checkPatch((body as Requests['newWork']).patch);
	if (kind === 'newTable' || kind === 'newStarter') checkWork((body as Requests['newTable']).work);
	if (kind === 'reuseSchedule') checkPlaced((body as Requests['reuseSchedule']).placed);
	if (kind === 'drawTables') (body as Requests['drawTables']).tables.forEach((one) => checkPlaced(one.placed));
	return body as Requests[K];
}

/** An id from an address. */
export function readId(text: string, what: string): string {
	if (!isUuid(text)) throw new InputError('request', `“${text}” is not the id of a ${what}.`);
	return text;
}

/** Pairs of table indices in an address, as `pairs=0:2,1:0`; undefined where nobody says any. */
export function readPairs(url: URL): [number, number][] | undefined {
	const text = url.searchParams.get('pairs');
	if (text === null) return undefined;
	return text
		.split(',')
		.filter(Boolean)
		.map((pair) => {
			const [, old, now] = /^(\d{1,6}):(\d{1,6})$/.exec(pair) ?? [];
			if (old === undefined) throw new InputError('request', `“${pair}” is no pair of tables, such as 0:2.`, '/pairs');
			return [Number(old), Number(now)];
		});
}

/** A number from 0 in an address. */
export function readIndex(url: URL, name: string): number {
	const text = url.searchParams.get(name) ?? '';
	if (!/^\d{1,6}$/.test(text)) throw new InputError('request', `“${name}” in the address is to be a number from 0.`);
	return Number(text);
}

/** What becomes of names that are taken, by name, as JSON in an address; none where it is absent. */
export function readChoices(url: URL): Record<string, ClashChoice> {
	const fault = new InputError(
		'request',
		`“choices” in the address is to say ${CLASH_CHOICES.join(', ')} for names, as JSON.`
	);
	let value: unknown;
	try {
		value = JSON.parse(url.searchParams.get('choices') ?? '{}');
	} catch {
		throw fault;
	}
	if (typeof value !== 'object' || value === null || Array.isArray(value)) throw fault;
	if (!Object.values(value).every((choice) => CLASH_CHOICES.includes(choice as ClashChoice))) throw fault;
	return value as Record<string, ClashChoice>;
}

const one = <T extends string>(url: URL, name: string, known: readonly T[], what: string): T | undefined => {
	const value = url.searchParams.get(name);
	if (value === null) return undefined;
	if (!known.includes(value as T))
		throw new InputError('request', `“${value}” is not ${what}; there are: ${known.join(', ')}.`);
	return value as T;
};

/** What an address asks to be written: `as` a format, `travel`, only some `tables` (numbers from 0), on what `paper`. */
export function readOutput(url: URL): Output {
	const tables = url.searchParams.get('tables');
	if (tables !== null && !/^\d{1,6}(,\d{1,6})*$/.test(tables))
		throw new InputError('request', '“tables” in the address is to be numbers from 0 with commas between them.');
	return {
		to: one(url, 'as', OUT_KINDS, 'a format to take a file in'),
		as: one(url, 'travel', TRAVELS, 'a way for looks to travel'),
		only: tables?.split(',').map(Number),
		paper: {
			name: one(url, 'paper', Object.keys(PAPERS) as PaperName[], 'a paper') ?? 'A4',
			across: url.searchParams.get('across') === '1'
		}
	};
}

/** Which documents an address asks for: `find` words, `kinds`, `archived`, `sort`, `down`, a page `after` another, `most` on it. */
export function readDocumentQuery(url: URL): DocumentQuery {
	const given = (name: string) => url.searchParams.get(name) ?? undefined;
	const most = given('most');
	if (most !== undefined && !/^[1-9]\d{0,2}$/.test(most))
		throw new InputError('request', '“most” in the address is to be a number from 1 to 999.');
	return {
		find: wellFormed(given('find') ?? ''),
		kinds: given('kinds')?.split(',').map(wellFormed),
		archived: given('archived') === '1',
		sort: one(url, 'sort', DOCUMENT_ORDERS, 'an order of documents'),
		down: url.searchParams.has('sort') ? given('down') === '1' : undefined,
		after: given('after'),
		most: most === undefined ? undefined : Number(most)
	};
}

/** Which documents a census is of: those of a `kind`, those with the ids in `documents`. */
export function readCensusOf(url: URL): CensusOf {
	const documents = url.searchParams.get('documents')?.split(',').filter(Boolean);
	return {
		kind: one(
			url,
			'kind',
			OPENED.map(({ kind }) => kind),
			'a kind of document'
		),
		documents: documents?.slice(0, 2_000).map((id) => readId(id, 'document'))
	};
}

/** Some tables of them: `look`s, values of a `setting`, a `finding`, or a `rule`. */
export function readAmong(url: URL): Among {
	const { searchParams } = url;
	const [setting, finding, rule] = ['setting', 'finding', 'rule'].map((name) => searchParams.get(name));
	if (setting) return { setting: wellFormed(setting), values: searchParams.getAll('value').map(wellFormed) };
	if (finding) return { finding: wellFormed(finding) };
	if (rule) return { rule: wellFormed(rule) };
	const looks = searchParams.getAll('look').map((text) => readNumber(text, 'group of looks'));
	if (!looks.length) throw new InputError('request', 'Say which tables: “look”, “setting”, “finding” or “rule”.');
	return { looks };
}

/** A whole number from 0 in a path. */
export function readNumber(text: string, what: string): number {
	if (!/^\d{1,9}$/.test(text)) throw new InputError('request', `“${text}” is not the number of a ${what}.`);
	return Number(text);
}
