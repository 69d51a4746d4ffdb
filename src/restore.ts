import { InputError } from './lib/core/errors.ts';
import { plural } from './lib/core/words.ts';
import { connectAsOwner } from './lib/server/database.ts';
import { Backup, restore } from './lib/server/backup/restore.ts';

/**
 * npm run restore -- FILE: brings a backup into the installation in DATABASE_URL. An empty one is what was kept from then on; in
 * any other its houses come in as new ones. All of it is checked first; there is all of it then, or nothing.
 */
const [file, ...more] = process.argv.slice(2);

async function main(): Promise<number> {
	if (!file || more.length) {
		console.error('Usage: npm run restore -- FILE');
		return 2;
	}
	const owner = connectAsOwner(process.env.DATABASE_URL!);
	let backup: Backup | undefined;
	try {
		backup = await Backup.open(file);
		const { houses, isWhole } = await restore(owner, backup);
		for (const { name, rows } of houses) console.log(`“${name}”: ${plural(rows, 'row')}.`);
		console.log(
			isWhole
				? `The installation is as it was on ${backup.manifest.made}.${backup.manifest.secrets ? '' : ' No password came along: npm run link lets the keeper in.'}`
				: `${plural(houses.length, 'house')} came in beside those that there are.`
		);
		return 0;
	} catch (error) {
		if (!(error instanceof InputError) && !(error as NodeJS.ErrnoException).code) throw error;
		console.error(`${(error as Error).message} Nothing was restored.`.replace(/(Nothing was restored\.) \1$/, '$1'));
		return 1;
	} finally {
		await backup?.close();
		await owner.destroy();
	}
}
process.exit(await main());
