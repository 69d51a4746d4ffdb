import type { Measures, Policy, WantedRule } from '../core/policy/policy.ts';
import type { Purpose } from '../core/recognise/purpose/kinds.ts';
import type { StyleUse } from '../workbench/use.ts';
import {
	Kysely,
	PostgresDialect,
	type ColumnType,
	type Generated,
	type JSONColumnType,
	type RawBuilder,
	type Transaction
} from 'kysely';
import pg from 'pg';
import type { ScheduleRows } from '../core/schedule/rows.ts';
import type { FormerNames, Renamed } from '../core/house.ts';
import type { Style, TypeRole } from '../core/style/types.ts';
import type { Patch } from '../core/work/patch.ts';
import type { WorkTable } from '../core/work/table.ts';
import type { Role } from '../workbench/roles.ts';
import type { Corrections } from '../workbench/corrections.ts';
import type { DocumentState, TableState } from '../workbench/state.ts';
import type { HouseState } from '../workbench/house.ts';
import type { EventName } from '../workbench/events.ts';
import type { Along } from '../workbench/stylebook.ts';
import { StoreError } from './files/objects.ts';
import { acting } from './people/acting.ts';
import { RoleDialect } from './people/role-dialect.ts';
import type { Thumbnail } from '../workbench/thumbnail.ts';

type Timestamp = ColumnType<Date, Date | undefined, Date>;
/** Whoever did it, by their id; of itself whoever the transaction is for. */
type MadeBy = ColumnType<string | null, string | null | undefined, string | null>;

/** Every row but that of a house itself says whose it is; of itself the house that the transaction is for. */
export type Database = { houses: Houses; colleagues: Colleagues } & {
	[T in keyof Tables]: Tables[T] & { house_id: ColumnType<string, string | undefined, never> };
};

interface Houses {
	id: Generated<string>;
	name: string;
	inks: JSONColumnType<Record<string, string>>;
	type_roles: JSONColumnType<Record<string, TypeRole>>;
	/** BCP 47: how figures and dates are written. */
	locale: Generated<string>;
	/** What inks and type roles were called before. */
	former: ColumnType<FormerNames, string | undefined, string>;
	/** What it wants of its tables; styles by their ids. */
	policy: ColumnType<Policy | null, string | null | undefined, string | null>;
	version: Generated<number>;
	step: Generated<number>;
	/** An edition is published by somebody else than who proposed it. */
	second_eyes: Generated<boolean>;
	/** For how many days steps are kept; null: for good. */
	keep_days: ColumnType<number | null, number | null | undefined, number | null>;
	/** How often steps of work on tables were written anew. */
	work_rewritten: Generated<number>;
	created_at: Timestamp;
}

/** Who belongs or belonged to the house that is acted in. */
interface Colleagues {
	id: string;
	name: string;
	role: Role;
	since: Date;
	left_at: Date | null;
}

interface Tables {
	/** What was done to the house and its people; nothing of it is changed. */
	house_log: { id: Generated<number>; at: Timestamp; person_id: MadeBy; kind: string; words: string };
	house_steps: {
		step: number;
		label: string;
		state: JSONColumnType<HouseState>;
		renamed: JSONColumnType<Renamed>;
		styles: JSONColumnType<Along>;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	/** Contents by their hash; without bytes where they are in an object store. */
	files: { hash: string; bytes: Buffer | null; size: number; created_at: Timestamp };
	styles: {
		id: Generated<string>;
		name: string;
		/** The style it builds on; its definition's `basedOn` is the same id. */
		based_on: string | null;
		definition: JSONColumnType<Style>;
		version: Generated<number>;
		/** Where in its steps the style stands. */
		step: Generated<number>;
		specimens: JSONColumnType<string[]> | null;
		/** Where it is offered; everywhere where this is null. */
		used_in: JSONColumnType<StyleUse> | null;
		archived_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
		created_at: Timestamp;
		updated_at: Timestamp;
	};
	style_steps: {
		style_id: string;
		step: number;
		label: string;
		definition: JSONColumnType<Style>;
		/** What it changed in other styles, by their ids. */
		along: JSONColumnType<Along | null>;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	editions: {
		style_id: string;
		number: number;
		note: string;
		definition: JSONColumnType<Style>;
		frozen: JSONColumnType<Style>;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	proposals: {
		id: Generated<string>;
		style_id: string;
		note: string;
		definition: JSONColumnType<Style>;
		frozen: JSONColumnType<Style>;
		created_at: Timestamp;
		made_by: MadeBy;
		/** Null as long as nobody said anything. */
		answer: ColumnType<
			'published' | 'sent back' | 'taken back' | null,
			undefined,
			'published' | 'sent back' | 'taken back'
		>;
		answer_note: ColumnType<string | null, undefined, string>;
		answered_at: ColumnType<Date | null, undefined, Date>;
		answered_by: ColumnType<string | null, undefined, string>;
		/** The number of the edition that came of it. */
		edition: ColumnType<number | null, undefined, number | null>;
	};
	rollouts: {
		id: Generated<string>;
		style_id: string;
		edition: number;
		documents: JSONColumnType<Record<string, Record<number, TableState>>>;
		created_at: Timestamp;
		made_by: MadeBy;
		undone_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
	};
	runs: {
		id: Generated<string>;
		style_id: string | null;
		style_name: string;
		edition: number | null;
		/** Parts in use and carry for all its tables; what is absent stays each table's own. */
		settings: JSONColumnType<RunSettings>;
		stopped_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
		undone_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	run_items: {
		run_id: string;
		document_id: string;
		state: ColumnType<RunItemState, RunItemState | undefined, RunItemState>;
		/** What its tables wore before; of a drawing that was read again, the rows of its schedules. */
		before: JSONColumnType<RunBefore> | null;
		/** Only these of its tables; those that the run takes by itself where null. */
		chosen: ColumnType<number[] | null, number[] | null | undefined, number[] | null>;
		tables: Generated<number>;
		differences: Generated<number>;
		/** How often work on it was begun. */
		attempts: Generated<number>;
		reason: ColumnType<string | null, string | null | undefined, string | null>;
		asked_at: ColumnType<Date, Date | undefined, Date>;
		finished_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
	};
	documents: {
		id: Generated<string>;
		name: string;
		kind: string;
		file_hash: string;
		/** The file that lists tell of, where a newer one took the place of the one that came. */
		stands_on: ColumnType<string | null, string | null | undefined, string | null>;
		tables: number;
		findings: number;
		looks: number;
		/** How many changes the schedules of a drawing are behind its objects. */
		behind: Generated<number>;
		/** Where in its steps the document stands; undo and redo move it. */
		step: number;
		version: Generated<number>;
		/** What its specimens were made of; null where they are still to be. */
		specimens_of: ColumnType<string | null, string | null | undefined, string | null>;
		/** When it was changed as the census saw it last; null where it is still to be counted. */
		counted_at: ColumnType<Date | null, string | null | undefined, string | null>;
		/** By which way of counting. */
		counted_by: ColumnType<number | null, number | null | undefined, number | null>;
		/** How often counting it was begun and did not come to an end. */
		count_tries: Generated<number>;
		/** When counting it was begun; null where nobody is at it. */
		count_begun: ColumnType<Date | null, undefined, null>;
		/** Why it cannot be counted. */
		count_fault: ColumnType<string | null, string | null | undefined, string | null>;
		/** How many of its tables wear a style. */
		styled: Generated<number>;
		/** The text of its tables, lower case, for searching. */
		words: ColumnType<string, string | undefined, string>;
		/** The configuration of text search for the language of its words. */
		language: Generated<string>;
		archived_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
		removed_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
		created_at: Timestamp;
		updated_at: Timestamp;
		made_by: MadeBy;
	};
	/** Looks of tables, each once; those that look alike have one leader. */
	census_looks: {
		id: Generated<number>;
		hash: string;
		portrait: JSONColumnType<[string, unknown][]>;
		/** The first of its group; null where it is that itself. */
		leader: number | null;
		/** Of a leader: a table of its group, and the document that it is of. */
		picture: ColumnType<Thumbnail | null, string | null | undefined, string | null>;
		picture_of: ColumnType<string | null, string | null | undefined, string | null>;
		/** Of a leader: where it stands on the map, from −1 to 1. */
		x: ColumnType<number | null, undefined, number | null>;
		y: ColumnType<number | null, undefined, number | null>;
	};
	/** What the census keeps of each table; tables that only lay things out have no look. */
	census_tables: {
		document_id: string;
		table_index: number;
		title: string;
		purpose: Purpose;
		look: number | null;
		/** Ids of what it shows of settings that vary. */
		shows: ColumnType<number[], number[], number[]>;
		findings: JSONColumnType<Record<string, number>>;
		measures: JSONColumnType<Measures>;
	};
	/** Values of settings that vary, each once, as JSON. */
	census_values: { id: Generated<number>; setting: string; value: string };
	/** What was counted of a document on days on which it changed; findings are null where they were not counted yet. */
	census_days: {
		document_id: string;
		day: string;
		tables: number;
		styled: number;
		findings: number | null;
	};
	/** How styles look on the built-in specimen. */
	census_styles: {
		style_id: string;
		/** The edition or the draft that it is; another one is looked at anew. */
		made_of: string;
		portrait: ColumnType<[string, unknown][] | null, string | null, string | null>;
	};
	/** What tables are chosen by for a specimen sheet. */
	specimens: {
		document_id: string;
		table_index: number;
		title: string;
		rows: number;
		columns: number;
		variety: number;
		/** Of the text of all its cells: tables that say the same are one. */
		text_hash: string;
	};
	/** How a document looks, small, as it stood at a version. */
	thumbnails: {
		document_id: string;
		version: number;
		picture: ColumnType<Thumbnail | null, string | null, string | null>;
	};
	document_steps: {
		document_id: string;
		step: number;
		label: string;
		state: JSONColumnType<DocumentState>;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	work_steps: {
		id: Generated<number>;
		document_id: string;
		/** The step before it; null for the table as it was taken up. */
		parent: number | null;
		label: string;
		patch: JSONColumnType<Patch> | null;
		whole: JSONColumnType<WorkTable> | null;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	starters: {
		id: Generated<string>;
		name: string;
		category: string;
		description: string;
		/** Only for this document; for the whole house where null. */
		document_id: string | null;
		work: JSONColumnType<WorkTable>;
		wears: JSONColumnType<StarterWears>;
		/** How often it was placed. */
		used: Generated<number>;
		version: Generated<number>;
		updated_at: Timestamp;
		made_by: MadeBy;
	};
	/** What programs show to be let in. */
	tokens: {
		id: Generated<string>;
		name: string;
		hash: string;
		role: Role;
		created_at: Timestamp;
		made_by: MadeBy;
		expires_at: ColumnType<Date, RawBuilder<Date>, never>;
		used_at: ColumnType<Date | null, undefined, Date>;
		ended_at: ColumnType<Date | null, undefined, Date>;
	};
	/** Addresses that are told of events. */
	webhooks: {
		id: Generated<string>;
		url: string;
		events: ColumnType<EventName[], EventName[], never>;
		created_at: Timestamp;
		made_by: MadeBy;
	};
	/** What addresses are told, and how that went. */
	deliveries: {
		id: Generated<string>;
		webhook_id: string;
		event: EventName;
		/** What happened, so that it is told once. */
		subject: string;
		data: JSONColumnType<object>;
		created_at: Timestamp;
		attempts: Generated<number>;
		next_at: Timestamp;
		told_at: ColumnType<Date | null, undefined, Date>;
		given_up_at: ColumnType<Date | null, undefined, Date>;
		said: ColumnType<string | null, undefined, string>;
	};
	/** Answers that are given again where the same is asked under the same key. */
	answers_kept: {
		key: string;
		/** Hash of what was asked. */
		asked: string;
		/** Null as long as it is being done. */
		status: ColumnType<number | null, undefined, number>;
		headers: JSONColumnType<Record<string, string>> | null;
		body: JSONColumnType<object> | null;
		created_at: Timestamp;
	};
	/** How often somebody asked within a minute. */
	rates: { of: string; minute: Date; count: Generated<number> };
	/** Windows that show something, as long as they are open. */
	presence: { seat: string; person_id: ColumnType<string, undefined, never>; thing: string; seen_at: Timestamp };
	corrections: { shape: string; said: JSONColumnType<Corrections> };
	wears: { document_id: string; table_index: number; style_id: string; edition: number | null };
}

/** What a starter's table wears. */
export type StarterWears = Pick<TableState, 'style' | 'edition' | 'pinned' | 'partsOff' | 'carry'>;

/** The rows of a schedule before and after it was read again. */
export interface RereadRows {
	/** Of the table on its sheet. */
	readonly id: string;
	readonly was: ScheduleRows;
	readonly is: ScheduleRows;
}

/** What a run does beside giving a style, and to which tables. */
export interface RunSettings extends Pick<TableState, 'partsOff' | 'carry'> {
	readonly takesAll?: boolean;
	/** Schedules are read again. */
	readonly reread?: boolean;
	/** A setting is brought to a value. */
	readonly bring?: { readonly setting: string; readonly value: unknown };
	/** A rule of the house is kept. */
	readonly mend?: WantedRule;
}

/** What a run changed of a table beside what it wears, and what that was. */
export interface RunTouched {
	readonly was: Pick<TableState, 'touches' | 'work'>;
	readonly is: Pick<TableState, 'touches' | 'work'>;
}

/** What the tables of a document had before a run: what they wore, their touches, or the rows of schedules. */
export type RunBefore =
	| Readonly<Record<number, TableState>>
	| { readonly rows: readonly RereadRows[] }
	| { readonly touched: Readonly<Record<number, RunTouched>> };

/** How far a document of a run is; *applied*: its step is there, its file not yet read back. */
export type RunItemState = 'waiting' | 'applied' | 'done' | 'failed';

/** Nothing waits for ever: for a connection, a statement, a lock, or for a transaction to go on; milliseconds. */
const WAITS = { connection: 10_000, statement: 120_000, lock: 15_000, idle: 180_000 } as const;

/** A pool of connections that is not brought down by the loss of one. */
export function poolOf(url: string): pg.Pool {
	const pool = new pg.Pool({
		connectionString: url,
		max: Number(process.env.HEPTARCH_CONNECTIONS) || 10,
		connectionTimeoutMillis: WAITS.connection,
		// A pooler that shares connections between transactions takes no settings with a connection.
		...(!process.env.HEPTARCH_POOLER && {
			statement_timeout: WAITS.statement,
			lock_timeout: WAITS.lock,
			idle_in_transaction_session_timeout: WAITS.idle
		})
	});
	// A lost idle connection is replaced at the next query; without a listener it would end the process.
	pool.on('error', () => undefined);
	// So would one lost in the middle of a transaction, whose query fails all the same.
	pool.on('connect', (client) => client.on('error', () => undefined));
	return pool;
}

/**
 * Connects to PostgreSQL as the owner of the tables, who sees every house: for migrations, and for what finds out which
 * houses there are. Does not throw before the first query.
 */
export const connectAsOwner = (url: string): Kysely<Database> =>
	new Kysely<Database>({ dialect: new PostgresDialect({ pool: poolOf(url) }) });

/**
 * Connects to PostgreSQL for what is done in a house: the one given, or else the one that is acted in when a query is asked.
 * Outside of any house it shows nothing. Does not throw before the first query.
 */
export const connect = (url: string, house?: string): Kysely<Database> =>
	new Kysely<Database>({
		dialect: new RoleDialect(
			poolOf(url),
			'heptarch_house',
			house === undefined ? acting : () => ({ house, person: null })
		)
	});

/** Codes of Node and of PostgreSQL (Appendix A, *Connection exception*, *Operator intervention*) for a server that is away. */
const AWAY = /^(ECONN\w+|ENOTFOUND|ETIMEDOUT|EPIPE|ENOENT|08\w{3}|57P0[1-3]|53300)$/;
/** Whether a query failed because the database did not answer, not because of what was asked. */
export function isAway(error: unknown): boolean {
	if (error instanceof AggregateError) return error.errors.length > 0 && error.errors.every(isAway);
	if (!(error instanceof Error)) return false;
	const { code, syscall } = error as { code?: string; syscall?: string };
	if (code === 'ENOENT') return syscall === 'connect';
	return code !== undefined
		? AWAY.test(code)
		: /^(Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error)/.test(
				error.message
			);
}

const AWAY_WORDS = 'The database does not answer. Nothing was changed; try again in a moment.';
/** What PostgreSQL says (Appendix A) of what will be over: a full disk or memory, a lock, a statement that took too long. */
const PASSING: Readonly<Record<string, string>> = {
	'53100':
		'The disk of the database is full, so nothing can be kept. Nothing was changed; its operator has to make room.',
	'53200': 'The database has no memory left for this. Nothing was changed; try again in a moment.',
	'55P03': 'Somebody else is at work on the same for long. Nothing was changed; try again in a moment.',
	'57014': 'This took the database longer than it may. Nothing was changed; try again in a moment.'
};
/** What to say of a failure that will be over, and is nobody's fault who asked; undefined for any other. */
export function passingWords(error: unknown): string | undefined {
	if (isAway(error)) return AWAY_WORDS;
	if (error instanceof StoreError) return error.message;
	return error instanceof Error ? PASSING[(error as { code?: string }).code ?? ''] : undefined;
}

let shared: Kysely<Database> | undefined;

export function databaseUrl(): string {
	const url = process.env.DATABASE_URL;
	if (!url) throw new Error('DATABASE_URL is not set: start Heptarch with npm start.');
	return url;
}

/** The application's own connection, by DATABASE_URL. */
export const db = (): Kysely<Database> => (shared ??= connect(databaseUrl()));

/** Runs work in a transaction: the one that is open, or a new one. */
export const inTransaction = <T>(
	db: Kysely<Database> | Transaction<Database>,
	work: (trx: Transaction<Database>) => Promise<T>
): Promise<T> => (db.isTransaction ? work(db as Transaction<Database>) : db.transaction().execute(work));
