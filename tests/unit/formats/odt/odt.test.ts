import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { Uint8ArrayReader, ZipReader } from '@zip.js/zip.js';
import fc from 'fast-check';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import type { Aspect } from '../../../../src/lib/core/style/types.ts';
import { gridFault } from '../../../../src/lib/core/table/grid.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { makeOdt } from '../../../../src/lib/formats/odt/make.ts';
import { MIMETYPE, namespaceOf } from '../../../../src/lib/formats/odt/names.ts';
import { readOdt } from '../../../../src/lib/formats/odt/read.ts';
import { writeOdt } from '../../../../src/lib/formats/odt/write.ts';
import { parseXml } from '../../../../src/lib/formats/package/xml.ts';
import { Package } from '../../../../src/lib/formats/package/zip.ts';
import { zipOf } from '../zip.ts';
import { runs } from '../../runs.ts';

const PREFIXES = ['office', 'style', 'text', 'table', 'fo', 'svg', 'meta', 'draw'];
const namespaces = PREFIXES.map((prefix) => ` xmlns:${prefix}="${namespaceOf(prefix)}"`).join('');
const style = (name: string) => DEMO_STYLES.find((one) => one.name === name)!;
const options = { house: FIRST_HOUSE, find: (name: string) => DEMO_STYLES.find((one) => one.name === name) };

/** A flat document of a table and the automatic styles it needs. */
const flat = (tableMarkup: string, automatic = '', named = ''): Uint8Array<ArrayBuffer> =>
	new TextEncoder().encode(
		`<?xml version="1.0"?><office:document${namespaces} office:mimetype="${MIMETYPE}"><office:styles>${named}</office:styles><office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:text><text:p>Before</text:p>${tableMarkup}<text:p>After</text:p></office:text></office:body></office:document>`
	);
const cell = (text: string, more = '') => `<table:table-cell ${more}><text:p>${text}</text:p></table:table-cell>`;
const row = (...cells: string[]) => `<table:table-row>${cells.join('')}</table:table-row>`;
const table = (...rows: string[]) => `<table:table table:name="T">${rows.join('')}</table:table>`;
const textWalk = async (bytes: Uint8Array<ArrayBuffer>) => {
	const text =
		bytes[0] === 0x50
			? (await (await Package.open(bytes, 'an ODT document')).text('content.xml'))!
			: new TextDecoder().decode(bytes);
	const body = text.slice(text.indexOf('<office:text'));
	return body
		.replace(/<[^>]*>/g, ' ')
		.replace(/\s+/g, ' ')
		.trim();
};

describe('reading text documents', () => {
	it('repeated rows and cells, covered cells, header rows, what is repeated to the end of a sheet', async () => {
		const { tables } = await readOdt(
			flat(
				table(
					'<table:table-column table:number-columns-repeated="3"/>',
					`<table:table-header-rows>${row(cell('Bed', 'table:number-columns-spanned="2"'), '<table:covered-table-cell/>', cell('Plants'))}</table:table-header-rows>`,
					`<table:table-row table:number-rows-repeated="2">${cell('x', 'table:number-columns-repeated="2"')}${cell('7')}${'<table:table-cell table:number-columns-repeated="16000"/>'}</table:table-row>`,
					row(cell('y', 'table:number-rows-spanned="2"'), cell('a'), cell('8')),
					row('<table:covered-table-cell/>', cell('b'), cell('9')),
					`<table:table-row table:number-rows-repeated="1000000"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>`
				)
			)
		);
		const { table: read } = tables[0]!;
		assert.equal(gridFault(read), undefined);
		assert.deepEqual([read.rows, read.columns], [5, 3]);
		assert.equal(read.roles[0], 'header:1');
		assert.deepEqual(
			read.cells.filter(({ rows, cols }) => rows > 1 || cols > 1).map(({ r, c, rows, cols }) => [r, c, rows, cols]),
			[
				[0, 0, 1, 2],
				[3, 0, 2, 1]
			]
		);
	});
	it('looks by styles with parents, defaults and spans', async () => {
		const document = await readOdt(
			flat(
				table(
					row(
						'<table:table-cell table:style-name="C1"><text:p text:style-name="P1">Fern <text:span text:style-name="T1">tree</text:span></text:p></table:table-cell>',
						cell('plain')
					)
				),
				`<style:style style:name="C1" style:family="table-cell"><style:table-cell-properties fo:background-color="#ffeecc" fo:padding="2pt" fo:padding-left="3pt" fo:border="0.5pt solid #112233" fo:border-top="none" style:vertical-align="bottom"/></style:style>
				<style:style style:name="P1" style:family="paragraph" style:parent-style-name="Figures"><style:paragraph-properties fo:text-align="end"/></style:style>
				<style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>`,
				`<style:default-style style:family="paragraph"><style:text-properties fo:font-size="10pt" fo:font-family="'Fern Sans'"/></style:default-style>
				<style:style style:name="Figures" style:family="paragraph" style:parent-style-name="Figures"><style:text-properties fo:color="#445566" fo:font-size="120%"/></style:style>`
			)
		);
		const { appearance, content } = document.tables[0]!;
		const look = appearance.looks[appearance.cellLook[0]!]!;
		assert.deepEqual(
			[look.fill, look.ink, look.family, look.h, look.v, look.marginTop, look.marginStart],
			['#FFEECC', '#445566', 'Fern Sans', 'end', 'bottom', 25_400, 38_100]
		);
		assert.deepEqual(appearance.lines[appearance.across[0]!], null);
		assert.deepEqual(appearance.lines[appearance.down[1]!], { pattern: 'solid', weight: 6_350, ink: '#112233' });
		assert.deepEqual((content[0]![0] as { runs: object[] }).runs, [{ text: 'Fern ' }, { text: 'tree', weight: 700 }]);
	});
	it('finds tables in frames, notes, headers and tables', async () => {
		const inner = table(row(cell('inner'), cell('1')));
		const { tables } = await readOdt(
			flat(
				table(row(`<table:table-cell><text:p>outer</text:p>${inner}</table:table-cell>`, cell('2'))) +
					`<text:p><draw:frame><draw:text-box>${table(row(cell('boxed')))}</draw:text-box></draw:frame></text:p>`
			)
		);
		assert.deepEqual(
			tables.map(({ place, table: read }) => [place.where, read.cells[0]!.text]),
			[
				['body', 'outer'],
				['nested', 'inner'],
				['text box', 'boxed']
			]
		);
		assert.deepEqual(tables[0]!.content[0]!.at(-1), { nested: 1 });
	});
	it('refuses what is none, saying what is wrong', async () => {
		const refused = async (bytes: Uint8Array<ArrayBuffer>, code: string) =>
			assert.rejects(readOdt(bytes), (error) => error instanceof InputError && error.code === code, code);
		await refused(new TextEncoder().encode('no'), 'not-a-package');
		await refused(await zipOf({ mimetype: MIMETYPE }), 'no-main-part');
		await refused(await zipOf({ 'content.xml': '<a/>' }), 'wrong-namespace');
		await refused(await zipOf({ 'content.xml': '<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>' }), 'xml');
		await refused(
			flat(
				table(
					row(cell('x', 'table:number-columns-repeated="1000000"')),
					...Array<string>(9).fill(row(cell('x', 'table:number-columns-repeated="1000000"')))
				)
			),
			'too-large'
		);
		await refused((await makeOdt(await readDocx(await seasonReport()))).slice(0, 900), 'truncated');
	});
});

describe('writing text documents', () => {
	it('a whole report in every demo style: read back equal, text kept, package right', async () => {
		const report = await readDocx(await seasonReport());
		const bytes = await makeOdt(report);
		const made = await readOdt(bytes);
		assert.equal(made.tables.length, report.tables.length);
		for (const [i, entry] of made.tables.entries()) {
			const fills = ({ appearance }: typeof entry) =>
				[...appearance.cellLook].map((look) => appearance.looks[look]!.fill ?? 'none');
			assert.deepEqual(fills(entry), fills(report.tables[i]!), `fills of table ${i + 1}`);
		}
		for (const { name } of DEMO_STYLES) {
			const jobs = made.tables.map(({ index, table: own }) => ({ index, table: own, style: style(name) }));
			const written = await writeOdt(made, jobs, options);
			for (const { index, differences } of written.account.tables)
				assert.deepEqual(differences, [], `table ${index + 1} in ${name}`);
			assert.equal(await textWalk(written.bytes), await textWalk(bytes));
			assert.equal(
				new TextDecoder().decode(written.bytes.subarray(30, 38 + MIMETYPE.length)),
				`mimetype${MIMETYPE}`,
				'first and stored'
			);
			const archive = await Package.open(written.bytes, 'an ODT document');
			const manifest = (await archive.text('META-INF/manifest.xml'))!;
			for (const file of archive.names())
				if (file !== 'mimetype' && !file.startsWith('META-INF/')) assert.ok(manifest.includes(`"${file}"`), file);
			const content = (await archive.text('content.xml'))!;
			parseXml(content, 'content.xml', { namespaces: new Map() });
			const declared = new Set(
				[...(content + (await archive.text('styles.xml'))!).matchAll(/style:name="([^"]+)"/g)].map(([, one]) => one)
			);
			for (const [, one] of content.matchAll(/(?:table|text):style-name="([^"]+)"/g))
				assert.ok(declared.has(one), `style ${one}`);
		}
	});
	it('carries the style, and leaves nothing of an older one', async () => {
		const made = await readOdt(await makeOdt(await readDocx(await seasonReport())));
		const job = (document: typeof made, name: string) => [
			{ index: 0, table: document.tables[0]!.table, style: style(name) }
		];
		const once = await readOdt((await writeOdt(made, job(made, 'Season Ledger'), options)).bytes);
		assert.equal(once.tables[0]!.carried?.style, 'Season Ledger');
		assert.equal(once.tables[0]!.wornName, 'Season_20_Ledger');
		assert.match(once.stylesPart!.xml.source, /table:table-template table:name="Season_20_Ledger"/);
		const twice = await writeOdt(once, job(once, 'Beacon'), options);
		const content = (await (await Package.open(twice.bytes, 'an ODT document')).text('content.xml'))!;
		assert.doesNotMatch(content, /Heptarch-Season/);
		assert.deepEqual(twice.account.tables[0]!.differences, []);
	});
	it('a flat document with other prefixes: only its table changes, repeated rows are told apart, emphasis stays', async () => {
		const source = new TextDecoder()
			.decode(
				flat(
					table(
						row(cell('Bed'), cell('Plants')),
						`<table:table-row table:number-rows-repeated="3">${cell('North <text:span text:style-name="T1">bed</text:span><!-- kept -->')}${cell('7')}</table:table-row>`,
						row(cell('Total'), cell('21'))
					),
					'<style:style style:name="T1" style:family="text"><style:text-properties fo:font-style="italic" fo:font-size="30pt"/></style:style>'
				)
			)
			.replace(/(<\/?|\s)table:/g, '$1tb:')
			.replace('xmlns:table', 'xmlns:tb');
		const document = await readOdt(new TextEncoder().encode(source));
		const { bytes, account } = await writeOdt(
			document,
			[{ index: 0, table: document.tables[0]!.table, style: style('Season Ledger') }],
			options
		);
		assert.deepEqual(account.tables[0]!.differences, []);
		const back = await readOdt(bytes);
		assert.deepEqual(back.tables[0]!.table.roles, ['header:1', 'body', 'body', 'body', 'total']);
		const runs = (back.tables[0]!.content[2]![0] as { runs: { text: string; italic?: boolean }[] }).runs;
		assert.deepEqual(
			runs.map(({ text, italic }) => [text, italic]),
			[
				['North ', undefined],
				['bed', true]
			]
		);
		const text = new TextDecoder().decode(bytes);
		assert.equal(text.split('<!-- kept -->').length, 4);
		assert.match(text, /<text:p>Before<\/text:p>/);
		assert.equal(back.tables[0]!.carried?.style, 'Season Ledger');
	});
	it('a flat document keeps its encoding', async () => {
		const source = new TextDecoder()
			.decode(flat(table(row(cell('Beet'), cell('Pläne')), row(cell('Süd'), cell('7')))))
			.replace('<?xml version="1.0"?>', '<?xml version="1.0" encoding="ISO-8859-1"?>');
		const latin = Uint8Array.from([...source].map((char) => char.charCodeAt(0)));
		const document = await readOdt(latin);
		assert.equal(document.tables[0]!.table.cells[1]!.text, 'Pläne');
		const { bytes } = await writeOdt(
			document,
			[{ index: 0, table: document.tables[0]!.table, style: style('Beacon') }],
			options
		);
		assert.ok(Buffer.from(bytes).includes(Buffer.from([0x50, 0x6c])), 'still one byte a character');
		assert.equal((await readOdt(bytes)).tables[0]!.table.cells[2]!.text, 'Süd');
	});
	it('never fails on broken content', async () => {
		const valid = new TextDecoder().decode(
			flat(
				table(
					row(cell('Bed', 'table:number-columns-spanned="2"'), '<table:covered-table-cell/>'),
					row(cell('a'), cell('1'))
				)
			)
		);
		await fc.assert(
			fc.asyncProperty(
				fc.nat(valid.length - 1),
				fc.nat(12),
				fc.constantFrom('', '9', '<', '"', 'table:table-cell', '-5', '<text:p/>', '&'),
				async (at, cut, put) => {
					const bytes = new TextEncoder().encode(valid.slice(0, at) + put + valid.slice(at + cut));
					try {
						const document = await readOdt(bytes);
						for (const entry of document.tables) {
							assert.equal(gridFault(entry.table), undefined);
							await writeOdt(
								document,
								[{ index: entry.index, table: entry.table, style: style('Quiet Lines') }],
								options
							);
						}
					} catch (error) {
						assert.ok(error instanceof InputError, String(error));
					}
				}
			),
			{ numRuns: runs(600) }
		);
	});
});

describe('what an ODT says of tables beside its cells', () => {
	const automatic = [
		'<style:style style:name="Right" style:family="table"><style:table-properties style:writing-mode="rl-tb" table:border-model="collapsing"/></style:style>',
		'<style:style style:name="Fern" style:family="table-cell"><style:table-cell-properties fo:background-color="#cfe8d5" fo:padding="4pt" fo:border="1pt solid #2f5d50"/><style:paragraph-properties fo:text-align="center"/><style:text-properties fo:color="#aa0000" fo:font-size="18pt"/></style:style>',
		'<style:style style:name="Sun" style:family="paragraph"><style:paragraph-properties fo:background-color="#ffee00"/></style:style>',
		'<style:style style:name="Marked" style:family="text"><style:text-properties fo:background-color="#ffee00"/></style:style>'
	].join('');
	const read = (markup: string) => readOdt(flat(markup, automatic));
	const lookOf = ({ tables }: Awaited<ReturnType<typeof readOdt>>, i = 0, index = 0) => {
		const { appearance } = tables[index]!;
		return appearance.looks[appearance.cellLook[i]!]!;
	};
	const styled = async (markup: string, carry?: readonly Aspect[]) => {
		const document = await read(markup);
		const jobs = document.tables.map(({ index, table: one }) => ({
			index,
			table: carry ? { ...one, carry } : one,
			style: style('Season Ledger')
		}));
		const { bytes, account } = await writeOdt(document, jobs, options);
		return { text: new TextDecoder().decode(bytes), account, document: await readOdt(bytes) };
	};

	it('keeps its direction, and says start and end by it', async () => {
		const { document, text, account } = await styled(
			table(row(cell('a', 'table:style-name="Fern"'), cell('b'))).replace(
				'<table:table ',
				'<table:table table:style-name="Right" '
			)
		);
		assert.equal(document.tables[0]!.table.dir, 'rtl');
		assert.match(text, /style:writing-mode="rl-tb"/);
		assert.deepEqual(account.tables[0]!.differences, []);
	});
	it('knows the style that a row or a column has for its cells, and what that says of their text', async () => {
		const byColumn = table(
			'<table:table-column table:default-cell-style-name="Fern"/><table:table-column/>',
			row(cell('a'), cell('b'))
		);
		const byRow = table(
			row(cell('a'), cell('b')).replace('<table:table-row>', '<table:table-row table:default-cell-style-name="Fern">')
		);
		for (const [markup, other] of [
			[byColumn, 'none'],
			[byRow, '#CFE8D5']
		] as const) {
			const document = await read(markup);
			const { fill, h, ink, size, marginTop } = lookOf(document);
			assert.deepEqual([fill, h, ink, size, marginTop], ['#CFE8D5', 'middle', '#AA0000', 228_600, 50_800]);
			assert.equal(lookOf(document, 1).fill, other);
			// Carrying text alone leaves fill, lines, padding and alignment as they were.
			const after = await styled(markup, ['text']);
			assert.deepEqual(
				[lookOf(after.document).fill, lookOf(after.document).marginTop, lookOf(after.document).h],
				[fill, marginTop, h]
			);
			assert.deepEqual(after.account.tables[0]!.differences, []);
		}
	});
	it('sees a background behind paragraphs and letters, and takes it away where the fill is the style’s', async () => {
		const filled = row(
			'<table:table-cell><text:p text:style-name="Sun">a</text:p></table:table-cell>',
			'<table:table-cell><text:p><text:span text:style-name="Marked">b</text:span></text:p></table:table-cell>',
			'<table:table-cell><text:p>c <text:span text:style-name="Marked">d</text:span></text:p></table:table-cell>'
		);
		const document = await read(table(filled));
		assert.deepEqual(
			[0, 1, 2].map((i) => lookOf(document, i).fill),
			['#FFEE00', '#FFEE00', 'none']
		);
		for (const carry of [undefined, ['fill'] as const]) {
			const after = await styled(table(filled), carry);
			assert.deepEqual(after.account.tables[0]!.differences, []);
			assert.ok([0, 1].every((i) => lookOf(after.document, i).fill !== '#FFEE00'));
			// Words that somebody marked stay marked.
			assert.equal(after.text.split('"#ffee00"').length > 1, true);
		}
	});
	it('says nothing of type in a cell that holds but a table', async () => {
		const inner = table(row(cell('x'), cell('y')));
		const { account } = await styled(table(row(`<table:table-cell>${inner}</table:table-cell>`, cell('b'))));
		assert.deepEqual(
			account.tables.flatMap(({ differences }) => differences),
			[]
		);
	});
	it('keeps soft page breaks between rows, and the entries of folders', async () => {
		const markup = table(row(cell('a'), cell('b')), '<text:soft-page-break/>', row(cell('c'), cell('d')));
		const { text } = await styled(markup);
		assert.match(text, /<\/table:table-row><text:soft-page-break\/><table:table-row/);
		const made = await makeOdt(await read(table(row(cell('a')))));
		const { entries } = await reopened(made);
		const withFolder = await zipOf({ ...entries, 'Pictures/': '' }, {});
		const opened = await readOdt(withFolder);
		const job = { index: 0, table: opened.tables[0]!.table, style: style('Season Ledger') };
		const names = (
			await new ZipReader(new Uint8ArrayReader((await writeOdt(opened, [job], options)).bytes)).getEntries()
		).map(({ filename }) => filename);
		assert.ok(names.includes('Pictures/'), names.join());
		assert.equal(names[0], 'mimetype');
	});
});

async function reopened(bytes: Uint8Array<ArrayBuffer>) {
	const archive = await Package.open(bytes, 'an ODT document');
	const entries: Record<string, string> = {};
	for (const name of archive.names()) entries[name] = (await archive.text(name))!;
	return { entries };
}
