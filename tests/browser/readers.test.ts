import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { after, before, describe, it } from 'node:test';
import type { WebDriver } from 'selenium-webdriver';
import { seasonReport } from '../../demo/documents/season-report.ts';
import { DEMO_STYLES } from '../../demo/styles/index.ts';
import type { Look } from '../../src/lib/core/cascade/look.ts';
import { FIRST_HOUSE } from '../../src/lib/core/house.ts';
import { toPoints } from '../../src/lib/core/units.ts';
import { openDocument, writeAs, type OutKind } from '../../src/lib/formats/index.ts';
import { openBrowser } from './support.ts';

const { resolve } = createRequire(import.meta.url);
const [zip, preview] = [resolve('jszip/dist/jszip.min.js'), resolve('docx-preview')].map((path) =>
	readFileSync(path, 'utf8')
);
const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);

/** What a browser computes for a cell's words. */
interface Shown {
	readonly text: string;
	readonly fill: string;
	readonly ink: string;
	readonly weight: string;
	readonly italic: boolean;
	/** In points. */
	readonly size: number;
}

/** Reads every cell of the page's tables, each with the fill that is painted behind its first word. */
const SEEN = `
	const colour = (value) => {
		const [r, g, b, a = 1] = value.match(/[\\d.]+/g).map(Number);
		const most = value.startsWith('color(srgb') ? 255 : 1;
		return a === 0 ? 'none' : '#' + [r, g, b].map((one) => Math.round(one * most).toString(16).padStart(2, '0')).join('').toUpperCase();
	};
	return [...document.querySelectorAll('table')].map((table) =>
		[...table.rows].flatMap((row) => [...row.cells]).filter((cell) => getComputedStyle(cell).display !== 'none').map((cell) => {
			if (cell.querySelector('table')) return null;
			const words = document.createTreeWalker(cell, NodeFilter.SHOW_TEXT);
			while (words.nextNode() && !words.currentNode.data.trim());
			const at = words.currentNode?.parentElement ?? cell;
			const style = getComputedStyle(at);
			let fill = 'none';
			for (let node = at; node && fill === 'none'; node = node === table ? null : node.parentElement)
				fill = colour(getComputedStyle(node).backgroundColor);
			return {
				text: cell.textContent.replace(/\\s+/g, ' ').trim(),
				fill, ink: colour(style.color), weight: /semibold/i.test(style.fontFamily) ? '600' : style.fontWeight, italic: style.fontStyle === 'italic',
				size: Math.round(parseFloat(style.fontSize) * 0.75 * 10) / 10
			};
		})
	);`;

const wanted = (look: Look, text: string): Shown => ({
	text,
	fill: look.fill ?? 'none',
	ink: look.ink ?? '#000000',
	weight: String(look.weight ?? 400),
	italic: look.italic ?? false,
	size: Math.round(toPoints(look.size!) * 10) / 10
});

describe('what readers that are not ours see of a written file', () => {
	let driver: WebDriver;
	before(async () => {
		driver = await openBrowser();
	});
	after(() => driver.quit());

	/** A document in a style, written as `kind`, as the browser shows it beside what was intended. */
	async function compared(kind: OutKind, styleName: string, show: (bytes: Uint8Array) => Promise<void>) {
		const style = find(styleName)!;
		const options = {
			house: FIRST_HOUSE,
			find,
			title: 'Report',
			as: kind === 'docx' ? ('direct' as const) : undefined
		};
		const report = await openDocument(await seasonReport(), 'report.docx');
		// Made anew, a DOCX has no table style, of which that reader shows little.
		const page = await openDocument((await writeAs('html', report, [], options)).bytes, 'report.html');
		const document = kind === 'docx' ? page : report;
		const jobs = document.tables.map(({ index, table }) => ({ index, table, style }));
		const written = await writeAs(kind, document, jobs, options);
		const again = await openDocument(written.bytes, `report.${kind}`);
		await driver.get('about:blank');
		await show(written.bytes);
		const shown = await driver.executeScript<(Shown | null)[][]>(SEEN);
		assert.equal(shown.length, again.tables.length, 'as many tables');
		let cells = 0;
		for (const { table, appearance, index } of again.tables) {
			const ours = table.cells.map(({ text }, i) =>
				wanted(appearance.looks[appearance.cellLook[i]!]!, text.replace(/\s+/g, ' ').trim())
			);
			for (const [i, cell] of ours.entries()) {
				const theirs = shown[index]![i]!;
				if (!theirs || !cell.text) continue;
				cells++;
				assert.deepEqual(theirs, cell, `${styleName}: table ${index + 1}, “${cell.text}”`);
			}
		}
		assert.ok(cells > 40, `${cells} cells with words`);
	}

	// Every style where time is no matter; else those that have most between them: lines, bands, columns, none of them.
	const names = process.env.HEPTARCH_RUNS
		? DEMO_STYLES.map(({ name }) => name)
		: ['Season Ledger', 'Quiet Lines', 'Beacon', 'North Wall'];
	for (const style of names) {
		it(`${style} in a page, as a browser computes it`, async () => {
			await compared('html', style, (bytes) =>
				driver.executeScript(
					'document.open(); document.write(arguments[0]); document.close()',
					new TextDecoder().decode(bytes)
				)
			);
		});
		it(`${style} in a DOCX, as docx-preview shows it`, async () => {
			await compared('docx', style, async (bytes) => {
				await driver.executeScript(`${zip}; window.JSZip = JSZip;`);
				await driver.executeScript(`${preview}; window.docx = docx;`).catch(() => undefined);
				const failed = await driver.executeAsyncScript<string | undefined>(
					`const done = arguments[arguments.length - 1];
					const bytes = Uint8Array.from(atob(arguments[0]), (letter) => letter.charCodeAt(0));
					docx.renderAsync(bytes, document.body).then(() => done(), (error) => done(String(error.stack)));`,
					Buffer.from(bytes).toString('base64')
				);
				assert.equal(failed ?? undefined, undefined);
			});
		});
	}
});
