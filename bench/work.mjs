// How the table bench feels with a table of 2,000 rows by 30 columns: what an edit takes until it is painted.
import { By, Key } from 'selenium-webdriver';

const ROWS = 2_000;
const COLUMNS = 30;
const TIMES = 50;

/** A table of names and figures, as the application keeps it. */
function largeTable() {
	const text = (r, c) =>
		r === 0
			? `Column ${c + 1}`
			: c === 0
				? `Bed ${(r * 7_919) % ROWS}`
				: r === ROWS - 1
					? ''
					: String(((r * 31 + c * 17) % 10_000) / 10);
	return {
		rows: Array.from({ length: ROWS }, (_, r) => ({
			id: r + 1,
			role: r === 0 ? 'header:1' : r === ROWS - 1 ? 'total' : 'body',
			cells: Array.from({ length: COLUMNS }, (_, c) => ({ text: text(r, c) }))
		})),
		columns: Array.from({ length: COLUMNS }, (_, c) => ({ kind: c ? 'quantity' : 'text' })),
		firstColumns: 1,
		lastColumns: 0,
		mark: '.',
		nextId: ROWS + 1
	};
}

/** Measures in `driver`; `send` talks to the server, `say` prints a median with what is asked of it. */
export async function benchWork({ origin, driver, send, say }) {
	const ledger = (await send('GET', '/api/styles')).find(({ definition }) => definition.name === 'Season Ledger');
	const { document } = await send(
		'POST',
		'/api/tables',
		JSON.stringify({ name: 'Large table', work: largeTable(), wears: { style: ledger.id } })
	);
	await driver.get(`${origin}/documents/${document}/bench`);
	await driver.sleep(4_000);
	const run = (code, ...given) => driver.executeAsyncScript(code, ...given);
	// From what a person does until the frame with its outcome is painted.
	await driver.executeScript(`
		window.painted = (act) => new Promise((done) => {
			const start = performance.now();
			act();
			requestAnimationFrame(() => {
				const { port1, port2 } = new MessageChannel();
				port1.onmessage = () => done(performance.now() - start);
				port2.postMessage(0);
			});
		});
		window.table = () => document.querySelector('[data-work-sheet] [role=grid]');
		window.press = (words) => [...document.querySelectorAll('aside button')].find((button) => button.textContent.trim() === words).click();
		window.key = (key, more = {}) => table().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }));
	`);
	const shown = (act) => run(`const done = arguments[arguments.length - 1]; painted(() => { ${act} }).then(done)`);
	const UNDO = `dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true, bubbles: true, cancelable: true }))`;
	/** Does something and takes it back, over and over; how long each took. */
	const times = async (act, count = TIMES) => {
		const [done, undone] = [[], []];
		for (let i = 0; i < count; i++) {
			done.push(await shown(act));
			await driver.sleep(100);
			undone.push(await shown(UNDO));
			await driver.sleep(100);
		}
		return { done, undone };
	};

	const cells = await driver.executeScript(`return document.querySelectorAll('[data-cell]').length`);
	console.log(
		`${ROWS.toLocaleString('en')} × ${COLUMNS} cells on the table bench; ${cells.toLocaleString('en')} of them in the page`
	);

	await driver.executeScript(
		`document.querySelector('[data-cell="62"]').scrollIntoView({ block: 'center' }); for (let i = 0; i < 3; i++) key('ArrowDown')`
	);
	await driver.actions().sendKeys(Key.F2).perform();
	await driver.sleep(200);
	const letters = [];
	for (let i = 0; i < TIMES; i++) {
		letters.push(await shown(`document.execCommand('insertText', false, 'x')`));
		await driver.sleep(60);
	}
	say('a letter typed in a cell', letters, 17);
	await driver.actions().sendKeys(Key.ESCAPE).perform();
	await driver.sleep(200);

	const emptied = await times(`key('Delete')`);
	say('a cell emptied, and all that follows from it', emptied.done, 50);
	say('that taken back', emptied.undone, 50);
	const inserted = await times(`press('Add below')`);
	say('a row inserted', inserted.done, 50);
	say('that taken back', inserted.undone, 50);

	await driver.executeScript(
		`[...document.querySelectorAll('[role=tab]')].find((tab) => tab.textContent === 'Figures').click()`
	);
	await driver.sleep(200);
	await driver.findElement(By.xpath(`//button[starts-with(normalize-space(), 'By “')]`)).click();
	const sorted = await times(`press('Sort')`);
	say('2,000 rows sorted', sorted.done, 200);
	say('that taken back', sorted.undone, 200);

	await driver.executeScript(`
		window.clip = Array.from({ length: 1000 }, (_, r) => Array.from({ length: 20 }, (_, c) => 'p' + r + '.' + c).join('\\t')).join('\\n');
		window.paste = () => {
			const data = new DataTransfer();
			data.setData('text/plain', clip);
			table().dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
		};`);
	const pasted = await times('paste()');
	say('20,000 cells pasted', pasted.done, 1_000);
	say('that taken back', pasted.undone, 1_000);
	const megabytes = await driver.executeScript(`return performance.memory.usedJSHeapSize / 2 ** 20`);
	console.log(`        memory of the page after ${(8 * TIMES).toLocaleString('en')} edits: ${megabytes.toFixed(0)} MB`);
}
