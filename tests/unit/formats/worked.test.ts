import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import type { TableFile } from '../../../src/lib/core/table/file.ts';
import { workedOut } from '../../../src/lib/core/work/working.ts';
import { typed } from '../../../src/lib/core/work/cells.ts';
import { isCovered, type WorkTable } from '../../../src/lib/core/work/table.ts';
import { openDocument, writeAs, type AnyDocument } from '../../../src/lib/formats/index.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';
import { applyWorks } from '../../../src/lib/formats/rewrite-rows.ts';

const PLANTING: TableFile = {
	format: 'heptarch-table',
	version: 1,
	cells: [
		['Plant', 'Count', 'Price', 'Cost'],
		['Osmunda regalis', '12', '€ 3.10', ''],
		['Dryopteris', '1,200', '€ 0.85', ''],
		['All of them', '', '', ''],
		['With tax', '', '', '']
	],
	rows: ['header:1', 'body', 'body', 'total', 'note'],
	columns: [{}, {}, {}, { formula: 'Price × Count' }],
	formulas: [{ r: 4, c: 3, formula: 'total of Cost × 1.19' }],
	totals: [{ r: 3, c: 3, is: 'sum' }]
};
const opened = (bytes: Uint8Array, name: string): Promise<AnyDocument> =>
	openDocument(bytes as Uint8Array<ArrayBuffer>, name);
const written = async (document: AnyDocument, kind: 'docx' | 'odt' | 'html' | 'json') => {
	const { bytes } = await writeAs(kind, document, [], { house: FIRST_HOUSE, title: 'Planting' });
	return opened(bytes, `planting.${kind === 'json' ? 'table.json' : kind}`);
};
const texts = ({ rows }: WorkTable) =>
	rows.map(({ cells }) => cells.map((slot) => (isCovered(slot) ? null : slot.text)));
const sources = ({ rows, columns }: WorkTable) => ({
	roles: rows.map(({ role }) => role),
	formulas: columns.map(({ formula }) => formula),
	cells: rows.map(({ cells }) => cells.map((slot) => (isCovered(slot) ? null : [slot.total, slot.formula])))
});

describe('a worked table comes back from a file as it was', () => {
	for (const kind of ['docx', 'odt', 'html', 'json'] as const)
		it(kind, async () => {
			const first = await opened(new TextEncoder().encode(JSON.stringify(PLANTING)), 'planting.table.json');
			const work = first.tables[0]!.work!;
			const document = await written(first, kind);
			const again = document.tables[0]!.work;
			assert.ok(again, 'its formulas came along');
			assert.deepEqual(texts(again), texts(work));
			assert.deepEqual(sources(again), sources(work));
			// Worked on in that file, and written to it again.
			const next = workedOut(typed(again, 1, 1, '20')).work;
			const changed = await written(await applyWorks(document, new Map([[0, next]])), kind);
			assert.deepEqual(texts(changed.tables[0]!.work!), texts(next));
			assert.equal(texts(next)[3]![3], '€ 1,082.00');
			assert.deepEqual(sources(changed.tables[0]!.work!), sources(work));
		});
});

describe('values beside texts in an open document', () => {
	it('are those of the figures, and none is left of a text that is gone', async () => {
		const first = await opened(new TextEncoder().encode(JSON.stringify(PLANTING)), 'planting.table.json');
		const odt = await written(first, 'odt');
		const content = async (document: AnyDocument) => {
			const { bytes } = await writeAs('odt', document, [], { house: FIRST_HOUSE, title: 'Planting' });
			return (await Package.open(bytes, 'a zip')).text('content.xml');
		};
		const before = (await content(odt))!;
		assert.match(before, /office:value-type="currency" office:currency="EUR" office:value="1057.2"/);
		assert.match(before, /office:value-type="float" office:value="1200"/);
		const next = workedOut(typed(typed(odt.tables[0]!.work!, 2, 1, 'many'), 1, 2, '19 %')).work;
		const after = (await content(await applyWorks(odt, new Map([[0, next]]))))!;
		assert.match(after, /office:value-type="percentage" office:value="0.19"/);
		assert.doesNotMatch(after, /office:value="1200"|office:value="1057.2"/);
	});
});

describe('values beside texts in a page', () => {
	it('stand on what is worked out, in full', async () => {
		const first = await opened(
			new TextEncoder().encode(JSON.stringify({ ...PLANTING, totals: [{ r: 3, c: 2, is: 'mean' }] })),
			'planting.table.json'
		);
		const page = async (document: AnyDocument) => {
			const { bytes } = await writeAs('html', document, [], { house: FIRST_HOUSE, title: 'Planting' });
			return { text: new TextDecoder().decode(bytes), document: await opened(bytes, 'planting.html') };
		};
		const { text, document } = await page(first);
		assert.match(text, /<data value="1.975">€ 1.98<\/data>/);
		assert.doesNotMatch(text, /<data value="12">/, 'what is typed says itself');
		const next = workedOut(typed(document.tables[0]!.work!, 1, 2, '€ 3.11')).work;
		const again = await page(await applyWorks(document, new Map([[0, next]])));
		assert.match(again.text, /<data value="1.98">€ 1.98<\/data>/);
		assert.doesNotMatch(again.text, /1\.975/);
	});
});
