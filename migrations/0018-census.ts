import { sql, type Kysely } from 'kysely';

/**
 * What the census keeps of each table, worked out in the background once its document is another: its look (tables that
 * look the same share one), what it shows of settings that vary, findings, and what a policy is counted by. A policy stands
 * in the house, and a run can be for some tables of a document.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
	await sql`alter table documents
		add column counted_at timestamptz,
		add column counted_by integer,
		add column count_tries integer not null default 0,
		add column count_begun timestamptz,
		add column count_fault text`.execute(db);
	await sql`comment on column documents.counted_at is 'its updated_at as the census saw it last'`.execute(db);
	await sql`create index documents_to_count on documents (updated_at)
		where removed_at is null and counted_at is distinct from updated_at`.execute(db);

	await sql`create table census_looks (
		id serial primary key,
		hash text not null unique,
		portrait jsonb not null,
		leader integer references census_looks (id),
		picture jsonb,
		picture_of uuid references documents (id) on delete set null,
		x real, y real
	)`.execute(db);
	await sql`comment on column census_looks.leader is 'the first look of its group; null where it is that itself'`.execute(
		db
	);
	await sql`create index census_looks_leader on census_looks (leader)`.execute(db);
	await sql`create index census_looks_picture_of on census_looks (picture_of)`.execute(db);

	await sql`create table census_tables (
		document_id uuid not null references documents (id) on delete cascade,
		table_index integer not null,
		title text not null,
		purpose text not null,
		look integer references census_looks (id),
		shows integer[] not null,
		findings jsonb not null,
		measures jsonb not null,
		primary key (document_id, table_index)
	)`.execute(db);
	await sql`comment on column census_tables.shows is 'ids of census_values'`.execute(db);
	await sql`create index census_tables_look on census_tables (look)`.execute(db);
	await sql`create table census_values (
		id serial primary key,
		setting text not null,
		value text not null,
		unique (setting, value)
	)`.execute(db);

	await sql`create table census_days (
		document_id uuid not null references documents (id) on delete cascade,
		day date not null,
		tables integer not null,
		styled integer not null,
		findings integer,
		primary key (document_id, day)
	)`.execute(db);
	await takeDaysFromSteps(db);

	await sql`create table census_styles (
		style_id uuid primary key references styles (id) on delete cascade,
		made_of text not null,
		portrait jsonb
	)`.execute(db);

	await sql`alter table houses add column policy jsonb`.execute(db);
	await sql`alter table run_items add column chosen integer[]`.execute(db);
}

/** What is known of the days before: which tables wore a style after the last step of each that is kept. */
export async function takeDaysFromSteps(db: Kysely<unknown>): Promise<void> {
	await sql`insert into census_days (document_id, day, tables, styled)
		select distinct on (s.document_id, s.created_at::date) s.document_id, s.created_at::date, d.tables,
			least(d.tables, (select count(*) from jsonb_each(
				case jsonb_typeof(s.state -> 'tables') when 'object' then s.state -> 'tables' else '{}' end
			) as own where jsonb_typeof(own.value) = 'object' and own.value ? 'style'))
		from document_steps s join documents d on d.id = s.document_id and s.step <= d.step
		order by s.document_id, s.created_at::date, s.step desc`.execute(db);
}

export async function down(db: Kysely<unknown>): Promise<void> {
	await sql`alter table run_items drop column chosen`.execute(db);
	await sql`alter table houses drop column policy`.execute(db);
	for (const table of ['census_styles', 'census_days', 'census_tables', 'census_values', 'census_looks'])
		await sql`drop table ${sql.table(table)}`.execute(db);
	await sql`drop index documents_to_count`.execute(db);
	await sql`alter table documents
		drop column counted_at, drop column counted_by, drop column count_tries, drop column count_begun, drop column count_fault`.execute(
		db
	);
}
