import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import mammoth from 'mammoth';
import { runsOf } from '../../../../src/lib/core/table/content.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { readHtml } from '../../../../src/lib/formats/html/read.ts';
import { writeAs } from '../../../../src/lib/formats/index.ts';
import { markerText } from '../../../../src/lib/formats/lists.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { docx, p, tbl, tr } from '../documents.ts';

const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
const OFFICE = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const level = (i: number, format: string, start = 1, more = '') =>
	`<w:lvl w:ilvl="${i}"><w:start w:val="${start}"/><w:numFmt w:val="${format}"/>${more}<w:lvlText w:val="%${i + 1}."/></w:lvl>`;
const NUMBERING = `<w:numbering ${W}><w:abstractNum w:abstractNumId="0">${level(0, 'decimal')}${level(1, 'lowerLetter')}</w:abstractNum><w:abstractNum w:abstractNumId="1">${level(0, 'bullet')}</w:abstractNum><w:abstractNum w:abstractNumId="2">${level(0, 'none')}</w:abstractNum><w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num><w:num w:numId="2"><w:abstractNumId w:val="1"/></w:num><w:num w:numId="3"><w:abstractNumId w:val="0"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="7"/></w:lvlOverride></w:num><w:num w:numId="4"><w:abstractNumId w:val="2"/></w:num></w:numbering>`;
const item = (text: string, id: number, deep = 0) =>
	p(text, { pPr: `<w:numPr><w:ilvl w:val="${deep}"/><w:numId w:val="${id}"/></w:numPr>` });
const listed = (body: string) =>
	docx({
		body,
		styles: `<w:style w:type="paragraph" w:styleId="Step"><w:name w:val="Step"/><w:pPr><w:numPr><w:numId w:val="1"/></w:numPr></w:pPr></w:style><w:style w:type="paragraph" w:styleId="Own"><w:name w:val="Own"/><w:basedOn w:val="Step"/></w:style>`,
		relationships: `<Relationship Id="n" Type="${OFFICE}/numbering" Target="numbering.xml"/>`,
		extra: { 'word/numbering.xml': NUMBERING }
	});
const itemsOf = async (body: string) => {
	const { blocks } = await (await readDocx(await listed(body))).whole!();
	return blocks.flatMap((block) =>
		block.kind === 'paragraph' ? [block.list ? `${markerText(block.list)} ${block.text}` : block.text] : []
	);
};

describe('lists of a DOCX (ECMA-376 Part 1 §17.9)', () => {
	it('count on, deeper levels begin anew, and whatever stands between does not matter', async () => {
		assert.deepEqual(
			await itemsOf(
				item('a', 1) + item('b', 1, 1) + item('c', 1, 1) + p('between') + item('d', 1) + item('e', 1, 1) + item('f', 2)
			),
			['1. a', 'a. b', 'b. c', 'between', '2. d', 'a. e', '• f']
		);
	});
	it('share their count where they share their definition, and begin where they are told to', async () => {
		assert.deepEqual(await itemsOf(item('a', 1) + item('b', 3) + item('c', 3) + item('d', 1)), [
			'1. a',
			'7. b',
			'8. c',
			'9. d'
		]);
	});
	it('come from the style of a paragraph, and go where it says 0 or shows nothing', async () => {
		const off = p('off', { pPr: '<w:pStyle w:val="Own"/><w:numPr><w:numId w:val="0"/></w:numPr>' });
		assert.deepEqual(await itemsOf(p('a', { pPr: '<w:pStyle w:val="Own"/>' }) + off + item('none', 4)), [
			'1. a',
			'off',
			'none'
		]);
	});
});

describe('text of a DOCX', () => {
	const run = (inside: string) => `<w:r>${inside}</w:r>`;
	it('has the links that are fields', async () => {
		const field = (code: string, result: string) =>
			run('<w:fldChar w:fldCharType="begin"/>') +
			run(`<w:instrText>${code}</w:instrText>`) +
			run('<w:fldChar w:fldCharType="separate"/>') +
			run(`<w:t>${result}</w:t>`) +
			run('<w:fldChar w:fldCharType="end"/>');
		const paragraph = `<w:p>${run('<w:t>see </w:t>')}${field(' HYPERLINK "https://thornmere.example/a" ', 'beds')}${field(' PAGE ', '3')}</w:p>`;
		const file = await docx({ body: paragraph + tbl([tr(paragraph.replace('see', 'or'), 'b')]) });
		const { blocks, tables } = await (await readDocx(file)).whole!();
		const links = (runs: ReturnType<typeof runsOf>) => runs.map(({ text, link }) => `${text}|${link ?? ''}`);
		const wanted = ['beds|https://thornmere.example/a', '3|'];
		assert.deepEqual(links(runsOf(blocks[0] as never)).slice(1), wanted);
		const [piece] = tables[0]!.content[0]!;
		assert.deepEqual('runs' in piece! && links(piece.runs).slice(1), wanted);
	});
});

describe('a new DOCX', () => {
	it('is read by others with its lists, links, notes, headings and emphasis', async () => {
		const page = `<!DOCTYPE html><html><body><h2>Beds</h2><ol><li>one<ul><li>deep</li></ul></li><li>two</li></ol><p>A <b>bold</b> <a href="https://thornmere.example/">garden</a><a role="doc-noteref" href="#n">1</a></p><table><tr><td>Bed</td><td><ul><li>fern</li></ul></td></tr></table><aside role="doc-footnote" id="n"><p>Sown late.</p></aside></body></html>`;
		const { bytes } = await writeAs('docx', readHtml(new TextEncoder().encode(page)), [], {
			house: FIRST_HOUSE,
			find: () => undefined,
			title: 'Beds'
		});
		const { value, messages } = await mammoth.convertToHtml({ buffer: Buffer.from(bytes) });
		assert.deepEqual(messages, []);
		assert.match(value, /<h2>Beds<\/h2><ol><li>one<ul><li>deep<\/li><\/ul><\/li><li>two<\/li><\/ol>/);
		assert.match(
			value,
			/<strong>bold<\/strong> <a href="https:\/\/thornmere.example\/">garden<\/a>(<sup>)+<a[^>]*>\[1\]/
		);
		assert.match(value, /<td><ul><li>fern<\/li><\/ul><\/td>/);
		assert.match(value, /Sown late\./);
	});
});
