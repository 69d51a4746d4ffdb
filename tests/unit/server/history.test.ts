import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import fc from 'fast-check';
import type { Kysely } from 'kysely';
import { pushed, type Line } from '../../../src/lib/core/history.ts';
import type { Database } from '../../../src/lib/server/database.ts';
import { DOCUMENTS, documentRow } from '../../../src/lib/server/documents/rows.ts';
import { listDocuments } from '../../../src/lib/server/documents/list.ts';
import { moveToStep } from '../../../src/lib/server/documents/steps.ts';
import { changeHouse, houseSteps, loadHouse, moveHouse } from '../../../src/lib/server/house/house.ts';
import { ConflictError } from '../../../src/lib/server/http/answers.ts';
import type { DocumentState } from '../../../src/lib/workbench/state.ts';
import { anyState } from '../workbench/states.ts';
import { ownDatabase } from '../../database.ts';

describe('the history of what is worked on', () => {
	let db: Kysely<Database>;
	before(async () => void ({ db } = await ownDatabase('demo')));
	after(() => db.destroy());

	const op = fc.oneof(
		fc.record({
			do: fc.constant('add' as const),
			label: fc.string({ minLength: 1, maxLength: 9, unit: 'grapheme' }),
			state: anyState([])
		}),
		fc.record({ do: fc.constant('stand' as const), at: fc.nat({ max: 99 }) }),
		fc.record({ do: fc.constant('late' as const), by: fc.integer({ min: 1, max: 3 }) })
	);

	it('gives every state back whole, at any step, and refuses whoever saw another version', async () => {
		const { id } = (await listDocuments(db)).documents[0]!;
		await fc.assert(
			fc.asyncProperty(fc.array(op, { maxLength: 12 }), async (ops) => {
				await db.deleteFrom('document_steps').where('document_id', '=', id).where('step', '>', 0).execute();
				await db.updateTable('documents').set({ step: 0, version: 0 }).where('id', '=', id).execute();
				const [began] = await DOCUMENTS.list(db, id);
				let line: Line<{ label: string; state: DocumentState | null }> = {
					steps: [{ label: began!.label, state: await DOCUMENTS.stateAt(db, id, 0) }],
					at: 0
				};
				let version = 0;
				for (const one of ops)
					if (one.do === 'add') {
						const label = one.label.replace(/\0/g, '·');
						const state = JSON.parse(JSON.stringify(one.state)) as DocumentState;
						await db.transaction().execute(async (trx) => {
							const standing = await DOCUMENTS.lock(trx, id, version);
							await DOCUMENTS.add(trx, id, standing, label, state);
						});
						line = pushed(line, { label, state });
						version++;
					} else if (one.do === 'stand') {
						const at = one.at % line.steps.length;
						await db.transaction().execute(async (trx) => {
							await DOCUMENTS.lock(trx, id, version);
							version = await DOCUMENTS.stand(trx, id, at);
						});
						line = { ...line, at };
					} else
						await assert.rejects(
							db.transaction().execute((trx) => DOCUMENTS.lock(trx, id, version + one.by)),
							(error: unknown) => {
								assert.ok(error instanceof ConflictError);
								const {
									step,
									version: now,
									last
								} = error.current as Awaited<ReturnType<typeof DOCUMENTS.lock>> & {
									last: { label: string };
								};
								assert.deepEqual([step, now, last.label], [line.at, version, line.steps[line.at]!.label]);
								return true;
							}
						);
				const row = await documentRow(db, id);
				assert.deepEqual([row.step, row.version], [line.at, version]);
				const listed = await DOCUMENTS.list(db, id);
				assert.deepEqual(
					listed.map(({ step, label }) => [step, label]),
					line.steps.map(({ label }, step) => [step, label])
				);
				for (const { when, by } of listed) assert.deepEqual([by, Number.isNaN(Date.parse(when))], [null, false]);
				for (const [step, { state }] of line.steps.entries())
					assert.deepEqual(await DOCUMENTS.stateAt(db, id, step), state);
			}),
			{ numRuns: 40 }
		);
	});

	it('lets one of two who save at once save, and tells the other', async () => {
		const { id } = (await listDocuments(db)).documents[1]!;
		const { version, step } = await documentRow(db, id);
		const both = await Promise.allSettled([moveToStep(db, id, version, step), moveToStep(db, id, version, step)]);
		assert.deepEqual(both.map(({ status }) => status).sort(), ['fulfilled', 'rejected']);
		const refused = both.find(({ status }) => status === 'rejected') as PromiseRejectedResult;
		assert.ok(refused.reason instanceof ConflictError);
	});

	it('a window that saw a step which was undone and made anew does not overwrite the new one', async () => {
		const { id } = (await listDocuments(db)).documents[2]!;
		const add = async (seen: number, label: string) =>
			db.transaction().execute(async (trx) => {
				const standing = await DOCUMENTS.lock(trx, id, seen);
				return DOCUMENTS.add(trx, id, standing, label, await DOCUMENTS.stateAt(trx, id, standing.step));
			});
		const seen = await add((await documentRow(db, id)).version, 'seen by both');
		const back = await moveToStep(db, id, seen.version, seen.step - 1);
		const anew = await add(back.version, 'another one');
		assert.equal(anew.step, seen.step, 'the same number');
		await assert.rejects(add(seen.version, 'too late'), /another one/);
	});

	it('of the house goes to any step at once, with the styles that each changed', async () => {
		const labels = ['one', 'two', 'three'];
		let house = await loadHouse(db);
		const began = house.locale;
		for (const [i, locale] of ['de-DE', 'fr-FR', 'en-US'].entries()) {
			const { inks, typeRoles } = house;
			house = await changeHouse(db, house.version, labels[i]!, { inks, typeRoles, locale });
		}
		const steps = await houseSteps(db);
		assert.deepEqual(
			steps.slice(-3).map(({ label }) => label),
			labels
		);
		const first = await moveHouse(db, house.version, house.step - 3);
		assert.equal(first.locale, began);
		const last = await moveHouse(db, first.version, house.step);
		assert.equal(last.locale, 'en-US');
		assert.equal((await moveHouse(db, last.version, house.step - 1)).locale, 'fr-FR');
	});
});
