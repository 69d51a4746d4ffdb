import assert from 'node:assert/strict';
import { before, describe, it } from 'node:test';
import { Uint8ArrayReader, Uint8ArrayWriter, ZipReader, type FileEntry } from '@zip.js/zip.js';
import fc from 'fast-check';
import mammoth from 'mammoth';
import { handbook } from '../../../../demo/documents/handbook.ts';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { appearanceOf } from '../../../../src/lib/core/cascade/look.ts';
import { resolve } from '../../../../src/lib/core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { flatten } from '../../../../src/lib/core/style/inherit.ts';
import { ASPECTS, type Style } from '../../../../src/lib/core/style/types.ts';
import { fromPoints } from '../../../../src/lib/core/units.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { compare } from '../../../../src/lib/formats/read-back.ts';
import { type Travel } from '../../../../src/lib/formats/job.ts';
import { SAYABLE, writeDocx } from '../../../../src/lib/formats/docx/write.ts';
import { parseXml } from '../../../../src/lib/formats/package/xml.ts';
import { Package } from '../../../../src/lib/formats/package/zip.ts';
import { line, style } from '../../support.ts';
import { anyStyle } from '../../core/any.ts';
import { docx, LEDGER, tbl, tc, tr, type Parts } from '../documents.ts';
import { zipOf } from '../zip.ts';
import { runs } from '../../runs.ts';

const find = (name: string) => DEMO_STYLES.find((other) => other.name === name);
type Bytes = Uint8Array<ArrayBuffer>;

async function apply(
	bytes: Bytes,
	house: Style,
	options: { as?: Travel; tables?: number[]; change?: object; dropsEmphasis?: boolean } = {}
) {
	const document = await readDocx(bytes);
	const jobs = document.tables
		.filter(({ index }) => options.tables?.includes(index) ?? true)
		.map(({ index, table }) => ({
			index,
			style: house,
			table: { ...table, ...options.change },
			dropsEmphasis: options.dropsEmphasis
		}));
	return writeDocx(document, jobs, { house: FIRST_HOUSE, find, ...(options.as && { as: options.as }) });
}
const main = async (bytes: Bytes, name = 'word/document.xml') => (await (await Package.open(bytes, 'x')).text(name))!;
const plainText = async (bytes: Bytes) => (await mammoth.extractRawText({ buffer: Buffer.from(bytes) })).value;
async function rawEntries(bytes: Bytes) {
	const entries = (await new ZipReader(new Uint8ArrayReader(bytes)).getEntries()) as FileEntry[];
	return new Map(
		await Promise.all(
			entries.map(
				async (entry) =>
					[
						entry.filename,
						Buffer.from(await entry.getData(new Uint8ArrayWriter(), { passThrough: true })).toString('base64')
					] as const
			)
		)
	);
}

describe('the demo documents in every demo style', () => {
	const documents: Record<string, Bytes> = {};
	before(async () => {
		documents['season report'] = await seasonReport();
		documents['handbook'] = await handbook();
	});
	for (const name of ['season report', 'handbook'])
		for (const house of DEMO_STYLES)
			it(`${name} in ${house.name}: as intended, text the same, the rest untouched`, async () => {
				const bytes = documents[name]!;
				const { bytes: out, account } = await apply(bytes, house);
				for (const table of account.tables) assert.deepEqual(table.differences, [], `table ${table.index + 1}`);
				assert.equal(await plainText(out), await plainText(bytes));
				const [old, now] = [await rawEntries(bytes), await rawEntries(out)];
				const changed = [...old].filter(([entry, data]) => now.get(entry) !== data).map(([entry]) => entry);
				assert.deepEqual(changed.sort(), [
					'[Content_Types].xml',
					'word/_rels/document.xml.rels',
					'word/document.xml',
					'word/styles.xml'
				]);
			});
	it('says all directly, or only what a living style can say, when asked to', async () => {
		const bytes = documents['season report']!;
		const ledger = find('Season Ledger')!;
		const direct = await apply(bytes, ledger, { as: 'direct' });
		assert.deepEqual(
			direct.account.tables.flatMap(({ differences }) => differences),
			[]
		);
		assert.equal(await main(direct.bytes, 'word/styles.xml'), await main(bytes, 'word/styles.xml'));
		const living = await apply(bytes, ledger, { as: 'living-only' });
		assert.ok(living.account.tables.every(({ direct }) => direct === 0));
		assert.ok(living.account.tables.some(({ lostWhat }) => lostWhat['living style only']! > 0));
	});
	it('changes the chosen tables only, byte for byte', async () => {
		const bytes = documents['season report']!;
		const { bytes: out } = await apply(bytes, find('Quiet Lines')!, { tables: [2] });
		const [before, after] = [await main(bytes), await main(out)];
		const split = (text: string) => text.split(/(?=<w:tbl>)/);
		const [old, now] = [split(before), split(after)];
		assert.deepEqual(
			now.map((piece, i) => (piece === old[i] ? 0 : i)).filter(Boolean),
			[3],
			'pieces begin with what is before the first table'
		);
		assert.equal(
			now[3]!.slice(now[3]!.lastIndexOf('</w:tbl>')),
			old[3]!.slice(old[3]!.lastIndexOf('</w:tbl>')),
			'also what follows the table'
		);
	});
	it('can be applied twice, and again in another style, without residue', async () => {
		const once = await apply(documents['season report']!, find('Beacon')!);
		const twice = await apply(once.bytes, find('Beacon')!);
		assert.equal(await main(twice.bytes), await main(once.bytes));
		const other = await apply(once.bytes, find('North Wall')!);
		assert.deepEqual(
			other.account.tables.flatMap(({ differences }) => differences),
			[]
		);
	});
	it('brings style, roles, parts and touches back', async () => {
		const bytes = documents['season report']!;
		const touches = [{ r: 1, c: 1, set: { fill: { ink: 'marigold' } } }];
		const { bytes: out, account } = await apply(bytes, find('Season Ledger')!, {
			tables: [1],
			change: { partsOff: ['rowBand'], touches }
		});
		assert.deepEqual(account.tables[0]!.differences, []);
		const back = await readDocx(out);
		assert.deepEqual(
			back.styles.map(({ name, bases }) => [name, bases?.map((base) => base.name)]),
			[['Season Ledger', ['House base']]]
		);
		assert.equal(back.tables[1]!.carried!.style, 'Season Ledger');
		assert.deepEqual([back.tables[1]!.table.partsOff, back.tables[1]!.table.touches], [['rowBand'], touches]);
		assert.equal(back.tables[0]!.carried, null);
		assert.equal(back.tables[1]!.wornName, 'Season Ledger');
	});
});

const one = (parts: Partial<Parts> & { body?: string }) => docx({ body: tbl(LEDGER), ...parts });
const HOUSE = style({
	ground: {
		text: { family: 'Source Sans 3', size: '9pt', weight: 400, ink: '#112233' },
		fill: { ink: 'none' },
		lines: { top: line('solid', '1pt', 'fern'), bottom: line('double', '2.25pt', 'fern'), betweenRows: line('none') }
	},
	header: { fill: { ink: 'fern' }, text: { weight: 700, ink: 'paper' } },
	total: { text: { weight: 700 }, lines: { top: line('solid', '1.5pt', 'fern') } }
});
const proved = async (bytes: Bytes, house = HOUSE) => {
	const result = await apply(bytes, house);
	assert.deepEqual(
		result.account.tables.flatMap(({ differences }) => differences),
		[]
	);
	return result;
};

describe('traps', () => {
	it('relationships and content types that say nothing yet, or with a prefix of their own', async () => {
		const types = 'http://schemas.openxmlformats.org/package/2006/content-types';
		const relations = 'http://schemas.openxmlformats.org/package/2006/relationships';
		for (const rels of [
			`<Relationships xmlns="${relations}"/>`,
			`<Relationships xmlns="${relations}" />\n<!-- none -->`,
			`<r:Relationships xmlns:r="${relations}"></r:Relationships>`,
			`<r:Relationships xmlns:r="${relations}"/>`
		]) {
			const bytes = await docx({
				body: tbl(LEDGER),
				extra: {
					'word/_rels/document.xml.rels': `<?xml version="1.0"?>${rels}`,
					'[Content_Types].xml': `<?xml version="1.0"?><c:Types xmlns:c="${types}"><c:Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><c:Default Extension="xml" ContentType="application/xml"/><c:Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></c:Types>`
				}
			});
			const { bytes: out, account } = await apply(bytes, DEMO_STYLES[0]!);
			assert.deepEqual(account.tables[0]!.differences, []);
			const back = await readDocx(out);
			assert.equal(back.tables[0]!.carried?.style, DEMO_STYLES[0]!.name, rels);
			for (const name of ['word/_rels/document.xml.rels', '[Content_Types].xml'])
				parseXml(await main(out, name), name, { namespaces: new Map() });
		}
	});
	it('a default paragraph style that sets font, size and colour', async () => {
		const styles =
			'<w:style w:type="paragraph" w:default="1" w:styleId="N"><w:name w:val="Normal"/><w:rPr><w:rFonts w:ascii="Old"/><w:sz w:val="30"/><w:color w:val="FF00FF"/></w:rPr></w:style>';
		const { bytes } = await proved(await one({ styles }));
		const { appearance } = (await readDocx(bytes)).tables[0]!;
		const { family, size, ink } = appearance.looks[appearance.cellLook[2]!]!;
		assert.deepEqual([family, size, ink], ['Source Sans 3', 9 * 12_700, '#112233']);
	});
	it('a paragraph style that is bold, under a style that is bold', async () => {
		const styles = '<w:style w:type="paragraph" w:styleId="B"><w:name w:val="B"/><w:rPr><w:b/></w:rPr></w:style>';
		await proved(
			await one({
				styles,
				body: tbl(LEDGER.map((row) => row.replaceAll('<w:p>', '<w:p><w:pPr><w:pStyle w:val="B"/></w:pPr>')))
			})
		);
	});
	it('local fixes that fight the style are gone, emphasis inside the text stays', async () => {
		const fixed = `<w:p><w:pPr><w:jc w:val="right"/><w:rPr><w:b/></w:rPr></w:pPr><w:r><w:rPr><w:rFonts w:ascii="Old"/><w:color w:val="FF0000"/><w:sz w:val="40"/></w:rPr><w:t xml:space="preserve">one </w:t></w:r><w:r><w:rPr><w:b/><w:color w:val="FF0000"/><w:vertAlign w:val="superscript"/></w:rPr><w:t>two</w:t></w:r></w:p>`;
		const { bytes } = await proved(
			await one({
				body: tbl([
					...LEDGER.slice(0, 2),
					tr(
						tc(
							fixed,
							'<w:tcW w:w="2000" w:type="dxa"/><w:shd w:val="clear" w:fill="FFFF00"/><w:vAlign w:val="bottom"/>'
						),
						'1.00'
					)
				])
			})
		);
		const text = await main(bytes);
		assert.ok(
			!text.includes('FFFF00') && !text.includes('w:val="40"') && !text.includes('"Old"') && !text.includes('FF0000')
		);
		assert.match(text, /<w:rPr><w:b\/><w:vertAlign w:val="superscript"\/><\/w:rPr><w:t>two/);
		assert.match(text, /<w:tcW w:w="2000" w:type="dxa"\/>/);
	});
	it('cell spacing, exceptions of rows, cached conditional flags', async () => {
		const row = `<w:tr><w:tblPrEx><w:tblBorders><w:top w:val="single" w:sz="40"/></w:tblBorders></w:tblPrEx><w:trPr><w:cnfStyle w:val="100000000000"/><w:tblCellSpacing w:w="20"/></w:trPr>${tc('Item', '<w:cnfStyle w:val="001000000000"/>')}${tc('Cost')}</w:tr>`;
		const { bytes } = await proved(
			await one({ body: tbl([row, ...LEDGER.slice(1)], '<w:tblCellSpacing w:w="20" w:type="dxa"/>') })
		);
		const text = await main(bytes);
		assert.ok(!/tblCellSpacing|cnfStyle|tblPrEx/.test(text));
	});
	it('comments, fields, bookmarks, tracked changes and unknown markup stay', async () => {
		const odd =
			'<w:p><w:bookmarkStart w:id="1" w:name="b"/><w:ins w:id="2" w:author="x"><w:r><w:t>new</w:t></w:r></w:ins><w:del w:id="3" w:author="x"><w:r><w:rPr><w:i/></w:rPr><w:delText>old</w:delText></w:r></w:del>' +
			'<w:r><w:fldChar w:fldCharType="begin"/></w:r><w:r><w:instrText>PAGE</w:instrText></w:r><w:r><w:fldChar w:fldCharType="end"/></w:r><!-- note --><u:thing xmlns:u="urn:u" u:a=\'1\'><u:b/></u:thing><w:bookmarkEnd w:id="1"/></w:p>';
		const { bytes } = await proved(await one({ body: tbl([LEDGER[0]!, tr(tc(odd), '12.00'), ...LEDGER.slice(2)]) }));
		const text = await main(bytes);
		for (const kept of [
			'<w:bookmarkStart w:id="1" w:name="b"/>',
			'<w:rPr><w:i/></w:rPr><w:delText>old',
			'<w:instrText>PAGE',
			'<!-- note -->',
			`<u:thing xmlns:u="urn:u" u:a='1'><u:b/></u:thing>`
		])
			assert.ok(text.includes(kept), kept);
	});
	it('rows, cells, paragraphs and runs written without an end tag', async () => {
		await proved(
			await one({
				body: tbl([
					LEDGER[0]!,
					`<w:tr>${tc('<w:p/>')}<w:tc><w:tcPr/><w:p><w:pPr/><w:r/></w:p></w:tc></w:tr>`,
					...LEDGER.slice(1)
				])
			})
		);
	});
	it('another prefix, and none', async () => {
		const W = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
		const source = (element: string, attribute: string, declared: string) =>
			`<${element}document ${declared}><${element}body>${tbl(LEDGER).replaceAll('<w:', `<${element}`).replaceAll('</w:', `</${element}`).replaceAll(' w:', ` ${attribute}`)}</${element}body></${element}document>`;
		await proved(await one({ extra: { 'word/document.xml': source('ns0:', 'ns0:', `xmlns:ns0="${W}"`) } }));
		await proved(await one({ extra: { 'word/document.xml': source('', 'v:', `xmlns="${W}" xmlns:v="${W}"`) } }));
		const { bytes } = await proved(
			await one({ extra: { 'word/document.xml': source('', 'q:', `xmlns="${W}" xmlns:q="urn:q"`) } })
		);
		assert.match(await main(bytes), / xmlns:w="/, 'a prefix for attributes is declared where there is none');
	});
	it('rows that begin later and end earlier than the others', async () => {
		const short = `<w:tr><w:trPr><w:gridBefore w:val="1"/></w:trPr>${tc('late')}</w:tr>`;
		await proved(await one({ body: tbl([LEDGER[0]!, short, ...LEDGER.slice(1), tr('early')], '', 3) }));
	});
	it('a merged cell whose side shows different lines', async () => {
		const rows = [tr(tc('wide', '<w:gridSpan w:val="2"/>')), tr('a', '1.00'), tr('b', '2.00')];
		await proved(
			await one({ body: tbl(rows) }),
			style({
				ground: { lines: { betweenRows: line('solid', '1pt', 'fern') } },
				firstColumn: { lines: { top: line('solid', '3pt', 'rust'), betweenRows: line('dashed', '2pt', 'rust') } }
			})
		);
	});
	it('an aspect that is not carried looks as before, though the table style is another', async () => {
		const styles =
			'<w:style w:type="table" w:styleId="Old"><w:name w:val="Old"/><w:tblPr><w:tblBorders><w:insideH w:val="single" w:sz="12" w:color="00AA00"/></w:tblBorders></w:tblPr><w:tcPr><w:shd w:val="clear" w:color="auto" w:fill="ABCDEF"/></w:tcPr></w:style>';
		const bytes = await one({ styles, body: tbl(LEDGER, '<w:tblStyle w:val="Old"/>') });
		const { bytes: out, account } = await apply(bytes, HOUSE, {
			change: { carry: ASPECTS.filter((aspect) => aspect === 'text') }
		});
		assert.deepEqual(account.tables[0]!.differences, []);
		const { appearance, table } = (await readDocx(out)).tables[0]!;
		assert.equal(appearance.looks[appearance.cellLook[0]!]!.fill, '#ABCDEF');
		assert.equal(appearance.lines[appearance.across[table.columns]!]!.ink, '#00AA00');
	});
	it('a style name that the file uses for something else', async () => {
		const styles = '<w:style w:type="paragraph" w:styleId="x"><w:name w:val="test"/></w:style>';
		const { bytes } = await proved(await one({ styles }));
		assert.match(await main(bytes, 'word/styles.xml'), /<w:name w:val="Test \(house\)"\/>/);
	});
	it('header rows repeat, rows keep together, where the style says so', async () => {
		const { bytes } = await proved(
			await one({}),
			style({ ground: { keep: { together: true } }, 'rowBand:1': { keep: { withNext: true } } })
		);
		const text = await main(bytes);
		assert.equal(text.match(/<w:cantSplit\/>/g)?.length, 4);
		assert.equal(text.match(/<w:tblHeader\/>/g)?.length, 1);
		assert.ok(text.includes('<w:keepNext/>'));
	});
	it('what the format cannot say is said in the account', async () => {
		const { account } = await apply(
			await one({}),
			style({ ground: { text: { weight: 300, case: 'title' } }, 'columns:money': { format: { decimals: 2 } } })
		);
		assert.deepEqual(Object.keys(account.tables[0]!.lostWhat).sort(), ['case', 'number formats', 'weight']);
	});
});

describe('the read-back', () => {
	it('finds every way in which a file differs from what was wanted', async () => {
		const document = await readDocx(await one({}));
		const { table, appearance } = document.tables[0]!;
		const wanted = appearanceOf(resolve(table, flatten(HOUSE), FIRST_HOUSE));
		const what = new Set(compare(table, wanted, appearance, SAYABLE).map(({ what }) => what));
		assert.deepEqual([...what].sort(), ['fill', 'line above', 'text ink', 'type family', 'type size', 'weight']);
	});
	it('says lines in words, those across a cell, too', async () => {
		const document = await readDocx(await one({}));
		const { table, appearance } = document.tables[0]!;
		const diagonalDown = { pattern: 'solid', weight: fromPoints(1.5), ink: '#0000FF' } as const;
		const wanted = { ...appearance, looks: appearance.looks.map((look) => ({ ...look, diagonalDown })) };
		const [first] = compare(table, wanted, appearance, SAYABLE);
		assert.deepEqual([first!.what, first!.wanted, first!.got], ['diagonal down', 'solid 1.5pt #0000FF', 'nothing']);
	});
});

describe('any style on any table', () => {
	it('shows as intended when read back', async () => {
		const bytes = await one({
			body: tbl(
				[
					tr(tc('Wide', '<w:gridSpan w:val="3"/>')),
					tr('Item', 'Cost', 'Number'),
					tr('Seed', '12.00', '3'),
					tr(tc('Glass', '<w:vMerge w:val="restart"/>'), '30.50', '4'),
					tr(tc('', '<w:vMerge/>'), '1.50', '5'),
					tr('Total', '44.00', '12')
				],
				'',
				3
			)
		});
		await fc.assert(
			fc.asyncProperty(anyStyle, fc.subarray([...ASPECTS]), async (any, carry) => {
				const { account, bytes: out } = await apply(bytes, any, { change: { carry } });
				assert.deepEqual(account.tables[0]!.differences, []);
				assert.equal(await plainText(out), await plainText(bytes));
			}),
			{ numRuns: runs(50) }
		);
	});
});

describe('what a DOCX says of its tables beside their cells', () => {
	const lookOf = ({ tables }: Awaited<ReturnType<typeof readDocx>>, i = 0) => {
		const { appearance } = tables[0]!;
		return appearance.looks[appearance.cellLook[i]!]!;
	};
	it('a shading of the whole table shows in cells that have none, and goes where the fill is the style’s', async () => {
		const bytes = await docx({
			body: tbl(
				[tr(tc('a', '<w:shd w:val="clear" w:fill="FFEE00"/>'), 'b')],
				'<w:shd w:val="clear" w:color="auto" w:fill="CFE8D5"/>'
			)
		});
		const document = await readDocx(bytes);
		assert.deepEqual([lookOf(document, 0).fill, lookOf(document, 1).fill], ['#FFEE00', '#CFE8D5']);
		for (const change of [{}, { carry: ['text'] }]) {
			const { bytes: after, account } = await apply(bytes, LEDGER_STYLE, { change });
			assert.deepEqual(account.tables[0]!.differences, []);
			assert.equal(lookOf(await readDocx(after), 1).fill === '#CFE8D5', 'carry' in change);
		}
	});
	const shd = (fill: string) => `<w:shd w:val="clear" w:color="auto" w:fill="${fill}"/>`;
	const shadedStyles =
		`<w:style w:type="paragraph" w:styleId="P"><w:name w:val="P"/><w:pPr>${shd('CFE8D5')}</w:pPr></w:style>` +
		`<w:style w:type="character" w:styleId="C"><w:name w:val="C"/><w:rPr>${shd('FFEE00')}</w:rPr></w:style>`;
	const words = (text: string, rPr = '') => `<w:r><w:rPr>${rPr}</w:rPr><w:t xml:space="preserve">${text}</w:t></w:r>`;
	const says = (pPr: string, ...runs: string[]) => tc(`<w:p><w:pPr>${pPr}</w:pPr>${runs.join('')}</w:p>`);
	it('what is behind all words is the fill that shows, of letters over paragraphs over cells, by style and directly', async () => {
		const cell = '<w:shd w:val="clear" w:fill="102030"/>';
		const body = tbl([
			tr(
				says(shd('CFE8D5'), words('a')),
				says('<w:pStyle w:val="P"/>', words('b')),
				says('<w:pStyle w:val="P"/>', words('c', shd('FFEE00')), words('d', `<w:b/>${shd('FFEE00')}`)),
				says('', words('e', '<w:rStyle w:val="C"/>'))
			),
			tr(
				says('', words('f'), words('g', shd('FFEE00'))),
				tc(`<w:p>${words('h', shd('auto'))}</w:p>`, cell),
				says(`<w:pStyle w:val="P"/>${shd('auto')}`, words('i')),
				tc(`<w:p><w:pPr>${shd('CFE8D5')}</w:pPr>${words('j')}</w:p><w:p>${words('k')}</w:p>`, cell)
			)
		]);
		const bytes = await docx({ styles: shadedStyles, body });
		const fills = async (from: Bytes) => {
			const document = await readDocx(from);
			return Array.from({ length: 8 }, (_, i) => lookOf(document, i).fill);
		};
		const shown = ['#CFE8D5', '#CFE8D5', '#FFEE00', '#FFEE00', 'none', '#102030', 'none', '#102030'];
		assert.deepEqual(await fills(bytes), shown);
		for (const carry of [[...ASPECTS], ASPECTS.filter((aspect) => aspect !== 'fill')])
			for (const as of ['living', 'direct', 'living-only'] as const)
				for (const dropsEmphasis of [true, false]) {
					const { bytes: after, account } = await apply(bytes, LEDGER_STYLE, { as, change: { carry }, dropsEmphasis });
					const { differences } = account.tables[0]!;
					const markup = await main(after);
					if (as !== 'living-only') assert.deepEqual(differences, [], `${as}, ${carry.join()}`);
					if (!(carry as readonly string[]).includes('fill')) {
						assert.deepEqual(await fills(after), shown, as);
						assert.equal(markup.match(/w:fill="FFEE00"/g)?.length, 3, 'what is the file’s stays where it stands');
					} else assert.match(markup, /<w:t[^>]*>f<.*FFEE00.*<w:t[^>]*>g</, 'a mark behind some words stays');
				}
	});
	it('a tab of a numbered list is no decimal alignment, and stays', async () => {
		const pPr = '<w:tabs><w:tab w:val="num" w:pos="360"/></w:tabs>';
		const bytes = await docx({ body: tbl([tr(tc(`<w:p><w:pPr>${pPr}</w:pPr><w:r><w:t>a</w:t></w:r></w:p>`), 'b')]) });
		assert.equal(lookOf(await readDocx(bytes)).h, 'start');
		const { bytes: after, account } = await apply(bytes, LEDGER_STYLE);
		assert.match(await main(after), /<w:tab w:val="num" w:pos="360"\/>/);
		assert.deepEqual(account.tables[0]!.differences, []);
	});
	it('columns from right to left stay so; start and end go by the table, whatever a paragraph’s own direction', async () => {
		const aligned = (jc: string, bidi = '') =>
			tc(`<w:p><w:pPr>${bidi}<w:jc w:val="${jc}"/></w:pPr><w:r><w:t>a</w:t></w:r></w:p>`);
		const bytes = await docx({
			body: tbl([tr(aligned('left', '<w:bidi/>'), aligned('left')), tr('c', 'd')], '<w:bidiVisual/>')
		});
		const document = await readDocx(bytes);
		assert.equal(document.tables[0]!.table.dir, 'rtl');
		assert.deepEqual([lookOf(document, 0).h, lookOf(document, 1).h], ['start', 'end']);
		const { bytes: after, account } = await apply(bytes, LEDGER_STYLE);
		assert.match(await main(after), /<w:bidiVisual\/>/);
		assert.deepEqual(account.tables[0]!.differences, []);
	});
	it('a semibold weight is the family’s own face, where it ships one, and reads back as it was', async () => {
		const house = { ...LEDGER_STYLE, name: 'Half', basedOn: null, rules: [] };
		const semibold = (family: string): Style => ({ ...house, parts: { ground: { text: { family, weight: 600 } } } });
		const bytes = await docx({ body: tbl(LEDGER) });
		const { bytes: after, account } = await apply(bytes, semibold('Source Sans 3'));
		assert.match(await main(after, 'word/styles.xml'), /w:ascii="Source Sans 3 SemiBold"/);
		const { family, weight } = lookOf(await readDocx(after));
		assert.deepEqual([family, weight], ['Source Sans 3', 600]);
		assert.deepEqual([account.tables[0]!.differences, account.tables[0]!.lostWhat.weight], [[], undefined]);
		const other = await apply(bytes, semibold('Quillwort'));
		assert.ok(other.account.tables[0]!.lostWhat.weight, 'a family that has none is bold, and that is said');
	});
	it('a package that types its parts one by one gets types for the parts that are new, and keeps its folders', async () => {
		const kind = 'application/vnd.openxmlformats-package.relationships+xml';
		const plain = await docx({ body: tbl(LEDGER) });
		const archive = await Package.open(plain, 'x');
		const entries: Record<string, string> = {};
		for (const name of archive.names()) entries[name] = (await archive.text(name))!;
		entries['[Content_Types].xml'] = entries['[Content_Types].xml']!.replace(
			/<Default Extension="rels"[^>]*>/,
			''
		).replace(
			'</Types>',
			`<Override PartName="/_rels/.rels" ContentType="${kind}"/><Override PartName="/word/_rels/document.xml.rels" ContentType="${kind}"/></Types>`
		);
		const { bytes } = await apply(await zipOf({ ...entries, 'docProps/': '' }), LEDGER_STYLE);
		const types = await main(bytes, '[Content_Types].xml');
		const after = await rawNames(bytes);
		for (const name of after.filter((one) => one.endsWith('.rels'))) assert.ok(types.includes(`"/${name}"`), name);
		assert.ok(after.includes('docProps/'), after.join());
	});
});
const LEDGER_STYLE = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
const rawNames = async (bytes: Bytes) =>
	(await new ZipReader(new Uint8ArrayReader(bytes)).getEntries()).map(({ filename }) => filename);
