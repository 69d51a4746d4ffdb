import { isLeftOut, type Purpose } from '../../core/recognise/purpose/kinds.ts';
import { sql, type Expression, type Selectable, type SqlBool } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { packTable } from '../../workbench/packed.ts';
import { stretchAt } from '../../workbench/stretch.ts';
import type { Database } from '../database.ts';
import { loadHouse } from '../house/house.ts';
import { NotFoundError } from '../http/answers.ts';
import { searchedAs } from './languages.ts';
import { openAt } from './open.ts';
import { documentRow, GONE, stateAt, stepsOf, type Db } from './rows.ts';

export interface DocumentSummary {
	readonly id: string;
	readonly name: string;
	readonly kind: string;
	readonly tables: number;
	/** How many of its tables wear a house style. */
	readonly styled: number;
	/** How many different looks its tables had as the file came. */
	readonly looks: number;
	readonly findings: number;
	/** How many changes the schedules of a drawing are behind its objects. */
	readonly behind: number;
	/** Names of the house styles that its tables wear. */
	readonly wears: readonly string[];
	readonly archived: boolean;
	readonly updatedAt: string;
}

/** What a list is sorted by: of each order what is compared, as an expression that an index has, and its type. */
const ORDERS = {
	name: ['name collate "und-x-icu"', 'text'],
	kind: ['kind', 'text'],
	styled: ['styled / greatest(tables, 1)::float8', 'float8'],
	looks: ['looks', 'integer'],
	findings: ['findings', 'integer'],
	updatedAt: ['updated_at', 'timestamptz']
} as const;
export type DocumentOrder = keyof typeof ORDERS;
export const DOCUMENT_ORDERS = Object.keys(ORDERS) as DocumentOrder[];

export interface DocumentQuery {
	/** Words that are all to be in the name, the names of worn styles, or the text of tables. */
	readonly find?: string | undefined;
	readonly kinds?: readonly string[] | undefined;
	readonly archived?: boolean | undefined;
	readonly sort?: DocumentOrder | undefined;
	readonly down?: boolean | undefined;
	/** Where the page before ended, as it said. */
	readonly after?: string | undefined;
	readonly most?: number | undefined;
}

export interface DocumentPage {
	readonly documents: readonly DocumentSummary[];
	/** Where the next page begins; null after the last one. */
	readonly next: string | null;
}

const PAGE = 100;
/** Words of a search beyond these are not looked for. */
const MOST_WORDS = 12;

/**
 * One word of a search: in a name, as part of it; in the text of tables, as the beginning of a word in whatever form. Each is
 * looked up in an index of its own (`documents_with_word`, which sees only the house that is acted in).
 */
function hasWord(word: string, language: string): Expression<SqlBool> {
	const part = `%${word.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`;
	const lexeme = `'${word.replace(/['\\]/g, ' ')}':*`;
	return sql<SqlBool>`documents.id in (select documents_with_word(${part}, ${lexeme}, ${language}::regconfig))`;
}

async function wanted(db: Db, { find = '', kinds, archived = false }: DocumentQuery) {
	const words = find.trim().split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
	const language = words.length ? searchedAs((await loadHouse(db)).locale) : 'simple';
	return db
		.selectFrom('documents')
		.where('removed_at', 'is', null)
		.where('archived_at', archived ? 'is not' : 'is', null)
		.$if(kinds !== undefined, (query) => query.where('kind', 'in', [...kinds!, '']))
		.where(({ and }) => and(words.map((word) => hasWord(word, language))));
}

const SUMMARY = [
	'id',
	'name',
	'kind',
	'tables',
	'styled',
	'looks',
	'findings',
	'behind',
	'archived_at',
	'updated_at'
] as const;

/** What lists tell of documents. */
async function summaries(
	db: Db,
	rows: readonly Pick<Selectable<Database['documents']>, (typeof SUMMARY)[number]>[]
): Promise<DocumentSummary[]> {
	const worn = await namesWorn(
		db,
		rows.map(({ id }) => id)
	);
	return rows.map(
		({ id, name, kind, tables, styled, looks, findings, behind, archived_at, updated_at }): DocumentSummary => ({
			id,
			name,
			kind,
			tables,
			styled,
			looks,
			findings,
			behind,
			wears: worn.get(id) ?? [],
			archived: archived_at !== null,
			updatedAt: updated_at.toISOString()
		})
	);
}

/** What lists tell of one document. Throws NotFoundError where it is not here. */
export async function summaryOf(db: Db, id: string): Promise<DocumentSummary> {
	const row = await db
		.selectFrom('documents')
		.select(SUMMARY)
		.where('id', '=', id)
		.where('removed_at', 'is', null)
		.executeTakeFirst();
	if (!row) throw new NotFoundError(GONE);
	return (await summaries(db, [row]))[0]!;
}

/** A page of the documents that are here, in an order; where several are alike in it, by their ids. */
export async function listDocuments(db: Db, query: DocumentQuery = {}): Promise<DocumentPage> {
	const { sort = 'updatedAt', down = sort === 'updatedAt', after, most = PAGE } = query;
	const [expression, type] = ORDERS[sort];
	const key = sql.raw(expression);
	const towards = sql.raw(down ? 'desc' : 'asc');
	const from = after === undefined ? undefined : readCursor(after);
	const rows = await (
		await wanted(db, query)
	)
		.select(SUMMARY)
		.select(sql<string>`(${key})::text`.as('at'))
		.$if(from !== undefined, (page) =>
			page.where(
				sql<SqlBool>`(${key}, id) ${sql.raw(down ? '<' : '>')} (${from![0]}::text::${sql.raw(type)}, ${from![1]}::uuid)`
			)
		)
		.orderBy(sql`${key} ${towards}`)
		.orderBy(sql`id ${towards}`)
		.limit(most + 1)
		.execute();
	const shown = rows.slice(0, most);
	const last = rows.length > most ? shown.at(-1) : undefined;
	return {
		documents: await summaries(db, shown),
		next: last ? Buffer.from(JSON.stringify([last.at, last.id])).toString('base64url') : null
	};
}

function readCursor(text: string): readonly [at: string, id: string] {
	try {
		const value: unknown = JSON.parse(Buffer.from(text, 'base64url').toString());
		if (Array.isArray(value) && value.length === 2 && value.every((one) => typeof one === 'string'))
			return value as [string, string];
	} catch {
		// Told below.
	}
	throw new InputError('request', '“after” in the address is to be what the page before gave as “next”.');
}

async function namesWorn(db: Db, ids: readonly string[]): Promise<Map<string, readonly string[]>> {
	if (!ids.length) return new Map();
	const rows = await db
		.selectFrom('wears')
		.innerJoin('styles', 'styles.id', 'wears.style_id')
		.select(['document_id', sql<string[]>`array_agg(distinct styles.name)`.as('names')])
		.where('document_id', 'in', [...ids])
		.groupBy('document_id')
		.execute();
	return new Map(rows.map(({ document_id, names }) => [document_id, names]));
}

interface DocumentCounts {
	/** What the search finds. */
	readonly found: number;
	/** All that are at work, and that are put aside, and of what kinds they are. */
	readonly atWork: number;
	readonly aside: number;
	readonly kinds: readonly string[];
}

async function countDocuments(db: Db, query: DocumentQuery): Promise<DocumentCounts> {
	const { found } = await (
		await wanted(db, query)
	)
		.select(({ fn }) => fn.countAll<string>().as('found'))
		.executeTakeFirstOrThrow();
	const rows = await db
		.selectFrom('documents')
		.select([
			'kind',
			sql<number>`count(*) filter (where archived_at is null)::int`.as('atWork'),
			sql<number>`count(*) filter (where archived_at is not null)::int`.as('aside')
		])
		.where('removed_at', 'is', null)
		.groupBy('kind')
		.orderBy('kind')
		.execute();
	const sum = (of: 'atWork' | 'aside') => rows.reduce((total, row) => total + row[of], 0);
	return { found: Number(found), atWork: sum('atWork'), aside: sum('aside'), kinds: rows.map(({ kind }) => kind) };
}

/** The first page of what a search finds, and how much there is; of a later page only what is on it. */
export async function documentsFound(db: Db, query: DocumentQuery = {}) {
	return { ...(await listDocuments(db, query)), counts: query.after ? NONE : await countDocuments(db, query) };
}
const NONE: DocumentCounts = { found: 0, atWork: 0, aside: 0, kinds: [] };

/** Everything that the document view shows: of a long document the part in which a table stands. */
export async function loadDocumentPage(db: Db, id: string, at: number) {
	const { looks, ...document } = await loadDocument(db, id);
	const { blocks, tables, stretch } = stretchAt(document, at);
	/** What tables are for where that is form or layout, of all of them, by index. */
	const leftOut: Record<number, Purpose> = Object.fromEntries(
		document.tables.flatMap(({ index, recognition: { purpose } }) =>
			isLeftOut(purpose.is) ? [[index, purpose.is]] : []
		)
	);
	return {
		...document,
		looks,
		blocks,
		tables: document.kind === 'csv' ? tables.map(packTable) : tables,
		stretch,
		leftOut
	};
}

/** A document as it stands. */
export async function loadDocument(db: Db, id: string) {
	const found = await documentRow(db, id);
	const { name, step, version, looks } = found;
	const state = await stateAt(db, id, step);
	const document = await openAt(db, found, state);
	return {
		id,
		name,
		kind: document.kind,
		step,
		version,
		steps: await stepsOf(db, id),
		state,
		blocks: document.blocks,
		looks,
		tables: document.tables,
		remarks: [...document.remarks, ...(document.ownRemarks ?? [])]
	};
}
