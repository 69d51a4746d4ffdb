import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { seedList } from '../../../../demo/documents/seed-list.ts';
import { connect, connectAsOwner, type Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { listDocuments } from '../../../../src/lib/server/documents/list.ts';
import { actAs } from '../../../../src/lib/server/people/acting.ts';
import { connectDoor, type Door } from '../../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../../src/lib/server/people/entrance.ts';
import { beginHouse } from '../../../../src/lib/server/people/founding.ts';
import { importStyle } from '../../../../src/lib/server/styles/styles.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { ownDatabase } from '../../../database.ts';

/** What an installation keeps that is no house's, or is told of otherwise. */
const NO_HOUSE = [
	'accounts',
	'attempts',
	'houses',
	'installation',
	'kysely_migration',
	'kysely_migration_lock',
	'links',
	'people',
	'second_factors',
	'sessions',
	'verifications'
];

describe('houses are kept apart', () => {
	let mine: Kysely<Database>;
	let theirs: Kysely<Database>;
	let app: Kysely<Database>;
	let owner: Kysely<Database>;
	let door: Door;
	let other: string;
	before(async () => {
		const own = await ownDatabase('demo');
		mine = own.db;
		door = connectDoor(own.url);
		other = await beginHouse(door, 'Fern valley', await makePerson(door, 'Ines'));
		theirs = connect(own.url, other);
		app = connect(own.url);
		owner = connectAsOwner(own.url);
	});
	after(() => Promise.all([mine, theirs, app, owner, door].map((one) => one.destroy())));

	const tables = async () => {
		const { rows } = await sql<{ name: string }>`select relname as name from pg_class
			where relnamespace = 'public'::regnamespace and relkind = 'r'`.execute(owner);
		return rows.map(({ name }) => name).filter((name) => !NO_HOUSE.includes(name));
	};

	it('every table says whose its rows are, in every key and every index, and PostgreSQL looks', async () => {
		for (const table of await tables()) {
			const { rows } = await sql<{ secured: boolean; index: string; is_first: boolean }>`
				select c.relrowsecurity as secured, i.indexrelid::regclass::text as index,
					i.indkey[0] = a.attnum as is_first
				from pg_class c join pg_index i on i.indrelid = c.oid
				join pg_attribute a on a.attrelid = c.oid and a.attname = 'house_id'
				where c.oid = ${table}::regclass`.execute(owner);
			assert.ok(rows.length, `${table} has a house`);
			for (const { secured, index, is_first } of rows) {
				// Members are found by person as well; rows of another house are never shown to anybody in a house.
				if (table !== 'members') assert.ok(secured, `${table} is looked at by row`);
				if (index !== 'members_person_id') assert.ok(is_first, `${index} begins with the house`);
			}
		}
	});
	it('a reference does not leave its house', async () => {
		const { rows } = await sql<{ name: string }>`
			select conname as name from pg_constraint c where contype = 'f' and connamespace = 'public'::regnamespace
				and confrelid <> 'houses'::regclass and confrelid <> 'people'::regclass and not exists (
					select from pg_attribute a where a.attrelid = conrelid and a.attname = 'house_id' and a.attnum = conkey[1])`.execute(
			owner
		);
		assert.deepEqual(rows, []);
		const { id: style } = await mine.selectFrom('styles').select('id').executeTakeFirstOrThrow();
		await assert.rejects(
			sql`insert into census_styles (style_id, made_of) values (${style}, 'draft 1')`.execute(theirs),
			/violates foreign key/
		);
	});
	it('raw SQL as the application asks it sees one house, and outside of any nothing', async () => {
		for (const table of await tables()) {
			if (table === 'members') continue;
			const count = async (db: Kysely<Database>, where = sql`true`) =>
				Number(
					(await sql<{ n: string }>`select count(*) as n from ${sql.table(table)} where ${where}`.execute(db)).rows[0]!
						.n
				);
			assert.equal(await count(app), 0, `${table}, outside of any house`);
			const all = await count(owner);
			assert.equal((await count(mine)) + (await count(theirs)), all, table);
			assert.equal(await count(theirs), await count(owner, sql`house_id = ${other}`), table);
		}
		const names = async (db: Kysely<Database>) =>
			(await db.selectFrom('houses').select('name').execute()).map(({ name }) => name);
		assert.deepEqual(await names(theirs), ['Fern valley']);
		assert.deepEqual(await names(app), []);
	});
	it('nobody writes into another house, takes a row over, or makes themselves another', async () => {
		const { id: document, house_id: house } = await mine
			.selectFrom('documents')
			.select(['id', 'house_id'])
			.executeTakeFirstOrThrow();
		const refused = /row-level security|permission denied|must be (member|owner)/;
		await assert.rejects(
			sql`insert into corrections (house_id, shape, said) values (${house}, 'x', '{}')`.execute(theirs),
			refused
		);
		await assert.rejects(sql`update documents set house_id = ${other}`.execute(mine), refused);
		const { numAffectedRows } = await sql`update documents set name = 'taken' where id = ${document}`.execute(theirs);
		assert.equal(numAffectedRows, 0n);
		for (const statement of [
			'alter table documents disable row level security',
			'create policy all_of_it on documents using (true)',
			'select * from people',
			'select * from sessions',
			'select secret from installation',
			'update members set role = $$keeper$$',
			'delete from house_log',
			'update house_log set words = $$nothing$$',
			'delete from houses',
			'drop table documents',
			'truncate documents'
		])
			await assert.rejects(sql.raw(statement).execute(theirs), refused, statement);
	});
	it('at the door nothing of what a house keeps is seen', async () => {
		for (const table of ['documents', 'styles', 'files', 'document_steps'])
			await assert.rejects(sql`select * from ${sql.table(table)}`.execute(door), /permission denied/);
	});
	it('carries nothing over from one who asks to the next, whatever is asked at once', async () => {
		const { id: house } = await mine.selectFrom('houses').select('id').executeTakeFirstOrThrow();
		const seen = await Promise.all(
			Array.from({ length: 60 }, (_, i) => {
				const [as, person] = i % 3 === 0 ? [house, 'a'] : [other, 'b'];
				return actAs({ house: as, person }, async () => {
					const work = async (db: Kysely<Database>) => {
						const { rows } = await sql<{ house: string; person: string }>`
							select current_house() as house, current_person() as person, pg_sleep(random() / 50)`.execute(db);
						return [rows[0]!.house, rows[0]!.person];
					};
					const asked = i % 2 ? work(app) : app.transaction().execute(work);
					return JSON.stringify(await asked) === JSON.stringify([as, person]);
				});
			})
		);
		assert.deepEqual([...new Set(seen)], [true]);
		await assert.rejects(
			actAs({ house: "'; drop table documents; --", person: null }, () =>
				app.selectFrom('documents').select('id').execute()
			),
			/no id of a house/
		);
	});
	it('the same names and files may be in both, and a search finds those of its house', async () => {
		await importStyle(
			theirs,
			DEMO_STYLES.find(({ basedOn }) => !basedOn)!
		);
		await addDocument(theirs, 'Seed exchange list.csv', seedList());
		assert.equal((await listDocuments(theirs)).documents.length, 1);
		for (const find of ['seed', 'exchange list', '']) {
			const found = await listDocuments(theirs, { find });
			assert.equal(found.documents.length, 1, find);
			assert.ok((await listDocuments(mine, { find })).documents.every(({ id }) => id !== found.documents[0]!.id));
		}
		const { rows } = await sql<{ n: number }>`select count(distinct house_id)::int as n from files
			where hash in (select hash from files group by hash having count(*) > 1)`.execute(owner);
		assert.equal(rows[0]!.n, 2, 'contents are kept for each house, so that nobody can tell whether another has them');
	});
	it('what is done says by whom', async () => {
		const { id: house } = await mine.selectFrom('houses').select('id').executeTakeFirstOrThrow();
		const ines = await makePerson(door, 'Ines');
		const document = await actAs({ house, person: ines }, async () => {
			const { id } = await addDocument(app, 'List of Ines.csv', seedList());
			return id;
		});
		const { made_by } = await mine
			.selectFrom('documents')
			.select('made_by')
			.where('id', '=', document)
			.executeTakeFirstOrThrow();
		assert.equal(made_by, ines);
	});
});
