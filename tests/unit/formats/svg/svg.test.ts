import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { inflateSync } from 'node:zlib';
import fc from 'fast-check';
import { fernBed, lighting } from '../../../../demo/drawings/index.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import { LINE_WIDTHS } from '../../../../src/lib/core/layout/plotted.ts';
import type { ScheduleDefinition } from '../../../../src/lib/core/schedule/definition.ts';
import { differences } from '../../../../src/lib/core/schedule/difference.ts';
import type { PlacedTable } from '../../../../src/lib/core/schedule/placed.ts';
import { makeRows } from '../../../../src/lib/core/schedule/rows.ts';
import { openDocument, writeAs } from '../../../../src/lib/formats/index.ts';
import { Extents } from '../../../../src/lib/formats/svg/extents.ts';
import {
	readSvg,
	sheetFacts,
	titleOf,
	withEdits,
	type DrawingEdits,
	type SvgDocument
} from '../../../../src/lib/formats/svg/read.ts';
import { parseScale } from '../../../../src/lib/formats/svg/sheet.ts';
import { shownObjects, shownText, unpackObjects } from '../../../../src/lib/formats/svg/shown.ts';
import { spritesOf } from '../../../../src/lib/formats/svg/sprites.ts';
import { dressedAs, drawOn, writeSvg } from '../../../../src/lib/formats/svg/write.ts';
import { plottedFacts } from '../../../../src/lib/workbench/plotted.ts';
import { prepare } from '../../../../src/lib/formats/job.ts';
import { runs } from '../../runs.ts';

type Bytes = Uint8Array<ArrayBuffer>;
const utf8 = (text: string): Bytes => new TextEncoder().encode(text);
const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);
const PLAN = DEMO_STYLES.find(({ name }) => name === 'Plan Schedule')!;
const options = { house: FIRST_HOUSE, find: (name: string) => DEMO_STYLES.find((style) => style.name === name) };
const NS = 'xmlns="http://www.w3.org/2000/svg"';

const KINDS: ScheduleDefinition = {
	format: 'heptarch-schedule',
	version: 1,
	title: 'Objects',
	rows: 'merged',
	columns: [
		{ from: 'kind', name: 'What' },
		{ from: 'attribute', attribute: 'size', name: 'Size' },
		{ from: 'count', name: 'No.' }
	],
	total: true
};

/** A drawing with a schedule of its objects at a point. */
function placed(document: SvgDocument, more: Partial<PlacedTable> = {}, definition = KINDS): SvgDocument {
	const table: PlacedTable = {
		id: 'table-1',
		source: { from: 'objects', definition },
		rows: makeRows(definition, document.found.objects, sheetFacts(document)),
		at: { x: 20, y: 30 },
		corner: 'top-start',
		reads: 'down',
		...more
	};
	return withEdits(document, { ...document.edits, placed: [...document.placed, table] });
}
const jobs = (document: SvgDocument, style = PLAN) =>
	document.tables.map(({ index, table }) => ({ index, table, style }));
const written = async (document: SvgDocument, style = PLAN) => writeSvg(document, jobs(document, style), options);

/** Text outside the tables of a drawing. */
function outside(bytes: Bytes): string {
	const { source, groups } = readSvg(bytes);
	let rest = source.text;
	for (const { node } of [...groups].reverse()) rest = rest.slice(0, node.start) + rest.slice(node.end);
	return rest;
}

const sheet = (root: string, content = '<g/>') => readSvg(utf8(`<svg ${NS} ${root}>${content}</svg>`));
const near = (a: number, b: number, within = 1e-6) => assert.ok(Math.abs(a - b) <= within, `${a} is not ${b}`);

describe('sheets', () => {
	it('say their size and scale, or are asked about', () => {
		const said = sheet('width="420mm" height="29.7cm" viewBox="0 0 21000 14850" data-scale="1:50"').sheet;
		assert.deepEqual([said.width, said.height, said.scale, said.saysSize, said.saysScale], [420, 297, 50, true, true]);
		near(said.toPaper[0], 0.02);
		const silent = sheet('viewBox="0 0 800 600"').sheet;
		assert.equal(silent.saysSize, false);
		assert.match(silent.remarks[0]!, /does not say how large its sheet is/);
		const pixels = sheet('width="800" height="600"').sheet;
		assert.equal(pixels.saysSize, false);
		near(pixels.width, 800 * (25.4 / 96));
		const inches = sheet('width="10in" viewBox="0 0 100 50"').sheet;
		near(inches.height, 127);
	});
	it('a viewBox without area says nothing, and the file says so', () => {
		for (const box of ['0 0 -10 20', '0 0 0 0', 'none', '1 2 3']) {
			const { sheet: read } = sheet(`width="100mm" height="50mm" viewBox="${box}"`);
			assert.deepEqual([read.width, read.height], [100, 50]);
			assert.match(read.remarks[0]!, /viewBox .* says nothing/);
		}
	});
	it('unit and scale of the ground decide the paper where the file does not', () => {
		const { sheet: read } = sheet('viewBox="0 0 42 29.7" data-unit="m" data-scale="1:100"');
		near(read.width, 420);
		near(read.toPaper[0], 10);
		const asked = withEdits(sheet('viewBox="0 0 4200 2970"'), { sheet: { unit: 'cm', scale: 100 } }).sheet;
		near(asked.width, 420);
		assert.equal(asked.saysSize, true);
	});
	it('another scale makes the paper smaller, and the tables stay as large on it', async () => {
		const document = placed(
			sheet('width="420mm" height="297mm" viewBox="0 0 21000 14850" data-scale="1:50"', '<circle data-size="1" r="5"/>')
		);
		const at100 = withEdits(document, { ...document.edits, sheet: { scale: 100 } });
		near(at100.sheet.width, 210);
		const [small, large] = [await written(document), await written(at100)];
		const scaleOf = (bytes: Bytes) => Number(/transform="matrix\((\S+)/.exec(text(bytes))![1]);
		// A unit inside the group is a hundredth of a millimetre.
		near(scaleOf(small.bytes), 0.5);
		near(scaleOf(large.bytes), 1);
		const again = readSvg(large.bytes);
		assert.deepEqual([again.sheet.width, again.sheet.scale], [210, 100], 'the file says its new scale');
	});
	it('read scales as people write them', () => {
		const cases: [string | undefined, number | undefined][] = [
			['1:50', 50],
			['1 : 2.5', 2.5],
			['2:1', 0.5],
			['1/100', 100],
			['20', 20],
			['', undefined],
			['1:0', undefined],
			['fifty', undefined],
			[undefined, undefined]
		];
		for (const [said, scale] of cases) assert.equal(parseScale(said), scale, said);
	});
});

describe('objects of a drawing', () => {
	const A3 = 'width="420mm" height="297mm" viewBox="0 0 420 297"';
	it('are elements that say something, by their kind, name, layer and place', () => {
		const { found, kinds } = sheet(
			A3,
			`<defs><symbol id="f"><title>Fern</title><circle r="3"/></symbol></defs>
			<g id="plants" data-layer="Planting" transform="translate(100 50)"><g transform="scale(2)">
			<use id="a" href="#f" x="5" y="10" data-size="1 L"/><use href="#f" x="6" y="10" data-size="2 L"/></g></g>
			<rect x="10" y="10" width="4" height="2" data-kind="bench" data-wood="oak"/><path d="M0 0H5"/>`
		);
		assert.deepEqual(
			found.objects.map(({ key, kind, layer, x, y, attributes }) => [key.slice(0, 2), kind, layer, x, y, attributes]),
			[
				['#a', 'f', 'Planting', 110, 70, { size: '1 L' }],
				['f\u241f', 'f', 'Planting', 112, 70, { size: '2 L' }],
				['be', 'bench', '', 12, 11, { wood: 'oak' }]
			]
		);
		assert.deepEqual(found.objects[0]!.extent, { x1: 104, y1: 64, x2: 116, y2: 76 });
		assert.deepEqual(
			kinds.map(({ kind, name, count }) => [kind, name, count]),
			[
				['f', 'Fern', 2],
				['bench', 'bench', 1]
			]
		);
		assert.deepEqual(
			found.layers.map(({ name, objects }) => [name, objects]),
			[['Planting', 2]]
		);
	});
	it('stand where nested viewBoxes, transforms and references put them', () => {
		const { found } = sheet(
			A3,
			`<defs><g id="pair"><circle cx="0" cy="0" r="1" data-size="s"/><circle cx="10" cy="0" r="1" data-size="s"/></g>
			<symbol id="box" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol></defs>
			<use href="#pair" x="20" y="20"/><use href="#pair" transform="translate(50 60) rotate(90)"/>
			<svg x="100" y="100" width="50" height="50" viewBox="0 0 5 5"><circle cx="1" cy="2" r="0.5" data-size="in"/></svg>
			<use href="#box" x="200" y="10" width="20" height="20" data-size="b"/>`
		);
		assert.deepEqual(
			found.objects.map(({ x, y }) => [Math.round(x * 1e6) / 1e6, Math.round(y * 1e6) / 1e6]),
			[
				[20, 20],
				[30, 20],
				[50, 60],
				[50, 70],
				[110, 120],
				[200, 10]
			]
		);
		assert.deepEqual(found.objects[5]!.extent, { x1: 200, y1: 10, x2: 220, y2: 30 });
		assert.equal(new Set(found.objects.map(({ key }) => key)).size, 6);
	});
	it('with the same id are told apart, and a reference to nowhere or itself does no harm', () => {
		const { found } = sheet(
			A3,
			`<circle id="x" r="1" data-size="a"/><circle id="x" r="1" cx="9" data-size="b"/>
			<use href="#gone" data-size="c"/><g id="loop"><use href="#loop" data-size="d"/></g><use id="self" href="#self" data-size="e"/>
			<g id="p"><use href="#q"/></g><g id="q"><use href="#p"/><circle r="1" data-size="f"/></g>`
		);
		assert.deepEqual(
			found.objects.slice(0, 2).map(({ key }) => key),
			['#x', '#x~2']
		);
		assert.ok(found.remarks.some((words) => /One id stands at several objects/.test(words)));
		assert.ok(found.remarks.some((words) => /leads nowhere in this file \(#gone\)/.test(words)));
		assert.ok(found.objects.length < 100);
	});
	it('reach as far as their shapes do, curves by where they turn', () => {
		const extent = (shape: string) => new Extents(new Map()).of(sheet(A3, shape).xml.root.children[0]!);
		assert.deepEqual(extent('<path d="M0 0Q5 10 10 0"/>'), { x1: 0, y1: 0, x2: 10, y2: 5 });
		const arc = extent('<path d="M0 0A5 5 0 0 1 10 0"/>');
		near(arc.y1, -5, 0.01);
		assert.deepEqual(extent('<polyline points="1,2 3,-4"/>'), { x1: 1, y1: -4, x2: 3, y2: 2 });
		assert.deepEqual(extent('<g transform="scale(2)"><ellipse cx="1" cy="1" rx="2" ry="1"/></g>'), {
			x1: -2,
			y1: 0,
			x2: 6,
			y2: 4
		});
		assert.deepEqual(extent('<path d="M1 1c0 4 4 4 4 0h3v-5z"/>'), { x1: 1, y1: -4, x2: 8, y2: 4 });
	});
	it('reach the page whole', async () => {
		const document = readSvg(await fernBed());
		const packed = JSON.parse(JSON.stringify(shownObjects(document))) as ReturnType<typeof shownObjects>;
		const unpacked = unpackObjects(packed, '');
		assert.deepEqual(
			unpacked.map(({ key, kind, attributes }) => [key, kind, attributes]),
			document.found.objects.map(({ key, kind, attributes }) => [key, kind, attributes])
		);
		assert.equal(packed.extents.length, 4 * document.found.objects.length);
	});
});

describe('tables on a sheet', () => {
	it('every demo table in every demo style: read back as intended, all else byte for byte', async () => {
		for (const make of [fernBed, lighting]) {
			const bytes = await make();
			const document = readSvg(bytes);
			for (const style of DEMO_STYLES) {
				const { bytes: out, account } = await written(document, style);
				for (const table of account.tables)
					assert.deepEqual(table.differences, [], `${style.name}, ${titleOf(document.placed[table.index]!)}`);
				assert.equal(outside(out), outside(bytes), style.name);
				const again = readSvg(out);
				assert.deepEqual(again.placed, document.placed);
				assert.deepEqual(
					again.tables.map(({ carried }) => carried?.style),
					document.tables.map(() => style.name)
				);
				const twice = await written(again, style);
				assert.equal(text(twice.bytes), text(out), 'the same comes out again');
			}
		}
	});
	it('a table that nothing was done to keeps its bytes; one that was taken off is gone, and only it', async () => {
		const bytes = await fernBed();
		const document = readSvg(bytes);
		const [, legend] = document.tables;
		const { bytes: out } = await writeSvg(document, [{ index: 1, table: legend!.table, style: PLAN }], options);
		assert.equal(text(out), text(bytes), 'redrawn in the same style it is the same');
		const less = withEdits(document, { placed: document.placed.slice(1) });
		const { bytes: fewer } = await writeSvg(less, [], options);
		assert.equal(readSvg(fewer).placed.length, 2);
		const { node } = document.groups[0]!;
		assert.equal(text(fewer), document.source.text.slice(0, node.start) + document.source.text.slice(node.end));
	});
	it('stand at their point at every scale, held by every corner', async () => {
		for (const scale of [1, 7, 50, 1_000])
			for (const corner of ['top-start', 'bottom-end'] as const) {
				const document = placed(
					sheet(
						`width="420mm" height="297mm" viewBox="-100 50 ${420 * scale} ${297 * scale}" data-scale="1:${scale}"`,
						`<circle r="${scale}" cx="0" cy="90" data-size="1 L"/>`
					),
					{ corner, at: { x: 200, y: 150 } }
				);
				const { bytes, account } = await written(document);
				assert.deepEqual(account.tables[0]!.differences, []);
				const [a, , , d, e, f] = /transform="matrix\(([^)]*)\)"/
					.exec(text(bytes))![1]!
					.split(' ')
					.map(Number) as number[];
				near(a!, scale / 100, scale * 1e-9);
				const one = prepare(document, jobs(document), options)[0]!;
				const { width, height } = drawOn(document, document.placed[0]!, dressedAs(document.tables[0]!, one));
				const [x, y] = [(e! + 100) / (a! * 100), (f! - 50) / (d! * 100)];
				near(x, corner === 'top-start' ? 200 : 200 - width, 1e-3);
				near(y, corner === 'top-start' ? 150 : 150 - height, 1e-3);
			}
	});
	it('plot their text at the height that is asked for, and their lines in widths of the series', () => {
		const document = placed(
			sheet('width="420mm" height="297mm" viewBox="0 0 420 297"', '<circle r="3" data-size="1"/>'),
			{ textHeight: 3.5, seriesLines: true }
		);
		const one = prepare(document, jobs(document), options)[0]!;
		const facts = plottedFacts(drawOn(document, document.placed[0]!, dressedAs(document.tables[0]!, one)), document);
		assert.equal(facts.body, 3.5);
		for (const width of facts.lines) assert.ok((LINE_WIDTHS as readonly number[]).includes(width), String(width));
		assert.deepEqual(facts.warnings, []);
	});
	it('warn of text that is too small, of leaving the sheet, of covering objects', () => {
		const root = 'width="100mm" height="80mm" viewBox="0 0 100 80"';
		const warn = (more: Partial<PlacedTable>) => {
			const document = placed(sheet(root, '<circle cx="60" cy="60" r="3" data-size="1"/>'), more);
			const one = prepare(document, jobs(document), options)[0]!;
			return plottedFacts(
				drawOn(document, document.placed[0]!, dressedAs(document.tables[0]!, one)),
				document
			).warnings.map(({ kind }) => kind);
		};
		assert.deepEqual(warn({ at: { x: 5, y: 5 } }), []);
		assert.deepEqual(warn({ at: { x: 5, y: 5 }, textHeight: 1 }), ['small']);
		assert.deepEqual(warn({ at: { x: 95, y: 5 } }), ['outside']);
		assert.deepEqual(warn({ at: { x: 50, y: 55 } }), ['covers']);
	});
	it('columns take the widths that they were given, and their neighbours do not move with them', () => {
		const root = 'width="420mm" height="297mm" viewBox="0 0 420 297"';
		const widths = (more: Partial<PlacedTable>) => {
			const document = placed(sheet(root, '<circle r="3" data-size="1"/>'), more);
			return drawOn(
				document,
				document.placed[0]!,
				dressedAs(document.tables[0]!, prepare(document, jobs(document), options)[0]!)
			).laid.widths;
		};
		const fitted = widths({});
		const given = widths({ widths: { Size: 40 } });
		assert.equal(given[1], 40 * 36_000);
		near(given[0]!, fitted[0]!, 1);
		near(given[2]!, fitted[2]!, 1);
	});
	it('go out as a PDF of the sheet, as rows, and alone as documents', async () => {
		const document = readSvg(await lighting());
		const all = jobs(document);
		const pdf = await writeAs('pdf', document, all, { ...options, title: 'Path lighting' });
		assert.match(text(pdf.bytes.slice(0, 8)), /%PDF-1\.7/);
		// A3 on its long side, in points.
		assert.match(new TextDecoder('latin1').decode(pdf.bytes), /MediaBox \[0 0 1190\.55\d* 841\.8\d*\]/);
		assert.deepEqual(pdf.account.remarks, []);
		const rows = text((await writeAs('csv', document, all, { ...options, title: '' })).bytes);
		assert.match(rows, /Subtotal/);
		assert.match(rows, /,60,699 W/);
		for (const kind of ['docx', 'odt', 'html'] as const) {
			const { bytes } = await writeAs(kind, document, all, { ...options, title: 'Lamps', only: [0] });
			const back = await openDocument(bytes, `x.${kind}`);
			assert.equal(back.tables[0]!.table.cells.at(-1)!.text, '699 W');
		}
		await assert.rejects(writeAs('svg', document, all, { ...options, title: '', only: [0] }), /As SVG|as SVG/);
	});
	it('stay in files with prefixes, without an end tag, in other encodings', async () => {
		const files: Record<string, Bytes> = {
			prefixed: utf8(
				'<s:svg xmlns:s="http://www.w3.org/2000/svg" width="100mm" height="80mm" viewBox="0 0 100 80"><s:circle r="2" data-size="ü"/></s:svg>'
			),
			empty: utf8(`<svg ${NS} width="100mm" height="80mm" viewBox="0 0 100 80"/>`),
			latin: Uint8Array.from(
				Buffer.from(
					`<?xml version="1.0" encoding="ISO-8859-1"?><svg ${NS} width="100mm" height="80mm" viewBox="0 0 100 80"><circle r="2" data-size="\u00fc \u00e9"/></svg>`,
					'latin1'
				)
			),
			doctype: utf8(
				`<?xml version="1.0"?><!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "x.dtd"><svg ${NS} width="100mm" height="80mm" viewBox="0 0 100 80"><circle r="2" data-size="1"/></svg>`
			)
		};
		for (const [name, bytes] of Object.entries(files)) {
			const document = placed(readSvg(bytes));
			const { bytes: out, account } = await written(document);
			assert.deepEqual(account.tables[0]!.differences, [], name);
			const again = readSvg(out);
			assert.deepEqual(again.placed, document.placed, name);
			assert.equal(again.source.encoding, document.source.encoding);
			if (name !== 'empty') assert.equal(outside(out).replace('\n</', '</'), outside(bytes), name);
		}
	});
	it('attributes that a person changed stand in the file, and nothing else of it changes', async () => {
		const source = `<svg ${NS} width="100mm" height="80mm" viewBox="0 0 100 80"><circle id="a" r="2" data-size='1 "L"' fill="red"/><circle id="b" data-size="2" /></svg>`;
		const document = readSvg(utf8(source));
		const edits: DrawingEdits = { attributes: { '#a': { size: '5 & 6', colour: 'blue' }, '#b': { size: null } } };
		const { bytes } = await writeSvg(withEdits(document, edits), [], options);
		assert.equal(
			text(bytes),
			source
				.replace(`data-size='1 "L"' fill="red"`, 'data-size="5 &amp; 6" fill="red" data-colour="blue"')
				.replace(' data-size="2"', '')
		);
	});
});

describe('drawings that others had their hands in', () => {
	const edit = async (change: (drawing: string) => string) => readSvg(utf8(change(text(await fernBed()))));
	it('a text that another program changed is kept, and shows as a difference to the objects', async () => {
		const document = await edit((drawing) =>
			drawing.replace('>Osmunda regalis</text>', '><tspan>Osmunda</tspan> claytoniana</text>')
		);
		assert.ok(
			document.remarks.some((words) => /Another program changed a text of “Planting schedule”/.test(words)),
			document.remarks.join()
		);
		const [schedule] = document.placed;
		const row = schedule!.rows.rows.find(({ cells }) => cells[1]!.text === 'Osmunda claytoniana')!;
		assert.equal(row.cells[1]!.over, 'Osmunda regalis');
		assert.ok(schedule!.source.from === 'objects');
		const now = makeRows(
			schedule!.source.from === 'objects' ? schedule!.source.definition : KINDS,
			document.found.objects,
			sheetFacts(document)
		);
		assert.ok(
			!differences(schedule!.rows, now).some((change) => change.kind === 'changed' && change.column === 'Plant')
		);
	});
	it('a table whose drawing was taken apart is drawn again; one whose metadata went stays as it is', async () => {
		const apart = await edit((drawing) =>
			drawing.replace(
				/(<g id="plant-legend"[\s\S]*?<\/style>)[\s\S]*?<\/g>\n<\/g>(?=\n<g id="revisions"|\n<\/svg>)/,
				'$1</g>'
			)
		);
		assert.ok(
			apart.remarks.some((words) => /taken apart by another program/.test(words)),
			apart.remarks.join()
		);
		assert.equal(apart.placed.length, 3);
		const { bytes, account } = await written(apart);
		assert.deepEqual(
			account.tables.flatMap((table) => table.differences),
			[]
		);
		assert.equal(readSvg(bytes).tables[1]!.table.rows, apart.tables[1]!.table.rows);
		const bare = await edit((drawing) => drawing.replace(/<metadata>[\s\S]*?<\/metadata>/, ''));
		assert.equal(bare.placed.length, 2);
		assert.ok(bare.remarks.some((words) => /“planting-schedule” was a table of ours/.test(words)));
		const out = text((await written(bare)).bytes);
		assert.ok(out.includes('<g id="planting-schedule"'), 'what is left of it stays');
	});
	it('one that another program deleted is put back where it is still known', async () => {
		const before = readSvg(await fernBed());
		const document = await edit((drawing) => drawing.replace(/<g id="revisions"[\s\S]*<\/g>\n(?=<\/svg>)/, ''));
		assert.equal(document.placed.length, 2);
		const known = withEdits(document, { placed: before.placed });
		const { bytes } = await written(known);
		assert.deepEqual(
			readSvg(bytes).placed.map(({ id }) => id),
			['planting-schedule', 'plant-legend', 'revisions']
		);
	});
});

describe('what is shown of a drawing', () => {
	const NASTY = `<svg ${NS} xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="80mm" viewBox="0 0 100 80" onload="alert(1)">
		<script>alert(2)</script><style>@import url(http://x/y.css);</style><style>.a{fill:url(#g)}</style>
		<foreignObject><body xmlns="http://www.w3.org/1999/xhtml"><script>alert(3)</script></body></foreignObject>
		<a xlink:href="javascript:alert(4)"><circle r="2" data-size="1" onclick="alert(5)"/></a>
		<image href="http://x/p.png"/><image href="data:image/png;base64,iVBORw0KGgo="/><use href="other.svg#a"/>
		<rect style="fill:url(http://x/#a)"/><rect class="a" fill="url(#g)"/><set attributeName="href" to="javascript:alert(6)"/>
		<circle r="3" data-size="2"><animate attributeName="r" onbegin="alert(7)"/></circle></svg>`;
	it('never runs, never loads; the file keeps all of it', async () => {
		const document = placed(readSvg(utf8(NASTY)));
		const shown = shownText(document);
		for (const gone of [
			'script',
			'alert',
			'http://x',
			'javascript',
			'foreignObject',
			'other.svg',
			'onload',
			'<set',
			'<animate',
			'@import'
		])
			assert.ok(!shown.includes(gone), gone);
		for (const kept of ['data:image/png', '.a{fill:url(#g)}', 'fill="url(#g)"', 'data-object="0"', 'data-object="1"'])
			assert.ok(shown.includes(kept), kept);
		readSvg(utf8(shown));
		assert.ok(
			document.remarks.some((words) =>
				/a script, event attributes, references to other files, foreign content/.test(words)
			)
		);
		const { bytes } = await written(document);
		assert.equal(outside(bytes).replace('\n</svg>', '</svg>'), NASTY);
	});
	it('our tables are left out of it', async () => {
		const document = readSvg(await fernBed());
		assert.ok(!shownText(document).includes('Planting schedule'));
	});
});

describe('large drawings', () => {
	const many = (more: string, root = '') =>
		readSvg(
			utf8(
				`<svg ${NS} width="420mm" height="297mm" viewBox="0 0 4200 2970"${root}><defs><linearGradient id="l"><stop stop-color="red"/></linearGradient><symbol id="s" overflow="visible"><title>S</title><circle r="10" fill="url(#l)"/></symbol><g id="t" transform="translate(5 0)"><rect width="10" height="10"/></g></defs><rect width="4200" height="2970" fill="#fff"/>${Array.from({ length: 4_001 }, (_, i) => `<use href="#s" x="${i % 4_000}" y="${(i * 7) % 2_900}" data-n="${i}"/>`).join('')}${more}</svg>`
			)
		);
	it('give the page their plain objects as pictures in their places, and the rest as it is', () => {
		const document = many(
			'<use href="#t" x="100" y="200" transform="rotate(90)" data-n="t"/><use href="#s" fill="blue" data-n="own"/><g opacity="0.5"><use href="#s" data-n="within"/></g><circle r="4" data-n="c"/>'
		);
		const { sprites, nodes } = spritesOf(document)!;
		assert.equal(nodes.size, 4_002, 'all but those that say how they look');
		assert.equal(sprites.placed.length, 8 * 4_002);
		assert.deepEqual(sprites.placed.slice(8, 16), [0, -1, 0.1, 0, 0, 0.1, 0.1, 0.7]);
		assert.equal(sprites.pictures.length, 2);
		const [round, square] = sprites.pictures;
		assert.match(round!.markup, /<linearGradient id="l">.*<circle r="10" fill="url\(#l\)"\/>/);
		near(round!.extent.x1, -11.2);
		near(square!.extent.x1, 4.4);
		near(square!.extent.x2, 15.6);
		readSvg(utf8(round!.markup));
		const shown = shownText(document, nodes);
		assert.equal(shown.match(/<use /g)!.length, 2);
		assert.ok(shown.includes('data-object="4004"'));
	});
	it('smaller ones, and ones whose root says how all looks, are shown as they are', async () => {
		assert.equal(spritesOf(readSvg(await fernBed())), undefined);
		assert.equal(spritesOf(many('', ' fill="green"'))!.nodes.size, 0);
	});
});

describe('broken drawings', () => {
	const codes: Record<string, [bytes: () => Bytes, code: string]> = {
		'cut off': [() => utf8(`<svg ${NS}><g><circle`), 'xml'],
		'no drawing': [() => utf8('<html xmlns="http://www.w3.org/1999/xhtml"><svg/></html>'), 'not-a-drawing'],
		'without the namespace': [() => utf8('<svg width="1"><g/></svg>'), 'not-a-drawing'],
		entities: [() => utf8(`<!DOCTYPE svg [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg ${NS}>&b;</svg>`), 'xml'],
		'unknown entity': [() => utf8(`<svg ${NS}>&nbsp;</svg>`), 'xml'],
		compressed: [() => Uint8Array.from([0x1f, 0x8b, 8, 0]), 'compressed'],
		'too deep': [() => utf8(`<svg ${NS}>${'<g>'.repeat(700)}${'</g>'.repeat(700)}</svg>`), 'xml'],
		empty: [() => utf8(''), 'empty']
	};
	for (const [name, [bytes, code]] of Object.entries(codes))
		it(`${name}: refused in words`, async () => {
			await assert.rejects(openDocument(bytes(), 'x.svg'), (error: unknown) => {
				assert.ok(error instanceof InputError, String(error));
				assert.equal(error.code, code, error.message);
				return true;
			});
		});
	it('a sheet that is no sheet is drawn all the same, with a remark', () => {
		const { sheet: read, remarks } = sheet('width="900000mm" height="1mm" viewBox="0 0 1e30 1"');
		assert.ok(Number.isFinite(read.toUnits[0]));
		assert.ok(remarks.some((words) => /hardly meant/.test(words)));
	});
	it('damaged ones are read, or refused in words', async () => {
		const whole = text(await lighting());
		const at = fc.nat({ max: whole.length - 1 });
		const damage = fc.oneof(
			fc.tuple(at, fc.constantFrom('<', '>', '"', '&', '0', '-', ' ', '#', '\u0000', '{', '9e99')).map(
				([i, piece]) =>
					(drawing: string) =>
						drawing.slice(0, i) + piece + drawing.slice(i + 1)
			),
			fc.tuple(at, fc.nat({ max: 400 })).map(
				([i, length]) =>
					(drawing: string) =>
						drawing.slice(0, i) + drawing.slice(i + length)
			),
			fc.tuple(at, at, fc.nat({ max: 300 })).map(
				([i, j, length]) =>
					(drawing: string) =>
						drawing.slice(0, i) + drawing.slice(j, j + length) + drawing.slice(i)
			)
		);
		let read = 0;
		await fc.assert(
			fc.asyncProperty(fc.array(damage, { minLength: 1, maxLength: 2 }), async (changes) => {
				const bytes = utf8(changes.reduce((drawing, change) => change(drawing), whole));
				let document: SvgDocument;
				try {
					document = readSvg(bytes);
				} catch (error) {
					assert.ok(error instanceof InputError, String((error as Error).stack));
					return;
				}
				read++;
				const { bytes: out } = await writeSvg(document, jobs(document), { ...options, readBack: false });
				assert.equal(readSvg(out).placed.length, document.placed.length);
				shownText(document);
			}),
			{ numRuns: runs(400), seed: 31 }
		);
		assert.ok(read > 100, `${read} of them could be read`);
	});
});

describe('a drawing in markup of other programs', () => {
	const odd = (more = '') =>
		readSvg(
			new TextEncoder().encode(
				`<s:svg xmlns:s="http://www.w3.org/2000/svg" xmlns:x="http://www.w3.org/1999/xlink" width="100mm" height="60mm" viewBox="0 0 100 60"><s:defs><s:symbol id="lamp" viewBox="0 0 10 10"><s:rect width="10" height="10" fill="#123456"/></s:symbol></s:defs><s:rect data-größe="5" x="5" y="5" width="20" height="10" fill="#abcdef"/><s:use x:href="#lamp" x="40" y="10" width="10" height="10"/>${more}</s:svg>`
			)
		);
	const operators = async (document: ReturnType<typeof readSvg>) => {
		const { bytes, account } = await writeAs('pdf', document, [], { ...options, title: 'Odd' });
		const source = Buffer.from(bytes).toString('latin1');
		const all = [...source.matchAll(/stream\r?\n([^]*?)\r?\nendstream/g)].flatMap(([, data]) => {
			try {
				return [inflateSync(Buffer.from(data!, 'latin1')).toString('latin1')];
			} catch {
				return [];
			}
		});
		return { drawn: all.join('\n'), source, remarks: account.remarks };
	};
	it('is drawn whole: prefixes, attributes in other letters, symbols', async () => {
		const { drawn, remarks } = await operators(odd());
		assert.deepEqual(remarks, []);
		const ink = (hex: string) =>
			[0, 2, 4]
				.map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
				.map((share) => (Math.floor(share * 100) / 100).toFixed(2));
		for (const hex of ['abcdef', '123456'])
			assert.match(
				drawn,
				new RegExp(
					ink(hex)
						.map((share) => `${share.replace('.', '\\.')}\\d*`)
						.join(' ')
				),
				hex
			);
	});
	it('has its words in faces that ship, and those that none has are named', async () => {
		const { source, remarks } = await operators(
			odd('<s:text x="10" y="40">ורד לבן and Ősz</s:text><s:text x="10" y="50">蕨</s:text>')
		);
		assert.match(source, /NotoSansHebrew/);
		assert.deepEqual(remarks, ['No font that ships has the character: 蕨.']);
	});
});

it('an attribute is changed in its own place, whatever others look like', () => {
	const source = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><g data-kind="bed" data-note=' data-size="5" ' data-size="6" id="a"><rect width="5" height="5"/></g></svg>`;
	const document = readSvg(new TextEncoder().encode(source));
	const [object] = document.found.objects;
	const edits = { ...document.edits, attributes: { [object!.key]: { size: '7' } } };
	return writeSvg({ ...document, edits }, [], options).then(({ bytes }) => {
		assert.equal(text(bytes), source.replace('data-size="6"', 'data-size="7"'));
	});
});
