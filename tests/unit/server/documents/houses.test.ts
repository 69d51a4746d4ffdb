import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { typed } from '../../../../src/lib/core/work/cells.ts';
import { patchBetween } from '../../../../src/lib/core/work/patch.ts';
import { emptyTable } from '../../../../src/lib/core/work/table.ts';
import { connect, type Database } from '../../../../src/lib/server/database.ts';
import { openById } from '../../../../src/lib/server/documents/open.ts';
import { workAt } from '../../../../src/lib/server/documents/replay.ts';
import { actAs } from '../../../../src/lib/server/people/acting.ts';
import { connectDoor } from '../../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../../src/lib/server/people/entrance.ts';
import { beginHouse } from '../../../../src/lib/server/people/founding.ts';
import { makeTable } from '../../../../src/lib/server/tables/tables.ts';
import { addWorkStep, loadWork } from '../../../../src/lib/server/tables/work.ts';
import { asOwner, onlyHouse, ownDatabase } from '../../../database.ts';

/** A house that was brought in from another installation numbers its steps, and keeps its files, as one that was here. */
describe('two houses whose ids and files are the same', () => {
	let db: Kysely<Database>;
	let url: string;
	const houses: string[] = [];
	before(async () => {
		const own = await ownDatabase('empty');
		await own.db.destroy();
		({ url } = own);
		db = connect(url);
		const door = connectDoor(url);
		houses.push(await onlyHouse(url), await beginHouse(door, 'Beside it', await makePerson(door, 'Una')));
		await door.destroy();
	});
	after(() => db.destroy());

	it('each sees its own in a process that remembers both', async () => {
		const begin = (house: string, said: string) =>
			actAs({ house, person: null }, async () => {
				const { document } = await makeTable(db, { name: 'Beds', work: emptyTable(2, 2), wears: {} });
				const { base } = await loadWork(db, document, 0);
				const patch = patchBetween(base, typed(base, 1, 0, [{ runs: [{ text: said }] }]));
				const { step } = await addWorkStep(db, document, 0, { after: null, label: 'typed', patch });
				return { house, said, document, step };
			});
		const all = [await begin(houses[0]!, 'of the one'), await begin(houses[1]!, 'of the other')];
		const [one, other] = all as [(typeof all)[number], (typeof all)[number]];
		await asOwner(url, async (owner) => {
			await sql`insert into work_steps (house_id, id, document_id, parent, label, patch, whole) overriding system value
				select house_id, ${one.step}, document_id, parent, label, patch, whole from work_steps
				where house_id = ${other.house} and id = ${other.step}`.execute(owner);
			await sql`update document_steps set state = replace(state::text, ${`"work": ${other.step}`}, ${`"work": ${one.step}`})::jsonb
				where house_id = ${other.house}`.execute(owner);
		});
		// Of both, by turns, as one process is asked.
		for (const { house, said, document } of [one, other, one, other])
			await actAs({ house, person: null }, async () => {
				assert.match(JSON.stringify(await workAt(db, one.step)), new RegExp(said));
				const { document: opened } = await openById(db, document);
				assert.match(JSON.stringify(opened.tables[0]!.content), new RegExp(said));
			});
	});
});
