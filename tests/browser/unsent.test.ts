import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { Application, By, Page } from './support.ts';

/** Changes that cannot be sent: none is lost, neither while the server is away nor when the browser goes down meanwhile. */
describe('changes that cannot be sent', () => {
	let application: Application;
	let page: Page;
	before(async () => {
		application = await Application.start('demo');
		page = await Page.on(application);
	});
	after(() => page.close());
	const cut = () =>
		page.driver.executeScript(
			`window.__fetch = window.fetch; window.fetch = () => Promise.reject(new TypeError('offline'))`
		);
	const mend = () => page.driver.executeScript(`window.fetch = window.__fetch`);
	const waits = () =>
		page.until('it is said', async () => /waits in this browser and will be sent/.test(await page.text('body')));
	const openDocument = async (name: string) => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//a[normalize-space()='${name}']`)));
		await page.css('#table-0');
		await page.driver.sleep(400);
	};
	const apply = async (style: string) => {
		await page.click(await page.named(style, 'button[@role="option"]'));
		await page.click('Apply to 1 table');
	};

	it('a style for a table is applied once the server answers again', async () => {
		await openDocument('Volunteers’ handbook');
		await cut();
		await apply('Beacon');
		await waits();
		await page.isAccessible('a change that waits');
		assert.doesNotMatch(await page.text('body'), /wears “Beacon” now/);
		await mend();
		await page.until('applied', async () => /wears “Beacon” now/.test(await page.text('body')));
		assert.doesNotMatch(await page.text('body'), /waits in this browser/);
	});

	it('and after the browser went down, when its document is opened again', async () => {
		await cut();
		await apply('Season Ledger');
		await waits();
		const address = await page.driver.getCurrentUrl();
		await page.driver.get('about:blank');
		await page.driver.get(address);
		await page.until('sent', async () => /Saved now, as the server answers again/.test(await page.text('body')));
		await page.until('worn', async () => /table 1 wears Season Ledger/.test(await page.text('header')));
		await page.driver.get(address);
		await page.css('#table-0');
		await page.driver.sleep(600);
		assert.doesNotMatch(await page.text('body'), /Saved now/, 'once only');
	});

	it('a setting of a style is there again, and saved', async () => {
		await page.go('/stylebook');
		await page.click('Beacon');
		await page.css('[role=tablist]');
		await page.driver.sleep(600);
		await cut();
		await page.fill('Margins: above', '7mm');
		await page.until('told', async () => /What you did waits in this browser/.test(await page.text('body')));
		const address = await page.driver.getCurrentUrl();
		await page.driver.executeScript(`window.onbeforeunload = null`);
		await page.driver.get(address).catch(() => undefined);
		await page.driver
			.switchTo()
			.alert()
			.then((alert) => alert.accept())
			.catch(() => undefined);
		await page.until('back', async () => /had not saved is here again/.test(await page.text('body')));
		await page.until('saved', async () => (await page.text('[data-save]')) === 'all saved');
		await page.driver.get(address);
		await page.css('[role=tablist]');
		await page.until(
			'stored',
			async () => (await (await page.css('input[aria-label="Margins: above"]')).getAttribute('value')) === '7mm'
		);
	});

	it('another tab of the same document leaves alone what waits in the first', async () => {
		await openDocument('Volunteers’ handbook');
		const address = await page.driver.getCurrentUrl();
		await cut();
		await apply('Beacon');
		await waits();
		const first = await page.driver.getWindowHandle();
		await page.driver.switchTo().newWindow('tab');
		await page.driver.get(address);
		await page.css('#table-0');
		await page.driver.sleep(800);
		assert.doesNotMatch(await page.text('body'), /Saved now/);
		await page.driver.close();
		await page.driver.switchTo().window(first);
		await mend();
		await page.until('applied', async () => /wears “Beacon” now/.test(await page.text('body')));
	});

	it('a page that was left and opened again shows its change, sent once', async () => {
		await openDocument('Volunteers’ handbook');
		const address = await page.driver.getCurrentUrl();
		await page.driver.executeScript(
			`window.__fetch = window.fetch;
			window.fetch = (to, how) => how?.method === 'POST' ? Promise.reject(new TypeError('offline')) : window.__fetch(to, how)`
		);
		await apply('Season Ledger');
		await waits();
		await page.click(await page.find(By.xpath(`//nav//a[@href='/documents']`)));
		await page.css('main');
		await page.click(await page.find(By.xpath(`//a[normalize-space()='Volunteers’ handbook']`)));
		await page.css('#table-0');
		await waits();
		await mend();
		await page.until('worn', async () => /table 1 wears Season Ledger/.test(await page.text('header')));
		assert.doesNotMatch(await page.text('body'), /another window/);
		await page.driver.get(address);
		await page.css('#table-0');
		assert.match(await page.text('header'), /table 1 wears Season Ledger/);
	});

	it('two changes of a drawing made at once both stand', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//a[normalize-space()='Fern bed, planting plan']`)));
		await page.css('[data-sheet]');
		await page.driver.sleep(800);
		const steps = () =>
			page.driver.executeScript<string[]>(
				`return [...document.querySelectorAll('header button[title^="Undo: "]')].map((one) => one.title)`
			);
		await page.click(await page.find(By.xpath("//button[@role='tab'][contains(., 'Tables')]")));
		await page.click(await page.find(By.xpath("//ul[@aria-label='Tables on the sheet']//button")));
		await page.click(await page.find(By.xpath("//button[@role='tab'][normalize-space()='Place']")));
		const field = (label: string) => page.css(`input[aria-label="${label}"]`);
		await field('Millimetres from the left');
		await page.driver.executeScript(
			`for (const [label, value] of [['Millimetres from the left', '31'], ['Millimetres from the top', '32']]) {
				const field = document.querySelector('input[aria-label="' + label + '"]');
				field.value = value;
				field.dispatchEvent(new Event('change', { bubbles: true }));
			}`
		);
		await page.until('both', async () => {
			const [x, y] = await Promise.all(
				['left', 'top'].map(async (side) => (await field(`Millimetres from the ${side}`)).getAttribute('value'))
			);
			return x === '31' && y === '32' && (await steps()).length === 1;
		});
		await page.driver.sleep(800);
		assert.equal(await (await field('Millimetres from the left')).getAttribute('value'), '31');
		assert.doesNotMatch(await page.text('body'), /changed in another window/);
		await page.consoleIsClean();
	});

	it('somebody else who signs in at this browser does not send it as theirs', async () => {
		const [ines, oskar] = [
			await application.signedIn('author', undefined, 'Ines'),
			await application.signedIn('author', undefined, 'Oskar')
		];
		await page.signIn(ines);
		await openDocument('Volunteers’ handbook');
		const address = await page.driver.getCurrentUrl();
		await cut();
		await apply('Beacon');
		await waits();
		await page.signIn(oskar);
		await page.driver.get(address);
		await page.css('#table-0');
		await page.driver.sleep(1_000);
		assert.doesNotMatch(await page.text('body'), /Saved now/);
		await page.signIn(ines);
		await page.driver.get(address);
		await page.until('sent', async () => /Saved now, as the server answers again/.test(await page.text('body')));
		await page.consoleIsClean();
	});
});
