import { promises as fs } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { FileMigrationProvider, Migrator, type Kysely } from 'kysely';
import type { Database } from '../src/lib/server/database.ts';

const migrationFolder = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', 'migrations');

/** Brings a database to the present schema, or to that of a migration; the name of the last one that was needed, if any. */
export async function migrate(db: Kysely<Database>, to?: string): Promise<string | undefined> {
	const migrator = new Migrator({ db, provider: new FileMigrationProvider({ fs, path, migrationFolder }) });
	const { error, results } = await (to === undefined ? migrator.migrateToLatest() : migrator.migrateTo(to));
	if (error) throw error;
	return results?.at(-1)?.migrationName;
}
