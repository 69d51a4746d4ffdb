import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import type { Database } from '../../../src/lib/server/database.ts';
import { checkStore } from '../../../src/lib/server/files/check.ts';
import { asOwner, ownDatabase } from '../../database.ts';

describe('the check of what is kept', () => {
	let db: Kysely<Database>;
	let url: string;
	before(async () => {
		({ db, url } = await ownDatabase('demo'));
	});
	after(() => db.destroy());

	it('finds all there and whole', async () => {
		const { files, faults, bytes } = await checkStore(db);
		assert.equal(files, 7);
		assert.ok(bytes > 10_000);
		assert.deepEqual(faults, []);
	});
	it('names what is cut short, altered or gone, with whose it is, and changes nothing', async () => {
		const all = await db.selectFrom('documents').select(['name', 'file_hash']).orderBy('name').limit(3).execute();
		const [cut, altered, gone] = all.map(({ file_hash }) => file_hash) as [string, string, string];
		await sql`update files set bytes = substring(bytes for 100) where hash = ${cut}`.execute(db);
		await sql`update files set bytes = set_byte(bytes, 50, (get_byte(bytes, 50) + 1) % 256) where hash = ${altered}`.execute(
			db
		);
		await asOwner(url, (owner) => sql`alter table documents drop constraint documents_file_hash_fkey`.execute(owner));
		await db.deleteFrom('files').where('hash', '=', gone).execute();
		const { faults } = await checkStore(db);
		const said = new Map(faults.map(({ hash, words }) => [hash, words]));
		assert.equal(faults.length, 3);
		assert.match(said.get(cut)!, /it has 100 bytes, and had \d+/);
		assert.equal(said.get(altered), 'its content is another than was kept');
		assert.equal(said.get(gone), 'it is not kept');
		for (const { name, file_hash } of all)
			assert.deepEqual(faults.find(({ hash }) => hash === file_hash)!.documents, [name]);
		const { status, stdout } = spawnSync(
			'node',
			[join(resolve(import.meta.dirname, '../../..'), 'scripts/check-store.mjs')],
			{
				env: { ...process.env, DATABASE_URL: url },
				encoding: 'utf8'
			}
		);
		assert.equal(status, 1);
		assert.match(stdout, /3 are not as kept/);
	});
});
