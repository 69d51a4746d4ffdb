import assert from 'node:assert/strict';
import { spawn, type ChildProcess } from 'node:child_process';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import { bundle } from '../../../../scripts/bundle.mjs';
import { freePort, ownDatabase, prepareDatabase, serve } from '../../../../scripts/machine.mjs';
import { connect, type Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { Hub } from '../../../../src/lib/server/live/hub.ts';
import { Queue } from '../../../../src/lib/server/runs/queue.ts';
import { listRuns, startRun } from '../../../../src/lib/server/runs/runs.ts';
import { onlyHouse } from '../../../database.ts';
import { docx, LEDGER, tbl } from '../../formats/documents.ts';

const FILES = 14;
const PATIENCE = 90_000;
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A run goes on where it was, whatever falls over under it: with a PostgreSQL of its own, to be switched off. */
describe('outages in the middle of a run', { timeout: 240_000 }, () => {
	let cluster: Awaited<ReturnType<typeof ownDatabase>>;
	let db: Kysely<Database>;
	let style: string;
	const children: ChildProcess[] = [];
	before(async () => {
		cluster = await ownDatabase({ throwAway: true });
		prepareDatabase(cluster.url, { demo: true });
		db = connect(cluster.url, await onlyHouse(cluster.url));
		style = (await db.selectFrom('styles').select('id').where('name', '=', 'Beacon').executeTakeFirstOrThrow()).id;
	});
	after(async () => {
		for (const child of children) child.kill('SIGKILL');
		await db.destroy();
		cluster.stop();
	});

	const addFiles = async (): Promise<string[]> => {
		const ids: string[] = [];
		for (let i = 0; i < FILES; i++)
			ids.push((await addDocument(db, `file ${i}.docx`, await docx({ body: tbl(LEDGER).repeat(6) }))).id);
		return ids;
	};
	const stateOf = async (id: string) => (await listRuns(db, id))[0]!;
	const doneOf = async (id: string) => (await stateOf(id)).items.filter(({ state }) => state === 'done').length;
	const until = async (id: string, count: number) => {
		const end = Date.now() + PATIENCE;
		while ((await doneOf(id).catch(() => -1)) < count) {
			assert.ok(Date.now() < end, `waited for ${count} documents`);
			await pause(20);
		}
	};
	const nothingIsLost = async (id: string, documents: readonly string[]) => {
		const { items, state } = await stateOf(id);
		assert.equal(state, 'done');
		assert.deepEqual(
			items.filter(({ differences, reason }) => differences > 0 || reason !== null),
			[]
		);
		for (const document of documents) {
			const { step, state: worn } = await loadDocument(db, document);
			assert.equal(step, 1, 'one step, not two');
			assert.equal(worn.tables[5]!.style, style);
		}
	};

	it('PostgreSQL is switched off under two workers and comes back', async () => {
		const documents = await addFiles();
		const program = await bundle(new URL('../../../../src/worker.ts', import.meta.url).pathname, ['src']);
		const queue = await Queue.open(db, cluster.url);
		const { id } = await startRun(db, { style, documents }, queue.send);
		for (let i = 0; i < 2; i++)
			children.push(
				spawn(process.execPath, [program], {
					env: { ...process.env, DATABASE_URL: cluster.url, HEPTARCH_LOST_AFTER: '2' },
					stdio: 'ignore'
				})
			);
		await until(id, 2);
		cluster.halt();
		await pause(1_500);
		cluster.start();
		const left = FILES - (await doneOf(id));
		assert.ok(left > 0, 'there is something left to do');
		await until(id, FILES);
		await nothingIsLost(id, documents);
		await queue.close();
		for (const child of children.splice(0)) child.kill('SIGKILL');
	});

	it('the server is killed, and another one takes the run up', async () => {
		const documents = await addFiles();
		const begin = async () => {
			const app = await serve(cluster.url, {
				port: await freePort(),
				stdio: 'ignore',
				env: { HEPTARCH_LOST_AFTER: '2' }
			});
			children.push(app.child);
			return app;
		};
		const first = await begin();
		const answer = await fetch(`${first.origin}/api/runs`, {
			method: 'POST',
			headers: { 'content-type': 'application/json', origin: first.origin },
			body: JSON.stringify({ style, documents })
		});
		assert.equal(answer.status, 201);
		const { id } = (await answer.json()) as { id: string };
		await until(id, 2);
		first.child.kill('SIGKILL');
		assert.ok((await doneOf(id)) < FILES, 'there is something left to do');
		await begin();
		await until(id, FILES);
		await nothingIsLost(id, documents);
	});

	it('a server that starts before PostgreSQL answers works on runs once it does', async () => {
		for (const child of children.splice(0)) child.kill('SIGKILL');
		const documents = await addFiles();
		cluster.halt();
		const app = await serve(cluster.url, {
			port: await freePort(),
			stdio: 'ignore',
			env: { HEPTARCH_LOST_AFTER: '2' }
		});
		children.push(app.child);
		await pause(500);
		cluster.start();
		const { id } = await startRun(db, { style, documents }, async () => undefined);
		await until(id, FILES);
		await nothingIsLost(id, documents);
	});

	it('windows hear of changes again once the database is back', async () => {
		const house = await onlyHouse(cluster.url);
		const app = connect(cluster.url);
		const hub = new Hub(app, cluster.url);
		const person = '00000000-0000-4000-8000-000000000007';
		const id = (await addFiles())[0]!;
		const stream = await hub.open({ house, person }, `documents/${id}`, async () => true);
		let heard = '';
		const hearing = (async () => {
			for await (const piece of stream as unknown as AsyncIterable<Uint8Array>)
				heard += new TextDecoder().decode(piece);
		})();
		while (!heard.includes('arrived')) await pause(20);
		cluster.halt();
		// Longer than the first tries to listen again take: they fail.
		await pause(3_500);
		cluster.start();
		const end = Date.now() + PATIENCE;
		for (let i = 0; !heard.includes('heard again'); i++) {
			assert.ok(Date.now() < end, heard);
			await db
				.updateTable('document_steps')
				.set({ label: 'heard again' })
				.where('document_id', '=', id)
				.execute()
				.catch(() => undefined);
			await db
				.updateTable('documents')
				.set({ version: i + 1 })
				.where('id', '=', id)
				.execute()
				.catch(() => undefined);
			await pause(300);
		}
		await hub.close();
		await hearing;
		await app.destroy();
	});
});
