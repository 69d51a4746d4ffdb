import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { InputError } from '../../../src/lib/core/errors.ts';
import { gridFault } from '../../../src/lib/core/table/grid.ts';
import { openDocument, writeAs } from '../../../src/lib/formats/index.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';
import { makeOdt } from '../../../src/lib/formats/odt/make.ts';
import { docx, LEDGER, p, tbl, tc, tr } from './documents.ts';
import { zipOf } from './zip.ts';
import { runs } from '../runs.ts';

type Bytes = Uint8Array<ArrayBuffer>;
const utf8 = (text: string): Bytes => new TextEncoder().encode(text);
const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const options = { house: FIRST_HOUSE, find, title: 'Broken' };
const quiet = find('Quiet Lines')!;

/** Opens a file and gives its tables a style; a sentence where that cannot be, and nothing else that is thrown. */
async function takes(bytes: Bytes, name: string): Promise<string | number> {
	try {
		const document = await openDocument(bytes, name);
		for (const { table, content, appearance } of [...document.tables, ...((await document.whole?.())?.tables ?? [])]) {
			assert.equal(gridFault(table), undefined);
			assert.equal(content.length, table.cells.length);
			assert.equal(appearance.cellLook.length, table.cells.length);
		}
		const jobs = document.tables.map(({ index, table }) => ({ index, table, style: quiet }));
		const { bytes: out } = await writeAs(document.kind, document, jobs, options);
		assert.equal((await openDocument(out, name)).tables.length, document.tables.length);
		return document.tables.length;
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		assert.ok(error.message.length > 20, error.message);
		return error.code;
	}
}

const CONTENT =
	'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0"';
const flat = (tables: string, styles = ''): Bytes =>
	utf8(
		`<office:document ${CONTENT} office:mimetype="application/vnd.oasis.opendocument.text"><office:automatic-styles>${styles}</office:automatic-styles><office:body><office:text>${tables}</office:text></office:body></office:document>`
	);
const odtTable = (rows: string) => `<table:table>${rows}</table:table>`;
const odtRow = (cells: string) => `<table:table-row>${cells}</table:table-row>`;
const odtCell = (attributes = '') => `<table:table-cell ${attributes}><text:p>x</text:p></table:table-cell>`;
const bomb = () => zipOf({ 'word/document.xml': new Uint8Array(300 * 2 ** 20) });

/** What each broken file is answered with: a number of tables where it is only odd, else the code of the refusal. */
const BROKEN: Record<string, Record<string, [file: () => Bytes | Promise<Bytes>, answer: string | number]>> = {
	docx: {
		'cut off': [async () => (await docx({ body: tbl(LEDGER) })).slice(0, 700), 'truncated'],
		'no package': [() => utf8('PK, it says, but it is a letter'), 'truncated'],
		'without its main part': [() => zipOf({ 'word/styles.xml': '<a/>' }), 'no-main-part'],
		'with entities': [
			async () => {
				const whole = await Package.open(await docx({ body: tbl(LEDGER) }), 'a DOCX document');
				const main = (await whole.text('word/document.xml'))!.replace(
					'<w:document',
					'<!DOCTYPE x [<!ENTITY a "b">]><w:document'
				);
				return whole.rewrite(new Map([['word/document.xml', main]]));
			},
			'xml'
		],
		'a thousand deep': [() => docx({ body: tbl(LEDGER) + '<w:ins>'.repeat(3_000) + '</w:ins>'.repeat(3_000) }), 'xml'],
		'with a span of two thousand millions': [
			() => docx({ body: tbl([tr('a', 'b'), `<w:tr>${tc(p('x'), '<w:gridSpan w:val="2000000000"/>')}</w:tr>`]) }),
			1
		],
		'with vertical merges that begin nowhere': [
			() => docx({ body: tbl([`<w:tr>${tc(p('x'), '<w:vMerge/>')}${tc(p('y'))}</w:tr>`, tr('a', 'b')]) }),
			1
		],
		'with styles based on each other': [
			() =>
				docx({
					body: tbl(LEDGER, '<w:tblStyle w:val="A"/>'),
					styles:
						'<w:style w:type="table" w:styleId="A"><w:name w:val="A"/><w:basedOn w:val="B"/></w:style><w:style w:type="table" w:styleId="B"><w:name w:val="B"/><w:basedOn w:val="A"/></w:style>'
				}),
			1
		],
		'that swells to 300 MB': [bomb, 'too-large']
	},
	odt: {
		'cut off': [
			async () => (await makeOdt(await openDocument(await docx({ body: tbl(LEDGER) }), 'x.docx'))).slice(0, 700),
			'truncated'
		],
		'without content': [() => zipOf({ mimetype: 'application/vnd.oasis.opendocument.text' }), 'no-main-part'],
		'with entities': [
			() => utf8(`<!DOCTYPE a [<!ENTITY b "c">]><office:document ${CONTENT}>&b;</office:document>`),
			'xml'
		],
		'a thousand deep': [() => flat('<text:section>'.repeat(3_000) + '</text:section>'.repeat(3_000)), 'xml'],
		'with a million columns': [
			() => flat(odtTable(odtRow(odtCell('table:number-columns-repeated="1000000"')).repeat(10))),
			'too-large'
		],
		'with spans over each other': [
			() =>
				flat(
					odtTable(
						odtRow(odtCell() + odtCell('table:number-rows-spanned="3" table:number-columns-spanned="9"')) +
							odtRow(odtCell('table:number-columns-spanned="4"') + odtCell())
					)
				),
			1
		],
		'with styles that are their own parents': [
			() =>
				flat(
					odtTable(odtRow(odtCell('table:style-name="A"'))),
					'<style:style style:name="A" style:family="table-cell" style:parent-style-name="B"/><style:style style:name="B" style:family="table-cell" style:parent-style-name="A"/>'
				),
			1
		]
	},
	html: {
		'cut off in a tag': [() => utf8('<table><tr><td>a<td styl'), 1],
		'with entities of its own': [() => utf8('<!DOCTYPE html [<!ENTITY b "c">]><table><tr><td>&b;</table>'), 1],
		'a thousand deep': [() => utf8('<div>'.repeat(3_000) + '<table><tr><td>a</table>'), 'depth'],
		'with tables nested a thousand deep': [() => utf8('<table><tr><td>'.repeat(1_000)), 'depth'],
		'with giant spans': [
			() => utf8(`<table>${'<tr><td rowspan=65534 colspan=1000>a'.repeat(40)}${'<tr><td>b'.repeat(3_000)}</table>`),
			'too-large'
		],
		'with spans over each other': [() => utf8('<table><tr><td>a<td rowspan=2>b<tr><td colspan=2>c</table>'), 1],
		'with styles that come back to themselves': [
			() => utf8('<style>td{--a:var(--b);--b:var(--a);color:var(--a)}</style><table><tr><td>a</table>'),
			1
		],
		'in no encoding': [
			() => new Uint8Array([0x3c, 0x74, 0x61, 0x62, 0x6c, 0x65, 0x3e, 0xff, 0xfe, 0x80, 0xc3, 0x28]),
			0
		]
	},
	csv: {
		'with a quote that never ends': [() => utf8('a,b\n"c,d\n'), 'quote'],
		'with a million empty columns': [() => utf8(`a${','.repeat(1_000_000)}\nb,c\n`), 1],
		'with a million columns that say something': [
			() => utf8(`${'a,'.repeat(1_500_000)}\n${'b,'.repeat(1_500_000)}\n`),
			'too-large'
		],
		'of nothing but line ends': [() => utf8('\n\n\r\n'), 'empty'],
		'that is a picture': [() => new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13]), 'not-text'],
		'with rows of any length': [() => utf8('a\nb,c,d\ne,f\n'), 1]
	}
};
for (const [kind, cases] of Object.entries(BROKEN))
	describe(`a ${kind.toUpperCase()} file`, () => {
		for (const [name, [file, answer]] of Object.entries(cases))
			it(`${name}: ${typeof answer === 'number' ? 'is read' : 'is refused'}`, { timeout: 5_000 }, async () =>
				assert.equal(await takes(await file(), `broken.${kind}`), answer)
			);
	});

/** Somewhere in a text, anywhere alike: doubles are mostly next to nothing. */
const anyPlace = fc.nat(9_999).map((place) => place / 10_000);

/** Ways in which bytes go wrong on their way: gone, doubled, overwritten, strange ones put in between. */
const damage = fc
	.array(
		fc.tuple(
			anyPlace,
			fc.integer({ min: 0, max: 30 }),
			fc.oneof(
				fc.constantFrom(
					'',
					'<',
					'>',
					'"',
					'&',
					'-5',
					'99999999999',
					'\0',
					'\u001f',
					'\ufeff',
					'<td',
					'</',
					',',
					';',
					'\n',
					'"'
				),
				fc.string({ maxLength: 5 })
			)
		),
		{ minLength: 1, maxLength: 4 }
	)
	.map((changes) => (text: string): string => {
		for (const [place, length, put] of changes) {
			const at = Math.floor(place * text.length);
			text = text.slice(0, at) + put + text.slice(at + length);
		}
		return text;
	});

/** Files of each kind. */
const DAMAGED = runs(180);

describe('damaged files of each kind: refused with a sentence, or read and written whole', () => {
	const valid: Record<string, string> = {
		odt: new TextDecoder().decode(
			flat(
				odtTable(
					odtRow(odtCell('table:number-columns-spanned="2" table:style-name="A"') + '<table:covered-table-cell/>') +
						odtRow(odtCell('table:number-columns-repeated="2"'))
				),
				'<style:style style:name="A" style:family="table-cell"><style:table-cell-properties fo:background-color="#aabbcc" fo:padding="1mm"/></style:style>'
			)
		),
		html: '<!DOCTYPE html><style>td{color:#123456;border:1px solid}.a>td{padding:2pt}</style><table class=a><caption>Beds</caption><thead><tr><th colspan=2>Bed<tbody><tr><td rowspan=2 style="background:#eee">a<td>1<tr><td>2</table><p>x',
		csv: 'Bed;Plants;Cost\n"North; upper";12;10,50\nSouth;8;"5,00"\nTotal;20;15,50\n'
	};
	for (const [kind, text] of Object.entries(valid))
		it(kind, async () => {
			let read = 0;
			await fc.assert(
				fc.asyncProperty(damage, async (change) => {
					if (typeof (await takes(utf8(change(text)), `damaged.${kind}`)) === 'number') read++;
				}),
				{ numRuns: 2 * DAMAGED }
			);
			// Of an ODT about one in forty.
			assert.ok(read > 0, 'some are only odd, and are read');
		});
	it('packages, byte by byte', async () => {
		const bytes = await docx({ body: tbl(LEDGER) });
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.tuple(fc.nat(bytes.length - 1), fc.nat(255)), { minLength: 1, maxLength: 6 }),
				async (changes) => {
					const changed = bytes.slice();
					for (const [at, byte] of changes) changed[at] = byte;
					await takes(changed, 'damaged.docx');
				}
			),
			{ numRuns: DAMAGED }
		);
	});
});
