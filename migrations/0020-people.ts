import { sql, type Kysely } from 'kysely';

/** What belongs to the installation, not to a house: who there is, how they come in, and which houses they belong to. */
const AT_THE_DOOR = [
	'people',
	'sessions',
	'accounts',
	'verifications',
	'second_factors',
	'members',
	'links',
	'attempts',
	'installation'
] as const;

/**
 * People, and what they may do in which house. A role of its own reads and writes them: whoever acts in a house sees of
 * people only who belongs or belonged to it (`colleagues`). Whatever is done to a house itself is in its log.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`do $$ begin
		create role heptarch_door nologin;
	exception when duplicate_object or unique_violation then null;
	end $$`.execute(db);
	await sql`grant heptarch_door to current_user`.execute(db);

	await sql`create table people (
		id uuid primary key default gen_random_uuid(),
		name text not null,
		email text not null unique,
		email_verified boolean not null default false,
		image text,
		username text unique,
		display_username text,
		two_factor_enabled boolean not null default false,
		created_at timestamptz not null default now(),
		updated_at timestamptz not null default now()
	)`.execute(db);
	await sql`create table sessions (
		id uuid primary key,
		token text not null unique,
		user_id uuid not null references people (id) on delete cascade,
		house_id uuid references houses (id) on delete set null,
		ip_address text,
		user_agent text,
		expires_at timestamptz not null,
		created_at timestamptz not null default now(),
		updated_at timestamptz not null default now()
	)`.execute(db);
	await sql`comment on column sessions.house_id is 'the house that the person works in'`.execute(db);
	await sql`create table accounts (
		id uuid primary key,
		account_id text not null,
		provider_id text not null,
		user_id uuid not null references people (id) on delete cascade,
		access_token text,
		refresh_token text,
		id_token text,
		access_token_expires_at timestamptz,
		refresh_token_expires_at timestamptz,
		scope text,
		password text,
		created_at timestamptz not null default now(),
		updated_at timestamptz not null default now(),
		unique (provider_id, account_id)
	)`.execute(db);
	await sql`create table verifications (
		id uuid primary key,
		identifier text not null,
		value text not null,
		expires_at timestamptz not null,
		created_at timestamptz not null default now(),
		updated_at timestamptz not null default now()
	)`.execute(db);
	await sql`create table second_factors (
		id uuid primary key,
		secret text not null,
		backup_codes text not null,
		user_id uuid not null references people (id) on delete cascade,
		verified boolean default true,
		failed_verification_count integer default 0,
		locked_until timestamptz
	)`.execute(db);
	await sql`create table members (
		house_id uuid not null references houses (id) on delete cascade,
		person_id uuid not null references people (id) on delete cascade,
		role text not null check (role in ('reader', 'author', 'designer', 'keeper')),
		since timestamptz not null default now(),
		left_at timestamptz,
		primary key (house_id, person_id)
	)`.execute(db);
	await sql`create table links (
		hash text primary key,
		kind text not null check (kind in ('invitation', 'password', 'entry')),
		house_id uuid references houses (id) on delete cascade,
		person_id uuid references people (id) on delete cascade,
		role text check (role in ('reader', 'author', 'designer', 'keeper')),
		name text,
		made_by uuid references people (id) on delete set null,
		created_at timestamptz not null default now(),
		expires_at timestamptz not null,
		used_at timestamptz
	)`.execute(db);
	await sql`comment on column links.hash is 'SHA-256, in hex, of what the link says; that itself is kept nowhere'`.execute(
		db
	);
	await sql`create table attempts (
		id bigint generated always as identity primary key,
		of text not null,
		at timestamptz not null default now()
	)`.execute(db);
	await sql`create index attempts_of on attempts (of, at)`.execute(db);
	await sql`create table installation (
		is_one boolean primary key default true check (is_one),
		secret text not null,
		closed_at timestamptz
	)`.execute(db);
	await sql`comment on column installation.closed_at is
		'since when nobody comes in without signing in; null as long as its only person needs no password'`.execute(db);
	for (const [table, column] of [
		['sessions', 'user_id'],
		['sessions', 'house_id'],
		['accounts', 'user_id'],
		['second_factors', 'user_id'],
		['members', 'person_id'],
		['links', 'house_id'],
		['links', 'person_id'],
		['links', 'made_by']
	] as const)
		await sql`create index ${sql.ref(`${table}_${column}`)} on ${sql.table(table)} (${sql.ref(column)})`.execute(db);

	await sql`create table house_log (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		id bigint generated always as identity,
		at timestamptz not null default now(),
		person_id text default current_person(),
		kind text not null,
		words text not null,
		primary key (house_id, id)
	)`.execute(db);
	await sql`alter table house_log enable row level security`.execute(db);
	await sql`create policy own_house on house_log to heptarch_house
		using (house_id = current_house()) with check (house_id = current_house())`.execute(db);
	await sql`create policy door on house_log to heptarch_door using (true) with check (true)`.execute(db);
	await sql`create policy door on houses to heptarch_door using (true) with check (true)`.execute(db);
	// What was done is not done away with: whoever acts adds to the log, and changes nothing in it.
	await sql`grant select, insert on house_log to heptarch_house`.execute(db);

	await sql`create view colleagues as
		select p.id::text as id, p.name, m.role, m.since, m.left_at
		from members m join people p on p.id = m.person_id where m.house_id = current_house()`.execute(db);
	await sql`grant select on colleagues to heptarch_house`.execute(db);

	await sql`grant usage on schema public to heptarch_door`.execute(db);
	await sql`grant select, insert, update, delete on
		${sql.join(AT_THE_DOOR.map((table) => sql.table(table)))} to heptarch_door`.execute(db);
	await sql`grant select, insert on houses to heptarch_door`.execute(db);
	await sql`grant insert on house_log to heptarch_door`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`drop view colleagues`.execute(db);
	await sql`drop policy door on houses`.execute(db);
	await sql`revoke all on houses from heptarch_door`.execute(db);
	for (const table of ['house_log', ...[...AT_THE_DOOR].reverse()])
		await sql`drop table ${sql.table(table)}`.execute(db);
}
