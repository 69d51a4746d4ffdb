import assert from 'node:assert/strict';
import { readdirSync, readFileSync } from 'node:fs';
import { request } from 'node:http';
import { after, before, describe, it } from 'node:test';
import { docx, LEDGER, tbl } from '../unit/formats/documents.ts';
import { Application } from './support.ts';

const csv = (rows: number) =>
	new Blob([`Lot;Seed;Bed\n${Array.from({ length: rows }, (_, i) => `TX-${i};Fern;North`).join('\n')}\n`]);
const FILE = { 'Content-Type': 'application/octet-stream' };
const add = (origin: string, name: string, body: Blob | Uint8Array<ArrayBuffer>, more: RequestInit = {}) =>
	fetch(`${origin}/api/documents?name=${encodeURIComponent(name)}`, { method: 'POST', body, headers: FILE, ...more });
const listed = async (origin: string) =>
	((await (await fetch(`${origin}/api/documents`)).json()) as { documents: { name: string }[] }).documents.map(
		({ name }) => name
	);

describe('the web process and its hands', () => {
	let application: Application;
	let origin: string;
	before(async () => {
		application = await Application.start('demo', { HEPTARCH_HOSTS: 'tables.thornmere.example' });
		({ origin } = application);
	});
	after(() => application.stop());

	it('answers what is small while a large file is read, and tells how it is', async () => {
		let isIn = false;
		const large = add(origin, 'long.csv', csv(60_000)).then((answer) => {
			isIn = true;
			return answer.status;
		});
		let meanwhile = 0;
		while (!isIn) {
			assert.equal((await fetch(`${origin}/health/ready`)).status, 200);
			assert.ok((await listed(origin)).length >= 7);
			if (!isIn) meanwhile++;
		}
		assert.equal(await large, 201);
		assert.ok(meanwhile > 3, `${meanwhile} answers came meanwhile`);
	});

	it('ends a job that takes more than it may, with a sentence, and goes on with everything else', async () => {
		const hurried = await Application.start('demo', { HEPTARCH_JOB_SECONDS: '1.5' });
		const { origin } = hurried;
		// Once what compiles itself has done so, a small document is read in no time.
		const small = await docx({ body: tbl(LEDGER) });
		for (let i = 0; i < 6; i++) if ((await add(origin, 'warm.docx', small)).status === 201) break;
		const answer = await add(origin, 'endless.csv', csv(200_000));
		assert.equal(answer.status, 422);
		const { error } = (await answer.json()) as { error: { code: string; message: string } };
		assert.equal(error.code, 'too-much-time');
		assert.match(error.message, /more computing time than one job may take/);
		assert.ok(!(await listed(origin)).includes('endless'));
		hurried.stop();
	});

	it('ends what nobody waits for any more, and keeps nothing of it', async () => {
		const stopping = new AbortController();
		const asked = add(origin, 'given up.csv', csv(240_000), { signal: stopping.signal });
		setTimeout(() => stopping.abort(), 700);
		await assert.rejects(asked);
		// The next one does not wait for what was given up.
		assert.equal((await add(origin, 'next.docx', await docx({ body: tbl(LEDGER) }))).status, 201);
		const names = await listed(origin);
		assert.ok(names.includes('next') && !names.includes('given up'), names.join());
	});

	it('says of every page and list that the database is away, and that it is worth asking again', async () => {
		const away = await Application.start('empty', { DATABASE_URL: 'postgres://nobody@127.0.0.1:1/nothing' });
		const some = '00000000-0000-4000-8000-000000000000';
		for (const path of [
			...['/', '/documents', '/stylebook', '/starters', '/starters/begin', '/runs', '/house'],
			...[`/documents/${some}`, `/documents/${some}/bench`, `/documents/${some}/sheet`, `/stylebook/${some}`],
			...['/api/documents', '/api/styles', '/api/starters', '/api/house', '/api/runs', '/health/ready']
		]) {
			const answer = await fetch(away.origin + path);
			assert.deepEqual([path, answer.status, !!answer.headers.get('Retry-After')], [path, 503, true]);
			assert.match(await answer.text(), /The database does not answer/);
		}
		await away.end();
	});

	it('is asked by its own names only, and changes nothing for a page of another site', async () => {
		const { hostname, port } = new URL(origin);
		const ask = (method: string, headers: Record<string, string>) =>
			new Promise<number>((resolve, reject) => {
				request({ hostname, port, method, path: '/api/styles', headers }, (answer) => {
					answer.resume();
					resolve(answer.statusCode!);
				})
					.once('error', reject)
					.end(method === 'POST' ? '{}' : undefined);
			});
		const json = { 'Content-Type': 'application/json' };
		assert.equal(await ask('GET', {}), 200);
		assert.equal(await ask('GET', { Host: 'tables.thornmere.example' }), 401, 'known, but not this machine to itself');
		assert.equal(await ask('GET', { Host: 'rebound.example' }), 421);
		assert.equal(await ask('POST', { ...json, Origin: 'http://rebound.example' }), 403);
		assert.equal(await ask('POST', { ...json, 'Sec-Fetch-Site': 'cross-site' }), 403);
		assert.equal(await ask('POST', { 'Content-Type': 'application/xml' }), 415);
		assert.equal(await ask('POST', json), 201);
	});

	it('stops in good order: what is under way is finished, and nothing is left running', async () => {
		const under = add(origin, 'under way.csv', csv(20_000));
		await new Promise((resolve) => setTimeout(resolve, 300));
		assert.ok(startedFor(origin).length >= 3, 'a web process, a hand and a worker');
		const took = await Promise.all([application.end(), under.then(({ status }) => assert.equal(status, 201))]);
		assert.ok(took[0] < 10_000, `${took[0]} ms`);
		await assert.rejects(fetch(`${origin}/health/live`));
		await new Promise((resolve) => setTimeout(resolve, 1_000));
		assert.deepEqual(startedFor(origin), []);
	});
});

/** Processes that were started for the server of an address, by what their environment says. */
const startedFor = (origin: string): string[] =>
	readdirSync('/proc').filter((pid) => {
		try {
			return /^\d+$/.test(pid) && readFileSync(`/proc/${pid}/environ`, 'latin1').includes(`ORIGIN=${origin}\0`);
		} catch {
			// It ended meanwhile, or is not ours.
			return false;
		}
	});
