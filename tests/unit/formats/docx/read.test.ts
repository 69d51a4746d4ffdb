import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import type { DocumentTable } from '../../../../src/lib/formats/document.ts';
import { docx, LEDGER, p, tbl, tc, tr, type Parts } from '../documents.ts';
import { zipOf } from '../zip.ts';

const read = async (parts: Parts) => readDocx(await docx(parts));
const only = async (parts: Parts) => (await read(parts)).tables[0]!;
/** The look of the cell at a slot. */
function look({ table, appearance }: DocumentTable, r: number, c: number) {
	return appearance.looks[appearance.cellLook[table.slots[r * table.columns + c]!]!]!;
}
const above = ({ table, appearance }: DocumentTable, r: number, c: number) => {
	const line = appearance.lines[appearance.across[r * table.columns + c]!];
	return line ? `${line.pattern} ${line.weight / 12_700} ${line.ink}` : null;
};

const TABLE_STYLE = (inside: string, id = 'T', rest = '') =>
	`<w:style w:type="table" w:styleId="${id}"><w:name w:val="${id}"/>${rest}${inside}</w:style>`;
const LOOK = (flags: string) => `<w:tblLook ${flags}/>`;

describe('looks as the standard resolves them', () => {
	it('defaults, then table style, then paragraph style, then direct', async () => {
		const styles =
			'<w:docDefaults><w:rPrDefault><w:rPr><w:rFonts w:ascii="Default"/><w:sz w:val="20"/><w:color w:val="111111"/></w:rPr></w:rPrDefault></w:docDefaults>' +
			TABLE_STYLE('<w:rPr><w:rFonts w:ascii="Table"/><w:sz w:val="22"/><w:color w:val="222222"/></w:rPr>') +
			'<w:style w:type="paragraph" w:styleId="P"><w:name w:val="P"/><w:rPr><w:sz w:val="24"/><w:color w:val="333333"/></w:rPr></w:style>';
		const table = await only({
			styles,
			body: tbl(
				[tr(tc(p('a', { pPr: '<w:pStyle w:val="P"/>', rPr: '<w:color w:val="444444"/>' })), 'b')],
				'<w:tblStyle w:val="T"/>'
			)
		});
		assert.deepEqual(
			[look(table, 0, 0).family, look(table, 0, 0).size, look(table, 0, 0).ink],
			['Table', 12 * 12_700, '#444444']
		);
		assert.deepEqual(
			[look(table, 0, 1).family, look(table, 0, 1).size, look(table, 0, 1).ink],
			['Table', 11 * 12_700, '#222222']
		);
	});
	it('the default paragraph style overrules a table style', async () => {
		const styles =
			TABLE_STYLE('<w:rPr><w:sz w:val="16"/></w:rPr>') +
			'<w:style w:type="paragraph" w:default="1" w:styleId="N"><w:name w:val="Normal"/><w:rPr><w:sz w:val="28"/></w:rPr></w:style>';
		assert.equal(
			look(await only({ styles, body: tbl([tr('a', 'b')], '<w:tblStyle w:val="T"/>') }), 0, 0).size,
			14 * 12_700
		);
	});
	it('toggle properties: bold on bold is not bold', async () => {
		const styles =
			TABLE_STYLE('<w:rPr><w:b/></w:rPr>') +
			'<w:style w:type="paragraph" w:styleId="P"><w:name w:val="P"/><w:rPr><w:b/></w:rPr></w:style>';
		const table = await only({
			styles,
			body: tbl(
				[tr(tc(p('a', { pPr: '<w:pStyle w:val="P"/>' })), tc(p('b', { pPr: '<w:pStyle w:val="P"/>', rPr: '<w:b/>' })))],
				'<w:tblStyle w:val="T"/>'
			)
		});
		assert.equal(look(table, 0, 0).weight, 400);
		assert.equal(look(table, 0, 1).weight, 700, 'said directly it is absolute');
	});
	it('conditional parts by w:tblLook, corners over columns over rows over bands', async () => {
		const part = (type: string, fill: string) =>
			`<w:tblStylePr w:type="${type}"><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="${fill}"/></w:tcPr></w:tblStylePr>`;
		const styles = TABLE_STYLE(
			part('firstRow', '010101') +
				part('firstCol', '020202') +
				part('nwCell', '030303') +
				part('band1Horz', '040404') +
				part('band2Horz', '050505') +
				part('lastRow', '060606')
		);
		const rows = [tr('a', 'b'), tr('c', 'd'), tr('e', 'f'), tr('g', 'h')];
		const on = await only({
			styles,
			body: tbl(
				rows,
				'<w:tblStyle w:val="T"/>' + LOOK('w:firstRow="1" w:lastRow="1" w:firstColumn="1" w:noHBand="0" w:noVBand="1"')
			)
		});
		assert.deepEqual(
			[0, 1, 2, 3].map((r) => look(on, r, 1).fill),
			['#010101', '#040404', '#050505', '#060606']
		);
		assert.deepEqual([look(on, 0, 0).fill, look(on, 1, 0).fill], ['#030303', '#020202']);
		const bits = await only({ styles, body: tbl(rows, '<w:tblStyle w:val="T"/>' + LOOK('w:val="0620"')) });
		assert.deepEqual(
			[0, 1, 3].map((r) => look(bits, r, 1).fill),
			['#010101', 'none', 'none']
		);
	});
	it('style chains, and one that comes back to itself', async () => {
		const styles =
			TABLE_STYLE('<w:tcPr><w:vAlign w:val="bottom"/></w:tcPr>', 'A', '<w:basedOn w:val="B"/>') +
			TABLE_STYLE('<w:rPr><w:i/></w:rPr>', 'B', '<w:basedOn w:val="A"/>');
		const table = await only({ styles, body: tbl([tr('a', 'b')], '<w:tblStyle w:val="A"/>') });
		assert.deepEqual([look(table, 0, 0).v, look(table, 0, 0).italic], ['bottom', true]);
	});
	it('theme colours and fonts, with tint and shade', async () => {
		const theme =
			'<a:theme xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main"><a:themeElements><a:clrScheme name="x"><a:accent1><a:srgbClr val="4472C4"/></a:accent1><a:dk1><a:sysClr val="windowText" lastClr="000000"/></a:dk1></a:clrScheme><a:fontScheme name="x"><a:majorFont><a:latin typeface="Major"/></a:majorFont><a:minorFont><a:latin typeface="Minor"/></a:minorFont></a:fontScheme></a:themeElements></a:theme>';
		const shd = '<w:shd w:val="clear" w:color="auto" w:fill="D9E2F3" w:themeFill="accent1" w:themeFillTint="33"/>';
		const table = await only({
			theme,
			body: tbl([
				tr(
					tc(
						p('a', { rPr: '<w:rFonts w:asciiTheme="minorHAnsi"/><w:color w:val="000000" w:themeColor="text1"/>' }),
						shd
					),
					'b'
				)
			])
		});
		assert.equal(look(table, 0, 0).family, 'Minor');
		assert.equal(look(table, 0, 0).ink, '#000000');
		assert.match(look(table, 0, 0).fill!, /^#D[A-F0-9]E[0-9A-F]F[0-9A-F]$/);
	});
	it('shading patterns and automatic ink', async () => {
		const table = await only({
			body: tbl([
				tr(
					tc('a', '<w:shd w:val="pct50" w:color="000000" w:fill="FFFFFF"/>'),
					tc(p('b', { rPr: '<w:color w:val="auto"/>' }), '<w:shd w:val="clear" w:color="auto" w:fill="102030"/>')
				)
			])
		});
		assert.equal(look(table, 0, 0).fill, '#808080');
		assert.equal(look(table, 0, 1).ink, '#FFFFFF');
	});
	it('borders: eighths of a point, double ones three strokes, table and cell, conflicts', async () => {
		const border = (name: string, rest: string) => `<w:${name} ${rest}/>`;
		const borders = `<w:tblBorders>${border('top', 'w:val="double" w:sz="6" w:color="FF0000"')}${border('insideH', 'w:val="single" w:sz="4" w:color="auto"')}</w:tblBorders>`;
		const own = `<w:tcBorders>${border('bottom', 'w:val="nil"')}</w:tcBorders>`;
		const heavy = `<w:tcBorders>${border('top', 'w:val="single" w:sz="24" w:color="00FF00"')}</w:tcBorders>`;
		const table = await only({ body: tbl([tr('a', tc('b', own)), tr('c', 'd'), tr(tc('e', heavy), 'f')], borders) });
		assert.equal(above(table, 0, 0), 'double 2.25 #FF0000');
		assert.equal(above(table, 1, 0), 'solid 0.5 #000000');
		assert.equal(above(table, 1, 1), 'solid 0.5 #000000', 'none yields to the neighbour’s line');
		assert.equal(above(table, 2, 0), 'solid 3 #00FF00', 'the heavier of two shows');
		assert.equal(above(table, 3, 0), null);
	});
	it('margins at table and cell level, and the standard’s own where nobody says', async () => {
		const mar = (element: string, left: number) => `<w:${element}><w:left w:w="${left}" w:type="dxa"/></w:${element}>`;
		const table = await only({ body: tbl([tr('a', tc('b', mar('tcMar', 300)))], mar('tblCellMar', 200)) });
		assert.deepEqual(
			[look(table, 0, 0).marginStart, look(table, 0, 1).marginStart, look(table, 0, 0).marginEnd],
			[200 * 635, 300 * 635, 115 * 635]
		);
	});
});

describe('tables of a DOCX', () => {
	it('spans, vertical merges, slots left out, wrapped rows and cells', async () => {
		const merged = [
			tr(tc('a', '<w:gridSpan w:val="2"/>'), tc('b', '<w:vMerge w:val="restart"/>')),
			`<w:sdt><w:sdtContent><w:tr>${tc('c')}<w:sdt><w:sdtContent>${tc('d')}</w:sdtContent></w:sdt>${tc('', '<w:vMerge/>')}</w:tr></w:sdtContent></w:sdt>`,
			`<w:tr><w:trPr><w:gridBefore w:val="1"/></w:trPr>${tc('e')}</w:tr>`
		];
		const { table } = await only({ body: tbl(merged, '', 3) });
		assert.deepEqual([table.rows, table.columns], [3, 3]);
		assert.deepEqual(
			table.cells.map(({ r, c, rows, cols, text }) => `${r}${c} ${rows}x${cols} ${text}`),
			['00 1x2 a', '02 2x1 b', '10 1x1 c', '11 1x1 d', '20 1x1 ', '21 1x1 e', '22 1x1 ']
		);
	});
	it('nested ones, with the table they stand in', async () => {
		const inner = tbl([tr('x', '1'), tr('y', '2')]);
		const { tables, blocks } = await read({
			body: p('before') + tbl([tr(`<w:tc>${p('outer')}${inner}${p('after')}</w:tc>`, 'b')]) + p('after')
		});
		assert.deepEqual(
			tables.map(({ place }) => [place.where, place.inside]),
			[
				['body', undefined],
				['nested', 0]
			]
		);
		assert.deepEqual(
			blocks.map(({ kind }) => kind),
			['paragraph', 'table', 'paragraph']
		);
		assert.equal(tables[0]!.table.cells[0]!.text, 'outer\nafter');
		assert.deepEqual(
			tables[0]!.content[0]!.find((piece) => 'nested' in piece),
			{ nested: 1 }
		);
	});
	it('in headers, notes and text boxes, each with its place', async () => {
		const w = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
		const relationship = (kind: string) =>
			`<Relationship Id="${kind}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${kind}" Target="${kind}.xml"/>`;
		const box = `<w:p><w:r><w:pict><w:txbxContent>${tbl([tr('in', 'box')])}</w:txbxContent></w:pict></w:r></w:p>`;
		const { tables } = await read({
			body: box,
			relationships: relationship('header') + relationship('footnotes'),
			extra: {
				'word/header.xml': `<w:hdr ${w}>${tbl([tr('a', 'b')])}</w:hdr>`,
				'word/footnotes.xml': `<w:footnotes ${w}><w:footnote>${tbl([tr('c', 'd')])}</w:footnote></w:footnotes>`
			}
		});
		assert.deepEqual(
			tables.map(({ place, table }) => `${place.where} ${table.cells[0]!.text}`),
			['text box in', 'header a', 'notes c']
		);
	});
	it('headings above, captions, header flags; deleted text does not count', async () => {
		const styles = '<w:style w:type="paragraph" w:styleId="H1"><w:name w:val="heading 1"/></w:style>';
		const row = `<w:tr><w:trPr><w:tblHeader/></w:trPr>${tc('Item')}${tc(`<w:p><w:del><w:r><w:delText>old</w:delText></w:r></w:del><w:ins><w:r><w:t>Cost</w:t></w:r></w:ins></w:p>`)}</w:tr>`;
		const table = await only({
			styles,
			body: p('Money', { pPr: '<w:pStyle w:val="H1"/>' }) + p('Table 1: What it cost') + tbl([row, ...LEDGER.slice(1)])
		});
		assert.deepEqual([table.place.heading, table.place.caption], ['Money', 'Table 1: What it cost']);
		assert.equal(table.table.columnInfo[1]!.name, 'Cost');
		assert.equal(table.recognition.rows[0]!.reasons[0], 'the file calls it a header row');
		assert.deepEqual(table.table.roles, ['header:1', 'body', 'body', 'total']);
	});
	it('under other prefixes, and in strict documents', async () => {
		const source = `<x:document xmlns:x="http://purl.oclc.org/ooxml/wordprocessingml/main"><x:body><x:tbl><x:tblPr/><x:tr><x:tc><x:p><x:r><x:t>a</x:t></x:r></x:p></x:tc></x:tr></x:tbl></x:body></x:document>`;
		const document = await readDocx(await docx({ body: '', extra: { 'word/document.xml': source } }));
		assert.equal(document.tables[0]!.table.cells[0]!.text, 'a');
		assert.ok(document.strict);
	});
});

describe('documents that are none', () => {
	const refuses = (name: string, make: () => Promise<Uint8Array<ArrayBuffer>>, code: string) =>
		it(name, async () => {
			await assert.rejects(readDocx(await make()), (error) => error instanceof InputError && error.code === code);
		});
	refuses(
		'without a main part',
		() =>
			zipOf({
				'[Content_Types].xml': '<Types/>',
				'_rels/.rels': '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"/>'
			}),
		'no-main-part'
	);
	refuses(
		'with a main part that is missing',
		() =>
			zipOf({
				'_rels/.rels':
					'<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="a" Type="x/officeDocument" Target="gone.xml"/></Relationships>'
			}),
		'no-main-part'
	);
	refuses(
		'of another kind',
		() => docx({ body: '', extra: { 'word/document.xml': '<workbook/>' } }),
		'wrong-namespace'
	);
	refuses('that are not well-formed', () => docx({ body: '<w:p>' }), 'xml');
	refuses(
		'with a document type',
		() => docx({ body: '', extra: { 'word/document.xml': '<!DOCTYPE x [<!ENTITY e "boom">]><x>&e;</x>' } }),
		'xml'
	);
	refuses(
		'with a table of absurd size',
		() => docx({ body: tbl(Array(5000).fill(tr(tc('a', '<w:gridSpan w:val="999999"/>')))) }),
		'too-large'
	);
	it('and one without a table is a document without a table', async () =>
		assert.deepEqual((await read({ body: p('only text') })).tables, []));
});
