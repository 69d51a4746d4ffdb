import type { Format } from '../format.ts';
import { prepare } from '../job.ts';
import { noLooks, plainAccount } from '../plain.ts';
import { csv as about } from './about.ts';
import { readCsv, type CsvDocument } from './read.ts';
import { rewriteRowsCsv } from './rewrite-rows.ts';
import { rowsOf } from './rows.ts';

export const csv: Format<CsvDocument> = {
	...about,
	// Any text can be rows.
	sniff: () => 1,
	open: readCsv,
	write: (document, jobs, options) => ({
		bytes: new Uint8Array(document.source.bytes),
		account: plainAccount(document, prepare(document, jobs, options), noLooks)
	}),
	make: ({ document, flow, jobs, options }) => ({
		bytes: new TextEncoder().encode(`\ufeff${rowsOf(flow.order.map((index) => document.tables[index]!.table))}`),
		account: plainAccount(document, prepare(document, jobs, options), noLooks)
	}),
	rewriteRows: (document, { works }) => rewriteRowsCsv(document, works.get(0)!)
};
