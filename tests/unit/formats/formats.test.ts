import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { seasonReport } from '../../../demo/documents/season-report.ts';
import { seedList } from '../../../demo/documents/seed-list.ts';
import { seasonReportHtml, seasonReportOdt } from '../../../demo/documents/twins.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import {
	bareName,
	kindOf,
	openDocument,
	OUT_KINDS,
	writeAs,
	type AnyDocument,
	type DocumentKind
} from '../../../src/lib/formats/index.ts';

const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const options = { house: FIRST_HOUSE, find, title: 'Season report' };
const DEFAULTS = { fill: 'none', ink: '#000000', family: '', h: 'start', v: 'top' };
const jobsFor = (document: AnyDocument, name: string) =>
	document.tables.map(({ index, table }) => ({ index, table, style: find(name)! }));
const shape = ({ tables }: AnyDocument) =>
	tables.map(({ table, place }) => [
		table.roles.join(),
		table.columnInfo.map(({ kind }) => kind).join(),
		table.cells
			.map(({ r, c, rows, cols, text }) => `${r},${c},${rows},${cols},${text.replace(/\s+/g, ' ').trim()}`)
			.join('|'),
		place.inside
	]);

describe('all formats', () => {
	it('are known by their bytes, whatever they are called', async () => {
		for (const [bytes, kind] of [
			[await seasonReport(), 'docx'],
			[await seasonReportOdt(), 'odt'],
			[await seasonReportHtml(), 'html'],
			[seedList(), 'csv']
		] as const) {
			assert.equal(kindOf(bytes, 'file'), kind);
			assert.equal((await openDocument(bytes, `report.${kind}`)).kind, kind);
		}
		assert.equal(bareName('Report 3.1.docx'), 'Report 3.1');
		assert.equal(bareName('Report 3.1'), 'Report 3.1');
	});
	it('say the same of the same report: roles, kinds, cells, nested tables', async () => {
		const report = await openDocument(await seasonReport(), 'a.docx');
		for (const bytes of [await seasonReportOdt(), await seasonReportHtml()])
			assert.deepEqual(shape(await openDocument(bytes, 'twin')), shape(report));
	});
	it('become each other, in a house style, and read back as intended', async () => {
		const sources: Record<Exclude<DocumentKind, 'svg'>, Uint8Array<ArrayBuffer>> = {
			docx: await seasonReport(),
			odt: await seasonReportOdt(),
			html: await seasonReportHtml(),
			csv: new TextEncoder().encode('Bed;Plants;Cost €\nNorth;12;10,50\nSouth;8;5,00\nTotal;20;15,50\n'),
			json: new TextEncoder().encode(
				JSON.stringify({
					format: 'heptarch-table',
					version: 1,
					cells: [
						['Bed', 'Plants'],
						['North', '12'],
						['Total', '12']
					]
				})
			)
		};
		for (const [from, bytes] of Object.entries(sources)) {
			const document = await openDocument(bytes, `file.${from}`);
			for (const kind of OUT_KINDS.filter((one) => one !== 'svg')) {
				const written = await writeAs(kind, document, jobsFor(document, 'Season Ledger'), options);
				for (const { index, differences } of written.account.tables)
					assert.deepEqual(differences, [], `${from} to ${kind}, table ${index + 1}`);
				if (kind === 'json') {
					const tables = [
						JSON.parse(new TextDecoder().decode(written.bytes)) as { rows: string[] } | { rows: string[] }[]
					].flat();
					assert.deepEqual(
						tables.map(({ rows }) => rows.join()),
						document.tables.map(({ table }) => table.roles.join())
					);
				} else if (kind === 'docx' || kind === 'odt' || kind === 'html')
					assert.deepEqual(
						shape(await openDocument(written.bytes, `x.${kind}`)),
						shape(document),
						`${from} to ${kind}`
					);
			}
		}
	});
	it('keep the looks of tables that wear no house style', async () => {
		const report = await openDocument(await seasonReport(), 'a.docx');
		for (const kind of ['odt', 'html'] as const) {
			const made = await openDocument((await writeAs(kind, report, [], options)).bytes, `x.${kind}`);
			const back = await openDocument((await writeAs('docx', made, [], options)).bytes, 'y.docx');
			for (const [i, { appearance, table }] of back.tables.entries()) {
				const before = report.tables[i]!.appearance;
				table.cells.forEach((_, cell) => {
					const [was, is] = [before.looks[before.cellLook[cell]!]!, appearance.looks[appearance.cellLook[cell]!]!];
					for (const field of ['fill', 'ink', 'family', 'h', 'v'] as const)
						assert.equal(
							is[field] ?? DEFAULTS[field],
							was[field] ?? DEFAULTS[field],
							`${field} of cell ${cell} of table ${i + 1} by way of ${kind}`
						);
				});
			}
		}
	});
});
