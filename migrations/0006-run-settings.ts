import { sql, type Kysely } from 'kysely';

/** Which parts of its style a run uses and what it carries; null leaves each table's own. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.alterTable('runs')
		.addColumn('settings', 'jsonb', (c) => c.notNull().defaultTo(sql`'{}'::jsonb`))
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('runs').dropColumn('settings').execute();
}
