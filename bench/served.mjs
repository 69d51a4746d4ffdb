// What the benches of the whole application share: it is built, runs on a throw-away cluster with the demo house, and ends.
import pg from 'pg';
import { ensureBuild, freePort, ownDatabase, prepareDatabase, serve } from '../scripts/machine.mjs';

export const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** The value below which such a part of the values lies. */
export const at = (values, part) =>
	values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))];

/** A connection as the owner of the tables, whose rows are of the one house that there is. */
export async function inTheHouse(url) {
	const client = new pg.Client({ connectionString: url });
	await client.connect();
	await client.query("select set_config('heptarch.house', (select id from houses)::text, false)");
	return client;
}

/**
 * Runs `work(servers, cluster)` on the built application.
 * @param {object} options
 * @param {number} [options.processes] how many web processes, on one database
 * @param {(url: string) => Promise<void>} [options.fill] what is put into the database before
 * @param {string} [options.program] what is started instead of build/web.js
 */
export async function served({ processes = 1, fill, program, env }, work) {
	ensureBuild();
	const cluster = await ownDatabase({ throwAway: true });
	const servers = [];
	try {
		prepareDatabase(cluster.url, { demo: true });
		await fill?.(cluster.url);
		for (let i = 0; i < processes; i++)
			servers.push(await serve(cluster.url, { port: await freePort(), program, env }));
		await work(servers, cluster);
	} finally {
		const ended = servers.map(({ child }) => new Promise((resolve) => child.once('exit', resolve)));
		for (const { child } of servers) child.kill('SIGTERM');
		await Promise.race([Promise.all(ended), pause(12_000)]);
		cluster.stop();
	}
}
