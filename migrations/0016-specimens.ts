import { sql, type Kysely } from 'kysely';

/** What tables are chosen by for a specimen sheet, worked out once for what a document holds. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('documents').addColumn('specimens_of', 'text').execute();
	await db.schema
		.createTable('specimens')
		.addColumn('document_id', 'uuid', (c) => c.notNull().references('documents.id').onDelete('cascade'))
		.addColumn('table_index', 'integer', (c) => c.notNull())
		.addColumn('title', 'text', (c) => c.notNull())
		.addColumn('rows', 'integer', (c) => c.notNull())
		.addColumn('columns', 'integer', (c) => c.notNull())
		.addColumn('variety', 'integer', (c) => c.notNull())
		.addColumn('text_hash', 'text', (c) => c.notNull())
		.addPrimaryKeyConstraint('specimens_pkey', ['document_id', 'table_index'])
		.execute();
	await sql`comment on column documents.specimens_of is 'what its specimens were made of; null where they are still to be'`.execute(
		db
	);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.dropTable('specimens').execute();
	await db.schema.alterTable('documents').dropColumn('specimens_of').execute();
}
