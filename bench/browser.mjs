// How the bench and the Stylebook feel in the browser: what a change takes until it is seen, with what is on the screen.
import { gzipSync } from 'node:zlib';
import { AlignmentType, Document, Packer, Paragraph, Table, TableCell, TableRow } from 'docx';
import { By, until } from 'selenium-webdriver';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { demoInBrowser } from '../scripts/browser.mjs';
import { bundle } from '../scripts/bundle.mjs';
import { benchWork } from './work.mjs';

const here = dirname(fileURLToPath(import.meta.url));

const TABLES = 6;
const ROWS = 139;
const CHANGES = 60;
const STYLES = 200;

const { origin, driver } = await demoInBrowser();
const send = async (method, path, body, type = 'application/json') => {
	const response = await fetch(origin + path, { method, body, headers: { 'Content-Type': type, Origin: origin } });
	if (!response.ok) throw new Error(`${method} ${path}: ${await response.text()}`);
	return response.status === 204 ? undefined : response.json();
};
const percentile = (values, p) =>
	[...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * p))];
const say = (what, values, bound) => {
	const middle = percentile(values, 0.5);
	console.log(
		`${middle <= bound ? 'within ' : 'OVER   '} ${what}: median ${middle.toFixed(1)} ms (at most ${bound}); 95th percentile ${percentile(values, 0.95).toFixed(1)} ms, worst ${Math.max(...values).toFixed(1)} ms, ${values.length} times`
	);
};

/** Six tables with sections of figures, header and totals; 5,004 cells altogether. */
function sixTables() {
	const cell = (text) => new TableCell({ children: [new Paragraph({ text, alignment: AlignmentType.LEFT })] });
	const table = (t) => {
		const rows = [['Bed', 'Plants', 'Watered', 'Cost €', 'Share', 'Seen']];
		for (let r = 1; r < ROWS - 1; r++)
			rows.push([
				`Bed ${t}-${r}`,
				String((r * 37) % 211),
				`${(r * 13) % 90}.5`,
				`${r * 12}.50`,
				`${r % 100} %`,
				`2031-0${1 + (r % 9)}-1${r % 10}`
			]);
		const plants = rows.slice(1).reduce((sum, row) => sum + Number(row[1]), 0);
		rows.push(['Total', String(plants), '', '', '', '']);
		return new Table({ rows: rows.map((row) => new TableRow({ children: row.map(cell) })) });
	};
	const children = Array.from({ length: TABLES }, (_, t) => [new Paragraph(`Beds of quarter ${t + 1}`), table(t + 1)]);
	return Packer.toBuffer(new Document({ sections: [{ children: children.flat() }] }));
}

async function benchSheet() {
	const document = await send('POST', '/api/documents?name=Beds.docx', await sixTables(), 'application/octet-stream');
	const ledger = (await send('GET', '/api/styles')).find(({ definition }) => definition.name === 'Season Ledger');
	const keys = Array.from({ length: TABLES }, (_, index) => `${document.id}/${index}`);
	await send('PUT', `/api/styles/${ledger.id}/specimens`, JSON.stringify({ keys }));
	await driver.get(`${origin}/stylebook/${ledger.id}`);
	await driver.sleep(1500);
	for (let left = TABLES; left > 0; left--) {
		const all = await driver.findElements(By.xpath("//main//h3/button[contains(., 'all ')]"));
		if (all[0]) await all[0].click();
		await driver.sleep(400);
	}
	const cells = await driver.executeScript(
		`return [...document.querySelectorAll('main h3')].reduce((sum, { textContent }) => sum + Number(/(\\d+) cells/.exec(textContent)[1]), 0)`
	);
	// From the moment the answer of the worker is there until the frame with it is painted.
	await driver.executeScript(`
		window.seen = [];
		const measure = performance.measure.bind(performance);
		performance.measure = (name, options) => {
			if (name === 'heptarch:resolve') {
				const start = performance.now();
				requestAnimationFrame(() => {
					const { port1, port2 } = new MessageChannel();
					port1.onmessage = () => window.seen.push([options.duration, performance.now() - start]);
					port2.postMessage(0);
				});
			}
			return measure(name, options);
		};`);
	const field = await driver.findElement(By.css('input[aria-label="Text: size"]'));
	const before = await spent();
	for (let i = 0; i < CHANGES; i++) {
		await driver.executeScript(
			'arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event("change", { bubbles: true }))',
			field,
			`${9 + (i % 5) * 0.5}pt`
		);
		await driver.sleep(400);
	}
	const after = await spent();
	const seen = await driver.executeScript('return window.seen');
	if (seen.length < CHANGES) throw new Error(`Only ${seen.length} of ${CHANGES} changes were seen.`);
	say(
		`resolve in the worker, ${TABLES} tables, ${cells} cells on the sheet`,
		seen.map(([took]) => took),
		16
	);
	say(
		'from its answer to the painted frame',
		seen.map(([, shown]) => shown),
		33
	);
	const each = (name) => (((after[name] - before[name]) * 1000) / CHANGES).toFixed(1);
	console.log(
		`        of the main thread, a change: script ${each('ScriptDuration')}, style ${each('RecalcStyleDuration')}, layout ${each('LayoutDuration')}, paint and the rest ${['ScriptDuration', 'RecalcStyleDuration', 'LayoutDuration'].reduce((rest, name) => rest - Number(each(name)), Number(each('TaskDuration'))).toFixed(1)} ms`
	);
	const drawn = await driver.executeScript('return document.querySelectorAll("[data-cell]").length');
	console.log(`        ${drawn} cells drawn`);
}
/** Seconds that the main thread of the page has spent, by what on. */
async function spent() {
	await driver.sendDevToolsCommand('Performance.enable');
	const { metrics } = await driver.sendAndGetDevToolsCommand('Performance.getMetrics');
	return Object.fromEntries(metrics.map(({ name, value }) => [name, value]));
}

async function benchStylebook() {
	const styles = await send('GET', '/api/styles');
	for (let i = styles.length; i < STYLES; i++) {
		const { definition } = styles[i % styles.length];
		const { basedOn: _, ...rest } = definition;
		await send('POST', '/api/styles', JSON.stringify({ definition: { ...rest, name: `${definition.name} ${i}` } }));
	}
	await driver.get(`${origin}/stylebook`);
	await driver.sleep(2500);
	const cards = await driver.executeScript('return document.querySelectorAll("main li").length');
	const frames = await driver.executeAsyncScript(`
		const done = arguments[0];
		const scroller = document.querySelector('main');
		const spans = []; let last = performance.now();
		const step = (now) => {
			spans.push(now - last); last = now;
			scroller.scrollTop += 20;
			if (scroller.scrollTop + scroller.clientHeight >= scroller.scrollHeight - 1 || spans.length > 400) done(spans.slice(2));
			else requestAnimationFrame(step);
		};
		requestAnimationFrame(step);`);
	say(`a frame while the Stylebook with ${cards} styles scrolls`, frames, 17);
	console.log(`        longest frame ${Math.max(...frames).toFixed(1)} ms`);
	const searched = await driver.executeAsyncScript(`
		const done = arguments[0];
		const find = document.querySelector('[data-find]');
		const spans = [];
		const words = ['l', 'le', 'led', 'ledg', 'ledge', 'ledger', '', 'double line', '', 'plum', '', 'n', 'no', 'not'];
		const next = () => {
			const word = words[spans.length];
			if (word === undefined) return done(spans);
			const start = performance.now();
			find.value = word;
			find.dispatchEvent(new Event('input', { bubbles: true }));
			requestAnimationFrame(() => { const { port1, port2 } = new MessageChannel(); port1.onmessage = () => { spans.push(performance.now() - start); setTimeout(next, 50); }; port2.postMessage(0); });
		};
		next();`);
	say('from a letter in the search to the painted result', searched, 50);
	console.log(`        longest ${Math.max(...searched).toFixed(1)} ms`);
}

/** A drawing of 50,000 objects: until it is there, and a frame while it is panned and zoomed. */
async function benchDrawing() {
	const { largeDrawing } = await import(await bundle(join(here, 'large-drawing.ts'), ['bench', 'demo']));
	const bytes = largeDrawing();
	const start = performance.now();
	const { id } = await send('POST', '/api/documents?name=Long%20border.svg', bytes, 'application/octet-stream');
	const taken = performance.now() - start;
	await driver.manage().setTimeouts({ script: 120_000 });
	await driver.get(`${origin}/documents/${id}/sheet`);
	const [there, spans, zooms] = await driver.executeAsyncScript(`
		const done = arguments[0];
		const frames = (count) => new Promise((resolve) => { const next = () => (count-- > 0 ? requestAnimationFrame(next) : resolve()); next(); });
		const run = (count, each) => new Promise((resolve) => {
			const spans = []; let last = performance.now();
			const step = (now) => {
				spans.push(now - last); last = now;
				if (spans.length > count) return resolve(spans.slice(2));
				each(spans.length);
				requestAnimationFrame(step);
			};
			requestAnimationFrame(step);
		});
		const work = async () => {
			for (;;) {
				const tree = document.querySelector('[data-sheet] > div > div')?.shadowRoot;
				if (tree?.querySelector('canvas[data-painted="50000"]')) break;
				await frames(1);
			}
			await frames(2);
			const there = performance.now();
			await new Promise((resolve) => setTimeout(resolve, 3000));
			const sheet = document.querySelector('[data-sheet]');
			const at = (x, y) => ({ clientX: x, clientY: y, pointerId: 1, button: 0, bubbles: true, cancelable: true });
			sheet.setPointerCapture = () => undefined;
			sheet.dispatchEvent(new PointerEvent('pointerdown', at(800, 400)));
			const spans = await run(90, (i) => sheet.dispatchEvent(new PointerEvent('pointermove', at(800 + 3 * i, 400 + Math.round(60 * Math.sin(i / 8))))));
			sheet.dispatchEvent(new PointerEvent('pointerup', at(1070, 400)));
			await new Promise((resolve) => setTimeout(resolve, 2500));
			const zooms = await run(90, (i) => sheet.dispatchEvent(new WheelEvent('wheel', { deltaY: i < 45 ? -40 : 40, clientX: 800, clientY: 400, bubbles: true, cancelable: true })));
			done([there, spans, zooms]);
		};
		work();`);
	console.log(
		`${there <= 3000 ? 'within ' : 'OVER   '} a drawing of 50,000 objects (${(bytes.length / 2 ** 20).toFixed(1)} MB), from the address to the painted sheet: ${there.toFixed(0)} ms (at most 3000); taken in in ${taken.toFixed(0)} ms`
	);
	say('a frame while it is panned', spans, 1000 / 30);
	say('a frame while it is zoomed', zooms, 1000 / 30);
	console.log(`        longest frames ${Math.max(...spans).toFixed(0)} and ${Math.max(...zooms).toFixed(0)} ms`);
}

async function benchFirstScreen() {
	await driver.get(`${origin}/`);
	await driver.sleep(1500);
	const paths = await driver.executeScript(
		`return performance.getEntriesByType('resource').map(({ name }) => name).filter((name) => /\\.js($|\\?)/.test(name))`
	);
	let size = 0;
	for (const path of new Set(paths)) size += gzipSync(Buffer.from(await (await fetch(path)).arrayBuffer())).length;
	console.log(
		`${size <= 250_000 ? 'within ' : 'OVER   '} script of the first screen: ${(size / 1000).toFixed(0)} kB compressed in ${new Set(paths).size} files (at most 250)`
	);
}

/** From asking for the page of a list of 100,000 rows until its cells can be read, the first time and again. */
async function benchLongList() {
	const { longList } = await import(await bundle(join(here, 'csv.ts'), ['bench', 'demo', 'src']));
	const shown = { first: [], again: [] };
	for (let list = 0; list < 4; list++) {
		const bytes = Buffer.concat([longList(), Buffer.from(`\r\nTX-${list}`)]);
		const { id } = await send('POST', `/api/documents?name=List ${list}.csv`, bytes, 'application/octet-stream');
		for (const times of [shown.first, shown.again]) {
			await driver.get(`${origin}/documents`);
			await driver.sleep(500);
			const start = performance.now();
			await driver.get(`${origin}/documents/${id}`);
			await driver.wait(until.elementLocated(By.xpath("//main//*[text()[contains(., 'Pale fern')]]")), 20_000);
			times.push(performance.now() - start);
		}
	}
	say('a CSV of 100,000 × 12 cells shown, the first time', shown.first, 2_000);
	say('and again', shown.again, 2_000);
}

const BENCHES = {
	'first-screen': benchFirstScreen,
	restyle: benchSheet,
	stylebook: benchStylebook,
	drawing: benchDrawing,
	work: () => benchWork({ origin, driver, send, say }),
	'long-list': benchLongList
};
// node --expose-gc bench/browser.mjs restyle: that alone.
const named = process.argv.slice(2).filter((name) => name in BENCHES);
try {
	for (const name of named.length ? named : Object.keys(BENCHES)) await BENCHES[name]();
} finally {
	await driver.quit();
}
process.exit(0);
