import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { changedCells } from '../../../src/lib/core/cascade/changed.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { ASPECTS } from '../../../src/lib/core/style/types.ts';
import { sameLine } from '../../../src/lib/core/properties/line.ts';
import { openDocument, writeAs, type AnyDocument } from '../../../src/lib/formats/index.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { TOUCHES, touchesOf } from './documents.ts';
import { handbook } from '../../../demo/documents/handbook.ts';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { seasonReportHtml, seasonReportOdt } from '../../../demo/documents/twins.ts';
import { runs } from '../runs.ts';

const FILES = {
	'report.docx': seasonReport,
	'handbook.docx': handbook,
	'report.odt': seasonReportOdt,
	'report.html': seasonReportHtml
};
const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const SAME = {
	value: (_: unknown, a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b),
	line: sameLine
};
const PARTS = ['header', 'rowBand', 'columnBand', 'columns', 'firstColumn', 'lastColumn', 'total', 'corner', 'rules'];

/** What one table is given; none for a table that nobody asked for. */
const wish = fc.option(
	fc.record({
		style: fc.constantFrom(...DEMO_STYLES),
		carry: fc.subarray([...ASPECTS]),
		touching: fc.array(fc.tuple(fc.nat(), fc.constantFrom(...TOUCHES)), { maxLength: 3 }),
		partsOff: fc.subarray(PARTS, { maxLength: 3 })
	}),
	{ freq: 2 }
);

describe('any tables of a document in any styles, carried in part and touched', () => {
	for (const [name, make] of Object.entries(FILES))
		it(`${name}: as intended, and the other tables as they were`, async () => {
			const document: AnyDocument = await openDocument(await make(), name);
			const kind = document.kind as 'docx' | 'odt' | 'html';
			await fc.assert(
				fc.asyncProperty(
					fc.array(wish, { minLength: document.tables.length, maxLength: document.tables.length }),
					fc.constantFrom('living' as const, 'direct' as const),
					async (wishes, as) => {
						const jobs = document.tables.flatMap(({ index, table }) => {
							const wish = wishes[index];
							if (!wish) return [];
							const { style, carry, partsOff, touching } = wish;
							const { cells } = table;
							const touches = touching.flatMap(([n, set]) => touchesOf(table, cells[n % cells.length]!, set));
							return [{ index, style, table: { ...table, carry, partsOff, touches } }];
						});
						const { bytes, account } = await writeAs(kind, document, jobs, {
							house: FIRST_HOUSE,
							find,
							title: 't',
							as
						});
						for (const { index, differences } of account.tables)
							assert.deepEqual(differences.slice(0, 2), [], `table ${index + 1}`);
						const back = await openDocument(bytes, name);
						for (const { index, table, appearance } of document.tables)
							if (!wishes[index])
								assert.deepEqual(
									[...changedCells(table, appearance, back.tables[index]!.appearance, SAME)],
									[],
									`table ${index + 1}, which was not asked for`
								);
					}
				),
				{ numRuns: runs(7) }
			);
		});
});
