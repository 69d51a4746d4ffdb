// npm run check-store: whether every file of the house in DATABASE_URL, or of this checkout's own cluster, is there and whole.
import { join } from 'node:path';
import { bundle } from './bundle.mjs';
import { checkNode, ensureNodePackages, ownDatabase, root } from './machine.mjs';

checkNode();
ensureNodePackages();
const own = process.env.DATABASE_URL ? undefined : await ownDatabase();
process.env.DATABASE_URL ??= own.url;
process.on('exit', () => own?.stop());
await import(await bundle(join(root, 'src', 'check-store.ts'), ['src']));
