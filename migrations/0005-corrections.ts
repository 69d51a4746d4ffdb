import type { Kysely } from 'kysely';

/** What people corrected about tables of one shape, for the next table of that shape. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.createTable('corrections')
		.addColumn('shape', 'text', (c) => c.primaryKey())
		.addColumn('said', 'jsonb', (c) => c.notNull())
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.dropTable('corrections').execute();
}
