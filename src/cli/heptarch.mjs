#!/usr/bin/env node
// Runs the command line from its TypeScript sources, bundled once after each change of them.
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { bundle } from '../../scripts/bundle.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const { main } = await import(
	await bundle(join(here, 'main.ts'), ['src/cli', 'src/lib/core', 'src/lib/formats', 'src/lib/workbench'])
);
process.exitCode = await main(process.argv.slice(2));
