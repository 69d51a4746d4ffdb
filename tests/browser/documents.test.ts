import assert from 'node:assert/strict';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, describe, it } from 'node:test';
import { seasonReportHtml } from '../../demo/documents/twins.ts';
import { readHtml } from '../../src/lib/formats/html/read.ts';
import { readOdt } from '../../src/lib/formats/odt/read.ts';
import { Package } from '../../src/lib/formats/package/zip.ts';
import { By, Key, Page } from './support.ts';

/** Many documents of every format, and what one table can do for others. */
describe('documents of every format', () => {
	let page: Page;
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-formats-'));
	const file = (name: string, content: string | Uint8Array) => {
		const path = join(folder, name);
		writeFileSync(path, content);
		return path;
	};
	before(async () => {
		page = await Page.open('demo', {});
		await page.go('/documents');
	});
	after(async () => {
		await page.close();
		rmSync(folder, { recursive: true, force: true });
	});
	const names = () =>
		page.driver.executeScript<string[]>(
			`return [...document.querySelectorAll('main tbody tr td:nth-child(2) a')].map((link) => link.textContent.trim())`
		);
	const webPage = async () => new URL(await page.driver.getCurrentUrl()).pathname.split('/').at(-1)!;
	const openDocument = async (name: string) => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath(`//a[normalize-space()='${name}']`)));
		await page.css('#table-0');
	};

	it('the tables of a document are one stop for the keyboard; arrow keys lead along them', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath("//a[normalize-space()='Season report 2031']")));
		await page.css('#table-0');
		const strip = '[role=toolbar][aria-label="Tables of the document"]';
		const stops = () =>
			page.driver.executeScript<number>(
				`return [...document.querySelectorAll(arguments[0] + ' :is(button, input)')].filter(({ tabIndex }) => tabIndex === 0).length`,
				strip
			);
		assert.equal(await stops(), 1);
		await page.driver.executeScript(`document.querySelector(arguments[0] + ' button').focus()`, strip);
		const press = (...keys: string[]) =>
			page.driver
				.actions()
				.sendKeys(...keys)
				.perform();
		await press(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.SPACE);
		const focused = () =>
			page.driver.executeScript<string>(`return document.activeElement.getAttribute('aria-label') ?? ''`);
		assert.equal(await focused(), 'Tick table 2');
		await page.named('Ticked · 1');
		assert.equal(await stops(), 1);
		await press(Key.TAB);
		assert.equal(
			await page.driver.executeScript(`return !!document.activeElement.closest(arguments[0])`, strip),
			false
		);
		await page.driver.actions().keyDown(Key.SHIFT).sendKeys(Key.TAB).keyUp(Key.SHIFT).perform();
		assert.equal(await focused(), 'Tick table 2', 'where it was left');
	});
	it('all tables at once: as they came and as they would be, ticked by likeness or by hand', async () => {
		await page.go('/documents');
		await page.click(await page.find(By.xpath("//a[normalize-space()='Season report 2031']")));
		await page.css('#table-0');
		const address = await page.driver.getCurrentUrl();
		await page.key('o');
		const cards = () =>
			page.driver.executeScript<[ticked: boolean, pictures: number][]>(
				`return [...document.querySelectorAll('[aria-label="All tables"] > li')].map((card) => [card.querySelector('input').checked, card.querySelectorAll('[role=row]').length ? card.querySelectorAll('.tracks').length : 0])`
			);
		await page.until('nine cards', async () => (await cards()).length === 9);
		await page.isAccessible('all tables at once');
		await page.until('likeness is known', async () => /like table 1 \([1-9]/.test(await page.text('main')));
		await page.click('Tick those like table 1');
		const alike = (await cards()).filter(([ticked]) => ticked).length;
		assert.ok(alike > 0 && alike < 9);
		await page.click(await page.css('[aria-label="All tables"] input[aria-label^="Tick table 9"]'));
		await page.click('Beacon', 'button');
		await page.until('a picture of what would be', async () =>
			(await cards()).some(([ticked, pictures]) => ticked && pictures === 2)
		);
		assert.ok(
			(await cards()).every(([ticked, pictures]) => ticked || pictures < 2),
			'only what is ticked'
		);
		await page.named(`Apply to ${alike + 1} tables`);
		await page.click(await page.css('button[aria-label="Show table 3 on the page"]'));
		await page.until('on the page', () =>
			page.driver.executeScript<boolean>(`return !document.querySelector('#table-2').closest('[hidden]')`)
		);
		assert.equal((await page.driver.findElements(By.css('[aria-label="All tables"]'))).length, 0);
		await page.consoleIsClean();
		await page.go(new URL(address).pathname);
	});
	it('the Desk shows what was worked on last, what waits and what is new, each a step away', async () => {
		await page.go('/');
		assert.match(await page.text('[aria-label="Worked on last"]'), /Season report 2031[\s\S]*9 tables/);
		assert.match(await page.text('[aria-label="Waiting for you"]'), /finding/);
		assert.match(await page.text('[aria-label="New in the house"]'), /added|published/);
		await page.isAccessible('the Desk');
		await page.consoleIsClean();
		await page.click(
			await page.find(By.xpath("//section[@aria-label='Worked on last']//a[contains(., 'Season report 2031')]"))
		);
		await page.css('#table-0');
	});
	it('what is applied to a document that changed meanwhile is not said to be on, and is still chosen', async () => {
		await openDocument('Volunteers’ handbook');
		await page.lookAway();
		const step = `return fetch('/api/documents/${await webPage()}/steps', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ version: 0, label: 'from elsewhere', tables: { 1: {} } }) }).then((answer) => answer.status)`;
		assert.equal(await page.driver.executeScript<number>(step), 201);
		await page.click(await page.named('Beacon', 'button[@role="option"]'));
		await page.click('Apply to 1 table');
		await page.until('to be told', async () =>
			/was changed in another window in the meantime: from elsewhere, by Keeper\./.test(await page.text('[role=alert]'))
		);
		assert.doesNotMatch(await page.text('body'), /wears “Beacon” now/);
		assert.equal(await (await page.named('Apply to 1 table')).isEnabled(), true, 'it can be tried again');
		await page.driver.manage().logs().get('browser');
		await page.click('Load it and do mine again: Beacon on table 1');
		await page.until('it to be on', async () => /wears “Beacon” now/.test(await page.text('body')));
		assert.match(await page.text('header'), /wears Beacon/);
		for (let i = 0; i < 2; i++) {
			await page.until('that it can be undone', async () => (await page.named('Undo', 'button')).isEnabled());
			await page.click('Undo', 'button');
		}
		await page.until('undone', async () => !(await (await page.named('Undo', 'button')).isEnabled()));
		await page.go('/documents');
	});

	describe('the list', () => {
		it('is searched by the text of tables, filtered by kind, sorted by any column', async () => {
			const find = await page.css('[aria-label="Find documents"]');
			await find.sendKeys('bellflower');
			await page.until('one', async () => (await names()).join() === 'Seed exchange list');
			await find.sendKeys(Key.chord(Key.CONTROL, 'a'), 'season');
			await page.until('three', async () => (await names()).length === 3);
			await page.select('Kind of document', 'odt');
			await page.until('the open text', async () => (await names()).join() === 'Season report 2031, open text');
			await page.select('Kind of document', '');
			await find.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.DELETE);
			await page.click('Document', 'th//button');
			await page.until('all of them, by name', async () => {
				const sorted = await names();
				return sorted.length > 3 && sorted.join() === sorted.toSorted((a, b) => a.localeCompare(b)).join();
			});
			await page.isAccessible('documents');
		});
		it('puts aside and removes, each with an undo', async () => {
			const count = (await names()).length;
			await page.click(await page.css('[aria-label="Put “Seed exchange list” aside"]'));
			await page.until('aside', async () => (await names()).length === count - 1);
			await page.click('Put aside · 1', 'button');
			await page.until('the shelf', async () => (await names()).join() === 'Seed exchange list');
			await page.click('Undo', 'button');
			await page.until('empty shelf', async () => (await names()).length === 0);
			await page.click('Put aside · 0', 'button');
			await page.click(await page.css('[aria-label="Remove “Seed exchange list”"]'));
			await page.click('Remove it');
			await page.until('gone', async () => (await names()).length === count - 1);
			await page.click('Undo', 'button');
			await page.until('back', async () => (await names()).length === count);
		});
		it('shows more than a hundred page after page, and ticks all that are found', async () => {
			const { origin } = page;
			const ids: string[] = [];
			for (let i = 0; i < 110; i++) {
				const answer = await fetch(`${origin}/api/documents?name=many%20${i}.csv`, {
					method: 'POST',
					body: 'Lot;Seed\nA;Fern\n',
					headers: { 'Content-Type': 'application/octet-stream' }
				});
				ids.push(((await answer.json()) as { id: string }).id);
			}
			await page.go('/documents');
			await page.driver.executeScript('document.querySelector("main").scrollTo(0, 1e6)');
			await page.until('all of them', async () => (await names()).length >= 117);
			await page.driver.sleep(800);
			assert.ok((await names()).length >= 117, 'they stay');
			await page.click(await page.css('[aria-label="Tick all documents listed"]'));
			await page.named('Give');
			for (const id of ids)
				await fetch(`${origin}/api/documents/${id}`, {
					method: 'DELETE',
					headers: { 'Content-Type': 'application/json' }
				});
			await page.go('/documents');
		});
		it('counts files on their way, and lets the rest be stopped', async () => {
			const before = await names();
			const slow = Array.from({ length: 12 }, (_, i) =>
				file(`slow ${i}.csv`, `Lot;Seed\n${`TX-${i};Fern\n`.repeat(20_000)}`)
			);
			await page.chooseFiles('Documents to add', ...slow);
			await page.until('the count', async () => /of 12 files/.test(await page.text('main [role=status]')));
			await page.click('Stop', 'button');
			await page.until('what was not taken', async () =>
				/files? (was|were) not taken: it was stopped/.test(await page.text('body'))
			);
			await page.until('the end', async () => (await page.text('main [role=status]')) === '');
			assert.ok((await names()).length < before.length + 12, 'not all of them are in');
			for (const name of (await names()).filter((one) => one.startsWith('slow'))) {
				await page.click(await page.css(`[aria-label="Remove “${name}”"]`));
				await page.click('Remove it');
				await page.until('gone', async () => !(await names()).includes(name));
			}
			assert.deepEqual(await names(), before);
			await page.driver.manage().logs().get('browser');
		});
		it('takes many files at once; one that cannot be read says why, and the rest go on', async () => {
			await page.chooseFiles(
				'Documents to add',
				file('beds.csv', 'Bed;Plants\nNorth;12\nSouth;8\nTotal;20\n'),
				file('broken.odt', 'PK nothing'),
				file('board.html', await seasonReportHtml()),
				file('notes.txt', 'a\tb\n1\t2\n')
			);
			await page.until('three of four', async () => {
				const all = await names();
				return ['beds', 'board', 'notes'].every((name) => all.includes(name));
			});
			assert.match(await page.text('[role=alert]'), /broken\.odt was not taken\./);
			await page.click('Put away');
			await page.driver.manage().logs().get('browser');
		});
		it('takes cells that are pasted', async () => {
			const before = (await names()).length;
			await page.driver.executeScript(
				`const data = new DataTransfer(); data.setData('text/html', '<table><tr><th>Bed<th>Plants<tr><td>East<td>4</table>');
				window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`
			);
			await page.until('one more', async () => (await names()).length === before + 1);
			assert.ok((await names()).some((name) => name.startsWith('Pasted')));
			await page.consoleIsClean();
		});
	});

	it('a list of 1,200 rows shows at once, only what is near in the page, and takes a style', async () => {
		await openDocument('Seed exchange list');
		const rows = () =>
			page.driver.executeScript<number>(`return document.querySelectorAll('#table-0 [role=row]').length`);
		await page.until('a part of it', async () => (await rows()) > 10 && (await rows()) < 150);
		await page.click('Season Ledger', 'button[@role="option"]');
		await page.click('Apply to 1 table');
		await page.until(
			'the header',
			async () => (await page.cellStyle('#table-0', 'Lot', 'backgroundColor')) === 'rgb(47, 93, 80)'
		);
		await page.driver.executeScript(`document.querySelector('main').scrollTop = 1e9`);
		await page.until('its end', async () => /TX-5198/.test(await page.text('#table-0')));
		await page.isAccessible('a long list');
	});

	it('a web page keeps its format; its account and file say what was done', async () => {
		await openDocument('Season report 2031, web page');
		await page.click('All · 9', 'button');
		await page.click('Season Ledger', 'button[@role="option"]');
		await page.click('Apply to 9 tables');
		await page.until('worn', async () => (await page.text('header')).includes('wears Season Ledger'));
		await page.click('Take the file…');
		await page.until('the account', async () => (await page.text('[role=dialog], dialog')).includes('9 of 9 tables'));
		assert.match(await page.text('[role=dialog], dialog'), /what was intended/);
		await page.isAccessible('the account of a web page');
		await page.click(await page.find(By.xpath("//a[@download][normalize-space()='Take the file']")));
		const { name, bytes } = await page.download();
		assert.equal(name, 'Season report 2031, web page.html');
		assert.deepEqual(
			readHtml(bytes).tables.map(({ carried }) => carried?.style),
			Array(9).fill('Season Ledger')
		);
	});
	it('the browser shows the written page as the reader says it looks', async () => {
		const bytes = await (await fetch(`${page.origin}/api/documents/${await webPage()}/file`)).arrayBuffer();
		const path = file('written.html', new Uint8Array(bytes));
		const address = await page.driver.getCurrentUrl();
		await page.driver.get(`file://${path}`);
		const shown = await page.driver.executeScript<string[][]>(
			`return [...document.querySelectorAll('table')].map((table) => [...table.rows].flatMap((row) => [...row.cells].map((cell) => {
				const s = getComputedStyle(cell);
				const line = (side) => s['border' + side + 'Style'] === 'hidden' || s['border' + side + 'Style'] === 'none' ? 'none' : s['border' + side + 'Style'] + ' ' + s['border' + side + 'Color'];
				return [s.backgroundColor, s.color, s.fontWeight, s.fontStyle, s.textAlign, s.verticalAlign, parseFloat(s.fontSize).toFixed(2), parseFloat(s.paddingTop).toFixed(2), line('Top')].join(' ');
			})))`
		);
		const rgb = (hex: string) => `rgb(${[1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)).join(', ')})`;
		const px = (emu: number | undefined) => ((emu ?? 0) / 9_525).toFixed(2);
		const ALIGN: Record<string, string> = { start: 'start', middle: 'center', end: 'end' };
		const { tables } = readHtml(new Uint8Array(bytes));
		assert.equal(shown.length, tables.length);
		for (const [t, { table, appearance }] of tables.entries())
			for (const [i, cell] of table.cells.entries()) {
				const look = appearance.looks[appearance.cellLook[i]!]!;
				// Browsers give colours that were mixed as numbers between 0 and 1.
				const got = shown[t]![i]!.replace(
					/color\(srgb ([\d.]+) ([\d.]+) ([\d.]+)\)/g,
					(_, ...parts: string[]) =>
						`rgb(${parts
							.slice(0, 3)
							.map((part) => Math.round(Number(part) * 255))
							.join(', ')})`
				);
				const fill = look.fill === 'none' ? 'rgba(0, 0, 0, 0)' : rgb(look.fill!);
				const expected = [
					fill,
					rgb(look.ink!),
					look.weight,
					look.italic ? 'italic' : 'normal',
					ALIGN[look.h!],
					look.v,
					px(look.size),
					px(look.marginTop)
				].join(' ');
				assert.ok(
					got.startsWith(expected),
					`table ${t + 1}, cell ${i}: the browser shows ${got}, the reader says ${expected}`
				);
				const line = appearance.lines[appearance.across[cell.r * table.columns + cell.c]!];
				if (cell.cols === 1 && line && got.endsWith('none') && cell.r === 0)
					assert.fail(`table ${t + 1}, cell ${i}: no line above`);
			}
		await page.driver.get(address);
		await page.css('#table-0');
	});
	it('and is taken as another format', async () => {
		await page.click('Take the file…');
		await page.select('Format to take it in', 'odt');
		await page.until('made anew', async () => /A new file/.test(await page.text('[role=dialog], dialog')));
		assert.match(await page.text('[role=dialog], dialog'), /what was intended/);
		await page.click(await page.find(By.xpath("//a[@download][normalize-space()='Take the file']")));
		const { name, bytes } = await page.download();
		assert.equal(name, 'Season report 2031, web page.odt');
		assert.equal((await readOdt(bytes)).tables.length, 9);
		await page.consoleIsClean();
	});

	describe('one table for others', () => {
		it('a style is lifted from a table and worn by it, with no change to the eye', async () => {
			await openDocument('Volunteers’ handbook');
			const looks = () =>
				page.driver.executeScript<string>(
					`return [...document.querySelectorAll('#table-0 .layer .cell')].map((cell) => { const s = getComputedStyle(cell); return [s.backgroundColor, s.color, s.fontSize, s.fontWeight, s.fontStyle, s.textAlign, s.paddingLeft].join(); }).join('|')`
				);
			const before = await looks();
			await page.click('Lift a style from it…');
			await page.until('what it says', async () => /\d+ settings say/.test(await page.text('[data-lifted]')));
			await page.isAccessible('lifting');
			await page.fill('Name of the style', 'Rota as it came');
			await page.click('Lift it');
			await page.until('worn', async () => (await page.text('header')).includes('wears Rota as it came'));
			assert.equal(await looks(), before);
		});
		it('others are matched to it, those that look like it first', async () => {
			await page.until('the scope', async () => /Like it · \d+/.test(await page.text('[aria-label=Scope]')));
			await page.click('All · 3', 'button');
			await page.click('Match 2 others to it…');
			await page.click('Match them');
			await page.until('all alike', async () => {
				const ink = (table: number) =>
					page.driver.executeScript<string>(
						`return getComputedStyle(document.querySelector('#table-${table} .layer .cell')).backgroundColor`
					);
				return (await ink(1)) === (await ink(0)) && (await ink(2)) === (await ink(0));
			});
			await page.chord(Key.CONTROL, 'z');
			await page.chord(Key.CONTROL, 'z');
			await page.until('taken back', async () => !(await page.text('header')).includes('wears'));
			await page.consoleIsClean();
		});
	});

	describe('runs', () => {
		it('give many documents a style in the background, with progress, and all files in one zip', async () => {
			await page.go('/documents');
			for (const name of ['Season report 2031', 'Season report 2031, open text', 'Seed exchange list'])
				await page.click(await page.css(`[aria-label="Tick “${name}”"]`));
			await page.click('Give 3 documents a style…');
			const pictures = (of: string) =>
				page.driver.executeScript<number>(
					`return document.querySelectorAll('dialog [aria-label="' + arguments[0] + '"] .tracks').length`,
					of
				);
			await page.until('styles by their pictures', async () => (await pictures('Style of the run')) > 5);
			await page.click(await page.find(By.xpath("//dialog//button[@role='option'][contains(., 'Beacon')]")));
			await page.until('tables before and after', async () => (await pictures('What it would do')) === 18);
			assert.match(
				await page.text('[aria-label="What it would do"]'),
				/table 1, as it would be[\s\S]*and 5 more tables/
			);
			await page.isAccessible('starting a run');
			await page.click('Start the run');
			await page.until('done', async () => (await page.text('[data-run-state]')) === 'done');
			assert.match(await page.text('main'), /3 of 3 documents[\s\S]*as intended/);
			await page.isAccessible('runs');
			await page.click('Take all files', 'a');
			const { name, bytes } = await page.download();
			assert.equal(name, 'Beacon.zip');
			const archive = await Package.open(bytes, 'a zip');
			assert.deepEqual(archive.names().sort(), [
				'Season report 2031, open text.odt',
				'Season report 2031.docx',
				'Seed exchange list.csv',
				'accounts.json'
			]);
			const accounts = JSON.parse((await archive.text('accounts.json'))!) as { tables: { differences: [] }[] }[];
			assert.ok(accounts.every(({ tables }) => tables.every(({ differences }) => differences.length === 0)));
		});
		it('and are taken back as a whole', async () => {
			await page.click('Take it back');
			await page.until('taken back', async () => (await page.text('[data-run-state]')) === 'taken back');
			await page.go('/documents');
			assert.match(await page.text('main'), /Season report 2031\s+word-processed\s+0 of 9 tables/);
			await page.consoleIsClean();
		});
	});
});
