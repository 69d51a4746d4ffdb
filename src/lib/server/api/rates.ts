import { sql, type Kysely } from 'kysely';
import type { Database } from '../database.ts';

/** How often one program or person may ask within a minute, whichever web process answers. */
export const MOST_A_MINUTE = 600;

export interface Rate {
	/** How often they may still ask. */
	readonly left: number;
	/** Seconds until they may ask as often again. */
	readonly resets: number;
	readonly isOver: boolean;
}

/** Counts a request of somebody. */
export async function countRequest(db: Kysely<Database>, of: string, most: number): Promise<Rate> {
	const { rows } = await sql<{ count: number; resets: number }>`
		insert into rates (of, minute) values (${of}, date_trunc('minute', now()))
		on conflict (house_id, of, minute) do update set count = rates.count + 1
		returning count, ceil(60 - extract(second from now()))::int as resets`.execute(db);
	const { count, resets } = rows[0]!;
	return { left: Math.max(0, most - count), resets, isOver: count > most };
}
