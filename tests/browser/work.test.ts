import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { openDocument } from '../../src/lib/formats/index.ts';
import { By, Key, Page } from './support.ts';

describe('the table bench', () => {
	let page: Page;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-work-'));
	before(async () => {
		page = await Page.open('demo');
	});
	after(async () => {
		rmSync(folder, { recursive: true, force: true });
		await page.close();
	});

	const run = <T>(code: string, ...given: unknown[]) => page.driver.executeScript<T>(code, ...given);
	/** The table as it shows, row by row. */
	const rows = () =>
		run<string[][]>(
			`return [...document.querySelectorAll('[data-work-sheet] [role=row]')].map((row) => [...row.querySelectorAll('[data-cell]')].map((cell) => [...cell.querySelectorAll('p')].map((p) => p.textContent.replace(/\\u200b/g, '')).join('/')))`
		);
	const selected = () => page.text('[data-selection]');
	const saved = () => page.until('everything saved', async () => (await page.text('[data-saved]')) === 'saved');
	const isShown = (what: string, isIt: (rows: string[][]) => boolean) =>
		page.until(what, async () => isIt(await rows()));
	/** Keys for whatever has the focus: the table, or the cell that is typed in. */
	const keys = (...all: string[]) =>
		page.driver
			.actions()
			.sendKeys(...all)
			.perform();
	async function chord(...all: string[]) {
		const actions = page.driver.actions();
		for (const key of all) actions.keyDown(key);
		for (const key of all.toReversed()) actions.keyUp(key);
		await actions.perform();
	}
	const cell = (r: number, c: number) =>
		page.find(By.xpath(`//*[@data-work-sheet]//*[@role='row'][@aria-rowindex='${r}']/*[@aria-colindex='${c}']`));
	const press = async (label: string) =>
		page.click(await page.find(By.xpath(`//button[normalize-space()=${JSON.stringify(label)}]`)));
	const tab = async (label: string) =>
		page.click(await page.find(By.xpath(`//button[@role='tab'][normalize-space()=${JSON.stringify(label)}]`)));
	const pick = async (r: number, c: number) => (await cell(r, c)).click();
	async function sweep(from: [number, number], to: [number, number]) {
		const [a, b] = [await cell(...from), await cell(...to)];
		await page.driver
			.actions({ async: true })
			.move({ origin: a, duration: 0 })
			.press()
			.move({ origin: b, duration: 0 })
			.release()
			.perform();
	}
	/** Opens the dialog-free way to a new table, types it in, and leaves the bench open on it. */
	async function make(name: string, texts: string[][], totals = 1) {
		await page.go('/starters/begin');
		await page.fill('Rows', String(texts.length));
		await page.fill('Columns', String(texts[0]!.length));
		await page.fill('Total rows', String(totals));
		await page.fill('Name of the table', name);
		await page.select('Style', await styleId('Season Ledger'));
		await page.click('Make it and work on it');
		await page.css('[data-work-sheet] [role=grid]');
		await page.until('the bench', async () => (await selected()).startsWith('cell, row 1'));
		await page.driver.sleep(300);
		for (const row of texts) for (const text of row) await keys(...(text ? [text] : []), Key.TAB);
		await page.driver.sleep(100);
		await saved();
	}
	const styleId = (name: string) =>
		run<string>(
			`return [...document.querySelector('select[aria-label="Style"]').options].find((one) => one.text === arguments[0]).value`,
			name
		);
	/** What a paste event brings. */
	const paste = (data: Record<string, string>) =>
		run(
			`const data = new DataTransfer(); for (const [type, text] of Object.entries(arguments[0])) data.setData(type, text); (document.querySelector('[data-work-sheet] [role=grid]') ?? document.body).dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))`,
			data
		);

	const ORDER = [
		['Bulb', 'Count', 'Price', 'Cost'],
		['Snowdrop', '120', '€ 0.35', ''],
		['Crocus', '80', '€ 0.40', ''],
		['Aconite', '60', '€ 0.90', ''],
		['Total', '', '', '']
	];

	it('begins a table by its size, and is typed in by keyboard alone', async () => {
		await make('Bulb order', ORDER);
		// Tab in the last cell made a new body row, above the total.
		await isShown('a new row', (all) => all.length === 6);
		assert.deepEqual(await rows(), [...ORDER.slice(0, 4), ['', '', '', ''], ORDER[4]]);
		assert.match(await selected(), /^cell, row 5, “Bulb”, body/);
		await keys('Iris', Key.ENTER, 'blue');
		await chord(Key.CONTROL, Key.ENTER);
		await isShown('two lines', (all) => all[4]![0] === 'Iris/blue');
		assert.match(await selected(), /row 6/);
		await keys(Key.ARROW_UP, Key.F2, ' ones', Key.TAB);
		await isShown('typed on', (all) => all[4]![0] === 'Iris/blue ones');
		await chord(Key.SHIFT, Key.TAB);
		await keys('Scilla', Key.ESCAPE);
		assert.equal((await rows())[4]![0], 'Iris/blue ones', 'Escape drops what was typed');
		assert.deepEqual(
			await run(`return [...document.querySelectorAll('[data-work-sheet] select.kind')].map((one) => one.value)`),
			['text', 'count', 'money', 'text'],
			'kinds follow what is typed'
		);
		await page.isAccessible('the table bench');
		await page.consoleIsClean();
	});

	it('says why a table of no size, or of far too many cells, is not made', async () => {
		await page.go('/starters/begin');
		await page.fill('Rows', '0');
		await page.until('no rows', async () =>
			/at least one row and one column|more header and total rows/.test(await page.text('main'))
		);
		await page.fill('Rows', '1000000');
		await page.until('too many', async () => /larger than what can be worked on by hand/.test(await page.text('main')));
		assert.equal(await (await page.named('Make it and work on it')).isEnabled(), false);
		await page.driver.navigate().back();
		await page.css('[data-work-sheet] [role=grid]');
		await page.driver.sleep(400);
	});

	it('looks otherwise where a cell is selected than where it is typed in, and makes words bold and raised', async () => {
		await pick(2, 1);
		const selectedLook = await run<string>(`return getComputedStyle(document.querySelector('.focus')).outlineColor`);
		await keys('CO');
		const typing = await run<string>(`return getComputedStyle(document.querySelector('[data-editing]')).outlineColor`);
		assert.notEqual(typing, selectedLook);
		assert.equal(await run(`return document.querySelector('.focus')`), null);
		await press('lowered');
		await keys('2');
		await press('lowered');
		await keys(' store ');
		await press('bold');
		await keys('now', Key.TAB);
		await isShown('emphasis', (all) => all[1]![0] === 'CO2 store now');
		assert.equal(
			await run(
				`const cell = document.querySelector('[data-work-sheet] [aria-rowindex="2"] [data-cell]'); return [...cell.querySelectorAll('span')].map((one) => [one.textContent, one.style.verticalAlign, one.style.fontWeight].join()).join('|')`
			),
			'CO,,|2,sub,| store ,,|now,,700'
		);
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await isShown('undone', (all) => all[1]![0] === 'Snowdrop');
	});

	it('selects ranges, rows, columns and what is alike, and says so in words', async () => {
		await sweep([2, 1], [4, 2]);
		assert.equal(await selected(), '3 rows × 2 columns, body');
		const far = await cell(2, 4);
		await page.driver.actions().keyDown(Key.CONTROL).move({ origin: far }).click().keyUp(Key.CONTROL).perform();
		assert.equal(await selected(), '7 cells in 2 ranges, body');
		await keys(Key.ARROW_LEFT);
		await page.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_DOWN, Key.ARROW_DOWN).keyUp(Key.SHIFT).perform();
		assert.match(await selected(), /^3 rows × 1 column, body/);
		await page.driver.actions().keyDown(Key.SHIFT).sendKeys(' ').keyUp(Key.SHIFT).perform();
		assert.equal(await selected(), '3 whole rows, body');
		await page.click(await page.css('[aria-label^="Column 3,"]'));
		assert.equal(await selected(), '1 whole column');
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform();
		assert.match(await selected(), /^the whole table, 6 rows × 4 columns/);
		await pick(1, 2);
		await tab('Shape');
		await press('header rows');
		assert.match(await selected(), /^1 whole row, header/);
		await pick(2, 3);
		await press('money columns');
		assert.equal(await selected(), '1 whole column');
	});

	it('works out rows and totals by name, follows a change, and says where a figure cannot be', async () => {
		await pick(2, 4);
		await tab('Figures');
		await press('Price');
		await press('×');
		await press('Count');
		await press('Take it');
		await isShown('costs', (all) => all[1]![3] === '€ 42.00' && all[2]![3] === '€ 32.00' && all[3]![3] === '€ 54.00');
		await pick(6, 4);
		await page.click(await page.find(By.xpath(`//*[@aria-label='Of its column']//button[normalize-space()='sum']`)));
		await isShown('the total', (all) => all[5]![3] === '€ 128.00');
		await pick(2, 2);
		await keys('200', Key.TAB);
		await isShown('followed', (all) => all[1]![3] === '€ 70.00' && all[5]![3] === '€ 156.00');
		await pick(3, 2);
		await keys('many', Key.TAB);
		await page.until('the reason', async () =>
			/Cost, row 3: “Count” has no number/.test(await page.text('[aria-label="Without a figure"]'))
		);
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await isShown('mended', (all) => all[2]![3] === '€ 32.00');
		// Typing into what is worked out is refused, with the reason.
		await pick(2, 4);
		await keys('9');
		await page.until('refused', async () =>
			/worked out by its column’s formula/.test(await page.text('[aria-live], body'))
		);
		assert.equal((await rows())[1]![3], '€ 70.00');
		// A renamed column stays named in formulas.
		await pick(1, 3);
		await keys('Price each', Key.TAB);
		await pick(2, 4);
		assert.equal(
			await run(`return document.querySelector('[aria-label="Formula of the column"]').value`),
			'Price each × Count'
		);
		await page.fill('Formula of the column', 'Prize × Count');
		await page.until('a fault', async () =>
			/There is no column “Prize”/.test(await page.text('[aria-label="Column"]'))
		);
		await pick(2, 1);
	});

	it('flags a wrong sum with the difference and mends it with one click', async () => {
		await pick(6, 4);
		await press('typed');
		await pick(6, 4);
		await keys('€ 155.00');
		await pick(2, 1);
		await page.until('flagged', async () =>
			/Cost, row 6: off by −€ 1\.00/.test(await page.text('[aria-label="Wrong sums"]'))
		);
		await press('Put € 156.00');
		await isShown('mended', (all) => all[5]![3] === '€ 156.00');
		assert.equal(await run(`return document.querySelector('[aria-label="Wrong sums"]')`), null);
	});

	it('fills, goes on with a series, sorts and keeps totals at the foot', async () => {
		await pick(5, 2);
		await keys('10', Key.TAB);
		await pick(5, 3);
		await keys('€ 0.50', Key.TAB);
		await pick(5, 1);
		await tab('Figures');
		await press('By “Bulb”');
		await press('Sort');
		await isShown(
			'sorted',
			(all) => all.map(([first]) => first).join() === 'Bulb,Aconite,Crocus,Iris/blue ones,Snowdrop,Total'
		);
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await isShown('as before', (all) => all[1]![0] === 'Snowdrop');
		await tab('Shape');
		await pick(2, 4);
		await press('Add after');
		await isShown('a column', (all) => all[0]!.length === 5);
		await pick(2, 5);
		await keys('Bed 7', Key.TAB);
		await sweep([2, 5], [5, 5]);
		await tab('Figures');
		await press('Go on down');
		await isShown(
			'a series',
			(all) =>
				all
					.slice(1, 5)
					.map((row) => row[4])
					.join() === 'Bed 7,Bed 8,Bed 9,Bed 10'
		);
	});

	it('adds, moves, joins, splits and removes; what is not empty is asked about', async () => {
		await sweep([2, 5], [3, 5]);
		await tab('Shape');
		await press('Join into one');
		await isShown('joined', (all) => all[1]![4] === 'Bed 7/Bed 8' && all[2]!.length === 4);
		await pick(4, 1);
		await page.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_UP).keyUp(Key.ALT).perform();
		await page.until('refused in words', async () => /tear a joined cell apart/.test(await page.text('body')));
		assert.equal((await rows())[1]![0], 'Snowdrop');
		await pick(2, 5);
		await page.fill('Rows to split into', '2');
		await page.fill('Columns to split into', '1');
		await press('Split the joined cell into');
		await isShown('split', (all) => all[2]!.length === 5 && all[1]![4] === 'Bed 7/Bed 8' && all[2]![4] === '');
		await pick(2, 1);
		await page.driver.actions().keyDown(Key.ALT).sendKeys(Key.ARROW_DOWN).keyUp(Key.ALT).perform();
		await isShown('moved', (all) => all[2]![0] === 'Snowdrop');
		await press('Remove row');
		await page.until('asked', async () =>
			/holds 5 cells that are not empty/.test(await page.text('[role=dialog], dialog'))
		);
		await press('Keep');
		assert.equal((await rows()).length, 6);
		await page.click(await page.css('[aria-label^="Column 5"]'));
		await press('Remove column');
		await page.click(
			await page.find(By.xpath(`//*[self::dialog or @role='dialog']//button[normalize-space()='Remove column']`))
		);
		await isShown('removed', (all) => all[0]!.length === 4);
		await page.until('the question gone', () =>
			run<boolean>(`return !document.querySelector('dialog[open], [role=dialog]')`)
		);
	});

	it('drags rows to another place and columns to another width; text keeps its size', async () => {
		const first = (await rows())[1]![0];
		const head = await page.css('[data-head=rows][data-line="1"] .head');
		const below = await page.css('[data-head=rows][data-line="4"] .head');
		await page.driver
			.actions({ async: true })
			.move({ origin: head, duration: 0 })
			.press()
			.move({ origin: head, y: 12, duration: 0 })
			.move({ origin: below, y: -4, duration: 30 })
			.release()
			.perform();
		await isShown('dragged', (all) => all[3]![0] === first);
		const width = () =>
			run<number>(`return document.querySelector('[data-head=columns][data-line="0"]').getBoundingClientRect().width`);
		const size = () => page.cellStyle('[data-work-sheet]', 'Crocus', 'fontSize');
		const [before, type] = [await width(), await size()];
		const handle = await page.css('[data-head=columns][data-line="0"] .size');
		await page.driver
			.actions({ async: true })
			.move({ origin: handle, duration: 0 })
			.press()
			.move({ origin: handle, x: 60, duration: 30 })
			.release()
			.perform();
		await page.until('wider', async () => Math.abs((await width()) - before - 60) < 3);
		assert.equal(await size(), type);
		await tab('Shape');
		await pick(2, 1);
		await page.until('its width in words', async () =>
			/mm$/.test(await run<string>(`return document.querySelector('[placeholder="fits content"]').value`))
		);
		await run(
			`const field = document.querySelector('[placeholder="fits content"]'); field.value = '1000 m'; field.dispatchEvent(new Event('input', { bubbles: true })); field.dispatchEvent(new Event('change', { bubbles: true }))`
		);
		await page.until('refused', async () => /is not a length/.test(await page.text('body')));
	});

	it('is shown larger and smaller, in the middle; lines are drawn without moving it', async () => {
		const box = async () => (await cell(2, 1)).getRect();
		const before = await box();
		await page.click(await page.css('[aria-label="Larger"]'));
		await page.until('larger', async () => (await box()).height > before.height * 1.15);
		await page.click('125 %', 'button');
		await page.until('its own size', async () => Math.abs((await box()).height - before.height) < 1);
		const [left, right] = await run<number[]>(
			`const sheet = document.querySelector('[data-work-sheet]').getBoundingClientRect(); const paper = document.querySelector('[data-work-sheet] .paper').getBoundingClientRect(); return [paper.left - sheet.left, sheet.right - paper.right]`
		);
		assert.ok(Math.abs(left! - right!) < 40, `${left} and ${right} beside it`);
		await press('linework');
		await page.css('[aria-label="Edges of the selection"]');
		assert.equal((await box()).y, before.y);
		await press('linework');
	});

	it('touches cells with the property sheet, marks them, copies a look, and promotes touches to the style', async () => {
		const bold = (await rows())[1]![0]!;
		await sweep([2, 1], [3, 1]);
		await tab('Look');
		await page.fill('Text: weight', '700');
		await page.until('bold', async () => (await page.cellStyle('[data-work-sheet]', bold, 'fontWeight')) === '700');
		assert.equal(await run(`return document.querySelectorAll('.mark.touch').length`), 2);
		await pick(3, 1);
		await page.fill('Text: weight', '600');
		await sweep([2, 1], [3, 1]);
		await page.until('mixed', async () => /mixed/.test(await page.text('section[aria-label="Text"]')));
		await press('marks');
		assert.equal(await run(`return document.querySelectorAll('.mark.touch').length`), 0);
		await press('marks');
		await pick(2, 1);
		await press('Copy this look');
		await pick(2, 2);
		await press('Put it on this cell');
		await page.until(
			'a third',
			async () => (await run(`return document.querySelectorAll('.mark.touch').length`)) === 3
		);
		await page.until('the list', async () =>
			/row 2, column 2\s*weight 700/.test(await page.text('[aria-label="All touches"]'))
		);
		await press('Remove touches here');
		await page.until('two', async () => (await run(`return document.querySelectorAll('.mark.touch').length`)) === 2);
		await pick(2, 1);
		await page.select('Which part', 'firstColumn');
		await press('Promote');
		await page.until(
			'promoted',
			async () => (await run(`return document.querySelectorAll('.mark.touch').length`)) === 1
		);
		const first = (await rows())[1]![0]!;
		await page.until(
			'bold by the style',
			async () => (await page.cellStyle('[data-work-sheet]', first, 'fontWeight')) === '700'
		);
		const style = await run<string>(`return document.querySelector('select[aria-label="Style"]').value`);
		await saved();
		const known = await run<{ id: string; definition: { parts: Record<string, { text?: { weight?: number } }> } }[]>(
			`return fetch('/api/styles').then((answer) => answer.json())`
		);
		assert.equal(known.find(({ id }) => id === style)?.definition.parts.firstColumn?.text?.weight, 700);
	});

	it('draws lines with a pen, on purpose none, and gives edges back to the style', async () => {
		await tab('Shape');
		await press('linework');
		await page.css('.edges');
		const edge = async (r: number, c: number) => {
			const box = await (await cell(r, c)).getRect();
			return { x: Math.round(box.x + box.width / 2), y: Math.round(box.y + box.height - 1) };
		};
		const lines = () =>
			run<string[]>(
				`return [...document.querySelectorAll('.edges [data-edge]')].map((one) => one.className.replace(/ ?svelte-\\w+/, '') + ' ' + one.dataset.edge)`
			);
		const [a, b] = [await edge(3, 1), await edge(3, 3)];
		await page.driver
			.actions({ async: true })
			.move({ ...a, duration: 0 })
			.press()
			.move({ x: Math.round((a.x + b.x) / 2), y: a.y, duration: 20 })
			.move({ ...b, duration: 20 })
			.release()
			.perform();
		await page.until('three edges', async () => (await lines()).filter((one) => one.includes('set')).length >= 3);
		await press('none');
		await page.driver
			.actions({ async: true })
			.move({ ...a, duration: 0 })
			.click()
			.perform();
		await page.until('none', async () =>
			(await lines()).some((one) => one.includes('none') && one.endsWith('2,0,bottom'))
		);
		await press('untouched');
		await page.driver
			.actions({ async: true })
			.move({ ...a, duration: 0 })
			.click()
			.perform();
		await page.until('given back', async () => !(await lines()).some((one) => one.endsWith('2,0,bottom')));
		await page.driver.actions().sendKeys(Key.ESCAPE).perform();
		assert.equal(await run(`return document.querySelector('.edges')`), null);
	});

	it('locks cells: what is locked is shown, and refused with the reason', async () => {
		await pick(2, 1);
		await page.click(await page.find(By.xpath(`//*[@aria-label='Lock']//button[normalize-space()='both']`)));
		await page.until('a mark', async () => (await run(`return document.querySelectorAll('.mark.lock').length`)) === 1);
		const before = await rows();
		await keys(Key.DELETE);
		await page.until('refused', async () =>
			/is locked: its content and look stays\. Unlock it first\./.test(await page.text('body'))
		);
		assert.deepEqual(await rows(), before);
		assert.equal(await (await cell(2, 1)).getAttribute('aria-readonly'), 'true');
		assert.match((await (await cell(2, 1)).getAttribute('aria-description')) ?? '', /locked/);
		await page.click(await page.find(By.xpath(`//*[@aria-label='Lock']//button[normalize-space()='nothing']`)));
	});

	it('finds and replaces in the table', async () => {
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('f').keyUp(Key.CONTROL).perform();
		await page.css('[data-find]');
		await page.driver.sleep(150);
		await keys('cro');
		await page.until('one place', async () => /1 cell/.test(await page.text('section[aria-label="Find"]')));
		assert.equal(await run(`return document.querySelectorAll('.mark.lit').length`), 1);
		await page.fill('Text to put in its place', 'Spring cro');
		await press('Replace 1 cell');
		await isShown('replaced', (all) => all.some(([first]) => first === 'Spring crocus'));
	});

	it('pastes cells with spans and emphasis, copies them styled, and says what cannot be pasted', async () => {
		await pick(2, 1);
		await tab('Shape');
		await paste({
			'text/html':
				'<meta><table><tr><td colspan="2">Two <b>as one</b></td><td>x</td></tr><tr><td>1</td><td>2</td></tr></table><script>document.title = "ran"</script>'
		});
		await isShown('pasted', (all) => all[1]![0] === 'Two as one' && all[1]!.length === 3 && all[2]![1] === '2');
		assert.doesNotMatch(await page.driver.getTitle(), /ran/);
		const copied = await run<Record<string, string>>(
			`const data = new DataTransfer(); document.querySelector('[data-work-sheet] [role=grid]').dispatchEvent(new ClipboardEvent('copy', { clipboardData: data, bubbles: true, cancelable: true })); return Object.fromEntries([...data.types].map((type) => [type, data.getData(type)]))`
		);
		assert.match(
			copied['text/html']!,
			/<td colspan="2" style="[^"]*font-family[^"]*">Two <strong>as one<\/strong><\/td>/
		);
		assert.match(copied['text/plain']!, /^Two as one\t\tx\n1\t2\t$/m);
		assert.ok(copied['application/x-heptarch-cells']);
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await isShown('undone', (all) => all[1]!.length === 4);
		// Nested a thousand deep, and spans that overlap: the table stays one.
		await pick(2, 1);
		await paste({
			'text/html': `<table><tr><td>${'<div>'.repeat(20_000)}deep${'</div>'.repeat(20_000)}</td></tr></table>`
		});
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await pick(2, 1);
		await paste({
			'text/html':
				'<table><tr><td rowspan="3">a</td><td>b</td></tr><tr><td colspan="9" rowspan="9">c</td></tr><tr><td>d</td></tr></table>'
		});
		await press('Paste beside it: it stays worked out');
		await isShown('clamped', (all) => all[1]![0] === 'a');
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await paste({});
		await page.until('refused', async () => /clipboard holds no cells and no text/.test(await page.text('body')));
	});

	it('shows what comes and what does not before it is in: several tables, layout tables, plain cells', async () => {
		await pick(2, 1);
		// Two tables that a third one places, a picture in one of them, cells that collide in the other.
		await paste({
			'text/html':
				'<table><tr><td><table><caption>Pots</caption><tr><td>Lily</td><td>3 <img src="x.png"></td></tr></table></td><td><table><tr><td colspan="2">wide</td><td rowspan="2">tall</td></tr><tr><td>a</td><td colspan="2">b</td></tr></table></td></tr></table>'
		});
		await page.css('dialog[open] [data-arriving]');
		assert.deepEqual(
			await run<string[]>(
				`return [...document.querySelectorAll('dialog[open] [role=option] strong')].map((one) => one.textContent)`
			),
			['Pots', 'wide']
		);
		assert.match(await page.text('dialog[open]'), /1 picture does not come along/);
		await page.isAccessible('what is pasted');
		await page.click(await page.find(By.xpath(`//dialog//*[@role='option'][contains(., 'wide')]`)));
		await page.click('plain cells, nothing joined');
		await page.click('Paste 6 cells here');
		await isShown('plain', (all) => all[1]![0] === 'wide' && all[1]![1] === '' && all[2]![1] === 'b');
		await page.driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
		await isShown('as it was', (all) => all[1]![0] !== 'wide');
	});

	it('takes a picture with words for it, and refuses what is none', async () => {
		const picture = join(folder, 'leaf.svg');
		writeFileSync(
			picture,
			'<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30" onload="alert(1)"><script>alert(1)</script><rect width="40" height="30" fill="#2F5D50"/></svg>'
		);
		const fake = join(folder, 'fake.png');
		writeFileSync(fake, 'no picture at all');
		await pick(2, 1);
		await tab('Shape');
		await page.chooseFiles('A picture for the cell', fake);
		await page.until('refused', async () => /“fake.png” is no PNG, JPEG or SVG/.test(await page.text('body')));
		await page.chooseFiles('A picture for the cell', picture);
		await page.fill('What the picture shows', 'A leaf');
		await press('Put it in');
		await page.until(
			'in',
			async () => (await run(`return document.querySelector('[data-work-sheet] img')?.alt`)) === 'A leaf'
		);
		assert.doesNotMatch(
			await run<string>(`return atob(document.querySelector('[data-work-sheet] img').src.split(',')[1])`),
			/script|onload/
		);
		await saved();
	});

	it('keeps a named list of steps, across a reload, and what was being typed', async () => {
		await pick(3, 1);
		await keys('half a wo');
		await page.driver.sleep(150);
		const before = await rows();
		await page.driver.navigate().refresh();
		await page.css('[data-editing]');
		assert.equal(await page.text('[data-editing]'), 'half a wo');
		await keys(Key.ESCAPE);
		assert.deepEqual((await rows())[0], before[0]);
		await tab('Steps');
		await page.until('steps', async () =>
			/picture in row 2, column 1[\s\S]*cost|Cost is Price each × Count|as it was/.test(
				await page.text('section[aria-label="Steps"]')
			)
		);
		const steps = await run<number>(`return document.querySelectorAll('section[aria-label="Steps"] li').length`);
		assert.ok(steps > 25, `${steps} steps`);
		await page.click(
			await page.find(By.xpath(`//section[@aria-label='Steps']//button[normalize-space()='as it was']`))
		);
		await isShown('the beginning', (all) => all.flat().every((text) => text === ''));
		await page.click(await page.find(By.xpath(`(//section[@aria-label='Steps']//button)[1]`)));
		await isShown('the end again', (all) => all[0]![0] === 'Bulb');
		await saved();
		await page.consoleIsClean();
	});

	it('goes out in a house style with what it holds, as a table file with everything', async () => {
		await press('Take the file…');
		await page.css('[role=dialog], dialog');
		await page.until('ready', async () => /Take/.test(await page.text('[role=dialog], dialog')));
		const id = await run<string>(`return location.pathname.split('/')[2]`);
		const take = async (as: string) =>
			new Uint8Array(
				await run<number[]>(
					`return fetch('/api/documents/' + arguments[0] + '/file?as=' + arguments[1]).then((answer) => answer.arrayBuffer()).then((bytes) => [...new Uint8Array(bytes)])`,
					id,
					as
				)
			);
		for (const as of ['docx', 'odt', 'html', 'json']) {
			const document = await openDocument(await take(as), `x.${as}`);
			assert.ok(
				document.tables[0]!.table.cells.some(({ text }) => text === 'Spring crocus'),
				as
			);
			assert.ok(
				document.styles.some(({ name }) => name.startsWith('Season Ledger')),
				as
			);
		}
		const file = await openDocument(await take('json'), 'x.table.json');
		assert.ok(file.tables[0]!.work?.columns.some(({ formula }) => formula));
		assert.equal(new TextDecoder().decode((await take('pdf')).slice(0, 5)), '%PDF-');
	});

	it('keeps starters and places them in a document, where they are put', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//a[normalize-space()='Bulb order']`)));
		await page.click('Work on it');
		await page.css('[data-work-sheet] [role=grid]');
		await press('Keep as starter…');
		await page.fill('Name of the starter', 'Order form');
		await page.fill('Category', 'Orders');
		await press('Keep it');
		await page.until('kept', async () => /“Order form” is kept/.test(await page.text('body')));
		await page.go('/starters');
		await page.until('listed', async () =>
			/Orders[\s\S]*Order form[\s\S]*follows Season Ledger · placed 0 times/.test(await page.text('main'))
		);
		await page.isAccessible('the starters');
		await page.click('Place it…');
		await page.css('[aria-label="Where it goes"]');
		await page.click(await page.find(By.xpath(`//label[contains(., 'with what its body says')]`)));
		await page.select(
			'Where it goes',
			await run<string>(
				`return [...document.querySelector('[aria-label="Where it goes"]').options].find((one) => one.text === 'into Season report 2031').value`
			)
		);
		await page.css('[aria-label="After what"]');
		await page.click(
			await page.find(By.xpath(`(//fieldset[@aria-label='After what']//label[contains(., 'Visitors by month')])[1]`))
		);
		await page.isAccessible('beginning a table');
		await press('Put it in and work on it');
		await page.css('[data-work-sheet] [role=grid]');
		await isShown('without its body', (all) => all[0]![0] === 'Bulb' && !all.flat().includes('Spring crocus'));
		const { id, table } = await run<{ id: string; table: number }>(
			`return { id: location.pathname.split('/')[2], table: Number(new URL(location.href).searchParams.get('table')) }`
		);
		await pick(2, 1);
		await keys('Tulip', Key.TAB, '3', Key.TAB);
		await saved();
		const bytes = new Uint8Array(
			await run<number[]>(
				`return fetch('/api/documents/' + arguments[0] + '/file').then((answer) => answer.arrayBuffer()).then((bytes) => [...new Uint8Array(bytes)])`,
				id
			)
		);
		const document = await openDocument(bytes, 'report.docx');
		assert.equal(document.tables.length, 10);
		assert.ok(document.tables[table]!.table.cells.some(({ text }) => text === 'Tulip'));
		await press('Take the file…');
		await page.until('accounted for', async () => /of 10 tables change/.test(await page.text('[role=dialog], dialog')));
		await keys(Key.ESCAPE);
		await page.go('/starters');
		await page.until('counted', async () => /placed once/.test(await page.text('main')));
	});

	it('works on a table of a document, which comes back with nothing else changed', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//a[contains(., 'Season report 2031, web page')]`)));
		await page.click('Work on it');
		await page.css('[data-work-sheet] [role=grid]');
		const before = await rows();
		await pick(2, 1);
		await tab('Shape');
		await press('Add below');
		await keys('Leap day', Key.TAB, '1', Key.TAB);
		await isShown('a row more', (all) => all.length === before.length + 1 && all[2]![0] === 'Leap day');
		await saved();
		const id = await run<string>(`return location.pathname.split('/')[2]`);
		const [was, is] = await run<[string, string]>(
			`const take = (path) => fetch(path).then((answer) => answer.text()); return Promise.all([take('/api/documents/' + arguments[0] + '/file?as=html'), take('/api/documents/' + arguments[0] + '/file')])`,
			id
		);
		assert.match(is, /Leap day/);
		assert.ok(was);
		await page.click('Back to the document');
		await page.until('in the document', async () => /Leap day/.test(await page.text('main')));
		await page.click('Undo');
		await page.until('taken back whole', async () => !/Leap day/.test(await page.text('main')));
	});

	it('takes a table out of its document after asking, and undo brings it back', async () => {
		const count = async () => Number(/(\d+) tables/.exec(await page.text('header'))![1]);
		const before = await count();
		const first = await run<string>(`return document.querySelector('#table-0').textContent`);
		await press('Take it out…');
		await page.until('asked', async () => /Its rows go/.test(await page.text('[role=dialog], dialog')));
		await press('Keep it');
		assert.equal(await count(), before);
		await press('Take it out…');
		await press('Take it out');
		await page.until('out', async () => (await count()) === before - 1);
		assert.notEqual(await run(`return document.querySelector('#table-0').textContent`), first);
		await page.click('Undo');
		await page.until('back', async () => (await count()) === before);
		assert.equal(await run(`return document.querySelector('#table-0').textContent`), first);
		await page.consoleIsClean();
	});

	/** Opens the same table in another window, which is worked in from then on; the first one. */
	async function another(): Promise<string> {
		const address = await page.driver.getCurrentUrl();
		const mine = await page.driver.getWindowHandle();
		await page.driver.switchTo().newWindow('window');
		await page.driver.get(address);
		await page.css('[data-work-sheet] [role=grid]');
		await page.driver.sleep(500);
		return mine;
	}

	it('lets two people see each other’s changes, and overwrites nothing silently', async () => {
		await make('Shared', [
			['Bed', 'Plants'],
			['North', '1'],
			['South', '2'],
			['Total', '']
		]);
		const mine = await another();
		await pick(2, 2);
		await keys('10', Key.TAB);
		await saved();
		const theirs = await page.driver.getWindowHandle();
		await page.driver.switchTo().window(mine);
		await isShown('their change', (all) => all[1]![1] === '10');
		// Both change the same row, and one has not looked what the other did: that one is asked.
		// What is typed here is sent once it is all there, so that both changes are made at once.
		await run(
			`window.__fetch = window.fetch; window.__typed = new Promise((typed) => { window.__isTyped = typed }); window.fetch = (path, options) => /[?]after=/.test(path) ? new Promise(() => {}) : options?.method === 'POST' ? window.__typed.then(() => window.__fetch(path, options)) : window.__fetch(path, options)`
		);
		await page.driver.switchTo().window(theirs);
		await pick(3, 2);
		await keys('20', Key.TAB);
		await saved();
		await page.driver.switchTo().window(mine);
		// Another cell of that row goes together with theirs; the same cell is asked about, with both values.
		await pick(3, 1);
		await keys('Southern', Key.TAB, '30', Key.TAB);
		await run(`window.__isTyped()`);
		await page.until('asked', async () =>
			/Another window of yours changed the same cell;[^]*row 3, column 2: theirs “20”, yours “30”/.test(
				await page.text('body')
			)
		);
		await isShown('theirs meanwhile', (all) => all[2]![1] === '20' && all[2]![0] === 'Southern');
		// Typing goes on while it is not decided.
		await pick(2, 1);
		await keys('Northern', Key.TAB);
		await isShown('typed meanwhile', (all) => all[1]![0] === 'Northern');
		await press('Put mine instead');
		await isShown('mine', (all) => all[2]![1] === '30' && all[2]![0] === 'Southern' && all[1]![0] === 'Northern');
		await tab('Steps');
		assert.match(await page.text('section[aria-label="Steps"]'), /yours, instead of the change in another window/);
		await run(`window.fetch = window.__fetch`);
		await saved();
		await page.driver.switchTo().window(theirs);
		await page.driver.close();
		await page.driver.switchTo().window(mine);
	});

	it('a cell that somebody changes while it is typed in is asked about, and typing stays in its row', async () => {
		await make('At once', [
			['Bed', 'Plants'],
			['North', '1'],
			['South', '2'],
			['Total', '']
		]);
		const mine = await another();
		const theirs = await page.driver.getWindowHandle();
		await page.driver.switchTo().window(mine);
		await pick(3, 2);
		await keys('30');
		await page.css('[data-editing]');
		// A row comes in above, and the cell gets another figure.
		await page.driver.switchTo().window(theirs);
		await pick(2, 1);
		await tab('Shape');
		await press('Add above');
		await isShown('a row', (all) => all[1]![0] === '' && all[3]![0] === 'South');
		await pick(4, 2);
		await keys('20', Key.TAB);
		await saved();
		await page.driver.switchTo().window(mine);
		await isShown('both changes, typing on', (all) => all[1]![0] === '' && all[2]![0] === 'North');
		assert.equal(await page.text('[data-editing]'), '30');
		await keys(Key.TAB);
		await page.until('asked', async () => /row 4, column 2: theirs “20”, yours “30”/.test(await page.text('body')));
		await press('Put mine instead');
		await isShown('mine', (all) => all[3]![1] === '30' && all[3]![0] === 'South');
		await saved();
		await page.driver.switchTo().window(theirs);
		await page.driver.close();
		await page.driver.switchTo().window(mine);
	});

	it('a change that the server will not have is told and gone; what was done after it stands', async () => {
		await make('Refused', [
			['Bed', 'Plants'],
			['North', '1'],
			['South', '2']
		]);
		await run(
			`window.__fetch = window.fetch; window.fetch = (path, options) => { if (options?.method !== 'POST') return window.__fetch(path, options); window.fetch = window.__fetch; return window.__fetch(path, { ...options, body: options.body.replace('"text":"Far"', '"text":7') }) }`
		);
		await pick(2, 1);
		await keys('Far', Key.TAB);
		await pick(3, 1);
		await keys('Near', Key.TAB);
		await page.until('told', async () => /Not kept: /.test(await page.text('body')));
		await isShown('without it', (all) => all[1]![0] === 'North' && all[2]![0] === 'Near');
		await saved();
		await page.driver.navigate().refresh();
		await isShown('on the server', (all) => all[1]![0] === 'North' && all[2]![0] === 'Near');
		await page.driver.manage().logs().get('browser');
	});

	it('tells when nothing can be saved, and saves it all once it can', async () => {
		await run(`window.__fetch = window.fetch; window.fetch = () => Promise.reject(new TypeError('offline'))`);
		await pick(2, 1);
		await keys('kept here', Key.TAB, '5', Key.TAB);
		await page.until('said', async () => /wait in this browser/.test(await page.text('body')));
		assert.ok((await run<string[]>(`return Object.keys(localStorage)`)).some((key) => key.startsWith('heptarch:')));
		await run(`window.fetch = window.__fetch`);
		await saved();
		await page.driver.navigate().refresh();
		await isShown('there', (all) => all[1]![0] === 'kept here');
	});

	it('goes onto a drawing, and is worked on from there', async () => {
		await page.go('/starters/begin');
		await page.fill('Rows', '3');
		await page.fill('Columns', '2');
		await page.fill('Name of the table', 'Soil');
		await page.select(
			'Where it goes',
			await run<string>(
				`return [...document.querySelector('[aria-label="Where it goes"]').options].find((one) => one.text.startsWith('into Path lighting')).value`
			)
		);
		await page.until('chosen', async () => /A table for Path lighting/.test(await page.text('header')));
		await press('Put it in and work on it');
		await page.css('[data-work-sheet] [role=grid]');
		await page.driver.sleep(300);
		await keys('Soil', Key.TAB, 'Depth', Key.TAB, 'Loam', Key.TAB, '30 cm', Key.TAB);
		await saved();
		await page.click('Back to the document');
		await page.until('on the sheet', () =>
			run<boolean>(
				`const tree = document.querySelector('[data-sheet] > div > div')?.shadowRoot; return /Loam/.test(tree?.lastElementChild?.textContent ?? '')`
			)
		);
		const id = await run<string>(`return location.pathname.split('/')[2]`);
		const drawing = await run<string>(
			`return fetch('/api/documents/' + arguments[0] + '/file').then((answer) => answer.text())`,
			id
		);
		const again = await openDocument(new TextEncoder().encode(drawing), 'a.svg');
		assert.ok(again.tables.some(({ work }) => work?.rows.length === 4 || work?.rows.length === 3));
		assert.match(drawing, />Loam</);
	});

	it('is answered by the server in words where a change does not fit', async () => {
		const id = await run<string>(`return location.pathname.split('/')[2]`);
		const answer = await run<{ status: number; message: string }>(
			`return fetch('/api/documents/' + arguments[0] + '/tables/0/work', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ after: null, label: 'x', patch: { rows: [{ id: 1, role: 'king', cells: [] }] } }) }).then(async (answer) => ({ status: answer.status, message: (await answer.json()).error.message }))`,
			id
		);
		assert.equal(answer.status, 422);
		assert.match(answer.message, /not a valid change of a table/);
	});
});
