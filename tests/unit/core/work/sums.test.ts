import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { amountText } from '../../../../src/lib/core/values/figure.ts';
import { workOf } from '../../../../src/lib/core/work/convert.ts';
import { rowsAbout } from '../../../../src/lib/core/work/reach.ts';
import { typedSums, wrongSums } from '../../../../src/lib/core/work/sums.ts';

const workWith = (texts: string[][], roles: RowRole[]) => {
	const { table } = recognisedTable(createGrid(texts));
	return workOf({ ...table, roles });
};
const T: RowRole = 'total';
const B: RowRole = 'body';
const H: RowRole = 'header:1';
const said = (texts: string[][], roles: RowRole[]) =>
	typedSums(workWith(texts, roles)).map(({ r, c, covers, should, isRight, problem }) => [
		r,
		c,
		covers.join(),
		should ? amountText(should) : problem,
		isRight
	]);

test('several totals under each other: each is of all rows, or of others and the rows between', () => {
	const bill = (tax: string, gross: string) =>
		said(
			[
				['Work', 'Amount'],
				['Planting', '€ 100.00'],
				['Mulch', '€ 50.00'],
				['Net', '€ 150.00'],
				['Tax', tax],
				['Gross', gross]
			],
			[H, B, B, T, T, T]
		);
	assert.deepEqual(bill('€ 28.50', '€ 178.50'), [
		[3, 1, '1,2', '150', true],
		[4, 1, '3,5', '28.5', true],
		[5, 1, '3,4', '178.5', true]
	]);
	assert.deepEqual(bill('€ 28.50', '€ 180.00'), [
		[3, 1, '1,2', '150', true],
		[5, 1, '3,4', '178.5', false]
	]);
});

test('shares that should make 100 % are right within their rounding, and are no sums otherwise', () => {
	const shares = (...texts: string[]) =>
		said(
			[['Bed', 'Share'], ...texts.map((text, i) => [i === texts.length - 1 ? 'Total' : `Bed ${i}`, text])],
			[H, ...texts.slice(1).map(() => B), T]
		);
	assert.deepEqual(shares('33 %', '33 %', '33 %', '100 %'), [[4, 1, '1,2,3', '1', true]]);
	assert.deepEqual(shares('33 %', '33 %', '30 %', '100 %'), [[4, 1, '1,2,3', '0.96', false]]);
	assert.deepEqual(shares('33.3 %', '33.3 %', '33.3 %', '100 %'), [[4, 1, '1,2,3', '1', true]]);
	assert.deepEqual(shares('33.3 %', '33.3 %', '33.1 %', '100 %'), [[4, 1, '1,2,3', '0.997', false]]);
	assert.deepEqual(shares('19 %', '7 %', '13 %'), [], 'a mean is no sum');
});

test('columns that are multiplied into a third hold no sums', () => {
	const rows = (price: string) => [
		['Plant', 'Count', 'Price', 'Cost'],
		['Osmunda', '12', '3.10', '37.20'],
		['Dryopteris', '7', '0.85', '5.95'],
		['Total', '20', price, '43.15']
	];
	assert.deepEqual(said(rows('1.98'), [H, B, B, T]), [[3, 3, '1,2', '43.15', true]]);
});

test('a total in another currency or measure is wrong, a plain one is taken in theirs, mixed ones are none', () => {
	const total = (text: string, second = '€ 2.00') =>
		said(
			[
				['Plant', 'Cost'],
				['Osmunda', '€ 1.00'],
				['Fern', second],
				['Total', text]
			],
			[H, B, B, T]
		);
	assert.deepEqual(total('3.00'), [[3, 1, '1,2', '3', true]]);
	assert.deepEqual(total('£ 3.00'), [[3, 1, '1,2', '3', false]]);
	assert.deepEqual(total('€ 3.00', '2 kg'), [[3, 1, '1,2', 'EUR and kg cannot be added', undefined]]);
	const work = workWith(
		[
			['Plant', 'Cost'],
			['Osmunda', '€ 1.00'],
			['Fern', '€ 2.00'],
			['Total', '£ 3.00']
		],
		[H, B, B, T]
	);
	assert.deepEqual(wrongSums(work), [{ r: 3, c: 1, should: '€ 3.00', off: '' }]);
});

test('a table that reads up has its subtotals above their rows', () => {
	const S: RowRole = 'subtotal:1';
	const { rows } = workWith([['a'], ['b'], ['c'], ['d'], ['e'], ['f'], ['g']], [H, S, B, B, S, B, T]);
	assert.deepEqual([rowsAbout({ rows }, 1), rowsAbout({ rows }, 4)], [[2, 3], [5]]);
	const down = workWith([['a'], ['b'], ['c'], ['d'], ['e'], ['f'], ['g']], [H, B, B, S, B, S, T]);
	assert.deepEqual([rowsAbout(down, 3), rowsAbout(down, 5)], [[1, 2], [4]]);
});

test('a table in metres and the same in millimetres have the same sums', () => {
	fc.assert(
		fc.property(fc.array(fc.integer({ min: 1, max: 9_999_999 }), { minLength: 2, maxLength: 8 }), (lengths) => {
			const sum = lengths.reduce((a, b) => a + b, 0);
			const metres = (n: number) => `${(n / 1000).toFixed(3)} m`;
			const table = (write: (n: number) => string) =>
				typedSums(
					workWith(
						[['Bed', 'Length'], ...lengths.map((n, i) => [`Bed ${i}`, write(n)]), ['Total', metres(sum)]],
						[H, ...lengths.map(() => B), T]
					)
				).map(({ isRight }) => isRight);
			assert.deepEqual(table(metres), [true]);
			assert.deepEqual(
				table((n) => `${n} mm`),
				[true]
			);
		}),
		{ numRuns: 40 }
	);
});
