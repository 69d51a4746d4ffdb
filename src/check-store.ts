import { connect, connectAsOwner } from './lib/server/database.ts';
import { checkStore } from './lib/server/files/check.ts';
import { inEveryHouse } from './lib/server/people/houses.ts';
import { plural } from './lib/core/words.ts';

/** npm run check-store: whether every file of every house is there and whole; ends with 1 where one is not. */
const url = process.env.DATABASE_URL!;
const [owner, db] = [connectAsOwner(url), connect(url)];
let [files, bytes, wrong] = [0, 0, 0];
await inEveryHouse(owner, async () => {
	const checked = await checkStore(db);
	files += checked.files;
	bytes += checked.bytes;
	wrong += checked.faults.length;
	for (const { hash, words, documents } of checked.faults)
		console.log(`${hash}: ${words}${documents.length ? ` (${documents.map((name) => `“${name}”`).join(', ')})` : ''}.`);
});
await Promise.all([owner.destroy(), db.destroy()]);
console.log(
	`${plural(files, 'file')}, ${Math.ceil(bytes / 2 ** 20)} MB: ${wrong ? `${plural(wrong, 'is', 'are')} not as kept.` : 'all there and whole.'}`
);
process.exit(wrong ? 1 : 0);
