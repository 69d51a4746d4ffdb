import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import {
	columnsByName,
	compareRows,
	differenceKey,
	sourceOf,
	withRowsFrom,
	type RowsSource
} from '../../../../src/lib/core/work/rows-from.ts';
import { emptyTable, workFault, type WorkTable } from '../../../../src/lib/core/work/table.ts';
import { tableOf } from '../../../../src/lib/core/work/convert.ts';

const tableWith = (...rows: string[]): WorkTable => {
	const texts = rows.map((row) => row.split('|').map((text) => text.trim()));
	const work = emptyTable(texts.length, texts[0]!.length, { headers: 1, totals: 1 });
	return {
		...work,
		rows: work.rows.map((row, r) => ({ ...row, cells: row.cells.map((cell, c) => ({ ...cell, text: texts[r]![c]! })) }))
	};
};
const source = (...rows: string[]): RowsSource => sourceOf(rows.map((row) => row.split('|')))!;
const textsOf = (work: WorkTable) =>
	work.rows.map((_, r) =>
		tableOf(work)
			.cells.filter((cell) => cell.r === r)
			.map(({ text }) => text)
			.join(' | ')
	);

const BEDS = tableWith('Bed | Plants | Keeper', 'North | 12 | Ada', 'South | 8 | Bo', 'East | 5 | Cy', 'Total | 25 | ');
const NEWER = source('keeper|Plants |Bed', 'Ada|14|North', 'Cy|5|East', 'Di|9|West');

describe('rows from a file', () => {
	it('find their columns by name, wherever those stand; what is worked out is not filled', () => {
		assert.deepEqual(columnsByName(BEDS, NEWER), [2, 1, 0]);
		assert.deepEqual(
			columnsByName(BEDS, source('Bed|Bed|Seed', '1|2|3')),
			[undefined, undefined, undefined],
			'not what is there twice'
		);
		const worked = {
			...BEDS,
			columns: BEDS.columns.map((column, c) => (c === 1 ? { ...column, across: 'sum' as const } : column))
		};
		assert.deepEqual(columnsByName(worked, NEWER), [2, undefined, 0]);
	});
	it('are compared row by row and cell by cell', () => {
		const { differences } = compareRows(BEDS, NEWER, [2, 1, 0]);
		assert.deepEqual(
			differences.map((one) => [one.kind, differenceKey(one), one.kind === 'changed' ? one.cells : one.texts]),
			[
				['changed', '2', [{ c: 1, was: '12', is: '14' }]],
				['added', '+2', ['West', '9', 'Di']],
				['gone', '3', ['South', '8', 'Bo']]
			]
		);
	});
	it('are taken as a whole, with header and total as they were', () => {
		const next = withRowsFrom(BEDS, NEWER, [2, 1, 0]);
		assert.deepEqual(textsOf(next), [
			'Bed | Plants | Keeper',
			'North | 14 | Ada',
			'East | 5 | Cy',
			'West | 9 | Di',
			'Total | 25 | '
		]);
		assert.deepEqual(
			next.rows.map(({ role }) => role),
			['header:1', 'body', 'body', 'body', 'total']
		);
		assert.equal(workFault(next), undefined);
		assert.deepEqual(compareRows(next, NEWER, [2, 1, 0]).differences, [], 'and the same again changes nothing');
	});
	it('are taken in part', () => {
		const without = (key: string) => (one: string) => one !== key;
		assert.deepEqual(
			textsOf(withRowsFrom(BEDS, NEWER, [2, 1, 0], without('3'))).filter((row) => /South/.test(row)).length,
			1
		);
		assert.match(textsOf(withRowsFrom(BEDS, NEWER, [2, 1, 0], without('2 1')))[1]!, /12/);
		assert.deepEqual(
			withRowsFrom(BEDS, NEWER, [2, 1, 0], () => false),
			BEDS
		);
	});
	it('leave columns alone that they do not fill', () => {
		const next = withRowsFrom(BEDS, source('Bed|Plants', 'North|13', 'South|8', 'East|5'), [0, 1, undefined]);
		assert.deepEqual(textsOf(next)[1], 'North | 13 | Ada');
	});
	it('taken whole, the body says what the source does, whatever both are; and nothing but its rows changes', () => {
		const cell = fc.constantFrom('a', 'b', 'c', '1', '2', '');
		const rows = fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 6 });
		fc.assert(
			fc.property(rows, rows, (own, theirs) => {
				const work = tableWith('x | y', ...own.map((row) => row.join(' | ')), 'Total | ');
				const from = sourceOf([['x', 'y'], ...theirs]);
				if (!from?.rows.length) return;
				const next = withRowsFrom(work, from, [0, 1]);
				assert.equal(workFault(next), undefined);
				const body = textsOf(next).slice(1, -1);
				assert.deepEqual([...body].sort(), from.rows.map((row) => row.join(' | ')).sort());
				assert.deepEqual(
					[next.rows[0]!.cells, next.rows.at(-1)!.cells],
					[work.rows[0]!.cells, work.rows.at(-1)!.cells]
				);
			})
		);
	});
});
