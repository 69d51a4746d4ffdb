// Ratios of things measured in one run: npm run bench.
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bundle } from '../scripts/bundle.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const sources = ['bench', 'demo', 'src/lib'];
process.env.HEPTARCH_APPLY_ONCE = await bundle(join(here, 'apply-once.ts'), sources);
await import(await bundle(join(here, 'all.ts'), sources));
await import('./with-database.mjs');
await import('./browser.mjs');
