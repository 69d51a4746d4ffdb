// npm start: everything from a bare machine to the demo house in the browser; with -- --empty to a house with nothing in it.
// Twice in a row is harmless.
import {
	checkNode,
	ensureBuild,
	ensureNodePackages,
	freePort,
	giveUp,
	linkWhereClosed,
	ownDatabase,
	prepareDatabase,
	say,
	serve
} from './machine.mjs';

checkNode();
ensureNodePackages();
const database = process.env.DATABASE_URL
	? { url: process.env.DATABASE_URL, stop: () => undefined }
	: await ownDatabase();
/** What ends sooner than this after its start is not started again: milliseconds. */
const TOO_SOON = 10_000;
const isDev = process.argv.includes('--dev');
if (!isDev) ensureBuild();
prepareDatabase(database.url, { demo: !process.argv.includes('--empty') });
const port = await freePort(Number(process.env.PORT) || 4700);

let child;
let stopping = false;
/** Lets the server finish what it is asked for, then ends what else was started. */
function stop() {
	if (stopping) return;
	stopping = true;
	child.once('exit', () => {
		database.stop();
		process.exit(0);
	});
	child.kill('SIGTERM');
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
process.on('exit', () => !stopping && database.stop());

async function start() {
	const began = Date.now();
	({ child } = await serve(database.url, { port, dev: isDev }));
	child.once('exit', (code, signal) => {
		if (stopping) return;
		const how = signal ?? `exit code ${code}`;
		if (Date.now() - began < TOO_SOON)
			giveUp(`The server ended (${how}) as soon as it had started. What it said is above.`);
		say(`the server ended unexpectedly (${how}); it is started again`);
		void start();
	});
}
await start();
say('Ctrl+C stops what was started; what you made stays.');
const origin = `http://127.0.0.1:${port}`;
console.log(`\n  Heptarch is at ${origin}\n`);
const link = await linkWhereClosed(database.url, origin);
if (link) console.log(`  This link lets its keeper in, once, until tomorrow: ${link}\n`);
