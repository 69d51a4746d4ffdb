import { loadDemo } from '../demo/load.ts';
import { Census } from '../src/lib/server/census/keep.ts';
import { connect } from '../src/lib/server/database.ts';
import { migrate } from './migrate.ts';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set.');
const db = connect(url);

try {
	const last = await migrate(db);
	if (last) console.log(`· database brought to ${last}`);
	if (process.argv.includes('--demo') && (await loadDemo(db))) {
		// Its census is there with it, rather than a moment after its first page.
		await new Census(db).round();
		console.log('· demo house loaded: Thornmere Botanic Garden');
	}
} catch (error) {
	const { code, message } = error as { code?: string; message: string };
	console.error(code === 'ECONNREFUSED' ? `No PostgreSQL answers at the address in DATABASE_URL.` : message);
	process.exitCode = 1;
} finally {
	await db.destroy();
}
