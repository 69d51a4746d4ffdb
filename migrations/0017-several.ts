import { sql, type Kysely } from 'kysely';

/**
 * Several processes and an object store: a file that is kept there has its size and no bytes, and a house counts how often
 * steps of work were written anew, which whoever remembers them looks at.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`alter table files alter column size drop expression`.execute(db);
	await sql`alter table files alter column size set not null, alter column bytes drop not null`.execute(db);
	await sql`alter table houses add column work_rewritten integer not null default 0`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`alter table houses drop column work_rewritten`.execute(db);
	// A file without bytes cannot go back: it is asked for before anything is changed.
	await sql`alter table files alter column bytes set not null`.execute(db);
	await sql`alter table files drop column size`.execute(db);
	await sql`alter table files add column size bigint generated always as (octet_length(bytes)) stored`.execute(db);
}
