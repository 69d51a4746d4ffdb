import { build } from 'esbuild';
import { mkdirSync, renameSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { newest } from './newest.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/**
 * Bundles a TypeScript entry to one file that plain Node.js runs at full speed, and returns its path. It is kept below
 * node_modules, and made anew only when something in the `sources` is newer.
 */
export async function bundle(entry, sources) {
	const name = relative(root, entry).replace(/[^A-Za-z0-9]+/g, '-');
	const outfile = join(root, 'node_modules', '.cache', 'heptarch', `${name}.mjs`);
	const latest = Math.max(...[...sources, 'package-lock.json'].map((source) => newest(join(root, source))));
	if (newest(outfile) > latest) return outfile;
	await bundleTo(entry, outfile);
	return outfile;
}

/** Bundles a TypeScript entry to a file; the packages that it uses stay where they are. */
export async function bundleTo(entry, outfile) {
	mkdirSync(dirname(outfile), { recursive: true });
	// Written aside and moved, so that another process never runs half a file.
	const draft = `${outfile}.${process.pid}`;
	await build({
		entryPoints: [entry],
		bundle: true,
		platform: 'node',
		format: 'esm',
		target: 'node20',
		packages: 'external',
		logLevel: 'error',
		outfile: draft
	});
	renameSync(draft, outfile);
}
