import { sql, type Kysely } from 'kysely';

/** Work on the table bench, step by step, and starters. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.createTable('work_steps')
		.addColumn('id', 'integer', (c) => c.primaryKey().generatedAlwaysAsIdentity())
		.addColumn('document_id', 'uuid', (c) => c.notNull().references('documents.id').onDelete('cascade'))
		// The step before it; none for the table as it was taken up.
		.addColumn('parent', 'integer', (c) => c.references('work_steps.id').onDelete('cascade'))
		.addColumn('label', 'text', (c) => c.notNull())
		// What changed since the step before; null where only the whole is kept.
		.addColumn('patch', 'jsonb')
		// The whole table, now and then, so that no long chain of changes has to be gone through.
		.addColumn('whole', 'jsonb')
		.addColumn('created_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
	await db.schema.createIndex('work_steps_parent').on('work_steps').columns(['parent']).execute();
	await db.schema.createIndex('work_steps_document').on('work_steps').columns(['document_id']).execute();
	await db.schema
		.createTable('starters')
		.addColumn('id', 'uuid', (c) => c.primaryKey().defaultTo(sql`gen_random_uuid()`))
		.addColumn('name', 'text', (c) => c.notNull().unique())
		.addColumn('category', 'text', (c) => c.notNull().defaultTo(''))
		.addColumn('description', 'text', (c) => c.notNull().defaultTo(''))
		// Only for this document; for the whole house where null.
		.addColumn('document_id', 'uuid', (c) => c.references('documents.id').onDelete('cascade'))
		.addColumn('work', 'jsonb', (c) => c.notNull())
		// What it wears: style, edition, pinned, parts in use, carry.
		.addColumn('wears', 'jsonb', (c) => c.notNull())
		.addColumn('used', 'integer', (c) => c.notNull().defaultTo(0))
		.addColumn('version', 'integer', (c) => c.notNull().defaultTo(1))
		.addColumn('updated_at', 'timestamptz', (c) => c.notNull().defaultTo(sql`now()`))
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	for (const table of ['starters', 'work_steps']) await db.schema.dropTable(table).execute();
}
