import type { Kysely } from 'kysely';
import type { Database } from '../database.ts';
import { actAs } from './acting.ts';

/** Ids of all houses, in the order in which they came. */
export async function houseIds(owner: Kysely<Database>): Promise<string[]> {
	const rows = await owner.selectFrom('houses').select('id').orderBy('created_at').orderBy('id').execute();
	return rows.map(({ id }) => id);
}

/** Does something in each house, one after the other. */
export async function inEveryHouse(owner: Kysely<Database>, work: (house: string) => Promise<unknown>): Promise<void> {
	for (const house of await houseIds(owner)) await actAs({ house, person: null }, () => work(house));
}
