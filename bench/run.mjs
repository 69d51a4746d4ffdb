// Ratios of things measured in one run: npm run bench.
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bundle } from '../scripts/bundle.mjs';

const here = dirname(fileURLToPath(import.meta.url));
await import(await bundle(join(here, 'all.ts'), ['bench', 'demo', 'src/lib']));
