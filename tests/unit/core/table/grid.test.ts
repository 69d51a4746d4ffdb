import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { tableFromFile, tableToFile } from '../../../../src/lib/core/table/file.ts';
import { createGrid, gridFault, textAt, type Span } from '../../../../src/lib/core/table/grid.ts';
import { excerpt } from '../../../../src/lib/workbench/excerpt.ts';
import { table } from '../../support.ts';
import { anyGrid } from '../any.ts';

describe('the grid', () => {
	it('gives every slot to exactly one cell', () => {
		fc.assert(fc.property(anyGrid, ({ texts, spans }) => assert.equal(gridFault(createGrid(texts, spans)), undefined)));
	});
	it('refuses spans that overlap or leave it, saying where', () => {
		const texts = [
			['a', 'b'],
			['c', 'd']
		];
		const message = (spans: Span[]) => {
			try {
				createGrid(texts, spans);
			} catch (error) {
				return (error as InputError).message;
			}
			return '';
		};
		assert.match(message([{ r: 0, c: 1, rows: 1, cols: 2 }]), /row 0, column 1 reaches outside/);
		assert.match(
			message([
				{ r: 0, c: 0, rows: 2, cols: 1 },
				{ r: 1, c: 0, rows: 1, cols: 2 }
			]),
			/row 1, column 0 overlaps/
		);
	});
	it('reads and writes table files without loss', () => {
		fc.assert(
			fc.property(anyGrid, ({ texts, spans }) => {
				const first = tableToFile(tableFromFile({ format: 'heptarch-table', version: 1, cells: texts, spans }));
				const second = tableToFile(tableFromFile(JSON.parse(JSON.stringify(first))));
				assert.deepEqual(second, first);
			})
		);
	});
	it('says what is wrong with a table file', () => {
		const read = (rest: object) => () =>
			tableFromFile({ format: 'heptarch-table', version: 1, cells: [['a']], ...rest });
		assert.throws(read({ rows: ['body', 'body'] }), /1 rows, but "rows" names 2/);
		assert.throws(read({ rows: ['heading'] }), /\/rows\/0/);
		assert.throws(read({ columns: [] }), /1 columns, but "columns" names 0/);
		assert.throws(read({ colour: 'red' }), /“colour” is not a property/);
		assert.throws(() => tableFromFile(null), InputError);
		assert.doesNotThrow(() => tableFromFile({ format: 'heptarch-table', version: 1, cells: [] }));
	});
	it('keeps head and foot in an excerpt, merged cells included', () => {
		const long = table(['header:1', ...Array<'body'>(20).fill('body'), 'total'], 2, {
			spans: [{ r: 19, c: 0, rows: 3, cols: 1 }]
		});
		const short = excerpt(
			long,
			long.cells.map(({ text }) => [{ runs: [{ text }] }]),
			6
		);
		assert.equal(short.table.rows, 6);
		assert.equal(gridFault(short.table), undefined);
		assert.equal(short.table.roles.at(-1), 'total');
		assert.equal(textAt(short.table, 0, 1), 'r0c1');
		assert.equal(short.content.length, short.table.cells.length);
	});
});
