// npm test: everything it needs, a PostgreSQL cluster of its own that is gone afterwards, unit and browser tests.
// npm run test:unit [FILE…], npm run test:browser [FILE…]: those tests alone, or some files of them.
import { spawnSync } from 'node:child_process';
import { readdirSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join, relative, resolve } from 'node:path';
import {
	checkNode,
	ensureBrowser,
	ensureBuild,
	ensureNodePackages,
	giveUp,
	makeTemplates,
	ownDatabase,
	root,
	say
} from './machine.mjs';

const FOLDERS = { unit: 'tests/unit', browser: 'tests/browser' };
const [only, ...named] = process.argv.slice(2);
if (only !== undefined && !(only in FOLDERS)) giveUp(`Usage: node scripts/test.mjs [unit|browser] [FILE…]`);

/** The test files of a folder, or those of them that are named, also by a part of their path. */
function testFiles(folder) {
	const all = readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile() && entry.name.endsWith('.test.ts'))
		.map((entry) => join(entry.parentPath ?? entry.path, entry.name))
		.sort();
	if (!named.length) return all;
	const chosen = all.filter((file) =>
		named.some((name) => resolve(name) === file || relative(root, file).includes(name))
	);
	if (!chosen.length) giveUp(`No test file in ${folder} is called ${named.join(' or ')}.`);
	return chosen;
}

const runs = Object.entries(FOLDERS)
	.filter(([kind]) => only === undefined || kind === only)
	.map(([kind, folder]) => ({ kind, folder, files: testFiles(folder) }));
const needsApplication = runs.some(
	({ kind, files }) => kind === 'browser' || files.some((file) => file.includes('outages'))
);
const needsDatabase = runs.some(
	({ kind, files }) => kind === 'browser' || files.some((file) => file.includes(join('unit', 'server')))
);

checkNode();
ensureNodePackages();
if (runs.some(({ kind }) => kind === 'browser')) ensureBrowser();
if (needsApplication) ensureBuild();
const env = { ...process.env };
if (needsDatabase) {
	const cluster = await ownDatabase({ throwAway: true });
	process.on('exit', () => cluster.stop());
	process.on('SIGINT', () => process.exit(130));
	process.on('SIGTERM', () => process.exit(143));
	await makeTemplates(cluster.url);
	env.HEPTARCH_CLUSTER = cluster.url;
}

let isGreen = true;
for (const { folder, files } of runs) {
	// Files run side by side; what needs a server or a database has one of its own.
	const together = Math.max(2, availableParallelism());
	say(`${files.length} files of tests in ${folder}, ${together} at a time`);
	const options = ['--import', 'tsx', '--test', '--test-reporter=spec', `--test-concurrency=${together}`];
	const { status } = spawnSync(process.execPath, [...options, ...files], {
		cwd: root,
		stdio: ['ignore', 'inherit', 'inherit'],
		env
	});
	isGreen &&= status === 0;
}
process.exit(isGreen ? 0 : 1);
