import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import type { DocumentTable, OpenDocument } from '../../../src/lib/formats/document.ts';
import { drawnPage } from '../../../src/lib/core/layout/drawn.ts';
import { workOf } from '../../../src/lib/core/work/convert.ts';
import { missingText } from '../../../src/lib/formats/pdf/check.ts';
import { reportOf } from '../../../src/lib/formats/pdf/report.ts';
import { layPages } from '../../../src/lib/formats/pdf/write.ts';
import { applyWorks, openDocument, writeAs } from '../../../src/lib/formats/index.ts';
import type { Block, ListItem, RunView } from '../../../src/lib/core/table/content.ts';
import { runsOf } from '../../../src/lib/core/table/content.ts';
import { markerText } from '../../../src/lib/formats/lists.ts';
import { compareKept } from '../../../src/lib/formats/read-back.ts';
import { readHtml } from '../../../src/lib/formats/html/read.ts';
import { docx, tbl, tr } from './documents.ts';
import { runs } from '../runs.ts';

const KINDS = ['docx', 'odt', 'html'] as const;
type Kind = (typeof KINDS)[number];
const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
const ledger = find('Season Ledger')!;
const options = { house: FIRST_HOUSE, find, title: 'Beds' };
const PNG =
	'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
const page = (body: string) =>
	new TextEncoder().encode(`<!DOCTYPE html><html><head><meta charset="utf-8"></head><body>${body}</body></html>`);
const through = async (document: OpenDocument, kind: Kind, styled = false) => {
	const jobs = styled ? document.tables.map(({ index, table }) => ({ index, table, style: ledger })) : [];
	const { bytes, account } = await writeAs(kind, document, jobs, options);
	return { document: await openDocument(bytes, `x.${kind}`), account };
};
const said = (runs: readonly RunView[]) =>
	runs
		.map(({ text, link, note, weight, italic }) => {
			const words = `${weight === 700 ? '*' : ''}${italic ? '/' : ''}${link ? `${text}→${link}` : text}`;
			return note ? `${words}[${note.kind}: ${note.text}]` : words;
		})
		.join('');
const markerOf = ({ list }: { list?: ListItem }) => (list ? `${'>'.repeat(list.level)}${markerText(list)} ` : '');
/** What stands beside the tables, in its order. */
const beside = (blocks: readonly Block[]) =>
	blocks.flatMap((block) =>
		block.kind === 'paragraph' && !block.isCaption
			? [`${markerOf(block)}${said(runsOf(block))}`]
			: block.kind === 'picture'
				? [`picture of ${block.picture.alternative}`]
				: []
	);
/** All that a table holds, in its order: text with its links, pictures with their words, tables inside. */
const holds = (tables: readonly DocumentTable[], index: number): unknown => {
	const { table, content } = tables[index]!;
	return [
		table.dir ?? 'ltr',
		content.map((pieces) =>
			pieces.flatMap((piece): unknown[] => {
				if ('nested' in piece) return [holds(tables, piece.nested)];
				if ('picture' in piece) return [`picture of ${piece.picture.alternative}`];
				const words = said(piece.runs);
				return words ? [`${markerOf(piece)}${words}`] : [];
			})
		)
	];
};
const outer = (tables: readonly DocumentTable[]) =>
	tables.filter(({ place }) => place.where !== 'nested').map(({ index }) => holds(tables, index));
const holdings = async (document: OpenDocument, styled = false) => {
	const { tables, blocks } = (await document.whole?.()) ?? document;
	return [
		outer(tables),
		beside(blocks),
		tables.map(({ rowFacts }) =>
			rowFacts?.map(({ height, isHidden, staysWhole }) => [height, isHidden, styled || staysWhole])
		)
	];
};

describe('a table in another format', () => {
	const word = fc.constantFrom('fern', 'ורד לבן', '12.50', '(bed A)', 'خزامى', '€ 3.10');
	const cell = fc.oneof(
		{ weight: 4, arbitrary: word },
		word.map((text) => `<a href="https://thornmere.example/?a=1&amp;b=${encodeURIComponent(text)}">${text}</a>`),
		fc.tuple(word, word).map(([a, b]) => `<p>${a}</p><p>${b}</p>`),
		word.map((text) => `<p>${text}</p><p><img alt="${text}" src="${PNG}" width="30"></p>`),
		fc.tuple(word, word, word).map(([a, b, c]) => `<p>${a}</p><table><tr><td>${b}</td></tr></table><p>${c}</p>`),
		fc.tuple(word, word).map(([a, b]) => `<p>${a}</p>${list(a, b)}`),
		word.map((text) => `${text}<a role="doc-noteref" href="#n1">1</a> ${text}`)
	);
	const list = (a: string, b: string) =>
		`<ol start="3" type="a"><li>${a}<ul><li>${b}</li><li>${a}</li></ul></li><li>${b}</li></ol>`;
	const notes = `<aside role="doc-footnote" id="n1"><p>Sown late.</p><p>Twice.</p></aside><section role="doc-endnotes"><ol><li id="n2">Bed A only.</li></ol></section>`;
	const paragraph = fc.oneof(
		word.map((text) => `<p>${text}</p>`),
		word.map((text) => `<p>${text} <b>bold</b> <i>slanted</i> <a href="https://thornmere.example/b">there</a></p>`),
		word.map((text) => `<p>${text}<a role="doc-noteref" href="#n2">1</a></p>`),
		fc.tuple(word, word).map(([a, b]) => list(a, b)),
		word.map((text) => `<p>${text} <img alt="${text}" src="${PNG}" width="30"></p>`)
	);
	const row = fc.constantFrom('', ' style="height: 40px"', ' style="break-inside: avoid"', ' hidden');
	const table = fc
		.tuple(
			fc.array(fc.tuple(row, fc.array(cell, { minLength: 2, maxLength: 2 })), { minLength: 2, maxLength: 3 }),
			fc.boolean(),
			fc.array(paragraph, { maxLength: 3 }),
			fc.array(paragraph, { maxLength: 2 })
		)
		.map(
			([rows, isRight, before, after]) =>
				`${before.join('')}<table${isRight ? ' dir="rtl"' : ''}>${rows.map(([own, cells]) => `<tr${own}>${cells.map((one) => `<td>${one}</td>`).join('')}</tr>`).join('')}</table>${after.join('')}${notes}`
		);
	for (const first of KINDS)
		for (const second of KINDS)
			it(`keeps text in order, direction, links, lists, notes, pictures, tables inside and what rows say: ${first}, then ${second}`, async () => {
				await fc.assert(
					fc.asyncProperty(table, fc.boolean(), async (markup, styled) => {
						const start = readHtml(page(markup));
						const wanted = await holdings(start, styled);
						const one = await through(start, first, styled);
						assert.deepEqual(await holdings(one.document, styled), wanted);
						const two = await through(one.document, second, styled);
						assert.deepEqual(await holdings(two.document, styled), wanted);
						for (const { differences } of [...one.account.tables, ...two.account.tables])
							assert.deepEqual(differences, []);
					}),
					{ numRuns: runs(5) }
				);
			});

	it('keeps its sides: what stood at its start stands there, left or right', async () => {
		const start = readHtml(
			page(
				'<table dir="rtl" style="border-collapse:collapse"><tr><td style="border-inline-start:3px solid #c00;padding-inline:8pt 2pt;text-align:start">א</td><td style="text-align:left;border-left:2px solid #00c">ב</td></tr></table>'
			)
		);
		const seen = ({ tables }: OpenDocument) => {
			const { table, appearance } = tables[0]!;
			const look = (c: number) => appearance.looks[appearance.cellLook[c]!]!;
			const line = (c: number) => appearance.lines[appearance.down[c]!]?.ink;
			const { marginStart, marginEnd, h } = look(0);
			return [table.dir, marginStart, marginEnd, h, look(1).h, line(0), line(1), line(2)];
		};
		const wanted = seen(start);
		assert.deepEqual(wanted, ['rtl', 101_600, 25_400, 'start', 'end', '#CC0000', undefined, '#0000CC']);
		for (const first of KINDS) {
			const one = await through(start, first);
			assert.deepEqual(seen(one.document), wanted, first);
			for (const second of KINDS)
				assert.deepEqual(seen((await through(one.document, second)).document), wanted, second);
		}
	});

	it('stands under headings of the same levels', async () => {
		const body = '<h1>Garden</h1><h3>Beds</h3><p>Text.</p><table><tr><td>a</td></tr></table><h2>Paths</h2>';
		const start = readHtml(page(body));
		const wanted = start.blocks.map((block) => (block.kind === 'heading' ? [block.level, block.text] : block.kind));
		for (const kind of KINDS)
			assert.deepEqual(
				(await through(start, kind)).document.blocks.map((block) =>
					block.kind === 'heading' ? [block.level, block.text] : block.kind
				),
				wanted,
				kind
			);
	});

	it('names with its count what does not come along, and says nothing that only holds for the old file', async () => {
		const body = `<ul><li>one</li><li></li></ul><p><a href="#far">us</a></p><table width="80%"><tr><td><a href="javascript:alert(1)">no</a></td><td><input> <img alt="far" src="https://thornmere.example/x.png"></td></tr></table>`;
		const { account } = await through(readHtml(page(body)), 'docx');
		assert.deepEqual(account.remarks, [
			'These do not come along: 1 list item as one of a list, 2 links, 1 table’s width as a share of the page, 1 form field and 1 picture.'
		]);
		const marked = await openDocument(
			await docx({
				body:
					'<w:p><w:r><w:rPr><w:highlight w:val="yellow"/></w:rPr><w:t>all</w:t></w:r></w:p>' +
					'<w:p><w:r><w:t>some </w:t></w:r><w:r><w:rPr><w:shd w:val="clear" w:fill="FFEE00"/></w:rPr><w:t>words</w:t></w:r></w:p>' +
					tbl([tr('a')])
			}),
			'x.docx'
		);
		const marks = {
			docx: marked,
			html: readHtml(page('<p>a <mark>b</mark> <mark>c</mark></p><table><tr><td>a</td></tr></table>'))
		};
		for (const [kind, document] of Object.entries(marks))
			assert.deepEqual(
				(await through(document, 'odt')).account.remarks,
				['These do not come along: 2 marks behind words.'],
				kind
			);
		const signed = {
			...readHtml(page('<table><tr><td>a</td></tr></table>')),
			ownRemarks: ['It holds macros; they stay.']
		};
		assert.deepEqual((await through(signed, 'odt')).account.remarks, []);
		assert.deepEqual((await writeAs('csv', readHtml(page(body)), [], options)).account.remarks.length, 1);
	});
});

describe('a document in another format', () => {
	it('keeps its title, its language, and the captions of its tables', async () => {
		const start = readHtml(
			new TextEncoder().encode(
				'<!DOCTYPE html><html lang="cy"><head><title>Gwelyau</title></head><body><table><caption>Table 1: Beds</caption><tr><td>a<table><caption>Inside</caption><tr><td>b</td></tr></table></td></tr></table></body></html>'
			)
		);
		for (const first of KINDS) {
			const { document } = await through(start, first);
			const { title, language, blocks, tables } = (await document.whole?.()) ?? document;
			assert.deepEqual([title, language], ['Gwelyau', 'cy'], first);
			const captions = blocks.flatMap((block) => (block.kind === 'paragraph' ? [[block.text, block.isCaption]] : []));
			assert.deepEqual(captions, [['Table 1: Beds', true]], first);
			assert.match(JSON.stringify(tables[0]!.content), /Inside/, first);
		}
	});

	it('shows its lists, notes and pictures on the pages of a PDF', async () => {
		const start = readHtml(
			page(
				`<ol start="4" type="i"><li>four<ul><li>deep</li></ul></li></ol><p>Beds<a role="doc-noteref" href="#n1">1</a> and <a href="https://thornmere.example">us</a></p><p><img alt="a bed" src="${PNG}"></p><table><tr><td><ul><li>fern</li></ul></td></tr></table><aside role="doc-footnote" id="n1"><p>Sown late.</p></aside>`
			)
		);
		const whole = { ...start, ...(await start.whole!()) };
		const report = reportOf(whole, [], { title: 'Beds' });
		const pages = layPages(report);
		assert.deepEqual(missingText(report, pages), []);
		const drawn = pages.map(drawnPage);
		const words = drawn.flatMap(({ texts }) => texts.map(({ text }) => text)).join(' ');
		for (const wanted of [/iv\. +four/, /•\s+deep/, /Beds\s*1/, /•\s+fern/, /1\s+Sown late\./])
			assert.match(words, wanted);
		assert.deepEqual(
			drawn.flatMap(({ pictures }) => pictures.map(({ alternative }) => alternative)),
			['a bed']
		);
		assert.deepEqual((await writeAs('pdf', start, [], options)).account.remarks, []);
	});

	it('keeps what its rows say, and a PDF their heights; that a row is hidden it names', async () => {
		const start = readHtml(
			page(
				'<style>.deep { height: 60px } .whole { break-inside: avoid }</style><table><tr class="deep"><td>a</td></tr><tr style="height:30px" class="whole"><td>b</td></tr><tr hidden><td>c</td></tr></table>'
			)
		);
		const wanted = [{ height: 571_500 }, { height: 285_750, staysWhole: true }, { isHidden: true }];
		const factsOf = async (document: OpenDocument) =>
			(await document.whole!()).tables[0]!.rowFacts!.map(({ isExact: _, ...facts }) => facts);
		assert.deepEqual(await factsOf(start), wanted);
		for (const kind of KINDS) assert.deepEqual(await factsOf((await through(start, kind)).document), wanted, kind);
		const [first] = layPages(reportOf({ ...start, ...(await start.whole!()) }, [], { title: 'Beds' }));
		const table = first!.pieces.find((piece) => piece.kind === 'table');
		assert.deepEqual(table?.kind === 'table' && table.marks.laid.heights.slice(0, 2), [571_500, 285_750]);
		assert.deepEqual((await writeAs('pdf', start, [], options)).account.remarks, [
			'These do not come along: 1 hidden row’s being hidden.'
		]);
	});

	it('is read in time where notes lead to each other, in a circle or many times', () => {
		const mark = (to: number) => `<a role="doc-noteref" href="#n${to}">x</a>`;
		const notes = Array.from(
			{ length: 60 },
			(_, i) => `<aside role="doc-footnote" id="n${i}">note ${i} ${mark((i + 1) % 60)}${mark((i + 1) % 60)}</aside>`
		);
		const { tables, blocks } = readHtml(
			page(`<p>a${mark(0)}</p><table><tr><td>b${mark(0)}</td></tr></table>${notes.join('')}`)
		);
		assert.deepEqual([tables[0]!.table.cells[0]!.text, blocks.length], ['b', 2]);
		assert.equal(
			readHtml(page('<p>see <a role="doc-noteref" href="#far">1</a></p><p id="far">far</p>')).blocks.length,
			2
		);
	});

	it('keeps what the bench knows of its tables', async () => {
		const start = readHtml(page('<table><tr><td>Bed</td><td>Cost</td></tr><tr><td>A</td><td>3</td></tr></table>'));
		const work = workOf(start.tables[0]!.table, start.tables[0]!.content, []);
		const rows = work.rows.map((row, r) => ({ ...row, role: r === 1 ? ('note' as const) : row.role }));
		const again = await applyWorks(start, new Map([[0, { ...work, rows }]]));
		assert.deepEqual((await again.whole!()).tables[0]!.table.roles[1], 'note');
	});
});

describe('what no style has a say in', () => {
	const read = (body: string) => ({ document: readHtml(page(body)), index: 0 });
	const told = (before: string, after: string) =>
		compareKept(read(before), read(after), { widths: false }).map(
			({ what, wanted, got }) => `${what}: ${wanted} → ${got}`
		);
	it('is compared: text, size, direction, what it holds', () => {
		const table = (inside: string, more = '') => `<table${more}><tr><td>${inside}</td><td>b</td></tr></table>`;
		assert.deepEqual(told(table('a'), table('a')), []);
		assert.deepEqual(told(table('a'), table('x')), ['text: “a” → “x”']);
		assert.deepEqual(told(table('a'), table('a', ' dir="rtl"')), [
			'direction: from left to right → from right to left'
		]);
		assert.deepEqual(told(table('<a href="https://x.example">a</a>'), table('a')), ['what it holds: 1 link → 0 links']);
		assert.match(told(table('a'), '<table><tr><td>a</td></tr></table>')[0]!, /^size: 1 row by 2 columns/);
		assert.match(told(table('a'), '')[0]!, /the table/);
	});
});
