import { sql, type Kysely } from 'kysely';

/** What is told of as it changes: under which kind, its id and version, and which of its columns matter. */
const TOLD = [
	{ table: 'documents', kind: 'documents', id: 'id', version: 'version', of: 'version, name, removed_at, archived_at' },
	{ table: 'styles', kind: 'styles', id: 'id', version: 'version', of: 'version, archived_at, used_in' },
	{ table: 'houses', kind: 'house', house: 'id', id: 'id', version: 'version', of: 'version, name, second_eyes' },
	{ table: 'editions', kind: 'editions', id: 'style_id' },
	{ table: 'proposals', kind: 'editions', id: 'style_id' },
	{ table: 'rollouts', kind: 'editions', id: 'style_id' },
	{ table: 'runs', kind: 'runs', id: 'id' },
	{ table: 'starters', kind: 'starters', id: 'id', version: 'version', of: 'version' }
] as const;

/**
 * What changes is told at once, by PostgreSQL, to whichever web process listens; and who looks at what is kept for as long as
 * they do, so that web processes tell each other's people.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`create function tell_change(house uuid, kind text, id text, version integer) returns void language sql as $$
		select pg_notify('heptarch_change', json_build_object(
			'house', house, 'kind', kind, 'id', id, 'version', version, 'person', current_person())::text) $$`.execute(db);
	for (const told of TOLD) {
		const { table, kind, id } = told;
		const house = 'house' in told ? told.house : 'house_id';
		const version = 'version' in told ? `new.${told.version}` : 'null';
		const name = `tell_${table}`;
		await sql
			.raw(
				`create function ${name}() returns trigger language plpgsql as $$ begin
					perform tell_change(new.${house}, '${kind}', new.${id}::text, ${version});
					return null;
				end $$`
			)
			.execute(db);
		const of = 'of' in told ? ` of ${told.of}` : '';
		await sql
			.raw(`create trigger ${name} after insert or update${of} on ${table} for each row execute function ${name}()`)
			.execute(db);
	}

	await sql`create unlogged table presence (
		house_id uuid not null default current_house() references houses (id) on delete cascade,
		seat uuid not null,
		person_id text not null default current_person(),
		thing text not null,
		seen_at timestamptz not null default now(),
		primary key (house_id, seat)
	)`.execute(db);
	await sql`comment on column presence.seat is 'one window of a browser, as long as it is open'`.execute(db);
	await sql`create index presence_thing on presence (house_id, thing)`.execute(db);
	await sql`alter table presence enable row level security`.execute(db);
	await sql`create policy own_house on presence to heptarch_house
		using (house_id = current_house()) with check (house_id = current_house())`.execute(db);
	await sql`grant select, insert, update, delete on presence to heptarch_house`.execute(db);
	await sql`create function tell_presence() returns trigger language plpgsql as $$ begin
		perform tell_change(coalesce(new.house_id, old.house_id), 'presence', coalesce(new.thing, old.thing), null);
		return null;
	end $$`.execute(db);
	await sql`create trigger tell_presence after insert or delete on presence for each row execute function tell_presence()`.execute(
		db
	);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`drop table presence`.execute(db);
	await sql`drop function tell_presence`.execute(db);
	for (const { table } of TOLD) await sql.raw(`drop function tell_${table} cascade`).execute(db);
	await sql`drop function tell_change`.execute(db);
}
