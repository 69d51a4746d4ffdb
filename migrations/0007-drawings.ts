import type { Kysely } from 'kysely';

/** How many changes the schedules of a drawing are behind its objects. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema
		.alterTable('documents')
		.addColumn('behind', 'integer', (c) => c.notNull().defaultTo(0))
		.execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('documents').dropColumn('behind').execute();
}
