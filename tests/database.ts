import { connect, type Database } from '../src/lib/server/database.ts';
import { copyOf } from '../scripts/machine.mjs';
import type { Kysely } from 'kysely';

/** The cluster that the test runner made. */
export function clusterUrl(): string {
	const url = process.env.HEPTARCH_CLUSTER;
	if (!url) throw new Error('Tests that need a database are run with npm test or npm run test:unit.');
	return url;
}

/** A database of its own, with the demo house in it or with none; gone with the cluster. */
export async function ownDatabase(kind: 'demo' | 'empty'): Promise<{ db: Kysely<Database>; url: string }> {
	const url = await copyOf(kind, clusterUrl());
	return { db: connect(url), url };
}
