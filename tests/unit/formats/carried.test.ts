import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { canonicalStyle } from '../../../src/lib/core/style/canonical.ts';
import { createGrid } from '../../../src/lib/core/table/grid.ts';
import { workOf } from '../../../src/lib/core/work/convert.ts';
import { recognisedTable } from '../../../src/lib/core/recognise/table.ts';
import {
	carriedFromJson,
	carriedToJson,
	checkedWears,
	contentKey,
	findCarried,
	withCarriedFigures,
	wearsOf
} from '../../../src/lib/formats/carried.ts';

const ledger = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
const { table } = recognisedTable(
	createGrid([
		['Bed', 'Plants'],
		['North bank', '120'],
		['Hollow', '64'],
		['Total', '184']
	])
);
const wears = wearsOf(table, ledger.name);
const carried = { styles: [ledger], tables: [{ index: 0, key: contentKey(table), wears }] };

describe('what rides along in a file', () => {
	it('comes back as it was', () => {
		const back = carriedFromJson(carriedToJson(carried));
		assert.deepEqual(back.styles, [canonicalStyle(ledger)]);
		assert.deepEqual(back.tables, carried.tables);
	});
	it('is found by the table’s text, else by its place where size and style still fit', () => {
		assert.equal(findCarried(carried, 7, table, null), wears);
		const edited = { ...table, cells: table.cells.map((cell) => (cell.r === 1 ? { ...cell, text: 'x' } : cell)) };
		assert.equal(findCarried(carried, 0, edited, ledger.name), wears);
		assert.equal(findCarried(carried, 0, edited, 'Quiet Lines'), null);
		assert.equal(findCarried(carried, 1, edited, ledger.name), null);
		assert.equal(findCarried({ styles: [], tables: [] }, 0, table, ledger.name), null);
	});
	it('counts for nothing where somebody took a piece out of it, and harms nothing', () => {
		for (const key of Object.keys(wears)) {
			const { [key as keyof typeof wears]: _, ...rest } = wears;
			assert.throws(() => checkedWears(JSON.stringify(rest)), key);
			const text = JSON.stringify({ styles: [], tables: [{ index: 0, key: 'x', wears: rest }] });
			assert.deepEqual(carriedFromJson(text).tables, [], key);
		}
		for (const text of ['', '{', 'null', '[]', '7', '{"styles":7,"tables":{}}', '{"tables":[7,null,{}]}'])
			assert.deepEqual(carriedFromJson(text), { styles: [], tables: [] }, text);
	});
	it('counts for nothing where something in it is not what it has to be', () => {
		const wrong: Record<keyof typeof wears, unknown>[] = [
			{ ...wears, style: 7 },
			{ ...wears, roles: ['queen'] },
			{ ...wears, columns: [{ kind: 'fern' }] },
			{ ...wears, firstColumns: -1 },
			{ ...wears, touches: [{ r: 0 }] },
			{ ...wears, carry: null }
		];
		for (const one of wrong) assert.throws(() => checkedWears(JSON.stringify(one)), JSON.stringify(one));
	});
	it('figures that cannot be read, or are of another size, count for nothing', () => {
		const said = (figures: unknown) =>
			carriedFromJson(JSON.stringify({ styles: [], tables: [{ index: 0, key: 'x', figures }] })).tables;
		assert.equal(said({ totals: [{ r: 0, c: 0, is: 'sum' }] }).length, 1);
		for (const wrong of [7, null, { totals: 3 }, { totals: [{ r: 0, c: 0, is: 'median' }] }, { rows: ['queen'] }])
			assert.deepEqual(said(wrong), [], JSON.stringify(wrong));
		const work = workOf(table);
		assert.equal(withCarriedFigures(work, { rows: ['body'], columns: [{}] }), undefined);
	});
	it('gives a column without a name an empty one', () => {
		const columns = wears.columns.map(({ kind }) => ({ kind }));
		assert.deepEqual(
			checkedWears(JSON.stringify({ ...wears, columns })).columns,
			columns.map((column) => ({ ...column, name: '' }))
		);
	});
});
