import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FIRST_HOUSE } from '../src/lib/core/house.ts';
import mammoth from 'mammoth';
import { SaxesParser } from 'saxes';
import { readDocx } from '../src/lib/formats/docx/read.ts';
import { makeHtml } from '../src/lib/formats/html/make.ts';
import { readHtml } from '../src/lib/formats/html/read.ts';
import { makeOdt } from '../src/lib/formats/odt/make.ts';
import { readOdt } from '../src/lib/formats/odt/read.ts';
import { writeDocx } from '../src/lib/formats/docx/write.ts';
import { Package } from '../src/lib/formats/package/zip.ts';
import { DEMO_STYLES } from '../demo/styles/index.ts';
import { seasonReport } from '../demo/documents/season-report.ts';
import { median, report, timed } from './measure.ts';

const TABLES = 500;

/** A DOCX of 500 tables: those of the season report, over and over, in one body. */
export async function largeDocument(): Promise<Uint8Array<ArrayBuffer>> {
	const archive = await Package.open(await seasonReport(), 'a DOCX document');
	const text = (await archive.text('word/document.xml'))!;
	const start = text.indexOf('<w:body>') + '<w:body>'.length;
	const end = text.lastIndexOf('<w:sectPr');
	const body = text.slice(start, end);
	const copies = Math.ceil(TABLES / 9);
	return archive.rewrite(
		new Map([['word/document.xml', text.slice(0, start) + body.repeat(copies) + text.slice(end)]])
	);
}

/** Applying a style to every table, against reading and rewriting the same package with the same zip library. */
export async function benchDocx(): Promise<void> {
	const bytes = await largeDocument();
	const style = DEMO_STYLES.find(({ name }) => name === 'Season Ledger')!;
	const find = (name: string) => DEMO_STYLES.find((other) => other.name === name);
	const open = () => Package.open(bytes, 'a DOCX document');
	const mainLength = (await (await open()).bytes('word/document.xml'))!.length;

	/** What nobody can do without: parsing the main part with the XML library, its events thrown away, and a new package. */
	const conform = async (parses: number) => {
		const archive = await open();
		const text = (await archive.text('word/document.xml'))!;
		for (let i = 0; i < parses; i++) new SaxesParser({ xmlns: true }).write(text).close();
		await archive.rewrite(new Map([['word/document.xml', text]]));
	};
	let tables = 0;
	const apply = async (readBack: boolean) => {
		const document = await readDocx(bytes);
		tables = document.tables.length;
		const jobs = document.tables.map(({ index, table }) => ({ index, table, style }));
		return writeDocx(document, jobs, { house: FIRST_HOUSE, find, readBack });
	};
	const base = median(await timed(() => conform(1), 7, 2));
	const twice = median(await timed(() => conform(2), 3, 1));
	const styled = median(await timed(() => apply(false), 7, 2));
	const proved = median(await timed(() => apply(true), 3, 0));
	const megabytes = mainLength / 2 ** 20;
	report(
		`apply to ${tables} tables of a DOCX (${megabytes.toFixed(1)} MB main part), against parsing and rewriting it`,
		styled,
		base,
		2,
		`${styled.toFixed(0)} ms against ${base.toFixed(0)} ms, ${((1000 * tables) / styled).toFixed(0)} tables/s, ${((1000 * megabytes) / styled).toFixed(1)} MB/s`
	);
	report(
		'the same with the read-back, against two parses and rewriting',
		proved,
		twice,
		2,
		`${proved.toFixed(0)} ms against ${twice.toFixed(0)} ms`
	);

	await benchReading(bytes);

	const { needed, idle } = smallestHeaps(bytes);
	report(
		'smallest heap it can be done in (less what an idle program needs), against the uncompressed main part',
		(needed - idle) * 2 ** 20,
		mainLength,
		12,
		`${needed} MB less ${idle} MB`
	);
}

/** Reading all tables with their looks and what their rows and columns are, against the time mammoth takes to convert the same DOCX. */
async function benchReading(bytes: Uint8Array<ArrayBuffer>): Promise<void> {
	const buffer = Buffer.from(bytes);
	const converted = median(await timed(() => mammoth.convertToHtml({ buffer }), 3, 1));
	const document = await readDocx(bytes);
	const odt = await makeOdt(document);
	const html = new TextEncoder().encode(makeHtml(document, 'bench'));
	// A reader works out what it is asked for.
	const whole = (opened: { tables: readonly { appearance: unknown; table: unknown }[] }) =>
		opened.tables.reduce((count, { appearance, table }) => count + (appearance && table ? 1 : 0), 0);
	for (const [name, read] of [
		['DOCX', () => readDocx(bytes).then(whole)],
		['ODT', () => readOdt(odt).then(whole)],
		['HTML', () => whole(readHtml(html))]
	] as const) {
		const own = median(await timed(read, 5, 1));
		report(
			`read ${document.tables.length} tables of the ${name} with all their looks and roles, against mammoth converting the DOCX`,
			own,
			converted,
			1 / 3,
			`${own.toFixed(0)} ms against ${converted.toFixed(0)} ms`
		);
	}
}

/** The smallest old-space heaps, in MB, in which a child process applies the style, and in which it just starts. */
function smallestHeaps(bytes: Uint8Array): { needed: number; idle: number } {
	const folder = mkdtempSync(join(tmpdir(), 'heptarch-bench-'));
	try {
		const file = join(folder, 'large.docx');
		writeFileSync(file, bytes);
		const tiny = join(folder, 'tiny.docx');
		writeFileSync(tiny, '');
		const finishes = (heap: number, path: string) =>
			spawnSync(process.execPath, [`--max-old-space-size=${heap}`, process.env.HEPTARCH_APPLY_ONCE!, path], {
				stdio: 'ignore'
			}).signal === null;
		const smallest = (path: string, from: number, to: number) => {
			let [low, high] = [from, to];
			while (high - low > 1) {
				const middle = Math.floor((low + high) / 2);
				if (finishes(middle, path)) high = middle;
				else low = middle;
			}
			return high;
		};
		// An empty file ends with an error as soon as everything is loaded; only running out of memory ends by a signal.
		return { needed: smallest(file, 16, 256), idle: smallest(tiny, 2, 64) };
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}
