import assert from 'node:assert/strict';
import { test } from 'node:test';
import { deflateSync, inflateSync } from 'node:zlib';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { seasonReport } from '../../../../demo/documents/season-report.ts';
import { seedList } from '../../../../demo/documents/seed-list.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { SHIPPED } from '../../../../src/lib/core/layout/fonts.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import type { Style } from '../../../../src/lib/core/style/types.ts';
import type { CellPicture } from '../../../../src/lib/core/table/content.ts';
import { tableToFile } from '../../../../src/lib/core/table/file.ts';
import { emu } from '../../../../src/lib/core/units.ts';
import { emptyTable, withCells } from '../../../../src/lib/core/work/table.ts';
import { tableOf } from '../../../../src/lib/core/work/convert.ts';
import { missingText } from '../../../../src/lib/formats/pdf/check.ts';
import { reportOf } from '../../../../src/lib/formats/pdf/report.ts';
import { layPages } from '../../../../src/lib/formats/pdf/write.ts';
import { openDocument, writeAs, type AnyDocument } from '../../../../src/lib/formats/index.ts';

const ledger: Style = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
const pdfOf = async (document: AnyDocument, only?: number[]) => {
	const jobs = document.tables.map(({ index, table }) => ({ index, table, style: ledger }));
	const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
	return writeAs('pdf', document, jobs, { house: FIRST_HOUSE, find, title: 'Season report 2031', only });
};

interface Node {
	readonly role?: string;
	readonly type?: string;
	readonly id?: string;
	readonly children?: readonly Node[];
}

/** A PDF as a reading program sees it: per page its structure, and the text of each marked content. */
async function read(bytes: Uint8Array) {
	const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
	const pages = [];
	for (let n = 1; n <= pdf.numPages; n++) {
		const page = await pdf.getPage(n);
		const texts = new Map<string, string>();
		const artifacts: string[] = [];
		const stack: (string | null)[] = [];
		for (const item of (await page.getTextContent({ includeMarkedContent: true })).items as unknown as {
			type?: string;
			tag?: string;
			id?: string;
			str?: string;
		}[]) {
			if (item.type?.startsWith('beginMarkedContent'))
				stack.push(item.id ?? (item.tag === 'Artifact' ? 'artifact' : null));
			else if (item.type === 'endMarkedContent') stack.pop();
			else if (item.str !== undefined) {
				const id = [...stack].reverse().find((one) => one !== null);
				if (id === 'artifact') artifacts.push(item.str);
				else if (id) texts.set(id, (texts.get(id) ?? '') + item.str);
			}
		}
		pages.push({ tree: (await page.getStructTree()) as Node, texts, artifacts: artifacts.join('') });
	}
	return { pages, outline: ((await pdf.getOutline()) ?? []) as { title: string }[], info: await pdf.getMetadata() };
}

/** The texts of all elements of these roles, in reading order. */
function textsIn(
	{ tree, texts }: { tree: Node; texts: ReadonlyMap<string, string> },
	roles: readonly string[]
): string[] {
	const textOf = (node: Node): string =>
		node.type === 'content' ? (texts.get(node.id!) ?? '') : (node.children ?? []).map(textOf).join('');
	const walk = (node: Node): string[] =>
		node.role && roles.includes(node.role) ? [textOf(node)] : (node.children ?? []).flatMap(walk);
	return walk(tree);
}
const bare = (text: string) => text.replace(/\s+/g, '');

test('a report reads back, in reading order, as the text of its tables, its headings and its contents', async () => {
	const document = await openDocument(await seasonReport(), 'season-report.docx');
	const { bytes, account } = await pdfOf(document);
	const { pages, outline, info } = await read(bytes);
	const cells = pages.flatMap((page) => textsIn(page, ['TH', 'TD'])).map(bare);
	const wanted = document.blocks
		.flatMap((block) => (block.kind === 'table' ? document.tables[block.index]!.table.cells : []))
		.map(({ text }) => bare(text));
	// A cell with a table inside reads as its own text and the table's.
	assert.deepEqual(
		cells.filter((text) => text && !text.startsWith('Bykind')),
		wanted.filter((text) => text && !text.startsWith('Bykind'))
	);
	assert.ok(cells.some((text) => text.startsWith('Bykindofticket:TicketNumberMembers214')));
	assert.deepEqual(
		pages.flatMap((page) => textsIn(page, ['H1', 'H2', 'H3'])).map(bare),
		[
			'Season report 2031',
			...document.blocks.flatMap((block) =>
				block.kind === 'heading' && block.text !== 'Season report 2031' ? [block.text] : []
			)
		].map(bare)
	);
	const entries = textsIn(pages[0]!, ['TOCI']).map((text) => text.trim());
	assert.equal(entries.length, outline.length);
	assert.ok(/^Table 1: Visitors by month\s*2$/.test(entries[0]!), entries[0]);
	assert.equal(account.tables.length, document.tables.length);
	assert.equal((info.info as { Title: string }).Title, 'Season report 2031');
});

test('the head of a table stands on each of its pages and is read out once', async () => {
	const document = await openDocument(seedList(), 'seed.csv');
	const { pages } = await read((await pdfOf(document)).bytes);
	assert.ok(pages.length > 20);
	const headers = pages
		.flatMap((page) => textsIn(page, ['TH']).map((text) => text.trim()))
		.filter((text) => ['Lot', 'Seed', 'Bed'].includes(text));
	assert.deepEqual(headers, ['Lot', 'Seed', 'Bed']);
	for (const page of pages.slice(1))
		assert.ok(bare(page.artifacts).startsWith('LotSeedBed'), page.artifacts.slice(0, 40));
	const lots = pages
		.flatMap((page) => textsIn(page, ['TH', 'TD']))
		.map((text) => text.trim())
		.filter((text) => /^TX-\d+$/.test(text));
	assert.deepEqual(
		lots,
		document.tables[0]!.table.cells.filter(({ r, c }) => r > 0 && c === 0).map(({ text }) => text)
	);
});

test('the same input makes the same bytes', async () => {
	const document = await openDocument(await seasonReport(), 'season-report.docx');
	assert.deepEqual(Buffer.from((await pdfOf(document)).bytes), Buffer.from((await pdfOf(document)).bytes));
});

test('one table alone, in every format that makes a new file', async () => {
	const document = await openDocument(await seasonReport(), 'season-report.docx');
	const { pages } = await read((await pdfOf(document, [2])).bytes);
	assert.equal(pages.length, 1);
	assert.ok(textsIn(pages[0]!, ['TH', 'TD']).includes('Heating and light'));
	const jobs = document.tables.map(({ index, table }) => ({ index, table, style: ledger }));
	const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
	const options = { house: FIRST_HOUSE, find, title: 'One', only: [2] };
	for (const kind of ['docx', 'odt', 'html', 'csv'] as const) {
		const { bytes, account } = await writeAs(kind, document, jobs, options);
		const back = await openDocument(bytes, `one.${kind}`);
		assert.equal(back.tables.length, 1, kind);
		assert.deepEqual(
			back.tables[0]!.table.cells.map(({ text }) => text),
			document.tables[2]!.table.cells.map(({ text }) => text)
		);
		assert.deepEqual(
			account.tables.map(({ index }) => index),
			[2]
		);
		assert.deepEqual(account.tables[0]!.differences, []);
	}
	const css = new TextDecoder().decode((await writeAs('css', document, jobs, options)).bytes);
	assert.ok(css.includes('.season-ledger {'));
	await assert.rejects(() => writeAs('css', document, [], options), /wears a house style/);
	await assert.rejects(() => writeAs('pdf', document, jobs, { ...options, only: [99] }), /no table 100/);
});

test('families that do not ship, and characters that no font has, are said', async () => {
	const document = await openDocument(
		new TextEncoder().encode('<table><tr><td style="font-family:Quillwort">fern 蕨</td></tr></table>'),
		'x.html'
	);
	const { account } = await writeAs('pdf', document, [], { house: FIRST_HOUSE, title: 'x' });
	assert.ok(account.remarks.some((remark) => /“Quillwort” does not ship.*Source Sans 3/.test(remark)));
	assert.ok(account.remarks.some((remark) => remark.includes('蕨')));
});

test('every face that ships measures and draws every space and figure', async () => {
	const text = 'Fern\u00a012\u2009345\u200b (−6,7)\u2002x';
	const rows = SHIPPED.flatMap((family) =>
		[400, 600, 700].flatMap((weight) =>
			['normal', 'italic'].map((slope) => `<tr><td style="font:${slope} ${weight} 10pt '${family}'">${text}</td></tr>`)
		)
	);
	const document = await openDocument(
		new TextEncoder().encode(`<meta charset="utf-8"><table>${rows.join('')}</table>`),
		'x.html'
	);
	const { bytes, account } = await writeAs('pdf', document, [], { house: FIRST_HOUSE, title: 'Faces' });
	const { pages } = await read(bytes);
	const cells = pages.flatMap((page) => textsIn(page, ['TH', 'TD'])).map((cell) => cell.replace(/[\s\u200b]+/g, ''));
	assert.equal(cells.length, SHIPPED.length * 6);
	for (const cell of cells) assert.equal(cell, 'Fern12345(−6,7)x');
	assert.deepEqual(
		account.remarks.filter((remark) => remark.includes('does not ship')),
		[]
	);
});

/** A PNG of 4 by 4 pixels with this colour type and packed data. */
function pngOf(
	colour: number,
	data: Buffer,
	{ size = 4, interlaced = 0, more = [] as [string, Buffer][] } = {}
): Buffer {
	const header = Buffer.alloc(13);
	header.writeUInt32BE(size, 0);
	header.writeUInt32BE(size, 4);
	header.set([8, colour, 0, 0, interlaced], 8);
	const chunk = ([type, body]: readonly [string, Buffer]) => {
		const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
		length.writeUInt32BE(body.length);
		sum.writeUInt32BE(crc32(Buffer.concat([Buffer.from(type), body])));
		return Buffer.concat([length, Buffer.from(type), body, sum]);
	};
	const chunks = [['IHDR', header] as const, ...more, ['IDAT', data] as const, ['IEND', Buffer.alloc(0)] as const];
	return Buffer.concat([Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'), ...chunks.map(chunk)]);
}
function crc32(bytes: Buffer): number {
	let sum = 0xffffffff;
	for (const byte of bytes) {
		sum ^= byte;
		for (let bit = 0; bit < 8; bit++) sum = sum & 1 ? 0xedb88320 ^ (sum >>> 1) : sum >>> 1;
	}
	return (sum ^ 0xffffffff) >>> 0;
}
const withPicture = async (picture: Partial<CellPicture>) => {
	const whole = { source: '', alternative: 'A fern', width: emu(720_000), height: emu(720_000), fits: 'row' as const };
	const work = withCells(emptyTable(3, 2), [{ r: 1, c: 1 }], (cell) => ({
		...cell,
		picture: { ...whole, ...picture }
	}));
	const file = tableToFile(tableOf(work), { title: 'Ferns', work });
	return openDocument(new TextEncoder().encode(JSON.stringify(file)), 'ferns.table.json');
};

test('a picture that is damaged is left out of a PDF and said, and brings nothing down', async () => {
	const rgba = deflateSync(Buffer.alloc(68));
	const png = (bytes: Buffer) => `data:image/png;base64,${bytes.toString('base64')}`;
	const damaged: Record<string, string> = {
		'no packed data': png(pngOf(6, Buffer.from('garbage!'))),
		'nothing packed': png(pngOf(6, Buffer.alloc(0))),
		'packed too little': png(pngOf(6, deflateSync(Buffer.alloc(20)))),
		'packed far too much': png(pngOf(6, deflateSync(Buffer.alloc(1_000_000)))),
		'millions of pixels': png(pngOf(6, rgba, { size: 60_000 })),
		'a palette that is not there': png(pngOf(3, deflateSync(Buffer.alloc(20)))),
		'cut off': png(pngOf(6, rgba).subarray(0, 40)),
		'no picture': png(Buffer.from('It is a letter.')),
		'half a JPEG': `data:image/jpeg;base64,${Buffer.from([255, 216, 255, 224, 0, 16]).toString('base64')}`,
		'a drawing without its pixels': 'data:image/svg+xml;base64,PHN2Zy8+'
	};
	for (const [what, source] of Object.entries(damaged)) {
		const { bytes, account } = await pdfOf(await withPicture({ source }));
		assert.match(account.remarks.join(), /The picture “A fern” is damaged/, what);
		assert.ok((await getDocument({ data: bytes.slice(), verbosity: 0 }).promise).numPages > 0, what);
	}
	const interlaced = pngOf(6, deflateSync(Buffer.alloc(5 + 5 + 9 + 2 * 9 + 2 * 17)), { interlaced: 1 });
	for (const bytes of [pngOf(6, rgba), pngOf(2, deflateSync(Buffer.alloc(52))), interlaced])
		assert.deepEqual((await pdfOf(await withPicture({ source: png(bytes) }))).account.remarks, []);
});

test('pictures in cells are figures with their words, in pixels', async () => {
	const pixels = `data:image/png;base64,${pngOf(6, deflateSync(Buffer.alloc(68))).toString('base64')}`;
	const document = await withPicture({ source: 'data:image/svg+xml;base64,PHN2Zy8+', pixels });
	const { bytes, account } = await pdfOf(document);
	assert.deepEqual(account.remarks, []);
	const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
	const page = await pdf.getPage(1);
	const figures: Node[] = [];
	const find = (node: Node) => {
		if (node.role === 'Figure') figures.push(node);
		node.children?.forEach(find);
	};
	find((await page.getStructTree()) as Node);
	assert.deepEqual(
		figures.map((figure) => (figure as { alt?: string }).alt),
		['A fern']
	);
	const { fnArray } = await page.getOperatorList();
	assert.ok(fnArray.includes(OPS.paintImageXObject), 'the picture is painted');
});

const pageOf = async (body: string) =>
	openDocument(new TextEncoder().encode(`<!DOCTYPE html><meta charset="utf-8"><body>${body}</body>`), 'page.html');
const plain = async (body: string) =>
	writeAs('pdf', await pageOf(body), [], { house: FIRST_HOUSE, find: () => undefined, title: 'Beds' });

test('a table in a cell that is taller than a page goes on over pages, with its head and all of its text', async () => {
	const rows = Array.from({ length: 120 }, (_, i) => `<tr><td>Plant ${i + 1}</td><td>${i}</td></tr>`).join('');
	const inner = `<table><thead><tr><th>Inner plant</th><th>Count</th></tr></thead><tbody>${rows}</tbody></table>`;
	const { bytes, account } = await plain(
		`<table><thead><tr><th>Bed</th><th>Plants</th></tr></thead><tbody><tr><td>North</td><td>Before${inner}After</td></tr></tbody></table>`
	);
	assert.deepEqual(account.remarks, []);
	const { pages } = await read(bytes);
	assert.ok(pages.length > 2, `${pages.length} pages`);
	const cells = pages.flatMap((page) => textsIn(page, ['TH', 'TD'])).map(bare);
	const whole = cells.join(' ');
	for (let i = 1; i <= 120; i++) assert.ok(whole.includes(`Plant${i}`), `Plant ${i}`);
	assert.ok(whole.includes('Before') && whole.includes('After'));
	// Its head stands on each page that it goes on to, and is read out once.
	const heads = pages.filter(({ artifacts }) => artifacts.includes('Inner plant')).length;
	assert.equal(heads, pages.length - 2 - (pages.at(-1)!.artifacts.includes('Inner plant') ? 0 : 1));
	assert.equal(whole.split('Innerplant').length, 2);
});

test('text in another case carries what was typed word by word; ligatures are their letters', async () => {
	const document = await pageOf('<table><tr><th>ﬁne ﬂower beds</th></tr><tr><td>a</td></tr></table>');
	const style: Style = {
		...ledger,
		name: 'Loud',
		basedOn: null,
		parts: { ground: { text: { case: 'upper' } } },
		rules: []
	};
	const jobs = document.tables.map(({ index, table }) => ({ index, table, style }));
	const { bytes } = await writeAs('pdf', document, jobs, { house: FIRST_HOUSE, find: () => undefined, title: 'Beds' });
	const source = new TextDecoder('latin1').decode(bytes);
	const operators = [...source.matchAll(/stream\r?\n([^]*?)\r?\nendstream/g)].flatMap(([, data]) => {
		try {
			return [inflateSync(Buffer.from(data!, 'latin1')).toString('latin1')];
		} catch {
			return [];
		}
	});
	const actual = operators
		.flatMap((one) => [...one.matchAll(/\/ActualText \((.*?)\)/g)])
		.map(([, said]) => said!.trim());
	assert.deepEqual(actual, ['fine', 'flower', 'beds', 'a']);
	const { pages } = await read((await plain('<table><tr><td>ﬁne ﬂower</td></tr></table>')).bytes);
	assert.deepEqual(pages.flatMap((page) => textsIn(page, ['TD', 'TH'])).map(bare), ['fineflower']);
});

test('text that would not be on the pages is named', async () => {
	const document = await pageOf('<h1>Beds</h1><table><tr><td>North</td><td>Fern and moss</td></tr></table><p>End.</p>');
	const report = reportOf(document, [], { title: 'Report' });
	const pages = layPages(report);
	assert.deepEqual(missingText(report, pages), []);
	const without = pages.map((page) => ({
		...page,
		pieces: page.pieces.map((piece) =>
			piece.kind !== 'table'
				? piece
				: {
						...piece,
						marks: {
							...piece.marks,
							cells: piece.marks.cells.map((cell) => ({ ...cell, marks: cell.cell === 1 ? [] : cell.marks }))
						}
					}
		)
	}));
	assert.deepEqual(missingText(report, without), [
		'Not all text is on the pages. Missing: table 1, row 1, column 2: “Fernandmoss”.'
	]);
	const few = pages.map((page) => ({ ...page, pieces: page.pieces.filter(({ kind }) => kind !== 'paragraph') }));
	assert.match(missingText(report, few)[0]!, /text beside the tables: “End\.”/);
	const none = pages.map((page) => ({ ...page, pieces: page.pieces.filter(({ kind }) => kind !== 'table') }));
	assert.match(missingText(report, none)[0]!, /table 1: all of it/);
});

test('Hebrew and Arabic are drawn in faces that ship, read as they were typed, and lead where they lead', async () => {
	const { bytes, account } = await plain(
		'<table dir="rtl"><tr><td>ורד (לבן) 2031</td><td>خزامى</td></tr><tr><td><a href="https://thornmere.example/">go</a></td><td>蕨</td></tr></table>'
	);
	assert.deepEqual(account.remarks, ['No font that ships has the character: 蕨.']);
	const source = new TextDecoder('latin1').decode(bytes);
	assert.match(source, /NotoSansHebrew/);
	assert.match(source, /NotoSansArabic/);
	assert.match(source, /\/URI \(https:\/\/thornmere\.example\/\)/);
});

test('every letter of Hebrew and Arabic is drawn or named, alone and together', async () => {
	const letters = Array.from({ length: 0x900 - 0x590 }, (_, i) => String.fromCodePoint(0x590 + i));
	const words = Array.from({ length: 88 }, (_, i) => letters.slice(i * 10, i * 10 + 10).join(''));
	const { bytes, account } = await plain(
		`<table>${words.map((word) => `<tr><td>${[...word].join(' ')}</td><td>${word}</td></tr>`).join('')}</table>`
	);
	assert.ok(bytes.length > 10_000);
	assert.ok(
		account.remarks.every((words) => words.startsWith('No font that ships has')),
		account.remarks.join(' ')
	);
});
