import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { readDocx } from '../../src/lib/formats/docx/read.ts';
import { By, Key, Page } from './support.ts';

describe('comparing and taking out', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
	});
	after(() => page.close());

	const DIALOG = '[role=dialog], dialog';
	const press = async (label: string) =>
		page.click(await page.find(By.xpath(`//button[normalize-space()='${label}']`)));
	/** The text of a drawing. */
	const drawn = (selector: string) =>
		page.driver.executeScript<string>('return document.querySelector(arguments[0])?.textContent ?? ""', selector);
	const link = async () => page.find(By.xpath("//a[@download][normalize-space()='Take the file']"));

	it('what a style changes is told in words, and compared in three ways on the page', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath("//a[normalize-space()='Season report 2031']")));
		await page.css('#table-0');
		await page.click('Season Ledger', 'button[@role="option"]');
		await press('What changes');
		await page.until('words', async () => /fill · header rows[\s\S]*#2F5D50/.test(await page.text('[data-changes]')));
		assert.match(
			await page.text('[data-changes]'),
			/type family · body rows\s+24 cells\s+Source Serif 4 → Source Sans 3/
		);
		await press('Side by side');
		await page.until('two tables', async () =>
			/as it came[\s\S]*Season Ledger/.test(await page.text('[data-side-by-side]'))
		);
		const fills = await page.driver.executeScript<string[]>(
			`return [...document.querySelectorAll('[data-side-by-side] figure')].map((figure) => getComputedStyle(figure.querySelector('.cell')).backgroundColor)`
		);
		assert.equal(fills[1], 'rgb(47, 93, 80)');
		assert.notEqual(fills[0], fills[1]);
		await press('Only what changed');
		await page.until('all cells changed', async () => {
			const [dim, all] = await page.driver.executeScript<[number, number]>(
				`return [document.querySelectorAll('#table-0 .cell.dim').length, document.querySelectorAll('#table-0 .cell').length]`
			);
			return dim === 0 && all > 30;
		});
		await press('Wipe');
		await page.css('[role=slider][aria-label="Before and after"]');
		await page.isAccessible('what changes');
		await page.key(Key.ESCAPE);
	});

	it('a table is cleared to nothing but text, and its emphasis dropped; the file says so', async () => {
		await press('Styles');
		await page.click('5', 'button[@aria-pressed and @title]');
		await press('nothing but text');
		await page.until(
			'no weight in the header',
			async () => (await page.cellStyle('#table-4', 'Accession', 'fontWeight')) === '400'
		);
		await press('emphasis inside the text');
		await page.click('Apply to 1 table');
		await page.until('applied', async () => /nothing but text now/.test(await page.text('body')));
		const weights = await page.driver.executeScript<string[]>(
			`return [...document.querySelectorAll('#table-4 .cell *')].map((node) => getComputedStyle(node).fontWeight)`
		);
		assert.ok(
			weights.every((weight) => weight === '400'),
			[...new Set(weights)].join()
		);
		const id = (await page.driver.getCurrentUrl()).split('/').at(-1)!;
		const bytes = new Uint8Array(await (await fetch(`${page.origin}/api/documents/${id}/file`)).arrayBuffer());
		const table = (await readDocx(bytes)).tables[4]!;
		assert.ok(table.appearance.lines.every((line) => !line || line.pattern === 'none'));
		assert.ok(
			table.content
				.flat()
				.every((piece) => !('runs' in piece) || piece.runs.every(({ weight }) => weight === undefined))
		);
		await page.chord(Key.CONTROL, 'z');
		await page.until('taken back', () =>
			page.driver.executeScript<boolean>(
				`return [...document.querySelectorAll('#table-4 .cell *')].some((node) => getComputedStyle(node).fontWeight === '700')`
			)
		);
	});

	it('a matched table takes the widths of its model, too', async () => {
		await page.click('1', 'button[@aria-pressed and @title]');
		await page.click('Season Ledger', 'button[@role="option"]');
		await page.click('Apply to 1 table');
		await page.until('worn', async () => (await page.text('header')).includes('wears Season Ledger'));
		await page.click(await page.css('[aria-label="Tick table 7"]'));
		await page.click('Match 1 others to it…');
		await page.click(await page.find(By.xpath("//label[contains(., 'its column widths')]")));
		await page.isAccessible('matching');
		await page.click('Match them');
		const width = (table: number) =>
			page.driver.executeScript<number>(
				`return document.querySelector('#table-${table} .cell').getBoundingClientRect().width`
			);
		await page.until('as wide', async () => Math.abs((await width(6)) - (await width(0))) < 1);
	});

	it('the account goes by leaf, and one table alone is taken as its own file', async () => {
		await page.click('Take the file…');
		await page.until('the account', async () => /By leaf/.test(await page.text(DIALOG)));
		await press('By leaf');
		await page.until('leaves', async () => /fill\s+\d+/.test(await page.text('[data-read-back]')));
		await page.isAccessible('read-back by leaf');
		await page.select('How looks travel', 'direct');
		await page.until('nothing living', async () => /fill\s+·\s+\d+\s+·\s+·/.test(await page.text('[data-read-back]')));
		await page.click(await page.find(By.xpath("//label[contains(., 'only table 1')]")));
		await page.until('alone', async () => /A new file/.test(await page.text(DIALOG)));
		await page.click(await link());
		const { name, bytes } = await page.download();
		assert.equal(name, 'Season report 2031, table 1.docx');
		assert.equal((await readDocx(bytes)).tables.length, 1);
	});

	it('pages in the browser are those of the PDF: the same count, text and measured widths', async () => {
		await page.click('Print…', 'a');
		await page.css('svg[aria-label^="Page 1 of"]');
		await page.until('its text', async () => /Tables/.test(await drawn('svg[aria-label^="Page 1 of"]')));
		await page.isAccessible('print preview');
		const widths = await page.driver.executeAsyncScript<[string, number, number][]>(
			`const done = arguments[arguments.length - 1];
			document.fonts.ready.then(() => done([...document.querySelectorAll('svg[aria-label^="Page 1"] text')].map((text) => [text.textContent, text.getComputedTextLength(), text.getBBox().x])));`
		);
		assert.ok(widths.length > 8);
		// Page numbers stand at the end of the measure, 20 mm from the paper's side: text as wide as it was measured ends there.
		for (const [text, length, x] of widths.filter(([text]) => /^(\d|1 of \d)$/.test(text)))
			assert.ok(Math.abs(x + length - (190 / 25.4) * 72) < 0.6, `${text}: ${x + length}`);
		await page.click('Upright');
		await page.until('turned', async () => /across=1/.test(await page.driver.getCurrentUrl()));
		await page.select('Paper', 'A3');
		await page.until('one paper', async () => /paper=A3/.test(await page.driver.getCurrentUrl()));
		await page.click('Take the PDF', 'a');
		const { name, bytes } = await page.download();
		assert.equal(name, 'Season report 2031.pdf');
		assert.equal(new TextDecoder('latin1').decode(bytes.subarray(0, 8)), '%PDF-1.7');
		await page.click('Back to the document', 'a');
	});

	it('one table is seen in every format, as each of them reads back', async () => {
		await page.css('#table-0');
		await page.click('See it in every format', 'a');
		await page.until('all of them', async () =>
			/DOCX[\s\S]*ODT[\s\S]*HTML[\s\S]*PDF[\s\S]*CSV/.test(await page.text('main'))
		);
		const headers = await page.driver.executeScript<string[]>(
			`return [...document.querySelectorAll('main section')].flatMap((section) => { const cell = section.querySelector('.cell'); return cell ? [getComputedStyle(cell).backgroundColor] : []; })`
		);
		assert.deepEqual(headers, Array(4).fill('rgb(47, 93, 80)'));
		assert.match(await page.text('main'), /Rows have no looks/);
		assert.match(await drawn('section[aria-label^="PDF"] svg'), /Month[\s\S]*April/);
		await page.isAccessible('every format');
		await page.consoleIsClean();
	});
});
