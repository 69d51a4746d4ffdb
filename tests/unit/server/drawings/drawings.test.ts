import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import type { Kysely } from 'kysely';
import { fernBed, lighting } from '../../../../demo/drawings/index.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { noRevisions, withRevision, type PlacedTable } from '../../../../src/lib/core/schedule/placed.ts';
import { readSvg } from '../../../../src/lib/formats/svg/read.ts';
import { ConflictError } from '../../../../src/lib/server/http/answers.ts';
import type { Database } from '../../../../src/lib/server/database.ts';
import { addDocument } from '../../../../src/lib/server/documents/add.ts';
import { addStep, moveToStep } from '../../../../src/lib/server/documents/steps.ts';
import { listDocuments } from '../../../../src/lib/server/documents/list.ts';
import {
	drawTables,
	drawingObjects,
	loadSheet,
	replaceDrawing,
	reuseSchedule,
	shownDrawing
} from '../../../../src/lib/server/drawings/drawings.ts';
import { listRuns, startReread, startRun, undoRun, workOn } from '../../../../src/lib/server/runs/runs.ts';
import { writeDocument } from '../../../../src/lib/server/documents/writing.ts';
import { ownDatabase } from '../../../database.ts';

describe('drawings on the server', () => {
	let db: Kysely<Database>;
	let fern: string;
	let lamps: string;
	before(async () => {
		({ db } = await ownDatabase('demo'));
		const all = (await listDocuments(db)).documents;
		fern = all.find(({ name }) => name.startsWith('Fern'))!.id;
		lamps = all.find(({ name }) => name.startsWith('Path'))!.id;
	});
	after(() => db.destroy());
	const listed = async (id: string) => (await listDocuments(db)).documents.find((one) => one.id === id)!;
	const texts = ({ rows }: PlacedTable) => rows.rows.map(({ cells }) => cells.map(({ text }) => text).join('|'));
	/** Back to the state that the drawing came in. */
	const versionOf = async (id: string) => (await loadSheet(db, id)).version;
	const back = async (id: string) => {
		const { step, version } = await loadSheet(db, id);
		if (step > 0) await moveToStep(db, id, version, 0);
	};
	const idle = async () => undefined;
	async function run(id: string) {
		for (const { items } of await listRuns(db, id))
			for (const { document } of items) await workOn(db, { run: id, document });
		return (await listRuns(db, id))[0]!;
	}

	it('says how far schedules are behind, in the list and on the sheet', async () => {
		assert.equal((await listed(fern)).behind, 6);
		assert.equal((await listed(lamps)).behind, 0);
		const sheet = await loadSheet(db, fern);
		assert.deepEqual(
			sheet.behind.map(({ changes }) => changes.length),
			[4, 2, 0]
		);
		assert.equal(sheet.drawn.length, 3);
		assert.ok(sheet.drawn.every(({ facts }) => facts.warnings.length === 0));
		assert.equal(sheet.state.tables[0]!.style, sheet.state.tables[2]!.style);
		assert.match((await shownDrawing(db, fern)).text, /^<svg /);
		assert.equal((await drawingObjects(db, fern)).keys.length, 174);
		const { account } = await writeDocument(db, fern, { to: 'pdf' });
		assert.ok(account.remarks.includes('“Planting schedule” is 4 changes behind its drawing.'), account.remarks.join());
	});

	it('draws a table as it would stand, and stores nothing', async () => {
		const { placed, state, drawn } = await loadSheet(db, fern);
		const [moved] = await drawTables(db, fern, [
			{ placed: { ...placed[0]!, at: { x: 200, y: 100 } }, state: state.tables[0]! }
		]);
		assert.equal(moved!.y, 100);
		assert.equal(moved!.width, drawn[0]!.width);
		assert.equal((await loadSheet(db, fern)).step, 0);
	});

	it('a run reads the schedules of many drawings again, and is taken back as a whole', async () => {
		const { id } = await startReread(db, [fern, lamps], idle);
		const done = await run(id);
		assert.deepEqual(
			done.items.map(({ name, state, tables, differences }) => [name.slice(0, 4), state, tables, differences]),
			[
				['Fern', 'done', 2, 0],
				['Path', 'done', 0, 0]
			]
		);
		assert.equal((await listed(fern)).behind, 0);
		assert.ok(
			texts((await loadSheet(db, fern)).placed[0]!).includes('Pv|Polypodium vulgare|1 L|0.36 m|Harrow Lane Ferns|12')
		);
		await workOn(db, { run: id, document: fern });
		assert.equal((await loadSheet(db, fern)).step, 1, 'a job that comes twice changes nothing twice');
		await undoRun(db, id);
		assert.equal((await listed(fern)).behind, 6);
		await back(fern);
	});
	it('a run refuses what is no drawing, and gives drawings a style as it does documents', async () => {
		const report = (await listDocuments(db)).documents.find(({ kind }) => kind === 'docx')!.id;
		const { id } = await startReread(db, [report], idle);
		assert.match((await run(id)).items[0]!.reason!, /is no drawing/);
		const style = (await db.selectFrom('styles').select('id').where('name', '=', 'Beacon').executeTakeFirstOrThrow())
			.id;
		const restyle = await startRun(db, { style, documents: [fern, lamps] }, idle);
		const { items } = await run(restyle.id);
		assert.deepEqual(
			items.map(({ state, tables, differences }) => [state, tables, differences]),
			[
				['done', 3, 0],
				['done', 1, 0]
			]
		);
		const { bytes } = await writeDocument(db, lamps);
		assert.equal(readSvg(bytes).tables[0]!.carried!.style, 'Beacon');
		await undoRun(db, restyle.id);
		await back(fern);
		await back(lamps);
	});

	it('a newer file takes the place of the drawing: tables and styles stay, and what changed is told', async () => {
		const newer = new TextEncoder().encode(
			new TextDecoder()
				.decode(await lighting())
				.replace(/<g id="lamp-schedule"[\s\S]*<\/g>\n(?=<\/svg>)/, '')
				.replace('data-lamp="L-01" data-circuit="C1"', 'data-lamp="L-01" data-circuit="C2"')
		);
		assert.equal(readSvg(newer).placed.length, 0);
		const seen = await versionOf(lamps);
		await replaceDrawing(db, lamps, seen, 'newer.svg', newer);
		const sheet = await loadSheet(db, lamps);
		assert.equal(sheet.placed.length, 1, 'the table that the newer file lacks is still on the sheet');
		assert.ok(
			sheet.behind[0]!.changes.some((change) => change.kind === 'changed' && change.was === '8' && change.is === '7')
		);
		assert.equal((await listed(lamps)).behind, sheet.behind[0]!.changes.length);
		const { bytes, account } = await writeDocument(db, lamps);
		assert.deepEqual(
			account.tables.flatMap(({ differences }) => differences),
			[]
		);
		const written = readSvg(bytes);
		assert.equal(written.placed[0]!.id, 'lamp-schedule');
		assert.ok(written.source.text.includes('data-lamp="L-01" data-circuit="C2"'));
		await assert.rejects(replaceDrawing(db, lamps, seen, 'again.svg', newer), ConflictError);
		await assert.rejects(
			replaceDrawing(db, lamps, seen + 1, 'x.csv', new TextEncoder().encode('a;b\n1;2\n')),
			(error: unknown) => error instanceof InputError && /no SVG drawing/.test(error.message)
		);
		await back(lamps);
		assert.equal((await listed(lamps)).behind, 0, 'undo brings the old file back');
	});

	it('attributes changed here are read by schedules and written into the file', async () => {
		const { placed, state } = await loadSheet(db, lamps);
		await addStep(
			db,
			lamps,
			await versionOf(lamps),
			'L-02 is 20 W',
			{ ...state.tables },
			{ placed, attributes: { '#L-02': { watt: '20 W' } } }
		);
		assert.ok((await listed(lamps)).behind > 0);
		const { bytes } = await writeDocument(db, lamps);
		assert.ok(/id="L-02"[^>]*data-watt="20 W"/.test(new TextDecoder().decode(bytes)));
		await back(lamps);
	});

	it('a schedule stands in other drawings, too: their own rows, refused where there are none', async () => {
		const { placed, state } = await loadSheet(db, lamps);
		const other = (
			await addDocument(
				db,
				'Pond lighting.svg',
				new TextEncoder().encode(
					'<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="297mm" viewBox="0 0 420 297" data-scale="1:100"><circle r="2" data-kind="float" data-circuit="C9" data-type="Float" data-watt="4 W" data-mount="on water" data-height="0 m"/></svg>'
				)
			)
		).id;
		const { placed: done, refused } = await reuseSchedule(db, placed[0]!, state.tables[0]!, [other, fern, lamps]);
		assert.deepEqual(done, ['Pond lighting', 'Fern bed, planting plan']);
		assert.match(refused[0]!.reason, /of this title stands in it already/);
		const sheet = await loadSheet(db, other);
		assert.ok(texts(sheet.placed[0]!).includes('|Float|on water|0 m|1|4 W'), texts(sheet.placed[0]!).join('\n'));
		assert.equal(sheet.state.tables[0]!.style, state.tables[0]!.style);
		await back(fern);

		// One schedule over a set of drawings says so when one of the others changes.
		const whole = {
			...placed[0]!,
			source: { ...placed[0]!.source, with: [{ id: other, name: 'Pond lighting' }] } as PlacedTable['source']
		};
		await addStep(db, lamps, await versionOf(lamps), 'over both', { ...state.tables }, { placed: [whole] });
		const both = await loadSheet(db, lamps);
		assert.ok(
			both.behind[0]!.changes.some(({ words }) => words.includes('C9')),
			'the other drawing’s circuit is new in it'
		);
		const before = (await listed(lamps)).behind;
		const now = await loadSheet(db, other);
		const key = (await drawingObjects(db, other)).keys[0]!;
		await addStep(
			db,
			other,
			now.version,
			'other lamp',
			{ ...now.state.tables },
			{ placed: now.placed, attributes: { [key]: { watt: null } } }
		);
		assert.notEqual((await listed(lamps)).behind, before, 'who lists its objects is looked at again');
		await back(lamps);
	});

	it('a revision is a row more, and tables come and go with their styles', async () => {
		const { placed, state } = await loadSheet(db, fern);
		const rows = withRevision(placed[2]!.rows, { number: 'D', date: '2031-06-01', what: 'Path widened', who: 'LT' });
		await addStep(
			db,
			fern,
			await versionOf(fern),
			'revision D',
			{ ...state.tables },
			{ placed: [placed[0]!, placed[1]!, { ...placed[2]!, rows }] }
		);
		const grown = await loadSheet(db, fern);
		assert.ok(grown.drawn[2]!.height > 0 && grown.drawn[2]!.y < (await loadSheet(db, fern)).drawn[2]!.y + 1);
		await addStep(
			db,
			fern,
			await versionOf(fern),
			'legend off',
			{ 0: state.tables[0]!, 1: state.tables[2]! },
			{ placed: [placed[0]!, { ...placed[2]!, rows }] }
		);
		assert.equal((await listed(fern)).tables, 2);
		const { bytes } = await writeDocument(db, fern);
		assert.deepEqual(
			readSvg(bytes).placed.map(({ id }) => id),
			['planting-schedule', 'revisions']
		);
		assert.equal(readSvg(bytes).placed[1]!.rows.rows.at(-1)!.cells[2]!.text, 'Path widened');
		const last = await versionOf(fern);
		await assert.rejects(
			addStep(db, fern, last, 'x', { 7: state.tables[0]! }, { placed: [{ ...placed[0]!, rows: noRevisions('') }] }),
			InputError
		);
		await back(fern);
	});

	it('takes the same drawing in again, and one without a table', async () => {
		const { id } = await addDocument(db, 'Again.svg', await fernBed());
		assert.equal((await listed(id)).tables, 3);
		const bare = await addDocument(
			db,
			'Bare.svg',
			new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm"/>')
		);
		const sheet = await loadSheet(db, bare.id);
		assert.deepEqual([sheet.placed.length, sheet.kinds.length], [0, 0]);
	});
});
