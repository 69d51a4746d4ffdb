import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { namedAmong } from '../../../../src/lib/server/census/among.ts';
import { judgeDocument, mendTables } from '../../../../src/lib/server/census/judged.ts';
import { Census } from '../../../../src/lib/server/census/keep.ts';
import {
	censusFacts,
	countRules,
	loadFindings,
	loadLooks,
	loadShare,
	loadVariations
} from '../../../../src/lib/server/census/read.ts';
import type { Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { removeDocument } from '../../../../src/lib/server/documents/shelf.ts';
import { addStep, moveToStep } from '../../../../src/lib/server/documents/steps.ts';
import { changeHouse, loadHouse } from '../../../../src/lib/server/house/house.ts';
import { connectDoor } from '../../../../src/lib/server/people/door.ts';
import { makePerson } from '../../../../src/lib/server/people/entrance.ts';
import { join, leave } from '../../../../src/lib/server/people/members.ts';
import { previewRun } from '../../../../src/lib/server/runs/preview.ts';
import { listRuns, startRun, undoRun, workOn, type RunJob } from '../../../../src/lib/server/runs/runs.ts';
import { addWorkStep, loadWork } from '../../../../src/lib/server/tables/work.ts';
import { patchBetween } from '../../../../src/lib/core/work/patch.ts';
import { touched } from '../../../../src/lib/core/work/touches.ts';
import { takeDaysFromSteps } from '../../../../migrations/0018-census.ts';
import { ownDatabase } from '../../../database.ts';
import { docx, LEDGER, tbl } from '../../formats/documents.ts';

describe('the census', () => {
	let db: Kysely<Database>;
	let url: string;
	let house: string;
	let census: Census;
	const errors: Error[] = [];
	before(async () => {
		({ db, url, house } = await ownDatabase('demo'));
		census = new Census(db, (error) => errors.push(error));
		await census.round();
	});
	after(async () => {
		assert.deepEqual(errors, []);
		await db.destroy();
	});
	const named = async (like: string) =>
		(
			await db
				.selectFrom('documents')
				.select('id')
				.where('name', 'like', `%${like}%`)
				.orderBy('created_at')
				.executeTakeFirstOrThrow()
		).id;
	const style = async (name: string) =>
		(await db.selectFrom('styles').select('id').where('name', '=', name).executeTakeFirstOrThrow()).id;
	const step = async (id: string, tables: Parameters<typeof addStep>[4]) =>
		addStep(db, id, (await loadDocument(db, id)).version, 'a step', tables);
	/** Does all of a run. */
	async function run(wish: Parameters<typeof startRun>[1]) {
		const jobs: RunJob[] = [];
		const { id } = await startRun(db, wish, async (more) => void jobs.push(...more));
		for (const job of jobs) await workOn(db, job);
		await census.round();
		return { id, jobs, items: (await listRuns(db, id))[0]!.items };
	}
	const want = async (...rules: object[]) => {
		const { inks, typeRoles, locale, version } = await loadHouse(db);
		const policy = { format: 'heptarch-policy', version: 1, rules };
		await changeHouse(db, version, 'policy', { inks, typeRoles, locale, policy });
	};

	it('counts every table once, in one group, and says what is left out', async () => {
		const facts = await censusFacts(db, {});
		const { rows } = await sql<{ tables: number }>`select sum(tables)::int as tables from documents`.execute(db);
		assert.equal(facts.tables + facts.layout, rows[0]!.tables);
		assert.equal(facts.waiting, 0);
		const { groups } = await loadLooks(db, {});
		assert.equal(
			groups.reduce((sum, group) => sum + group.tables, 0),
			facts.tables
		);
		for (const group of groups) {
			assert.ok(group.picture && group.spot && group.one, `group ${group.id}`);
			const among = await namedAmong(db, {}, { looks: [group.id] });
			assert.deepEqual([among.all, among.documents], [group.tables, group.documents]);
		}
		const { byKind, byDocument, byPerson } = await loadShare(db, {});
		for (const list of [byKind, byDocument, byPerson])
			assert.equal(
				list.reduce((sum, one) => sum + one.tables, 0),
				facts.tables
			);
	});
	it('is of what is asked for: a kind, some documents', async () => {
		const id = await named('Season report');
		assert.deepEqual(
			(await loadShare(db, { documents: [id] })).byDocument.map((one) => one.id),
			[id]
		);
		assert.ok((await loadShare(db, { kind: 'odt' })).byDocument.every(({ kind }) => kind === 'odt'));
	});
	it('is told by person, as each worked on a document last; people who left are named, too', async () => {
		const id = await named('Season report');
		const door = connectDoor(url);
		const una = await makePerson(door, 'Una');
		await join(door, house, una, 'author');
		const before = await loadShare(db, { documents: [id] });
		assert.equal(before.byPerson.length, 1);
		await sql`update document_steps set made_by = ${una} where document_id = ${id}`.execute(db);
		const { tables, styled } = before.byPerson[0]!;
		const hers = [{ name: 'Una', documents: 1, tables, styled }];
		assert.deepEqual((await loadShare(db, { documents: [id] })).byPerson, hers);
		await leave(door, house, una, null);
		assert.deepEqual((await loadShare(db, { documents: [id] })).byPerson, hers);
		await door.destroy();
	});
	it('follows what is worn, and comes back with undo', async () => {
		const id = await named('Season report');
		const before = await loadShare(db, {});
		const sizes = async () => (await loadLooks(db, {})).groups.map(({ tables }) => tables).sort();
		const looked = await sizes();
		const beacon = await style('Beacon');
		const { step: at } = await loadDocument(db, id);
		await step(id, { 0: { style: beacon }, 3: { style: beacon } });
		assert.equal((await censusFacts(db, {})).waiting, 1);
		assert.equal(await census.round(), 1);
		const after = await loadShare(db, {});
		const styled = ({ byKind }: typeof after) => byKind.reduce((sum, one) => sum + one.styled, 0);
		assert.equal(styled(after), styled(before) + 2);
		assert.equal(after.days.at(-1)!.styled, styled(after));
		const { groups } = await loadLooks(db, {});
		const worn = groups.find(({ wears }) => wears.some(({ name }) => name === 'Beacon'))!;
		assert.deepEqual([worn.nearest?.name, worn.tables], ['Beacon', 2], 'one style is one look');
		await moveToStep(db, id, (await loadDocument(db, id)).version, at);
		await census.round();
		assert.deepEqual((await loadShare(db, {})).byKind, before.byKind);
		assert.deepEqual(await sizes(), looked);
	});
	it('is kept by several workers, each document by one of them', async () => {
		await db.updateTable('documents').set({ counted_at: null }).execute();
		const { documents } = await censusFacts(db, {});
		const before = await loadShare(db, {});
		const counts = await Promise.all([census.round(), new Census(db, (error) => errors.push(error)).round()]);
		assert.equal(counts[0] + counts[1], documents);
		assert.deepEqual(await loadShare(db, {}), before);
	});
	it('keeps no look and no value that nobody has', async () => {
		const body = tbl(LEDGER).replaceAll('<w:tc>', '<w:tc><w:tcPr><w:shd w:val="clear" w:fill="123ABC"/></w:tcPr>');
		const { id } = await addDocument(db, 'gone.docx', await docx({ body }));
		await census.round();
		const unused = async () => {
			const { rows } = await sql<{ unused: number }>`
				select (select count(*) from census_looks l
					where not exists (select from census_tables t where t.look = l.id)
						and not exists (select from census_looks f where f.leader = l.id))::int
					+ (select count(*) from census_values v
						where not exists (select from census_tables t where v.id = any(t.shows)))::int as unused`.execute(db);
			return rows[0]!.unused;
		};
		assert.equal(
			(await loadVariations(db, {}))
				.find(({ setting }) => setting === 'header fill')!
				.values.some(({ ink }) => ink === '#123ABC'),
			true
		);
		// As it goes for good, a day after it was taken out.
		await db.deleteFrom('documents').where('id', '=', id).execute();
		assert.ok((await unused()) > 0);
		await new Census(db).round();
		assert.equal(await unused(), 0);
	});
	it('draws a group anew when the document of its picture goes', async () => {
		const [first, second] = await Promise.all(
			['a', 'b'].map(async (name) => {
				const body = tbl(LEDGER).replace('Seed', `Seed ${name}`);
				return (await addDocument(db, `${name}.docx`, await docx({ body }))).id;
			})
		);
		await census.round();
		const groupOf = async (id: string) => (await loadLooks(db, { documents: [id] })).groups[0]!;
		const group = await groupOf(first!);
		assert.equal((await groupOf(second!)).id, group.id);
		const { picture_of } = await db
			.selectFrom('census_looks')
			.select('picture_of')
			.where('id', '=', group.id)
			.executeTakeFirstOrThrow();
		await removeDocument(db, picture_of!);
		const again = new Census(db);
		for (let i = 0; i < 2; i++) await again.round();
		const other = await db.selectFrom('census_looks').selectAll().where('id', '=', group.id).executeTakeFirstOrThrow();
		assert.ok(other.picture && other.picture_of && other.picture_of !== picture_of);
		for (const id of [first!, second!]) if (id !== picture_of) await removeDocument(db, id);
	});
	it('names a document that cannot be counted, and counts the others', async () => {
		const { id } = await addDocument(db, 'torn.docx', await docx({ body: tbl(LEDGER) }));
		await db
			.insertInto('files')
			.values({ hash: 'torn', bytes: Buffer.from('no file'), size: 7 })
			.execute();
		await db.updateTable('documents').set({ file_hash: 'torn', stands_on: null }).where('id', '=', id).execute();
		await census.round();
		const { faults, waiting } = await censusFacts(db, {});
		assert.deepEqual([faults.map((fault) => fault.id), waiting], [[id], 0]);
		assert.match(faults[0]!.why, /not|cannot|no /);
		await removeDocument(db, id);
	});
	it('brings a setting to a value in a run, and the run can be taken back', async () => {
		const variations = await loadVariations(db, {});
		const fills = variations.find(({ setting }) => setting === 'header fill')!;
		assert.ok(fills.all > 3);
		const to = fills.values.find(({ value }) => value !== '"none"')!;
		const from = fills.values.filter(({ value }) => value !== to.value).map(({ value }) => value);
		const wish = {
			bring: { setting: fills.setting, value: to.value },
			among: { setting: fills.setting, values: from }
		};
		const preview = await previewRun(db, wish);
		assert.match(preview.name, /^fill of header rows: #/);
		const [shown] = preview.shown[0]!.tables;
		assert.notDeepEqual(shown!.after!.looks, shown!.before.looks);
		const { id, items } = await run(wish);
		assert.ok(
			items.every(({ state }) => state === 'done'),
			JSON.stringify(items)
		);
		const after = (await loadVariations(db, {})).find(({ setting }) => setting === fills.setting);
		// Rows have no looks of their own to be written: everything else is of one fill.
		assert.equal(after, undefined);
		await undoRun(db, id);
		await census.round();
		assert.deepEqual(
			(await loadVariations(db, {})).find(({ setting }) => setting === fills.setting)!.values,
			fills.values
		);
	});
	it('takes no value that no table shows, whatever is sent', async () => {
		for (const value of ['{"a":1}', '"#ABCDEF"', 'null', '[', '7'])
			await assert.rejects(
				run({ bring: { setting: 'header fill', value }, among: { looks: [(await loadLooks(db, {})).groups[0]!.id] } }),
				/No table shows|no value/,
				value
			);
	});
	it('gives the tables of a look a style, and no others', async () => {
		const { groups } = await loadLooks(db, {});
		const group = groups.find(({ wears }) => !wears.length)!;
		const quiet = await style('Quiet Lines');
		const { id } = await run({ style: quiet, among: { looks: [group.id] } });
		const worn = await db.selectFrom('wears').selectAll().where('style_id', '=', quiet).execute();
		assert.equal(worn.length, group.tables);
		await undoRun(db, id);
		await census.round();
	});
	it('counts what each rule would flag, as judging each table does', async () => {
		await want(
			{ rule: 'wears-style', level: 'must', styles: ['Season Ledger'] },
			{ rule: 'contrast', level: 'warning', least: 7 },
			{ rule: 'figures-aligned', level: 'wish' },
			{ rule: 'totals-right', level: 'must' },
			{ rule: 'caption', level: 'wish' }
		);
		const { policy } = await loadHouse(db);
		assert.deepEqual(policy!.rules[0]!.styles, [await style('Season Ledger')], 'by its id');
		const { counts } = await countRules(db);
		const documents = await db.selectFrom('documents').select('id').where('removed_at', 'is', null).execute();
		const judged = await Promise.all(documents.map(({ id }) => judgeDocument(db, id)));
		for (const { rule } of policy!.rules)
			assert.equal(
				judged.flatMap(({ tables }) => tables.filter(({ faults }) => faults.some((one) => one.rule === rule))).length,
				counts[rule]!.tables,
				rule
			);
		assert.ok(counts['wears-style']!.tables > 10);
	});
	it('keeps a rule in a run, and takes it back', async () => {
		const flagged = (await countRules(db)).counts['figures-aligned']!;
		assert.ok(flagged.tables > 0);
		const { id, items } = await run({ mend: 'figures-aligned', among: { rule: 'figures-aligned' } });
		assert.equal(items.length, flagged.documents);
		assert.equal((await countRules(db)).counts['figures-aligned']!.tables, 0);
		await undoRun(db, id);
		await census.round();
		assert.deepEqual((await countRules(db)).counts['figures-aligned'], flagged);
	});
	it('puts one table right as a step, a table of the bench among them', async () => {
		const id = await named('Season report');
		const { tables } = await judgeDocument(db, id);
		const index = tables.find(({ faults }) => faults.some(({ rule }) => rule === 'figures-aligned'))!.index;
		const isHeld = async () =>
			(await judgeDocument(db, id)).tables.some(
				(one) => one.index === index && one.faults.some(({ rule }) => rule === 'figures-aligned')
			);
		// Somebody works on it at the bench first.
		const { base } = await loadWork(db, id, index);
		const patch = patchBetween(base, touched(base, [{ r: 0, c: 0 }], [['text.italic', true]]));
		await addWorkStep(db, id, index, { after: null, label: 'italic', patch });
		assert.ok(await isHeld());
		const before = await loadDocument(db, id);
		await mendTables(db, id, { version: before.version, rule: 'figures-aligned', tables: [index] });
		assert.equal(await isHeld(), false);
		const after = await loadDocument(db, id);
		assert.notEqual(after.state.tables[index]!.work, before.state.tables[index]!.work);
		assert.equal(after.steps.at(-1)!.label, 'policy: Figures stand at the end of their cells');
		await moveToStep(db, id, after.version, before.step);
		assert.ok(await isHeld());
		await assert.rejects(
			mendTables(db, id, { version: before.version, rule: 'figures-aligned', tables: [index] }),
			/changed/
		);
	});
	it('says which styles of a policy are gone', async () => {
		await want({ rule: 'wears-style', level: 'must', styles: ['Old Ledger'] });
		const judged = await judgeDocument(db, await named('Season report'));
		assert.equal(judged.rules[0]!.wanted, 'Tables wear “Old Ledger”.');
		assert.equal(judged.rules[0]!.mend, null, 'nothing that is here can be given');
		const report = await named('Season report');
		const { version } = await loadDocument(db, report);
		await assert.rejects(mendTables(db, report, { version, rule: 'wears-style', tables: [0] }), /nothing to put right/);
		await assert.rejects(run({ mend: 'wears-style', among: { rule: 'wears-style' } }), /say which/);
		await assert.rejects(want({ rule: 'contrast', level: 'must', least: 40 }), /21|least/);
		await assert.rejects(want({ rule: 'wishes', level: 'must' }), /rule/);
	});
	it('names a document that ended its worker each time, and waits for it no more', async () => {
		const id = await named('Volunteers');
		await sql`update documents set counted_at = null, count_tries = 3, count_begun = now() - interval '5 minutes'
			where id = ${id}`.execute(db);
		await new Census(db).round();
		const { faults, waiting } = await censusFacts(db, {});
		assert.deepEqual([faults.map((fault) => fault.id), waiting], [[id], 0]);
		const { version } = await loadDocument(db, id);
		await addStep(db, id, version, 'changed', { 0: {} });
		await census.round();
		assert.deepEqual((await censusFacts(db, {})).faults, [], 'once it is another, it is tried again');
	});
	it('lists findings by kind and document', async () => {
		const { byKind, byDocument, days } = await loadFindings(db, {});
		const sum = (list: readonly { readonly count: number }[]) => list.reduce((all, { count }) => all + count, 0);
		assert.equal(sum(byKind), sum(byDocument));
		assert.equal(days.at(-1)!.findings, sum(byKind));
		const among = await namedAmong(db, {}, { finding: byKind[0]!.kind });
		assert.equal(among.all, byKind[0]!.tables);
	});
	it('knows of the days before it was there what steps say', async () => {
		const id = await named('web page');
		const beacon = await style('Beacon');
		await step(id, { 0: { style: beacon }, 1: { style: beacon } });
		await sql`update document_steps set created_at = '2026-03-05'`.execute(db);
		const own = db as unknown as Kysely<unknown>;
		await sql`delete from census_days`.execute(db);
		await takeDaysFromSteps(own);
		const { days } = await loadShare(db, {});
		assert.deepEqual(
			days.map(({ day, findings }) => [day, findings]),
			[['2026-03-05', null]]
		);
		const { rows } = await sql<{ styled: number }>`select sum(styled)::int as styled from documents
			where removed_at is null`.execute(db);
		assert.equal(days[0]!.styled, rows[0]!.styled);
		await new Census(db).round();
		assert.equal((await censusFacts(db, {})).waiting, 0);
	});
});
