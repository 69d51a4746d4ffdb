import { join, resolve } from 'node:path';
import { bundle } from './bundle.mjs';
import { checkNode, ensureNodePackages, ownDatabase, prepareDatabase, root } from './machine.mjs';

/**
 * Runs a program of `src` at the installation in DATABASE_URL, or at that of this checkout. With `isOfFile` its first word is a
 * file, meant from where it was asked for, and the database is brought to the present schema first.
 */
export async function atDatabase(program, { isOfFile = false } = {}) {
	checkNode();
	ensureNodePackages();
	const own = process.env.DATABASE_URL ? undefined : await ownDatabase();
	process.env.DATABASE_URL ??= own.url;
	process.on('exit', () => own?.stop());
	if (isOfFile) {
		prepareDatabase(process.env.DATABASE_URL, { demo: false });
		const at = process.argv.findIndex((word, i) => i > 1 && !word.startsWith('--'));
		if (at > 0) process.argv[at] = resolve(process.env.INIT_CWD ?? '.', process.argv[at]);
	}
	await import(await bundle(join(root, 'src', program), ['src']));
}
