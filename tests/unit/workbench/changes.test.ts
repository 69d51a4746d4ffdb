import assert from 'node:assert/strict';
import { test } from 'node:test';
import type { Appearance, Look } from '../../../src/lib/core/cascade/look.ts';
import { recognisedTable } from '../../../src/lib/core/recognise/table.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import { parseLength } from '../../../src/lib/core/units.ts';
import { bareAppearance } from '../../../src/lib/formats/bare.ts';
import { changedCells, changesBetween, changeWords } from '../../../src/lib/workbench/changes.ts';

const { table } = recognisedTable(
	createGrid([
		['Bed', 'Plants'],
		['North', '12'],
		['South', '8'],
		['Total', '20']
	])
);
const bare = bareAppearance(table);
const look = (own: Look, of: (cell: number) => boolean): Appearance => ({
	...bare,
	looks: [{}, own],
	cellLook: Int32Array.from(table.cells, (_, i) => (of(i) ? 1 : 0))
});

test('changes are gathered by leaf, role and value, and said in words', () => {
	const after = look({ fill: '#2F5D50', size: parseLength('9.5pt') }, (i) => table.cells[i]!.r === 0);
	assert.deepEqual(changesBetween(table, bare, after).map(changeWords).sort(), [
		'fill of header rows: none → #2F5D50 (2 cells)',
		'type size of header rows: as the page has it → 9.5pt (2 cells)'
	]);
	assert.deepEqual([...changedCells(table, bare, after)], [0, 1]);
	assert.deepEqual(changesBetween(table, after, after), []);
});

test('what only says what shows anyway is no change', () => {
	const said = look({ fill: 'none', weight: 400, italic: false, h: 'start', v: 'top' }, () => true);
	assert.deepEqual(changesBetween(table, bare, said), []);
	assert.equal(changedCells(table, bare, said).size, 0);
});

test('lines are told by where they run, and change the cells on both sides', () => {
	const line = { pattern: 'solid', weight: parseLength('1pt'), ink: '#000000' } as const;
	const across = bare.across.slice();
	across[2] = across[3] = 1;
	const after = { ...bare, lines: [null, line], across };
	assert.deepEqual(changesBetween(table, bare, after).map(changeWords), [
		'lines, between header and body: no line → solid 1pt #000000 (2 edges)'
	]);
	assert.deepEqual([...changedCells(table, bare, after)].sort(), [0, 1, 2, 3]);
});

test('the table’s own shadow is told, and makes no cell another one', () => {
	const shadow = { x: parseLength('2mm'), y: parseLength('2mm'), blur: parseLength('1mm'), ink: '#000000' } as const;
	const [change] = changesBetween(table, bare, { ...bare, shadow });
	assert.equal(
		changeWords(change!),
		'table shadow of the table: none → #000000, 2mm across, 2mm down, blur 1mm (1 table)'
	);
	assert.deepEqual(changesBetween(table, { ...bare, shadow }, { ...bare, shadow: { ...shadow } }), []);
	assert.deepEqual(changesBetween(table, bare, { ...bare, shadow: null }), []);
});
