// npm run build: the application, and beside it the programs of an installation: web process, hand and worker.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bundleTo } from './bundle.mjs';
import { root, run } from './machine.mjs';

run('npx', ['--no-install', 'vite', 'build', '--logLevel', 'error'], 'The build');
for (const name of ['web', 'hand', 'worker'])
	await bundleTo(join(root, 'src', `${name}.ts`), join(root, 'build', `${name}.js`));
writeFileSync(join(root, 'build', '.built'), '');
