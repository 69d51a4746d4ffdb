// npm start: everything from a bare machine to the demo house in the browser. Twice in a row is harmless.
import {
	checkNode,
	ensureBuild,
	ensureNodePackages,
	freePort,
	giveUp,
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
prepareDatabase(database.url, { demo: true });
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
console.log(`\n  Heptarch is at http://127.0.0.1:${port}\n`);
