// npm run link [ADDRESS]: a link that lets a keeper in, once, for the installation in DATABASE_URL or that of this checkout.
import { join } from 'node:path';
import { bundle } from './bundle.mjs';
import { checkNode, ensureNodePackages, ownDatabase, root } from './machine.mjs';

checkNode();
ensureNodePackages();
const own = process.env.DATABASE_URL ? undefined : await ownDatabase();
process.env.DATABASE_URL ??= own.url;
process.on('exit', () => own?.stop());
await import(await bundle(join(root, 'src', 'link.ts'), ['src']));
