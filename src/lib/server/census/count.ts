import { sql, type InsertObject, type Kysely, type Transaction } from 'kysely';
import { countTable, isCounted } from '../../core/census/count.ts';
import { shownKey } from '../../core/properties/shadow.ts';
import { wellFormed } from '../../core/well-formed.ts';
import type { DocumentTable } from '../../formats/document.ts';
import type { Subject } from '../../core/policy/policy.ts';
import type { TableState } from '../../workbench/state.ts';
import { purposeOf } from '../../workbench/table.ts';
import type { Database } from '../database.ts';
import { openAt } from '../documents/open.ts';
import { stateAt, type Db } from '../documents/rows.ts';
import { Dresser } from '../styles/dresser.ts';
import { announce } from '../programs/webhooks.ts';
import { forgetLooks, type Gallery } from './gallery.ts';

/** A value of a setting that is longer is not counted. */
const LONGEST_VALUE = 500;
/** The way of counting: documents that were counted in another are counted again. */
export const COUNTED_BY = 1;

/** A table as a policy is held against it in the house; what it wears is known elsewhere, by its id. */
export function subjectOf(dresser: Dresser, entry: DocumentTable, state: TableState | undefined): Subject {
	const seen = dresser.seen(entry, state);
	return {
		...seen,
		purpose: purposeOf(entry, state),
		where: entry.place.where,
		caption: entry.place.caption,
		wears: state?.style,
		touches: seen.table.touches
	};
}

/** Counts a document as it stands now, and keeps what came of it in the place of what was known. */
export async function countDocument(db: Kysely<Database>, gallery: Gallery, id: string): Promise<void> {
	const found = await db
		.selectFrom('documents')
		.select(['id', 'name', 'kind', 'file_hash', 'step', sql<string>`updated_at::text`.as('changed')])
		.where('id', '=', id)
		.where('removed_at', 'is', null)
		.executeTakeFirst();
	if (!found) return;
	const state = await stateAt(db, id, found.step);
	const { tables } = await openAt(db, found, state);
	const dresser = await Dresser.of(db);
	const counted = tables.map((entry) => {
		const own = state.tables[entry.index];
		return { entry, own, ...countTable(subjectOf(dresser, entry, own)) };
	});
	await db.transaction().execute(async (trx) => {
		// It may have gone meanwhile; another count of it waits here.
		const here = await trx
			.selectFrom('documents')
			.select('id')
			.where('id', '=', id)
			.where('removed_at', 'is', null)
			.forUpdate()
			.executeTakeFirst();
		if (!here) return;
		const before = await trx
			.selectFrom('census_tables')
			.select('look')
			.distinct()
			.where('document_id', '=', id)
			.where('look', 'is not', null)
			.execute();
		const had = await findingsKept(trx, id);
		await trx.deleteFrom('census_tables').where('document_id', '=', id).execute();
		const inside = counted.filter(({ purpose }) => isCounted(purpose));
		const looks = await gallery.idsOf(
			trx,
			inside.map(({ portrait }) => portrait)
		);
		const lookOf = new Map(inside.map(({ entry }, i) => [entry.index, looks[i]!]));
		const shown = inside.map(({ settings }) =>
			[...settings].flatMap(([setting, shows]) => {
				const value = wellFormed(shownKey(shows));
				// What is longer is no setting of a house, but a file that means harm; cut, it could not be read.
				return value.length > LONGEST_VALUE ? [] : [{ setting, value }];
			})
		);
		const valueIds = await idsOfValues(trx, shown.flat());
		const showsOf = new Map(
			inside.map(({ entry }, i) => [
				entry.index,
				shown[i]!.map(({ setting, value }) => valueIds.get(`${setting} ${value}`)!)
			])
		);
		await insertTables(
			trx,
			counted.map(({ entry: { index, place }, purpose, findings, measures }) => ({
				document_id: id,
				table_index: index,
				title: wellFormed(place.caption ?? `table ${index + 1}`).slice(0, 300),
				purpose,
				look: lookOf.get(index) ?? null,
				shows: showsOf.get(index) ?? [],
				findings: JSON.stringify(findings),
				measures: JSON.stringify(measures)
			}))
		);
		await announceFindings(
			trx,
			found,
			had,
			counted.map(({ findings }) => findings)
		);
		await recordDay(
			trx,
			id,
			inside.length,
			inside.filter(({ own }) => own?.style).length,
			inside.reduce((sum, { findings }) => sum + Object.values(findings).reduce((all, one) => all + one, 0), 0)
		);
		await drawGroups(trx, id, lookOf, (index) => dresser.picture(tables[index]!, state.tables[index]));
		await forgetLooks(
			trx,
			before.map(({ look }) => look!).filter((look) => !looks.includes(look))
		);
		await trx
			.updateTable('documents')
			.set({ counted_at: found.changed, counted_by: COUNTED_BY, count_tries: 0, count_begun: null, count_fault: null })
			.where('id', '=', id)
			.execute();
	});
}

type Findings = Readonly<Record<string, number>>;
const summed = (all: readonly Findings[]): Record<string, number> => {
	const sum: Record<string, number> = {};
	for (const one of all) for (const [kind, count] of Object.entries(one)) sum[kind] = (sum[kind] ?? 0) + count;
	return sum;
};

async function findingsKept(trx: Db, id: string): Promise<Findings> {
	const rows = await trx.selectFrom('census_tables').select('findings').where('document_id', '=', id).execute();
	return summed(rows.map(({ findings }) => findings));
}

/** Announces the findings of a document that there are more of than there were, by their kind. */
async function announceFindings(
	trx: Db,
	{ id, name, changed }: { readonly id: string; readonly name: string; readonly changed: string },
	had: Findings,
	has: readonly Findings[]
): Promise<void> {
	const more = Object.entries(summed(has)).flatMap(([kind, count]) =>
		count > (had[kind] ?? 0) ? [[kind, count - (had[kind] ?? 0)] as const] : []
	);
	if (!more.length) return;
	await announce(trx, 'finding.new', `${id} ${changed}`, { document: id, name, findings: Object.fromEntries(more) });
}

/** Ids of values of settings, by both; what is new is kept from now on. */
async function idsOfValues(
	trx: Transaction<Database>,
	shown: readonly { readonly setting: string; readonly value: string }[]
): Promise<Map<string, number>> {
	const all = new Map(shown.map((one) => [`${one.setting} ${one.value}`, one]));
	const [settings, values] = [[...all.values()].map((one) => one.setting), [...all.values()].map((one) => one.value)];
	await sql`insert into census_values (setting, value)
		select * from unnest(${settings}::text[], ${values}::text[]) as new order by 1, 2
		on conflict do nothing`.execute(trx);
	const { rows } = await sql<{ id: number; setting: string; value: string }>`
		select id, setting, value from census_values
		where (setting, value) in (select * from unnest(${settings}::text[], ${values}::text[]))`.execute(trx);
	return new Map(rows.map(({ id, setting, value }) => [`${setting} ${value}`, id]));
}

/** More than so many rows at once are more parameters than a statement may have. */
const AT_ONCE = 1_000;
async function insertTables(
	trx: Transaction<Database>,
	rows: readonly InsertObject<Database, 'census_tables'>[]
): Promise<void> {
	for (let from = 0; from < rows.length; from += AT_ONCE)
		await trx
			.insertInto('census_tables')
			.values(rows.slice(from, from + AT_ONCE))
			.execute();
}

async function recordDay(db: Db, id: string, tables: number, styled: number, findings: number): Promise<void> {
	await sql`insert into census_days (document_id, day, tables, styled, findings)
		values (${id}, current_date, ${tables}, ${styled}, ${findings})
		on conflict (house_id, document_id, day) do update
		set tables = excluded.tables, styled = excluded.styled, findings = excluded.findings`.execute(db);
}

/** The groups that a document's tables are in have a picture: of this document where it has none, or has one of it. */
async function drawGroups(
	trx: Transaction<Database>,
	id: string,
	lookOf: ReadonlyMap<number, number>,
	draw: (index: number) => object
): Promise<void> {
	// What it was a picture of has changed.
	await trx.updateTable('census_looks').set({ picture: null, picture_of: null }).where('picture_of', '=', id).execute();
	const ids = [...new Set(lookOf.values())];
	if (!ids.length) return;
	const { rows } = await sql<{ look: number; group: number }>`
		select m.id as look, l.id as "group" from census_looks m join census_looks l on l.id = coalesce(m.leader, m.id)
		where m.id = any(${ids}::int[]) and l.picture_of is null`.execute(trx);
	const group = new Map(rows.map((row) => [row.look, row.group]));
	const drawn = new Set<number>();
	for (const [index, look] of lookOf) {
		const leader = group.get(look);
		if (leader === undefined || drawn.has(leader)) continue;
		drawn.add(leader);
		await trx
			.updateTable('census_looks')
			.set({ picture: JSON.stringify(draw(index)), picture_of: id })
			.where('id', '=', leader)
			.execute();
	}
}
