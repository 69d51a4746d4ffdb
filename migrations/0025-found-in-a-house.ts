import { sql, type Kysely } from 'kysely';

/** Indexes of words and names, which were those of all houses. */
const INDEXES = [
	['documents_found_by', 'documents', 'found_by'],
	['documents_name_trigrams', 'documents', 'lower(name) gin_trgm_ops'],
	['styles_name_trigrams', 'styles', 'lower(name) gin_trgm_ops']
] as const;

/** What is looked for in a house is found among what is its own (PostgreSQL, *btree_gin*: of the same package as *pg_trgm*). */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`create extension if not exists btree_gin`.execute(db);
	for (const [name, table, of] of INDEXES) {
		await sql`drop index ${sql.ref(name)}`.execute(db);
		await sql`create index ${sql.ref(name)} on ${sql.table(table)} using gin (house_id, ${sql.raw(of)})`.execute(db);
	}
}

export async function down(db: Kysely<unknown>): Promise<void> {
	for (const [name, table, of] of INDEXES) {
		await sql`drop index ${sql.ref(name)}`.execute(db);
		await sql`create index ${sql.ref(name)} on ${sql.table(table)} using gin (${sql.raw(of)})`.execute(db);
	}
}
