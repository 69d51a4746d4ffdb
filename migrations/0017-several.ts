import { sql, type Kysely } from 'kysely';

/**
 * Several processes and an object store: a file that is kept there has its size and no bytes, and a house counts how often
 * steps of work were written anew, which whoever remembers them looks at.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`alter table files alter column size drop expression`.execute(db);
	await sql`alter table files alter column size set not null, alter column bytes drop not null`.execute(db);
	await sql`alter table houses add column work_rewritten integer not null default 0`.execute(db);
	// A newer file in the place of a document's.
	await sql`alter table documents add column stands_on text`.execute(db);
	await sql`create index document_steps_file on document_steps ((state ->> 'file')) where state ->> 'file' is not null`.execute(
		db
	);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`drop index document_steps_file`.execute(db);
	await sql`alter table documents drop column stands_on`.execute(db);
	await sql`alter table houses drop column work_rewritten`.execute(db);
	// A file without bytes cannot go back: it is asked for before anything is changed.
	await sql`alter table files alter column bytes set not null`.execute(db);
	await sql`alter table files drop column size`.execute(db);
	await sql`alter table files add column size bigint generated always as (octet_length(bytes)) stored`.execute(db);
}
