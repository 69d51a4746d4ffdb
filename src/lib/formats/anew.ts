import type { OpenDocument, WholeDocument } from './document.ts';
import { cellsIn } from './flow.ts';
import type { Format, Making } from './format.ts';
import { checkMakeable } from './limits.ts';
import type { Written } from './tally.ts';
import { worked } from './work.ts';

/** A new file of a format that is read and styled like any other: made bare, then given its styles. */
export async function madeAndStyled<D extends OpenDocument>(
	format: Format<D>,
	{ document, flow, jobs, options }: Making,
	bytes: Uint8Array<ArrayBuffer>
): Promise<Written> {
	const works = flow.order.map((index) => document.tables[index]!.work);
	if (jobs.length === 0 && !works.some(Boolean)) return { bytes, account: { tables: [], remarks: document.remarks } };
	const moved = jobs.map((job) => ({ ...job, index: flow.order.indexOf(job.index) }));
	const made = await format.open!(bytes);
	const asWorked = made.tables.map((entry, i) => (works[i] ? worked(entry, works[i]) : entry));
	const written = await format.write!({ ...made, tables: asWorked }, moved, options);
	const tables = written.account.tables.map((table) => ({ ...table, index: flow.order[table.index]! }));
	return { ...written, account: { ...written.account, tables } };
}

/** What of a document goes into a new file; throws InputError where that is more than such a file can hold. */
export function partOf({ document, flow }: Making, kind?: string): WholeDocument {
	if (kind) checkMakeable(cellsIn(document, flow.order), kind.toUpperCase());
	const { tables, language, title } = document;
	return { blocks: flow.blocks, tables, language, title };
}
