import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { By, Key, Page } from './support.ts';

/** How consistent a house is, what it wants, and what is done about both. */
describe('the census and the policy', () => {
	let page: Page;
	before(async () => {
		page = await Page.open('demo');
		await page.go('/census');
		await page.until('counted', async () => {
			const text = await page.text('header');
			return /35 tables in 7 documents/.test(text) && !/still being counted/.test(text);
		});
	});
	after(() => page.close());
	const all = (selector: string) => page.driver.findElements(By.css(selector));
	const drawn = (title: string) =>
		page.until(`${title} is drawn`, async () =>
			page.driver.executeScript<boolean>(
				`return [...document.querySelectorAll('section')].some((one) => one.querySelector('h2')?.innerText === arguments[0] && one.querySelector('[data-chart] svg path'))`,
				title
			)
		);
	/** Waits until a run is done, and comes back. */
	async function runIsDone(name: RegExp): Promise<void> {
		await page.until('the run is done', async () => {
			const section = await page.text('main section');
			return name.test(section) && /\bdone\b/i.test(await page.text('[data-run-state]'));
		});
	}
	const counted = (sentence: RegExp) =>
		page.until(`counted: ${sentence.source}`, async () => {
			await page.driver.navigate().refresh();
			await page.driver.sleep(700);
			return sentence.test(await page.text('main'));
		});

	it('shows what is in house styles, in charts and in numbers that go out', async () => {
		assert.match(await page.text('[data-share]'), /^4 of 35 tables wear a house style, 11.4 %/);
		for (const title of ['By kind of file', 'Over time', 'By edition', 'By document']) await drawn(title);
		await page.isAccessible('shares');
		await page.click(await page.css('[aria-label="By kind of file as CSV"]'));
		const csv = await page.download();
		assert.equal(csv.name, 'by-kind-of-file.csv');
		assert.match(new TextDecoder().decode(csv.bytes), /^Kind,Files,Tables,In style,%\r?\nword-processed,2,12,0,0/);
		await page.click(await page.css('[aria-label="By document as SVG"]'));
		const svg = await page.download();
		assert.match(new TextDecoder().decode(svg.bytes), /^<svg [\s\S]*Volunteers’ handbook[\s\S]*<\/svg>/);
		await page.select('Kind of document', 'odt');
		await page.until('only one kind', async () => /^0 of 9 tables/.test(await page.text('[data-share]')));
		await page.consoleIsClean();
	});

	it('gives the tables of chosen looks a style, after a look at each', async () => {
		await page.go('/census?view=looks');
		await drawn('Looks by likeness');
		await page.isAccessible('looks');
		// Two that wear nothing yet, one of them without the mouse.
		const bare: { at: number; tables: number }[] = [];
		for (const [at, card] of (await all('ul[aria-label="Looks"] > li')).entries()) {
			const text = await card.getText();
			const [, tables] = /(\d+) tables? in/.exec(text)!;
			if (text.includes('in no house style')) bare.push({ at, tables: Number(tables) });
		}
		const [one, other] = bare;
		const boxes = await all('[aria-label="Looks by likeness, in numbers"] input');
		await page.click(boxes[one!.at]!);
		await boxes[other!.at]!.sendKeys(Key.SPACE);
		const tables = one!.tables + other!.tables;
		assert.match(await page.text('[data-chosen]'), new RegExp(`2 looks chosen, ${tables} tables`));
		await page.click('Which tables…');
		await page.until('named', async () =>
			new RegExp(`${tables} tables in \\d documents`).test(await page.text('dialog[open]'))
		);
		await page.click('Close', 'dialog//button');
		await page.click('Give them a style…');
		await page.until('seen', async () => /as it would be/.test(await page.text('dialog[open]')));
		await page.click('Quiet Lines', 'button[@role="option"]');
		await page.click('Start the run');
		await runIsDone(/Quiet Lines/);
		await page.go('/census');
		await counted(new RegExp(`${4 + tables} of 35 tables wear a house style`));
		await page.go('/runs');
		await page.click('Take it back');
		await page.until('taken back', async () => /taken back/.test(await page.text('[data-run-state]')));
		await page.go('/census');
		await counted(/4 of 35 tables wear a house style/);
	});

	it('lets a group be drawn around, and a style be lifted from it', async () => {
		await page.go('/census?view=looks');
		await drawn('Looks by likeness');
		await page.click('Draw around');
		const chart = await page.css('[data-chart]');
		await page.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', chart);
		const { width, height } = await chart.getRect();
		const at = (x: number, y: number) => ({
			origin: chart,
			x: Math.round((x - 0.5) * width),
			y: Math.round((y - 0.5) * height),
			duration: 60
		});
		await page.driver
			.actions({ async: true })
			.move(at(0.02, 0.12))
			.press()
			.move(at(0.98, 0.12))
			.move(at(0.98, 0.98))
			.move(at(0.02, 0.98))
			.move(at(0.02, 0.14))
			.release()
			.perform();
		await page.until('all are chosen', async () =>
			/\d+ looks chosen, 35 tables/.test(await page.text('[data-chosen]'))
		);
		await page.click('Draw around');
		await page.click('Choose none');
		const [, second] = await all('[aria-label="Looks by likeness, in numbers"] input');
		await second!.click();
		await page.click('Lift a style from it…');
		await page.until('lifted', async () => /settings say/.test(await page.text('dialog[open]')));
		await page.fill('Name of the style', 'Lifted from a look');
		await page.click('Lift it');
		await page.until('in the Stylebook, to be given', async () =>
			/Give \d tables? a style[\s\S]*as it would be/.test(await page.text('dialog[open]'))
		);
		await page.click('Not now');
	});

	it('brings values of a setting to one of them', async () => {
		await page.go('/census?view=settings');
		await page.until('varies', async () =>
			/most of all the fill of header rows/.test(await page.text('[data-varies]'))
		);
		await drawn('How many ways there are');
		await page.isAccessible('settings that vary');
		const values = await all('[aria-label="What is in use"] input');
		const before = values.length;
		await values[2]!.click();
		await page.click(await page.find(By.xpath(`//button[starts-with(normalize-space(), 'Bring ')]`)));
		await page.until('seen', async () => /as it would be/.test(await page.text('dialog[open]')));
		await page.click('Start the run');
		await runIsDone(/fill of header rows: #/);
		await page.go('/census?view=settings');
		await page.until('one fill less', async () => {
			await page.driver.navigate().refresh();
			await page.driver.sleep(900);
			return (await all('[aria-label="What is in use"] input')).length === before - 1;
		});
		await page.consoleIsClean();
	});

	it('lists findings with their tables', async () => {
		await page.go('/census?view=findings');
		await drawn('By kind');
		await page.isAccessible('findings');
		await page.click('total that does not add up');
		await page.until('named', async () => /3 tables in 3 documents/.test(await page.text('dialog[open]')));
		await page.click('Season report 2031', 'dialog//a');
		await page.css('#table-3');
	});

	it('takes a policy as plain choices, each with what it finds, and undoes them', async () => {
		await page.go('/house/policy');
		const rule = (name: string) => `[data-rule="${name}"]`;
		const count = (name: string) => page.text(`${rule(name)} [data-count]`);
		const level = async (name: string, words: string) =>
			page.click(
				await page.find(By.xpath(`//*[@data-rule='${name}']//button[@role='radio'][normalize-space()='${words}']`))
			);
		assert.match(await count('totals-right'), /3 tables in 3 documents would be otherwise/);
		await level('totals-right', 'must');
		await page.until('wanted', async () => /are otherwise/.test(await count('totals-right')));
		await level('contrast', 'warning');
		await page.until('wanted', async () => /are otherwise/.test(await count('contrast')));
		await page.fill('Text has a contrast of 4.5:1 or more: the least', '1');
		await page.until('none', async () => /Every table is so/.test(await count('contrast')));
		await page.chord(Key.CONTROL, 'z');
		await page.until('undone', async () => /are otherwise/.test(await count('contrast')));
		await page.driver.executeScript(`document.querySelector('main').scrollTo(0, 0)`);
		await page.select(
			'A style to wear',
			await page.driver.executeScript<string>(
				`return [...document.querySelector('[aria-label="A style to wear"]').options].find(({ text }) => text === 'Season Ledger').value`
			)
		);
		await page.until('styles', async () => /Tables wear “Season Ledger”/.test(await page.text(rule('wears-style'))));
		await page.isAccessible('the policy');
		const folder = mkdtempSync(join(tmpdir(), 'heptarch-policy-'));
		await page.click('Take it out');
		const taken = await page.download();
		const policy = JSON.parse(new TextDecoder().decode(taken.bytes)) as {
			rules: { rule: string; styles?: string[] }[];
		};
		assert.deepEqual(
			policy.rules.map(({ rule: name }) => name),
			['wears-style', 'totals-right', 'contrast']
		);
		assert.deepEqual(policy.rules[0]!.styles, ['Season Ledger']);
		policy.rules[0]!.styles = ['Old Ledger'];
		const file = join(folder, 'old.policy.json');
		writeFileSync(file, JSON.stringify(policy));
		await page.chooseFiles('A policy file', file);
		await page.until('gone', async () => /no longer in the Stylebook/.test(await page.text(rule('wears-style'))));
		await page.chord(Key.CONTROL, 'z');
		await page.until('back', async () => /Tables wear “Season Ledger”/.test(await page.text(rule('wears-style'))));
		rmSync(folder, { recursive: true });
		await page.consoleIsClean();
	});

	it('holds each document against it, and puts one or all right', async () => {
		await page.go('/documents');
		await page.click('Season report 2031');
		await page.until('held', async () => /Policy · 11/.test(await page.text('aside')));
		await page.click(await page.find(By.xpath(`//button[@role='tab'][contains(., 'Policy')]`)));
		await page.isAccessible('the policy at a document');
		assert.match(await page.text('[data-held="totals-right"]'), /table 4: .*total is off by/);
		await page.click(await page.css('[data-held="contrast"] button[aria-label$="in table 6"]'));
		await page.until('put right', async () => /Policy · 10/.test(await page.text('aside')));
		await page.chord(Key.CONTROL, 'z');
		await page.until('as before', async () => /Policy · 11/.test(await page.text('aside')));
		await page.click('Give it “Season Ledger”: all 9');
		await page.until('worn', async () => /wears Season Ledger/.test(await page.text('header')));
		await page.click('Take the file…');
		await page.until('told before it goes', async () =>
			/policy has 1 must against it/.test(await page.text('dialog[open] [data-policy]'))
		);
		await page.isAccessible('a file that fails the policy');
		await page.click('Not yet');
		await page.consoleIsClean();
	});

	it('keeps a rule in all documents, as a run', async () => {
		await page.go('/house/policy');
		await page.click(await page.find(By.xpath(`//*[@data-rule='contrast']//button[contains(., 'black or white')]`)));
		await page.until('seen', async () => /as it would be/.test(await page.text('dialog[open]')));
		await page.click('Start the run');
		await runIsDone(/policy: Text has a contrast of 4.5:1/);
		await page.go('/house/policy');
		await page.until('kept', async () => {
			await page.driver.navigate().refresh();
			await page.driver.sleep(700);
			return /Every table is so/.test(await page.text('[data-rule="contrast"]'));
		});
	});
});
