// npm run screenshots: the main views with the demo data, into docs/screenshots. Uses a house of its own that is gone afterwards.
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { demoInBrowser } from './browser.mjs';
import { checkNode, ensureNodePackages, root, say } from './machine.mjs';

checkNode();
ensureNodePackages();
const { By, Key, until } = await import('selenium-webdriver');
const { origin, driver } = await demoInBrowser();

const folder = join(root, 'docs', 'screenshots');
mkdirSync(folder, { recursive: true });
const go = async (path) => {
	await driver.get(origin + path);
	await driver.sleep(1200);
};
const take = async (name) => {
	await driver.sleep(400);
	writeFileSync(join(folder, `${name}.png`), Buffer.from(await driver.takeScreenshot(), 'base64'));
	say(`docs/screenshots/${name}.png`);
};
const named = (text, tag = '*[self::button or self::a]') =>
	driver.wait(
		until.elementLocated(By.xpath(`//${tag}[contains(normalize-space(.), ${JSON.stringify(text)})]`)),
		10_000
	);
const click = async (element) => {
	await driver.executeScript('arguments[0].scrollIntoView({ block: "nearest" })', await element);
	await (await element).click();
};
const key = async (...keys) => {
	await driver.executeScript('document.activeElement?.blur?.()');
	await driver
		.actions()
		.sendKeys(...keys)
		.perform();
};

try {
	await go('/');
	await take('desk');
	await go('/documents');
	await click(named('Season report'));
	await driver.sleep(1200);
	await click(driver.wait(until.elementLocated(By.xpath("//button[normalize-space()='2']")), 10_000));
	await click(named('Season Ledger', 'button[@role="option"]'));
	await driver.executeScript(
		'document.querySelector(".layer [role=row]:first-child"); document.getElementById("table-1").scrollIntoView({ block: "center" }); document.querySelector("aside [role=tabpanel]").scrollTop = 0'
	);
	await key('b');
	await driver
		.actions()
		.move({ origin: await driver.findElement(By.css('h1')) })
		.perform();
	await take('document-view');
	await key('b');
	await click(named('What it is'));
	await take('recognised');
	await click(named('Styles', 'button'));
	await key('o');
	await click(named('Beacon', 'button[@role="option"]'));
	await click(named('Tick all 9'));
	await driver.sleep(1500);
	await take('contact-sheet');
	await key('o');
	await click(named('Season Ledger', 'button[@role="option"]'));
	await click(named('All · 9', 'button'));
	await click(named('Apply to 9 tables'));
	await driver.sleep(800);
	await click(named('Take the file…'));
	await driver.wait(until.elementLocated(By.css('[aria-label="Account by table"]')), 10_000);
	await driver.sleep(5200);
	await take('account');
	await click(named('Not yet', 'button'));
	await click(named('Print…', 'a'));
	await driver.wait(until.elementLocated(By.css('svg[aria-label^="Page 1"]')), 10_000);
	await driver.executeScript('document.querySelector("main").scrollTo(0, 900)');
	await driver.sleep(1200);
	await take('pages');
	await go('/documents');
	await take('documents');
	await click(named('Fern bed, planting plan'));
	await driver.sleep(1500);
	await click(named('Matteuccia', 'button'));
	await take('sheet');
	await go('/documents');
	await click(named('Path lighting'));
	await driver.sleep(1500);
	await click(named('Path lantern', 'button'));
	await click(named('Low bollard', 'button'));
	await click(named('Make a schedule of these 2 kinds…'));
	await driver.sleep(1200);
	await driver.executeScript(
		`const by = document.querySelector('[aria-label="Grouped by"]'); by.value = 'Circuit'; by.dispatchEvent(new Event('change', { bubbles: true }))`
	);
	await driver.sleep(1200);
	await driver.executeScript('document.querySelector("aside").scrollTop = 0');
	await take('schedule');
	await go('/starters');
	await take('starters');
	await click(named('Place it…'));
	await driver.sleep(1200);
	await click(named('Make it and work on it'));
	await driver.wait(until.elementLocated(By.css('[data-work-sheet] [role=grid]')), 10_000);
	await driver.sleep(1200);
	await click(driver.findElement(By.xpath("//button[@role='tab'][.='Figures']")));
	await click(driver.findElement(By.xpath("//*[@role='row'][@aria-rowindex='3']/*[@aria-colindex='5']")));
	await take('table-bench');
	await go('/stylebook');
	await take('stylebook');
	await click(named('Season Ledger'));
	await driver.sleep(1200);
	await key('4');
	await click(
		driver.findElement(By.xpath("//div[@aria-label='Parts']//button[starts-with(normalize-space(.), 'subtotal')]"))
	);
	await click(driver.findElement(By.xpath("//div[@role='gridcell'][contains(., '85 488')]")));
	await take('style-bench');
	await key(Key.ESCAPE);
	await click(
		driver.findElement(By.xpath("//div[@aria-label='Parts']//button[starts-with(normalize-space(.), 'total')]"))
	);
	await key('l');
	await take('linework');
	await key('l');
	await click(named('Editions…', 'a'));
	await driver.sleep(1200);
	await take('editions');
	await go('/house');
	await click(driver.findElement(By.xpath("//ul[@aria-label='Inks']//button[contains(., 'fern')]")));
	await take('house');
	await go('/documents');
	for (const name of ['Season report 2031, open text', 'Season report 2031, web page', 'Volunteers’ handbook'])
		await click(driver.findElement(By.css(`[aria-label="Tick “${name}”"]`)));
	await click(named('Give 3 documents a style…'));
	await click(named('Start the run'));
	await driver.wait(until.elementLocated(By.xpath("//*[@data-run-state][.='done']")), 60_000);
	await take('runs');
	await go('/house/policy');
	for (const [rule, level] of [
		['totals-right', 'must'],
		['contrast', 'warning'],
		['figures-aligned', 'wish']
	]) {
		await click(driver.findElement(By.xpath(`//*[@data-rule='${rule}']//button[@role='radio'][.='${level}']`)));
		await driver.sleep(1500);
	}
	await driver.executeScript('document.querySelector("main").scrollTo(0, 0)');
	await take('policy');
	await go('/census?view=looks');
	await driver.wait(until.elementLocated(By.css('[data-chart] svg path')), 20_000);
	await take('census');
} finally {
	await driver.quit();
}
process.exit(0);
