import { sql, type Kysely } from 'kysely';

/** Runs: a style given to many documents in the background, document by document. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.createTable('runs')
		.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
		.addColumn('style_id', 'uuid', (c) => c.references('styles.id').onDelete('set null'))
		.addColumn('style_name', 'text', (c) => c.notNull())
		.addColumn('edition', 'integer')
		.addColumn('stopped_at', 'timestamptz')
		.addColumn('undone_at', 'timestamptz')
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
	await db.schema
		.createTable('run_items')
		.addColumn('run_id', 'uuid', (c) => c.notNull().references('runs.id').onDelete('cascade'))
		.addColumn('document_id', 'uuid', (c) => c.notNull().references('documents.id').onDelete('cascade'))
		// waiting, applied (its step is there, its file not yet read back), done, failed
		.addColumn('state', 'text', (c) => c.notNull().defaultTo('waiting'))
		// What its tables wore before, by table; for taking the run back.
		.addColumn('before', 'jsonb')
		.addColumn('tables', 'integer', (c) => c.notNull().defaultTo(0))
		.addColumn('differences', 'integer', (c) => c.notNull().defaultTo(0))
		.addColumn('reason', 'text')
		.addColumn('asked_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.addColumn('finished_at', 'timestamptz')
		.addPrimaryKeyConstraint('run_items_pk', ['run_id', 'document_id'])
		.execute();
	await db.schema.createIndex('run_items_state').on('run_items').columns(['state', 'asked_at']).execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	for (const table of ['run_items', 'runs']) await db.schema.dropTable(table).execute();
}
