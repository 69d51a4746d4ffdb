import { sql } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Door } from './door.ts';

/** Within so many minutes, so many attempts that failed are let through. */
const WITHIN = 15;
const MOST = {
	/** For a name from one address: whoever tries the name of somebody else keeps out nobody but themselves. */
	pair: 10,
	address: 60,
	/** For a name from wherever, no more than 100 an hour (ASVS 2.2.1). */
	name: 25
} as const;

/**
 * Tries to come in, unless it was tried too often under this name or from this address; counted in the database, so that all
 * web processes count together. What succeeds is not counted. Throws InputError.
 */
export async function attempt<T>(door: Door, name: string, address: string, work: () => Promise<T>): Promise<T> {
	const called = name.toLowerCase();
	const keys = { pair: `pair ${called} ${address}`, address: `address ${address}`, name: `name ${called}` };
	await door
		.deleteFrom('attempts')
		.where('at', '<', sql<Date>`now() - make_interval(mins => ${WITHIN})`)
		.execute();
	const pair = await count(door, keys.pair, MOST.pair);
	const from = await count(door, keys.address, MOST.address);
	// What is stopped already counts no further against the name.
	await count(door, keys.name, MOST.name);
	const result = await work();
	await door
		.deleteFrom('attempts')
		.where(({ or, eb }) => or([eb('of', 'in', [keys.pair, keys.name]), eb('id', 'in', [pair, from])]))
		.execute();
	return result;
}

/** Counts one more attempt. It is written down first, so that of many at once none goes uncounted. Throws InputError. */
async function count(door: Door, of: string, most: number): Promise<string> {
	const { id } = await door.insertInto('attempts').values({ of }).returning('id').executeTakeFirstOrThrow();
	const { made } = await door
		.selectFrom('attempts')
		.select(sql<number>`count(*)::int`.as('made'))
		.where('of', '=', of)
		.executeTakeFirstOrThrow();
	if (made > most)
		throw new InputError('too-often', `This was tried too often. Wait ${WITHIN} minutes, then try again.`);
	return id;
}
