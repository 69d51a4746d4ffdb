import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { FIRST_HOUSE } from '../../../src/lib/core/house.ts';
import { DEMO_STYLES } from '../../../demo/styles/index.ts';
import type { DocumentTable, OpenDocument } from '../../../src/lib/formats/document.ts';
import { openDocument, writeAs } from '../../../src/lib/formats/index.ts';
import { compareKept } from '../../../src/lib/formats/read-back.ts';
import { readHtml } from '../../../src/lib/formats/html/read.ts';

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
/** All that a table holds, in its order: text with its links, pictures with their words, tables inside. */
const holds = (tables: readonly DocumentTable[], index: number): unknown => {
	const { table, content } = tables[index]!;
	return [
		table.dir ?? 'ltr',
		content.map((pieces) =>
			pieces.flatMap((piece): unknown[] => {
				if ('nested' in piece) return [holds(tables, piece.nested)];
				if ('picture' in piece) return [`picture of ${piece.picture.alternative}`];
				const words = piece.runs.map(({ text, link }) => (link ? `${text}→${link}` : text)).join('');
				return words ? [words] : [];
			})
		)
	];
};
const outer = (tables: readonly DocumentTable[]) =>
	tables.filter(({ place }) => place.where !== 'nested').map(({ index }) => holds(tables, index));
const holdings = async (document: OpenDocument) => outer((await document.withPictures?.()) ?? document.tables);

describe('a table in another format', () => {
	const word = fc.constantFrom('fern', 'ורד לבן', '12.50', '(bed A)', 'خزامى', '€ 3.10');
	const cell = fc.oneof(
		{ weight: 4, arbitrary: word },
		word.map((text) => `<a href="https://thornmere.example/?a=1&amp;b=${encodeURIComponent(text)}">${text}</a>`),
		fc.tuple(word, word).map(([a, b]) => `<p>${a}</p><p>${b}</p>`),
		word.map((text) => `<p>${text}</p><p><img alt="${text}" src="${PNG}" width="30"></p>`),
		fc.tuple(word, word, word).map(([a, b, c]) => `<p>${a}</p><table><tr><td>${b}</td></tr></table><p>${c}</p>`)
	);
	const table = fc
		.tuple(fc.array(fc.array(cell, { minLength: 2, maxLength: 2 }), { minLength: 2, maxLength: 3 }), fc.boolean())
		.map(
			([rows, isRight]) =>
				`<table${isRight ? ' dir="rtl"' : ''}>${rows.map((cells) => `<tr>${cells.map((one) => `<td>${one}</td>`).join('')}</tr>`).join('')}</table>`
		);
	for (const first of KINDS)
		for (const second of KINDS)
			it(`keeps text in order, direction, links, pictures and tables inside: ${first}, then ${second}`, async () => {
				await fc.assert(
					fc.asyncProperty(table, fc.boolean(), async (markup, styled) => {
						const start = readHtml(page(markup));
						const wanted = await holdings(start);
						const one = await through(start, first, styled);
						assert.deepEqual(await holdings(one.document), wanted);
						const two = await through(one.document, second, styled);
						assert.deepEqual(await holdings(two.document), wanted);
						for (const { differences } of [...one.account.tables, ...two.account.tables])
							assert.deepEqual(differences, []);
					}),
					{ numRuns: 8 }
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
		const body = `<ul><li>one</li><li>two</li></ul><p><a href="https://thornmere.example">us</a></p><table><tr><td><a href="javascript:alert(1)">no</a></td><td><input> <img alt="far" src="https://thornmere.example/x.png"></td></tr></table>`;
		const { account } = await through(readHtml(page(body)), 'docx');
		assert.deepEqual(account.remarks, [
			'These do not come along: 2 list items as those of lists, 2 links, 1 form field and 1 picture.'
		]);
		const signed = {
			...readHtml(page('<table><tr><td>a</td></tr></table>')),
			ownRemarks: ['It holds macros; they stay.']
		};
		assert.deepEqual((await through(signed, 'odt')).account.remarks, []);
		assert.deepEqual((await writeAs('csv', readHtml(page(body)), [], options)).account.remarks.length, 1);
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
