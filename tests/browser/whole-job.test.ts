import assert from 'node:assert/strict';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import mammoth from 'mammoth';
import { seasonReport } from '../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../src/lib/core/house.ts';
import { styleText } from '../../src/lib/core/style/canonical.ts';
import { selfContained } from '../../src/lib/core/style/export.ts';
import { readDocx } from '../../src/lib/formats/docx/read.ts';
import { By, Key, Page } from './support.ts';

const folder = mkdtempSync(join(tmpdir(), 'heptarch-job-'));
const at = (name: string) => join(folder, name);

/** From an empty house to the file in hand, as somebody does it who is here for the first time. */
describe('the whole job, from the empty library', () => {
	let page: Page;
	let original: Uint8Array<ArrayBuffer>;
	before(async () => {
		original = await seasonReport();
		writeFileSync(at('Season report.docx'), original);
		writeFileSync(at('renamed.docx'), 'Dear reader, this is no document.');
		const ledger = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
		writeFileSync(
			at('ledger.heptarch.json'),
			styleText(selfContained(ledger, FIRST_HOUSE, (name) => DEMO_STYLES.find((style) => style.name === name)))
		);
		writeFileSync(
			at('bad.json'),
			'{"format":"heptarch-style","version":1,"name":"Bad","parts":{"ground":{"colour":"red"}}}'
		);
		page = await Page.open('empty', {});
	});
	after(async () => {
		await page.close();
		rmSync(folder, { recursive: true, force: true });
	});

	it('an empty library says what to do', async () => {
		await page.go('/');
		assert.match(await page.text('main'), /Bring a document[\s\S]*Make a style[\s\S]*Put it on the tables/);
		await page.isAccessible('the Desk of a new house');
		await page.go('/documents');
		assert.match(await page.text('main'), /No document yet[\s\S]*up to 50 MB/);
		await page.isAccessible('empty documents');
		await page.go('/stylebook');
		assert.match(await page.text('main'), /No style yet/);
		await page.isAccessible('empty Stylebook');
		await page.consoleIsClean();
	});

	it('a style file is taken in, with its base; one that is not valid says where', async () => {
		await page.chooseFiles('Style files to take in', at('bad.json'));
		await page.until('the reason', async () =>
			(await page.text('[role=alert]')).includes('“colour” is not a property')
		);
		await page.driver.manage().logs().get('browser');
		await page.chooseFiles('Style files to take in', at('ledger.heptarch.json'));
		await page.until('two styles', async () =>
			/Season Ledger[\s\S]*builds on House base/.test(await page.text('main'))
		);
		await page.consoleIsClean();
	});

	it('a document is added; a file that is none says why, and nothing of it stays', async () => {
		await page.go('/documents');
		await page.chooseFiles('Documents to add', at('renamed.docx'));
		await page.until('the reason', async () => (await page.text('[role=alert]')).includes('does not begin like one'));
		await page.driver.manage().logs().get('browser');
		await page.click('Put away');
		await page.chooseFiles('Documents to add', at('Season report.docx'));
		await page.until('the document', async () => /Season report[\s\S]*0 of 9 tables/.test(await page.text('main')));
		assert.doesNotMatch(await page.text('main'), /renamed/);
	});

	it('a document can be dropped anywhere on the page', async () => {
		const base64 = Buffer.from(readFileSync(at('Season report.docx'))).toString('base64');
		await page.driver.executeScript(
			`const bytes = Uint8Array.from(atob(arguments[0]), (c) => c.charCodeAt(0));
			const data = new DataTransfer();
			data.items.add(new File([bytes], 'Dropped.docx'));
			for (const type of ['dragenter', 'dragover', 'drop']) window.dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true }));`,
			base64
		);
		await page.until('the dropped document', async () => (await page.text('main')).includes('Dropped'));
		await page.click(await page.css('[aria-label="Remove “Dropped”"]'));
		await page.click('Remove it');
		await page.until('it to go', async () => !(await page.text('main')).includes('Dropped'));
		await page.consoleIsClean();
	});

	it('its tables are recognised, with reasons, and a wrong guess is corrected', async () => {
		await page.click('Season report');
		await page.css('#table-0');
		assert.match(await page.text('footer'), /total because 96 675 is the exact sum of the 6 rows above/);
		await page.click(await page.find(By.xpath("//button[normalize-space()='2']")));
		await page.click('What it is');
		await page.until('the reasons', async () =>
			(await page.text('aside[aria-label="What to do"]')).includes('numbers under “Takings, €”')
		);
		assert.match(await page.text('aside[aria-label="What to do"]'), /11 rows × 5 columns, under “2 Glasshouses”/);
		await page.select('Kind of column 5', 'quantity');
		await page.until('the correction', async () =>
			(await page.text('aside[aria-label="What to do"]')).includes('you said so; it looked like percent')
		);
		await page.isAccessible('document view, what it is');
	});

	it('pointing at a style shows it, leaving puts it back', async () => {
		await page.click('Styles', 'button');
		assert.equal(
			await page.cellStyle('#table-1', 'Visitors', 'backgroundColor'),
			'rgb(255, 222, 133)',
			'as in the file'
		);
		const card = await page.named('Season Ledger', 'button[@role="option"]');
		await page.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', card);
		await page.driver.actions().move({ origin: card }).perform();
		await page.until(
			'the preview',
			async () => (await page.cellStyle('#table-1', 'Visitors', 'backgroundColor')) === 'rgb(47, 93, 80)'
		);
		await page.driver
			.actions()
			.move({ origin: await page.css('h1') })
			.perform();
		await page.until(
			'the file’s look again',
			async () => (await page.cellStyle('#table-1', 'Visitors', 'backgroundColor')) === 'rgb(255, 222, 133)'
		);
	});

	it('the wipe compares before and after', async () => {
		await page.click(await page.named('Season Ledger', 'button[@role="option"]'));
		await page.key('b');
		const handle = await page.css('[role=slider][aria-label="Before and after"]');
		assert.equal(await handle.getAttribute('aria-valuenow'), '50');
		await handle.sendKeys(Key.END);
		await page.until('all before', async () => (await handle.getAttribute('aria-valuenow')) === '100');
		assert.equal(await page.driver.executeScript('return document.querySelectorAll("#table-1 .layer").length'), 2);
		await page.isAccessible('document view with the wipe');
		await page.key('b');
	});

	it('is applied to one table, to those ticked, undone, redone', async () => {
		await page.click('Apply to 1 table');
		await page.until('it is worn', async () => (await page.text('header')).includes('table 2 wears Season Ledger'));
		await page.click(await page.css('[aria-label="Tick table 1"]'));
		await page.click(await page.css('[aria-label="Tick table 3"]'));
		await page.click(await page.named('Season Ledger', 'button[@role="option"]'));
		await page.click('Apply to 2 tables');
		await page.until(
			'table 1 follows',
			async () => (await page.cellStyle('#table-0', 'Month', 'backgroundColor')) === 'rgb(47, 93, 80)'
		);
		await page.chord(Key.CONTROL, 'z');
		await page.until(
			'undone',
			async () => (await page.cellStyle('#table-0', 'Month', 'backgroundColor')) !== 'rgb(47, 93, 80)'
		);
		await page.chord(Key.CONTROL, Key.SHIFT, 'z');
		await page.until(
			'redone',
			async () => (await page.cellStyle('#table-0', 'Month', 'backgroundColor')) === 'rgb(47, 93, 80)'
		);
	});

	it('parts in use and carry are chosen, and shown at once', async () => {
		await page.click(await page.find(By.xpath("//button[normalize-space()='1']")));
		assert.equal(await page.cellStyle('#table-0', 'May', 'backgroundColor'), 'rgb(238, 242, 241)');
		await page.click(await page.find(By.xpath("//button[@role='radio'][contains(., 'This table')]")));
		await page.click('row bands', 'button');
		await page.until(
			'no band',
			async () => (await page.cellStyle('#table-0', 'May', 'backgroundColor')) === 'rgba(0, 0, 0, 0)'
		);
		await page.click('Apply to 1 table');
		await page.until('saved', async () => !(await (await page.named('Apply to')).isEnabled()));
	});

	it('all the rest', async () => {
		await page.click('All · 9', 'button');
		await page.click(await page.named('Season Ledger', 'button[@role="option"]'));
		await page.click('Apply to 9 tables');
		await page.until(
			'the nested one too',
			async () => (await page.cellStyle('#table-7', 'Ticket', 'backgroundColor')) === 'rgb(47, 93, 80)'
		);
		await page.key('t');
		await page.click(
			await page.find(By.xpath("//section[@id='table-0']//div[@role='gridcell'][contains(., '96 675')]"))
		);
		await page.until('the trace', async () => /come from IV total/.test(await page.text('[aria-label="Trace"]')));
		await page.isAccessible('document view with trace');
		await page.key('t');
	});

	it('the file is taken, with an account, and is what was shown', async () => {
		await page.click('Take the file…');
		await page.until('the account', async () => (await page.text('[role=dialog], dialog')).includes('9 of 9 tables'));
		assert.match(await page.text('[role=dialog], dialog'), /what was intended/);
		await page.isAccessible('the account');
		await page.click(await page.find(By.xpath("//a[@download][normalize-space()='Take the file']")));
		const { name, bytes } = await page.download();
		assert.equal(name, 'Season report.docx');
		const document = await readDocx(bytes);
		assert.deepEqual(
			document.tables.map(({ wornName }) => wornName),
			Array(9).fill('Season Ledger')
		);
		assert.equal(document.tables[1]!.table.columnInfo[4]!.kind, 'quantity', 'the correction went along');
		const { appearance } = document.tables[0]!;
		assert.equal(appearance.looks[appearance.cellLook[0]!]!.fill, '#2F5D50');
		const text = async (file: Uint8Array) => (await mammoth.extractRawText({ buffer: Buffer.from(file) })).value;
		assert.equal(await text(bytes), await text(original));
		await page.consoleIsClean();
	});

	it('stands there after a reload', async () => {
		await page.go('/documents');
		assert.match(await page.text('main'), /9 of 9 tables/);
		await page.isAccessible('documents');
	});
});
