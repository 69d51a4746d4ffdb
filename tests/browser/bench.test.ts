import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { FIRST_HOUSE } from '../../src/lib/core/house.ts';
import { readTokens } from '../../src/lib/core/share/tokens.ts';
import { checkStyle } from '../../src/lib/core/style/validate.ts';
import { readDocx } from '../../src/lib/formats/docx/read.ts';
import { tableStylesOf } from '../../src/lib/formats/docx/template.ts';
import { docx, LEDGER, tbl } from '../unit/formats/documents.ts';
import { By, Key, Page } from './support.ts';

const sheet = '[aria-label="Specimen sheet"]';
const side = '[aria-label="Property sheet"]';

/** Defining a style from end to end, each point as a designer does it. */
describe('the style bench', () => {
	let page: Page;
	let address: string;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-bench-'));
	before(async () => {
		page = await Page.open('demo');
		await page.go('/stylebook');
		await page.click('Season Ledger');
		await page.css('[role=tablist][aria-label=Ranks]');
		address = new URL(await page.driver.getCurrentUrl()).pathname;
	});
	after(async () => {
		await page.close();
		rmSync(folder, { recursive: true, force: true });
	});
	const saved = () => page.until('all saved', async () => (await page.text('[data-save]')) === 'all saved');
	const open = () => page.go(address);
	const part = async (name: string) =>
		page.click(
			await page.find(By.xpath(`//div[@aria-label='Parts']//button[starts-with(normalize-space(.), '${name}')]`))
		);
	const setTo = (selector: string, value: string) =>
		page.driver.executeScript(
			`const field = document.querySelector(arguments[0]); field.value = arguments[1]; field.dispatchEvent(new Event('change', { bubbles: true }))`,
			selector,
			value
		);
	const shows = (text: string, property: string) => page.cellStyle(sheet, text, property);
	/** The visible strokes of the first specimen, as "across background". */
	const count = (selector: string) =>
		page.driver.executeScript<number>('return document.querySelectorAll(arguments[0]).length', selector);

	describe('ranks and parts', () => {
		it('each rank by its number, with its parts and what they set; touches are not of the style', async () => {
			for (const [key, name] of ['Ground', 'Bands', 'Columns', 'Rows', 'Corners', 'Cell rules', 'Touches'].entries()) {
				await page.key(String(key + 1));
				await page.until(name, async () => (await page.text('[role=tab][aria-selected=true]')).includes(name));
			}
			assert.match(await page.text(side), /belong to a table, overrule every part/);
			await page.isAccessible('rank VII');
		});
		it('a column by its name, one more header tier, a corner', async () => {
			await page.key('3');
			await page.click('+ column', 'button');
			const field = await page.css('input[aria-label="Name of a column"]');
			await field.sendKeys('Change');
			await page.click('Style this column');
			await page.click(await page.css('button[aria-label^="Text: ink"]'));
			await page.click('rust', 'button');
			await page.until('the column in rust', async () => (await shows('+4.1 %', 'color')) === 'rgb(159, 18, 57)');
			assert.equal(await shows('Change', 'color'), 'rgb(255, 255, 255)', 'its header is overruled by the header');
			await page.key('4');
			await page.click('+ level', 'button');
			await page.click('one more tier');
			await page.until('tier 3', async () =>
				(await page.text('[aria-label=Parts] [aria-checked=true]')).includes('header tier 3')
			);
			await page.key('5');
			await part('header × first');
			await page.click(await page.css('button[aria-label^="Fill: ink"]'));
			await page.click('dusk', 'button');
			await page.until('the corner', async () => (await shows('Glasshouse', 'backgroundColor')) === 'rgb(36, 50, 79)');
			await page.chord(Key.CONTROL, 'z');
			await saved();
		});
	});

	describe('the property sheet', () => {
		it('nine places, margins all alike, figures by locale with a sample', async () => {
			await page.key('3');
			await part('money');
			await page.click(await page.css('button[aria-label="Text at the top, centred"]'));
			await page.until('in the middle', async () => (await shows('61 370.00', 'textAlign')) === 'center');
			await page.click('all four alike', 'label');
			await page.fill('Margins: all four', '3mm');
			await page.until('margins', async () => (await shows('61 370.00', 'paddingTop')).startsWith('10.4'));
			await page.select('Format: written as', 'money');
			await page.fill('Format: currency', 'eur');
			await page.until('a sample', async () => /€1,234\.50/.test(await page.text('[data-format-sample]')));
			await page.until('figures on the sheet', async () => (await page.text(sheet)).includes('€61,370.00'));
			await page.fill('Format: currency', 'euros');
			await page.until('the reason', async () => (await page.text(`${side} [role=alert]`)).includes('three letters'));
			for (let i = 0; i < 4; i++) await page.chord(Key.CONTROL, 'z');
			await saved();
			await page.isAccessible('property sheet');
		});
		it('a setting of any part is found by its words, and its field has the focus', async () => {
			await page.key('1');
			await page.key('/');
			await page.css('input[aria-label="Part and setting"]');
			await page.isAccessible('finding a setting');
			await (await page.css('input[aria-label="Part and setting"]')).sendKeys('head size', Key.ENTER);
			await page.until('the field', async () =>
				page.driver.executeScript<boolean>(
					`return document.activeElement.getAttribute('aria-label') === 'Text: size' && document.querySelector('[aria-label=Parts] [aria-checked=true], [aria-label=Parts] .on').textContent.includes('header')`
				)
			);
			await page.key(Key.ESCAPE);
			await page.driver.executeScript('document.activeElement.blur()');
			const place = () =>
				page.driver.executeScript<string>(
					`return document.activeElement.closest('[aria-label=Ranks], main, aside')?.getAttribute('aria-label') ?? ''`
				);
			for (const wanted of ['Ranks', 'Specimen sheet', 'Property sheet', 'Ranks']) {
				await page.driver.actions().sendKeys('g').perform();
				await page.until(wanted, async () => (await place()) === wanted);
			}
			const isOn = () =>
				page.driver.executeScript<boolean>(
					`return [...document.querySelectorAll('button')].some((one) => one.innerText.startsWith('as they came') && one.ariaPressed === 'true')`
				);
			await page.key('b');
			await page.until('as they came', isOn);
			await page.key(Key.ESCAPE);
			await page.until('as the style has it', async () => !(await isOn()));
		});
		it('from the title to the first property are few stops, and fewer keys', async () => {
			await page.driver.executeScript(
				`document.querySelector('h1').tabIndex = -1; document.querySelector('h1').focus()`
			);
			const isThere = () =>
				page.driver.executeScript<boolean>(
					`return !!document.activeElement.closest('aside[aria-label="Property sheet"]')`
				);
			let stops = 0;
			while (!(await isThere()) && stops < 60) {
				await page.driver.actions().sendKeys(Key.TAB).perform();
				stops++;
			}
			assert.ok(stops <= 24, `${stops} stops`);
		});
		it('a long name of a family is seen whole', async () => {
			await page.key('1');
			await page.fill('Text: family', 'Atkinson Hyperlegible Next');
			const room = await page.driver.executeScript<number>(
				`const field = document.querySelector('input[aria-label="Text: family"]'); return field.clientWidth - field.scrollWidth`
			);
			assert.ok(room >= 0, `${-room} pixels of it are cut`);
			await page.chord(Key.CONTROL, 'z');
			await saved();
		});
		it('an ink is chosen from a list inside the window; set, none and not set are three pictures', async () => {
			await page.key('1');
			const swatch = (button: string) =>
				page.driver.executeScript<string>(
					`const swatch = document.querySelector('button[aria-label' + arguments[0] + '] [data-swatch]'); const style = getComputedStyle(swatch); return [swatch.dataset.swatch, style.borderTopStyle, style.backgroundImage === 'none' ? '' : 'struck'].join(' ')`,
					button
				);
			assert.equal(await swatch('$=": not set"'), 'not set dashed ');
			assert.equal(await swatch('^="Fill: ink"'), 'none solid struck');
			await page.click(await page.css('button[aria-label^="Fill: ink"]'));
			const box = await page.driver.executeScript<number[]>(
				`const { left, top, right, bottom } = document.querySelector('[popover]').getBoundingClientRect(); return [left, top, innerWidth - right, innerHeight - bottom]`
			);
			assert.ok(
				box.every((room) => room >= 0),
				`inside the window: ${box.join()}`
			);
			await page.isAccessible('the list of inks');
			await page.click('mist', 'button');
			await page.until('an ink', async () => (await swatch('^="Fill: ink"')) === 'set solid ');
			await page.click(await page.css('button[aria-label^="Fill: ink"]'));
			await page.driver.executeScript(`document.querySelector('[role=tab][aria-selected=true]').focus()`);
			await page.until('closed as the focus left', async () => (await count('[popover]')) === 0);
			await page.chord(Key.CONTROL, 'z');
			await saved();
		});
		it('a leaf set to none, unset, frozen here, pushed up to the base', async () => {
			await page.key('1');
			await page.click(await page.css('button[aria-label="Alignment: freeze down here"]'));
			await page.until(
				'set here',
				async () => (await count('button[aria-label="Alignment: down is set here; unset it"]')) === 1
			);
			await page.chord(Key.CONTROL, 'z');
			await page.key('4');
			await part('note');
			await page.click(await page.css('button[aria-label="Text: push slant up to House base"]'));
			await page.until('what it reaches', async () =>
				/styles look different then/.test(await page.text('dialog[open], [role=dialog]'))
			);
			await page.isAccessible('what a push up reaches');
			await page.click('Push it up');
			await page.until('from the base', async () => /House base/.test(await page.text('[aria-label=Text]')));
			await page.until('said', async () => (await page.text('[role=status]')).length > 0);
			assert.equal(await shows('Note: evenings are counted at the gate, tours by ticket.', 'fontStyle'), 'italic');
			await saved();
			await page.chord(Key.CONTROL, 'z');
			await page.until('both back', async () => /Changed along with it.*“House base”/.test(await page.text('body')));
			await page.css('button[aria-label="Text: push slant up to House base"]');
			await page.chord(Key.CONTROL, Key.SHIFT, 'z');
			await page.until('both again', async () => /House base/.test(await page.text('[aria-label=Text]')));
			await saved();
		});
	});

	describe('linework', () => {
		const runAt = (line: string) => page.css(`${sheet} section [data-line="${line}"]`);
		it('an edge that is clicked becomes a line of the part, on every table', async () => {
			await page.key('4');
			await part('total');
			await page.key('l');
			await page.css('[aria-label=Linework]');
			await page.click(await page.css('[aria-label=Pattern] [title=dotted]'));
			await page.click('0.7', 'button');
			await page.click(await page.css('button[aria-label^="Pen ink"]'));
			await page.click('rust', 'button');
			const edge = await runAt('bottom');
			await page.driver.actions().move({ origin: edge }).click().perform();
			await page.until('drawn', async () => (await count('[data-line=bottom].set')) >= 2);
			assert.match(await page.text('[aria-label="Drawing on"]'), /below\s+drawn here/);
			await page.isAccessible('linework mode');
		});
		it('dragging along takes several, none and untouched are two things', async () => {
			await page.key('x');
			const top = await runAt('top');
			await page.driver.actions().move({ origin: top }).press().move({ origin: top, x: 30, y: 0 }).release().perform();
			await page.until('none', async () => (await count('[data-line=top].none')) >= 1);
			await page.key(Key.DELETE);
			await page.driver
				.actions()
				.move({ origin: await runAt('bottom') })
				.click()
				.perform();
			await page.until('untouched', async () => (await count('[data-line=bottom].untouched')) >= 1);
			await page.chord(Key.CONTROL, 'z');
			await page.chord(Key.CONTROL, 'z');
			await page.until('the double line again', async () => (await count('[data-line=top].set')) >= 1);
		});
		it('a frame around cells takes all edges in it', async () => {
			await page.click(await page.css('[aria-label=Pattern] [title=solid]'));
			const total = await page.find(By.xpath(`//main//div[@role='gridcell'][contains(., '46 718')]`));
			const { width, height } = await total.getRect();
			await page.driver
				.actions()
				.move({ origin: total, x: -Math.round(width / 2) - 14, y: -Math.round(height / 2) + 8 })
				.press()
				.move({ origin: total, x: Math.round(width / 2) + 14, y: Math.round(height / 2) - 7 })
				.release()
				.perform();
			await page.until('between columns', async () => (await count('[data-line=betweenColumns].set')) >= 1);
			await page.chord(Key.CONTROL, 'z');
			await page.until('taken back', async () => (await count('[data-line=betweenColumns].set')) === 0);
			await page.driver
				.actions()
				.move({ origin: total, x: -Math.round(width / 2) - 14, y: -Math.round(height / 2) + 8 })
				.press()
				.move({ origin: total, x: Math.round(width / 2) + 14, y: Math.round(height / 2) - 7 })
				.sendKeys(Key.ESCAPE)
				.release()
				.perform();
			assert.equal(await count('[data-line=betweenColumns].set'), 0, 'Escape gives the frame up');
			assert.equal(await count('[aria-label=Linework]'), 1, 'and nothing else');
		});
		it('an edge of another part asks whose it is to be; families and recipes draw at once', async () => {
			const foreign = await page.css(`${sheet} section .foreign.across`);
			await page.driver.actions().move({ origin: foreign, x: 0, y: 0 }).click().perform();
			await page.until('the question', async () =>
				(await page.text('[aria-label="That edge"]')).includes('Whose line')
			);
			await page.key(Key.ESCAPE);
			await page.until('not answered', async () => (await count('[aria-label="That edge"]')) === 0);
			assert.equal(await count('[aria-label=Linework]'), 1, 'Escape means the question alone');
			await page.driver.actions().move({ origin: foreign, x: 0, y: 0 }).click().perform();
			await page.click(await page.css('[aria-label="That edge"] button'));
			await page.until('answered', async () => (await count('[aria-label="That edge"]')) === 0);
			await page.chord(Key.CONTROL, 'z');
			await page.click('over the totals', 'button');
			await page.click('Full lattice', 'button');
			await page.until(
				'a line between columns',
				async () => (await page.text('h3')).length > 0 && (await page.text('[data-sentence]')).includes('in a box')
			);
			await page.click('Undo');
			await page.click('Undo');
			await page.key(Key.ESCAPE);
			await page.until('out of the mode', async () => (await count('[aria-label=Linework]')) === 0);
			await saved();
		});
	});

	describe('cell rules', () => {
		it('built from plain choices, counted where they hit, without the header', async () => {
			await page.key('6');
			await page.click('+ rule', 'button');
			await setTo('[aria-label="What it is about"]', 'column:Variance');
			await page.until('hits', async () => /Hits \d+ cells/.test(await page.text('[data-hits]')));
			await page.click(await page.css('button[aria-label^="Text: ink"]'));
			await page.click('plum', 'button');
			await page.click(await page.css('button[aria-label^="Fill: ink"]'));
			await page.click('mist', 'button');
			await page.until(
				'the cells',
				async () =>
					(await page.driver.executeScript<number>(
						`return [...document.querySelectorAll('${sheet} .cell')].filter((cell) => getComputedStyle(cell).color === 'rgb(109, 46, 91)' && getComputedStyle(cell).backgroundColor === 'rgb(232, 239, 236)').length`
					)) > 0
			);
			assert.notEqual(await shows('Variance', 'color'), 'rgb(109, 46, 91)', 'not the header');
			await page.isAccessible('cell rules');
		});
		it('reach rows, combine, go on and off, change their order', async () => {
			const hits = async () => Number(/Hits (\d+)/.exec(await page.text('[data-hits]'))?.[1]);
			const alone = await hits();
			await page.click('its row', 'button');
			await page.until('more cells', async () => (await hits()) > alone);
			await page.click('and…', 'button');
			await page.until('a combination', async () => (await count('[aria-label="How they combine"]')) === 1);
			await page.until('what is missing is said', async () =>
				(await page.text(`${side} [role=alert]`)).includes('needs a value')
			);
			await page.click('+ rule', 'button');
			const names = () =>
				page.driver.executeScript<string[]>(
					`return [...document.querySelectorAll('[aria-label="Cell rules"] li button[aria-pressed]')].map((button) => button.textContent.trim())`
				);
			assert.deepEqual(await names(), ['below zero', 'below zero 2']);
			await page.click(await page.css('button[aria-label="“below zero 2” earlier"]'));
			await page.until('order', async () => (await names())[0] === 'below zero 2');
			await page.click(await page.css('input[aria-label="Rule “below zero” is on"]'));
			await page.until('off: nothing hit', async () =>
				/below zero\s+0 cells/.test(await page.text('[aria-label="Cell rules"]'))
			);
			await page.click('Take out');
			await page.until('one left', async () => (await names()).length === 1);
			await saved();
		});
	});

	describe('trace', () => {
		it('of an edge: what it shows, who claimed, whom it overruled, and a jump', async () => {
			await open();
			const cell = await page.find(By.xpath(`//main//div[@role='gridcell'][contains(., '46 718')]`));
			const { height } = await cell.getRect();
			await page.driver
				.actions()
				.move({ origin: cell, x: 0, y: -Math.floor(height / 2) + 1 })
				.click()
				.perform();
			await page.until('the edge', async () =>
				/line above:\s*Double .* from IV total; it overrules/.test(await page.text('[aria-label=Trace]'))
			);
			await page.isAccessible('trace of an edge');
			await page.click(
				await page.find(
					By.xpath(`//section[@aria-label='Trace']//dd//button[contains(normalize-space(.), 'IV total')]`)
				)
			);
			await page.until('the part', async () =>
				(await page.text('[aria-label=Parts] [aria-checked=true]')).includes('total')
			);
			await page.key(Key.ESCAPE);
		});
	});

	describe('warnings', () => {
		it('say what, where and why; a fix can be tried, taken and undone', async () => {
			await page.key('4');
			await part('header');
			await page.click(await page.css('button[aria-label^="Fill: ink"]'));
			await page.click('marigold', 'button');
			await page.until('a warning', async () => /contrast of 3\.\d:1/.test(await page.text('footer')));
			await page.key('w');
			const fix = await page.named('Text of header in black', 'button');
			await page.driver.actions().move({ origin: fix }).perform();
			await page.until('tried', async () => (await shows('Date', 'color')) === 'rgb(0, 0, 0)');
			await page.driver
				.actions()
				.move({ origin: await page.css('h1') })
				.perform();
			await page.until('put back', async () => (await shows('Date', 'color')) === 'rgb(255, 255, 255)');
			await page.driver.executeScript('arguments[0].focus()', fix);
			await page.until('tried by the focus, too', async () => (await shows('Date', 'color')) === 'rgb(0, 0, 0)');
			await page.driver.executeScript('arguments[0].blur()', fix);
			await page.until('put back', async () => (await shows('Date', 'color')) === 'rgb(255, 255, 255)');
			await page.click('Text of header in black', 'button');
			await page.until('fixed', async () => !/contrast/.test(await page.text('footer')));
			await page.isAccessible('warnings');
			await page.chord(Key.CONTROL, 'z');
			await page.chord(Key.CONTROL, 'z');
			await page.key('w');
			await saved();
		});
	});

	describe('specimens', () => {
		it('are chosen from the documents, and seen on paper, in grey and by other eyes', async () => {
			await page.click('specimens…', 'button');
			await page.find(By.xpath("//label[contains(., 'Watering rota')]"));
			await page.isAccessible('choosing specimens');
			await page.click(await page.find(By.xpath("//label[contains(., 'Watering rota')]")));
			await page.click('on the sheet', 'button');
			await page.until('it stands there', async () => /Watering rota/i.test(await page.text(sheet)));
			const filter = () =>
				page.driver.executeScript<string>(`return document.querySelector('[data-view]').style.filter`);
			for (const [view, expected] of [
				['greyscale', 'grayscale(1)'],
				['protan', 'url("#see-protan")'],
				['deutan', 'url("#see-deutan")'],
				['tritan', 'url("#see-tritan")'],
				['paper', ''],
				['screen', '']
			] as const) {
				await page.select('How the sheet is seen', view);
				await page.until(view, async () => (await filter()) === expected);
				const lines = await page.named('Linework');
				assert.equal(await lines.isEnabled(), view !== 'paper', 'nothing is offered that cannot be done');
				if (view === 'paper') assert.equal(await count(`${sheet} .guide`), 0, 'guides are hidden on paper');
			}
			await open();
			assert.match(await page.text(sheet), /Watering rota/i, 'chosen for good');
		});
		it('a part that none of them has says so, and the built-in one has every part', async () => {
			const unseen = async () => (await page.text(`${side} [role=note]`)).includes('not seen');
			await page.click('specimens…', 'button');
			await page.click(await page.find(By.xpath("//label[contains(., 'Every part, built in')]")));
			await page.click('on the sheet', 'button');
			await page.until('gone', async () => !/every part/.test(await page.text(sheet)));
			await page.key('3');
			await part('mixed columns');
			await page.until('said', unseen);
			await page.click('Put the built-in specimen on the sheet');
			await page.until('the built-in specimen', async () => /every part/.test(await page.text(sheet)));
			await page.until('seen', async () => !(await unseen()));
			await page.key('5');
			assert.equal(await unseen(), false);
		});
		it('a long one is shown as an excerpt, or whole: then only the rows near the window are drawn', async () => {
			await page.click('specimens…', 'button');
			await page.click(await page.find(By.xpath("//label[contains(., 'Ferns planted')]")));
			await page.click('on the sheet', 'button');
			const ferns = `${sheet} section[aria-label*="Ferns planted"]`;
			await page.until('an excerpt', async () => (await count(`${ferns} [role=row]`)) === 14);
			await page.click('all 61 rows', 'button');
			await page.until('whole', async () => (await count(`${ferns} h3 button`)) === 0);
			assert.equal(await (await page.css(`${ferns} .layer`)).getAttribute('aria-rowcount'), '61');
			await page.until('a part', async () => (await count(`${ferns} [role=row]`)) < 61);
			const last = `${ferns} [role=row][aria-rowindex="61"]`;
			for (const block of ['start', 'end']) {
				await page.driver.executeScript(
					`document.querySelector(arguments[0]).scrollIntoView({ block: arguments[1] })`,
					ferns,
					block
				);
				await page.until(block, async () => (await count(last)) === (block === 'end' ? 1 : 0));
			}
			await open();
		});
	});

	describe('inheritance', () => {
		it('shows the chain; a circle is refused with the chain named; detaching keeps the look', async () => {
			assert.match(await page.text('[aria-label="What it builds on"]'), /Season Ledger · \d+ set\s+on\s+House base/);
			const before = await shows('61 370.00', 'paddingTop');
			await page.click('change…', 'button');
			await page.click('Detach, and keep the look');
			await page.until('on its own', async () =>
				/builds on nothing/.test(await page.text('[aria-label="What it builds on"]'))
			);
			assert.equal(await shows('61 370.00', 'paddingTop'), before);
			await page.chord(Key.CONTROL, 'z');
			await saved();
			await page.click('House base', 'a');
			await page.until('the base', async () => (await page.text('h1')) === 'House base');
			await page.click('change…', 'button');
			const own = address.split('/').at(-1)!;
			await setTo('[aria-label="Change what it builds on"] select', own);
			await page.until('refused', async () =>
				/in a circle: House base → Season Ledger → House base/.test(await page.text('[role=alert]'))
			);
			await page.driver.manage().logs().get('browser');
		});
	});

	describe('undo and redo', () => {
		it('reach back over a reload', async () => {
			await open();
			await page.key('4');
			await part('total');
			await page.click(await page.css('button[aria-label^="Text: ink"]'));
			await page.click('clay', 'button');
			await page.until('clay', async () => (await shows('Total', 'color')) === 'rgb(180, 95, 60)');
			await saved();
			await open();
			assert.equal(await shows('Total', 'color'), 'rgb(180, 95, 60)');
			await page.chord(Key.CONTROL, 'z');
			await page.until('undone', async () => (await shows('Total', 'color')) !== 'rgb(180, 95, 60)');
			await saved();
			await open();
			await page.chord(Key.CONTROL, Key.SHIFT, 'z');
			await page.until('and brought again', async () => (await shows('Total', 'color')) === 'rgb(180, 95, 60)');
			await page.chord(Key.CONTROL, 'z');
			await saved();
		});
		it('typing goes on in a field while the sheet changes', async () => {
			await page.key('1');
			const field = await page.css('input[aria-label="Text: size"]');
			await field.click();
			await field.sendKeys(
				Key.chord(Key.CONTROL, 'a'),
				'11pt',
				Key.ENTER,
				Key.chord(Key.CONTROL, 'a'),
				'12pt',
				Key.ENTER
			);
			await page.until('12pt', async () => (await shows('Lily court', 'fontSize')).startsWith('14.7'));
			assert.equal(
				await page.driver.executeScript('return document.activeElement.getAttribute("aria-label")'),
				'Text: size'
			);
			await page.chord(Key.CONTROL, 'z');
			await saved();
		});
	});

	describe('editions', () => {
		it('are published with a note, after seeing what they change, and rolled out as one that can be undone', async () => {
			// A table that wears the style, first in an edition, then behind the next.
			await page.click('Editions…', 'a');
			await (await page.css('textarea[aria-label=Note]')).sendKeys('the first');
			await page.isAccessible('editions');
			// Somebody changes the style meanwhile: it is shown, and the note is still there to publish with.
			const mine = await page.driver.getWindowHandle();
			const address = (await page.driver.getCurrentUrl()).replace(/\/editions$/, '');
			await page.driver.switchTo().newWindow('window');
			await page.driver.get(address);
			await page.css('[data-specimen]');
			await page.driver.sleep(500);
			await page.fill('Margins: above', '1.7mm');
			await page.driver.sleep(100);
			await saved();
			await page.driver.close();
			await page.driver.switchTo().window(mine);
			await page.click('Publish edition 1');
			await page.click('Publish it as it is now');
			await page.until('out', async () => /edition 1 is out/.test(await page.text('header')));
			// The refusal of the first try.
			await page.driver.manage().logs().get('browser');
			await page.until('it is out', async () => /edition 1 is out/.test(await page.text('header')));
			await page.go('/documents');
			await page.click('Season report');
			await page.click(await page.find(By.xpath("//button[normalize-space()='2']")));
			await page.click('Season Ledger', 'button[@role="option"]');
			await page.click('Apply to 1 table');
			await page.until('wears it', async () => /wears Season Ledger, edition 1/.test(await page.text('header')));
			await open();
			await page.key('4');
			await part('total');
			await page.click(await page.css('button[aria-label^="Text: ink"]'));
			await page.click('rust', 'button');
			await saved();
			await page.click('Editions…', 'a');
			await page.until('what would change', async () =>
				/What edition 2 would change[\s\S]*Season report[\s\S]*\d+ of \d+ cells/.test(await page.text('main'))
			);
			assert.equal(await count('main figure'), 4, 'before and after of the table, and of the comparison');
			await page.click('Publish edition 2');
			await page.until('roll out', async () => /Roll out to 1 document/.test(await page.text('header')));
			assert.match(
				await page.text('[aria-label="Editions and roll-outs"]'),
				/Edition 2[\s\S]*Edition 1[\s\S]*the first/
			);
			await page.click('Roll out to 1 document');
			await page.until('rolled out', async () => /Rolled out everywhere/.test(await page.text('header')));
			await page.click('Take back');
			await page.until('taken back', async () => /Roll out to 1 document/.test(await page.text('header')));
		});
		it('are compared setting by setting and in pictures, and restored', async () => {
			assert.match(await page.text('[aria-label="What differs"]'), /total\s+ink\s+not set\s+rust/);
			await page.isAccessible('comparing editions');
			await page.click(await page.find(By.xpath("//li[contains(., 'Edition 1')]//button[contains(., 'Restore')]")));
			await page.until('the bench', async () => (await count('[role=tablist]')) === 1);
			await page.until('as it was', async () => (await shows('Total', 'color')) !== 'rgb(159, 18, 57)');
			await page.chord(Key.CONTROL, 'z');
			await page.until('restoring can be undone', async () => (await shows('Total', 'color')) === 'rgb(159, 18, 57)');
			await saved();
		});
		it('a table follows or is pinned, and takes the newest when asked', async () => {
			await page.go('/documents');
			await page.click('Season report');
			await page.click(await page.find(By.xpath("//button[normalize-space()='2']")));
			await page.until('behind', async () => /wears edition 1; edition 2 is out/.test(await page.text('aside')));
			await page.click('pinned to edition 1', 'button');
			await page.until('pinned', async () => (await count('button.on[aria-pressed=true]')) > 0);
			await page.click('Take edition 2');
			await page.until('newest', async () => /wears edition 2, the newest/.test(await page.text('aside')));
			await page.isAccessible('document view with editions');
		});
	});

	describe('inks and type roles', () => {
		it('an ink is renamed everywhere, changed for all, and everything is undone', async () => {
			await page.go('/house');
			await page.isAccessible('house');
			await page.click(await page.find(By.xpath("//ul[@aria-label='Inks']//button[contains(., 'fern')]")));
			await page.fill('Name of the ink', 'leaf');
			await page.until(
				'renamed',
				async () =>
					/leaf/.test(await page.text('[aria-label=Inks]')) && !/fern/.test(await page.text('[aria-label=Inks]'))
			);
			await page.fill('Colour of the ink', 'oklch(0.5 0.15 30)');
			await page.until(
				'changed',
				async () =>
					/leaf\s+#[0-9A-F]{6}/.test(await page.text('[aria-label=Inks]')) &&
					!/#2F5D50/.test(await page.text('[aria-label=Inks]'))
			);
			await open();
			assert.notEqual(await shows('Date', 'backgroundColor'), 'rgb(47, 93, 80)', 'the header follows the ink');
			await page.go('/house');
			await page.click('Undo');
			await page.until('the colour', async () => /#2F5D50/.test(await page.text('[aria-label=Inks]')));
			await page.click('Undo');
			await page.until('the name', async () => /fern/.test(await page.text('[aria-label=Inks]')));
		});
		it('an ink from a picture: its main colours, or a point of it', async () => {
			const picture = join(folder, 'fronds.png');
			const png = await page.driver.executeScript<string>(
				`const canvas = document.createElement('canvas'); canvas.width = 60; canvas.height = 30; const c = canvas.getContext('2d'); c.fillStyle = '#3A7D44'; c.fillRect(0, 0, 40, 30); c.fillStyle = '#F2C14E'; c.fillRect(40, 0, 20, 30); return canvas.toDataURL('image/png').split(',')[1];`
			);
			writeFileSync(picture, Buffer.from(png, 'base64'));
			await page.chooseFiles('Picture to take inks from', picture);
			const main = () =>
				page.driver.executeScript<string[]>(
					`return [...document.querySelectorAll('[data-main-colours] button')].map((button) => button.title)`
				);
			await page.until('main colours', async () => (await main()).length === 2);
			assert.deepEqual(await main(), ['#3A7D44', '#F2C14E']);
			const canvas = await page.css('canvas');
			await page.driver.actions().move({ origin: canvas, x: 20, y: 0 }).click().perform();
			await page.until('an ink', async () => /ink\s+#F2C14E/.test(await page.text('[aria-label=Inks]')));
			await page.click('Take the ink out');
			await page.until('gone', async () => !/#F2C14E/.test(await page.text('[aria-label=Inks]')));
		});
		it('a type role is changed for all who name it; a bad size says why', async () => {
			await page.click(await page.find(By.xpath("//ul[@aria-label='Type roles']//button[contains(., 'figures')]")));
			const size = await page.find(By.xpath("//aside//label[contains(., 'Size')]//input"));
			await size.sendKeys(Key.chord(Key.CONTROL, 'a'), 'big', Key.TAB);
			await page.until('the reason', async () => (await page.text('aside [role=alert]')).includes('not a length'));
			await size.sendKeys(Key.chord(Key.CONTROL, 'a'), '12pt', Key.TAB);
			await page.until('saved', async () => /Source Sans 3 · 12pt/.test(await page.text('[aria-label="Type roles"]')));
			await page.click('Undo');
			await page.until('undone', async () =>
				/figures[\s\S]*Source Sans 3 · 9.5pt/.test(await page.text('[aria-label="Type roles"]'))
			);
		});
		it('go out and come in as Design Tokens', async () => {
			await page.click('Take out tokens');
			const { name, bytes } = await page.download();
			assert.match(name, /\.tokens\.json$/);
			assert.deepEqual(readTokens(JSON.parse(new TextDecoder().decode(bytes))).inks, FIRST_HOUSE.inks);
			const file = join(folder, 'brand.tokens.json');
			writeFileSync(file, JSON.stringify({ brand: { $type: 'color', pond: { $value: '#336699' } } }));
			await page.chooseFiles('Design Tokens file', file);
			await page.until('what comes', async () =>
				/New ink pond: #336699/.test(await page.text('dialog[open], [role=dialog]'))
			);
			await page.click('Take them in');
			await page.until('taken in', async () => /pond\s+#336699/.test(await page.text('[aria-label=Inks]')));
			writeFileSync(file, '{"a":1}');
			await page.chooseFiles('Design Tokens file', file);
			await page.until('refused', async () => /no design token/.test(await page.text('[role=alert]')));
		});
		it('a style is re-inked as a whole, seen before', async () => {
			await open();
			await page.click('Re-ink…');
			await page.find(By.css('[data-reinked]'));
			await page.isAccessible('re-inking');
			await page.click(
				await page.find(
					By.xpath("//dialog//button[contains(., 'Beacon')] | //div[@role='dialog']//button[contains(., 'Beacon')]")
				)
			);
			await page.click('Re-ink it');
			await page.until('plum', async () => (await shows('Date', 'backgroundColor')) === 'rgb(109, 46, 91)');
			await page.chord(Key.CONTROL, 'z');
			await saved();
		});
	});

	describe('in and out', () => {
		it('as CSS that draws the same fills and text in a browser', async () => {
			await page.click('Take it out…');
			await page.click('CSS', 'a');
			const { name, bytes } = await page.download();
			assert.equal(name, 'season-ledger.css');
			const css = new TextDecoder().decode(bytes);
			const found = await page.driver.executeScript<string[]>(
				`const frame = document.createElement('iframe'); document.body.append(frame); const doc = frame.contentDocument;
				doc.body.innerHTML = '<table class="season-ledger"><thead><tr class="header header-1"><th class="first kind-text">Item</th><th class="kind-money">Cost</th></tr></thead><tbody><tr class="body band-1"><td class="first kind-text">a</td><td class="kind-money">1</td></tr><tr class="body band-2"><td class="first kind-text">b</td><td class="kind-money">2</td></tr></tbody><tfoot><tr class="total"><td class="first kind-text">Total</td><td class="kind-money">3</td></tr></tfoot></table>';
				const sheet = new frame.contentWindow.CSSStyleSheet(); sheet.replaceSync(arguments[0]); doc.adoptedStyleSheets = [sheet];
				const of = (selector, property) => frame.contentWindow.getComputedStyle(doc.querySelector(selector))[property];
				const result = [of('.header th:last-child', 'backgroundColor'), of('.header th:last-child', 'color'), of('.band-2 td:last-child', 'backgroundColor'), of('.total td', 'borderTopStyle'), of('.total td', 'fontWeight'), of('.band-1 td', 'fontWeight')];
				frame.remove(); return result;`,
				css
			);
			assert.match(found[0]!, /47, 93, 80|0\.184\d* 0\.364\d* 0\.313\d*/);
			assert.equal(found[1], 'rgb(255, 255, 255)');
			assert.match(found[2]!, /238, 242, 241|0\.93\d* 0\.94\d* 0\.94\d*/);
			assert.deepEqual(found.slice(3), ['double', '700', '600']);
		});
		it('as a style file, and as a template in which authors pick it', async () => {
			await page.click('Take it out…');
			await page.click('Style file', 'a');
			assert.equal(
				checkStyle(JSON.parse(new TextDecoder().decode((await page.download()).bytes))).name,
				'Season Ledger'
			);
			await page.click('Take it out…');
			await page.click('Word-processing template', 'a');
			const { name, bytes } = await page.download();
			assert.equal(name, 'Season Ledger, template.docx');
			const template = await readDocx(bytes);
			assert.deepEqual(
				tableStylesOf(template).map((style) => style.name),
				['House base', 'Season Ledger']
			);
			assert.equal(template.tables.length, 1);
		});
		it('a template’s table styles come into the Stylebook; several styles go out in one', async () => {
			const file = join(folder, 'office.docx');
			writeFileSync(
				file,
				await docx({
					body: tbl(LEDGER),
					styles:
						'<w:style w:type="table" w:styleId="A"><w:name w:val="Office grey"/><w:tblStylePr w:type="firstRow"><w:rPr><w:b/></w:rPr></w:tblStylePr></w:style>'
				})
			);
			await page.go('/stylebook');
			await page.chooseFiles('Style files to take in', file);
			await page.until('it is there', async () => /Office grey/.test(await page.text('main')));
			for (const name of ['Office grey', 'Beacon'])
				await page.click(await page.css(`input[aria-label="Tick “${name}”"]`));
			await page.click('Take out a template of 2 styles', 'a');
			const template = await readDocx((await page.download()).bytes);
			assert.deepEqual(
				tableStylesOf(template)
					.map(({ name }) => name)
					.sort(),
				['Beacon', 'Office grey']
			);
		});
		it('a file that brings another style of a name asks what becomes of it, both seen', async () => {
			const file = join(folder, 'other office.docx');
			writeFileSync(
				file,
				await docx({
					body: tbl(LEDGER),
					styles: '<w:style w:type="table" w:styleId="A"><w:name w:val="Office grey"/><w:rPr><w:i/></w:rPr></w:style>'
				})
			);
			const ask = async () => {
				await page.chooseFiles('Style files to take in', file);
				await page.until('the question', async () => /brings a name that/.test(await page.text('dialog[open]')));
			};
			const names = () =>
				page.driver.executeScript<string[]>(
					`return [...document.querySelectorAll('main li:not([hidden]) a')].map((link) => link.textContent.trim()).filter((name) => name.startsWith('Office'))`
				);
			await ask();
			await page.isAccessible('a name that is taken');
			await page.click('Take nothing in');
			await page.until('closed', async () => (await count('dialog[open]')) === 0);
			assert.deepEqual(await names(), ['Office grey']);
			await ask();
			await page.click('Take them in');
			await page.until('both', async () => (await names()).includes('Office grey 2'));
			await page.consoleIsClean();
		});
		it('the Stylebook is searched by names, categories, sentences and inks', async () => {
			const find = await page.css('[data-find]');
			const shown = async () =>
				page.driver.executeScript<string[]>(
					`return [...document.querySelectorAll('main li:not([hidden]) a')].map((link) => link.textContent.trim())`
				);
			for (const [words, expected] of [
				['notices', ['Beacon', 'North Wall']],
				['plum', ['Beacon']],
				['dashed line', ['Seed Packet']],
				[
					'header bold',
					[
						'Beacon',
						'Herbarium Sheet',
						'North Wall',
						'Office grey',
						'Plan Schedule',
						'Quiet Lines',
						'Season Ledger',
						'Seed Packet'
					]
				]
			] as const) {
				await find.sendKeys(Key.chord(Key.CONTROL, 'a'), words);
				await page.until(words, async () => (await shown()).join() === expected.join());
			}
			await page.driver.manage().logs().get('browser');
		});
	});
});
