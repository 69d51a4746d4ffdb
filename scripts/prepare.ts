import { loadDemo } from '../demo/load.ts';
import { Census } from '../src/lib/server/census/keep.ts';
import { connect, connectAsOwner } from '../src/lib/server/database.ts';
import { connectDoor } from '../src/lib/server/people/door.ts';
import { found } from '../src/lib/server/people/founding.ts';
import { houseIds } from '../src/lib/server/people/houses.ts';
import { migrate } from './migrate.ts';

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set.');
const owner = connectAsOwner(url);

try {
	const last = await migrate(owner);
	if (last) console.log(`· database brought to ${last}`);
	const door = connectDoor(url);
	await found(door).finally(() => door.destroy());
	const [house, ...others] = await houseIds(owner);
	if (process.argv.includes('--demo') && !others.length) {
		const db = connect(url, house);
		if (await loadDemo(db)) {
			// Its census is there with it, rather than a moment after its first page.
			await new Census(db).round();
			console.log('· demo house loaded: Thornmere Botanic Garden');
		}
		await db.destroy();
	}
} catch (error) {
	const { code, message } = error as { code?: string; message: string };
	console.error(code === 'ECONNREFUSED' ? `No PostgreSQL answers at the address in DATABASE_URL.` : message);
	process.exitCode = 1;
} finally {
	await owner.destroy();
}
