import assert from 'node:assert/strict';
import { spawn, type ChildProcess } from 'node:child_process';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import { bundle } from '../../../../scripts/bundle.mjs';
import type { Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { addStep } from '../../../../src/lib/server/documents/steps.ts';
import { listDocuments, loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { Queue } from '../../../../src/lib/server/runs/queue.ts';
import {
	listRuns,
	resumeRun,
	sendLost,
	startRun,
	stopRun,
	undoRun,
	workOn
} from '../../../../src/lib/server/runs/runs.ts';
import { ownDatabase } from '../../../database.ts';
import { docx, LEDGER, tbl } from '../../formats/documents.ts';

const FILES = 24;

describe('runs', () => {
	let db: Kysely<Database>;
	let url: string;
	let style: string;
	let documents: string[];
	const workers: ChildProcess[] = [];
	before(async () => {
		({ db, url } = await ownDatabase('demo'));
		style = (await db.selectFrom('styles').select('id').where('name', '=', 'Beacon').executeTakeFirstOrThrow()).id;
		documents = [];
		for (let i = 0; i < FILES; i++)
			documents.push(
				(
					await addDocument(
						db,
						`file ${i}.docx`,
						await docx({ body: tbl([...LEDGER, ...LEDGER.slice(1, 1 + (i % 3))]) })
					)
				).id
			);
	});
	after(async () => {
		for (const worker of workers) worker.kill('SIGKILL');
		await db.destroy();
	});
	const none = async () => undefined;
	const only = async (id: string) => (await listRuns(db, id))[0]!;
	const wears = async (id: string) => (await loadDocument(db, id)).state.tables[0]?.style;

	it('give every table a style, once, however often a job comes', async () => {
		const chosen = documents.slice(0, 3);
		const { id } = await startRun(db, { style, documents: chosen }, none);
		assert.equal((await only(id)).state, 'running');
		for (const document of [...chosen, ...chosen]) await workOn(db, { run: id, document });
		await Promise.all(chosen.map((document) => workOn(db, { run: id, document })));
		const run = await only(id);
		assert.equal(run.state, 'done');
		assert.deepEqual(
			run.items.map(({ state, tables, differences }) => [state, tables, differences]),
			Array(3).fill(['done', 1, 0])
		);
		for (const document of chosen) {
			assert.equal((await loadDocument(db, document)).step, 1, 'one step, not two');
			assert.equal(await wears(document), style);
		}
		assert.deepEqual(await undoRun(db, id), { documents: 3 });
		for (const document of chosen) assert.equal(await wears(document), undefined);
		await assert.rejects(undoRun(db, id), /taken back already/);
		assert.equal((await only(id)).state, 'undone');
	});
	it('are taken back without what people did since', async () => {
		const [document, other] = [documents[0]!, documents[1]!];
		const { id } = await startRun(db, { style, documents: [document, other] }, none);
		for (const one of [document, other]) await workOn(db, { run: id, document: one });
		const ledger = await db
			.selectFrom('styles')
			.select('id')
			.where('name', '=', 'Season Ledger')
			.executeTakeFirstOrThrow();
		const now = async (one: string) => loadDocument(db, one);
		const state = (await now(document)).state.tables[0]!;
		await addStep(db, document, (await now(document)).version, 'corrected', { 0: { ...state, kinds: { 1: 'code' } } });
		await addStep(db, other, (await now(other)).version, 'another style', { 0: { style: ledger.id } });
		assert.deepEqual(await undoRun(db, id), { documents: 1 });
		assert.deepEqual((await now(document)).state.tables[0], { kinds: { 1: 'code' } });
		assert.equal(await wears(other), ledger.id, 'what it was given since stays');
	});
	it('stop where they are and go on', async () => {
		const chosen = documents.slice(3, 6);
		const { id } = await startRun(db, { style, documents: chosen }, none);
		await workOn(db, { run: id, document: chosen[0]! });
		await stopRun(db, id);
		await workOn(db, { run: id, document: chosen[1]! });
		assert.equal((await only(id)).state, 'stopped');
		assert.equal(await wears(chosen[1]!), undefined);
		const sent: string[] = [];
		await resumeRun(db, id, async (jobs) => void sent.push(...jobs.map(({ document }) => document)));
		assert.deepEqual(sent.sort(), chosen.slice(1).sort());
		for (const document of sent) await workOn(db, { run: id, document });
		assert.equal((await only(id)).state, 'done');
	});
	it('say why a document could not be done, and go on with the rest', async () => {
		const gone = (await addDocument(db, 'gone.docx', await docx({ body: tbl(LEDGER) }))).id;
		const { id } = await startRun(db, { style, documents: [gone, documents[6]!] }, none);
		await db.updateTable('documents').set({ removed_at: new Date() }).where('id', '=', gone).execute();
		for (const document of [gone, documents[6]!]) await workOn(db, { run: id, document });
		const { items, state } = await only(id);
		assert.equal(state, 'done');
		assert.match(items.find(({ document }) => document === gone)!.reason!, /no longer here/);
		assert.equal(items.find(({ document }) => document !== gone)!.state, 'done');
	});
	it('name a document that ended its worker each time, and try it no more', async () => {
		const document = documents[6]!;
		const { id } = await startRun(db, { style, documents: [document] }, none);
		const attempts = { attempts: 3 };
		await db.updateTable('run_items').set(attempts).where('run_id', '=', id).execute();
		await workOn(db, { run: id, document });
		const { items, state } = await only(id);
		assert.equal(state, 'done');
		assert.deepEqual([items[0]!.state, items[0]!.tables], ['failed', 0]);
		assert.match(items[0]!.reason!, /more memory or computing time/);
		assert.equal(await sendLost(db, none, 0), 0, 'it is not sent for ever');
	});
	it('name a document that fails for any reason, and go on with the others of its batch', async () => {
		const broken = (await addDocument(db, 'broken.docx', await docx({ body: tbl(LEDGER) }))).id;
		// Nothing that a person can do makes a state like this; that is the point.
		await db
			.updateTable('document_steps')
			.set({ state: JSON.stringify({ tables: null }) })
			.where('document_id', '=', broken)
			.execute();
		const complained: string[] = [];
		const queue = await Queue.open(db, url, ({ message }) => complained.push(message));
		const { id } = await startRun(db, { style, documents: [broken, documents[6]!] }, queue.send);
		await queue.work();
		while ((await only(id)).state !== 'done') await new Promise((resolve) => setTimeout(resolve, 50));
		await queue.close();
		const { items } = await only(id);
		const states = new Map(items.map((item) => [item.document, item]));
		assert.equal(states.get(documents[6]!)!.state, 'done');
		assert.equal(states.get(broken)!.state, 'failed');
		assert.match(states.get(broken)!.reason!, /went wrong/);
		assert.equal(complained.length, 1);
	});
	it('lose nothing and do nothing twice when workers are killed in the middle', { timeout: 120_000 }, async () => {
		const queue = await Queue.open(db, url);
		const program = await bundle(new URL('../../../../src/worker.ts', import.meta.url).pathname, ['src']);
		const begin = () => {
			const worker = spawn(process.execPath, [program], {
				env: { ...process.env, DATABASE_URL: url, HEPTARCH_LOST_AFTER: '2' },
				stdio: 'ignore'
			});
			workers.push(worker);
			return worker;
		};
		const chosen = documents.slice(7);
		const { id } = await startRun(db, { style, documents: chosen }, queue.send);
		const done = async () => (await only(id)).items.filter(({ state }) => state === 'done').length;
		const until = async (count: number) => {
			while ((await done()) < count) await new Promise((resolve) => setTimeout(resolve, 20));
		};
		const [first, second] = [begin(), begin()];
		await until(1);
		first!.kill('SIGKILL');
		second!.kill('SIGKILL');
		assert.ok((await done()) < chosen.length, 'there is something left to do');
		begin();
		await until(chosen.length);
		await sendLost(db, queue.send, 0);
		const { items, state } = await only(id);
		assert.equal(state, 'done');
		assert.ok(items.every(({ differences, reason }) => differences === 0 && reason === null));
		for (const document of chosen) {
			const { step } =
				(await listDocuments(db)).documents.find((one) => one.id === document)! && (await loadDocument(db, document));
			assert.equal(step, 1, 'one step, not two');
		}
		await queue.close();
	});
});
