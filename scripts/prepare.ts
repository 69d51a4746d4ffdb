import { promises as fs } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { FileMigrationProvider, Migrator } from 'kysely';
import { loadDemo } from '../demo/load.ts';
import { connect } from '../src/lib/server/database.ts';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set.');
const db = connect(url);
const migrationFolder = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', 'migrations');

try {
	const migrator = new Migrator({ db, provider: new FileMigrationProvider({ fs, path, migrationFolder }) });
	const { error, results } = await migrator.migrateToLatest();
	if (error) throw error;
	if (results?.length) console.log(`· database brought to ${results.at(-1)!.migrationName}`);
	if (process.argv.includes('--demo') && (await loadDemo(db)))
		console.log('· demo house loaded: Thornmere Botanic Garden');
} catch (error) {
	const { code, message } = error as { code?: string; message: string };
	console.error(code === 'ECONNREFUSED' ? `No PostgreSQL answers at the address in DATABASE_URL.` : message);
	process.exitCode = 1;
} finally {
	await db.destroy();
}
