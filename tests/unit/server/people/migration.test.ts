import assert from 'node:assert/strict';
import { randomBytes } from 'node:crypto';
import { describe, it } from 'node:test';
import { sql } from 'kysely';
import pg from 'pg';
import { migrate } from '../../../../scripts/migrate.ts';
import { connect, connectAsOwner } from '../../../../src/lib/server/database.ts';
import { listDocuments, loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { loadHouse } from '../../../../src/lib/server/house/house.ts';
import { connectDoor } from '../../../../src/lib/server/people/door.ts';
import { found } from '../../../../src/lib/server/people/founding.ts';
import { listMembers } from '../../../../src/lib/server/people/members.ts';
import { houseIds } from '../../../../src/lib/server/people/houses.ts';
import { importStyle, listStyles } from '../../../../src/lib/server/styles/styles.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { clusterUrl } from '../../../database.ts';

/** A database as it was before there were houses, with something in every table that then was. */
async function before(url: string) {
	const client = new pg.Client({ connectionString: url });
	await client.connect();
	const csv = Buffer.from('Lot;Seed\nTX-1;Fern\nTX-2;Moss\n');
	const hash = 'a'.repeat(64);
	const style = JSON.stringify({ ...DEMO_STYLES.find(({ basedOn }) => !basedOn)!, name: 'Kept' });
	await client.query(
		`insert into houses (id, name, inks, type_roles, version) values (1, 'Old garden', '{"fern": "#2F5D50"}', '{}', 4)`
	);
	await client.query(`insert into files (hash, bytes, size) values ($1, $2, $3)`, [hash, csv, csv.length]);
	const { rows } = await client.query<{ id: string }>(
		`insert into styles (name, definition) values ('Kept', $1) returning id`,
		[style]
	);
	const { id } = rows[0]!;
	await client.query(`insert into style_steps (style_id, step, label, definition) values ($1, 0, 'as it was', $2)`, [
		id,
		style
	]);
	await client.query(`insert into editions (style_id, number, note, definition, frozen) values ($1, 1, '', $2, $2)`, [
		id,
		style
	]);
	await client.query(`insert into house_steps (step, label, state) values (0, 'as it was', '{}')`);
	await client.query(`insert into corrections (shape, said) values ('x', '{}')`);
	const document = (
		await client.query<{ id: string }>(
			`insert into documents (name, kind, file_hash, tables, words) values ('Lots', 'csv', $1, 1, 'lot seed fern') returning id`,
			[hash]
		)
	).rows[0]!.id;
	await client.query(`insert into document_steps (document_id, step, label, state) values ($1, 0, 'as it came', $2)`, [
		document,
		JSON.stringify({ tables: { 0: { style: id, edition: 1 } } })
	]);
	await client.query(`insert into wears (document_id, table_index, style_id, edition) values ($1, 0, $2, 1)`, [
		document,
		id
	]);
	await client.query(`insert into work_steps (document_id, label) values ($1, 'taken up')`, [document]);
	await client.query(`insert into work_steps (document_id, label, parent) select $1, 'one more', id from work_steps`, [
		document
	]);
	await client.query(`insert into census_looks (hash, portrait, picture_of) values ('look', '[]', $1)`, [document]);
	await client.query(`insert into runs (style_id, style_name, settings) values ($1, 'Kept', '{}')`, [id]);
	await client.query(`insert into run_items (run_id, document_id, state) select id, $1, 'done' from runs`, [document]);
	await client.end();
	return { style: id, document };
}

describe('a database from before there were houses', () => {
	it('comes into one house, whole, with a keeper', async () => {
		const name = `before_${randomBytes(6).toString('hex')}`;
		const cluster = new pg.Client({ connectionString: clusterUrl() });
		await cluster.connect();
		await cluster.query(`create database ${name}`);
		await cluster.end();
		const url = clusterUrl().replace(/[^/]*$/, name);
		const owner = connectAsOwner(url);
		await migrate(owner, '0018-census');
		const { style, document } = await before(url);
		await migrate(owner);
		const door = connectDoor(url);
		await found(door);
		await found(door);

		const houses = await houseIds(owner);
		assert.equal(houses.length, 1);
		const [house] = houses;
		const { members } = await listMembers(door, house!);
		assert.deepEqual(
			members.map(({ role }) => role),
			['keeper'],
			'once, however often it is looked at'
		);
		const { rows } = await sql<{ name: string; n: number }>`select c.relname as name,
				(xpath('/row/n/text()', query_to_xml(format('select count(*) as n from %I where house_id = %L', c.relname, ${house}::text), false, true, '')))[1]::text::int as n
			from pg_class c join pg_attribute a on a.attrelid = c.oid and a.attname = 'house_id'
			where c.relkind = 'r' and c.relnamespace = 'public'::regnamespace`.execute(owner);
		const counts = Object.fromEntries(rows.map((row) => [row.name, row.n]));
		for (const table of [
			'files',
			'styles',
			'editions',
			'documents',
			'document_steps',
			'wears',
			'corrections',
			'house_steps'
		])
			assert.equal(counts[table], 1, table);
		assert.equal(counts.work_steps, 2);

		const db = connect(url, house);
		const { name: called, version, inks } = await loadHouse(db);
		assert.deepEqual([called, version, inks], ['Old garden', 4, { fern: '#2F5D50' }]);
		assert.deepEqual(
			(await listDocuments(db, { find: 'fern' })).documents.map(({ id }) => id),
			[document]
		);
		assert.equal((await loadDocument(db, document)).state.tables[0]!.style, style);
		assert.deepEqual(
			(await listStyles(db)).map(({ worn }) => worn),
			[{ tables: 1, documents: 1 }]
		);
		await assert.rejects(importStyle(db, { ...DEMO_STYLES[0]!, name: 'kept' }), /is called|Kept|kept/);
		// What goes takes along what was its own, and leaves the rest.
		await db.deleteFrom('documents').where('id', '=', document).execute();
		const { picture_of } = await db.selectFrom('census_looks').select('picture_of').executeTakeFirstOrThrow();
		assert.equal(picture_of, null, 'the picture is forgotten, the look and its house are not');
		await Promise.all([owner, db, door].map((one) => one.destroy()));
	});
});
