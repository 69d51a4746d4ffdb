import { sql, type Kysely, type Transaction } from 'kysely';
import { plural } from '../../core/words.ts';
import { inTransaction, type Database } from '../database.ts';
import { workAt } from '../documents/replay.ts';
import { DOCUMENTS, type Db } from '../documents/rows.ts';
import { NotFoundError } from '../http/answers.ts';
import { STYLES } from '../styles/styles.ts';
import { HOUSE, loadHouse } from './house.ts';
import { addToLog } from './log.ts';

const DAY = 86_400_000;
const before = (days: number) => new Date(Date.now() - days * DAY);

/** The histories whose steps go once they lie beyond the keeping time. */
const HISTORIES = [DOCUMENTS, STYLES, HOUSE];

/** Steps are kept for so many days from now on, or for good. */
export async function setKeepingTime(db: Kysely<Database>, days: number | null): Promise<void> {
	await db.transaction().execute(async (trx) => {
		await trx
			.updateTable('houses')
			.set({ keep_days: days })
			.where('id', '=', sql<string>`current_house()`)
			.execute();
		const words = days === null ? 'for good' : `for ${plural(days, 'day')}`;
		await addToLog(trx, 'house', `steps are kept ${words} from now on`);
	});
}

/** Steps of work on tables that nothing needs any more which has happened since a time. */
const WORK_BEYOND = (since: Date) => sql`(
	with olds as (select distinct document_id from work_steps where created_at < ${since}),
	needed as (
		select (jsonb_path_query(state, '$.tables.*.work ? (@.type() == "number")'))::bigint as id
		from document_steps where document_id in (select document_id from olds)
		union select (jsonb_path_query(before, '$.**.work ? (@.type() == "number")'))::bigint
		from run_items where document_id in (select document_id from olds)
		union select parent from work_steps where created_at >= ${since}
	)
	select id, document_id from work_steps where created_at < ${since}
	and not exists (select from needed where needed.id = work_steps.id))`;

/** How many steps go where only those of so many days are kept. */
export async function countBeyond(db: Db, days: number): Promise<number> {
	const since = before(days);
	let steps = 0;
	for (const history of HISTORIES) for (const one of await history.olderThan(db, since)) steps += one.steps;
	const { rows } = await sql<{
		steps: number;
	}>`select count(*)::int as steps from ${WORK_BEYOND(since)} beyond`.execute(db);
	return steps + rows[0]!.steps;
}

/**
 * Drops the steps that lie beyond the keeping time of the house. Where something stands stays, however old, and so does
 * what undo of a step that is kept goes back to. Returns how many went.
 */
export async function forgetSteps(db: Db): Promise<number> {
	const { keepDays } = await loadHouse(db);
	if (keepDays === null) return 0;
	const since = before(keepDays);
	let gone = 0;
	const forget = async (work: (trx: Transaction<Database>) => Promise<number>) => {
		gone += await inTransaction(db, work).catch((error: unknown) => {
			// It went itself meanwhile, with its steps.
			if (error instanceof NotFoundError) return 0;
			throw error;
		});
	};
	for (const history of HISTORIES)
		for (const { id } of await history.olderThan(db, since))
			await forget(async (trx) => {
				const steps = await history.forget(trx, id, since);
				if (history === DOCUMENTS) await standOnKept(trx, id);
				return steps;
			});
	const { rows } = await sql<{ id: string }>`
		select document_id as id from ${WORK_BEYOND(since)} beyond
		join documents on documents.id = document_id where removed_at is null group by 1`.execute(db);
	for (const { id } of rows) await forget((trx) => forgetWork(trx, id, since));
	return gone;
}

/** A document all of whose steps stand on newer files needs the one that came no more. */
const standOnKept = (trx: Transaction<Database>, id: string) =>
	sql`
	with kept as (
		select step, coalesce(state -> 'drawing' ->> 'file', state ->> 'file') as file
		from document_steps where document_id = ${id}
	)
	update documents set file_hash = hash from files
	where id = ${id} and hash = (select file from kept order by step limit 1)
	and not exists (select from kept where file is null)`.execute(trx);

/** Drops steps of the work on a document's tables; those that come after one of them keep the table whole. */
async function forgetWork(trx: Transaction<Database>, document: string, since: Date): Promise<number> {
	await DOCUMENTS.lock(trx, document);
	const { rows } = await sql<{ id: number }>`
		select id from ${WORK_BEYOND(since)} beyond where document_id = ${document}`.execute(trx);
	if (!rows.length) return 0;
	// One list, however long: a statement takes some ten thousands of parameters.
	const gone = sql`any(${rows.map(({ id }) => id)}::bigint[])`;
	const after = await sql<{ id: number }>`
		select id from work_steps where parent = ${gone} and not id = ${gone}`.execute(trx);
	for (const { id } of after.rows) {
		const whole = JSON.stringify(await workAt(trx, id));
		await trx.updateTable('work_steps').set({ whole, patch: null, parent: null }).where('id', '=', id).execute();
	}
	await sql`delete from work_steps where id = ${gone}`.execute(trx);
	return rows.length;
}
