// npm run worker: one more worker for the runs of the house in DATABASE_URL, or of this checkout's own cluster.
import { join } from 'node:path';
import { bundle } from './bundle.mjs';
import { checkNode, ensureNodePackages, ownDatabase, root } from './machine.mjs';

checkNode();
ensureNodePackages();
process.env.DATABASE_URL ??= (await ownDatabase()).url;
await import(await bundle(join(root, 'src', 'worker.ts'), ['src']));
