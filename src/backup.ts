import { existsSync } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { InputError } from './lib/core/errors.ts';
import { plural } from './lib/core/words.ts';
import { connectAsOwner } from './lib/server/database.ts';
import { writeBackup } from './lib/server/backup/backup.ts';

/**
 * npm run backup -- FILE [--with-secrets]: everything of the installation in DATABASE_URL, as it is at one moment, as one zip;
 * people go on working. It is there whole under its name, or not at all.
 */
const words = process.argv.slice(2);
const file = words.find((word) => !word.startsWith('--'));
const secrets = words.includes('--with-secrets');

async function main(): Promise<number> {
	if (!file || words.some((word) => word.startsWith('--') && word !== '--with-secrets')) {
		console.error('Usage: npm run backup -- FILE [--with-secrets]');
		return 2;
	}
	if (existsSync(file)) {
		console.error(`“${file}” is there already. Nothing was written.`);
		return 2;
	}
	const draft = `${file}.${process.pid}.part`;
	const owner = connectAsOwner(process.env.DATABASE_URL!);
	try {
		const handle = await open(draft, 'wx', 0o600);
		let size = 0;
		const into = new WritableStream<Uint8Array>({
			async write(piece) {
				await handle.write(piece);
				size += piece.length;
			}
		});
		const { houses, entries } = await writeBackup(owner, into, { secrets }).finally(async () => {
			await handle.sync().catch(() => undefined);
			await handle.close();
		});
		await rename(draft, file);
		const rows = houses.reduce((sum, house) => sum + Object.values(house.rows).reduce((all, one) => all + one, 0), 0);
		console.log(
			`${plural(houses.length, 'house')}, ${plural(rows, 'row')}, ${plural(entries.length, 'entry', 'entries')}, ${Math.ceil(size / 2 ** 20)} MB: “${file}”.`
		);
		return 0;
	} catch (error) {
		await rm(draft, { force: true });
		const { code, message } = error as NodeJS.ErrnoException;
		if (!(error instanceof InputError) && !code) throw error;
		console.error(`${message} Nothing was written.`);
		return 1;
	} finally {
		await owner.destroy();
	}
}
process.exit(await main());
