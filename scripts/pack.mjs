// npm run pack [-- FOLDER]: the engine and the command line as a package that others can install; its tarball goes into FOLDER.
import { build } from 'esbuild';
import { execFileSync } from 'node:child_process';
import { chmodSync, copyFileSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { root, say } from './machine.mjs';

const about = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
const out = resolve(process.argv[2] ?? root);
const folder = join(root, 'node_modules', '.cache', 'heptarch', 'package');
rmSync(folder, { recursive: true, force: true });
mkdirSync(join(folder, 'dist'), { recursive: true });

const { metafile } = await build({
	entryPoints: { index: join(root, 'src/engine/index.ts'), cli: join(root, 'src/cli/main.ts') },
	bundle: true,
	splitting: true,
	platform: 'node',
	format: 'esm',
	target: 'node20',
	packages: 'external',
	metafile: true,
	logLevel: 'error',
	outdir: join(folder, 'dist')
});
const foreign = Object.keys(metafile.inputs).filter((file) => /src\/(lib\/(server|ui)|routes)\//.test(file));
if (foreign.length) throw new Error(`The engine draws in what is not part of it: ${foreign.join(', ')}.`);

/** The packages that it imports, in the versions that it was tested with; fonts are looked up by their names. */
const imported = new Set(
	Object.values(metafile.outputs)
		.flatMap(({ imports }) => imports)
		.filter(({ path, external }) => external && !path.startsWith('node:'))
		.map(({ path }) =>
			path
				.split('/')
				.slice(0, path.startsWith('@') ? 2 : 1)
				.join('/')
		)
);
for (const name of Object.keys(about.dependencies)) if (name.startsWith('@fontsource/')) imported.add(name);
const versionOf = (name) => JSON.parse(readFileSync(join(root, 'node_modules', name, 'package.json'), 'utf8')).version;
const dependencies = Object.fromEntries([...imported].sort().map((name) => [name, versionOf(name)]));

execFileSync(
	'npx',
	['--no-install', 'tsc', '--project', join(root, 'src/engine/tsconfig.json'), '--outDir', join(folder, 'types')],
	{ cwd: root, stdio: 'inherit' }
);
// Declarations name sources; whoever installs them has none.
for (const file of readdirSync(join(folder, 'types'), { recursive: true, encoding: 'utf8' })) {
	if (!file.endsWith('.d.ts')) continue;
	const path = join(folder, 'types', file);
	writeFileSync(path, readFileSync(path, 'utf8').replaceAll(/(["'])(\.{1,2}\/[^"']+)\.ts\1/g, '$1$2.js$1'));
}
writeFileSync(
	join(folder, 'dist', 'heptarch.js'),
	`#!/usr/bin/env node\nimport { main } from './cli.js';\nprocess.exitCode = await main(process.argv.slice(2));\n`
);
chmodSync(join(folder, 'dist', 'heptarch.js'), 0o755);
const { name, version, description, license, engines } = about;
writeFileSync(
	join(folder, 'package.json'),
	JSON.stringify(
		{
			name,
			version,
			description,
			license,
			engines,
			type: 'module',
			exports: { '.': { types: './types/engine/index.d.ts', default: './dist/index.js' } },
			bin: { heptarch: 'dist/heptarch.js' },
			dependencies
		},
		null,
		2
	)
);
copyFileSync(join(root, 'LICENSE'), join(folder, 'LICENSE'));
copyFileSync(join(root, 'docs', 'engine-package.md'), join(folder, 'README.md'));
const said = execFileSync('npm', ['pack', '--json', '--pack-destination', out], { cwd: folder, encoding: 'utf8' });
const [{ filename, size }] = JSON.parse(said);
say(`${join(out, filename)}, ${Math.round(size / 1_024)} kB`);
