import assert from 'node:assert/strict';
import { test } from 'node:test';
import { readJson } from '../../../../src/lib/formats/json/read.ts';
import { tableToFile, type TableFile } from '../../../../src/lib/core/table/file.ts';
import { amountText } from '../../../../src/lib/core/values/figure.ts';
import { tableOf } from '../../../../src/lib/core/work/convert.ts';
import { workedOut } from '../../../../src/lib/core/work/working.ts';
import { withFigures } from '../../../../src/lib/core/work/file.ts';
import { headingMeasure } from '../../../../src/lib/core/work/names.ts';
import { withMark } from '../../../../src/lib/core/work/marks.ts';
import { isCovered, type WorkTable } from '../../../../src/lib/core/work/table.ts';

const PLANTING: TableFile = {
	format: 'heptarch-table',
	version: 1,
	cells: [
		['Plant', 'Count', 'Price', 'Cost', 'Share', 'Running'],
		['Osmunda regalis', '12', '€ 3.10', '', '', ''],
		['Dryopteris', '1,200', '€ 0.85', '', '', ''],
		['Asplenium', '3', '€ 2.00', '', '', ''],
		['Total', '', '', '', '', '']
	],
	rows: ['header:1', 'body', 'body', 'body', 'total'],
	columns: [
		{},
		{},
		{},
		{ formula: 'Price × Count' },
		{ formula: 'round (Cost ÷ total of Cost; 3)' },
		{ formula: 'above + Cost' }
	],
	formulas: [{ r: 1, c: 5, formula: 'Cost' }],
	totals: [
		{ r: 4, c: 0, is: 'count' },
		{ r: 4, c: 1, is: 'mean' },
		{ r: 4, c: 3, is: 'sum' }
	]
};
const opened = (file: object) => readJson(new TextEncoder().encode(JSON.stringify(file))).tables[0]!;
const column = ({ rows }: WorkTable, c: number) =>
	rows.map(({ cells }) => {
		const slot = cells[c]!;
		return isCovered(slot) ? null : slot.text;
	});

test('a table file has formulas of columns and of cells, and totals, which are worked out when it is opened', () => {
	const { work, table } = opened(PLANTING);
	assert.deepEqual(column(work!, 3), ['Cost', '€ 37.20', '€ 1,020.00', '€ 6.00', '€ 1,063.20']);
	assert.deepEqual(column(work!, 4), ['Share', '0.035', '0.959', '0.006', '']);
	assert.deepEqual(column(work!, 5), ['Running', '€ 37.20', '€ 1,057.20', '€ 1,063.20', '']);
	assert.deepEqual(column(work!, 0).at(-1), '3');
	assert.deepEqual(column(work!, 1).at(-1), '405.00');
	assert.equal(table.cells.find(({ r, c }) => r === 4 && c === 3)!.text, '€ 1,063.20');
});

test('it is written back with what it said, and figures in full', () => {
	const work = opened(PLANTING).work!;
	const file = withFigures(tableToFile(tableOf(work)), work);
	assert.deepEqual(file.formulas, PLANTING.formulas);
	assert.deepEqual(file.totals, PLANTING.totals);
	assert.equal(file.numbers, undefined, 'nobody said them');
	const said = withFigures(tableToFile(tableOf(work)), withMark(work, '.'));
	assert.deepEqual(said.numbers, { decimal: '.', grouping: ',' });
	assert.deepEqual(
		file.columns!.map(({ formula }) => formula),
		PLANTING.columns!.map(({ formula }) => formula)
	);
	assert.deepEqual(
		file.figures!.find(({ r, c }) => r === 4 && c === 3),
		{ r: 4, c: 3, amount: '1063.2', measure: { kind: 'money', currency: 'EUR' } }
	);
	const again = opened(file).work!;
	assert.deepEqual(again.rows, work.rows);
	assert.deepEqual(again.columns, work.columns);
});

test('its marks are those that it says, and thousands are parted as it says', () => {
	const cells = [
		['Bed', 'Area', 'Twice'],
		['A', '1.250', ''],
		['B', '2.375', '']
	];
	const twice = (numbers?: TableFile['numbers']) =>
		column(
			opened({
				...PLANTING,
				cells,
				rows: undefined,
				columns: [{}, { kind: 'quantity' }, { formula: 'Area × 2' }],
				formulas: undefined,
				totals: undefined,
				numbers
			}).work!,
			2
		);
	assert.deepEqual(twice(), ['Twice', '2.500', '4.750']);
	assert.deepEqual(twice({ decimal: ',', grouping: '.' }), ['Twice', '2.500', '4.750']);
	assert.deepEqual(twice({ decimal: ',', grouping: ' ' }), ['Twice', '2 500', '4 750']);
});

test('a header of two tiers parts columns of one name', () => {
	const { work } = opened({
		format: 'heptarch-table',
		version: 1,
		cells: [
			['Work', 'Plan', null, 'Actual', null, 'Over'],
			[null, 'Labour', 'Plants', 'Labour', 'Plants', null],
			['Fern bed', '120', '80', '150', '70', '']
		],
		spans: [
			{ r: 0, c: 0, rows: 2, cols: 1 },
			{ r: 0, c: 1, rows: 1, cols: 2 },
			{ r: 0, c: 3, rows: 1, cols: 2 },
			{ r: 0, c: 5, rows: 2, cols: 1 }
		],
		rows: ['header:1', 'header:2', 'body'],
		columns: [{}, {}, {}, {}, {}, { formula: 'Actual / Labour − Plan / Labour' }]
	});
	assert.deepEqual(column(work!, 5), ['Over', null, '30']);
});

test('a cell that spans rows counts in each of them where a formula names it, and once in a sum', () => {
	const { work } = opened({
		format: 'heptarch-table',
		version: 1,
		cells: [
			['Bed', 'Rate', 'Hours', 'Cost'],
			['A', '€ 20.00', '2', ''],
			['B', null, '3', ''],
			['Total', '', '', '']
		],
		spans: [{ r: 1, c: 1, rows: 2, cols: 1 }],
		rows: ['header:1', 'body', 'body', 'total'],
		columns: [{}, {}, {}, { formula: 'Rate × Hours' }],
		totals: [
			{ r: 3, c: 1, is: 'sum' },
			{ r: 3, c: 3, is: 'sum' }
		]
	});
	assert.deepEqual(column(work!, 3), ['Cost', '€ 40.00', '€ 60.00', '€ 100.00']);
	assert.equal(column(work!, 1).at(-1), '€ 20.00');
});

test('the measure of a heading is that of its figures', () => {
	const { work } = opened({
		format: 'heptarch-table',
		version: 1,
		cells: [
			['Bed', 'Length (mm)', 'Width, m', 'Area'],
			['A', '2500', '2', '']
		],
		rows: ['header:1', 'body'],
		columns: [{}, { kind: 'quantity' }, { kind: 'quantity' }, { formula: 'Width, m × “Length (mm)”' }]
	});
	const [worked] = workedOut(work!).worked;
	assert.deepEqual([amountText(worked!.figure!), worked!.figure!.measure], ['5', { kind: 'unit', unit: 'm²' }]);
});

test('measures of headings are those of their signs, and words in brackets are none', () => {
	for (const [heading, measure] of [
		['Length (mm)', { kind: 'unit', unit: 'mm' }],
		['Area (m2)', { kind: 'unit', unit: 'm²' }],
		['Cost, €', { kind: 'money', currency: 'EUR' }],
		['Cost (CHF)', { kind: 'money', currency: 'CHF' }],
		['Share (%)', { kind: 'percent' }],
		['Slope, ‰', { kind: 'permille' }],
		['Lead time (weeks)', { kind: 'duration', unit: 'weeks' }],
		['Lead time (week)', { kind: 'duration', unit: 'week' }],
		['Beds (north)', undefined],
		['Cost', undefined],
		['', undefined]
	] as const)
		assert.deepEqual(headingMeasure(heading), measure, heading);
});

test('what cannot stand is refused with its place', () => {
	const refused = (change: Partial<TableFile>, message: RegExp, where: string) =>
		assert.throws(() => opened({ ...PLANTING, ...change }), { message, where });
	const columns = (formula: string) => [...PLANTING.columns!.slice(0, 5), { formula }];
	refused({ columns: columns('Weight × 2') }, /no column “Weight”/, '/columns/5/formula');
	refused({ columns: columns('Cost ×') }, /nothing after it/, '/columns/5/formula');
	refused({ formulas: [{ r: 9, c: 0, formula: 'Cost' }] }, /no cell in row 10, column 1/, '/formulas/0');
	refused({ totals: [{ r: 1, c: 1, is: 'sum' }] }, /Row 2 is a body row/, '/totals/0');
	assert.throws(() => opened({ ...PLANTING, numbers: { decimal: ';' } }));
	assert.throws(() => opened({ ...PLANTING, totals: [{ r: 4, c: 1, is: 'median' }] }));
});

test('a thousand columns that rest on each other, and a thousand such cells, are worked out or say why not', () => {
	const wide = (more: (c: number) => object, others: object = {}) =>
		opened({
			format: 'heptarch-table',
			version: 1,
			cells: [
				Array.from({ length: 999 }, (_, c) => `K${c}x`),
				Array.from({ length: 999 }, (_, c) => (c === 998 ? '1' : ''))
			],
			rows: ['header:1', 'body'],
			columns: Array.from({ length: 999 }, (_, c) => ({ kind: 'quantity', ...more(c) })),
			...others
		}).work!;
	const columns = wide((c) => (c < 998 ? { formula: `K${c + 1}x + 1` } : {}));
	assert.equal(column(columns, 0)[1], '999');
	const formulas = Array.from({ length: 998 }, (_, c) => ({ r: 1, c, formula: `K${c + 1}x + 1` }));
	const { worked } = workedOut(wide(() => ({}), { formulas }));
	assert.match(worked[0]!.problem!, /has no number|more than 300 cells/);
	assert.equal(worked.at(-1)!.text, '2');
});
