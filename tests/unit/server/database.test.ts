import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { connect, isAway, type Database } from '../../../src/lib/server/database.ts';
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
	before(async () => void ({ db: real } = await ownDatabase('demo')));
	after(() => Promise.all([nobody.destroy(), real.destroy()]));
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
			await sql`select pg_terminate_backend(${rows[0]!.pid})`.execute(one);
			await sql`select 1`.execute(one);
		});
		assert.equal(isAway(await failure(ended)), true);
	});
});
