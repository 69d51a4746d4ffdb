import { sql, type Kysely, type Transaction } from 'kysely';
import type { Database } from '../database.ts';

/** What of a house is kept in a backup, each table before those that refer to it. */
export const KEPT = [
	'files',
	'styles',
	'style_steps',
	'editions',
	'proposals',
	'documents',
	'document_steps',
	'work_steps',
	'wears',
	'starters',
	'corrections',
	'runs',
	'run_items',
	'rollouts',
	'house_steps',
	'house_log',
	'census_days'
] as const;
export type KeptTable = (typeof KEPT)[number];

/** What is worked out again, is over when its process ends, or lets somebody in. */
export const LEFT_OUT = [
	'answers_kept',
	'census_looks',
	'census_styles',
	'census_tables',
	'census_values',
	'deliveries',
	'links',
	'members',
	'presence',
	'rates',
	'sessions',
	'specimens',
	'thumbnails',
	'tokens',
	'webhooks'
] as const;

/** Columns that are worked out again, or kept as entries of their own. */
const WITHOUT: Readonly<Record<string, readonly string[]>> = {
	files: ['bytes'],
	documents: ['counted_at', 'counted_by', 'count_tries', 'count_begun', 'count_fault', 'specimens_of'],
	houses: ['work_rewritten']
};
/** Tables whose rows refer to each other in any order: all of them are put in at once. */
export const AT_ONCE: readonly string[] = ['styles'];

type Trx = Transaction<Database> | Kysely<Database>;

/** The columns of a table that a backup has, in the order of their names. */
export async function columnsOf(trx: Trx, table: string): Promise<string[]> {
	const { rows } = await sql<{ name: string }>`
		select attname as name from pg_attribute
		where attrelid = ${table}::regclass and attnum > 0 and not attisdropped and attgenerated = '' order by attname`.execute(
		trx
	);
	const without = ['house_id', ...(table === 'houses' ? ['id'] : []), ...(WITHOUT[table] ?? [])];
	return rows.map(({ name }) => name).filter((name) => !without.includes(name));
}

async function keyOf(trx: Trx, table: string): Promise<string[]> {
	const { rows } = await sql<{ name: string }>`
		select a.attname as name from pg_index i, unnest(i.indkey) with ordinality as k (number, place), pg_attribute a
		where i.indrelid = ${table}::regclass and i.indisprimary and a.attrelid = i.indrelid and a.attnum = k.number
		order by k.place`.execute(trx);
	return rows.map(({ name }) => name);
}

const ROWS = 500;

/** The rows of a house in a table, in the order of their key, as lines of JSON; some hundred at a time. */
export async function* linesOf(trx: Trx, table: string, house: string): AsyncGenerator<string[]> {
	const columns = await columnsOf(trx, table);
	const own = sql.ref(table === 'houses' ? 'id' : 'house_id');
	const pairs = sql.join(columns.map((name) => sql`${sql.lit(name)}, ${sql.ref(`t.${name}`)}`));
	const key = sql.join((await keyOf(trx, table)).map((name) => sql.ref(`t.${name}`)));
	const cursor = sql.ref(`rows_of_${table}`);
	await sql`declare ${cursor} no scroll cursor for
		select jsonb_build_object(${pairs})::text as line from ${sql.table(table)} t where ${own} = ${sql.lit(house)}::uuid order by ${key}`.execute(
		trx
	);
	for (;;) {
		const { rows } = await sql<{ line: string }>`fetch ${sql.lit(ROWS)} from ${cursor}`.execute(trx);
		if (!rows.length) break;
		yield rows.map(({ line }) => line);
	}
	await sql`close ${cursor}`.execute(trx);
}
