import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { seasonReportHtml, seasonReportOdt } from '../../../../demo/documents/twins.ts';
import type { Table } from '../../../../src/lib/core/table/grid.ts';
import { typed } from '../../../../src/lib/core/work/cells.ts';
import { insertRows } from '../../../../src/lib/core/work/lines.ts';
import { touched } from '../../../../src/lib/core/work/touches.ts';
import { applyPatch, patchBetween } from '../../../../src/lib/core/work/patch.ts';
import { emptyTable, withCells, type WorkTable } from '../../../../src/lib/core/work/table.ts';
import { tableOf } from '../../../../src/lib/core/work/convert.ts';
import { openDocument } from '../../../../src/lib/formats/index.ts';
import type { SvgDocument } from '../../../../src/lib/formats/svg/read.ts';
import { drawOn } from '../../../../src/lib/formats/svg/write.ts';
import { emu } from '../../../../src/lib/core/units.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { addStep, moveToStep } from '../../../../src/lib/server/documents/steps.ts';
import { listDocuments, loadDocument } from '../../../../src/lib/server/documents/list.ts';
import { worksRewritten, workAt } from '../../../../src/lib/server/documents/replay.ts';
import { openById } from '../../../../src/lib/server/documents/open.ts';
import {
	keepStarter,
	listStarters,
	changeStarter,
	removeStarter,
	makeTable,
	placeIn,
	takeOut
} from '../../../../src/lib/server/tables/tables.ts';
import { addWorkStep, loadWork, moveWork } from '../../../../src/lib/server/tables/work.ts';
import { writeDocument } from '../../../../src/lib/server/documents/writing.ts';
import { ownDatabase } from '../../../database.ts';

const { db } = await ownDatabase('empty');
after(() => db.destroy());

/** The table as its work stands, made again from what the server keeps. */
async function standing(id: string, index = 0): Promise<WorkTable> {
	const { base, steps, at } = await loadWork(db, id, index);
	return steps.slice(0, at).reduce((work, { patch }) => applyPatch(work, patch), base);
}
const text = (work: WorkTable, r: number, c: number) =>
	tableOf(work).cells.find((cell) => cell.r === r && cell.c === c)?.text;

/** Edits a table as the bench does, one step after the other. */
async function edit(id: string, from: number | null, work: WorkTable, changes: ((work: WorkTable) => WorkTable)[]) {
	let [after, now] = [from, work];
	const steps: number[] = [];
	for (const change of changes) {
		const next = change(now);
		const { step } = await addWorkStep(db, id, 0, {
			after,
			label: `edit ${steps.length + 1}`,
			patch: patchBetween(now, next)
		});
		steps.push(step);
		[after, now] = [step, next];
	}
	return { steps, now };
}

describe('work on a table', () => {
	let id: string;
	before(async () => {
		({ document: id } = await makeTable(db, { name: 'Kept table', work: emptyTable(4, 3), wears: {} }));
	});

	it('is what another process wrote anew, not what this one remembers', async () => {
		const { document } = await makeTable(db, { name: 'Written anew', work: emptyTable(2, 2), wears: {} });
		const {
			steps: [step]
		} = await edit(document, null, await standing(document), [
			(work) => typed(work, 0, 0, [{ runs: [{ text: 'before' }] }])
		]);
		assert.equal(text(await workAt(db, step!), 0, 0), 'before');
		const anew = typed(emptyTable(2, 2), 0, 0, [{ runs: [{ text: 'anew' }] }]);
		await db.transaction().execute(async (trx) => {
			await trx
				.updateTable('work_steps')
				.set({ whole: JSON.stringify(anew), patch: null })
				.where('id', '=', step!)
				.execute();
			assert.equal(text(await workAt(db, step!), 0, 0), 'before', 'it is not committed yet');
			await worksRewritten(trx);
		});
		assert.equal(text(await workAt(db, step!), 0, 0), 'anew');
	});

	it('is kept step by step, however many, and undone and done again', async () => {
		const start = await standing(id);
		const { steps, now } = await edit(
			id,
			null,
			start,
			Array.from({ length: 95 }, (_, i) => (work) => typed(work, 1 + (i % 3), i % 3, `text ${i}`))
		);
		assert.deepEqual(tableOf(await standing(id)), tableOf(now));
		await moveWork(db, id, 0, steps.at(-1)!, steps[10]!);
		const back = await loadWork(db, id, 0);
		assert.equal(back.steps.length - back.at, 84, 'what was undone can be done again');
		assert.equal(text(await standing(id), 2, 1), 'text 10');
		await moveWork(db, id, 0, steps[10]!, steps.at(-1)!);
		assert.deepEqual(tableOf(await standing(id)), tableOf(now));
		const { documents } = await listDocuments(db, { find: 'text 94' });
		assert.ok(documents.some((one) => one.id === id));
	});

	it('goes another way after an undo, and neither way is lost to older states of the document', async () => {
		const { steps, at } = await loadWork(db, id, 0);
		const from = steps[at - 1]!.id;
		const work = await standing(id);
		const { document } = { document: await loadDocument(db, id) };
		await addStep(db, id, document.version, 'a step of the document', { 0: { ...document.state.tables[0] } });
		await edit(id, from, work, [(now) => insertRows(now, 2, 1)]);
		assert.equal((await standing(id)).rows.length, work.rows.length + 1);
		const now = await loadDocument(db, id);
		await moveToStep(db, id, now.version, now.step - 1);
		assert.deepEqual(tableOf(await standing(id)), tableOf(work), 'the document is what it was, its work, too');
	});

	it('saves an edit once that comes again since its answer was lost, and goes on from there', async () => {
		const { document } = await makeTable(db, { name: 'Sent twice', work: emptyTable(3, 2), wears: {} });
		const start = await standing(document);
		const one = typed(start, 1, 0, 'first');
		const two = typed(one, 1, 1, 'second');
		const first = { after: null, label: 'first', patch: patchBetween(start, one) };
		const saved = await addWorkStep(db, document, 0, first);
		assert.ok(saved.root !== null);
		assert.deepEqual(await addWorkStep(db, document, 0, first), saved);
		const second = { after: saved.step, label: 'second', patch: patchBetween(one, two) };
		const next = await addWorkStep(db, document, 0, second);
		assert.deepEqual(await addWorkStep(db, document, 0, first), saved, 'also when more was saved since');
		assert.deepEqual(await addWorkStep(db, document, 0, second), next);
		assert.equal((await loadWork(db, document, 0)).steps.length, 2);
		assert.equal(text(await standing(document), 1, 1), 'second');
		// Another edit of the same row from there is somebody else's.
		const other = { ...second, patch: patchBetween(one, typed(one, 1, 1, 'another')) };
		await assert.rejects(addWorkStep(db, document, 0, other), /changed in another window/);
	});

	it('refuses what does not follow from where the table stands, and what leaves no table', async () => {
		const work = await standing(id);
		const { steps, at } = await loadWork(db, id, 0);
		const stands = steps[at - 1]!.id;
		const patch = patchBetween(work, typed(work, 1, 1, 'late'));
		await assert.rejects(
			addWorkStep(db, id, 0, { after: stands - 1, label: 'late', patch }),
			/changed in another window/
		);
		await assert.rejects(
			addWorkStep(db, id, 0, {
				after: stands,
				label: 'torn',
				patch: { order: [[1, 2]], rows: [{ ...work.rows[0]!, cells: [] }] }
			}),
			/no whole table/
		);
		await assert.rejects(moveWork(db, id, 0, stands, 999_999), /no step/);
		assert.deepEqual(tableOf(await standing(id)), tableOf(work), 'nothing was half stored');
	});

	it('is not put back by somebody who saves the document as he saw it before', async () => {
		const { document } = await makeTable(db, { name: 'Seen before', work: emptyTable(3, 2), wears: {} });
		const start = await standing(document);
		const { steps, now } = await edit(document, null, start, [(work) => typed(work, 1, 0, 'first')]);
		const seen = await loadDocument(db, document);
		const later = await addWorkStep(db, document, 0, {
			after: steps[0]!,
			label: 'second',
			patch: patchBetween(now, typed(now, 1, 1, 'second'))
		});
		await assert.rejects(
			addStep(db, document, seen.version, 'parts', { 0: { ...seen.state.tables[0], partsOff: ['rowBand'] } }),
			/worked on in another window/
		);
		await assert.rejects(
			addStep(db, document, seen.version, 'parts', { 0: { partsOff: ['rowBand'] } }),
			/worked on in another window/
		);
		assert.equal(text(await standing(document), 1, 1), 'second');
		await addStep(db, document, seen.version, 'parts', { 0: { work: later.step, partsOff: ['rowBand'] } });
		assert.equal(text(await standing(document), 1, 1), 'second');
	});

	it('of a document is in its file, in its own format and in others, and gone with the document’s undo', async () => {
		const { id: report } = await addDocument(db, 'report.docx', await seasonReport());
		const start = await standing(report);
		await edit(report, null, start, [(work) => insertRows(work, 2, 1), (work) => typed(work, 2, 0, 'Leap day')]);
		const has = async (to?: 'odt') => {
			const { bytes, kind } = await writeDocument(db, report, { to });
			const { tables } = await openDocument(bytes, `x.${kind}`);
			return tables[0]!.table.cells.some((cell) => cell.text === 'Leap day');
		};
		assert.ok(await has());
		assert.ok(await has('odt'));
		const loaded = await loadDocument(db, report);
		assert.equal(loaded.steps.length, 2, 'a stay at the bench is one step of the document');
		await moveToStep(db, report, loaded.version, 0);
		assert.equal(await has(), false);
	});

	it('is touched without a style, and the file takes the touches over the look that it came with', async () => {
		const { id: report } = await addDocument(db, 'touched report.docx', await seasonReport());
		const look = async () => {
			const { bytes, kind, account } = await writeDocument(db, report);
			const { appearance, table } = (await openDocument(bytes, `x.${kind}`)).tables[0]!;
			return { look: appearance.looks[appearance.cellLook[table.slots[table.columns]!]!]!, account };
		};
		const before = await look();
		await edit(report, null, await standing(report), [
			(work) => touched(work, [{ r: 1, c: 0 }], [['fill.ink', '#ABCDEF']])
		]);
		const after = await look();
		assert.deepEqual(after.look, { ...before.look, fill: '#ABCDEF' });
		assert.deepEqual(
			after.account.tables.map(({ style, differences }) => [style, differences.length]),
			[['its own look', 0]]
		);
	});

	it('puts new tables where they are to be, one after the other, and takes them out by undo', async () => {
		const { id: report } = await addDocument(db, 'report 2.docx', await seasonReport());
		const first = await loadDocument(db, report);
		const block = first.blocks.findIndex((one) => one.kind === 'table');
		const made = (name: string) => typed(emptyTable(2, 2), 0, 0, name);
		const one = await makeTable(db, {
			name: 'One',
			work: made('One'),
			wears: {},
			into: { document: report, after: block, version: first.version }
		});
		assert.equal(one.index, 1);
		const second = await loadDocument(db, report);
		assert.equal(second.tables.length, first.tables.length + 1);
		const two = await makeTable(db, {
			name: 'Two',
			work: made('Two'),
			wears: {},
			into: { document: report, after: block, version: second.version }
		});
		const three = await loadDocument(db, report);
		assert.deepEqual(
			three.tables.slice(1, 3).map((entry) => ('table' in entry ? entry.table.cells[0]!.text : '')),
			['Two', 'One'],
			'after the same block, the newest comes first'
		);
		assert.equal(two.index, 1);
		await assert.rejects(
			makeTable(db, { name: 'x', work: made('x'), wears: {}, into: { document: report, after: 0, version: 0 } }),
			/changed in another window/
		);
		await moveToStep(db, report, three.version, 0);
		assert.equal((await loadDocument(db, report)).tables.length, first.tables.length);
		assert.equal((await listDocuments(db)).documents.find((entry) => entry.id === report)!.tables, first.tables.length);
	});

	it('takes tables out, with those inside them, while others come and are worked on; undo brings them back', async () => {
		for (const [name, bytes] of [
			['out.docx', await seasonReport()],
			['out.odt', await seasonReportOdt()],
			['out.html', await seasonReportHtml()]
		] as const) {
			const { id: report } = await addDocument(db, name, bytes);
			const first = await loadDocument(db, report);
			const says = ({ table }: { table: Table }) => table.cells.map((cell) => cell.text).join('|');
			const now = async () => (await openById(db, report)).document;
			/** What each table says, kept by hand beside the document. */
			let expected = (await now()).tables.map(says);
			const same = async (what: string) => {
				const document = await now();
				assert.deepEqual(document.tables.map(says), expected, `${name}: ${what}`);
				const { bytes: written, kind } = await writeDocument(db, report);
				assert.deepEqual(
					(await openDocument(written, `x.${kind}`)).tables.map(says),
					expected,
					`${name}, file: ${what}`
				);
				return document;
			};
			const versionNow = async () => (await openById(db, report)).found.version;
			const out = async (index: number) => {
				const { tables } = await now();
				const inside = new Set([index]);
				for (const one of tables) if (inside.has(one.place.inside ?? -1)) inside.add(one.index);
				await takeOut(db, report, index, await versionNow());
				expected = expected.filter((_, i) => !inside.has(i));
			};
			const put = async (after: number, words: string) => {
				const work = typed(emptyTable(2, 2), 0, 0, words);
				const into = { document: report, after, version: await versionNow() };
				const { index } = await makeTable(db, { name: words, work, wears: {}, into });
				expected = [...expected.slice(0, index), says({ table: tableOf(work) }), ...expected.slice(index)];
			};
			await out(1);
			await same('one out');
			const firstTable = (await now()).blocks.findIndex((one) => one.kind === 'table');
			await put(firstTable, 'New here');
			await same('one in after the first');
			const { after } = await loadWork(db, report, 2).then(({ from }) => ({ after: from }));
			const was = (await now()).tables[2]!;
			const work = typed(await standing(report, 2), 1, 0, 'Typed here');
			await addWorkStep(db, report, 2, { after, label: 'typed', patch: patchBetween(await standing(report, 2), work) });
			expected[2] = says({ table: tableOf(work) });
			assert.notEqual(says(was), expected[2]);
			await same('a later one worked on');
			await out(0);
			await same('the first out');
			await out(0);
			await same('the new one out again');
			const nested = (await now()).tables.find(({ place }) => place.where === 'nested');
			if (nested) await out(nested.place.inside!);
			await same('one with another inside out');
			await assert.rejects(takeOut(db, report, 0, 0), /another window/);
			while (expected.length > 1) await out(expected.length - 1);
			await same('all but one');
			await assert.rejects(takeOut(db, report, 0, await versionNow()), /only table/);
			await moveToStep(db, report, await versionNow(), first.step);
			expected = (await openDocument(bytes, name)).tables.map(says);
			await same('all back');
		}
	});

	it('goes onto a drawing with its pictures, which are shown there and said in words', async () => {
		const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="297mm" viewBox="0 0 420 297"><rect width="9" height="9"/></svg>`;
		const { id: sheet } = await addDocument(db, 'sheet.svg', new TextEncoder().encode(drawing));
		const source = 'data:image/png;base64,iVBORw0KGgo=';
		const work = withCells(emptyTable(3, 2), [{ r: 1, c: 1 }], (cell) => ({
			...cell,
			picture: { source, alternative: 'A lady fern', width: emu(360_000), height: emu(180_000), fits: 'row' as const }
		}));
		const { version } = await loadDocument(db, sheet);
		await makeTable(db, { name: 'Ferns', work, wears: {}, into: { document: sheet, after: -1, version } });
		const { bytes } = await writeDocument(db, sheet);
		const text = new TextDecoder().decode(bytes);
		assert.match(text, /<image href="data:image\/png;base64,iVBORw0KGgo=" [^>]*><title>A lady fern<\/title><\/image>/);
		const back = await openDocument(bytes, 'sheet.svg');
		assert.equal(back.tables.length, 1);
		const drawn = drawOn(back as SvgDocument, (back as SvgDocument).placed[0]!, back.tables[0]!);
		assert.match(drawn.markup, /<image/);
	});

	it('finds the place among the blocks of the file', () => {
		const added = [{ after: -1 }, { after: 1 }, { after: 1 }];
		// As they stand: added, block 0, block 1, added, added, block 2.
		assert.deepEqual(
			[-1, 0, 1, 2, 3, 4, 5].map((current) => placeIn(3, added, current)),
			[
				{ after: -1, at: 0 },
				{ after: -1, at: 1 },
				{ after: 0, at: 1 },
				{ after: 1, at: 1 },
				{ after: 1, at: 2 },
				{ after: 1, at: 3 },
				{ after: 2, at: 3 }
			]
		);
	});

	it('keeps starters by their name', async () => {
		const work = typed(emptyTable(2, 2), 0, 0, 'Form');
		await keepStarter(db, { name: 'Form', category: 'Orders', description: '', work, wears: {} });
		await keepStarter(db, {
			name: 'Form',
			category: 'Orders',
			description: 'again',
			work: typed(work, 1, 1, 'x'),
			wears: {}
		});
		const named = async (name: string) => (await listStarters(db)).find((one) => one.name === name);
		const kept = await named('Form');
		assert.deepEqual([kept!.description, kept!.version, text(kept!.work, 1, 1)], ['again', 2, 'x']);
		await assert.rejects(changeStarter(db, kept!.id, { version: 1, name: 'Other' }), /changed in another window/);
		await changeStarter(db, kept!.id, { version: 2, name: 'Other' });
		await removeStarter(db, kept!.id);
		assert.equal(await named('Form'), undefined);
		assert.equal(await named('Other'), undefined);
	});
});
