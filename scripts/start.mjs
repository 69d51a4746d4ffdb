// npm start: everything from a bare machine to the demo house in the browser. Twice in a row is harmless.
import {
	checkNode,
	ensureBuild,
	ensureNodePackages,
	freePort,
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
let child;
let stopping = false;
function stop(code = 0) {
	if (stopping) return;
	stopping = true;
	child?.kill('SIGTERM');
	database.stop();
	process.exit(code);
}
process.on('SIGINT', () => stop());
process.on('SIGTERM', () => stop());
process.on('exit', () => !stopping && database.stop());

const isDev = process.argv.includes('--dev');
if (!isDev) ensureBuild();
prepareDatabase(database.url, { demo: true });
const app = await serve(database.url, { port: await freePort(Number(process.env.PORT) || 4700), dev: isDev });
child = app.child;
child.once('exit', (code) => stop(code ?? 1));
say('Ctrl+C stops what was started; what you made stays.');
console.log(`\n  Heptarch is at ${app.origin}\n`);
