import { sql, type Kysely } from 'kysely';

/** All that belongs to a house. */
const TABLES = [
	'census_days',
	'census_looks',
	'census_styles',
	'census_tables',
	'census_values',
	'corrections',
	'document_steps',
	'documents',
	'editions',
	'files',
	'house_steps',
	'rollouts',
	'run_items',
	'runs',
	'specimens',
	'starters',
	'style_steps',
	'styles',
	'thumbnails',
	'wears',
	'work_steps'
] as const;

/** What of these says who did it. */
const BY_SOMEBODY = ['document_steps', 'house_steps', 'style_steps', 'work_steps'] as const;
/** What of these is to say it from now on. */
const BY_SOMEBODY_NOW = ['documents', 'editions', 'rollouts', 'runs', 'starters'] as const;

interface Key {
	readonly of: string;
	readonly name: string;
	readonly kind: 'p' | 'u' | 'f';
	readonly columns: string[];
	readonly to: string | null;
	readonly to_columns: string[] | null;
	/** `pg_constraint.confdeltype`. */
	readonly deletion: string;
}

const named = (names: readonly string[]) => sql.join(names.map((name) => sql.ref(name)));

/** What becomes of a row whose other one goes; only the reference is emptied, never the house (PostgreSQL 15). */
const onDelete = ({ deletion, columns }: Key) =>
	({
		c: sql`on delete cascade`,
		r: sql`on delete restrict`,
		n: sql`on delete set null (${named(columns)})`,
		a: sql``
	})[deletion]!;

/**
 * Houses kept apart. Every row says whose it is, every key and every index begins with it, and every reference stays within
 * a house. The application works as a role that owns no table, to which PostgreSQL shows only rows of the house that its
 * transaction is set to: a forgotten `where` shows nothing. What is there goes into one house.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await makeRole(db);
	await sql`create function current_house() returns uuid language sql stable parallel safe
		as $$ select nullif(current_setting('heptarch.house', true), '')::uuid $$`.execute(db);
	await sql`create function current_person() returns text language sql stable parallel safe
		as $$ select nullif(current_setting('heptarch.person', true), '') $$`.execute(db);

	await sql`alter table houses drop constraint one_house`.execute(db);
	await sql`alter table houses alter column id type uuid using gen_random_uuid(), alter column id set default gen_random_uuid()`.execute(
		db
	);
	await sql`alter table houses add column created_at timestamptz not null default now()`.execute(db);
	await sql`insert into houses (name, inks, type_roles) select 'New house', '{}', '{}'
		where not exists (select from houses) and (exists (select from styles) or exists (select from documents))`.execute(db);

	const { rows: keys } = await sql<Key>`
		select conrelid::regclass::text as "of", conname as name, contype as kind, confdeltype as deletion,
			(select array_agg(attname::text order by place) from unnest(conkey) with ordinality as k (number, place)
				join pg_attribute a on a.attrelid = conrelid and a.attnum = k.number) as columns,
			confrelid::regclass::text as "to",
			(select array_agg(attname::text order by place) from unnest(confkey) with ordinality as k (number, place)
				join pg_attribute a on a.attrelid = confrelid and a.attnum = k.number) as to_columns
		from pg_constraint
		where conrelid::regclass::text = any(${[...TABLES]}) and contype in ('p', 'u', 'f')
		order by contype <> 'f', conname`.execute(db);
	const { rows: indexes } = await sql<{ name: string; made: string }>`
		select indexrelid::regclass::text as name, pg_get_indexdef(indexrelid) as made from pg_index i
		where indrelid::regclass::text = any(${[...TABLES]})
			and not exists (select from pg_constraint c where c.conindid = i.indexrelid and c.contype in ('p', 'u'))
			and pg_get_indexdef(indexrelid) like '%USING btree (%'`.execute(db);

	for (const { of, name } of keys) await sql`alter table ${sql.table(of)} drop constraint ${sql.ref(name)}`.execute(db);
	for (const { name } of indexes) await sql`drop index ${sql.ref(name)}`.execute(db);

	for (const table of TABLES) {
		const of = sql.table(table);
		await sql`alter table ${of} add column house_id uuid`.execute(db);
		await sql`update ${of} set house_id = (select id from houses)`.execute(db);
		await sql`alter table ${of} alter column house_id set default current_house(), alter column house_id set not null,
			add foreign key (house_id) references houses (id) on delete cascade`.execute(db);
	}
	for (const { of, name, kind, columns } of keys.filter((key) => key.kind !== 'f'))
		await sql`alter table ${sql.table(of)} add constraint ${sql.ref(name)}
			${kind === 'p' ? sql`primary key` : sql`unique`} (house_id, ${named(columns)})`.execute(db);
	for (const { made } of indexes) await sql.raw(made.replace('USING btree (', 'USING btree (house_id, ')).execute(db);
	for (const key of keys.filter(({ kind }) => kind === 'f'))
		await sql`alter table ${sql.table(key.of)} add constraint ${sql.ref(key.name)}
			foreign key (house_id, ${named(key.columns)})
			references ${sql.table(key.to!)} (house_id, ${named(key.to_columns!)}) ${onDelete(key)}`.execute(db);

	for (const table of BY_SOMEBODY)
		await sql`alter table ${sql.table(table)} alter column made_by set default current_person()`.execute(db);
	for (const table of BY_SOMEBODY_NOW)
		await sql`alter table ${sql.table(table)} add column made_by text default current_person()`.execute(db);

	for (const table of [...TABLES, 'houses']) {
		const column = sql.ref(table === 'houses' ? 'id' : 'house_id');
		await sql`alter table ${sql.table(table)} enable row level security`.execute(db);
		await sql`create policy own_house on ${sql.table(table)} to heptarch_house
			using (${column} = current_house()) with check (${column} = current_house())`.execute(db);
	}
	await sql`grant usage on schema public to heptarch_house`.execute(db);
	await sql`grant select, insert, update, delete on ${sql.join(TABLES.map((table) => sql.table(table)))} to heptarch_house`.execute(
		db
	);
	// A house is made and removed by whoever keeps the installation, not from inside of one.
	await sql`grant select, update on houses to heptarch_house`.execute(db);
	await sql`grant usage on all sequences in schema public to heptarch_house`.execute(db);
	await findInside(db);
}

/** Rows of a house are found by an index of words only where PostgreSQL is told that the house is looked at as well. */
async function findInside(db: Kysely<unknown>): Promise<void> {
	await sql`create function documents_with_word(part text, lexeme text, lang regconfig) returns setof uuid
		language sql stable security definer set search_path = public, pg_temp as $$
		select id from documents where house_id = current_house() and lower(name) like part
		union all
		select id from documents where house_id = current_house()
			and found_by @@ (to_tsquery('simple', lexeme) || to_tsquery(lang, lexeme))
		union all
		select document_id from wears where house_id = current_house()
			and style_id in (select id from styles where house_id = current_house() and lower(name) like part)
		$$`.execute(db);
	await sql`revoke execute on function documents_with_word from public`.execute(db);
	await sql`grant execute on function documents_with_word to heptarch_house`.execute(db);
}

/** Roles belong to the cluster: another installation on it may have made them, at this moment, too. */
async function makeRole(db: Kysely<unknown>): Promise<void> {
	await sql`do $$ begin
		create role heptarch_house nologin;
	exception when duplicate_object or unique_violation then null;
	end $$`.execute(db);
	await sql`grant heptarch_house to current_user`.execute(db);
}

export async function down(): Promise<void> {
	throw new Error('Houses that are kept apart are not put together again; restore a backup from before.');
}
