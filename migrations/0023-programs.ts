import { sql, type Kysely } from 'kysely';

/**
 * The door for programs: tokens that programs show, addresses that are told of events, what was told already, answers that are
 * given again for the same key, and how much each asked lately.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`create table tokens (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		id uuid not null default gen_random_uuid(),
		name text not null,
		hash text not null,
		role text not null check (role in ('reader', 'author', 'designer', 'keeper')),
		made_by text default current_person(),
		created_at timestamptz not null default now(),
		expires_at timestamptz not null,
		used_at timestamptz,
		ended_at timestamptz,
		primary key (house_id, id)
	)`.execute(db);
	await sql`comment on column tokens.hash is 'SHA-256, in hex, of the token; that itself is kept nowhere'`.execute(db);
	await sql`create table webhooks (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		id uuid not null default gen_random_uuid(),
		url text not null,
		events text[] not null,
		made_by text default current_person(),
		created_at timestamptz not null default now(),
		primary key (house_id, id)
	)`.execute(db);
	await sql`create table deliveries (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		id uuid not null default gen_random_uuid(),
		webhook_id uuid not null,
		event text not null,
		subject text not null,
		data jsonb not null,
		created_at timestamptz not null default now(),
		attempts integer not null default 0,
		next_at timestamptz not null default now(),
		told_at timestamptz,
		given_up_at timestamptz,
		said text,
		primary key (house_id, id),
		unique (house_id, webhook_id, event, subject),
		foreign key (house_id, webhook_id) references webhooks (house_id, id) on delete cascade
	)`.execute(db);
	await sql`create index deliveries_waiting on deliveries (house_id, next_at) where told_at is null and given_up_at is null`.execute(
		db
	);
	await sql`create table answers_kept (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		key text not null,
		asked text not null,
		status integer,
		headers jsonb,
		body jsonb,
		created_at timestamptz not null default now(),
		primary key (house_id, key)
	)`.execute(db);
	await sql`create table rates (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		of text not null,
		minute timestamptz not null,
		count integer not null default 1,
		primary key (house_id, of, minute)
	)`.execute(db);
	for (const table of ['tokens', 'webhooks', 'deliveries', 'answers_kept', 'rates']) {
		const of = sql.table(table);
		await sql`alter table ${of} enable row level security`.execute(db);
		await sql`create policy own_house on ${of} to heptarch_house
			using (house_id = current_house()) with check (house_id = current_house())`.execute(db);
		await sql`grant select, insert, update, delete on ${of} to heptarch_house`.execute(db);
	}
	// Whose house a token is of is not known before it is looked up.
	await sql`create policy door on tokens to heptarch_door using (true) with check (true)`.execute(db);
	await sql`grant select, update (used_at) on tokens to heptarch_door`.execute(db);
	await sql`create or replace view colleagues as
		select p.id::text as id, p.name, m.role, m.since, m.left_at
		from members m join people p on p.id = m.person_id where m.house_id = current_house()
		union all
		select t.id::text, t.name || ' (a program)', t.role, t.created_at, coalesce(t.ended_at, t.expires_at)
		from tokens t where t.house_id = current_house()`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`create or replace view colleagues as
		select p.id::text as id, p.name, m.role, m.since, m.left_at
		from members m join people p on p.id = m.person_id where m.house_id = current_house()`.execute(db);
	for (const table of ['rates', 'answers_kept', 'deliveries', 'webhooks', 'tokens'])
		await sql`drop table ${sql.table(table)}`.execute(db);
}
