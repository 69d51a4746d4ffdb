import type { Kysely } from 'kysely';

const STEPS = ['document_steps', 'style_steps', 'house_steps', 'work_steps'] as const;

/** Steps name who made them, and documents have a version as styles and the house do: what a window saw is one number. */
export async function up(db: Kysely<unknown>): Promise<void> {
	for (const table of STEPS) await db.schema.alterTable(table).addColumn('made_by', 'text').execute();
	await db.schema
		.alterTable('documents')
		.addColumn('version', 'integer', (c) => c.notNull().defaultTo(0))
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('documents').dropColumn('version').execute();
	for (const table of STEPS) await db.schema.alterTable(table).dropColumn('made_by').execute();
}
