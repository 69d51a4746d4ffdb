import { sql, type Kysely } from 'kysely';

/** Documents of every format: their text to search in, put aside or taken out without being gone at once. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.alterTable('documents')
		// The text of the tables, lower case, for searching.
		.addColumn('words', 'text', (c) => c.notNull().defaultTo(''))
		.addColumn('archived_at', 'timestamptz')
		.addColumn('removed_at', 'timestamptz')
		.execute();
	await sql`create index documents_removed on documents (removed_at)`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.alterTable('documents')
		.dropColumn('words')
		.dropColumn('archived_at')
		.dropColumn('removed_at')
		.execute();
}
