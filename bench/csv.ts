import { readCsv } from '../src/lib/formats/csv/read.ts';
import { openDocument, streamHtml } from '../src/lib/formats/index.ts';
import { FIRST_HOUSE } from '../src/lib/core/house.ts';
import { packTable, unpackTable } from '../src/lib/workbench/packed.ts';
import { DEMO_STYLES } from '../demo/styles/index.ts';
import { median, timed } from './measure.ts';

const ROWS = 100_000;

/** A list of 100,000 rows by 12 columns. */
export function longList(): Uint8Array<ArrayBuffer> {
	const rows = ['Lot,Seed,Bed,Collected,Packets,Weight g,Price,Sown,Up,Rate,Note,Keeper'];
	for (let i = 0; i < ROWS; i++)
		rows.push(
			`TX-${i},Pale fern ${i % 97},Lily court,2031-0${1 + (i % 9)}-1${i % 9},${i % 40},${(i % 97) / 10},${(i % 60) / 10 + 1}.50,${i % 50},${i % 40},${i % 100} %,,Ada ${i % 13}`
		);
	return new TextEncoder().encode(rows.join('\r\n'));
}

/** Reading a long list with everything recognised, packing it for the page, and writing it as a page in a stream. */
export async function benchCsv(): Promise<void> {
	const bytes = longList();
	const read = median(await timed(() => readCsv(bytes).tables[0]!.table, 3, 1));
	const document = await openDocument(bytes, 'list.csv');
	const [entry] = document.tables;
	// As it arrives: where it was packed, it need not be unpacked.
	const packed = structuredClone(packTable(entry!));
	const unpack = median(await timed(() => unpackTable(packed), 3, 1));
	const find = (name: string) => DEMO_STYLES.find((style) => style.name === name);
	const jobs = [{ index: 0, table: entry!.table, style: find('Season Ledger')! }];
	const start = performance.now();
	let first = 0;
	let length = 0;
	for (const piece of streamHtml(document, jobs, { house: FIRST_HOUSE, find, title: 'list' })!) {
		first ||= performance.now() - start;
		length += piece.length;
	}
	const streamed = performance.now() - start;
	const megabytes = (size: number) => (size / 2 ** 20).toFixed(1);
	console.log(
		`        CSV of ${ROWS.toLocaleString('en')} × 12 (${megabytes(bytes.length)} MB): read and recognised in ${read.toFixed(0)} ms, unpacked on the page in ${unpack.toFixed(0)} ms`
	);
	console.log(
		`        and streamed as a styled page of ${megabytes(length)} MB: first piece after ${first.toFixed(0)} ms, all after ${streamed.toFixed(0)} ms`
	);
}
