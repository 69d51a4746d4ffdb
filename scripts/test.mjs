// npm test: everything it needs, a PostgreSQL cluster of its own that is gone afterwards, unit and browser tests.
import { spawnSync } from 'node:child_process';
import { openSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import {
	checkNode,
	ensureBrowser,
	ensureBuild,
	ensureNodePackages,
	freePort,
	ownDatabase,
	prepareDatabase,
	root,
	say,
	serve
} from './machine.mjs';

checkNode();
ensureNodePackages();
ensureBrowser();
ensureBuild();
const { default: pg } = await import('pg');
const database = await ownDatabase({ throwAway: true });
const children = [];
const clean = () => {
	for (const child of children.splice(0)) child.kill('SIGKILL');
	database.stop();
};
process.on('SIGINT', () => process.exit(130));
process.on('SIGTERM', () => process.exit(143));
process.on('exit', clean);

async function makeDatabase(name, demo) {
	const client = new pg.Client({ connectionString: database.url });
	await client.connect();
	await client.query(`create database ${name}`);
	await client.end();
	const url = database.url.replace(/postgres$/, name);
	prepareDatabase(url, { demo });
	return url;
}

function testFiles(folder) {
	return readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
		.filter((entry) => entry.isFile() && entry.name.endsWith('.test.ts'))
		.map((entry) => join(entry.parentPath ?? entry.path, entry.name))
		.sort();
}

function runTests(folder, env, options = []) {
	say(`tests in ${folder}`);
	const { status } = spawnSync(
		process.execPath,
		['--import', 'tsx', '--test', '--test-reporter=spec', ...options, ...testFiles(folder)],
		{
			cwd: root,
			stdio: ['ignore', 'inherit', 'inherit'],
			env: { ...process.env, ...env }
		}
	);
	return status === 0;
}

const unit = runTests('tests/unit', { DATABASE_URL: await makeDatabase('unit', false) });
const log = openSync(join(root, 'node_modules', '.heptarch-test.log'), 'w');
const start = async (name, demo) => {
	const app = await serve(await makeDatabase(name, demo), { port: await freePort(), stdio: ['ignore', log, log] });
	children.push(app.child);
	return app.origin;
};
const origins = {
	HEPTARCH_EMPTY: await start('blank', false),
	HEPTARCH_DEMO: await start('demo', true),
	HEPTARCH_BENCH: await start('bench', true),
	HEPTARCH_FORMATS: await start('formats', true),
	HEPTARCH_SHEETS: await start('sheets', true),
	HEPTARCH_WORK: await start('work', true),
	HEPTARCH_LOG_FILE: join(root, 'node_modules', '.heptarch-test.log')
};
const browser = runTests('tests/browser', origins, ['--test-concurrency=1']);
clean();
process.exit(unit && browser ? 0 : 1);
