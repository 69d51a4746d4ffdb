import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { gridFault } from '../../../../src/lib/core/table/grid.ts';
import { readDocx } from '../../../../src/lib/formats/docx/read.ts';
import { makeHtml } from '../../../../src/lib/formats/html/make.ts';
import { readHtml } from '../../../../src/lib/formats/html/read.ts';
import { writeHtml } from '../../../../src/lib/formats/html/write.ts';
import { openDocument, writeAs } from '../../../../src/lib/formats/index.ts';
import type { RowRole } from '../../../../src/lib/core/roles/index.ts';

const utf8 = (text: string) => new TextEncoder().encode(text);
const page = (body: string, head = '') =>
	utf8(`<!DOCTYPE html><html><head><meta charset="utf-8">${head}</head><body>${body}</body></html>`);
const look = (bytes: Uint8Array, text: string, table = 0) => {
	const { table: grid, appearance } = readHtml(bytes).tables[table]!;
	return appearance.looks[appearance.cellLook[grid.cells.findIndex((cell) => cell.text === text)]!]!;
};
const style = (name: string) => DEMO_STYLES.find((one) => one.name === name)!;
const find = (name: string) => DEMO_STYLES.find((one) => one.name === name);
const options = { house: FIRST_HOUSE, find };
/** All text of a markup file, tags and what browsers never show left out. */
const textWalk = (bytes: Uint8Array) =>
	new TextDecoder()
		.decode(bytes)
		.replace(/<(script|style)\b[\s\S]*?<\/\1>/gi, '')
		.replace(/<[^>]*>/g, ' ')
		.replace(/\s+/g, ' ')
		.trim();

describe('reading pages', () => {
	it('forms the grid as HTML does: rowspan=0, spans that reach too far, missing cells, feet before bodies', () => {
		const { table } = readHtml(
			page(
				'<table><tfoot><tr><td>f</table>'.replace('</table>', '') +
					'<thead><tr><th colspan=2>h<th>x<tbody><tr><td rowspan=0>a<td>b<tr><td colspan=9>c</table>'
			)
		).tables[0]!;
		assert.equal(gridFault(table), undefined);
		assert.deepEqual([table.rows, table.columns], [4, 10]);
		assert.deepEqual(
			table.cells.filter(({ text }) => text).map(({ r, c, rows, cols, text }) => [text, r, c, rows, cols]),
			[
				['h', 0, 0, 1, 2],
				['x', 0, 2, 1, 1],
				['a', 1, 0, 2, 1],
				['b', 1, 1, 1, 1],
				['c', 2, 1, 1, 9],
				['f', 3, 0, 1, 1]
			]
		);
	});
	it('resolves looks by the cascade: sheets by specificity and order, inline, old attributes, what is inherited', () => {
		const bytes = page(
			'<table class=t bgcolor=yellow><tr bgcolor="#00ff00"><td id=a style="padding:2pt 3pt">one<td class="b c">two<td align=right>three</table>',
			`<style>
				:root { --leaf: #123456 }
				table { color: red; font: italic 10pt/1.5 "Fern Sans", serif }
				.t td { background: rgba(0, 0, 255, .5); font-weight: bold }
				td.b { background-color: transparent !important; color: var(--leaf) }
				#a { color: color-mix(in srgb, #000000 50%, white) }
				@media print { td { color: lime } }
				@media screen { td.c { text-transform: uppercase } }
				td:hover { color: blue }
			</style>`
		);
		const one = look(bytes, 'one');
		assert.equal(one.ink, '#808080');
		assert.equal(one.fill, '#008080', 'half blue over the green row');
		assert.deepEqual([one.family, one.size, one.italic, one.weight], ['Fern Sans', 127_000, true, 700]);
		assert.deepEqual([one.marginTop, one.marginEnd], [25_400, 38_100]);
		assert.equal(Math.round(one.lineHeight! * 1.25 * 100), 150);
		const two = look(bytes, 'two');
		assert.deepEqual([two.fill, two.ink, two.case], ['#00FF00', '#123456', 'upper']);
		assert.equal(look(bytes, 'three').h, 'end');
	});
	it('decides shared borders as the standard does', () => {
		const bytes = page(
			'<table style="border:4px solid black;border-collapse:collapse"><tr style="border-bottom:2px dashed red"><td style="border:1px solid green">a<td style="border-right:hidden">b<tr><td>c<td style="border-top:2px double blue">d</table>'
		);
		const { table, appearance } = readHtml(bytes).tables[0]!;
		const across = (r: number, c: number) => appearance.lines[appearance.across[r * table.columns + c]!];
		const down = (r: number, c: number) => appearance.lines[appearance.down[r * (table.columns + 1) + c]!];
		assert.equal(across(0, 0)!.weight, 4 * 9_525, 'the wider one');
		assert.deepEqual([across(1, 0)!.pattern, across(1, 0)!.ink], ['dashed', '#FF0000']);
		assert.deepEqual([across(1, 1)!.pattern, across(1, 1)!.ink], ['double', '#0000FF'], 'double before dashed');
		assert.equal(down(0, 2), null, 'hidden wins');
		assert.equal(down(0, 1)!.ink, '#008000');
	});
	it('keeps emphasis inside text as content, lines and nested tables apart', () => {
		const { tables } = readHtml(
			page('<table><tr><td>Fern <b>tree</b><br>H<sub>2</sub>O<p>next</p><table><tr><td>inner</table><td>x</table>')
		);
		assert.equal(tables.length, 2);
		assert.equal(tables[0]!.table.cells[0]!.text, 'Fern tree\nH2O\nnext');
		assert.deepEqual(tables[0]!.content[0]!.at(-1), { nested: 1 });
		const [line, formula] = tables[0]!.content[0]! as {
			runs: { text: string; weight?: number; position?: string }[];
		}[];
		assert.deepEqual(
			line!.runs.map(({ weight }) => weight),
			[undefined, 700]
		);
		assert.equal(formula!.runs[1]!.position, 'sub');
		assert.equal(tables[1]!.place.inside, 0);
	});
	it('finds encodings out', () => {
		const latin = new Uint8Array([...utf8('<meta charset=iso-8859-1><table><tr><td>caf'), 0xe9, ...utf8('</table>')]);
		assert.equal(readHtml(latin).tables[0]!.table.cells[0]!.text, 'café');
		const wrong = new Uint8Array([...utf8('<meta charset=utf-8><table><tr><td>caf'), 0xe9, ...utf8('</table>')]);
		assert.equal(readHtml(wrong).tables[0]!.table.cells[0]!.text, 'café', 'not valid as declared');
	});
	it('refuses what is no page, or asks for too much', () => {
		for (const [bytes, code] of [
			[utf8('Dear reader'), 'not-a-page'],
			[utf8('<div>'.repeat(700)), 'depth'],
			[utf8(`<table>${`<tr><td rowspan=65534 colspan=1000>x`.repeat(6000)}</table>`), 'too-large']
		] as const)
			assert.throws(
				() => readHtml(bytes),
				(error) => error instanceof InputError && error.code === code,
				code
			);
	});
});

describe('writing pages', () => {
	const messy = `<!doctype html>
<!-- kept --><html><head><title>Beds</title><style>#main table td { background: pink !important; } td { padding: 9px } tr:nth-child(even) { background: #eee } th { color: maroon; border: 3px groove red }</style></head>
<body onload="never()"><div id=main><p>Before</p><TABLE BORDER=1 cellpadding=8 class="old striped" data-x='1&amp;2'>
<TR><TD bgcolor=red>Bed<TD><font color=blue>Plants</font><td>Cost €
<tr valign=top><td>North<td align=center>12<td>10.00
<tr><td>South<td>8</td><td style="color:green;width:5em;background:url(x.png) #fff">5.50
<tr><td>Total<td>20<td>15.50</TABLE><p>After</p><table id=other><tr><td>not touched</table></div></body></html>`;

	it('give every cell and edge of every demo style, whatever the page says, and touch nothing else', async () => {
		for (const { name } of DEMO_STYLES) {
			const document = readHtml(utf8(messy));
			const { bytes, account } = await writeHtml(
				document,
				[{ index: 0, table: document.tables[0]!.table, style: style(name) }],
				options
			);
			// A page's own !important on cells is the one thing that an inline style cannot beat.
			const beaten = account.tables[0]!.differences.filter(({ what }) => what !== 'fill');
			assert.deepEqual(beaten, [], name);
			const text = new TextDecoder().decode(bytes);
			assert.match(text, /<!-- kept -->/);
			assert.match(text, /<table id=other><tr><td>not touched<\/table>/);
			assert.match(text, /data-x="1&amp;2"/);
			assert.match(text, /width:5em/);
			assert.equal(textWalk(bytes), textWalk(utf8(messy)));
		}
	});
	it('as a style sheet with classes and semantic rows, and only for the rest on the cells', async () => {
		const document = readHtml(page('<table><tr><td>Bed<td>Plants<tr><td>North<td>12<tr><td>Total<td>12</table>'));
		const { bytes, account } = await writeHtml(
			document,
			[{ index: 0, table: document.tables[0]!.table, style: style('Season Ledger') }],
			options
		);
		const text = new TextDecoder().decode(bytes);
		assert.match(text, /<style data-heptarch="season-ledger">/);
		assert.match(text, /<table class="season-ledger"[^>]*data-style="Season Ledger"/);
		assert.match(text, /<thead><tr class="header header-1"><th[^>]*scope="col"/);
		assert.deepEqual(account.tables[0]!.differences, []);
		assert.ok(account.tables[0]!.living > account.tables[0]!.direct * 3, JSON.stringify(account.tables[0]));
		const again = readHtml(bytes);
		assert.equal(again.tables[0]!.carried?.style, 'Season Ledger');
		assert.equal(again.styles[0]!.name, 'Season Ledger');
		const second = await writeHtml(
			again,
			[{ index: 0, table: again.tables[0]!.table, style: style('Beacon') }],
			options
		);
		const other = new TextDecoder().decode(second.bytes);
		assert.doesNotMatch(other, /season-ledger/i, 'nothing of the old style is left');
		assert.deepEqual(second.account.tables[0]!.differences, []);
	});
	it('in the encoding that the page came in, byte for byte elsewhere', async () => {
		const latin = new Uint8Array([
			...utf8('<meta charset=windows-1252><p>caf'),
			0xe9,
			0x80,
			...utf8('</p><table><tr><td>a<td>b<tr><td>c<td>1</table>')
		]);
		const document = readHtml(latin);
		const { bytes } = await writeHtml(
			document,
			[{ index: 0, table: document.tables[0]!.table, style: style('Beacon') }],
			options
		);
		assert.ok(Buffer.from(bytes).includes(Buffer.from([0x63, 0x61, 0x66, 0xe9, 0x80])));
		assert.match(
			readHtml(bytes).blocks[0]!.kind === 'paragraph' ? (readHtml(bytes).blocks[0] as { text: string }).text : '',
			/café€/
		);
	});
	it('a whole report made into a page keeps the look of every table, and takes styles', async () => {
		const report = await readDocx(await seasonReport());
		const made = readHtml(utf8(makeHtml(report, 'Season report')));
		assert.equal(made.tables.length, report.tables.length);
		for (const [i, entry] of made.tables.entries()) {
			const before = report.tables[i]!;
			assert.deepEqual(
				entry.table.cells.map(({ r, c, rows, cols }) => [r, c, rows, cols]),
				before.table.cells.map(({ r, c, rows, cols }) => [r, c, rows, cols])
			);
			const fills = ({ appearance }: typeof before) =>
				[...appearance.cellLook].map((look) => appearance.looks[look]!.fill ?? 'none');
			assert.deepEqual(fills(entry), fills(before), `fills of table ${i + 1}`);
		}
		const jobs = made.tables.map(({ index, table }) => ({ index, table, style: style('Season Ledger') }));
		const { account } = await writeHtml(made, jobs, options);
		for (const { index, differences } of account.tables) assert.deepEqual(differences, [], `table ${index + 1}`);
	});
	it('no head is put around rows that a cell reaches out of, for it would end there', async () => {
		const page = readHtml(utf8('<table><tr><td rowspan=2>Bed<td>Plants<tr><td>12<tr><td>North<td>8</table>'));
		const table = { ...page.tables[0]!.table, roles: ['header:1', 'body', 'body'] as RowRole[] };
		const { bytes, account } = await writeHtml(page, [{ index: 0, table, style: style('Quiet Lines') }], options);
		assert.deepEqual(account.tables[0]!.differences, []);
		assert.deepEqual(readHtml(bytes).tables[0]!.table.cells, page.tables[0]!.table.cells);
	});
	it('never fails on broken markup', async () => {
		const pieces = fc.constantFrom(
			'<table>',
			'</table>',
			'<tr>',
			'<td rowspan=0>',
			'<td colspan=5>',
			'</td>',
			'<th>',
			'<thead>',
			'<tfoot>',
			'text',
			'&amp;',
			'<b>',
			'</b>',
			'<p>',
			'<style>td{color:',
			'}</style>',
			'<caption>',
			'<col span=3>',
			'<!--',
			'-->',
			'<select>',
			'<svg>',
			'"',
			'<td style="background:url(',
			'12.50',
			'<template>',
			'<td bgcolor=zz align="">'
		);
		await fc.assert(
			fc.asyncProperty(fc.array(pieces, { maxLength: 40 }), async (list) => {
				const bytes = utf8(`<table><tr><td>a${list.join('')}`);
				const document = readHtml(bytes);
				for (const { table } of document.tables) assert.equal(gridFault(table), undefined);
				if (!document.tables.length) return;
				const { bytes: written } = await writeHtml(
					document,
					[{ index: 0, table: document.tables[0]!.table, style: style('Quiet Lines') }],
					options
				);
				assert.equal(
					readHtml(written)
						.tables[0]!.table.cells.map(({ text }) => text)
						.join('|'),
					document.tables[0]!.table.cells.map(({ text }) => text).join('|')
				);
			}),
			{ numRuns: 150 }
		);
	});

	it('puts header rows into a head of their own, with the section’s tag once, and takes the page’s striping and frames away', async () => {
		const page = `<style>tbody { border: 3px double red } tr:nth-child(even) { background: #eee }</style><table border=1><tbody bgcolor="#ddd" id="t"><tr><td>Bed<td>Plants<tr><td>North<td>12<tr><td>Hollow<td>8<tr><td>Total<td>20</table>`;
		const document = await openDocument(new TextEncoder().encode(page), 'a.html');
		const style = DEMO_STYLES.find(({ name }) => name === 'Quiet Lines')!;
		const find = (name: string) => DEMO_STYLES.find((one) => one.name === name);
		for (const as of ['living', 'direct'] as const) {
			const { bytes, account } = await writeAs(
				'html',
				document,
				[{ index: 0, style, table: document.tables[0]!.table }],
				{
					house: FIRST_HOUSE,
					find,
					title: 'x',
					as
				}
			);
			assert.deepEqual(account.tables[0]!.differences, []);
			const text = new TextDecoder().decode(bytes);
			assert.equal(text.match(/<thead/g)!.length, 1);
			assert.equal(text.match(/<tbody/g)!.length, 1);
			assert.match(text, /<\/thead><tbody id="t"[^>]*><tr/);
			assert.doesNotMatch(text, /#ddd/);
		}
	});

	it('drops emphasis and says the space between paragraphs on the same tags, each written once', async () => {
		const cell = `<p class="note" style="font-weight:bold;margin:9px">one</p><p style="margin:20px"><b>two</b></p><p>three</p>`;
		const bytes = utf8(`<table><tr><th>Bed<th>Words<tr><td>North<td>${cell}<tr><td>South<td>12</table>`);
		const document = await openDocument(bytes, 'a.html');
		const style = {
			format: 'heptarch-style',
			version: 1,
			name: 'Gaps',
			parts: { ground: { text: { paragraphGap: '3mm', weight: 400 } } }
		} as const;
		for (const as of ['living', 'direct'] as const)
			for (const dropsEmphasis of [false, true]) {
				const jobs = [{ index: 0, style, table: document.tables[0]!.table, dropsEmphasis }];
				const { bytes: out, account } = await writeAs('html', document, jobs, { house: FIRST_HOUSE, title: 'x', as });
				assert.deepEqual(account.tables[0]!.differences, [], `${as}, ${dropsEmphasis}`);
				const text = new TextDecoder().decode(out);
				assert.equal(text.match(/<p\b/g)!.length, 3, text);
				assert.match(text, /<p class="note"/, 'a class of the page stays, whatever it is called');
				assert.equal(/<b>|font-weight:bold/.test(text), !dropsEmphasis);
			}
	});

	it('styles a table of thousands of rows, whether in one section or each in its own', async () => {
		const rows = Array.from({ length: 3_000 }, (_, r) => `<tr><td>${r}`).join('');
		const sections = Array.from({ length: 3_000 }, (_, r) => `<tbody><tr><td>${r}`).join('');
		const css = '<style>tr { background: #eee } tbody { border: 2px solid red }</style>';
		for (const inside of [rows, sections]) {
			const bytes = new TextEncoder().encode(`${css}<table><tr><td>Bed${inside}</table>`);
			const document = await openDocument(bytes, 'a.html');
			const style = { ...DEMO_STYLES.find(({ name }) => name === 'Quiet Lines')!, basedOn: undefined };
			const jobs = [{ index: 0, style, table: document.tables[0]!.table }];
			const { account } = await writeAs('html', document, jobs, { house: FIRST_HOUSE, title: 'x', as: 'direct' });
			assert.deepEqual(account.tables[0]!.differences.slice(0, 2), []);
		}
	});
});

describe('what a page says behind and beside its cells', () => {
	const written = async (bytes: Uint8Array) => {
		const document = readHtml(bytes);
		const jobs = document.tables.map(({ index, table }) => ({ index, table, style: style('Season Ledger') }));
		return writeHtml(document, jobs, options);
	};
	it('backgrounds of columns show under those of rows and cells, and go where the fill is the style’s', async () => {
		const bytes = page(
			'<table><colgroup style="background:#cfe8d5"><col><col style="background:#ffee00"></colgroup><col bgcolor="#aabbcc"><tr><td>a<td>b<td>c<tr><td style="background:#fff">d<td>e<td>f</table>'
		);
		assert.deepEqual(
			['a', 'b', 'c', 'd'].map((text) => look(bytes, text).fill),
			['#CFE8D5', '#FFEE00', '#AABBCC', '#FFFFFF']
		);
		const { account } = await written(bytes);
		assert.deepEqual(account.tables[0]!.differences, []);
	});
	it('a background behind all words of a cell is its fill; one behind some of them is a mark', async () => {
		const bytes = page(
			'<table><tr><td><p style="background:#ffee00">a</p><td style="background:#cfe8d5"><b style="background:#ffee00">b</b><td>c <mark style="background:#ffee00">d</mark></table>'
		);
		assert.deepEqual(
			['a', 'b', 'c d'].map((text) => look(bytes, text).fill),
			['#FFEE00', '#FFEE00', 'none']
		);
		const { bytes: after, account } = await written(bytes);
		assert.deepEqual(account.tables[0]!.differences, []);
		assert.match(new TextDecoder().decode(after), /<mark style="background:#ffee00">d/);
	});
	it('runs from right to left by its attribute, its style sheet or what it stands in', () => {
		const runs = (body: string, head = '') => readHtml(page(body, head)).tables[0]!.table.dir;
		assert.equal(runs('<table dir="rtl"><tr><td>a</table>'), 'rtl');
		assert.equal(runs('<div dir="RTL"><table><tr><td>a</table></div>'), 'rtl');
		assert.equal(runs('<div dir="rtl"><table dir="ltr"><tr><td>a</table></div>'), undefined);
		assert.equal(runs('<table class="r"><tr><td>a</table>', '<style>.r { direction: rtl }</style>'), 'rtl');
		assert.equal(runs('<table dir="auto"><tr><td>ורד</table>'), 'rtl');
	});
	it('a page that begins with a drawing is a page where its name says so', async () => {
		const text = '<svg width="10" height="10"><rect width="5" height="5"/></svg><table><tr><td>a</td></tr></table>';
		assert.equal((await openDocument(utf8(text), 'page.html')).kind, 'html');
		const drawing = '<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm"/>';
		assert.equal((await openDocument(utf8(drawing), 'plan.svg')).kind, 'svg');
		assert.equal((await openDocument(utf8(`<?xml version="1.0"?><!-- a plan -->${drawing}`), 'plan')).kind, 'svg');
		assert.equal((await openDocument(utf8(`<div>${text}</div>`), 'page.htm')).kind, 'html');
	});
});
