import assert from 'node:assert/strict';
import { before, describe, it } from 'node:test';
import fc from 'fast-check';
import { handbook } from '../../../../demo/documents/handbook.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { writeDocx } from '../../../../src/lib/formats/docx/write.ts';
import { Package } from '../../../../src/lib/formats/package/zip.ts';
import { runs } from '../../runs.ts';

const INSERTS = [
	'<w:tc/>',
	'<w:tr/>',
	'<w:p/>',
	'<w:tbl/>',
	'<w:vMerge/>',
	'<w:tblGrid/>',
	'<w:pPr><w:numPr><w:numId w:val="1"/><w:ilvl w:val="-3"/></w:numPr></w:pPr>',
	'<w:r><w:footnoteReference w:id="9"/><w:fldChar w:fldCharType="end"/></w:r>',
	'<w:tcPr><w:gridSpan w:val="40"/></w:tcPr>',
	'<w:tblPr><w:tblStyle w:val="gone"/></w:tblPr>',
	'<mc:Fallback xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006"/>'
];
const VALUES = ['', '-1', '99999999', 'NaN', 'abc', '000000', 'nil', 'auto'];

/** Somewhere in a text, anywhere alike: doubles are mostly next to nothing. */
const anyPlace = fc.nat(9_999).map((place) => place / 10_000);

type Mutation = (text: string) => string;
/** Ways in which a file can be wrong: bytes gone, elements where none belong, values out of range, properties missing. */
const anyMutation: fc.Arbitrary<Mutation> = fc.oneof(
	fc.tuple(anyPlace, fc.integer({ min: 1, max: 40 })).map(
		([place, length]): Mutation =>
			(text) =>
				text.slice(0, Math.floor(place * text.length)) + text.slice(Math.floor(place * text.length) + length)
	),
	fc.tuple(anyPlace, fc.constantFrom(...INSERTS)).map(([place, insert]): Mutation => (text) => {
		const at = text.indexOf('>', Math.floor(place * text.length)) + 1;
		return text.slice(0, at) + insert + text.slice(at);
	}),
	fc.tuple(fc.integer({ min: 3, max: 40 }), fc.constantFrom(...VALUES)).map(([every, value]): Mutation => (text) => {
		let count = 0;
		return text.replace(/w:(val|w|fill|sz)="[^"]*"/g, (match, name: string) =>
			++count % every ? match : `w:${name}="${value}"`
		);
	}),
	fc
		.tuple(
			fc.constantFrom('gridSpan', 'vMerge', 'tblStyle', 'tblLook', 'shd', 'tcW', 'tblW'),
			fc.integer({ min: 1, max: 5 })
		)
		.map(([name, every]): Mutation => (text) => {
			let count = 0;
			return text.replace(new RegExp(`<w:${name}\\b[^>]*/>`, 'g'), (match) => (++count % every ? match : ''));
		})
);

describe('files that are wrong in any way', () => {
	let archive: Package;
	let main: string;
	let styles: string;
	before(async () => {
		archive = await Package.open(await handbook(), 'a DOCX document');
		main = (await archive.text('word/document.xml'))!;
		styles = (await archive.text('word/styles.xml'))!;
	});
	it('are refused with a sentence, or read, styled and written whole', async () => {
		let read = 0;
		await fc.assert(
			fc.asyncProperty(
				fc.array(anyMutation, { minLength: 1, maxLength: 3 }),
				fc.array(anyMutation, { maxLength: 1 }),
				fc.constantFrom(...DEMO_STYLES),
				async (inMain, inStyles, style) => {
					const apply = (text: string, mutations: Mutation[]) =>
						mutations.reduce((changed, mutate) => mutate(changed), text);
					const bytes = await archive.rewrite(
						new Map([
							['word/document.xml', apply(main, inMain)],
							['word/styles.xml', apply(styles, inStyles)]
						])
					);
					try {
						const document = await readDocx(bytes);
						for (const { tables } of [document, await document.whole!()])
							for (const table of tables) assert.equal(table.content.length, table.table.cells.length);
						const jobs = document.tables.map(({ index, table }) => ({ index, table, style }));
						const written = await writeDocx(document, jobs, {
							house: FIRST_HOUSE,
							find: (name) => DEMO_STYLES.find((other) => other.name === name)
						});
						assert.equal((await readDocx(written.bytes)).tables.length, document.tables.length);
						read++;
					} catch (error) {
						if (!(error instanceof InputError)) throw error;
						assert.ok(error.message.length > 20);
					}
				}
			),
			{ numRuns: runs(70) }
		);
		assert.ok(read > 5, 'some are only odd, and have to be read');
	});
});
