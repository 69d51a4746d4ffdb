import { createHash } from 'node:crypto';
import { sql, type Kysely, type Transaction } from 'kysely';
import { portraitKey, type Portrait } from '../../core/lift/likeness.ts';
import { Looks } from '../../core/lift/looks.ts';
import type { Database } from '../database.ts';
import type { Db } from '../documents/rows.ts';

/** One number of PostgreSQL's advisory locks: who holds it puts looks into groups. */
const GROUPING = 0x6c6f6f6b;

export const openPortrait = (stored: [string, unknown][]): Portrait => new Map(stored) as Portrait;

/** The groups of looks that are kept, in memory, so that a new look finds its own among them. */
export class Gallery {
	private looks = new Looks();
	/** The id of each leader, by its index among the looks. */
	private ids: number[] = [];
	private newest = 0;

	/** Ids of the looks of some portraits, kept from now on; whoever asks holds the only pen until the transaction ends. */
	async idsOf(trx: Transaction<Database>, portraits: readonly Portrait[]): Promise<number[]> {
		if (!portraits.length) return [];
		await sql`select pg_advisory_xact_lock(${GROUPING})`.execute(trx);
		await this.renew(trx);
		const hashes = portraits.map((portrait) => createHash('sha256').update(portraitKey(portrait)).digest('hex'));
		const rows = await trx.selectFrom('census_looks').select(['id', 'hash']).where('hash', 'in', hashes).execute();
		const known = new Map(rows.map(({ id, hash }) => [hash, id]));
		const ids: number[] = [];
		for (const [at, portrait] of portraits.entries()) {
			const hash = hashes[at]!;
			if (!known.has(hash)) known.set(hash, await this.keep(trx, portrait, hash));
			ids.push(known.get(hash)!);
		}
		return ids;
	}

	private async keep(trx: Transaction<Database>, portrait: Portrait, hash: string): Promise<number> {
		const leader = await this.leaderOf(trx, portrait);
		const { id } = await trx
			.insertInto('census_looks')
			.values({ hash, portrait: JSON.stringify([...portrait]), leader })
			.returning('id')
			.executeTakeFirstOrThrow();
		if (leader === null) this.hang(id, portrait);
		return id;
	}

	private hang(id: number, portrait: Portrait): void {
		this.ids[this.looks.add(portrait)] = id;
		this.newest = id;
	}

	private async leaderOf(trx: Transaction<Database>, portrait: Portrait): Promise<number | null> {
		for (;;) {
			const near = this.looks.nearest(portrait);
			if (!near) return null;
			const id = this.ids[near.index]!;
			const here = await trx.selectFrom('census_looks').select('id').where('id', '=', id).executeTakeFirst();
			if (here) return id;
			// Nobody looked like that any more, and it went; or it never came to stay.
			this.looks.remove(near.index);
		}
	}

	/** Takes in the leaders that came since. One that a transaction kept which then failed is found out when it is next met. */
	private async renew(db: Db): Promise<void> {
		const rows = await db
			.selectFrom('census_looks')
			.select(['id', 'portrait'])
			.where('leader', 'is', null)
			.where('id', '>', this.newest)
			.orderBy('id')
			.execute();
		for (const { id, portrait } of rows) this.hang(id, openPortrait(portrait));
	}
}

const unused = sql`not exists (select from census_tables t where t.look = l.id)
	and not exists (select from census_looks f where f.leader = l.id)`;

/** The same for all looks: documents that went for good took their tables along. Values that nothing shows go with them. */
export async function sweepLooks(db: Kysely<Database>): Promise<void> {
	await db.transaction().execute(async (trx) => {
		await sql`select pg_advisory_xact_lock(${GROUPING})`.execute(trx);
		await sql`delete from census_looks l where l.leader is not null and ${unused}`.execute(trx);
		await sql`delete from census_looks l where ${unused}`.execute(trx);
		await sql`delete from census_values v where not exists (
			select from (select distinct unnest(shows) as id from census_tables) s where s.id = v.id
		)`.execute(trx);
	});
}

/** Looks that no table has any more go, leaders once nobody follows them. */
export async function forgetLooks(trx: Transaction<Database>, ids: readonly number[]): Promise<void> {
	if (!ids.length) return;
	await sql`select pg_advisory_xact_lock(${GROUPING})`.execute(trx);
	const { rows } = await sql<{ leader: number | null }>`
		delete from census_looks l where l.id = any(${[...ids]}::int[]) and ${unused} returning leader`.execute(trx);
	const leaders = rows.flatMap(({ leader }) => leader ?? []);
	if (leaders.length)
		await sql`delete from census_looks l where l.id = any(${leaders}::int[]) and ${unused}`.execute(trx);
}
