import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { By, Key, Page } from './support.ts';

/** Wherever the focus is, it is seen. */
describe('the focus', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
	});
	after(() => page.close());

	/** What has the focus, and how its outline stands out from what is behind it; the grid of a table marks its cell itself. */
	const MEASURE = `
		const element = document.activeElement;
		if (!element || element === document.body || element.closest('[role=grid], [contenteditable]')) return null;
		const parse = (colour) => { const c = document.createElement('canvas'); c.width = c.height = 1; const x = c.getContext('2d', { willReadFrequently: true }); x.fillStyle = colour; x.fillRect(0, 0, 1, 1); return [...x.getImageData(0, 0, 1, 1).data]; };
		const light = ([r, g, b]) => [r, g, b].map((v) => v / 255).map((v) => (v <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4)).reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i], 0);
		const style = getComputedStyle(element);
		let behind = element.parentElement;
		while (behind && parse(getComputedStyle(behind).backgroundColor)[3] < 255) behind = behind.parentElement;
		const [a, b] = [light(parse(style.outlineColor)), light(behind ? parse(getComputedStyle(behind).backgroundColor) : [255, 255, 255])];
		const words = (element.getAttribute('aria-label') ?? element.textContent ?? '').trim().replace(/\\s+/g, ' ').slice(0, 40);
		return { name: element.tagName.toLowerCase() + (element.type ? ' ' + element.type : '') + ' “' + words + '”', style: style.outlineStyle, width: parseFloat(style.outlineWidth), contrast: (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05) };`;
	const unseen = async (address: string) => {
		await page.go(address);
		await page.css('main, [data-work-sheet]');
		const found = new Set<string>();
		let stops = 0;
		for (let i = 0; i < 70; i++) {
			await page.driver.actions().sendKeys(Key.TAB).perform();
			const at = await page.driver.executeScript<{
				name: string;
				style: string;
				width: number;
				contrast: number;
			} | null>(MEASURE);
			if (!at) continue;
			stops++;
			if (at.style === 'none' || at.width < 1.5 || at.contrast < 3)
				found.add(`${at.name}: ${at.style} ${at.width}px, ${at.contrast.toFixed(1)}:1`);
		}
		assert.ok(stops > 5, `${stops} stops at ${address}`);
		return [...found];
	};
	for (const [what, address] of [
		['the documents', '/documents'],
		['the Stylebook', '/stylebook'],
		['the starters', '/starters'],
		['the runs', '/runs'],
		['the house', '/house']
	] as const)
		it(`is seen at every stop of ${what}`, async () => {
			assert.deepEqual(await unseen(address), []);
		});
	it('is seen at every stop of a document and of a style', async () => {
		for (const [list, name] of [
			['/documents', 'Season report 2031'],
			['/stylebook', 'Season Ledger']
		] as const) {
			await page.go(list);
			await page.click(await page.find(By.xpath(`//a[contains(normalize-space(), '${name}')]`)));
			await page.driver.sleep(800);
			assert.deepEqual(await unseen(new URL(await page.driver.getCurrentUrl()).pathname), []);
		}
	});
});

describe('the keys of a screen', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
	});
	after(() => page.close());
	it('are told by ? on every screen, and Escape closes the list', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath("//a[contains(normalize-space(), 'Season report 2031')]")));
		await page.css('#table-0');
		const document = new URL(await page.driver.getCurrentUrl()).pathname;
		await page.go('/stylebook');
		await page.click('Season Ledger');
		await page.css('[role=tablist]');
		const style = new URL(await page.driver.getCurrentUrl()).pathname;
		const screens = ['/documents', '/stylebook', '/starters', '/starters/begin', '/runs', '/house', document, style];
		for (const address of [...screens, `${document}/print`, `${style}/editions`]) {
			await page.go(address);
			await page.driver.sleep(400);
			await page.key('?');
			await page.until(`the keys of ${address}`, async () =>
				/Keys of this screen/.test(await page.text('dialog[open], [role=dialog]'))
			);
			await page.key(Key.ESCAPE);
			await page.until(
				`closed at ${address}`,
				async () => (await page.driver.findElements(By.css('dialog[open]'))).length === 0
			);
		}
		await page.consoleIsClean();
	});
});
