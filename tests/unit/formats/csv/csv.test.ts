import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import fc from 'fast-check';
import { InputError } from '../../../../src/lib/core/errors.ts';
import { findSeparator, parseRows, SEPARATORS, writeRows } from '../../../../src/lib/formats/csv/parse.ts';
import { readCsv } from '../../../../src/lib/formats/csv/read.ts';
import { seedList } from '../../../../demo/documents/seed-list.ts';
import { DEMO_STYLES } from '../../../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../../../src/lib/core/house.ts';
import type { StyleJob } from '../../../../src/lib/formats/job.ts';
import { openDocument, streamHtml, writeAs, type AnyDocument } from '../../../../src/lib/formats/index.ts';

const utf8 = (text: string) => new TextEncoder().encode(text);

describe('separated values', () => {
	it('quotes, doubled quotes, line breaks inside, all kinds of line ends, empty lines', () => {
		assert.deepEqual(parseRows('a,"b ""c""\nd",\r\n\r\n"",x\re\n', ','), [['a', 'b "c"\nd', ''], ['', 'x'], ['e']]);
	});
	it('read what was written, whatever it is', () => {
		const field = fc.string({ unit: fc.constantFrom('a', '1', ',', ';', '"', '\n', '\r', ' ', '\t', 'é') });
		fc.assert(
			fc.property(
				fc.array(fc.array(field, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 6 }),
				fc.constantFrom(...SEPARATORS),
				(rows, separator) => assert.deepEqual(parseRows(writeRows(rows, separator), separator), rows)
			)
		);
	});
	it('finds the separator that makes even rows', () => {
		for (const [text, separator] of [
			['a;b;c\n1,5;2,5;3\n', ';'],
			['a\tb\n1,2\t3\n', '\t'],
			['a|b|c\n1|2|3\n', '|'],
			['name,"x;y"\n1,2\n', ',']
		] as const)
			assert.equal(findSeparator(text), separator, text);
	});
	it('finds it in a list that goes on, wherever its first part ends: in a field, a quote or a line', () => {
		const row = 'Fern & co;7;"two lines,\nof a, note; and ""more"""\r\n';
		for (let shift = 0; shift < row.length + 2; shift++) {
			const text = `${'x'.repeat(shift)};n;"note"\r\n${row.repeat(600)}`;
			assert.equal(findSeparator(text), ';', `shifted by ${shift}`);
			assert.equal(readCsv(utf8(text)).tables[0]!.table.rows, 601);
		}
		assert.equal(findSeparator(`${'a;'.repeat(15_000)}\n`), ';', 'a first line that is longer');
	});
	it('finds encodings out: UTF-8, UTF-16 with and without a mark, Windows-1252', () => {
		const text = 'Ort;Kosten\nWärmehaus;12,50 €\n';
		const utf16 = (mark: boolean) =>
			new Uint8Array(Uint16Array.from([...(mark ? '\ufeff' : ''), ...text].map((char) => char.charCodeAt(0))).buffer);
		const single = Uint8Array.from([...text].map((char) => (char === '€' ? 0x80 : char.charCodeAt(0))));
		for (const bytes of [utf8(text), utf8(`\ufeff${text}`), utf16(true), utf16(false), single]) {
			const { table } = readCsv(bytes).tables[0]!;
			assert.deepEqual(
				table.cells.map((cell) => cell.text),
				['Ort', 'Kosten', 'Wärmehaus', '12,50 €']
			);
			assert.deepEqual([table.roles[0], table.columnInfo[1]!.kind], ['header:1', 'money']);
		}
	});
	it('says what is wrong and in which line', () => {
		const refused = (bytes: Uint8Array, code: string, pattern: RegExp) =>
			assert.throws(
				() => readCsv(bytes),
				(error) => error instanceof InputError && error.code === code && pattern.test(error.message)
			);
		refused(utf8('a,b\n1,"two\n3,4\n'), 'quote', /line 2 is never closed/);
		refused(utf8('\n\n'), 'empty', /no row/);
		refused(new Uint8Array([1, 0, 0, 7, 9]), 'not-text', /no CSV/);
		refused(
			utf8(`${','.repeat(1_000_000)}\nx${','.repeat(999_999)}y\n`.repeat(3)),
			'too-large',
			/more than can be styled/
		);
	});
});

describe('rows as a web page', () => {
	const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
	it('are written piece by piece, and read back as every demo style wants them', async () => {
		const document = await openDocument(seedList(), 'seed.csv');
		for (const style of DEMO_STYLES.filter(({ parts }) => Object.keys(parts).length > 2)) {
			const jobs = [{ index: 0, table: document.tables[0]!.table, style }];
			const options = { house: FIRST_HOUSE, find, title: 'Seed <exchange> list' };
			const pieces = [...streamHtml(document, jobs, options)!];
			assert.ok(pieces.length > 3);
			const { bytes, account } = await writeAs('html', document, jobs, options);
			assert.equal(new TextDecoder().decode(bytes), pieces.join(''));
			assert.deepEqual(account.tables[0]!.differences.slice(0, 3), [], style.name);
			const back = await openDocument(bytes, 'seed.html');
			assert.deepEqual(
				back.tables[0]!.table.cells.map(({ text }) => text),
				document.tables[0]!.table.cells.map(({ text }) => text)
			);
			assert.deepEqual(back.tables[0]!.table.roles, document.tables[0]!.table.roles);
			assert.equal(back.tables[0]!.carried?.style, style.name);
		}
	});
	it('a list too long for pages or a new package is refused with what to take instead', async () => {
		const document = await openDocument(new TextEncoder().encode('a;b;c\n'.repeat(90_000)), 'long.csv');
		const options = { house: FIRST_HOUSE, find, title: 'Long' };
		for (const kind of ['pdf', 'docx', 'odt'] as const)
			await assert.rejects(
				writeAs(kind, document, [], options),
				/270,000 cells are too many for a new .*Take them as HTML/
			);
		assert.ok((await writeAs('csv', document, [], options)).bytes.length > 500_000);
	});
	it('a long list is read back by its first rows, and says so', async () => {
		const text = ['Lot;Packets', ...Array.from({ length: 3_000 }, (_, i) => `TX-${i};${i % 7}`)].join('\n');
		const document = await openDocument(new TextEncoder().encode(text), 'long.csv');
		const jobs = [{ index: 0, table: document.tables[0]!.table, style: find('Season Ledger')! }];
		const { account } = await writeAs('html', document, jobs, { house: FIRST_HOUSE, find, title: 'Long' });
		assert.deepEqual(account.tables[0]!.differences, []);
		assert.ok(account.remarks.some((remark) => remark.startsWith('The first 2,000 of 3,001 rows were read back')));
	});
	const list = async (rows: number) => {
		const lines = ['Seed;Packets;Note'];
		for (let r = 1; r < rows; r++) lines.push(`Fern ${r} & co;${r};"<b>${r}</b>\nsecond line"`);
		return openDocument(utf8(lines.join('\r\n')), 'seeds.csv');
	};
	const options = { house: FIRST_HOUSE, find, title: 'Seed <list>' };
	const jobFor = ({ tables }: AnyDocument, more: Partial<StyleJob> = {}): StyleJob[] => [
		{ index: 0, style: find('Season Ledger')!, table: tables[0]!.table, ...more }
	];
	it('have a head that repeats in print, headings that say for what, and text that is no markup', async () => {
		const document = await list(4);
		const page = [...streamHtml(document, jobFor(document), options)!].join('');
		assert.match(page, /<title>Seed &lt;list&gt;<\/title>/);
		assert.match(page, /<thead>\n<tr class="[^"]*header[^"]*"><th scope="col"[^>]*>Seed<\/th>/);
		assert.match(page, /<th scope="row"[^>]*>Fern 1 &amp; co<\/th>/);
		assert.match(page, /&lt;b&gt;1&lt;\/b&gt;<br>second line/);
		assert.equal(page.match(/<tbody>/g)!.length, 1);
		assert.ok(page.endsWith('</tbody>\n</table>\n</body>\n</html>\n'));
	});
	it('go the other way where a style sheet does not say all: touches, widths, what is not carried, direct looks', async () => {
		const document = await list(5);
		const { table } = document.tables[0]!;
		const touched = { ...table, touches: [{ r: 1, c: 1, set: { fill: { ink: '#FFEEAA' } } }] };
		for (const [jobs, more] of [
			[jobFor(document, { table: touched }), {}],
			[jobFor(document, { table: { ...table, carry: ['fill'] } }), {}],
			[jobFor(document), { as: 'direct' as const }]
		] as const) {
			assert.equal(streamHtml(document, jobs, { ...options, ...more }), undefined);
			const { account } = await writeAs('html', document, jobs, { ...options, ...more });
			assert.deepEqual(account.tables[0]!.differences, []);
		}
		const report = await openDocument(new TextEncoder().encode('<table><tr><td>1</table>'), 'a.html');
		assert.equal(streamHtml(report, jobFor(report), options), undefined);
	});
});
