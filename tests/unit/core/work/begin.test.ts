import assert from 'node:assert/strict';
import { test } from 'node:test';
import { workOfClip, workOfRows, withKinds, withoutContent } from '../../../../src/lib/core/work/begin.ts';
import { typed } from '../../../../src/lib/core/work/cells.ts';
import { fileLook } from '../../../../src/lib/core/work/file-look.ts';
import { insertRows, joinTables, splitTable } from '../../../../src/lib/core/work/lines.ts';
import { swapped } from '../../../../src/lib/core/work/swap.ts';
import { cellsIn, fitted, oneCell, rangesOf, selectionWords, whole } from '../../../../src/lib/core/work/selection.ts';
import { emptyTable, workFault, type WorkTable } from '../../../../src/lib/core/work/table.ts';
import { tableOf, workOf } from '../../../../src/lib/core/work/convert.ts';
import { checkPatch, checkWork } from '../../../../src/lib/core/work/validate.ts';
import {
	withLook,
	copiedLook,
	touched,
	untouched,
	touchList,
	lined,
	edgesIn
} from '../../../../src/lib/core/work/touches.ts';
import { openDocument, writeAs } from '../../../../src/lib/formats/index.ts';
import { readJson } from '../../../../src/lib/formats/json/read.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';

const BEDS = [
	['Bed', 'Plants', 'Cost'],
	['North', '12', '€ 10.50'],
	['South', '8', '€ 5.00'],
	['Total', '20', '€ 15.50']
];
const texts = (work: WorkTable) => tableOf(work).cells.map(({ text }) => text);

test('rows and copied cells begin a table with its roles and kinds recognised, spans kept', () => {
	const work = workOfRows(BEDS);
	assert.deepEqual(
		work.rows.map(({ role }) => role),
		['header:1', 'body', 'body', 'total']
	);
	assert.deepEqual(
		work.columns.map(({ kind }) => kind),
		['text', 'count', 'money']
	);
	const joined = workOfClip({
		cells: [
			[{ text: 'Beds', cols: 2 }, null],
			[{ text: 'North' }, { text: '12', content: [{ runs: [{ text: '12', weight: 700 }] }] }]
		]
	});
	assert.equal(workFault(joined), undefined);
	assert.deepEqual(joined.rows[0]!.cells[0], { text: 'Beds', cols: 2 });
	assert.equal((joined.rows[1]!.cells[1] as { content?: unknown[] }).content?.length, 1);
	assert.throws(() => workOfClip({ cells: [] }), /at least one row/);
	assert.deepEqual(texts(withoutContent(work)), [
		'Bed',
		'Plants',
		'Cost',
		'',
		'',
		'',
		'',
		'',
		'',
		'Total',
		'20',
		'€ 15.50'
	]);
});

test('sizes that are none, or far too large, are refused in words before anything is made', () => {
	for (const [rows, columns] of [
		[0, 3],
		[3, 0],
		[1.5, 2],
		[NaN, 2],
		[1e9, 1e9],
		[2, 1001]
	] as const)
		assert.throws(() => emptyTable(rows, columns), /at least one row|larger than what can be worked on/);
	assert.throws(() => insertRows(emptyTable(2, 2), 1, 0), /whole number from 1/);
});

test('kinds that nobody said follow what is typed; those that were said stay', () => {
	let work = emptyTable(4, 2);
	for (const [r, text] of [
		[1, '€ 3.10'],
		[2, '€ 12.00'],
		[3, '€ 1.00']
	] as const) {
		const next = typed(work, r, 1, text);
		work = withKinds(next, work);
	}
	assert.equal(work.columns[1]!.kind, 'money');
	const said = { ...work, columns: work.columns.map(() => ({ kind: 'code' as const })) };
	assert.equal(withKinds(typed(said, 1, 1, '12'), said).columns[1]!.kind, 'code');
});

test('a table is parted in two, each with the header, and put together again', () => {
	const work = workOfRows(BEDS);
	const [above, below] = splitTable(work, 2);
	assert.deepEqual(texts(below).slice(0, 4), ['Bed', 'Plants', 'Cost', 'South']);
	assert.deepEqual(texts(joinTables(above, below)), texts(work));
	assert.equal(workFault(joinTables(above, below)), undefined);
	assert.equal(workFault(joinTables(above, workOfRows([['a'], ['b']]))), undefined, 'a narrower one is filled up');
	assert.throws(() => splitTable(work, 0), /inside the table/);
	const turned = swapped(work);
	assert.deepEqual(texts(turned).slice(0, 4), ['Bed', 'North', 'South', 'Total']);
	assert.deepEqual(texts(swapped(turned)), texts(work));
});

test('selections are said in words, never cut a joined cell, and fit a table that became smaller', () => {
	const work = workOfClip({
		cells: [
			[{ text: 'a' }, { text: 'b' }, { text: 'c' }],
			[{ text: 'd' }, { text: 'wide', cols: 2 }, null],
			[{ text: 'e' }, { text: 'f' }, { text: 'g' }]
		]
	});
	assert.deepEqual(whole(work, { top: 1, bottom: 2, start: 2, end: 2 }), { top: 1, bottom: 2, start: 1, end: 2 });
	assert.match(selectionWords(work, oneCell(work, 1, 2)), /^joined cell, row 2/);
	const places = cellsIn(work, [{ top: 0, bottom: 2, start: 0, end: 2 }]);
	assert.equal(places.length, 8);
	assert.deepEqual(
		rangesOf(
			work,
			places.filter(({ c }) => c === 0)
		),
		[{ top: 0, bottom: 2, start: 0, end: 0 }]
	);
	const small = emptyTable(2, 1);
	assert.deepEqual(fitted(small, oneCell(work, 2, 2)).ranges, [{ top: 1, bottom: 1, start: 0, end: 0 }]);
});

test('a copied look brings touches of cell and edges; taking touches off leaves none', () => {
	let work = touched(workOfRows(BEDS), [{ r: 1, c: 1 }], [['fill.ink', 'fern']]);
	work = lined(work, edgesIn(work, { top: 1, bottom: 1, start: 1, end: 1 }, 'rim'), { pattern: 'solid' });
	const copied = withLook(work, [{ top: 2, bottom: 2, start: 1, end: 1 }], copiedLook(work, 1, 1));
	assert.equal(touchList(copied).filter(({ set }) => set.fill).length, 2);
	assert.equal(touchList(copied).filter(({ side }) => side).length, 7, 'the edge between the two is one');
	assert.deepEqual(touchList(untouched(copied, [{ top: 0, bottom: 3, start: 0, end: 2 }])), []);
});

test('a table keeps the look of its file, cell by cell, and rows that were added take that of their neighbours', () => {
	const work = workOfRows(BEDS);
	const grid = tableOf(work);
	const appearance = {
		cellLook: Int32Array.from(grid.cells, ({ r }) => (r === 0 ? 1 : 0)),
		looks: [{ fill: '#FFFFFF' as const }, { fill: '#2F5D50' as const }],
		across: new Int32Array(5 * 3),
		down: new Int32Array(4 * 4),
		lines: [{ pattern: 'solid' as const, weight: 12_700 as never, ink: '#000000' as const }]
	};
	const again = insertRows(workOf(grid), 2, 1);
	const kept = fileLook(again, { grid, appearance });
	const looks = [...kept.cellLook].map((look) => kept.looks[look]!.fill);
	assert.deepEqual(looks.slice(0, 3), ['#2F5D50', '#2F5D50', '#2F5D50']);
	assert.deepEqual(looks.slice(6, 9), ['#FFFFFF', '#FFFFFF', '#FFFFFF'], 'the new row');
	assert.ok([...kept.across].every((edge) => kept.lines[edge]));
});

test('what comes in as a table or a change of one is looked through, and refused with the place', () => {
	const work = JSON.parse(JSON.stringify(workOfRows(BEDS))) as WorkTable;
	assert.equal(checkWork(work), work);
	const bad = (change: (work: Record<string, unknown> & { rows: Record<string, unknown>[] }) => void) => {
		const copy = JSON.parse(JSON.stringify(work));
		change(copy);
		return () => checkWork(copy);
	};
	assert.throws(
		bad((copy) => (copy.rows[0]!.role = 'king')),
		/\/rows\/0\/role/
	);
	assert.throws(
		bad((copy) => (copy.rows[1]!.id = 1)),
		/not its own/
	);
	assert.throws(
		bad((copy) => (copy.rows[1]!.cells = [{ text: 'x', cols: 9 }, { covered: true }, { covered: true }])),
		/reaches outside/
	);
	assert.throws(
		bad((copy) => (copy.rows[1]!.cells = [{ covered: true }, { text: '' }, { text: '' }])),
		/no cell covers row 2, column 1/
	);
	assert.throws(
		bad(
			(copy) =>
				(copy.rows[1]!.cells = [
					{
						text: '',
						picture: { source: 'https://example.org/a.png', alternative: '', width: 1, height: 1, fits: 'row' }
					},
					{ text: '' },
					{ text: '' }
				])
		),
		/picture\/source/
	);
	assert.throws(() => checkPatch({ rows: [{}] }), /not a valid change of a table/);
	assert.throws(() => checkPatch({ order: [[1]] }), /not a valid change/);
});

test('a table file holds all that the bench knows, and the file counts where somebody changed it', async () => {
	const work = touched(workOfRows(BEDS), [{ r: 1, c: 0 }], [['text.weight', 700]]);
	const file = { format: 'heptarch-table', version: 1, cells: BEDS, about: { title: 'Beds', work } };
	const bytes = (value: unknown) => new TextEncoder().encode(JSON.stringify(value));
	const document = readJson(bytes(file));
	assert.equal(document.tables[0]!.place.caption, 'Beds');
	assert.deepEqual(document.tables[0]!.table.touches, tableOf(work).touches);
	const { bytes: written } = await writeAs('json', document, [], { house: FIRST_HOUSE, title: 'Beds' });
	const again = await openDocument(written, 'Beds.table.json');
	assert.deepEqual(again.tables[0]!.table.touches, tableOf(work).touches);
	const changed = { ...file, cells: BEDS.map((row, r) => (r === 1 ? ['East', ...row.slice(1)] : row)) };
	assert.equal(readJson(bytes(changed)).tables[0]!.table.cells[3]!.text, 'East');
	assert.throws(() => readJson(new TextEncoder().encode('{"format":')), /This is not JSON/);
	assert.throws(() => readJson(bytes({ format: 'heptarch-table', version: 1 })), /“cells” is missing/);
});
