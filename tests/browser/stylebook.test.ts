import assert from 'node:assert/strict';
import { after, before, describe, it } from 'node:test';
import { checkStyle } from '../../src/lib/core/style/validate.ts';
import { By, Key, Page } from './support.ts';

const bench = '[aria-label="Specimen sheet"]';

describe('the Stylebook and the style bench', () => {
	let page: Page;
	before(async () => (page = await Page.open('demo')));
	after(() => page.close());
	const saved = () => page.until('all saved', async () => (await page.text('[data-save]')) === 'all saved');
	const part = async (name: string) =>
		page.click(
			await page.find(By.xpath(`//div[@aria-label='Parts']//button[starts-with(normalize-space(.), '${name}')]`))
		);

	it('shows every style as a small rendering, and finds them by words', async () => {
		await page.go('/stylebook');
		assert.equal((await page.driver.findElements(By.css('main li:not([hidden])'))).length, 8);
		await page.isAccessible('Stylebook');
		await (await page.css('[data-find]')).sendKeys('season ledger');
		await page.until(
			'only those that say so',
			async () => (await page.driver.findElements(By.css('main li:not([hidden])'))).length === 1
		);
		await page.consoleIsClean();
	});

	it('opens a style on real tables of the documents', async () => {
		await page.click('Season Ledger');
		await page.css('[role=tablist][aria-label=Ranks]');
		assert.ok((await page.driver.findElements(By.css(`${bench} section`))).length >= 4);
		assert.match(await page.text(bench), /Season report 2031[\s\S]*Built in/i);
		await page.isAccessible('style bench');
	});

	it('choosing a rank by its number spotlights its cells', async () => {
		await page.key('4');
		await part('total');
		await page.until(
			'the rest to dim',
			async () => (await page.driver.findElements(By.css(`${bench} .cell.dim`))).length > 20
		);
		assert.equal(await page.cellStyle(bench, 'Total', 'opacity'), '1');
		await page.key(']');
		assert.match(await page.text('[aria-label=Parts] [aria-checked=true]'), /note/);
	});

	it('a changed property shows on all specimens at once, and is saved', async () => {
		await page.key('1');
		await page.key('4');
		await part('header');
		await page.click(await page.css('button[aria-label^="Fill: ink"]'));
		await page.click('marigold', 'button');
		for (const header of ['Glasshouse', 'Date', 'Place'])
			await page.until(
				header,
				async () => (await page.cellStyle(bench, header, 'backgroundColor')) === 'rgb(183, 121, 31)'
			);
		await saved();
		await page.until('paper on marigold is too pale', async () =>
			/contrast of 3\.\d:1/.test(await page.text('footer'))
		);
		await page.chord(Key.CONTROL, 'z');
		await page.until(
			'undone',
			async () => (await page.cellStyle(bench, 'Glasshouse', 'backgroundColor')) === 'rgb(47, 93, 80)'
		);
		await saved();
	});

	it('a shadow shows around the tables as it is changed', async () => {
		const around = () =>
			page.driver.executeScript<string>(
				`return getComputedStyle(document.querySelector('section.card .layer')).boxShadow`
			);
		await page.key('1');
		await page.fill('table shadow: across', '2mm');
		await page.until('to be told what is missing', async () =>
			(await page.text('section[aria-label="table shadow"]')).includes('once it has an ink')
		);
		await page.click(await page.css('button[aria-label^="table shadow: ink"]'));
		await page.click('marigold', 'button');
		await page.until('the shadow', async () => (await around()).startsWith('rgb(183, 121, 31)'));
		const before = await around();
		await page.fill('table shadow: across', '4mm');
		await page.until('it to move', async () => (await around()) !== before && (await around()) !== 'none');
		for (let undone = 0; undone < 3; undone++) await page.chord(Key.CONTROL, 'z');
		await page.until('none', async () => (await around()) === 'none');
		await saved();
	});

	it('lengths are typed in any unit; what is none says so and is kept to be put right', async () => {
		await page.key('1');
		await page.fill('Margins: above', '3 furlongs');
		await page.until('the reason', async () =>
			(await page.text('[aria-label=Margins] [role=alert]')).includes('not a length')
		);
		await page.fill('Margins: above', '2mm');
		await page.until('the margin', async () =>
			(await page.cellStyle(bench, 'Succulents', 'paddingTop')).startsWith('6.9')
		);
		await saved();
		await page.click(await page.css('button[aria-label="Margins: above is set here; unset it"]'));
		await page.until('the base’s again', async () => (await page.text('[aria-label=Margins]')).includes('House base'));
	});

	it('lines are set, set to none and left untouched by place', async () => {
		await page.key('4');
		await part('total');
		await page.click('below', 'button');
		await page.select('Line below: pattern', 'wavy');
		await page.until(
			'the place is set',
			async () =>
				(await page.driver.findElements(By.css('[aria-label="Which lines"] [aria-checked=true] .edge.set'))).length ===
				1
		);
		await page.select('Line below: pattern', 'none');
		await page.until(
			'the place is none',
			async () =>
				(await page.driver.findElements(By.css('[aria-label="Which lines"] [aria-checked=true] .edge.none'))).length ===
				1
		);
		await page.click('Undo');
		await page.click('Undo');
		await saved();
	});

	it('bands take any cycle', async () => {
		await page.key('2');
		await page.click(await page.find(By.xpath("(//section[@aria-label='Cycle']//button[contains(., '+ stripe')])[1]")));
		await page.until('a third band', async () => (await page.text('[aria-label=Parts]')).includes('row band 3'));
		await page.click('Undo');
	});

	it('clicking a cell traces it, and a setter leads to its part', async () => {
		await page.click(await page.find(By.xpath("//div[@role='gridcell'][contains(., '85 488')]")));
		await page.until('the trace', async () =>
			/Slant and line above come from IV subtotal/.test(await page.text('[aria-label=Trace]'))
		);
		await page.isAccessible('style bench with trace');
		await page.click('III money columns', 'button');
		await page.until('the part', async () =>
			(await page.text('[aria-label=Parts] [aria-checked=true]')).includes('money columns')
		);
		await page.key(Key.ESCAPE);
	});

	it('is named, described and put in a category', async () => {
		await page.click(await page.css('[aria-label="Name and purpose…"]'));
		const name = await page.css('#about input[required]');
		await name.clear();
		await name.sendKeys('Season Journal');
		await page.click('Name it so');
		await page.until('the name', async () => (await page.text('h1')) === 'Season Journal');
		await saved();
		await page.chord(Key.CONTROL, 'z');
		await saved();
		await page.consoleIsClean();
	});

	/** Another window of the style opens, changes a margin and is closed again. */
	const changedElsewhere = async (length: string) => {
		await page.go('/stylebook');
		await page.click('Beacon');
		await page.css('[role=tablist]');
		await page.lookAway();
		const first = await page.driver.getWindowHandle();
		const address = await page.driver.getCurrentUrl();
		await page.driver.switchTo().newWindow('tab');
		await page.driver.get(address);
		await page.css('[role=tablist]');
		await page.driver.sleep(500);
		await page.fill('Margins: above', length);
		await saved();
		await page.driver.close();
		await page.driver.switchTo().window(first);
	};
	it('two windows never overwrite each other; the second may look at both', async () => {
		await changedElsewhere('4mm');
		const padding = () => page.cellStyle(bench, 'Succulents', 'paddingTop');
		const began = await padding();
		await page.fill('Margins: above', '6mm');
		await page.until('to be told', async () => (await page.text('[role=alert]')).includes('changed in another window'));
		await page.until('mine on the sheet', async () => (await padding()) !== began);
		const mine = await padding();
		await page.click('Look at the other');
		await page.until('the other', async () => (await padding()) !== mine);
		assert.ok(
			await page.driver.executeScript(`return document.querySelector('aside[aria-label="Property sheet"]').inert`),
			'what is not seen is not edited'
		);
		await page.isAccessible('style bench with a conflict');
		assert.match(await page.text('[role=alert]'), /theirs “4mm”, yours “6mm”/);
		await page.click('Save mine over it');
		await saved();
		assert.equal(await padding(), mine);
		await page.driver.manage().logs().get('browser');
	});
	it('two windows that change different settings of one style keep both, unasked', async () => {
		await changedElsewhere('5mm');
		await page.fill('Margins: below', '7mm');
		await page.until('to be told', async () => /both changes are here/.test(await page.text('body')));
		await saved();
		const value = (side: string) =>
			page.driver.executeScript<string>(`return document.querySelector('input[aria-label="Margins: ${side}"]').value`);
		assert.deepEqual([await value('above'), await value('below')], ['5mm', '7mm']);
		await page.driver.manage().logs().get('browser');
	});
	it('a step that the server will not have is told and gone, and blocks none of the others', async () => {
		await page.driver.executeScript(
			`window.__fetch = window.fetch; window.fetch = (path, options) => { if (options?.method !== 'PUT') return window.__fetch(path, options); window.fetch = window.__fetch; return window.__fetch(path, { ...options, body: options.body.replaceAll('9mm', 'ninety') }) }`
		);
		await page.fill('Margins: above', '9mm');
		await page.until('to be told', async () => /Not kept: /.test(await page.text('body')));
		await page.fill('Margins: below', '3mm');
		await saved();
		const value = await page.driver.executeScript(
			`return document.querySelector('input[aria-label="Margins: above"]').value`
		);
		assert.notEqual(value, '9mm');
		await page.driver.manage().logs().get('browser');
	});

	it('new styles begin blank or on top of another, and stand in the document view', async () => {
		await page.go('/stylebook');
		await page.click('New style…');
		await page.click('Building on another', 'label');
		await page.isAccessible('the dialog for a new style');
		await page.click('Begin');
		await page.until('the bench', async () => /on\s+Beacon/.test(await page.text('[aria-label="What it builds on"]')));
		await page.go('/stylebook');
		await page.click('New style…');
		await page.click('Begin');
		await page.until('a blank one', async () => (await page.text('h1')) === 'New style');
		assert.equal(await page.text('[data-sentence]'), 'Says nothing yet.');
		await page.consoleIsClean();
	});

	it('a style is offered where it may be used, and goes on being worn elsewhere', async () => {
		await page.go('/stylebook');
		await page.click('Quiet Lines', 'a');
		await page.click(await page.css('[aria-label="Name and purpose…"]'));
		await page.click('in documents of some kinds', 'button[@role="radio"]');
		await page.isAccessible('where a style is offered');
		await page.click('drawing', 'label');
		await page.click('Name it so');
		await page.until('said', async () => /only in this kind: drawing/.test(await page.text('header')));
		const offered = async () => {
			await page.go('/documents');
			await page.click('Volunteers’ handbook');
			await page.css('#table-0');
			await page.until('styles', async () => /Season Ledger/.test(await page.text('[role=listbox]')));
			return /Quiet Lines/.test(await page.text('[role=listbox]'));
		};
		assert.equal(await offered(), false);
		await page.go('/stylebook');
		assert.match(await page.text('main'), /only in this kind: drawing/);
		await page.click('Quiet Lines', 'a');
		await page.click(await page.css('[aria-label="Name and purpose…"]'));
		await page.click('anywhere', 'button[@role="radio"]');
		await page.click('Name it so');
		await page.until('said', async () => !/only in/.test(await page.text('header')));
		assert.equal(await offered(), true);
		await page.consoleIsClean();
	});

	it('a style goes out as a file that stands alone', async () => {
		await page.go('/stylebook');
		await page.click('Season Ledger');
		await page.click('Take it out…');
		await page.click('Style file', 'a');
		const { name, bytes } = await page.download();
		assert.equal(name, 'season-ledger.heptarch.json');
		const style = checkStyle(JSON.parse(new TextDecoder().decode(bytes)));
		assert.deepEqual(
			style.bases!.map((base) => base.name),
			['House base']
		);
		assert.equal(style.inks!.fern, '#2F5D50');
	});

	it('a style is put aside and comes back whole, and goes for good only with a replacement', async () => {
		await page.go('/documents');
		await page.click('Volunteers’ handbook');
		await page.css('#table-0');
		await page.click(await page.named('North Wall', 'button[@role="option"]'));
		await page.click('Apply to 1 table');
		await page.until('worn', async () => (await page.text('header')).includes('wears North Wall'));
		await page.until('its first edition', async () =>
			(await page.text('body')).includes('“North Wall” had no edition: its draft is published as edition 1.')
		);
		await page.go('/stylebook');
		const isShown = async () => /North Wall/.test(await page.text('main'));
		await page.click(await page.css('[aria-label="Put “North Wall” aside"]'));
		await page.until('it to be aside', async () => !(await isShown()));
		await page.click('Bring it back');
		await page.until('it to be back', isShown);
		await page.click(await page.css('[aria-label="Put “North Wall” aside"]'));
		await page.until('it to be aside', async () => !(await isShown()));
		await page.go('/documents');
		await page.click('Volunteers’ handbook');
		await page.css('#table-0');
		assert.match(await page.text('header'), /wears North Wall/, 'what wears it goes on wearing it');
		await page.named('North Wall', 'button[@role="option"]');
		await page.click(await page.css('#table-1'));
		await page.until('it to be offered no more', async () => {
			const options = await page.driver.executeScript<string[]>(
				`return [...document.querySelectorAll('[role="option"]')].map((option) => option.textContent)`
			);
			return options.length > 0 && !options.some((words) => words.includes('North Wall'));
		});
		await page.go('/stylebook');
		await page.click('Put aside · 1');
		await page.isAccessible('styles that are put aside');
		await page.click(await page.css('[aria-label="Remove “North Wall”"]'));
		await page.until('the question', async () =>
			(await page.text('[role=dialog], dialog')).includes('What do they wear instead?')
		);
		assert.equal(await (await page.named('Remove it')).isEnabled(), false);
		const id = await page.driver.executeScript<string>(
			`return [...document.querySelectorAll('select[aria-label="Style to wear instead"] option')].find((option) => option.textContent === 'Quiet Lines').value`
		);
		await page.select('Style to wear instead', id);
		await page.click('Remove it');
		await page.until('it to go', async () => !/North Wall/.test(await page.text('main')));
		assert.match(await page.text('main'), /worn by 1 table in 1 document/);
		await page.consoleIsClean();
	});

	it('what is not there says so', async () => {
		await page.go('/stylebook/00000000-0000-0000-0000-000000000000');
		assert.match(await page.text('main'), /no longer in the Stylebook/);
		await page.go('/nowhere');
		assert.match(await page.text('main'), /nothing at this address/);
		await page.isAccessible('the page for what is not there');
		await page.driver.manage().logs().get('browser');
	});
});
