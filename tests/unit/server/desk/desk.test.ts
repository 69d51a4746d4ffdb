import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import type { Database } from '../../../../src/lib/server/database.ts';
import { loadDesk } from '../../../../src/lib/server/desk/desk.ts';
import { thumbnailsOf } from '../../../../src/lib/server/desk/thumbnails.ts';
import { previewRun } from '../../../../src/lib/server/runs/preview.ts';
import { removeDocument } from '../../../../src/lib/server/documents/shelf.ts';
import { addStep } from '../../../../src/lib/server/documents/steps.ts';
import { loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { listStyles, putStyleAside } from '../../../../src/lib/server/styles/styles.ts';
import { loadStyleSteps, saveStyle } from '../../../../src/lib/server/styles/steps.ts';
import { withLeafAt } from '../../../../src/lib/core/style/edit.ts';
import { ownDatabase } from '../../../database.ts';

describe('the Desk', () => {
	let db: Kysely<Database>;
	before(async () => void ({ db } = await ownDatabase('demo')));
	after(() => db.destroy());
	const named = async (name: string) => (await loadDesk(db)).recent.find((document) => document.name.startsWith(name));

	it('shows what was worked on last, as it looks now; a picture is made once for each version', async () => {
		const report = (await named('Season report 2031'))!;
		assert.ok(report.picture!.texts.flat().includes('Month'));
		const look = () => db.selectFrom('thumbnails').selectAll().where('document_id', '=', report.id).executeTakeFirst();
		const made = await look();
		await db
			.updateTable('thumbnails')
			.set({ picture: JSON.stringify({ ...made!.picture, title: 'kept' }) })
			.where('document_id', '=', report.id)
			.execute();
		assert.equal((await named('Season report 2031'))!.picture!.title, 'kept');
		const beacon = (await listStyles(db)).find(({ definition }) => definition.name === 'Beacon')!;
		const { version, state } = await loadDocument(db, report.id);
		await addStep(db, report.id, version, 'Beacon on table 1', {
			...state.tables,
			0: { ...state.tables[0], style: beacon.id }
		});
		const now = (await loadDesk(db)).recent[0]!;
		assert.deepEqual([now.id, now.label, now.styled], [report.id, 'Beacon on table 1', 1]);
		assert.notDeepEqual(now.picture!.looks, made!.picture!.looks, 'in the style that it wears');
	});
	it('says what waits: drafts that were changed since their edition, findings, drawings that went on', async () => {
		const before = await loadDesk(db);
		assert.ok(before.findings.length > 0);
		const beacon = (await listStyles(db)).find(({ definition }) => definition.name === 'Beacon')!;
		const { version, at } = await loadStyleSteps(db, beacon.id);
		const definition = withLeafAt(beacon.definition, 'ground', 'text.size', '12pt');
		await saveStyle(db, beacon.id, { version, from: at + 1, at: at + 1, steps: [{ label: 'x', definition }] });
		const waiting = async () => (await loadDesk(db)).unpublished.map(({ name, tables }) => [name, tables]);
		assert.deepEqual(await waiting(), [['Beacon', 1]]);
		await putStyleAside(db, beacon.id, true);
		assert.deepEqual(await waiting(), [], 'what is put aside waits for nobody');
	});
	it('says what is new, and nothing of what was removed', async () => {
		const { news, recent } = await loadDesk(db);
		assert.ok(news.some(({ what }) => what === 'edition' || what === 'document'));
		await removeDocument(db, recent[0]!.id);
		const after = await loadDesk(db);
		assert.ok(!after.recent.some(({ id }) => id === recent[0]!.id));
		assert.ok(!after.news.some(({ id }) => id === recent[0]!.id));
	});
	it('shows a table that was cleared as nothing but text', async () => {
		const report = (await named('Volunteers'))!;
		const { version } = await loadDocument(db, report.id);
		await addStep(db, report.id, version, 'nothing but text', { 0: { cleared: true } });
		const { picture } = (await named('Volunteers'))!;
		assert.ok(picture!.looks.every(({ fill, weight }) => fill === 'none' && weight !== 700));
		assert.deepEqual(picture!.lines.filter(Boolean), []);
	});
	it('shows what a run would do, and does nothing', async () => {
		const steps = () =>
			db
				.selectFrom('document_steps')
				.select(({ fn }) => fn.countAll().as('n'))
				.executeTakeFirst();
		const before = await steps();
		const styles = await listStyles(db);
		const ledger = styles.find(({ definition }) => definition.name === 'Season Ledger')!;
		const report = (await named('Season report 2031'))!;
		const preview = await previewRun(db, { style: ledger.id, documents: [report.id], carry: ['fill'] });
		assert.equal(preview.styles.length, styles.filter(({ aside }) => !aside).length);
		const [{ tables, more }] = preview.shown as [(typeof preview.shown)[number]];
		assert.deepEqual([tables.length, more], [4, 5]);
		assert.notDeepEqual(tables[0]!.after!.looks, tables[0]!.before.looks);
		const sizes = (one: (typeof tables)[number]['before']) => new Set(one.looks.map(({ size }) => size));
		assert.deepEqual(sizes(tables[0]!.after!), sizes(tables[0]!.before), 'only what is carried');
		assert.deepEqual(await steps(), before);
	});
	it('shows a document that cannot be read without a picture, beside the others', async () => {
		const { recent } = await loadDesk(db);
		const { id } = recent[0]!;
		await db.deleteFrom('thumbnails').execute();
		await db
			.insertInto('files')
			.values({ hash: 'torn', bytes: Buffer.from('no file'), size: 7 })
			.execute();
		await db.updateTable('documents').set({ file_hash: 'torn' }).where('id', '=', id).execute();
		assert.equal((await thumbnailsOf(db, [id])).get(id), null);
		const preview = await previewRun(db, { style: (await listStyles(db))[0]!.id, documents: [id, recent[1]!.id] });
		assert.equal(preview.shown.length, 1, 'the other is seen all the same');
		assert.ok((await loadDesk(db)).recent.some(({ picture }) => picture));
	});
});

describe('the Desk of a new house', () => {
	it('has nothing but the first steps', async () => {
		const { db } = await ownDatabase('empty');
		const { documents, styles, worn, recent, runs } = await loadDesk(db);
		assert.deepEqual([documents, styles, worn, recent, runs], [0, 0, false, [], []]);
		await db.destroy();
	});
});
