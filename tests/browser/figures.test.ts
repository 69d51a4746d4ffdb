import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { By, Page } from './support.ts';

/** Figures, as they are met on the screen: what is in doubt, what is left out, what is worked out from what. */
describe('figures', () => {
	let page: Page;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-figures-'));
	before(async () => {
		page = await Page.open('demo');
	});
	after(async () => {
		rmSync(folder, { recursive: true, force: true });
		await page.close();
	});
	const run = <T>(code: string, ...given: unknown[]) => page.driver.executeScript<T>(code, ...given);
	const upload = async (name: string, text: string) => {
		const file = join(folder, name);
		writeFileSync(file, text);
		await page.go('/documents');
		await page.chooseFiles('Documents to add', file);
		const title = name.replace(/\.table\.json$|\.\w+$/, '');
		await page.click(await page.find(By.xpath(`//main//a[normalize-space()='${title}']`)));
		await page.css('#table-0');
		await page.driver.sleep(400);
	};
	const shown = () =>
		run<string[][]>(
			`return [...document.querySelectorAll('[data-work-sheet] [role=row]')].map((row) => [...row.querySelectorAll('[data-cell]')].map((cell) => cell.textContent.replace(/\\u200b/g, '').trim()))`
		);
	const isShown = (what: string, isIt: (rows: string[][]) => boolean) =>
		page.until(what, async () => isIt(await shown()));
	const cellAt = (r: number, c: number) =>
		page.find(By.xpath(`//*[@data-work-sheet]//*[@role='row'][@aria-rowindex='${r}']/*[@aria-colindex='${c}']`));
	const pick = async (r: number, c: number) => (await cellAt(r, c)).click();
	const panel = async (name: string) =>
		page.click(await page.find(By.xpath(`//button[@role='tab'][normalize-space()='${name}']`)));
	const marks = (kind: string) => run<number>(`return document.querySelectorAll('.mark.${kind}').length`);

	it('a doubt about the decimal mark is a question under What it is, and remembered for tables of the shape', async () => {
		await upload('Lengths.csv', 'Bed;Length\nNorth;1.250\nSouth;2.375\nWest;3.125\n');
		await panel('What it is');
		await page.until('asked', async () => /can be read in two ways/.test(await page.text('aside')));
		assert.match(await page.text('body'), /is read as 1250; or is it 1.25\?|is read as 1.25; or is it 1250\?/);
		await page.isAccessible('a doubt');
		await page.click(await page.find(By.xpath(`//section[@aria-label='Doubt about the decimal mark']//button[2]`)));
		await page.until('said', async () => /you said so/.test(await page.text('aside')));
		assert.doesNotMatch(await page.text('body'), /or is it/);
		await page.click(await page.find(By.xpath(`//button[starts-with(@title, 'Undo: ')]`)));
		await page.until('asked again', async () => /can be read in two ways/.test(await page.text('aside')));
		await page.click(await page.find(By.xpath(`//section[@aria-label='Doubt about the decimal mark']//button[2]`)));
		await page.until('said again', async () => /you said so/.test(await page.text('aside')));
		await upload('Lengths again.csv', 'Bed;Length\nNorth;4.500\nPond;7.125\n');
		await panel('What it is');
		await page.until('remembered', async () => /you said so/.test(await page.text('aside')));
		assert.doesNotMatch(await page.text('body'), /can be read in two ways/);
	});

	it('a form is left out of all tables until it is taken in, and is data where somebody says so', async () => {
		const blanks = (...labels: string[]) => `<tr>${labels.map((label) => `<td>${label}</td><td></td>`).join('')}</tr>`;
		await upload(
			'Membership.html',
			`<!doctype html><title>Membership</title><table><tr><td colspan="4">Application for membership</td></tr>
			${blanks('Surname', 'First name')}${blanks('Street', 'Town')}${blanks('Date', 'Signature')}</table>
			<p>What it costs</p><table><tr><th>Kind</th><th>A year</th></tr><tr><td>One</td><td>£ 30.00</td></tr><tr><td>Family</td><td>£ 55.00</td></tr></table>`
		);
		const header = () => run<number>(`return document.querySelectorAll('#table-0 [data-role^=header]').length`);
		assert.equal(await header(), 0);
		await page.click(
			await page.find(By.xpath(`//*[@role='radio' or self::button or self::label][normalize-space()='All · 1']`))
		);
		assert.match(await page.text('aside'), /And 1 form left as it is/);
		await page.isAccessible('a form left out');
		await page.click('Season Ledger', 'button[@role="option"]');
		await page.click('Apply to 1 table');
		await page.until('applied', async () => /One table wears “Season Ledger” now/.test(await page.text('body')));
		await page.click('Take it in');
		await page.find(By.xpath(`//*[normalize-space()='All · 2']`));
		await panel('What it is');
		await page.until('why', async () => /labels lead to a place to write on/.test(await page.text('aside')));
		await page.select('What the table is for', 'data');
		await page.until('said', async () => /you said so; it looked like a form/.test(await page.text('aside')));
		await page.click(await page.find(By.xpath(`//button[starts-with(@title, 'Undo: ')]`)));
		await page.until('a form again', async () => /It is left as it is/.test(await page.text('aside')));
	});

	it('sums that are off, leave rows out or mix units are findings of the document', async () => {
		await upload(
			'Costs.csv',
			'Bed;Cost;Weight\nNorth;€ 3.00;5 kg\nSouth;€ 2.50;2 m\nWest;open;1 kg\nTotal;€ 6.00;8 kg\n'
		);
		await page.until('found', async () => /total is off by € 0\.50/.test(await page.text('body')));
		await page.go('/documents');
		const row = await page.find(
			By.xpath(`//main//a[normalize-space()='Costs']/ancestor::*[self::tr or self::li or @role='row'][1]`)
		);
		assert.match(await row.getText(), /3 findings/);
	});

	const PLANTING = JSON.stringify({
		format: 'heptarch-table',
		version: 1,
		cells: [
			['Plant', 'Count', 'Price', 'Cost', 'Share'],
			['Osmunda regalis', '12', '€ 3.10', '', ''],
			['Dryopteris', '1,200', '€ 0.85', '', ''],
			['Asplenium', 'some', '€ 2.00', '', ''],
			['Total', '', '', '', '']
		],
		rows: ['header:1', 'body', 'body', 'body', 'total'],
		columns: [{}, { kind: 'count' }, {}, { formula: 'Price × Count' }, { formula: 'round (Cost ÷ total of Cost; 3)' }],
		totals: [
			{ r: 4, c: 1, is: 'sum' },
			{ r: 4, c: 3, is: 'sum' }
		]
	});
	it('a table file comes with its formulas and totals; a sum that is pointed at shows what it covers', async () => {
		await upload('Planting.table.json', PLANTING);
		await page.click(await page.find(By.xpath(`//a[contains(@href, '/bench')]`)));
		await isShown('worked out', (rows) => rows[4]?.[3] === '€ 1,057.20' && rows[1]?.[4] === '0.035');
		await pick(5, 2);
		await page.until('covered', async () => (await marks('covered')) === 2 && (await marks('left')) === 1);
		await panel('Figures');
		assert.match(await page.text('[aria-label="Partial figures"]'), /Count, row 5: without row 4, which is text/);
		await pick(2, 1);
		await page.driver
			.actions()
			.move({ origin: await cellAt(5, 4) })
			.perform();
		await page.until('lit under the pointer', async () => (await marks('covered')) === 2);
		await page.driver
			.actions()
			.move({ origin: await cellAt(2, 1) })
			.perform();
	});

	it('selected cells say what they make together', async () => {
		await pick(2, 3);
		await page.driver.actions().keyDown('\uE008').sendKeys('\uE015', '\uE015').keyUp('\uE008').perform();
		await page.until('together', async () =>
			/sum € 5\.95 · mean € 1\.98 · how many 3 · least € 0\.85 · greatest € 3\.10/.test(
				await page.text('[data-together]')
			)
		);
	});

	it('one cell has a formula of its own, marked as such', async () => {
		await pick(5, 5);
		await page.click(await page.find(By.xpath(`//summary[contains(., 'A formula of its own')]`)));
		await page.fill('Formula of the cell', 'total of Cost × 19 %');
		await isShown('worked out', (rows) => rows[4]![4] === '€ 200.87');
		await page.until('marked', async () => (await marks('own')) === 1);
		await page.fill('Formula of the cell', 'Cost ×');
		await page.until('a fault', async () => /nothing after it/.test(await page.text('[aria-label="Total"]')));
		await page.fill('Formula of the column', 'Share × 2');
		await page.until('a column that names itself', async () =>
			/There is no column “Share”/.test(await page.text('[aria-label="Column"]'))
		);
		await page.isAccessible('a formula of a cell');
		await page.driver.navigate().refresh();
		await isShown('kept', (rows) => rows[4]?.[4] === '€ 200.87');
	});

	it('pasting over a worked-out column asks first', async () => {
		await pick(2, 3);
		const paste = () =>
			run(
				`const data = new DataTransfer(); data.setData('text/plain', '€ 4.00\\t€ 99.00'); document.querySelector('[data-work-sheet] [role=grid]').dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))`
			);
		await paste();
		await page.until('asked', async () => /“Cost” is worked out/.test(await page.text('[role=alert]')));
		await page.click('Do not paste');
		assert.equal((await shown())[1]![2], '€ 3.10');
		await paste();
		await page.click('Paste beside it: it stays worked out');
		await isShown('beside', (rows) => rows[1]![2] === '€ 4.00' && rows[1]![3] === '€ 48.00');
		await pick(2, 3);
		await paste();
		await page.click('Paste over it: it is typed from then on');
		await isShown('over', (rows) => rows[1]![3] === '€ 99.00');
		await page.driver.actions().keyDown('\uE009').sendKeys('z').keyUp('\uE009').perform();
		await isShown('back', (rows) => rows[1]![3] === '€ 48.00');
	});

	it('swapping names the formulas that cannot be said, before it is done', async () => {
		await panel('Shape');
		await page.click('Swap the two');
		await page.until('asked', async () => /“Cost”: Price × Count/.test(await page.text('[role=alert]')));
		await page.click('Leave it as it is');
		assert.equal((await shown())[0]![1], 'Count');
		await page.click('Swap the two');
		await page.click(await page.find(By.xpath(`//*[@role='alert']//button[normalize-space()='Swap the two']`)));
		await isShown('swapped', (rows) => rows[3]?.[0] === 'Cost' && rows[3]?.[1] === '€ 48.00');
		await page.consoleIsClean();
	});
});
