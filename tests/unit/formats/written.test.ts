import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { openDocument } from '../../../src/lib/formats/open.ts';
import type { OutKind } from '../../../src/lib/formats/kinds.ts';
import { writeAs } from '../../../src/lib/formats/write.ts';
import { Package } from '../../../src/lib/formats/package/zip.ts';
import { line, style } from '../support.ts';
import { docx, LEDGER, tbl } from './documents.ts';

/**
 * What is written, against markup that was written down by hand from the standards. Reading back shows that reader and
 * writer agree; this shows that they agree with everybody else.
 */
const LOOK = style({
	ground: { text: { family: 'IBM Plex Sans', size: '9pt', ink: '#2B2233' }, margin: { top: '3pt', start: '5mm' } },
	header: { fill: { ink: '#2F5D50' }, text: { ink: '#FFFFFF', weight: 700 }, align: { h: 'middle', v: 'bottom' } },
	total: { lines: { top: line('double', '1.5pt', '#9F1239') }, text: { italic: true, tracking: '0.5pt' } }
});

async function written(to: OutKind) {
	const source = await docx({ body: tbl(LEDGER) });
	const document = await openDocument(source, 'ledger.docx');
	const jobs = document.tables.map(({ index, table }) => ({ index, style: LOOK, table }));
	const { bytes } = await writeAs(to, document, jobs, {
		house: FIRST_HOUSE,
		find: () => undefined,
		as: 'direct',
		title: 'Ledger'
	});
	return bytes;
}
const cellOf = (markup: string, text: string, open: RegExp, close: string) => {
	const at = markup.indexOf(text);
	assert.ok(at > 0, `“${text}” is there`);
	const start = [...markup.slice(0, at).matchAll(open)].at(-1)!.index;
	return markup.slice(start, markup.indexOf(close, at));
};
const holds = (markup: string, ...parts: (string | RegExp)[]) => {
	for (const part of parts)
		assert.ok(typeof part === 'string' ? markup.includes(part) : part.test(markup), `${part} in ${markup}`);
};

describe('written looks, against markup by hand', () => {
	it('DOCX: shading, borders in eighths of a point, margins in twentieths, run properties (ECMA-376-1 §17.3, §17.4)', async () => {
		const markup = (await (await Package.open(await written('docx'), 'x')).text('word/document.xml'))!;
		const cell = (text: string) => cellOf(markup, `>${text}<`, /<w:tc>/g, '</w:tc>');
		holds(
			cell('Item'),
			/<w:shd w:val="clear" w:color="auto" w:fill="2F5D50"\/>/,
			/<w:vAlign w:val="bottom"\/>/,
			/<w:jc w:val="center"\/>/,
			/<w:b\/>/,
			/<w:color w:val="FFFFFF"\/>/,
			/<w:sz w:val="18"\/>/,
			/w:ascii="IBM Plex Sans"/
		);
		holds(cell('Seed'), /<w:top w:w="60" w:type="dxa"\/>/, /<w:(start|left) w:w="283" w:type="dxa"\/>/);
		holds(
			cell('Total'),
			/<w:top w:val="double" w:sz="\d+" w:space="0" w:color="9F1239"\/>/,
			/<w:i\/>/,
			/<w:spacing w:val="10"\/>/
		);
	});

	it('ODT: fo:background-color, fo:border, fo:padding, text properties (ODF 1.3 §20)', async () => {
		const markup = (await (await Package.open(await written('odt'), 'x')).text('content.xml'))!;
		const styleOf = (text: string, element: string) => {
			const cell = cellOf(markup, `>${text}<`, /<table:table-cell[ >]/g, '</table:table-cell>');
			const names = [...cell.matchAll(new RegExp(`<${element}[^>]* (?:table|text):style-name="([^"]+)"`, 'g'))];
			return names.map(([, name]) => {
				const start = markup.indexOf(`style:name="${name}"`);
				return markup.slice(start, markup.indexOf('</style:style>', start));
			});
		};
		const [head] = styleOf('Item', 'table:table-cell');
		holds(head!, /fo:background-color="#2f5d50"/i, /style:vertical-align="bottom"/);
		const texts = [...styleOf('Item', 'text:p'), ...styleOf('Item', 'text:span')].join('');
		holds(texts, /fo:text-align="center"/, /fo:font-weight="(bold|700)"/, /fo:color="#ffffff"/i, /fo:font-size="9pt"/);
		const [body] = styleOf('Seed', 'table:table-cell');
		holds(body!, /fo:padding-top="3pt"/, /fo:padding-left="(5mm|14\.17\d*pt)"/);
		const [foot] = styleOf('Total', 'table:table-cell');
		holds(foot!, /fo:border-top="1\.5pt double #9f1239"/i);
		holds(
			[...styleOf('Total', 'text:p'), ...styleOf('Total', 'text:span')].join(''),
			/fo:font-style="italic"/,
			/fo:letter-spacing="0\.5pt"/
		);
	});

	it('HTML: background, border, padding and type as CSS says them', async () => {
		const markup = new TextDecoder().decode(await written('html'));
		holds(
			markup,
			/background-color: ?#2f5d50/i,
			/text-align: ?center/,
			/vertical-align: ?bottom/,
			/font-weight: ?700/,
			/color: ?#ffffff/i,
			/border-top: ?1\.5pt double #9f1239/i,
			/font-style: ?italic/,
			/letter-spacing: ?0\.5pt/
		);
		const row = cellOf(markup, '>Seed<', /<th[ >]/g, '</th>');
		holds(markup, /:where\(th\) \{ font-weight: inherit; text-align: inherit; \}/);
		assert.match(row, /font-weight: inherit; text-align: inherit/, 'what nobody makes bold or centred is neither');
	});
});
