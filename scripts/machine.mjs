// What npm start and npm test need of the machine. Plain Node.js: it runs before anything is installed.
import { spawn, spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import {
	chmodSync,
	chownSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	writeFileSync
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { newest } from './newest.mjs';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const isRoot = process.getuid?.() === 0;

export const say = (text) => console.log(`· ${text}`);

/** Ends with a sentence and no stack. */
export function giveUp(text) {
	console.error(`\n${text}\n`);
	process.exit(1);
}

export function checkNode() {
	const [major, minor] = process.versions.node.split('.').map(Number);
	if (major < 20 || (major === 20 && minor < 19))
		giveUp(`Heptarch needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
}

/** Runs a command to its end, its output on ours; gives up with `what` where it fails. */
export function run(command, args, what, options = {}) {
	const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
	if (result.error || result.status !== 0)
		giveUp(`${what} failed (${result.error?.message ?? `exit code ${result.status}`}). What it said is above.`);
}

/** Runs a command and returns its output; undefined where it fails. */
function ask(command, args, options = {}) {
	const result = spawnSync(command, args, { encoding: 'utf8', ...options });
	return result.status === 0 ? result.stdout.trim() : undefined;
}

/** The packages of package-lock.json, installed when they are missing or not those. */
export function ensureNodePackages() {
	const lock = createHash('sha256')
		.update(readFileSync(join(root, 'package-lock.json')))
		.digest('hex');
	const stamp = join(root, 'node_modules', '.heptarch-lock');
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
	say('installing the packages of package-lock.json');
	run('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], 'npm ci');
	writeFileSync(stamp, lock);
}

/** Installs Debian packages, or says exactly what to install. */
function ensureDebianPackages(packages, what) {
	const wanted = packages.join(' ');
	const sudo = !isRoot && ask('sudo', ['-n', 'true']) !== undefined;
	if (!ask('sh', ['-c', 'command -v apt-get']))
		giveUp(`${what} is missing, and this machine has no apt-get. Install what Debian calls ${wanted}, then try again.`);
	if (!isRoot && !sudo)
		giveUp(
			`${what} is missing, and you may not install packages here. Run this, then try again:\n\n    sudo apt-get update && sudo apt-get install -y ${wanted}`
		);
	say(`installing ${wanted} from Debian's packages`);
	const apt = (...args) => (sudo ? ['sudo', ['-n', 'apt-get', ...args]] : ['apt-get', args]);
	const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
	run(...apt('update', '-q'), 'apt-get update', quiet);
	run(...apt('install', '-y', '-q', '--no-install-recommends', ...packages), 'apt-get install', quiet);
}

function postgresBin() {
	const base = '/usr/lib/postgresql';
	if (existsSync(base))
		for (const version of readdirSync(base).sort((a, b) => Number(b) - Number(a)))
			if (existsSync(join(base, version, 'bin', 'initdb'))) return join(base, version, 'bin');
	const initdb = ask('sh', ['-c', 'command -v initdb']);
	return initdb ? dirname(initdb) : undefined;
}

export function ensurePostgres() {
	if (!postgresBin()) ensureDebianPackages(['postgresql'], 'PostgreSQL');
	const bin = postgresBin();
	if (!bin) giveUp('PostgreSQL was installed, but its initdb is not where Debian puts it (/usr/lib/postgresql).');
	return bin;
}

export function ensureBrowser() {
	if (!existsSync('/usr/bin/chromium') || !existsSync('/usr/bin/chromedriver'))
		ensureDebianPackages(['chromium', 'chromium-driver'], 'Chromium with its driver, for the browser tests,');
}

/** A port on loopback that nobody listens on: `wanted`, or the next free one, or any. */
export async function freePort(wanted = 0) {
	const free = (port) =>
		new Promise((resolve) => {
			const server = createServer();
			server.once('error', () => resolve(undefined));
			server.listen(port, '127.0.0.1', () => {
				const { port: got } = server.address();
				server.close(() => resolve(got));
			});
		});
	for (let port = wanted; wanted && port < wanted + 50; port++) {
		const got = await free(port);
		if (got) return got;
	}
	return free(0);
}

/** Runs a program of PostgreSQL; as root through the user postgres, for it refuses to run as root. */
function asPostgres(bin, name, args) {
	const command = join(bin, name);
	const options = { cwd: '/', encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] };
	return isRoot
		? spawnSync('runuser', ['-u', 'postgres', '--', command, ...args], options)
		: spawnSync(command, args, options);
}

/** Where the cluster of this checkout lives: in the checkout; as root outside, where the user postgres can reach it. */
function clusterFolder() {
	if (!isRoot) return join(root, '.heptarch');
	return join('/var/lib/heptarch', createHash('sha256').update(root).digest('hex').slice(0, 12));
}

function own(path) {
	if (!isRoot) return;
	const [uid, gid] = [ask('id', ['-u', 'postgres']), ask('id', ['-g', 'postgres'])].map(Number);
	chownSync(path, uid, gid);
}

/**
 * A PostgreSQL cluster of our own on loopback: made where there is none, started where it does not run. Returns its
 * address and how to stop it (nothing, where somebody else started it). A `throwAway` one is gone after stop.
 */
export async function ownDatabase({ throwAway = false } = {}) {
	const bin = ensurePostgres();
	const folder = throwAway ? mkdtempSync(join(tmpdir(), 'heptarch-test-')) : clusterFolder();
	if (throwAway) chmodSync(folder, 0o755);
	else mkdirSync(folder, { recursive: true, mode: 0o755 });
	own(folder);
	const data = join(folder, 'postgres');
	const secret = join(folder, 'password');
	if (!existsSync(join(data, 'PG_VERSION'))) {
		say(`making a PostgreSQL cluster in ${data}`);
		writeFileSync(secret, randomBytes(24).toString('hex'), { mode: 0o600 });
		own(secret);
		const made = asPostgres(bin, 'initdb', [
			'-D',
			data,
			'-U',
			'heptarch',
			'-A',
			'scram-sha-256',
			`--pwfile=${secret}`,
			'-E',
			'UTF8',
			'--locale=C.UTF-8',
			...(throwAway ? ['--no-sync'] : [])
		]);
		if (made.status !== 0) giveUp(`PostgreSQL could not make its cluster:\n${made.stderr || made.error?.message}`);
	}
	const url = (port) => `postgres://heptarch:${readFileSync(secret, 'utf8')}@127.0.0.1:${port}/postgres`;
	const running = asPostgres(bin, 'pg_ctl', ['status', '-D', data]).status === 0;
	if (running) {
		const port = readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n')[3];
		say(`PostgreSQL of this folder runs already, on port ${port}`);
		return { url: url(port), stop: () => undefined, halt: () => undefined, start: () => undefined };
	}
	const port = await freePort();
	const start = () => {
		const options = `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' ${throwAway ? '-c fsync=off' : ''}`;
		const started = asPostgres(bin, 'pg_ctl', [
			'start',
			'-w',
			'-t',
			'60',
			'-D',
			data,
			'-l',
			join(folder, 'postgres.log'),
			'-o',
			options
		]);
		if (started.status !== 0)
			giveUp(`PostgreSQL did not start:\n${started.stderr}\nIts log is ${join(folder, 'postgres.log')}.`);
	};
	start();
	say(`PostgreSQL runs on 127.0.0.1:${port}`);
	const stop = () => {
		asPostgres(bin, 'pg_ctl', ['stop', '-m', 'fast', '-w', '-D', data]);
		if (throwAway) rmSync(folder, { recursive: true, force: true });
	};
	/** Stops it as a power cut would, and leaves its data; `start` brings it back on the same port. */
	const halt = () => asPostgres(bin, 'pg_ctl', ['stop', '-m', 'immediate', '-w', '-D', data]);
	return { url: url(port), stop, halt, start };
}

/** Builds the application where its sources are newer than the last build. */
export function ensureBuild() {
	const sources = ['src', 'static', 'package-lock.json', 'svelte.config.js', 'vite.config.ts'].map((name) =>
		newest(join(root, name))
	);
	const built = statSync(join(root, 'build', '.built'), { throwIfNoEntry: false })?.mtimeMs ?? 0;
	// The tests read the paths that the build writes into .svelte-kit.
	if (built > Math.max(...sources) && statSync(join(root, '.svelte-kit', 'tsconfig.json'), { throwIfNoEntry: false }))
		return;
	say('building the application');
	run(process.execPath, ['scripts/build.mjs'], 'The build');
}

/** Brings the database to the present schema and, where asked, loads the demo house into an empty one. */
export function prepareDatabase(url, { demo }) {
	run(
		process.execPath,
		['--import', 'tsx', 'scripts/prepare.ts', ...(demo ? ['--demo'] : [])],
		'Preparing the database',
		{ env: { ...process.env, DATABASE_URL: url } }
	);
}

/** A link that lets a keeper in, where people have to sign in; none where this machine is let in as it is. */
export async function linkWhereClosed(url, origin) {
	const { bundle } = await import('./bundle.mjs');
	const program = await bundle(join(root, 'src', 'link.ts'), ['src']);
	return ask(process.execPath, [program, origin, '--if-closed'], { env: { ...process.env, DATABASE_URL: url } });
}

/** The databases that those of tests are copies of: with the present schema, and with the demo house in it. */
export const TEMPLATES = { empty: 'template_empty', demo: 'template_demo' };

/** Makes the databases that tests copy, in a cluster. */
export async function makeTemplates(clusterUrl) {
	const { default: pg } = await import('pg');
	const client = new pg.Client({ connectionString: clusterUrl });
	await client.connect();
	for (const [kind, name] of Object.entries(TEMPLATES)) {
		await client.query(`create database ${name}`);
		prepareDatabase(databaseUrl(clusterUrl, name), { demo: kind === 'demo' });
	}
	await client.end();
}

/** The address of another database of the same cluster. */
export const databaseUrl = (clusterUrl, name) => clusterUrl.replace(/[^/]*$/, name);

/** A new database that is a copy of a template; returns its address. It is gone with its cluster. */
export async function copyOf(kind, clusterUrl) {
	const { default: pg } = await import('pg');
	const client = new pg.Client({ connectionString: clusterUrl });
	await client.connect();
	const name = `${kind}_${randomBytes(6).toString('hex')}`;
	try {
		// Two copies of one template at a time are refused: the next try comes when the other is done.
		for (let tries = 0; ; tries++) {
			try {
				await client.query(`create database ${name} template ${TEMPLATES[kind]}`);
				return databaseUrl(clusterUrl, name);
			} catch (error) {
				if (error.code !== '55006' || tries > 100) throw error;
				await new Promise((resolve) => setTimeout(resolve, 100));
			}
		}
	} finally {
		await client.end();
	}
}

/** Starts the built application on loopback; resolves once it answers. */
export async function serve(databaseUrl, { port, stdio = 'inherit', dev = false, env = {}, program = 'build/web.js' }) {
	const origin = `http://127.0.0.1:${port}`;
	const command = dev
		? ['node_modules/vite/bin/vite.js', 'dev', '--host', '127.0.0.1', '--port', String(port), '--strictPort']
		: [program];
	const child = spawn(process.execPath, command, {
		cwd: root,
		stdio,
		env: {
			...process.env,
			DATABASE_URL: databaseUrl,
			HOST: '127.0.0.1',
			PORT: String(port),
			ORIGIN: origin,
			BODY_SIZE_LIMIT: '64M',
			NODE_ENV: dev ? 'development' : 'production',
			...env
		}
	});
	let ended = false;
	child.once('exit', () => (ended = true));
	for (let tries = 0; tries < 300 && !ended; tries++) {
		try {
			await fetch(`${origin}/schema/style.json`);
			return { origin, child };
		} catch {
			await new Promise((resolve) => setTimeout(resolve, 100));
		}
	}
	giveUp('The application did not start. What it said is above.');
}
