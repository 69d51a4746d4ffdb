import assert from 'node:assert/strict';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import S3rver from 's3rver';
import type { Database } from '../../../src/lib/server/database.ts';
import { addDocument } from '../../../src/lib/server/documents/add.ts';
import { loadDocument } from '../../../src/lib/server/documents/list.ts';
import { writeDocument } from '../../../src/lib/server/documents/writing.ts';
import { fileBytes, keepFile, sweepObjects } from '../../../src/lib/server/files/files.ts';
import { bucketOf, objectStore, StoreError } from '../../../src/lib/server/files/objects.ts';
import { loadStore, sweep } from '../../../src/lib/server/house/store.ts';
import { describeError } from '../../../src/lib/server/http/answers.ts';
import { ownDatabase } from '../../database.ts';
import { docx, LEDGER, tbl, tr } from '../formats/documents.ts';

describe('files in an object store', () => {
	const directory = mkdtempSync(join(tmpdir(), 'heptarch-objects-'));
	let db: Kysely<Database>;
	let house: string;
	let server: S3rver;

	before(async () => {
		({ db, house } = await ownDatabase('empty'));
		server = new S3rver({
			address: '127.0.0.1',
			port: 0,
			silent: true,
			directory,
			configureBuckets: [{ name: 'thornmere', configs: [] }]
		});
		const { port } = await server.run();
		Object.assign(process.env, {
			HEPTARCH_FILES: 's3://thornmere/files/',
			AWS_ENDPOINT_URL_S3: `http://127.0.0.1:${port}`,
			AWS_REGION: 'eu-central-1',
			AWS_ACCESS_KEY_ID: 'S3RVER',
			AWS_SECRET_ACCESS_KEY: 'S3RVER'
		});
	});
	after(async () => {
		await db.destroy();
		await server.close().catch(() => undefined);
		rmSync(directory, { recursive: true });
	});
	const inStore = async () => {
		const hashes: string[] = [];
		for await (const some of (await objectStore())!.before(new Date(Date.now() + 60_000))) hashes.push(...some);
		return hashes;
	};
	const soon = () => new Date(Date.now() + 60_000);

	it('keeps a document there, opens it from there and writes it', async () => {
		const bytes = await docx({ body: tbl(LEDGER) });
		const { id } = await addDocument(db, 'beds.docx', bytes);
		const { file_hash: hash } = await db.selectFrom('documents').select('file_hash').executeTakeFirstOrThrow();
		assert.deepEqual(await inStore(), [`${house}/${hash}`]);
		assert.deepEqual(await db.selectFrom('files').select(['bytes', 'size']).execute(), [
			{ bytes: null, size: String(bytes.length) as unknown as number }
		]);
		assert.deepEqual(await fileBytes(db, hash), new Uint8Array(bytes));
		assert.equal((await loadDocument(db, id)).tables.length, 1);
		assert.ok((await writeDocument(db, id, {})).bytes.length > 1_000);
		assert.equal((await loadStore(db)).bytes, bytes.length);
	});
	it('gives what is still in the database from there', async () => {
		const bytes = Buffer.from('from before there was a store');
		await db.insertInto('files').values({ hash: 'before', bytes, size: bytes.length }).execute();
		assert.deepEqual(Buffer.from(await fileBytes(db, 'before')), bytes);
	});
	it('frees what no document has any more, and what was never written down', async () => {
		const store = (await objectStore())!;
		const [kept] = await inStore();
		await store.put('orphan', Buffer.from('its transaction was rolled back'));
		assert.equal(await sweepObjects(db, store, soon()), 1);
		assert.deepEqual(await inStore(), [kept]);
		await db
			.updateTable('documents')
			.set({ removed_at: new Date(0) })
			.execute();
		await db
			.updateTable('files')
			.set({ created_at: new Date(0) })
			.execute();
		await sweep(db);
		assert.equal(await sweepObjects(db, store, new Date(0)), 0, 'not what came just now');
		assert.equal(await sweepObjects(db, store, soon()), 1);
		assert.deepEqual(await inStore(), []);
	});
	it('waits with freeing while the same file is coming again', async () => {
		const store = (await objectStore())!;
		const bytes = Buffer.from('it comes again');
		let swept: Promise<number> | undefined;
		const hash = await db.transaction().execute(async (trx) => {
			const hash = await keepFile(trx, bytes);
			swept = sweepObjects(db, store, soon());
			await new Promise((resolve) => setTimeout(resolve, 300));
			return hash;
		});
		assert.equal(await swept, 0);
		assert.deepEqual(Buffer.from(await fileBytes(db, hash)), bytes);
	});
	it('says that the store does not answer, and writes nothing down', async () => {
		await server.close();
		const count = async () => (await db.selectFrom('documents').select('id').execute()).length;
		const before = await count();
		const bytes = await docx({ body: tbl([tr('Lost', 'Found'), ...LEDGER]) });
		await assert.rejects(addDocument(db, 'lost.docx', bytes), (error) => {
			assert.ok(error instanceof StoreError);
			assert.deepEqual([describeError(error)?.status, describeError(error)?.body.code], [503, 'offline']);
			return true;
		});
		assert.equal(await count(), before);
	});
});

describe('bucketOf', () => {
	it('reads bucket and prefix, and refuses anything else', () => {
		assert.deepEqual(bucketOf('s3://beds'), { bucket: 'beds', prefix: '' });
		assert.deepEqual(bucketOf('s3://beds/a/b/'), { bucket: 'beds', prefix: 'a/b/' });
		for (const wrong of ['', 'beds', 's3://', 's3://B', 'https://beds/x'])
			assert.throws(() => bucketOf(wrong), /HEPTARCH_FILES/);
	});
});
