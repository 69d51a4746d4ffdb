import { promises as fs } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { FileMigrationProvider, Migrator, type Kysely } from 'kysely';
import type { Database } from '../src/lib/server/database.ts';

const migrationFolder = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', 'migrations');

/** Brings a database to the present schema; the name of the last migration that was needed, if any. */
export async function migrate(db: Kysely<Database>): Promise<string | undefined> {
	const migrator = new Migrator({ db, provider: new FileMigrationProvider({ fs, path, migrationFolder }) });
	const { error, results } = await migrator.migrateToLatest();
	if (error) throw error;
	return results?.at(-1)?.migrationName;
}
