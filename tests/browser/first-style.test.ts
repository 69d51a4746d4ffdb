import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { By, Key, Page } from './support.ts';

/** A green header, banded rows, a double line over the total, figures at the end: from the empty Stylebook. */
describe('the first style', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('empty');
	});
	after(() => page.close());

	/** Counts what a person does from here on: presses of the pointer and of keys, but not the letters of a name. */
	async function counted(): Promise<void> {
		await page.go('/stylebook');
		await page.driver.executeScript(
			`window.done = { clicks: 0, keys: 0 };
			addEventListener('pointerdown', () => window.done.clicks++, true);
			addEventListener('keydown', () => window.done.keys++, true);`
		);
	}
	const done = () => page.driver.executeScript<{ clicks: number; keys: number }>('return window.done');
	const cell = (text: string) =>
		page.find(
			By.xpath(
				`//*[@data-specimen='built-in']//*[@data-cell][starts-with(normalize-space(.), ${JSON.stringify(text)})]`
			)
		);
	const look = (text: string, property: string) =>
		page.driver.executeScript<string>(
			`return getComputedStyle([...document.querySelectorAll('[data-specimen="built-in"] [data-cell]')].find((one) => one.innerText.trim().startsWith(arguments[0])))[arguments[1]]`,
			text,
			property
		);
	const many = (count: number, key: string) => Array<string>(count).fill(key);
	async function isAsWanted(name: string) {
		await page.until('a green header', async () => (await look('Place', 'backgroundColor')) === 'rgb(47, 93, 80)');
		assert.equal(await look('Place', 'color'), 'rgb(255, 255, 255)');
		await page.until('bands', async () => (await look('Fern grotto', 'backgroundColor')) !== 'rgba(0, 0, 0, 0)');
		assert.equal(await look('Lily court', 'backgroundColor'), 'rgba(0, 0, 0, 0)');
		await page.until('figures at the end', async () => (await look('8 872', 'textAlign')) === 'end');
		assert.equal(await look('24 118.50', 'textAlign'), 'end');
		await page.until('everything saved', async () => (await page.text('[data-save]')) === 'all saved');
		const definition = await page.driver.executeAsyncScript<{
			name: string;
			description?: string;
			parts: Record<string, { lines?: { top?: { pattern?: string } } }>;
		}>(
			`fetch('/api/styles').then((answer) => answer.json()).then((all) => arguments[1](all.find((one) => one.definition.name === arguments[0]).definition))`,
			name
		);
		assert.equal(definition.parts.total?.lines?.top?.pattern, 'double');
	}

	it('takes at most nine clicks', async () => {
		await counted();
		await page.click('Start a style…');
		await page.css('dialog[open] input');
		await page.driver.actions().sendKeys('Beds').perform();
		await page.click('Begin');
		await page.css('[data-specimen="built-in"] [data-cell]');
		await page.driver.sleep(400);
		await (await cell('Place')).click();
		await page.click(await page.css('[aria-label^="fern, text"]'));
		await (await cell('8 872')).click();
		await page.click(await page.css('[aria-label^="fern at 15 %"]'));
		await page.click('at the end', 'button');
		// The edge itself, just inside the cell.
		const total = await cell('Total');
		const { height } = await total.getRect();
		await page.driver
			.actions()
			.move({ origin: total, x: 0, y: -Math.round(height / 2) + 1 })
			.click()
			.perform();
		await page.click(await page.css('[data-set-here] [aria-label="double"]'));
		await isAsWanted('Beds');
		const { clicks } = await done();
		assert.ok(clicks <= 9, `${clicks} clicks`);
		assert.equal(await page.text('[aria-label="Who says the line"] option:checked'), 'total');
		await page.isAccessible('what can be set beside a cell');
		await page.consoleIsClean();
	});

	it('takes at most sixty keys, and no pointer', async () => {
		await counted();
		const press = (...keys: string[]) =>
			page.driver
				.actions()
				.sendKeys(...keys)
				.perform();
		await press('n');
		await page.css('dialog[open] input');
		await page.driver.sleep(300);
		await press('Rows', Key.ENTER);
		await page.css('[data-specimen="built-in"] [data-cell]');
		await page.driver.sleep(500);
		// To the ranks, to the specimens; down over the title and the upper tier.
		await press('g', 'g');
		await press(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ENTER);
		await page.css('[data-set-here]');
		const names = await page.driver.executeScript<string[]>(
			`return [...document.querySelector('[data-set-here] [role=toolbar]').querySelectorAll('button')].map((one) => one.ariaLabel)`
		);
		const at = (wanted: string) => names.findIndex((name) => name?.startsWith(wanted));
		await press(...many(at('fern, text'), Key.ARROW_RIGHT), Key.ENTER, Key.ESCAPE);
		// Past the heading and the first band, to a figure.
		await press(...many(3, Key.ARROW_DOWN), Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ENTER);
		await page.driver.sleep(100);
		await press(Key.END, ...many(names.length - 1 - at('fern at 15 %'), Key.ARROW_LEFT), Key.ENTER);
		// Over the line to how text stands.
		await press(...many(5, Key.TAB), Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ENTER, Key.ESCAPE);
		await press(...many(6, Key.ARROW_DOWN), Key.ENTER);
		await page.driver.sleep(100);
		await press(...many(3, Key.TAB), ...many(3, Key.ARROW_RIGHT), Key.ENTER);
		await isAsWanted('Rows');
		const { keys, clicks } = await done();
		assert.equal(clicks, 0);
		assert.ok(keys <= 60, `${keys} keys`);
	});
});
