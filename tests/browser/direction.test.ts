import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { By, Key, Page } from './support.ts';

/** Tables that run from right to left, and tables inside cells, as they are met in the document view. */
describe('a document that runs from right to left', () => {
	let page: Page;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-direction-'));
	before(async () => {
		const path = join(folder, 'beds.html');
		writeFileSync(
			path,
			`<!DOCTYPE html><html lang="he" dir="rtl"><meta charset="utf-8"><h1>ערוגות</h1><table><tr><th>צמח</th><th>גובה</th></tr><tr><td>ורד (לבן)</td><td>12.5</td></tr><tr><td>Fern<table dir="ltr"><tr><th>Plant</th><th>Count</th></tr><tr><td>Moss</td><td>3</td></tr></table></td><td><a href="https://thornmere.example">7</a></td></tr></table><ul><li>one</li></ul><p>Bed <input></p></html>`
		);
		page = await Page.open('demo');
		await page.go('/documents');
		await (await page.css('input[type=file]')).sendKeys(path);
		await page.click(await page.find(By.xpath("//a[normalize-space()='beds']")));
		await page.css('#table-0');
	});
	after(async () => {
		await page.close();
		rmSync(folder, { recursive: true, force: true });
	});
	const boxOf = (selector: string) =>
		page.driver.executeScript<{ left: number; right: number }>(
			'const { left, right } = document.querySelector(arguments[0]).getBoundingClientRect(); return { left, right }',
			selector
		);
	const focused = () =>
		page.driver.executeScript<string>('return document.activeElement.closest("[data-cell]")?.dataset.cell ?? ""');

	it('has its first column at the right, and the arrow keys go where they point', async () => {
		const [first, second] = [await boxOf('#table-0 [data-cell="0"]'), await boxOf('#table-0 [data-cell="1"]')];
		assert.ok(first.left >= second.right - 2, `${first.left} is right of ${second.right}`);
		const cell = await page.css('#table-0 [data-cell="0"]');
		await page.click(cell);
		await cell.sendKeys(Key.ARROW_LEFT);
		assert.equal(await focused(), '1');
		await (await page.css('#table-0 [data-cell="1"]')).sendKeys(Key.ARROW_RIGHT);
		assert.equal(await focused(), '0');
	});
	it('a table inside a cell is picked by a click on it, like any other', async () => {
		await page.click(await page.css('#table-0 [data-cell] [data-cell="2"]'));
		await page.until('the inner table to be picked', async () =>
			/wears nothing|table 2/i.test(await page.text('body'))
		);
		await page.css('#table-0 .ring-picked');
		assert.match(await page.text('[aria-label="Tables"], main'), /Moss/);
	});
	it('what does not come along into another format is named with its count before the file is taken', async () => {
		await page.click('Take the file…');
		await page.select('Format to take it in', 'docx');
		await page.until('what is left behind', async () =>
			/These do not come along: 1 form field\./.test(await page.text('[role=dialog], dialog'))
		);
		await page.click('Not yet');
	});
});
