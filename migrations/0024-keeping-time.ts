import { sql, type Kysely } from 'kysely';

/** For how many days a house keeps its steps; as long as there is a house where it does not say. */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`alter table houses add column keep_days integer check (keep_days > 0)`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`alter table houses drop column keep_days`.execute(db);
}
