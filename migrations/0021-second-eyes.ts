import { sql, type Kysely } from 'kysely';

/**
 * A house may want that an edition is looked at by somebody else before it is out: one proposes it, another one publishes it
 * or sends it back. What is proposed is kept as it was, whatever becomes of the draft.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`alter table houses add column second_eyes boolean not null default false`.execute(db);
	await sql`create table proposals (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		id uuid not null default gen_random_uuid(),
		style_id uuid not null,
		note text not null,
		definition jsonb not null,
		frozen jsonb not null,
		created_at timestamptz not null default now(),
		made_by text default current_person(),
		answer text check (answer in ('published', 'sent back', 'taken back')),
		answer_note text,
		answered_at timestamptz,
		answered_by text,
		edition integer,
		primary key (house_id, id),
		foreign key (house_id, style_id) references styles (house_id, id) on delete cascade
	)`.execute(db);
	await sql`create index proposals_style on proposals (house_id, style_id)`.execute(db);
	await sql`create unique index proposals_open on proposals (house_id, style_id) where answer is null`.execute(db);
	await sql`alter table proposals enable row level security`.execute(db);
	await sql`create policy own_house on proposals to heptarch_house
		using (house_id = current_house()) with check (house_id = current_house())`.execute(db);
	await sql`grant select, insert, update, delete on proposals to heptarch_house`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`drop table proposals`.execute(db);
	await sql`alter table houses drop column second_eyes`.execute(db);
}
