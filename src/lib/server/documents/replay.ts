import { sql, type Transaction } from 'kysely';
import { applyPatch, type Patch } from '../../core/work/patch.ts';
import type { WorkTable } from '../../core/work/table.ts';
import type { DocumentState } from '../../workbench/state.ts';
import type { Database } from '../database.ts';
import { BY } from '../history.ts';
import { ofHouse } from '../people/acting.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Db } from './rows.ts';

/**
 * Tables at steps of their work, by house and the step's id, so that a step is not replayed for every request; the newest 24.
 * Houses that were brought in from elsewhere number their steps as others do.
 */
const replayed = new Map<string, WorkTable>();
const MOST = 24;

export function rememberWork(id: number, work: WorkTable): WorkTable {
	const name = ofHouse(String(id));
	replayed.delete(name);
	replayed.set(name, work);
	if (replayed.size > MOST) replayed.delete(replayed.keys().next().value!);
	return work;
}

/** How often steps of a house had been written anew, in any process, when these were remembered. */
const rewritten = new Map<string, number>();
async function forgetRewritten(db: Db): Promise<void> {
	const now = (await db.selectFrom('houses').select('work_rewritten').executeTakeFirst())?.work_rewritten ?? 0;
	const house = ofHouse('');
	if (now !== (rewritten.get(house) ?? 0))
		for (const name of replayed.keys()) if (name.startsWith(house)) replayed.delete(name);
	rewritten.set(house, now);
}
/** Steps are written anew: once that is committed, nobody goes by what they were. */
export async function worksRewritten(trx: Transaction<Database>): Promise<void> {
	await trx
		.updateTable('houses')
		.set(({ eb }) => ({ work_rewritten: eb('work_rewritten', '+', 1) }))
		.execute();
}

export interface Chained {
	readonly id: number;
	readonly parent: number | null;
	readonly label: string;
	readonly patch: Patch | null;
	readonly whole: WorkTable | null;
	/** Who made it; null: nobody said. */
	readonly made_by: string | null;
	readonly created_at: Date;
}

/** A step and those before it, newest first, down to one that keeps the table whole and lies at least `least` back. */
export async function chain(db: Db, id: number, least = 0): Promise<Chained[]> {
	const { rows } = await sql<Chained>`
		with recursive back as (
			select id, parent, label, patch, whole, made_by, created_at, 0 as depth from work_steps where id = ${id}
			union all
			select s.id, s.parent, s.label, s.patch, s.whole, s.made_by, s.created_at, back.depth + 1
			from work_steps s join back on s.id = back.parent
			where back.whole is null or back.depth < ${least}
		)
		select id, parent, label, patch, whole, ${BY} as made_by, created_at from back order by depth`.execute(db);
	if (!rows.length) throw new NotFoundError('This step of the work is no longer here.');
	return rows;
}

/** The table at a step. */
export async function workAt(db: Db, id: number): Promise<WorkTable> {
	await forgetRewritten(db);
	const before = replayed.get(ofHouse(String(id)));
	if (before) return rememberWork(id, before);
	const steps = await chain(db, id);
	return rememberWork(id, replay(steps.toReversed()));
}

const replay = ([first, ...rest]: readonly Chained[]): WorkTable =>
	rest.reduce((work, step) => step.whole ?? applyPatch(work, step.patch!), first!.whole!);

/** The tables of a document that were worked on, as they stand in a state. */
export async function worksIn(
	db: Db,
	{ tables }: DocumentState
): Promise<Map<number, { step: number; work: WorkTable }>> {
	const works = new Map<number, { step: number; work: WorkTable }>();
	for (const [index, { work }] of Object.entries(tables))
		if (work !== undefined) works.set(Number(index), { step: work, work: await workAt(db, work) });
	return works;
}

/** Adds a step; answers its id. */
export async function insertStep(
	trx: Transaction<Database>,
	{
		patch,
		whole,
		...step
	}: { document_id: string; parent: number | null; label: string; patch?: Patch; whole?: WorkTable }
): Promise<number> {
	const { id } = await trx
		.insertInto('work_steps')
		.values({
			...step,
			patch: patch ? JSON.stringify(patch) : null,
			whole: whole ? JSON.stringify(whole) : null
		})
		.returning('id')
		.executeTakeFirstOrThrow();
	return id;
}
