import { sql } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Door } from './door.ts';

/** So many attempts that failed within so many minutes are let through, for a name and from an address. */
const WITHIN = 15;
const MOST = { name: 10, address: 60 } as const;

/**
 * Tries to come in, unless it was tried too often under this name or from this address; counted in the database, so that all
 * web processes count together. What succeeds is not counted. Throws InputError.
 */
export async function attempt<T>(door: Door, name: string, address: string, work: () => Promise<T>): Promise<T> {
	const keys = { name: `name ${name.toLowerCase()}`, address: `address ${address}` };
	const here = Object.values(keys);
	await door
		.deleteFrom('attempts')
		.where('at', '<', sql<Date>`now() - make_interval(mins => ${WITHIN})`)
		.execute();
	// Written down first: of many at once none goes uncounted.
	const rows = await door
		.insertInto('attempts')
		.values(here.map((of) => ({ of })))
		.returning('id')
		.execute();
	const counts = await door
		.selectFrom('attempts')
		.select(['of', sql<number>`count(*)::int`.as('count')])
		.where('of', 'in', here)
		.groupBy('of')
		.execute();
	const isOver = (kind: keyof typeof MOST) => (counts.find(({ of }) => of === keys[kind])?.count ?? 0) > MOST[kind];
	if (isOver('name') || isOver('address'))
		throw new InputError('too-often', `This was tried too often. Wait ${WITHIN} minutes, then try again.`);
	const result = await work();
	await door
		.deleteFrom('attempts')
		.where(({ or, eb }) =>
			or([
				eb('of', '=', keys.name),
				eb(
					'id',
					'in',
					rows.map(({ id }) => id)
				)
			])
		)
		.execute();
	return result;
}
