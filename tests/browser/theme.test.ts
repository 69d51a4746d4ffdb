import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { By, Key, Page } from './support.ts';

describe('by night', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
	});
	after(() => page.close());
	const background = (selector: string) =>
		page.driver.executeScript<string>(
			`return getComputedStyle(document.querySelector(arguments[0])).backgroundColor`,
			selector
		);
	const NIGHT = 'rgb(26, 22, 31)';

	it('is chosen on the rail, goes round with the system’s and by day, and is there at once on the next page', async () => {
		await page.go('/documents');
		const at = () => page.text('nav[aria-label=Places] button');
		assert.equal(await at(), 'System');
		const by = 'nav[aria-label=Places] button';
		await page.click(await page.css(by));
		assert.deepEqual([await at(), await background('body')], ['Day', 'rgb(251, 248, 243)']);
		await page.click(await page.css(by));
		assert.deepEqual([await at(), await background('body')], ['Night', NIGHT]);
		await page.go('/stylebook');
		assert.equal(await background('body'), NIGHT);
		const source = await page.driver.executeAsyncScript<string>(
			`fetch('/house').then((answer) => answer.text()).then(arguments[0])`
		);
		assert.match(source, /data-theme="dark"/, 'before any script ran');
	});
	it('every screen can be read', async () => {
		const open = async (list: string, name: string) => {
			await page.go(list);
			await page.click(await page.find(By.xpath(`//main//a[contains(normalize-space(), '${name}')]`)));
			await page.driver.sleep(1_200);
			return new URL(await page.driver.getCurrentUrl()).pathname;
		};
		const report = await open('/documents', 'Season report 2031');
		const sheet = await open('/documents', 'Fern bed, planting plan');
		const style = await open('/stylebook', 'Season Ledger');
		for (const address of [
			'/',
			'/documents',
			'/stylebook',
			'/starters',
			'/starters/begin',
			'/runs',
			'/house',
			report,
			`${report}/bench?table=0`,
			`${report}/print`,
			sheet,
			style,
			`${style}/editions`
		]) {
			await page.go(address);
			await page.driver.sleep(500);
			await page.isAccessible(`${address} by night`);
		}
		await page.go(style);
		for (const key of ['4', '6', '7', 'l', 'w']) {
			await page.key(key);
			await page.driver.sleep(300);
			await page.isAccessible(`the style bench by night, ${key}`);
		}
		await page.key('?');
		await page.css('dialog[open]');
		await page.isAccessible('a dialog by night');
		await page.key(Key.ESCAPE);
		await page.consoleIsClean();
	});
	it('documents and specimens stay on white paper', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//main//a[contains(normalize-space(), 'Season report 2031')]`)));
		await page.css('#table-0');
		assert.equal(await background('.on-paper'), 'rgb(255, 255, 255)');
		assert.equal(await page.cellStyle('#table-0', 'April', 'color'), 'rgb(0, 0, 0)');
		assert.equal(await background('body'), NIGHT);
	});
});
