import { connect } from './lib/server/database.ts';
import { checkStore } from './lib/server/files/check.ts';
import { plural } from './lib/core/words.ts';

/** npm run check-store: whether every file of the house is there and whole; ends with 1 where one is not. */
const db = connect(process.env.DATABASE_URL!);
const { files, bytes, faults } = await checkStore(db);
await db.destroy();
for (const { hash, words, documents } of faults)
	console.log(`${hash}: ${words}${documents.length ? ` (${documents.map((name) => `“${name}”`).join(', ')})` : ''}.`);
console.log(
	`${plural(files, 'file')}, ${Math.ceil(bytes / 2 ** 20)} MB: ${faults.length ? `${plural(faults.length, 'is', 'are')} not as kept.` : 'all there and whole.'}`
);
process.exit(faults.length ? 1 : 0);
