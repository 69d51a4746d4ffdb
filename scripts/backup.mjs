// npm run backup -- FILE: everything of the installation in DATABASE_URL, or of that of this checkout, as one zip.
import { join, resolve } from 'node:path';
import { bundle } from './bundle.mjs';
import { checkNode, ensureNodePackages, ownDatabase, prepareDatabase, root } from './machine.mjs';

checkNode();
ensureNodePackages();
const own = process.env.DATABASE_URL ? undefined : await ownDatabase();
process.env.DATABASE_URL ??= own.url;
process.on('exit', () => own?.stop());
prepareDatabase(process.env.DATABASE_URL, { demo: false });
// The command runs in this folder; the file is meant from where it was asked for.
const [file, ...more] = process.argv.slice(2);
if (file && !file.startsWith('--'))
	process.argv.splice(2, process.argv.length, resolve(process.env.INIT_CWD ?? '.', file), ...more);
await import(await bundle(join(root, 'src', 'backup.ts'), ['src']));
