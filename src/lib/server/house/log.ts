import { sql } from 'kysely';
import type { Db } from '../documents/rows.ts';

/** Something that was done to the house, by whom (null: by itself) and when (ISO 8601). */
export interface LogEntry {
	readonly id: number;
	readonly when: string;
	readonly by: string | null;
	readonly kind: string;
	readonly words: string;
}

export interface LogQuery {
	/** The id of who did it. */
	readonly person?: string | undefined;
	/** The day on which it was done, as ISO 8601 has it, in UTC. */
	readonly day?: string | undefined;
	/** Only what is older than this entry. */
	readonly before?: number | undefined;
	readonly most?: number | undefined;
}

const PAGE = 100;

/** Writes down what whoever acts does to the house. */
export const addToLog = (db: Db, kind: string, words: string): Promise<unknown> =>
	db.insertInto('house_log').values({ kind, words }).execute();

/** What was done to the house, the latest first. */
export async function listLog(db: Db, { person, day, before, most = PAGE }: LogQuery = {}): Promise<LogEntry[]> {
	const rows = await db
		.selectFrom('house_log')
		.leftJoin('colleagues', (join) => join.onRef('colleagues.id', '=', 'person_id'))
		.select(['house_log.id', 'at', 'name', 'kind', 'words'])
		.$if(person !== undefined, (query) => query.where('person_id', '=', person!))
		.$if(day !== undefined, (query) => query.where(sql<boolean>`at >= ${day}::date and at < ${day}::date + 1`))
		.$if(before !== undefined, (query) => query.where('house_log.id', '<', before!))
		.orderBy('house_log.id', 'desc')
		.limit(most)
		.execute();
	return rows.map(({ id, at, name, kind, words }) => ({
		id: Number(id),
		when: at.toISOString(),
		by: name,
		kind,
		words
	}));
}
