// The benches that need a PostgreSQL: a throw-away cluster of their own.
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bundle } from '../scripts/bundle.mjs';
import { ownDatabase, prepareDatabase, root } from '../scripts/machine.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const cluster = await ownDatabase({ throwAway: true });
try {
	prepareDatabase(cluster.url, { demo: true });
	const { benchRuns } = await import(await bundle(join(here, 'runs.ts'), ['bench', 'demo', 'src']));
	await benchRuns(cluster.url, await bundle(join(root, 'src', 'worker.ts'), ['src']));
} finally {
	cluster.stop();
}
