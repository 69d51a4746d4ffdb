import assert from 'node:assert/strict';
import { test } from 'node:test';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { parseFormula } from '../../../../src/lib/core/values/formula-text.ts';
import type { Summary } from '../../../../src/lib/core/values/summary.ts';
import { filled, pasted } from '../../../../src/lib/core/work/cells.ts';
import { withSources, workOf } from '../../../../src/lib/core/work/convert.ts';
import { workedOut } from '../../../../src/lib/core/work/working.ts';
import { reachOf, selectedFigures } from '../../../../src/lib/core/work/selected.ts';
import { lostBySwapping, swapped } from '../../../../src/lib/core/work/swap.ts';
import { isCovered, type WorkTable } from '../../../../src/lib/core/work/table.ts';

const HEAD: RowRole[] = ['header:1', 'body', 'body', 'total'];
const table = (
	total: (Summary | undefined)[],
	texts = [
		['Bed', 'Ferns', 'Mosses'],
		['North', '12', '3'],
		['South', '8', '4'],
		['Total', '', '']
	]
) => {
	const { table: recognised } = recognisedTable(createGrid(texts));
	const work = workOf({ ...recognised, roles: HEAD, firstColumns: 1 });
	return {
		...work,
		rows: work.rows.map((row, r) =>
			r < 3 ? row : { ...row, cells: row.cells.map((slot, c) => (total[c] ? { ...slot, total: total[c] } : slot)) }
		)
	} satisfies WorkTable;
};
const texts = ({ rows }: WorkTable) =>
	rows.map(({ cells }) => cells.map((slot) => (isCovered(slot) ? null : slot.text)));

test('totals of all columns become a column that comes from its rows, and those totals again', () => {
	const work = workedOut(table([undefined, 'sum', 'sum'])).work;
	assert.deepEqual(lostBySwapping(work), []);
	const turned = swapped(work);
	assert.deepEqual(
		turned.columns.map(({ across }) => across),
		[undefined, undefined, undefined, 'sum']
	);
	assert.deepEqual(texts(workedOut(turned).work), [
		['Bed', 'North', 'South', 'Total'],
		['Ferns', '12', '8', '20'],
		['Mosses', '3', '4', '7']
	]);
	const back = workedOut(swapped(turned)).work;
	assert.deepEqual(texts(back), texts(work));
	assert.equal(back.rows[3]!.role, 'total');
});

test('totals of some columns become formulas of their own', () => {
	const work = workedOut(table([undefined, 'sum', 'mean'])).work;
	assert.deepEqual(lostBySwapping(work), []);
	const turned = workedOut(swapped(work));
	assert.deepEqual(texts(turned.work)[2], ['Mosses', '3', '4', '3.50']);
	assert.equal(turned.worked.length, 2);
});

test('formulas of columns cannot be said: they are named, and their texts stay', () => {
	const plain = table([]);
	const work = workedOut({
		...plain,
		columns: plain.columns.map((column, c) => (c === 2 ? { ...column, formula: parseFormula('Ferns × 2') } : column))
	}).work;
	assert.deepEqual(lostBySwapping(work), ['“Mosses”: Ferns × 2']);
	assert.deepEqual(texts(workedOut(swapped(work)).work)[2], ['Mosses', '24', '16', '']);
});

test('what is pasted over a worked-out column is left out, or makes it typed', () => {
	const plain = table([]);
	const work = {
		...plain,
		columns: plain.columns.map((column, c) => (c === 2 ? { ...column, formula: parseFormula('Ferns × 2') } : column))
	};
	const clip = { cells: [[{ text: '1' }, { text: '99' }]] };
	const beside = pasted(work, 1, 1, clip);
	assert.deepEqual([beside.kept, texts(beside.work)[1]], [[2], ['North', '1', '3']]);
	const over = pasted(work, 1, 1, clip, { over: true });
	assert.deepEqual([over.kept, texts(over.work)[1]], [[], ['North', '1', '99']]);
	assert.equal(over.work.columns[2]!.formula, undefined);
	const down = { top: 1, bottom: 2, start: 2, end: 2 };
	assert.throws(() => filled(work, down, 'down', 1, false), /Column 3 is worked out/);
	assert.deepEqual(texts(filled(work, down, 'down', 1, false, { over: true }))[2], ['South', '8', '3']);
});

test('a table taken up anew keeps what works its cells out', () => {
	const work = table([undefined, 'sum']);
	const bare = table([]);
	assert.deepEqual(
		withSources(bare, work).rows[3]!.cells.map((slot) => !isCovered(slot) && slot.total),
		[undefined, 'sum', undefined]
	);
	assert.equal(withSources({ ...bare, columns: bare.columns.slice(1) }, work).columns.length, 2, 'another size stays');
});

test('selected cells make together what goes together, in full', () => {
	const cells = [
		['Bed', 'Length', 'Cost'],
		['North', '1.20 m', '€ 3.10'],
		['South', '80 cm', '€ 1.25'],
		['Total', 'none', '']
	];
	const work = table([], cells);
	const places = [1, 2, 3].flatMap((r) => [1, 2].map((c) => ({ r, c })));
	assert.deepEqual(selectedFigures(work, places), [
		{ measure: 'm', figures: { sum: '2.00 m', mean: '1.00 m', count: '2', least: '80.00 cm', greatest: '1.20 m' } },
		{ measure: 'EUR', figures: { sum: '€ 4.35', mean: '€ 2.18', count: '2', least: '€ 1.25', greatest: '€ 3.10' } }
	]);
	const dates = table(
		[],
		[
			['Bed', 'Sown', 'x'],
			['North', '2031-04-05', ''],
			['South', '2031-03-01', ''],
			['Total', '', '']
		]
	);
	assert.deepEqual(
		selectedFigures(
			dates,
			[1, 2].map((r) => ({ r, c: 1 }))
		),
		[{ measure: 'dates', figures: { count: '2', least: '2031-03-01', greatest: '2031-04-05' } }]
	);
});

test('a sum tells what it covers and what it leaves out, typed or worked out', () => {
	const cells = [
		['Bed', 'Ferns', 'Mosses'],
		['North', '12', '3'],
		['South', 'many', '4'],
		['Total', '', '7']
	];
	const plain = table([undefined, 'sum'], cells);
	const work = { ...plain, columns: plain.columns.map((column) => ({ ...column, kind: 'count' as const })) };
	assert.deepEqual(reachOf(work, 3, 1), { covers: [{ r: 1, c: 1 }], without: [{ r: 2, c: 1 }] });
	assert.deepEqual(reachOf(work, 3, 2), {
		covers: [
			{ r: 1, c: 2 },
			{ r: 2, c: 2 }
		],
		without: []
	});
	assert.equal(reachOf(work, 1, 1), undefined);
});
