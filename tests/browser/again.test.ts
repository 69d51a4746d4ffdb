import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { pageOf } from '../unit/formats/pages.ts';
import { By, Page } from './support.ts';

const VISITORS = ['House|April|May', 'Lily court|1204|1420', 'Fern grotto|880|902'];
const COSTS = ['Item|Cost', 'Seed|£12.00', 'Glass|£30.50', 'Total|£42.50'];
const GUIDES = ['Guide|Tours', 'Ada|12', 'Bo|9'];

/** A document whose file comes again, newer. */
describe('a document that comes again', () => {
	let page: Page;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-again-'));
	before(async () => {
		page = await Page.open('demo');
	});
	after(async () => {
		rmSync(folder, { recursive: true, force: true });
		await page.close();
	});
	const fileOf = (name: string, ...tables: (readonly string[])[]) => {
		const file = join(folder, name);
		writeFileSync(file, pageOf(...tables));
		return file;
	};
	/** A word of each table, in their order. */
	const tables = () =>
		page.driver.executeScript<string[]>(
			`return [...document.querySelectorAll('section[id^=table-]')].map((table) => /Lily court|Seed|Tours/.exec(table.textContent)?.[0])`
		);

	it('keeps what its tables wear, after a look at which is which, and is what it was by undo', async () => {
		await page.go('/documents');
		await page.chooseFiles('Documents to add', fileOf('Monthly.html', VISITORS, COSTS));
		await page.click(await page.find(By.xpath(`//main//a[normalize-space()='Monthly']`)));
		await page.css('#table-1');
		await page.click(await page.find(By.xpath(`//*[normalize-space()='All · 2']`)));
		await page.click('Season Ledger', 'button[@role="option"]');
		await page.click('Apply to 2 tables');
		await page.until('worn', async () => /2 tables wear “Season Ledger” now/.test(await page.text('body')));

		const newer = fileOf('Monthly, May.html', COSTS, [...VISITORS, 'Palm stair|310|290'], GUIDES);
		await page.chooseFiles('A newer file of this document', newer);
		await page.until('looked at', async () => /1 row added/.test(await page.text('dialog[open]')));
		assert.match(await page.text('dialog[open]'), /New: /);
		await page.isAccessible('which table is which');
		await page.click('Put it in its place');
		await page.until('put', async () => /2 tables are what they were/.test(await page.text('body')));
		await page.until('there', async () => (await tables()).join() === 'Seed,Lily court,Tours');
		assert.match(await page.text('header'), /wears Season Ledger/);

		await page.click(await page.find(By.xpath(`//button[starts-with(@title, 'Undo: newer file')]`)));
		await page.until('as before', async () => (await tables()).join() === 'Lily court,Seed');
		await page.click(await page.find(By.xpath(`//button[starts-with(@title, 'Redo: newer file')]`)));
		await page.until('newer again', async () => (await tables()).length === 3);
	});

	it('says why a file cannot take its place, and takes other pairs', async () => {
		await page.chooseFiles(
			'A newer file of this document',
			fileOf('Elsewhere.html', ['Plant|Bed', 'Fern|North', 'Moss|West'])
		);
		await page.until('refused', async () => /seems to be another document/.test(await page.text('dialog[open]')));
		await page.click('Not now');
		await page.chooseFiles('A newer file of this document', fileOf('Monthly, June.html', COSTS, VISITORS, GUIDES));
		await page.until('looked at', async () => /no row differs/.test(await page.text('dialog[open]')));
		await page.select('What table 1 is in the newer file', 'gone');
		await page.until('said', async () => /Gone: /.test(await page.text('dialog[open]')));
		await page.click('Put it in its place');
		await page.until('put', async () => /2 tables are what they were/.test(await page.text('body')));
		await page.until('one is bare', async () => !/wears Season Ledger/.test(await page.text('header')));
	});

	it('gets the rows of a table from a file, difference by difference', async () => {
		// Files that were refused before are told of in the console.
		await page.driver.manage().logs().get('browser');
		await page.click(await page.find(By.xpath(`//a[normalize-space()='Work on it…']`)));
		await page.css('[data-work-sheet]');
		await page.click('Rows from a file…');
		const rows = join(folder, 'costs.csv');
		writeFileSync(rows, 'Cost;Item\n£13.50;Seed\n£30.50;Glass\n£8.00;Pots\n');
		await page.chooseFiles('A file with rows', rows);
		await page.until('compared', async () => /Take 2 differences/.test(await page.text('dialog[open]')));
		assert.match(await page.text('dialog[open]'), /changed\s+Seed/);
		assert.match(await page.text('dialog[open]'), /added\s+Pots/);
		await page.isAccessible('rows from a file');
		await page.click('Take 2 differences');
		await page.until('in', async () => /2 differences from “costs.csv” are in/.test(await page.text('body')));
		const shown = await page.text('[data-work-sheet]');
		assert.match(shown, /£13\.50[\s\S]*Pots[\s\S]*£8\.00[\s\S]*Total/);
		await page.click('Rows from a file…');
		await page.chooseFiles('A file with rows', rows);
		await page.until('nothing differs', async () => /Nothing differs/.test(await page.text('dialog[open]')));
		await page.consoleIsClean();
		writeFileSync(join(folder, 'notes.png'), 'no rows');
		await page.chooseFiles('A file with rows', join(folder, 'notes.png'));
		await page.until('refused', async () => /“notes\.png” is none of them/.test(await page.text('dialog[open]')));
		await page.click('Not now');
	});
});
