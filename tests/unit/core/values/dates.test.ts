import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { recognisedTable } from '../../../../src/lib/core/recognise/table.ts';
import { createGrid } from '../../../../src/lib/core/table/grid.ts';
import { dateDoubtWords, dateOrderOf, parseDate, usualOrder } from '../../../../src/lib/core/values/dates.ts';
import { parseFormula } from '../../../../src/lib/core/values/formula-text.ts';
import { seriesOf } from '../../../../src/lib/core/work/cells.ts';
import { workOf } from '../../../../src/lib/core/work/convert.ts';
import { columnNames } from '../../../../src/lib/core/work/names.ts';
import { dateDoubt, inLocale } from '../../../../src/lib/core/work/marks.ts';
import { sortRows } from '../../../../src/lib/core/work/sort.ts';
import { workedOut } from '../../../../src/lib/core/work/working.ts';
import { isCovered, type WorkTable } from '../../../../src/lib/core/work/table.ts';

const sheet = (...rows: readonly string[][]) => workOf(recognisedTable(createGrid(rows)).table);
const textsOf = (work: WorkTable, c: number) =>
	work.rows.map(({ cells }) => (isCovered(cells[c]!) ? '' : cells[c]!.text)).slice(1);

describe('dates that strokes part', () => {
	const days = fc.date({ min: new Date('1950-01-01'), max: new Date('2090-12-31'), noInvalidDate: true });
	for (const locale of ['en-GB', 'en-US', 'fr-FR', 'pt-BR', 'es-ES'])
		test(`as ${locale} writes them are read as they were meant`, () => {
			const written = new Intl.DateTimeFormat(locale, {
				day: '2-digit',
				month: '2-digit',
				year: 'numeric',
				timeZone: 'UTC'
			});
			fc.assert(
				fc.property(days, (day) => {
					assert.equal(parseDate(written.format(day), usualOrder(locale)), day.toISOString().slice(0, 10));
				})
			);
		});

	test('follow those that can be read in one way only, whatever the locale', () => {
		fc.assert(
			fc.property(fc.shuffledSubarray(['04/05/2031', '13/06/2031', '01/02/2031'], { minLength: 3 }), (texts) => {
				assert.deepEqual(dateOrderOf(texts, 'month'), { order: 'day', doubt: undefined });
			})
		);
		assert.deepEqual(dateOrderOf(['04/05/2031', '06/13/2031']), { order: 'month', doubt: undefined });
		assert.deepEqual(dateOrderOf(['04/05/2031'], 'month'), { order: 'month', doubt: '04/05/2031' });
		assert.equal(dateOrderOf(['05/05/2031', '2031-04-05', '04.05.2031', '13/13/2031']).doubt, undefined);
	});

	test('are doubtful where nothing but the locale decides', () => {
		const work = inLocale(sheet(['Bed', 'Planted'], ['A', '04/05/2031'], ['B', '06/05/2031']), 'en-US');
		assert.equal(dateDoubt(work), '04/05/2031');
		assert.equal(dateDoubtWords('04/05/2031', 'month'), '“04/05/2031” is read as 5 April 2031; or is it 4 May 2031?');
	});

	for (const [locale, worked, sorted] of [
		['en-GB', ['03/06/2031', '04/03/2031'], ['02/02/2031', '04/05/2031']],
		['en-US', ['05/05/2031', '03/04/2031'], ['02/02/2031', '04/05/2031']]
	] as const)
		test(`are worked out, sorted and gone on with by ${locale}`, () => {
			const read = inLocale(sheet(['Bed', 'Sown', 'Out'], ['A', '04/05/2031', ''], ['B', '02/02/2031', '']), locale);
			const formula = parseFormula('Sown + 30 d', columnNames(read));
			const columns = read.columns.map((column, c) => (c === 2 ? { ...column, formula } : column));
			assert.deepEqual(textsOf(workedOut({ ...read, columns }).work, 2), worked);
			assert.deepEqual(textsOf(sortRows(read, [{ column: 1, order: 'rising' }], locale), 1), sorted);
			assert.equal(
				seriesOf(['04/05/2031'], '.', usualOrder(locale))!(0),
				locale === 'en-GB' ? '05/05/2031' : '04/06/2031'
			);
			assert.equal(
				seriesOf(['05/05/2031'], '.', usualOrder(locale))!(0),
				locale === 'en-GB' ? '06/05/2031' : '05/06/2031'
			);
		});
});
