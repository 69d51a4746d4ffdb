import type { Kysely } from 'kysely';

/** A style is put aside before it is removed: it is offered nowhere, and whatever wears it goes on wearing it. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('styles').addColumn('archived_at', 'timestamptz').execute();
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await db.schema.alterTable('styles').dropColumn('archived_at').execute();
}
