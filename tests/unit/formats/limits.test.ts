import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../src/lib/core/errors.ts';
import { openDocument } from '../../../src/lib/formats/index.ts';
import { BUDGET, checkLetters, checkSize, checkTables } from '../../../src/lib/formats/limits.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';
import { seasonReportOdt } from '../../../demo/documents/twins.ts';
import { runs } from '../runs.ts';
import { docx, tbl, tc } from './documents.ts';

const isRefused = (work: () => void): boolean => {
	try {
		work();
		return false;
	} catch (error) {
		assert.ok(error instanceof InputError && error.code === 'too-large', String(error));
		return true;
	}
};

describe('the budget of a document', () => {
	it('takes a table exactly where rows, columns and slots are within it', () => {
		const count = fc.oneof(fc.nat(3_000), fc.nat(400_000), fc.nat(2 ** 31));
		fc.assert(
			fc.property(count, count, (rows, columns) => {
				const isWithin = rows <= BUDGET.rows && columns <= BUDGET.columns && rows * columns <= BUDGET.slots;
				assert.equal(
					isRefused(() => checkSize(rows, columns, 'table 1')),
					!isWithin
				);
			})
		);
	});
	it('counts the slots of all tables together', () => {
		const table = (rows: number, columns: number) => ({ table: { rows, columns } });
		fc.assert(
			fc.property(fc.array(fc.tuple(fc.nat(90_000), fc.nat(20)), { maxLength: 40 }), (sizes) => {
				const all = sizes.reduce((sum, [rows, columns]) => sum + rows * columns, 0);
				assert.equal(
					isRefused(() => checkTables(sizes.map(([rows, columns]) => table(rows, columns)))),
					all > BUDGET.allSlots
				);
			})
		);
		assert.equal(
			isRefused(() => checkTables(Array.from({ length: BUDGET.tables + 1 }, () => table(1, 1)))),
			true
		);
		assert.equal(
			isRefused(() => checkLetters(BUDGET.letters + 1, 'a part')),
			true
		);
	});

	/** A file of a few letters that asks for a table of this size; what it says of itself is all there is. */
	const asking = {
		docx: (_rows: number, columns: number) =>
			docx({
				body: tbl(Array.from({ length: 3 }, () => `<w:tr>${tc('a', `<w:gridSpan w:val="${columns}"/>`)}</w:tr>`))
			}),
		html: async (rows: number, columns: number) =>
			new TextEncoder().encode(
				`<!doctype html><title>x</title><table><tr><td colspan="${columns}" rowspan="${rows}">a</td></tr>${'<tr></tr>'.repeat(3)}</table>`
			),
		odt: async (rows: number, columns: number) => {
			const archive = await Package.open(await seasonReportOdt(), 'an ODT document');
			const text = (await archive.text('content.xml'))!;
			const at = text.indexOf('<table:table-row');
			const more = `<table:table-row table:number-rows-repeated="${rows}"><table:table-cell table:number-columns-repeated="${columns}" office:value-type="string"><text:p>a</text:p></table:table-cell></table:table-row>`;
			return archive.rewrite(new Map([['content.xml', text.slice(0, at) + more + text.slice(at)]]));
		}
	};
	for (const [kind, ask] of Object.entries(asking))
		it(`is kept to by a small ${kind} file that asks for a large table: it is read within it, or refused in words`, async () => {
			await fc.assert(
				fc.asyncProperty(
					fc.integer({ min: 1, max: 2 ** 31 }),
					fc.integer({ min: 1, max: 2 ** 31 }),
					async (rows, columns) => {
						const bytes = await ask(rows, columns);
						try {
							const { tables } = await openDocument(bytes as Uint8Array<ArrayBuffer>, `x.${kind}`);
							for (const { table } of tables) checkSize(table.rows, table.columns, 'table');
							checkTables(tables);
						} catch (error) {
							assert.ok(error instanceof InputError, String(error));
							assert.ok(error.message.length > 20 && error.message.length < 400);
						}
					}
				),
				{ numRuns: runs(6) }
			);
		});
});
