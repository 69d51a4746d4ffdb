import type { Kysely } from 'kysely';

/** Where a style may be used: everywhere (null), in documents of some kinds, or in one. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('styles').addColumn('used_in', 'jsonb').execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('styles').dropColumn('used_in').execute();
}
