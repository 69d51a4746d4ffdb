import { FIRST_HOUSE } from '../src/lib/core/house.ts';
import { readDocx } from '../src/lib/formats/docx/read.ts';
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

	const rewrite = async () => {
		const archive = await open();
		await archive.rewrite(new Map([['word/document.xml', (await archive.text('word/document.xml'))!]]));
	};
	let tables = 0;
	const apply = async (readBack: boolean) => {
		const document = await readDocx(bytes);
		tables = document.tables.length;
		const jobs = document.tables.map(({ index, table }) => ({ index, table, style }));
		return writeDocx(document, jobs, { house: FIRST_HOUSE, find, readBack });
	};
	const base = median(await timed(rewrite, 7, 2));
	const styled = median(await timed(() => apply(false), 7, 2));
	const proved = median(await timed(() => apply(true), 3, 0));
	const megabytes = mainLength / 2 ** 20;
	report(
		`apply to ${tables} tables of a DOCX (${megabytes.toFixed(1)} MB main part), against rewriting the package`,
		styled,
		base,
		3,
		`${styled.toFixed(0)} ms against ${base.toFixed(0)} ms, ${((1000 * tables) / styled).toFixed(0)} tables/s, ${((1000 * megabytes) / styled).toFixed(1)} MB/s`
	);
	console.log(`        with the read-back: ratio ${(proved / base).toFixed(2)}, ${proved.toFixed(0)} ms`);

	// Peak memory over what was in use before, sampled while it runs.
	globalThis.gc?.();
	const before = process.memoryUsage();
	let peak = 0;
	const sample = () => {
		const now = process.memoryUsage();
		peak = Math.max(peak, now.heapUsed - before.heapUsed + (now.arrayBuffers - before.arrayBuffers));
	};
	const timer = setInterval(sample, 2);
	await apply(false);
	clearInterval(timer);
	sample();
	report(
		'peak memory while applying, against the uncompressed main part',
		peak,
		mainLength,
		12,
		`${(peak / 2 ** 20).toFixed(0)} MB`
	);
}
