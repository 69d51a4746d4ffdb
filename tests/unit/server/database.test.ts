import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { connect, connectAsOwner, isAway, type Database } from '../../../src/lib/server/database.ts';
import { addDocument } from '../../../src/lib/server/documents/add.ts';
import { describeError } from '../../../src/lib/server/http/answers.ts';
import { ownDatabase } from '../../database.ts';

describe('the schema', () => {
	it('has an index for every foreign key, so that taking out looks nothing through', async () => {
		const { db } = await ownDatabase('empty');
		const { rows } = await sql<{ of: string; name: string }>`
			select conrelid::regclass::text as of, conname as name from pg_constraint c
			where contype = 'f' and connamespace = 'public'::regnamespace and not exists (
				select from pg_index i where i.indrelid = c.conrelid
				and (i.indkey::int2[])[0:array_length(c.conkey, 1) - 1] @> c.conkey
			)`.execute(db);
		await db.destroy();
		assert.deepEqual(rows, []);
	});
});

describe('a database that does not answer', () => {
	const nobody = connect('postgres://nobody@127.0.0.1:1/nothing');
	let real: Kysely<Database>;
	let owner: Kysely<Database>;
	before(async () => {
		const { db, url } = await ownDatabase('demo');
		[real, owner] = [db, connectAsOwner(url)];
	});
	after(() => Promise.all([nobody.destroy(), real.destroy(), owner.destroy()]));
	const failure = (work: Promise<unknown>) =>
		work.then(
			() => assert.fail('it worked'),
			(error: unknown) => error
		);

	it('is told from a question that is wrong', async () => {
		assert.equal(isAway(await failure(sql`select 1`.execute(nobody))), true);
		assert.equal(isAway(await failure(sql`select nothing from nowhere`.execute(real))), false);
		const ended = real.connection().execute(async (one) => {
			const { rows } = await sql<{ pid: number }>`select pg_backend_pid() as pid`.execute(one);
			await sql`select pg_terminate_backend(${rows[0]!.pid})`.execute(owner);
			await new Promise((resolve) => setTimeout(resolve, 100));
			await sql`select 1`.execute(one);
		});
		assert.equal(isAway(await failure(ended)), true);
		// In a transaction it is the taking back that fails.
		const broken = real.transaction().execute(async (trx) => {
			const { rows } = await sql<{ pid: number }>`select pg_backend_pid() as pid`.execute(trx);
			await sql`select pg_terminate_backend(${rows[0]!.pid})`.execute(owner);
			await new Promise((resolve) => setTimeout(resolve, 300));
			await sql`select 1`.execute(trx);
		});
		const lost = await failure(broken);
		assert.equal(isAway(lost), true, String(lost));
	});
});

describe('what will be over', () => {
	let db: Kysely<Database>;
	let owner: Kysely<Database>;
	before(async () => {
		const own = await ownDatabase('empty');
		[db, owner] = [own.db, connectAsOwner(own.url)];
	});
	after(() => Promise.all([db.destroy(), owner.destroy()]));
	const answered = (work: Promise<unknown>) =>
		work.then(
			() => assert.fail('it worked'),
			(error: unknown) => describeError(error)
		);
	const kept = async () => {
		const { rows } = await sql<{
			n: string;
		}>`select (select count(*) from documents) || ' ' || (select count(*) from files)
			|| ' ' || (select count(*) from document_steps) as n`.execute(db);
		return rows[0]!.n;
	};

	it('has its sentence, 503, and leaves nothing half done: a full disk in the middle of adding a document', async () => {
		const before = await kept();
		for (const table of ['files', 'documents', 'document_steps', 'specimens']) {
			// The last thing that a statement does fails as it does where there is no room.
			await sql`create or replace function full_disk() returns trigger language plpgsql as $$
				begin raise exception 'could not extend file: No space left on device' using errcode = '53100'; end $$`.execute(owner);
			await sql`create trigger full_disk after insert on ${sql.table(table)} execute function full_disk()`.execute(
				owner
			);
			const said = await answered(addDocument(db, 'report.docx', await seasonReport()));
			await sql`drop trigger full_disk on ${sql.table(table)}`.execute(owner);
			assert.equal(said?.status, 503, table);
			assert.match(said.body.message, /disk of the database is full.*Nothing was changed/);
			assert.equal(await kept(), before, table);
		}
		assert.ok(await addDocument(db, 'report.docx', await seasonReport()));
	});
	it('is a lock that somebody keeps, and a statement that takes too long', async () => {
		await db.connection().execute(async (one) => {
			await sql`set lock_timeout = 200`.execute(one);
			await sql`set statement_timeout = 400`.execute(one);
			await db.transaction().execute(async (trx) => {
				await sql`lock table documents in access exclusive mode`.execute(trx);
				const said = await answered(one.selectFrom('documents').select('id').execute());
				assert.deepEqual(
					[said?.status, said?.body.message.split('.')[0]],
					[503, 'Somebody else is at work on the same for long']
				);
			});
			const said = await answered(sql`select pg_sleep(3)`.execute(one));
			assert.deepEqual(
				[said?.status, said?.body.message.split('.')[0]],
				[503, 'This took the database longer than it may']
			);
		});
	});
});
