import { sql } from 'kysely';
import { VARYING } from '../../core/census/settings.ts';
import { distance, type Portrait } from '../../core/lift/likeness.ts';
import { isFlagged, leavesOut, POLICY_RULES } from '../../core/policy/policy.ts';
import type { Thumbnail } from '../../workbench/thumbnail.ts';
import { EMPTY_POLICY } from '../../workbench/house.ts';
import type { Db } from '../documents/rows.ts';
import { loadHouse } from '../house/house.ts';
import { documentsOf, measuredTables, parsed, ruleAs, tablesOf, type CensusOf } from './among.ts';
import { openPortrait } from './gallery.ts';

/** So many documents are listed at a time, groups drawn, values of a setting named. */
const LISTED = 50;
const DRAWN = 60;
const VALUES = 40;

/** What every part of the census says first: of what it is, and what is not in it. */
export async function censusFacts(db: Db, of: CensusOf) {
	const { rows } = await sql<{
		documents: number;
		waiting: number;
		tables: number;
		layout: number;
	}>`with of as (${documentsOf(of)})
		select count(*)::int as documents,
			count(*) filter (where counted_at is distinct from updated_at and count_fault is null)::int as waiting,
			(select count(*) from census_tables where look is not null and document_id in (select id from of))::int as tables,
			(select count(*) from census_tables where look is null and document_id in (select id from of))::int as layout
		from documents where id in (select id from of)`.execute(db);
	const faults = await sql<{ id: string; name: string; why: string }>`
		select id, name, count_fault as why from documents
		where count_fault is not null and id in (${documentsOf(of)}) order by name limit ${LISTED}`.execute(db);
	const kinds = await sql<{ kind: string }>`
		select distinct kind from documents where removed_at is null and archived_at is null order by kind`.execute(db);
	return { ...rows[0]!, faults: faults.rows, kinds: kinds.rows.map(({ kind }) => kind) };
}

/** Share of tables in house styles: by kind of file, by document, by who worked on it last, by edition, over time. */
export async function loadShare(db: Db, of: CensusOf) {
	const byKind = await sql<{ kind: string; documents: number; tables: number; styled: number }>`
		select d.kind, count(distinct d.id)::int as documents, count(*)::int as tables, count(t.style_id)::int as styled
		from (${tablesOf(of)}) t join documents d on d.id = t.document_id group by d.kind order by tables desc`.execute(db);
	const byDocument = await sql<{
		id: string;
		name: string;
		kind: string;
		tables: number;
		styled: number;
		looks: number;
	}>`select d.id, d.name, d.kind, count(*)::int as tables, count(t.style_id)::int as styled,
			count(distinct coalesce(l.leader, l.id))::int as looks
		from (${tablesOf(of)}) t join documents d on d.id = t.document_id join census_looks l on l.id = t.look
		group by d.id, d.name, d.kind order by count(*) - count(t.style_id) desc, looks desc, d.name limit ${LISTED}`.execute(
		db
	);
	const byPerson = await sql<{ name: string | null; documents: number; tables: number; styled: number }>`
		select (select name from colleagues where colleagues.id = s.made_by) as name,
			count(distinct d.id)::int as documents, count(*)::int as tables, count(t.style_id)::int as styled
		from (${tablesOf(of)}) t join documents d on d.id = t.document_id
		join document_steps s on s.document_id = d.id and s.step = d.step
		group by s.made_by order by tables desc, name limit ${LISTED}`.execute(db);
	const editions = await sql<{ id: string; name: string; edition: number; newest: number; tables: number }>`
		with newest as (select style_id, max(number) as number from editions group by style_id)
		select s.id, s.name, t.edition, n.number as newest, count(*)::int as tables
		from (${tablesOf(of)}) t join styles s on s.id = t.style_id join newest n on n.style_id = s.id
		group by s.id, s.name, t.edition, n.number order by s.name, t.edition desc`.execute(db);
	return {
		byKind: byKind.rows,
		byDocument: byDocument.rows,
		byPerson: byPerson.rows,
		editions: editions.rows,
		days: await loadDays(db, of)
	};
}

/** What there was at the end of each day on which something changed; of documents that are here now. */
export interface CensusDay {
	/** ISO 8601. */
	readonly day: string;
	readonly tables: number;
	readonly styled: number;
	/** null for days before findings were counted. */
	readonly findings: number | null;
}

async function loadDays(db: Db, of: CensusOf): Promise<CensusDay[]> {
	// Each document's change from its day before, added up day by day.
	const { rows } = await sql<CensusDay & { unknown: number }>`
		with steps as (
			select document_id, day,
				tables - coalesce(lag(tables) over own, 0) as tables,
				styled - coalesce(lag(styled) over own, 0) as styled,
				coalesce(findings, 0) - coalesce(lag(findings) over own, 0) as findings,
				(findings is null)::int - coalesce(lag((findings is null)::int) over own, 0) as unknown
			from census_days where document_id in (${documentsOf(of)})
			window own as (partition by document_id order by day)
		), days as (
			select day, sum(tables) as tables, sum(styled) as styled, sum(findings) as findings, sum(unknown) as unknown
			from steps group by day
		)
		select to_char(day, 'YYYY-MM-DD') as day, (sum(tables) over (order by day))::int as tables,
			(sum(styled) over (order by day))::int as styled, (sum(findings) over (order by day))::int as findings,
			(sum(unknown) over (order by day))::int as unknown
		from days order by day`.execute(db);
	return rows.map(({ unknown, findings, ...day }) => ({ ...day, findings: unknown ? null : findings }));
}

/** Tables that look alike. */
export interface LookGroup {
	readonly id: number;
	readonly tables: number;
	readonly documents: number;
	/** How many of them wear which style. */
	readonly wears: readonly { readonly name: string; readonly tables: number }[];
	readonly picture: Thumbnail | null;
	/** The style of the Stylebook that it is nearest to; distance from 0 to 1. */
	readonly nearest: { readonly id: string; readonly name: string; readonly distance: number } | null;
	/** Where it stands on the map, from −1 to 1. */
	readonly spot: readonly [x: number, y: number] | null;
	/** One of its tables. */
	readonly one: { readonly document: string; readonly index: number; readonly version: number; readonly title: string };
}

/** The largest groups of tables that look alike, and how many there are. */
export async function loadLooks(db: Db, of: CensusOf): Promise<{ all: number; groups: LookGroup[] }> {
	const { rows } = await sql<{
		id: number;
		all: number;
		tables: number;
		documents: number;
		picture: Thumbnail | null;
		x: number | null;
		y: number | null;
		portrait: [string, unknown][];
		one: string;
	}>`with groups as (
			select coalesce(m.leader, m.id) as id, count(*)::int as tables, count(distinct t.document_id)::int as documents,
				min(t.document_id::text || '/' || t.table_index) as one
			from (${tablesOf(of)}) t join census_looks m on m.id = t.look group by 1
		)
		select g.*, (select count(*) from groups)::int as all, l.picture, l.x, l.y, l.portrait
		from (select * from groups order by tables desc, id limit ${DRAWN}) g join census_looks l on l.id = g.id
		order by tables desc, id`.execute(db);
	const wears = await sql<{ group: number; name: string; tables: number }>`
		select coalesce(m.leader, m.id) as group, s.name, count(*)::int as tables
		from (${tablesOf(of)}) t join census_looks m on m.id = t.look join styles s on s.id = t.style_id
		where coalesce(m.leader, m.id) = any(${rows.map(({ id }) => id)}::int[])
		group by 1, 2 order by tables desc`.execute(db);
	const ones = await sql<{ one: string; document: string; index: number; version: number; title: string }>`
		select t.document_id::text || '/' || t.table_index as one, t.document_id as document, t.table_index as index,
			d.version, t.title
		from census_tables t join documents d on d.id = t.document_id
		where (t.document_id, t.table_index) in (
			select * from unnest(${rows.map(({ one }) => one.split('/')[0])}::uuid[], ${rows.map(({ one }) => Number(one.split('/')[1]))}::int[])
		)`.execute(db);
	const oneOf = new Map(ones.rows.map(({ one, ...place }) => [one, place]));
	const styles = await seenStyles(db);
	return {
		all: rows[0]?.all ?? 0,
		groups: rows.map(({ id, tables, documents, picture, x, y, portrait, one }) => ({
			id,
			tables,
			documents,
			wears: wears.rows.filter(({ group }) => group === id).map(({ name, tables: count }) => ({ name, tables: count })),
			picture,
			nearest: nearestOf(styles, openPortrait(portrait)),
			spot: x === null || y === null ? null : ([x, y] as const),
			one: oneOf.get(one)!
		}))
	};
}

async function seenStyles(db: Db): Promise<{ id: string; name: string; look: Portrait }[]> {
	const rows = await db
		.selectFrom('census_styles')
		.innerJoin('styles', 'styles.id', 'census_styles.style_id')
		.select(['styles.id', 'styles.name', 'portrait'])
		.where('archived_at', 'is', null)
		.where('portrait', 'is not', null)
		.orderBy('styles.name')
		.execute();
	return rows.map(({ id, name, portrait }) => ({ id, name, look: openPortrait(portrait!) }));
}

function nearestOf(
	styles: readonly { id: string; name: string; look: Portrait }[],
	look: Portrait
): LookGroup['nearest'] {
	let best: LookGroup['nearest'] = null;
	for (const { id, name, look: other } of styles) {
		const apart = distance(look, other);
		if (apart < (best?.distance ?? 1)) best = { id, name, distance: apart };
	}
	return best;
}

/** A setting that tables set differently, with what they set, the most frequent first. */
export interface Variation {
	readonly setting: string;
	readonly words: string;
	/** How many values there are. */
	readonly all: number;
	readonly tables: number;
	readonly values: readonly {
		readonly value: string;
		readonly words: string;
		/** Others can be brought to it. */
		readonly canBring: boolean;
		/** An ink to be shown, where it is one. */
		readonly ink: string | null;
		readonly tables: number;
		readonly documents: number;
	}[];
}

export async function loadVariations(db: Db, of: CensusOf): Promise<Variation[]> {
	const { rows } = await sql<{
		setting: string;
		value: string;
		tables: number;
		documents: number;
		all: number;
		sum: number;
	}>`
		with shown as (
			select unnest(shows) as id, document_id, count(*) as tables
			from census_tables where document_id in (${documentsOf(of)}) group by 1, 2
		), counts as (
			select id, sum(tables)::int as tables, count(*)::int as documents from shown group by id
		), ranked as (
			select setting, value, tables, documents,
				row_number() over (partition by setting order by tables desc, value) as place,
				count(*) over (partition by setting)::int as all, (sum(tables) over (partition by setting))::int as sum
			from counts join census_values using (id)
		)
		select setting, value, tables, documents, "all", sum from ranked where place <= ${VALUES} and "all" > 1
		order by setting, tables desc, value`.execute(db);
	const bySetting = new Map<string, typeof rows>();
	for (const row of rows) bySetting.set(row.setting, [...(bySetting.get(row.setting) ?? []), row]);
	return VARYING.flatMap(({ code, words, say, canBring }) => {
		const own = bySetting.get(code);
		if (!own) return [];
		return [
			{
				setting: code,
				words,
				all: own[0]!.all,
				tables: own[0]!.sum,
				values: own.map(({ value, tables, documents }) => {
					const is: unknown = parsed(value);
					return {
						value,
						words: say(is),
						canBring: canBring(is),
						ink: typeof is === 'string' && is.startsWith('#') ? is : null,
						tables,
						documents
					};
				})
			}
		];
	}).sort((a, b) => b.all - a.all);
}

/** Findings by kind, by document, over time. */
export async function loadFindings(db: Db, of: CensusOf) {
	const byKind = await sql<{ kind: string; count: number; tables: number; documents: number }>`
		select f.key as kind, sum(f.value::int)::int as count, count(*)::int as tables,
			count(distinct t.document_id)::int as documents
		from (${tablesOf(of)}) t cross join lateral jsonb_each_text(t.findings) f group by 1 order by 2 desc`.execute(db);
	const byDocument = await sql<{ id: string; name: string; count: number; tables: number }>`
		select d.id, d.name, sum(f.value::int)::int as count, count(distinct t.table_index)::int as tables
		from (${tablesOf(of)}) t cross join lateral jsonb_each_text(t.findings) f
		join documents d on d.id = t.document_id group by d.id, d.name order by 3 desc, d.name limit ${LISTED}`.execute(db);
	return { byKind: byKind.rows, byDocument: byDocument.rows, days: await loadDays(db, of) };
}

/** How many tables, in how many documents, each rule flags; also the rules that the policy does not have, as they usually are. */
export async function countRules(
	db: Db,
	of: CensusOf = {}
): Promise<{ tables: number; documents: number; counts: Record<string, { tables: number; documents: number }> }> {
	const { policy } = await loadHouse(db);
	const kept = policy ?? EMPTY_POLICY;
	const tables = (await measuredTables(db, of)).filter(({ purpose }) => !leavesOut(kept, purpose));
	const counts = POLICY_RULES.map(({ name }) => {
		const wanted = ruleAs(kept, name);
		const flagged = tables.filter(({ measures }) => isFlagged(wanted, measures));
		return [name, { tables: flagged.length, documents: new Set(flagged.map(({ document_id }) => document_id)).size }];
	});
	return {
		tables: tables.length,
		documents: new Set(tables.map(({ document_id }) => document_id)).size,
		counts: Object.fromEntries(counts)
	};
}
