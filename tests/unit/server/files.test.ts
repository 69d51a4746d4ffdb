import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import S3rver from 's3rver';
import { writeBackup } from '../../../src/lib/server/backup/backup.ts';
import { Backup, restore } from '../../../src/lib/server/backup/restore.ts';
import { connect, type Database } from '../../../src/lib/server/database.ts';
import { addDocument } from '../../../src/lib/server/documents/add.ts';
import { loadDocument } from '../../../src/lib/server/documents/list.ts';
import { writeDocument } from '../../../src/lib/server/documents/writing.ts';
import { fileBytes, keepFile, sweepObjects } from '../../../src/lib/server/files/files.ts';
import { bucketOf, objectStore, StoreError } from '../../../src/lib/server/files/objects.ts';
import { loadStore, sweep } from '../../../src/lib/server/house/store.ts';
import { connectDoor } from '../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../src/lib/server/people/entrance.ts';
import { describeError } from '../../../src/lib/server/http/answers.ts';
import { asOwner, ownDatabase } from '../../database.ts';
import { docx, LEDGER, tbl, tr } from '../formats/documents.ts';

describe('files in an object store', () => {
	const directory = mkdtempSync(join(tmpdir(), 'heptarch-objects-'));
	let db: Kysely<Database>;
	let house: string;
	let url: string;
	let server: S3rver;

	before(async () => {
		({ db, house, url } = await ownDatabase('empty'));
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
	it('gives them to a backup, and takes those of a house that is brought in', async () => {
		const path = join(directory, '..', `${house}.zip`);
		const pieces: Uint8Array[] = [];
		const into = new WritableStream<Uint8Array>({ write: (piece) => void pieces.push(piece.slice()) });
		const { entries } = await asOwner(url, (owner) => writeBackup(owner, into, { house }));
		writeFileSync(path, Buffer.concat(pieces));
		const [before] = await db.selectFrom('documents').select('id').execute();
		const written = await writeDocument(db, before!.id, {});
		const backup = await Backup.open(path);
		const door = connectDoor(url);
		const una = await makePerson(door, 'Una');
		await door.destroy();
		const { houses } = await asOwner(url, (owner) => restore(owner, backup, una)).finally(() => backup.close());
		rmSync(path);
		const beside = connect(url, houses[0]!.id);
		const { hash } = await beside.selectFrom('files').select('hash').executeTakeFirstOrThrow();
		assert.ok(entries.some((entry) => entry.path.endsWith(`/files/${hash}`)));
		assert.deepEqual((await inStore()).sort(), [`${house}/${hash}`, `${houses[0]!.id}/${hash}`].sort());
		assert.deepEqual((await beside.selectFrom('files').select('bytes').execute())[0], { bytes: null });
		const [{ id }] = (await beside.selectFrom('documents').select('id').execute()) as [{ id: string }];
		assert.deepEqual((await writeDocument(beside, id, {})).bytes, written.bytes);
		await beside.destroy();
		await asOwner(url, (owner) => owner.deleteFrom('houses').where('id', '=', houses[0]!.id).execute());
		assert.equal(await sweepObjects(db, (await objectStore())!, soon()), 1, 'with the house its files go');
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
