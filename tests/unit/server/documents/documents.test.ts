import assert from 'node:assert/strict';
import { afterEach, beforeEach, describe, it } from 'node:test';
import { sql, type Kysely } from 'kysely';
import { loadDemo } from '../../../../demo/load.ts';
import { handbook } from '../../../../demo/documents/handbook.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { ConflictError, describeError, NotFoundError } from '../../../../src/lib/server/http/answers.ts';
import type { Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { addStep, moveToStep } from '../../../../src/lib/server/documents/steps.ts';
import { listDocuments, loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { archiveDocument, bringBackDocument, removeDocument } from '../../../../src/lib/server/documents/shelf.ts';
import { loadSpecimens } from '../../../../src/lib/server/styles/specimens.ts';
import { writeDocument } from '../../../../src/lib/server/documents/writing.ts';
import { readId, readRequest } from '../../../../src/lib/server/http/requests.ts';
import { loadStyleSteps, saveStyle } from '../../../../src/lib/server/styles/steps.ts';
import { createStyle, importStyle, listStyles, loadStyle } from '../../../../src/lib/server/styles/styles.ts';
import { removeStyle } from '../../../../src/lib/server/styles/removal.ts';
import { openById } from '../../../../src/lib/server/documents/open.ts';
import { impactOf } from '../../../../src/lib/server/runs/rollouts.ts';
import { shapeOf } from '../../../../src/lib/workbench/corrections.ts';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { openDrawing } from '../../../../src/lib/server/documents/record.ts';
import { frozenDraft, publishEdition } from '../../../../src/lib/server/styles/editions.ts';
import { keepStarter, listStarters, makeTable, takeOut } from '../../../../src/lib/server/tables/tables.ts';
import { addWorkStep, loadWork } from '../../../../src/lib/server/tables/work.ts';
import { mapTables, wornInstead, type DocumentState } from '../../../../src/lib/workbench/state.ts';
import { typed } from '../../../../src/lib/core/work/cells.ts';
import { patchBetween } from '../../../../src/lib/core/work/patch.ts';
import { emptyTable } from '../../../../src/lib/core/work/table.ts';
import { asOwner, ownDatabase } from '../../../database.ts';
import { docx, LEDGER, p, tbl, tr } from '../../formats/documents.ts';
import { loadStore, sweep } from '../../../../src/lib/server/house/store.ts';
import { unpackTable } from '../../../../src/lib/workbench/packed.ts';

describe('the server', () => {
	let db: Kysely<Database>;
	let url: string;
	beforeEach(async () => void ({ db, url } = await ownDatabase('demo')));
	afterEach(() => db.destroy());
	/** Saves a definition as the next step of a style. */
	const save = async (id: string, version: number, definition: unknown) => {
		const { at } = await loadStyleSteps(db, id);
		return saveStyle(db, id, { version, from: at + 1, at: at + 1, steps: [{ label: 'changed', definition }] });
	};
	const styleNamed = async (name: string) => (await listStyles(db)).find(({ definition }) => definition.name === name)!;
	const documentNamed = async (name: string) =>
		(await listDocuments(db)).documents.find((document) => document.name.startsWith(name))!;
	const code = (wanted: string) => (error: unknown) => error instanceof InputError && error.code === wanted;

	it('loads the demo house once', async () => {
		assert.equal(await loadDemo(db), false);
		assert.deepEqual((await listDocuments(db)).documents.map(({ tables }) => tables).sort(), [1, 1, 3, 3, 9, 9, 9]);
		assert.ok((await loadSpecimens(db, 5)).length === 5);
	});

	it('keeps steps, and goes back and forth among them', async () => {
		const { id } = await documentNamed('Season');
		const ledger = await styleNamed('Season Ledger');
		const first = await addStep(db, id, 0, 'ledger on table 1', { 0: { style: ledger.id } });
		assert.equal(first.step, 1);
		await addStep(db, id, 1, 'table 2 too', { 1: { style: ledger.id } });
		assert.equal((await documentNamed('Season')).styled, 2);
		assert.deepEqual((await moveToStep(db, id, 2, 1)).state.tables, { 0: { style: ledger.id, edition: 1 } });
		assert.equal((await styleNamed('Season Ledger')).worn.tables, 1);
		const branch = await addStep(db, id, 3, 'another way', { 2: { style: ledger.id } });
		assert.deepEqual(
			branch.steps.map(({ label }) => label),
			['as it came', 'ledger on table 1', 'another way'],
			'what was undone is gone'
		);
		await assert.rejects(addStep(db, id, 0, 'too late', {}), ConflictError);
		await assert.rejects(moveToStep(db, id, 4, 9), code('step'));
		await assert.rejects(addStep(db, id, 4, 'no such table', { 40: {} }), code('request'));
		await assert.rejects(
			addStep(db, id, 4, 'no such style', { 1: { style: '00000000-0000-0000-0000-000000000000' } }),
			code('request')
		);
		assert.equal((await loadDocument(db, id)).step, 2, 'a refused step leaves nothing behind');
	});

	it('writes what is worn, with corrections', async () => {
		const { id } = await documentNamed('Volunteers');
		const ledger = await styleNamed('Season Ledger');
		await addStep(db, id, 0, 'x', { 0: { style: ledger.id, roles: { 3: 'total' }, kinds: { 1: 'code' } } });
		const { bytes, account } = await writeDocument(db, id);
		assert.deepEqual(
			account.tables.map(({ differences }) => differences.length),
			[0]
		);
		const { tables } = await readDocx(bytes);
		assert.equal(tables[0]!.table.roles[3], 'total');
		assert.equal(tables[0]!.table.columnInfo[1]!.kind, 'code');
		const untouched = await documentNamed('Season');
		assert.deepEqual((await writeDocument(db, untouched.id)).account.tables, []);
	});

	it('takes back a file that it wrote, with the style, also into a house that lacks it', async () => {
		const { id } = await documentNamed('Volunteers');
		await addStep(db, id, 0, 'x', { 0: { style: (await styleNamed('Quiet Lines')).id } });
		const { bytes } = await writeDocument(db, id);
		const again = await addDocument(db, 'again.docx', bytes);
		assert.deepEqual(again.imported, []);
		assert.equal((await loadDocument(db, again.id)).state.tables[0]!.style, (await styleNamed('Quiet Lines')).id);
		await asOwner(url, (owner) => sql`truncate wears, document_steps, documents, styles cascade`.execute(owner));
		const elsewhere = await addDocument(db, 'elsewhere.docx', bytes);
		assert.deepEqual(elsewhere.imported, ['Quiet Lines']);
		assert.deepEqual(
			(await listStyles(db)).map(({ definition }) => definition.name),
			['House base', 'Quiet Lines']
		);
	});

	it('stores nothing of a file that cannot be used', async () => {
		const files = async () =>
			Number((await db.selectFrom('files').select(db.fn.countAll<string>().as('n')).executeTakeFirstOrThrow()).n);
		const before = await files();
		await assert.rejects(addDocument(db, 'bad.docx', new TextEncoder().encode('no zip')), code('not-a-package'));
		await assert.rejects(addDocument(db, 'empty.docx', new Uint8Array()), code('empty'));
		await assert.rejects(addDocument(db, 'huge.docx', new Uint8Array(51 * 2 ** 20)), code('too-large'));
		await assert.rejects(addDocument(db, 'plain.docx', await docx({ body: p('text') })), code('no-table'));
		assert.equal(await files(), before);
		assert.equal((await listDocuments(db)).documents.length, 7);
	});

	it('stores the same bytes once, and lets them go with the last document', async () => {
		const bytes = await handbook();
		const a = await addDocument(db, 'a.docx', bytes);
		const b = await addDocument(db, 'b.docx', bytes);
		const hash = (await db.selectFrom('documents').select('file_hash').where('id', '=', a.id).executeTakeFirstOrThrow())
			.file_hash;
		const stored = async () => (await db.selectFrom('files').select('hash').where('hash', '=', hash).execute()).length;
		assert.equal(await stored(), 1);
		const yesterday = (id: string) =>
			db
				.updateTable('documents')
				.set({ removed_at: new Date(Date.now() - 25 * 3_600_000) })
				.where('id', '=', id)
				.execute();
		await removeDocument(db, a.id);
		await yesterday(a.id);
		await removeDocument(db, b.id);
		await db
			.updateTable('files')
			.set({ created_at: new Date(Date.now() - 25 * 3_600_000) })
			.execute();
		assert.deepEqual(await sweep(db), { documents: 1, steps: 0, files: 0 });
		assert.equal(await stored(), 1, 'b can still be brought back');
		await assert.rejects(loadDocument(db, a.id), NotFoundError);
		await assert.rejects(bringBackDocument(db, a.id), NotFoundError);
		await yesterday(b.id);
		const { removed } = await loadStore(db);
		assert.deepEqual(removed, { documents: 1, bytes: bytes.length });
		assert.deepEqual(await sweep(db), { documents: 1, steps: 0, files: 1 });
		assert.equal(await stored(), 0);
	});
	it('has no more room than its operator lets it have, and makes room first', async () => {
		const { bytes } = await loadStore(db);
		process.env.HEPTARCH_STORE_MB = String((bytes + 10_000) / 2 ** 20);
		try {
			const { id } = await addDocument(db, 'small.docx', await docx({ body: tbl(LEDGER) }));
			const rows = new TextEncoder().encode(`Lot;Seed\n${'TX;Fern\n'.repeat(2_000)}`) as Uint8Array<ArrayBuffer>;
			const more = addDocument(db, 'more.csv', rows);
			await assert.rejects(more, code('no-room'));
			await removeDocument(db, id);
			assert.deepEqual((await loadStore(db)).most, Math.round(bytes + 10_000));
		} finally {
			delete process.env.HEPTARCH_STORE_MB;
		}
	});
	it('remembers corrections for the next table of the same shape', async () => {
		const rows = (...more: string[]) =>
			tbl([tr('Bed', 'Lot'), tr('North', '4711'), ...more.map((name) => tr(name, '12')), tr('Seen by', '3')]);
		const first = await addDocument(db, 'first.docx', await docx({ body: rows() }));
		const tables = (await loadDocument(db, first.id)).tables.map(unpackTable);
		const last = tables[0]!.table.rows - 1;
		await addStep(db, first.id, 0, 'corrected', { 0: { kinds: { 1: 'code' }, roles: { [last]: 'note' } } });
		const second = await addDocument(db, 'second.docx', await docx({ body: rows('South', 'East') }));
		const { state } = await loadDocument(db, second.id);
		assert.deepEqual(state.tables[0], { kinds: { 1: 'code' }, roles: { 4: 'note' } });
		const other = await addDocument(db, 'other.docx', await docx({ body: tbl(LEDGER) }));
		assert.equal((await loadDocument(db, other.id)).state.tables[0], undefined);
	});
	it('brings back what was taken out, with what its tables wear, and puts aside', async () => {
		const beacon = await styleNamed('Beacon');
		const { id } = await addDocument(db, 'brought back.docx', await docx({ body: tbl(LEDGER) }));
		await addStep(db, id, 0, 'Beacon', { 0: { style: beacon.id } });
		const found = async (query = {}) =>
			(await listDocuments(db, query)).documents.find((document) => document.id === id);
		assert.deepEqual((await found())!.wears, ['Beacon']);
		assert.ok(await found({ find: 'TOTAL' }));
		await removeDocument(db, id);
		assert.equal(await found(), undefined);
		await bringBackDocument(db, id);
		assert.deepEqual((await found())!.wears, ['Beacon']);
		await archiveDocument(db, id, true);
		assert.equal(await found(), undefined);
		assert.equal((await found({ archived: true }))!.archived, true);
		for (const kind of ['docx', 'odt', 'html', 'csv', 'json'] as const) {
			const written = await writeDocument(db, id, { to: kind });
			assert.equal(written.kind, kind);
			assert.ok(written.bytes.length > 10);
			assert.deepEqual(written.account.tables[0]!.differences, [], kind);
		}
		await removeDocument(db, id);
	});

	it('never saves one window’s style over another’s', async () => {
		const { id, version, definition } = await styleNamed('Beacon');
		const { version: saved } = await save(id, version, { ...definition, description: 'mine' });
		await assert.rejects(save(id, version, { ...definition, description: 'theirs' }), ConflictError);
		assert.equal((await loadStyle(db, id)).definition.description, 'mine');
		assert.equal((await save(id, saved, { ...definition, description: 'theirs, knowingly' })).version, saved + 1);
	});

	it('refuses styles that are not valid, names that are taken, circles', async () => {
		const { id, version, definition } = await styleNamed('House base');
		await assert.rejects(save(id, version, { ...definition, colour: 'red' }), code('style'));
		await assert.rejects(save(id, version, { ...definition, name: 'season ledger' }), code('name-taken'));
		await assert.rejects(
			save(id, version, { ...definition, basedOn: (await styleNamed('Season Ledger')).id }),
			code('base-cycle')
		);
		await assert.rejects(importStyle(db, { format: 'heptarch-style', version: 1, name: 'x' }), code('style'));
		assert.equal((await loadStyle(db, id)).version, version);
	});

	it('makes styles blank, as copies and on top of another', async () => {
		const ledger = await styleNamed('Season Ledger');
		const blank = await loadStyle(db, await createStyle(db));
		assert.deepEqual(blank.definition.parts, {});
		const copy = await loadStyle(db, await createStyle(db, { from: ledger.id, how: 'copy' }));
		assert.deepEqual(copy.definition.parts, ledger.definition.parts);
		const variant = await loadStyle(db, await createStyle(db, { from: ledger.id, how: 'inherit' }));
		assert.equal(variant.definition.basedOn, ledger.id);
		assert.equal(
			(await loadStyle(db, await createStyle(db, { from: ledger.id, how: 'inherit' }))).definition.name,
			'Season Ledger, variant 2'
		);
		const file = await frozenDraft(db, variant.id);
		assert.deepEqual(
			[file.basedOn, file.bases!.map(({ name }) => name)],
			['Season Ledger', ['Season Ledger', 'House base']]
		);
	});

	it('removes a style only with a replacement for its tables, which can be undone', async () => {
		const { id } = await documentNamed('Season');
		const beacon = await styleNamed('Beacon');
		const wall = await styleNamed('North Wall');
		await addStep(db, id, 0, 'x', { 0: { style: beacon.id }, 1: { style: wall.id } });
		await assert.rejects(removeStyle(db, beacon.id), code('worn'));
		await assert.rejects(removeStyle(db, (await styleNamed('House base')).id), /build on it/);
		await removeStyle(db, beacon.id, wall.id);
		const { state, steps, step, version } = await loadDocument(db, id);
		await assert.rejects(addStep(db, id, version - 1, 'from a window that saw the old style', {}), ConflictError);
		assert.equal(state.tables[0]!.style, wall.id);
		assert.equal(steps.at(-1)!.label, 'North Wall instead of Beacon');
		assert.equal(
			(await moveToStep(db, id, version, step - 1)).state.tables[0]!.style,
			wall.id,
			'the removed style stands nowhere any more'
		);
	});

	it('loses nothing else where a style is removed: not in the step that stands, not in older ones', async () => {
		const ledger = await styleNamed('Season Ledger');
		const beacon = await styleNamed('Beacon');
		await publishEdition(db, ledger.id, ledger.version, '');
		const documents = (await listDocuments(db)).documents.map(({ id }) => id);
		const drawing = await documentNamed('Path');
		const report = await documentNamed('Season');
		// Whatever a state can hold: a sheet's settings, attributes, a table put in, one taken out, work, what was undone.
		const sheet = await loadDocument(db, drawing.id);
		await addStep(
			db,
			drawing.id,
			sheet.version,
			'scale',
			{ 0: { ...sheet.state.tables[0], style: beacon.id } },
			{
				placed: (await openDrawing(db, drawing.id)).document.placed,
				sheet: { scale: 20 },
				attributes: { l1: { circuit: 'B' } }
			}
		);
		const made = await makeTable(db, {
			name: 'Made',
			work: emptyTable(3, 2),
			wears: { style: beacon.id },
			into: { document: report.id, after: 0, version: 0 }
		});
		await takeOut(db, report.id, 5, 1);
		const { step: first } = await addWorkStep(db, report.id, made.index, {
			after: (await loadWork(db, report.id, made.index)).from,
			label: 'typed',
			patch: patchBetween(emptyTable(3, 2), typed(emptyTable(3, 2), 1, 1, [{ runs: [{ text: 'kept' }] }]))
		});
		assert.ok(first);
		await keepStarter(db, {
			name: 'In Beacon',
			category: '',
			description: '',
			work: emptyTable(2, 2),
			wears: { style: beacon.id, partsOff: ['total'] }
		});
		const states = async () =>
			db
				.selectFrom('document_steps')
				.select(['document_id', 'step', 'state'])
				.orderBy('document_id')
				.orderBy('step')
				.execute();
		const before = await states();
		await removeStyle(db, beacon.id, ledger.id);
		const now = await states();
		const swapped = (state: DocumentState): DocumentState =>
			mapTables(state, (own) => wornInstead(own, beacon.id, { style: ledger.id, edition: 1 }));
		for (const { document_id, step, state } of before)
			assert.deepEqual(
				now.find((one) => one.document_id === document_id && one.step === step)?.state,
				swapped(state),
				`step ${step}`
			);
		for (const id of documents) {
			const { step, version, state } = await loadDocument(db, id);
			const standing = before.filter(({ document_id }) => document_id === id).at(-1)!;
			assert.deepEqual(state, swapped(standing.state));
			if (step > standing.step) await moveToStep(db, id, version, standing.step);
		}
		assert.deepEqual((await listStarters(db)).find(({ name }) => name === 'In Beacon')!.wears, {
			partsOff: ['total'],
			style: ledger.id,
			edition: 1
		});
		assert.equal((await loadWork(db, report.id, made.index)).steps.at(-1)!.label, 'typed');
		const everything = await sql<{ text: string }>`
			select string_agg(t::text, ' ') as text from (
				select to_jsonb(s) as t from document_steps s union all select to_jsonb(w) from work_steps w
				union all select to_jsonb(s) from starters s union all select to_jsonb(w) from wears w
			) all_of_them`.execute(db);
		assert.ok(!everything.rows[0]!.text.includes(beacon.id), 'it is named nowhere any more');
	});

	it('shows one table as broken where what was stored of it cannot be read, and all else as it was', async () => {
		const { id } = await documentNamed('Season');
		const ledger = await styleNamed('Season Ledger');
		const bad = { style: ledger.id, roles: { 1: 'group:165534' } };
		await addStep(db, id, 0, 'two of them', { 0: { style: ledger.id }, 1: { style: ledger.id } });
		await sql`update document_steps set state = jsonb_set(state, '{tables,1}', ${JSON.stringify(bad)}::jsonb)
			where document_id = ${id} and step = 1`.execute(db);
		await sql`insert into corrections (shape, said)
			select ${shapeOf((await openById(db, id)).document.tables[2]!.table)},
				${JSON.stringify({ roles: { glasshouse: 'group:165534', total: 'total:0' }, kinds: { 0: 'bogus' } })}::jsonb`.execute(
			db
		);

		const { state, tables } = await loadDocument(db, id);
		assert.deepEqual(state.tables[0], { style: ledger.id, edition: 1 });
		assert.match(state.tables[1]!.unreadable!.why, /^roles 1 is /);
		assert.equal(tables.length, 9);
		const { account } = await writeDocument(db, id);
		assert.deepEqual(
			account.tables.map(({ differences }) => differences.length),
			[0]
		);
		assert.ok((await loadSpecimens(db, 5)).length === 5);
		await impactOf(db, ledger.id);
		assert.ok((await addDocument(db, 'Again.docx', await seasonReport())).id, 'corrections of that shape stop nothing');

		const later = await addStep(db, id, 1, 'another one', { 3: { style: ledger.id } });
		assert.deepEqual(later.state.tables[1]!.unreadable!.stored, bad, 'nothing of it is lost by work on other tables');
		const anew = await addStep(db, id, 2, 'begun anew', { 1: {} });
		assert.deepEqual(anew.state.tables[1], {});
		assert.deepEqual((await moveToStep(db, id, 3, 2)).state.tables[1]!.unreadable!.stored, bad);
	});

	it('answers in one shape', async () => {
		assert.deepEqual(describeError(new InputError('worn', 'Text.', '/x')), {
			status: 409,
			body: { message: 'Text.', code: 'worn', where: '/x' }
		});
		assert.equal(describeError(new NotFoundError('Gone.'))!.status, 404);
		assert.equal(describeError(new Error('ours')), undefined);
		const request = (body: string, type = 'application/json') =>
			new Request('http://x', { method: 'POST', body, headers: { 'Content-Type': type } });
		await assert.rejects(readRequest(request('{'), 'newStep'), /not JSON/);
		await assert.rejects(readRequest(request('{}', 'text/plain'), 'newStep'), /media type/);
		await assert.rejects(readRequest(request('{"label": "a\\u0000"}'), 'newStep'), /at \/label/);
		await assert.rejects(readRequest(request('{"version":-1,"label":"x","tables":{}}'), 'newStep'), /\/version/);
		await assert.rejects(
			readRequest(request('{"version":0,"label":"x","tables":{"a":{}}}'), 'newStep'),
			code('request')
		);
		assert.throws(() => readId('1; drop table styles', 'style'), code('request'));
	});
});
