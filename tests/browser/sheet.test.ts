import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { lighting } from '../../demo/drawings/index.ts';
import { DEMO_STYLES } from '../../demo/styles/index.ts';
import { FIRST_HOUSE } from '../../src/lib/core/house.ts';
import { MM } from '../../src/lib/core/layout/plotted.ts';
import { marksOf } from '../../src/lib/core/layout/marks.ts';
import { prepare } from '../../src/lib/formats/job.ts';
import { readDocx } from '../../src/lib/formats/docx/read.ts';
import { readSvg, withEdits } from '../../src/lib/formats/svg/read.ts';
import { dressedAs, drawOn } from '../../src/lib/formats/svg/write.ts';
import { By, Key, Page } from './support.ts';

const text = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

describe('the sheet view', () => {
	let page: Page;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-sheets-'));
	before(async () => {
		page = await Page.open('demo');
	});
	after(async () => {
		rmSync(folder, { recursive: true, force: true });
		await page.close();
	});

	const press = async (label: string) =>
		page.click(await page.find(By.xpath(`//button[normalize-space()=${JSON.stringify(label)}]`)));
	const tab = async (label: string) =>
		page.click(
			await page.find(By.xpath(`//button[@role='tab'][contains(normalize-space(), ${JSON.stringify(label)})]`))
		);
	const panel = () => page.text('aside[aria-label="Drawing"]');
	/** Something inside the drawing's own tree. */
	const inDrawing = <T>(expression: string, ...given: unknown[]) =>
		page.driver.executeScript<T>(
			`const tree = document.querySelector('[data-sheet] > div > div').shadowRoot; const [drawing] = tree.children; const tables = tree.lastElementChild; return ${expression};`,
			...given
		);
	async function open(name: string) {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//a[contains(normalize-space(), ${JSON.stringify(name)})]`)));
		await page.until('the drawing', () => inDrawing<boolean>(`drawing?.querySelectorAll('[data-object]').length > 0`));
	}
	/** Where a place of the sheet, in millimetres, is in the window. */
	const onScreen = (x: number, y: number) =>
		inDrawing<{ x: number; y: number }>(
			`(() => { const box = drawing.getBoundingClientRect(); const [width, height] = arguments[2]; return { x: Math.round(box.left + (arguments[0] / width) * box.width), y: Math.round(box.top + (arguments[1] / height) * box.height) }; })()`,
			x,
			y,
			[420, 297]
		);
	async function clickAt(x: number, y: number) {
		const to = await onScreen(x, y);
		await page.driver
			.actions({ async: true })
			.move({ ...to, duration: 0 })
			.click()
			.perform();
	}
	async function drag(from: [number, number], to: [number, number]) {
		const [a, b] = [await onScreen(...from), await onScreen(...to)];
		const half = { x: Math.round((a.x + b.x) / 2), y: Math.round((a.y + b.y) / 2) };
		const quick = { duration: 0 };
		await page.driver
			.actions({ async: true })
			.move({ ...a, ...quick })
			.press()
			.move({ ...half, ...quick })
			.move({ ...b, ...quick })
			.release()
			.perform();
	}
	const tableText = (title: string) =>
		inDrawing<string>(
			`[...tables.querySelectorAll('.heptarch-table')].find((group) => group.getAttribute('aria-label') === arguments[0])?.textContent ?? ''`,
			title
		);
	const box = (title: string) =>
		inDrawing<{ x: number; y: number; width: number; height: number }>(
			`(() => { const group = [...tables.querySelectorAll('.heptarch-table')].find((one) => one.getAttribute('aria-label') === arguments[0]); const all = [...group.querySelectorAll('rect, text')].map((one) => one.getBoundingClientRect()); const sheet = drawing.getBoundingClientRect(); const scale = 420 / sheet.width; const left = Math.min(...all.map((r) => r.left)); const top = Math.min(...all.map((r) => r.top)); return { x: (left - sheet.left) * scale, y: (top - sheet.top) * scale, width: (Math.max(...all.map((r) => r.right)) - left) * scale, height: (Math.max(...all.map((r) => r.bottom)) - top) * scale }; })()`,
			title
		);

	it('opens a drawing with its objects, layers, ruler and tables; nothing in it runs', async () => {
		await open('Fern bed, planting plan');
		assert.match(await page.text('main'), /Objects · 174[\s\S]*Matteuccia struthiopteris\s+9/);
		assert.match(await page.text('header'), /420 × 297 mm · 1:50[\s\S]*6 changes behind/);
		assert.match(
			await page.text('[aria-label="Schedules that are behind the drawing"]'),
			/Ma · No\.\s+7 → 9[\s\S]*Adiantum venustum\s+gone/
		);
		assert.ok(await inDrawing<boolean>(`drawing.querySelector('script, foreignObject') === null`));
		await tab('Layers');
		await page.click(await page.find(By.xpath("//label[contains(., 'Plants')]")));
		await page.until('plants hidden', () =>
			inDrawing<boolean>(
				`getComputedStyle(drawing.querySelector('[data-object="0"]')).display === 'inline' && drawing.querySelector('[data-object="0"]').closest('[data-shown-layer]').style.display === 'none'`
			)
		);
		await page.click(await page.find(By.xpath("//label[contains(., 'Plants')]")));
		await page.isAccessible('the sheet view');
		await page.consoleIsClean();
	});

	it('zooms to the pointer, pans, fits the sheet and a table', async () => {
		const before = await onScreen(100, 100);
		await page.driver.executeScript(
			`document.querySelector('[data-sheet]').dispatchEvent(new WheelEvent('wheel', { deltaY: -400, clientX: arguments[0], clientY: arguments[1], bubbles: true, cancelable: true }))`,
			before.x,
			before.y
		);
		await page.until('larger', async () => Number.parseInt(await page.text('footer span.tabular-nums')) > 90);
		const after = await onScreen(100, 100);
		assert.ok(
			Math.abs(after.x - before.x) <= 2 && Math.abs(after.y - before.y) <= 2,
			'what the pointer is at stays there'
		);
		await drag([100, 100], [120, 110]);
		const moved = await onScreen(100, 100);
		assert.ok(Math.abs(moved.x - after.x) > 20, `panned by ${moved.x - after.x}`);
		await page.key('0');
		await page.until('whole', async () => Number.parseInt(await page.text('footer span.tabular-nums')) < 70);
	});

	it('kinds light up; a clicked object says what it is and which rows it feeds', async () => {
		await tab('Objects');
		await page.click('Osmunda regalis', 'button');
		await page.css('path[data-lit="os"]');
		const [x, y] = await page.driver.executeAsyncScript<[number, number]>(
			`const done = arguments[arguments.length - 1]; fetch(location.pathname.replace('/documents/', '/api/drawings/').replace('/sheet', '/objects')).then((r) => r.json()).then((o) => { const i = o.kind.indexOf(o.kinds.indexOf('os')); done([o.x[i], o.y[i]]); });`
		);
		await clickAt(x, y);
		await page.until('the object', async () => /Osmunda regalis[\s\S]*supplier[\s\S]*stands at/.test(await panel()));
		assert.match(await panel(), /Planting schedule: Os · Osmunda regalis/);
	});

	it('re-read: changes are shown cell by cell, some are accepted, then all; undone again', async () => {
		await page.key(Key.ESCAPE);
		await page.click(
			await page.find(
				By.xpath("//section[contains(@aria-label, 'behind the drawing')]//button[normalize-space()='Look at it']")
			)
		);
		await tab('Behind');
		assert.match(
			await panel(),
			/Ma · Matteuccia struthiopteris · No\.\s+7 → 9[\s\S]*Pv · Polypodium vulgare is new[\s\S]*Av · Adiantum venustum is gone/
		);
		await page.click(await page.find(By.xpath("//label[contains(., 'Adiantum')]//input")));
		await press('Accept 3 of 4');
		await page.until('accepted', async () => /Polypodium/.test(await tableText('Planting schedule')));
		assert.match(await tableText('Planting schedule'), /Adiantum/);
		assert.match(await page.text('header'), /3 changes behind/);
		// Some of the changes only: its total is not that of the rows that it shows.
		assert.match(await panel(), /total is off by \d+: only some of its changes were accepted/);
		await press('Accept 3 changes');
		await page.until('all accepted', async () => !/Adiantum/.test(await tableText('Planting schedule')));
		assert.doesNotMatch(await panel(), /is off by/);
		assert.match(await tableText('Legend'), /Polypody/);
		assert.ok(await inDrawing<boolean>(`tables.querySelectorAll('use').length === 13`), 'a symbol for each kind');
		await page.chord(Key.CONTROL, 'z');
		await page.until('undone', async () => /Adiantum/.test(await tableText('Planting schedule')));
		await page.chord(Key.CONTROL, Key.SHIFT, 'z');
		await page.until('redone', async () => !/Adiantum/.test(await tableText('Planting schedule')));
		await page.go('/documents');
		assert.ok(!/behind the drawing/.test(await page.text('main')));
	});

	it('a table moves and snaps, grows by its columns, plots larger, reads upwards', async () => {
		await open('Fern bed, planting plan');
		const start = await box('Revisions');
		await clickAt(start.x + 20, start.y + 8);
		await page.until('picked', async () => /^← All[\s\S]*Revisions/.test(await panel()));
		assert.match(await page.text('footer'), /Text plots at 1\.96 mm/);
		// Near the frame's left edge, 10 mm from the sheet's: it snaps to it.
		await drag([start.x + 20, start.y + 8], [start.x + 20 - (start.x - 11), start.y + 8 - 20]);
		await page.until('snapped', async () => Math.abs((await box('Revisions')).x - 10) < 0.15);
		const { y } = await box('Revisions');
		assert.ok(y < start.y - 15, `${y} of ${start.y}`);
		await tab('Place');
		await page.fill('Width of What changed in millimetres; empty: as wide as its content', '60');
		await page.until('wider', async () => (await box('Revisions')).width > start.width + 15);
		await page.select('Height of capitals', '3.5');
		await page.until('larger', async () => /Text plots at 3\.5 mm/.test(await page.text('footer')));
		const header = () =>
			inDrawing<number>(
				`[...tables.querySelectorAll('.heptarch-table')].at(-1).querySelector('.header-1 rect').getBoundingClientRect().top - [...tables.querySelectorAll('.heptarch-table')].at(-1).querySelector('.body rect').getBoundingClientRect().top`
			);
		assert.ok((await header()) > 0, 'the header stands at the foot');
		await press('downwards from its header');
		await page.until('turned', async () => (await header()) < 0);
		for (let i = 0; i < 4; i++) await page.chord(Key.CONTROL, 'z');
		await page.until('as it was', async () => Math.abs((await box('Revisions')).width - start.width) < 0.5);
	});

	it('a revision is added at the end that grows', async () => {
		await page.key(Key.ESCAPE);
		await tab('Tables');
		await press('Add a revision…');
		await page.until(
			'the next letter',
			async () =>
				(await (await page.find(By.xpath("//label[contains(., 'Number')]//input"))).getAttribute('value')) === 'D'
		);
		await (await page.find(By.xpath("//label[contains(., 'What changed')]//input"))).sendKeys('Path widened');
		await (await page.find(By.xpath("//label[contains(., 'By whom')]//input"))).sendKeys('LT');
		const before = await box('Revisions');
		await press('Add revision D');
		await page.until('in', async () => /D.*Path widened.*LT/s.test(await tableText('Revisions')));
		const after = await box('Revisions');
		assert.ok(after.y < before.y - 3, 'it grew upwards');
		assert.ok(Math.abs(after.y + after.height - before.y - before.height) < 0.3, 'from its foot');
	});

	it('a schedule is made of chosen kinds: columns, order, groups, filter, formula; placed by the pointer', async () => {
		await open('Path lighting');
		await page.click('Path lantern', 'button');
		await page.click('Low bollard', 'button');
		await press('Make a schedule of these 2 kinds…');
		await page.until('a proposal', async () => /New; it stands nowhere yet/.test(await panel()));
		await page.until('drawn', () => inDrawing<boolean>(`tables.querySelector('[data-draft]') !== null`));
		const draft = () => inDrawing<string>(`tables.querySelector('[data-draft]')?.textContent ?? ''`);
		const title = await page.find(By.xpath("//label[contains(., 'Title')]//input"));
		await title.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Lanterns and bollards', Key.TAB);
		await page.until('titled', async () => /Lanterns and bollards/.test(await draft()));
		// Height goes, the load is summed, what it costs is worked out.
		await page.click('Height', 'button[@aria-expanded]');
		await press('Take out');
		await page.until('without height', async () => !/3\.2 m/.test(await draft()));
		await page.select('Add a column', 'sum:watt');
		await page.until('summed', async () => /144 W/.test(await draft()));
		await page.select('Add a column', 'computed');
		await page.select('Column or number', ':No.');
		await page.fill('Number', '12.5');
		await page.until('worked out', async () => /100(?!\d)/.test(await draft()));
		await page.select('Grouped by', 'Circuit');
		await press('subtotals');
		await press('total');
		await page.until('grouped', async () => /Circuit C1[\s\S]*Subtotal[\s\S]*Total/.test(await draft()));
		await press('Only objects that…');
		await page.select('What it is about', 'column:Circuit');
		await page.select('How it compares', '=');
		await page.fill('Value', 'C1');
		await page.until(
			'only one circuit',
			async () => /Circuit C1/.test(await draft()) && !/Circuit C2/.test(await draft())
		);
		await press('Place it on the sheet…');
		const at = await onScreen(60, 240);
		await page.driver
			.actions({ async: true })
			.move({ ...at, duration: 0 })
			.perform();
		await page.driver
			.actions({ async: true })
			.move({ x: at.x + 3, y: at.y, duration: 0 })
			.perform();
		await page.until('at the pointer', () =>
			inDrawing<boolean>(`tables.style.pointerEvents === 'none' && tables.style.transform !== ''`)
		);
		await page.driver.actions({ async: true }).click().perform();
		await page.until('placed', async () => /Circuit C1/.test(await tableText('Lanterns and bollards')));
		const placed = await box('Lanterns and bollards');
		assert.ok(Math.abs(placed.x + placed.width - 61.5) < 2.5 && Math.abs(placed.y - 240) < 2.5, JSON.stringify(placed));
		assert.match(await page.text('header'), /2 tables/);
	});

	it('hand-typed cells stay with their rows, styles are chosen by looking, a heading runs upwards', async () => {
		await page.select('Add a column', 'typed');
		await page.until('a column', () => inDrawing<boolean>(`/Remark/.test(tables.textContent)`));
		await press('heading upwards');
		await page.until('turned', () =>
			inDrawing<boolean>(
				`[...tables.querySelectorAll('text')].some((one) => /rotate\\(270/.test(one.getAttribute('transform') ?? '') && one.textContent === 'Remark')`
			)
		);
		await press('Keep these rows');
		await page.until('kept', async () => /Put it in other drawings, too…/.test(await panel()));
		await tab('Cells');
		await page.fill('Remark, row 1', 'on order');
		await page.until('typed', async () => /on order/.test(await tableText('Lanterns and bollards')));
		await tab('Look');
		const fill = () =>
			inDrawing<string>(
				`(() => { const group = [...tables.querySelectorAll('.heptarch-table')].at(-1); return getComputedStyle(group.querySelector('.header-1 rect')).fill; })()`
			);
		const before = await fill();
		await page.click('Beacon', 'button[@role="option"]');
		await page.until('restyled', async () => (await fill()) !== before);
		assert.equal(await fill(), 'rgb(109, 46, 91)');
		await page.isAccessible('a table of the sheet');
	});

	it('what is typed stays with a column that is renamed, and with a row that was left out for a while', async () => {
		await tab('Rows');
		const typed = () => tableText('Lanterns and bollards');
		await page.click('Remark', 'button[@aria-expanded]');
		await page.fill('Name of the column', 'State');
		await page.until('renamed', async () => /State/.test(await typed()));
		assert.match(await typed(), /on order/);
		// Nothing is listed for a moment, and then everything again.
		await page.fill('Value', 'nowhere');
		await page.until('nothing listed', async () => !/on order/.test(await typed()));
		await page.fill('Value', 'C1');
		await page.until('listed again', async () => /on order/.test(await typed()));
		await page.select('Kind of the column', 'code');
		await press('Keep these rows');
		await page.until('kept', async () => /Put it in other drawings, too…/.test(await panel()));
		assert.match(await typed(), /State[\s\S]*on order/);
	});

	it('a text written over what the drawing says stays, and is shown as such', async () => {
		await tab('Cells');
		await page.fill('Mount, row 1', 'on a wall');
		await page.until(
			'written over',
			async () =>
				/on a wall/.test(await tableText('Lanterns and bollards')) && /written over “on a post”/.test(await panel())
		);
		await tab('Behind');
		assert.match(await panel(), /The table says what the drawing says/);
	});

	it('an object’s attribute is changed here, and the schedule says so', async () => {
		await page.key(Key.ESCAPE);
		await page.key(Key.ESCAPE);
		await tab('Objects');
		const [x, y] = await page.driver.executeAsyncScript<[number, number]>(
			`const done = arguments[arguments.length - 1]; fetch(location.pathname.replace('/documents/', '/api/drawings/').replace('/sheet', '/objects')).then((r) => r.json()).then((o) => { const i = o.keys.indexOf('#L-02'); done([o.x[i], o.y[i]]); });`
		);
		await clickAt(x, y);
		await page.until('the lamp', async () => /L-02/.test(await panel()));
		const clicked = () => page.text('[aria-label="The clicked object"] h3');
		await press('Next of its kind');
		await page.until('another', async () => /L-04/.test(await clicked()));
		await press('Previous');
		await page.until('back', async () => /L-02/.test(await clicked()));
		await page.fill('watt of this object', '20 W');
		await page.until('behind', async () => /changes behind/.test(await page.text('header')));
	});

	it('the drawing goes out: its tables in it, all else as it was; as PDF; a table alone', async () => {
		await press('Take the drawing…');
		await page.until('read back', async () => /what was intended/.test(await page.text('[role=dialog], dialog')));
		await page.click(await page.find(By.xpath("//a[@download][normalize-space()='Take the file']")));
		const { bytes } = await page.download();
		const drawing = readSvg(bytes);
		assert.deepEqual(
			drawing.placed.map(({ id }) => id),
			['lamp-schedule', 'table-2']
		);
		assert.match(text(bytes), /id="L-02"[^>]*data-watt="20 W"/);
		const original = text(await lighting());
		const bare = (whole: string) =>
			whole.replace(/<g id="(lamp-schedule|table-2)" class="heptarch-table"[\s\S]*?\n<\/g>\n<\/g>\n/g, '');
		assert.equal(bare(text(bytes)).replace('data-watt="20 W"', 'data-watt="9 W"'), bare(original));
		for (const [format, alone] of [
			['pdf', false],
			['docx', true]
		] as const) {
			await press('Take the drawing…');
			await page.select('Format to take it in', format);
			if (alone) await page.click(await page.find(By.xpath("//label[contains(., 'only table 1')]//input")));
			await page.until('written', async () => /house style/.test(await page.text('[role=dialog], dialog')));
			const link = await page.find(By.xpath("//a[@download][normalize-space()='Take the file']"));
			await page.until('ready', async () => (await link.getAttribute('aria-disabled')) !== 'true');
			await page.click(link);
			const taken = await page.download();
			if (format === 'pdf') assert.match(text(taken.bytes.slice(0, 5)), /%PDF/);
			else assert.ok((await readDocx(taken.bytes)).tables[0]!.table.cells.some((cell) => cell.text === 'Subtotal'));
		}
	});

	it('a newer file takes its place; several drawings are read again in a run', async () => {
		const newer = join(folder, 'Path lighting 2.svg');
		writeFileSync(
			newer,
			text(await lighting())
				.replaceAll('data-circuit="C5"', 'data-circuit="C4"')
				.replaceAll('data-mount="on a post"', 'data-mount="on brackets"')
		);
		await page.chooseFiles('A newer file of this drawing', newer);
		// It was behind already; what is new is waited for where it is asked about.
		assert.match(await page.text('main'), /The drawing is newer than/);
		// Whoever wrote over the drawing is asked once it says something else.
		await tab('Tables');
		await page.click('Lanterns and bollards', 'button');
		await tab('Behind');
		await page.until('asked', async () =>
			/on a wall → on brackets\s+“on a wall” was typed over the drawing/.test(await panel())
		);
		await press('keep it');
		await page.until('kept', async () => !/on a wall → on brackets/.test(await panel()));
		assert.match(await tableText('Lanterns and bollards'), /on a wall/);
		await page.go('/documents');
		assert.match(await page.text('main'), /behind the drawing/);
		for (const name of ['Path lighting', 'Fern bed, planting plan'])
			await page.click(await page.css(`input[aria-label="Tick “${name}”"]`));
		await press('Read the schedules of 2 drawings again');
		await page.until('run', async () => /Schedules read again[\s\S]*2 of 2/.test(await page.text('main')));
		await page.go('/documents');
		assert.ok(!/behind the drawing/.test(await page.text('main')));
	});

	it('a drawing that does not say its size is asked about, and its tables follow the scale', async () => {
		const file = join(folder, 'Bench.svg');
		writeFileSync(
			file,
			'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 8.4 5.94" onload="document.title=1"><script>document.title=2</script><rect x="1" y="1" width="2" height="0.5" data-kind="bench" data-wood="oak" onclick="document.title=3"/></svg>'
		);
		await page.chooseFiles('Documents to add', file);
		await page.find(By.xpath("//a[normalize-space()='Bench']"));
		await open('Bench');
		assert.match(await panel(), /does not say how large its sheet is on paper/);
		assert.match(await panel(), /holds a script, event attributes: left in the file/);
		await press('Say its scale…');
		await (
			await page.find(By.xpath("//label[contains(., 'Scale')]//input"))
		).sendKeys(Key.chord(Key.CONTROL, 'a'), '1:20');
		const unit = await page.find(By.xpath("//label[contains(., 'One unit')]//select"));
		await page.driver.executeScript(
			`arguments[0].value = 'm'; arguments[0].dispatchEvent(new Event('change', { bubbles: true }))`,
			unit
		);
		await press('Set the scale');
		await page.until('a sheet', async () => /420 × 297 mm · 1:20/.test(await page.text('header')));
		assert.ok(!/^[123]$/.test(await page.driver.getTitle()), 'nothing in the drawing ran');
		await page.consoleIsClean();
	});

	it('the many objects of a large drawing are painted in their places, light up and hide', async () => {
		const file = join(folder, 'Long border.svg');
		const uses = Array.from(
			{ length: 4_100 },
			(_, i) =>
				`<use id="o${i}" href="#dot" x="${20 + (i % 82) * 45}" y="${20 + Math.floor(i / 82) * 55}" data-bed="${i % 9}"/>`
		);
		writeFileSync(
			file,
			`<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="297mm" viewBox="0 0 4200 2970"><defs><symbol id="dot" overflow="visible"><title>Dot</title><rect x="-15" y="-15" width="30" height="30" fill="#C00000"/></symbol></defs><rect width="4200" height="2970" fill="#FFFFFF"/><g data-layer="Dots">${uses.join('')}</g></svg>`
		);
		await page.go('/documents');
		await page.chooseFiles('Documents to add', file);
		await page.click(await page.find(By.xpath("//a[normalize-space()='Long border']")));
		const colour = (x: number, y: number) =>
			page.driver.executeScript<number[]>(
				`const canvas = document.querySelector('[data-sheet] > div > div').shadowRoot.querySelector('canvas[data-painted="4100"]');
				if (!canvas) return [];
				const [x, y] = arguments; const area = ['left', 'top', 'width', 'height'].map((side) => Number.parseFloat(canvas.style[side]) / 4);
				const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d'); copy.drawImage(canvas, 0, 0);
				return [...copy.getImageData(Math.round(((x - area[0]) / area[2]) * canvas.width), Math.round(((y - area[1]) / area[3]) * canvas.height), 1, 1).data];`,
				x,
				y
			);
		// The eleventh of the second line: (20 + 10 × 45, 20 + 55) tenths of a millimetre.
		await page.until('painted', async () => (await colour(47, 7.5))[0]! > 150);
		assert.deepEqual(await colour(47, 7.5), [192, 0, 0, 255]);
		assert.equal((await colour(49.2, 10.2))[3], 0, 'between them is nothing');
		await page.click('Dot', 'button');
		await page.css('path[data-lit="dot"]');
		await tab('Layers');
		await page.click(await page.find(By.xpath("//label[contains(., 'Dots')]")));
		await page.until('hidden', async () => (await colour(47, 7.5))[3] === 0);
	});

	it('a table measured in the browser is where the layout has it, at every scale: within 0.05 mm', async () => {
		const style = DEMO_STYLES.find(({ name }) => name === 'Plan Schedule')!;
		const source = readSvg(await lighting());
		for (const scale of [1, 50, 1_000]) {
			const drawing = readSvg(
				new TextEncoder().encode(
					`<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="297mm" viewBox="0 0 ${420 * scale} ${297 * scale}" data-scale="1:${scale}"/>`
				)
			);
			const document = withEdits(drawing, {
				placed: [{ ...source.placed[0]!, at: { x: 40, y: 20 }, corner: 'top-start' }]
			});
			const [entry] = document.tables;
			const one = prepare(document, [{ index: 0, table: entry!.table, style }], {
				house: FIRST_HOUSE,
				find: (name) => DEMO_STYLES.find((other) => other.name === name)
			})[0]!;
			const { markup, laid } = drawOn(document, document.placed[0]!, dressedAs(entry!, one), style);
			// On a page that has the fonts; what is measured is what is painted, with the fonts' own widths.
			const measured = await page.driver.executeAsyncScript<{ cells: number[][]; texts: number[][] }>(
				`const [markup, scale, done] = arguments;
				// The page lets no style sheet in that is written into it: it is adopted.
				const css = [...markup.matchAll(/<style[^>]*>([^]*?)<\\/style>/g)].map(([, text]) => text).join('');
				const adopted = new CSSStyleSheet(); adopted.replaceSync(css); document.adoptedStyleSheets.push(adopted);
				const parsed = new DOMParser().parseFromString('<svg xmlns="http://www.w3.org/2000/svg" width="1680" height="1188" viewBox="0 0 ' + 420 * scale + ' ' + 297 * scale + '" style="position:fixed;inset:0">' + markup.replace(/<style[^>]*>[^]*?<\\/style>/g, '') + '</svg>', 'image/svg+xml');
				for (const text of parsed.querySelectorAll('text')) text.removeAttribute('textLength');
				const svg = document.importNode(parsed.documentElement, true);
				document.body.append(svg);
				const sides = ({ left, top, right, bottom }) => [left, top, right, bottom].map((side) => side / 4);
				Promise.all(['400', '600', '700', 'italic 400'].map((face) => document.fonts.load(face + " 20px 'Libre Franklin'"))).then(() => document.fonts.ready).then(() => requestAnimationFrame(() => {
					const cells = [...svg.querySelectorAll('[data-cell] > rect')].map((rect) => [...rect.parentElement.dataset.cell.split(' ').map(Number), ...sides(rect.getBoundingClientRect())]);
					const ctm = svg.getScreenCTM();
					const texts = [...svg.querySelectorAll('text')].map((text) => { const box = text.getBBox(); return [box.x / 100, box.width / 100, text.getComputedTextLength() / 100]; });
					svg.remove(); document.adoptedStyleSheets.pop();
					done({ cells, texts });
				}));`,
				markup,
				scale
			);
			const { lefts, tops } = laid;
			const { table } = laid.input;
			let worst = 0;
			const check = (got: number, wanted: number) => (worst = Math.max(worst, Math.abs(got - wanted)));
			for (const [r, c, left, top, right, bottom] of measured.cells as [
				number,
				number,
				number,
				number,
				number,
				number
			][]) {
				const cell = table.cells.find((one) => one.r === r && one.c === c)!;
				check(left, 40 + lefts[c]! / MM);
				check(top, 20 + tops[r]! / MM);
				check(right, 40 + lefts[c + cell.cols]! / MM);
				check(bottom, 20 + tops[r + cell.rows]! / MM);
			}
			const texts = marksOf(laid, [0, tops.at(-1)!], 0, 0).cells.flatMap(({ marks }) =>
				marks.flatMap((mark) => (mark.kind === 'text' ? [mark] : []))
			);
			assert.equal(measured.texts.length, texts.length);
			texts.forEach(({ x, piece }, i) => {
				check(measured.texts[i]![0]!, x / MM);
				check(measured.texts[i]![2]!, piece.width / MM);
				// The ink of slanted letters hangs over the end of their line.
				if (!piece.face.name.italic) check(measured.texts[i]![1]!, piece.width / MM);
			});
			assert.ok(measured.cells.length > 60 && worst < 0.05, `at 1:${scale} the worst is ${worst.toFixed(4)} mm`);
		}
	});
});
