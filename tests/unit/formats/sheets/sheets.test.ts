import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { readSheets } from '../../../../src/lib/formats/sheets/sheets.ts';
import { dateOf } from '../../../../src/lib/formats/sheets/xlsx.ts';
import { zipOf as zip } from '../zip.ts';

const MAIN = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const RELATIONS = 'xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
const utf8 = (text: string) => new TextEncoder().encode(text);

/** A workbook of sheets by the markup of their rows. */
function xlsx(
	sheets: Record<string, string>,
	{ hidden = [] as string[], is1904 = false, strings = [] as string[], after = '' } = {}
): Promise<Uint8Array<ArrayBuffer>> {
	const names = Object.keys(sheets);
	return zip({
		'xl/workbook.xml': `<workbook ${MAIN} ${RELATIONS}><workbookPr date1904="${is1904 ? 1 : 0}"/><sheets>${names
			.map(
				(name, i) =>
					`<sheet name="${name}" sheetId="${i + 1}" r:id="rId${i + 1}"${hidden.includes(name) ? ' state="hidden"' : ''}/>`
			)
			.join('')}</sheets></workbook>`,
		'xl/_rels/workbook.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${names
			.map((_, i) => `<Relationship Id="rId${i + 1}" Type="worksheet" Target="worksheets/sheet${i + 1}.xml"/>`)
			.join('')}</Relationships>`,
		'xl/styles.xml': `<styleSheet ${MAIN}><numFmts count="1"><numFmt numFmtId="164" formatCode="&quot;day &quot;yyyy-mm-dd"/></numFmts><cellXfs count="5"><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="164"/><xf numFmtId="10"/><xf numFmtId="20"/></cellXfs></styleSheet>`,
		'xl/sharedStrings.xml': `<sst ${MAIN}>${strings.map((text) => `<si><r><t>${text}</t></r><rPh><t>guide</t></rPh></si>`).join('')}</sst>`,
		...Object.fromEntries(
			names.map((name, i) => [
				`xl/worksheets/sheet${i + 1}.xml`,
				`<worksheet ${MAIN}><sheetData>${sheets[name]}</sheetData>${after}</worksheet>`
			])
		)
	});
}
const n = (at: string, value: number | string, style = 0) => `<c r="${at}" s="${style}"><v>${value}</v></c>`;
const s = (at: string, text: string) => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const row = (r: number, ...cells: string[]) => `<row r="${r}">${cells.join('')}</row>`;

describe('rows of an XLSX workbook', () => {
	it('are text: dates, shares, times, shared strings, figures as they were meant', async () => {
		const [sheet] = await readSheets(
			await xlsx(
				{
					Beds: [
						row(2, '<c r="B2" t="s"><v>0</v></c>', s('C2', 'Planted'), s('D2', 'Share'), s('E2', 'At')),
						row(3, s('B3', 'North'), n('C3', 45_000, 1), n('D3', 0.125, 3), n('E3', 0.375, 4)),
						row(4, s('B4', 'South'), n('C4', 45_000.5, 2), n('D4', '12.300000000000001'), n('E4', '1E-7')),
						row(9, s('B9', ' '))
					].join('')
				},
				{ strings: ['Bed'] }
			),
			'beds.xlsx'
		);
		assert.deepEqual(sheet!.rows, [
			['', '', '', '', ''],
			['', 'Bed', 'Planted', 'Share', 'At'],
			['', 'North', '2023-03-15', '12.5 %', '09:00'],
			['', 'South', '2023-03-15 12:00', '12.3', '0.0000001']
		]);
	});
	it('count days from 1900, with a day that it did not have, or from 1904', async () => {
		assert.deepEqual(
			[1, 59, 61, 36_526].map((day) => dateOf(day, false)),
			['1900-01-01', '1900-02-28', '1900-03-01', '2000-01-01']
		);
		assert.deepEqual(
			[0, 35_064].map((day) => dateOf(day, true)),
			['1904-01-01', '2000-01-01']
		);
		fc.assert(
			fc.property(fc.integer({ min: 61, max: 2_900_000 }), (day) => {
				assert.equal(dateOf(day, false), dateOf(day - 1_462, true) ?? dateOf(day, false));
				assert.ok(dateOf(day, false)! < dateOf(day + 1, false)! || dateOf(day, false)!.length > 10);
			})
		);
		const bytes = await xlsx({ A: row(1, n('A1', 35_064, 1)) }, { is1904: true });
		assert.deepEqual((await readSheets(bytes, 'a.xlsx'))[0]!.rows, [['2000-01-01']]);
	});
	it('say what was worked out, what shows an error, what is joined and what is hidden', async () => {
		const sheets = await readSheets(
			await xlsx(
				{
					Open: row(
						1,
						'<c r="A1"><f>1+1</f><v>2</v></c>',
						'<c r="B1"><f>1+2</f></c>',
						'<c r="C1" t="e"><f>1/0</f><v>#DIV/0!</v></c>',
						'<c r="D1" t="b"><v>1</v></c>'
					),
					Shut: row(1, s('A1', 'x'))
				},
				{ hidden: ['Shut'], after: '<mergeCells count="1"><mergeCell ref="A1:B1"/></mergeCells>' }
			),
			'book.xlsx'
		);
		assert.deepEqual(
			sheets.map(({ name, isHidden }) => [name, isHidden]),
			[
				['Open', false],
				['Shut', true]
			]
		);
		assert.deepEqual(sheets[0]!.rows, [['2', '', '', 'TRUE']]);
		assert.match(
			sheets[0]!.remarks.join(' '),
			/3 cells are worked out there.*1 formula had not been worked out.*1 cell shows an error.*Joined cells/
		);
	});
	it('are as many as say something, in a sheet of 1,048,576; more than can be taken are refused with their place', async () => {
		const far = await xlsx({ Long: row(1, s('A1', 'Bed')) + row(1_048_576, '<c r="A1048576" s="1"/>') });
		assert.deepEqual((await readSheets(far, 'far.xlsx'))[0]!.rows, [['Bed']]);
		const over = await xlsx({ Long: row(1, s('A1', 'Bed')) + row(1_048_576, s('A1048576', 'x')) });
		await assert.rejects(
			readSheets(over, 'over.xlsx'),
			(error) => error instanceof InputError && /row 1,048,576/.test(error.message)
		);
	});
});

describe('a text that many cells share', () => {
	it('counts for each of them, so that a small file does not go out as a huge answer', async () => {
		const shared = Array.from({ length: 3_000 }, (_, r) => row(r + 1, `<c r="A${r + 1}" t="s"><v>0</v></c>`)).join('');
		const swelling = await xlsx({ Long: shared }, { strings: ['x'.repeat(32_000)] });
		await assert.rejects(
			readSheets(swelling, 'swelling.xlsx'),
			(error) => error instanceof InputError && error.code === 'too-large'
		);
	});
});

describe('rows of an ODS spreadsheet', () => {
	it('are text, with what is repeated, hidden and worked out', async () => {
		const cell = (text: string, more = '') => `<table:table-cell ${more}><text:p>${text}</text:p></table:table-cell>`;
		const bytes = await zip({
			'content.xml': `<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0"><office:automatic-styles><style:style style:name="h" style:family="table"><style:table-properties table:display="false"/></style:style></office:automatic-styles><office:body><office:spreadsheet><table:table table:name="Beds"><table:table-row>${cell('Bed')}${cell('Since')}${cell('Share')}</table:table-row><table:table-row table:number-rows-repeated="2">${cell('North')}${cell('1.4.31', 'office:value-type="date" office:date-value="2031-04-01"')}${cell('13 %', 'office:value-type="percentage" office:value="0.125" table:formula="of:=1/8"')}</table:table-row><table:table-row table:number-rows-repeated="1048573"><table:table-cell table:number-columns-repeated="16384"/></table:table-row></table:table><table:table table:name="Old" table:style-name="h"><table:table-row>${cell('x')}</table:table-row></table:table></office:spreadsheet></office:body></office:document-content>`
		});
		const sheets = await readSheets(bytes, 'beds.ods');
		assert.deepEqual(sheets[0]!.rows, [
			['Bed', 'Since', 'Share'],
			['North', '2031-04-01', '12.5 %'],
			['North', '2031-04-01', '12.5 %']
		]);
		assert.deepEqual([sheets.map(({ isHidden }) => isHidden), sheets[0]!.remarks.length], [[false, true], 1]);
	});
});

describe('rows of any file', () => {
	it('come from CSV and TSV, and from nothing else that has none', async () => {
		assert.deepEqual((await readSheets(utf8('Bed\tPlants\nNorth\t12\n\t\n'), 'a.tsv'))[0]!.rows, [
			['Bed', 'Plants'],
			['North', '12']
		]);
		assert.deepEqual((await readSheets(utf8('Bed;Plants\nNorth;12'), 'a.csv'))[0]!.rows[1], ['North', '12']);
		const refused = (bytes: Uint8Array<ArrayBuffer>, name: string, code: string) =>
			assert.rejects(readSheets(bytes, name), (error) => error instanceof InputError && error.code === code);
		await refused(utf8('x'), 'a.png', 'no-rows');
		await refused(await zip({ 'word/document.xml': '<x/>' }), 'a.xlsx', 'not-a-workbook');
		await refused(
			new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, ...utf8('E\0n\0c\0r\0y\0p\0t\0e\0d\0P\0a\0c\0k\0a\0g\0e\0')]),
			'a.xlsx',
			'encrypted'
		);
		await refused(await xlsx({ A: '<row' }), 'a.xlsx', 'damaged');
	});
});
