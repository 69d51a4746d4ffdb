import { sql, type Kysely } from 'kysely';

/** Foreign keys that no index led to: what is taken out looks for whoever refers to it. */
const KEYS = [
	['documents', 'file_hash'],
	['wears', 'style_id'],
	['styles', 'based_on'],
	['runs', 'style_id'],
	['run_items', 'document_id'],
	['rollouts', 'style_id'],
	['work_steps', 'document_id'],
	['work_steps', 'parent'],
	['starters', 'document_id']
] as const;
const indexOf = ([table, column]: (typeof KEYS)[number]) => `${table}_${column}_key`;

/** The orders in which the list of documents is shown. */
const ORDERS = [
	['updated', 'updated_at'],
	['name', 'name collate "und-x-icu"'],
	['kind', 'kind'],
	['looks', 'looks'],
	['findings', 'findings'],
	['styled', '(styled / greatest(tables, 1)::float8)']
] as const;

/** Houses with thousands of documents: their lists, their search, and how often a document of a run was tried. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`create extension if not exists pg_trgm`.execute(db);
	await db.schema
		.alterTable('run_items')
		.addColumn('attempts', 'integer', (c) => c.notNull().defaultTo(0))
		.execute();
	for (const key of KEYS) await db.schema.createIndex(indexOf(key)).ifNotExists().on(key[0]).column(key[1]).execute();
	await sql`alter table files add column size bigint generated always as (octet_length(bytes)) stored`.execute(db);
	await sql`alter table documents add column styled integer not null default 0`.execute(db);
	await sql`update documents set styled = (select count(*) from wears where document_id = documents.id)`.execute(db);
	// Words as the dictionaries of a language know them, and as they are written, for names, codes and parts of words.
	await sql`alter table documents add column language regconfig not null default 'simple'`.execute(db);
	await sql`alter table documents add column found_by tsvector
		generated always as (
			setweight(to_tsvector('simple', name), 'A') || to_tsvector(language, words) || to_tsvector('simple', words)
		) stored`.execute(db);
	await sql`create index documents_found_by on documents using gin (found_by)`.execute(db);
	await sql`create index documents_name_trigrams on documents using gin (lower(name) gin_trgm_ops)`.execute(db);
	await sql`create index styles_name_trigrams on styles using gin (lower(name) gin_trgm_ops)`.execute(db);
	for (const [name, order] of ORDERS)
		await sql`create index ${sql.ref(`documents_by_${name}`)} on documents (${sql.raw(order)}, id) where removed_at is null`.execute(
			db
		);
	await sql`create index document_steps_drawing_file on document_steps ((state -> 'drawing' ->> 'file'))
		where state -> 'drawing' ->> 'file' is not null`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`drop index document_steps_drawing_file`.execute(db);
	for (const [name] of ORDERS) await sql`drop index ${sql.ref(`documents_by_${name}`)}`.execute(db);
	await sql`drop index styles_name_trigrams`.execute(db);
	await sql`drop index documents_name_trigrams`.execute(db);
	await sql`alter table files drop column size`.execute(db);
	await sql`alter table documents drop column found_by, drop column language, drop column styled`.execute(db);
	for (const key of KEYS) await db.schema.dropIndex(indexOf(key)).ifExists().execute();
	await db.schema.alterTable('run_items').dropColumn('attempts').execute();
}
