import { connect, connectAsOwner, type Database } from '../src/lib/server/database.ts';
import { copyOf } from '../scripts/machine.mjs';
import type { Kysely } from 'kysely';

/** The cluster that the test runner made. */
export function clusterUrl(): string {
	const url = process.env.HEPTARCH_CLUSTER;
	if (!url) throw new Error('Tests that need a database are run with npm test or npm run test:unit.');
	return url;
}

/** A database of its own, with the demo house in it or an empty one, asked from inside of it; gone with the cluster. */
export async function ownDatabase(
	kind: 'demo' | 'empty'
): Promise<{ db: Kysely<Database>; url: string; house: string }> {
	const url = await copyOf(kind, clusterUrl());
	const house = await onlyHouse(url);
	return { db: connect(url, house), url, house };
}

/** Does something with a database as its owner, who may all and sees every house. */
export async function asOwner<T>(url: string, work: (owner: Kysely<Database>) => Promise<T>): Promise<T> {
	const owner = connectAsOwner(url);
	return work(owner).finally(() => owner.destroy());
}

/** The id of the one house of a database. */
export const onlyHouse = (url: string): Promise<string> =>
	asOwner(url, async (owner) => (await owner.selectFrom('houses').select('id').executeTakeFirstOrThrow()).id);
