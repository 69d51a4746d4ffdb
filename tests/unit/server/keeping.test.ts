import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import { sql, type Kysely } from 'kysely';
import { pageOf } from '../formats/pages.ts';
import { typed } from '../../../src/lib/core/work/cells.ts';
import { applyPatch, patchBetween } from '../../../src/lib/core/work/patch.ts';
import { emptyTable, type WorkTable } from '../../../src/lib/core/work/table.ts';
import type { Database } from '../../../src/lib/server/database.ts';
import { addDocument } from '../../../src/lib/server/documents/add.ts';
import { listDocuments, loadDocument } from '../../../src/lib/server/documents/list.ts';
import { putNewer } from '../../../src/lib/server/documents/newer.ts';
import { DOCUMENTS, documentRow } from '../../../src/lib/server/documents/rows.ts';
import { addStep, moveToStep } from '../../../src/lib/server/documents/steps.ts';
import { writeDocument } from '../../../src/lib/server/documents/writing.ts';
import { changeHouse, houseSteps, loadHouse, moveHouse } from '../../../src/lib/server/house/house.ts';
import { countBeyond, forgetSteps, setKeepingTime } from '../../../src/lib/server/house/keeping.ts';
import { listLog } from '../../../src/lib/server/house/log.ts';
import { sweep } from '../../../src/lib/server/house/store.ts';
import { addStyleStep, loadStyleSteps, saveStyle } from '../../../src/lib/server/styles/steps.ts';
import { listStyles, loadStyle } from '../../../src/lib/server/styles/styles.ts';
import { makeTable } from '../../../src/lib/server/tables/tables.ts';
import { addWorkStep, loadWork, moveWork } from '../../../src/lib/server/tables/work.ts';
import { anyState } from '../workbench/states.ts';
import { ownDatabase } from '../../database.ts';

const DAYS = 30;
type Steps = 'document_steps' | 'style_steps' | 'house_steps' | 'work_steps';

describe('steps beyond the keeping time of a house', () => {
	let db: Kysely<Database>;
	before(async () => {
		({ db } = await ownDatabase('demo'));
		await setKeepingTime(db, DAYS);
	});
	after(() => db.destroy());

	/** Some steps were made so many days ago. */
	const madeAgo = (steps: Steps, where: ReturnType<typeof sql>, days: number) =>
		sql`update ${sql.table(steps)} set created_at = now() - make_interval(secs => ${days * 86_400}) where ${where}`.execute(
			db
		);
	const numbers = async (id: string) => (await DOCUMENTS.list(db, id)).map(({ step }) => step);
	const inHouse = (change: (house: Awaited<ReturnType<typeof loadHouse>>) => Partial<{ locale: string }>) =>
		loadHouse(db).then((house) => {
			const { inks, typeRoles, locale, version } = house;
			return changeHouse(db, version, 'changed', { inks, typeRoles, locale, ...change(house) });
		});

	it('go, whatever the steps and their ages: what stands stays, and what undo of a younger one needs', async () => {
		const { id } = (await listDocuments(db)).documents[0]!;
		const began = await DOCUMENTS.stateAt(db, id, 0);
		const ages = fc
			.array(fc.nat({ max: 60 }), { minLength: 1, maxLength: 9 })
			.map((days) => days.sort((a, b) => b - a));
		await fc.assert(
			fc.asyncProperty(
				ages,
				fc.nat(),
				fc.array(anyState([]), { minLength: 9, maxLength: 9 }),
				async (ages, at, states) => {
					const stands = at % ages.length;
					const made = ages.map((_, i) => ({
						label: `step ${i}`,
						state: i ? JSON.parse(JSON.stringify({ ...states[i], tables: {} })) : began
					}));
					await DOCUMENTS.write(db, id, 0, made);
					await db.updateTable('documents').set({ step: stands, version: 0 }).where('id', '=', id).execute();
					for (const [i, days] of ages.entries())
						await madeAgo('document_steps', sql`document_id = ${id} and step = ${i}`, days + 0.5);
					const oldest = ages.findLastIndex((days, i) => days >= DAYS && i <= stands);
					const first = Math.max(0, oldest);
					const counted = await countBeyond(db, DAYS);
					assert.equal(await forgetSteps(db), counted);
					assert.equal(counted, first);
					assert.deepEqual(
						await numbers(id),
						made.flatMap((_, i) => (i < first ? [] : [i]))
					);
					for (const [i, { state }] of made.entries())
						if (i >= first) assert.deepEqual(await DOCUMENTS.stateAt(db, id, i), state);
						else await assert.rejects(moveToStep(db, id, 0, i), /no step/);
					const { step, version } = await documentRow(db, id);
					assert.deepEqual([step, version], [stands, 0], 'nobody who has it open is too late for that');
					assert.equal(await forgetSteps(db), 0, 'once is enough');
				}
			),
			{ numRuns: 30 }
		);
		await DOCUMENTS.write(db, id, 0, [{ label: 'as it was', state: began }]);
		await db.updateTable('documents').set({ step: 0 }).where('id', '=', id).execute();
	});

	it('stay where the house keeps them for good', async () => {
		await setKeepingTime(db, null);
		await inHouse(() => ({ locale: 'de-DE' }));
		await inHouse(() => ({ locale: 'fr-FR' }));
		await madeAgo('house_steps', sql`true`, 9_000);
		const before = await houseSteps(db);
		assert.equal(await forgetSteps(db), 0);
		assert.deepEqual(await houseSteps(db), before);
		await setKeepingTime(db, DAYS);
	});

	it('of styles and of the house go as those of documents do', async () => {
		const style = (await listStyles(db))[0]!.id;
		for (const description of ['one', 'two', 'three']) {
			const { definition } = await loadStyle(db, style);
			await db.transaction().execute((trx) => addStyleStep(trx, style, description, { ...definition, description }));
		}
		await inHouse(() => ({ locale: 'en-US' }));
		const { step } = await loadHouse(db);
		const { at } = await loadStyleSteps(db, style);
		await madeAgo('style_steps', sql`style_id = ${style} and step < ${at}`, DAYS + 1);
		await madeAgo('house_steps', sql`step < ${step}`, DAYS + 1);
		assert.equal(await forgetSteps(db), at - 1 + step - 1);

		const kept = await loadStyleSteps(db, style);
		assert.deepEqual([kept.first, kept.at, kept.steps.map(({ label }) => label)], [at - 1, at, ['two', 'three']]);
		await saveStyle(db, style, { version: kept.version, from: at + 1, at: at - 1, steps: [] });
		assert.equal((await loadStyle(db, style)).definition.description, 'two');

		const house = await loadHouse(db);
		assert.deepEqual(
			(await houseSteps(db)).map(({ step }) => step),
			[step - 1, step]
		);
		assert.equal((await moveHouse(db, house.version, step - 1)).locale, 'fr-FR');
		await assert.rejects(moveHouse(db, house.version + 1, step - 2), /no step/);
		assert.equal((await inHouse(() => ({ locale: 'de-DE' }))).step, step, 'it goes on from there');
	});

	it('of work on a table go: what is kept of it stands as before, and undo and redo go through what is left', async () => {
		const { document } = await makeTable(db, { name: 'Kept table', work: emptyTable(3, 3), wears: {} });
		const standing = async () => {
			const { base, steps, at } = await loadWork(db, document, 0);
			return steps.slice(0, at).reduce((work, { patch }) => applyPatch(work, patch), base);
		};
		let after: number | null = (await loadWork(db, document, 0)).from;
		const made: { readonly id: number; readonly work: WorkTable }[] = [];
		for (let i = 0; i < 50; i++) {
			const now = await standing();
			const next = typed(now, i % 3, (i + 1) % 3, `text ${i}`);
			after = (await addWorkStep(db, document, 0, { after, label: `edit ${i}`, patch: patchBetween(now, next) })).step;
			made.push({ id: after, work: next });
		}
		// A way that was left, then a new one from there.
		await moveWork(db, document, 0, made[49]!.id, made[45]!.id);
		const other = typed(await standing(), 0, 0, 'another way');
		const { step: last } = await addWorkStep(db, document, 0, {
			after: made[45]!.id,
			label: 'another way',
			patch: patchBetween(await standing(), other)
		});
		await madeAgo('work_steps', sql`id < ${last} and id <> ${made[45]!.id}`, DAYS + 2);
		await madeAgo('work_steps', sql`id = ${made[45]!.id}`, DAYS + 1);
		await madeAgo('document_steps', sql`document_id = ${document}`, DAYS + 1);
		const { steps } = await loadDocument(db, document);
		const before = await standing();
		assert.ok((await forgetSteps(db)) >= 49, `of ${steps.length} steps of the document and 52 of its table`);
		assert.deepEqual(await standing(), before);
		const left = await loadWork(db, document, 0);
		assert.deepEqual([left.from, left.steps.map(({ label }) => label)], [made[45]!.id, ['another way']]);
		assert.deepEqual(left.base, made[45]!.work, 'as it stood, whole');
		await moveWork(db, document, 0, last, made[45]!.id);
		assert.deepEqual(await standing(), made[45]!.work);
		await assert.rejects(moveWork(db, document, 0, made[45]!.id, made[44]!.id), /no step/);
		await moveWork(db, document, 0, made[45]!.id, last);
		assert.deepEqual(await standing(), before);
	});

	it('let go the files that only they stand on, and the log says what went', async () => {
		const { id } = await addDocument(db, 'rows.html', pageOf(['Plant|Bed', 'Royal fern|North']));
		const { version } = await documentRow(db, id);
		const newer = pageOf(['Plant|Bed', 'Lady fern|South']);
		const now = await putNewer(db, id, version, { name: 'rows.html', bytes: newer });
		await addStep(db, id, now.version, 'as a note', { 0: { roles: { 1: 'note' } } });
		const files = async () => (await db.selectFrom('files').select('hash').execute()).length;
		await db
			.updateTable('files')
			.set({ created_at: new Date(0) })
			.execute();
		await sweep(db);
		const [before, written] = [await files(), await writeDocument(db, id)];
		await madeAgo('document_steps', sql`document_id = ${id}`, DAYS + 1);
		assert.deepEqual(await sweep(db), { documents: 0, steps: 2, files: 1 });
		assert.equal(await files(), before - 1);
		assert.deepEqual((await writeDocument(db, id)).bytes, written.bytes);
		const [entry] = await listLog(db);
		assert.equal(entry!.words, '2 steps beyond the keeping time and 1 file that nothing stands on went for good');
	});
});
