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
		['the Desk', '/'],
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
		const screens = [
			'/',
			'/documents',
			'/stylebook',
			'/starters',
			'/starters/begin',
			'/runs',
			'/house',
			document,
			style
		];
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

describe('the focus comes back', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
	});
	after(() => page.close());
	const press = (...keys: string[]) =>
		page.driver
			.actions()
			.sendKeys(...keys)
			.perform();
	/** What has the focus, in words. */
	const at = () =>
		page.driver.executeScript<string>(
			`const at = document.activeElement; return at.tagName.toLowerCase() + ' ' + (at.getAttribute('aria-label') ?? at.textContent.trim()).slice(0, 60)`
		);
	/** Does something with the keyboard, as the focus stands on what a selector or its words name. */
	const enter = async (target: string) => {
		const element = /[[#.]/.test(target) ? await page.css(target) : await page.named(target);
		await page.driver.executeScript('arguments[0].focus()', element);
		await press(Key.ENTER);
	};
	const isAt = (what: string, words: RegExp) => page.until(what, async () => words.test(await at()));

	it('to the title of the page, on arrival', async () => {
		await page.go('/documents');
		await enter("a[href='/stylebook']");
		await isAt('the Stylebook', /^h1 Stylebook/);
		await enter('Season Ledger');
		await isAt('the style', /^h1 Season Ledger/);
	});
	it('to what opened a dialog, and to what stands where a setting was unset, frozen or fixed', async () => {
		await enter('Re-ink…');
		await page.css('[data-reinked]');
		await press(Key.ESCAPE);
		await isAt('what opened it', /Re-ink/);
		await page.key('4');
		await page.click(
			await page.find(By.xpath("//div[@aria-label='Parts']//button[starts-with(normalize-space(.), 'note')]"))
		);
		await enter('button[aria-label="Text: push slant up to House base"]');
		await page.named('Push it up');
		await press(Key.ESCAPE);
		await isAt('what was to be pushed', /push slant up/);
		const unset = 'button[aria-label="Text: slant is set here; unset it"]';
		await enter(unset);
		await page.until('unset', async () => (await page.driver.findElements(By.css(unset))).length === 0);
		const isInRow = () =>
			page.driver.executeScript<boolean>(`return !!document.activeElement.closest('[data-leaf="text.italic"]')`);
		await page.until('still in its row', isInRow);
		await page.key('1');
		await enter('button[aria-label="Alignment: freeze down here"]');
		await page.css('button[aria-label="Alignment: down is set here; unset it"]');
		await page.until('in the row that is set now', async () => /^button Alignment: (push )?down/.test(await at()));
	});
	it('to the name of what was made: a rule, an ink, a type role', async () => {
		await page.key('6');
		await enter('+ rule');
		await isAt('the rule', /^input Name of the rule/);
		await page.go('/house');
		await enter('New ink');
		await isAt('the ink', /^input Name of the ink/);
		await enter('New type role');
		await isAt('the type role', /^input Name of the type role/);
		await enter('Undo');
		await isAt('undo, once it can be pressed again', /^button Undo/);
	});
	it('to nobody who let go of it', async () => {
		await page.go('/house');
		await page.driver.executeScript('document.querySelector("main h2").click(); document.activeElement.blur()');
		await page.click(await page.css('main h2'));
		await page.driver.sleep(300);
		assert.match(await at(), /^body/);
		await page.consoleIsClean();
	});
});

describe('the whole job without a pointer', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
	});
	after(() => page.close());

	const press = (key: string, isBack = false) => {
		const actions = page.driver.actions();
		return (isBack ? actions.keyDown(Key.SHIFT).sendKeys(key).keyUp(Key.SHIFT) : actions.sendKeys(key)).perform();
	};
	/** Goes from stop to stop until one of these words has the focus. */
	async function reach(words: RegExp, isBack = false): Promise<void> {
		for (let stops = 0; stops < 80; stops++) {
			const at = await page.driver.executeScript<string>(
				`const { activeElement: at } = document; return (at.ariaLabel ?? at.innerText ?? '').trim().replace(/\\s+/g, ' ')`
			);
			if (words.test(at)) return;
			await press(Key.TAB, isBack);
		}
		assert.fail(`no stop is called ${words}`);
	}

	it('leads from the list of documents to the file in hand', async () => {
		await page.go('/documents');
		await page.driver.executeScript(`addEventListener('pointerdown', () => (window.pointed = true), true)`);
		await reach(/^Season report 2031\b/);
		await press(Key.ENTER);
		await page.css('#table-0');
		await page.until('the title', () =>
			page.driver.executeScript<boolean>(`return document.activeElement.tagName === 'H1'`)
		);
		// The styles are one stop; arrows lead from one to the next.
		await reach(/\bBeacon\b/);
		for (let i = 0; i < 20; i++) {
			const at = await page.driver.executeScript<string>(`return document.activeElement.innerText`);
			if (/Season Ledger/.test(at)) break;
			await press(Key.ARROW_DOWN);
		}
		await press(Key.ENTER);
		await reach(/^Apply to 1 table/, true);
		await press(Key.ENTER);
		await page.until('wears it', async () => /wears Season Ledger/.test(await page.text('header')));
		await reach(/^Take the file/, true);
		await press(Key.ENTER);
		await page.css('dialog[open]');
		await reach(/^Take the file$/);
		await press(Key.ENTER);
		const { name, bytes } = await page.download();
		assert.match(name, /\.docx$/);
		assert.ok(bytes.length > 10_000);
		assert.equal(await page.driver.executeScript(`return window.pointed ?? false`), false);
		await page.consoleIsClean();
	});
});
