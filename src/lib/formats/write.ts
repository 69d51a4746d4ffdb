import { InputError } from '../core/errors.ts';
import type { OpenDocument } from './document.ts';
import { flowOf } from './flow.ts';
import type { WriteAsOptions } from './format.ts';
import { FORMATS, formatOf } from './formats.ts';
import { htmlOfRows, plainRows } from './html/rows.ts';
import { broughtAlong, leftBehind } from './along.ts';
import type { HeldKind } from './held.ts';
import type { StyleJob, WriteOptions } from './job.ts';
import type { OutKind } from './kinds.ts';
import type { Written } from './tally.ts';

/** Gives styles to tables of a document in its own format; everything else in the file stays as it came. */
export const writeStyled = async (
	document: OpenDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions
): Promise<Written> => formatOf(document).write!(document, jobs, options);

/**
 * A document's headings, text and tables in any format: in its own, everything else of the file stays; in another, or
 * for some of its tables only, a new file is made. Tables without a job look as they do in their file.
 */
export async function writeAs(
	kind: OutKind,
	document: OpenDocument,
	jobs: readonly StyleJob[],
	options: WriteAsOptions
): Promise<Written> {
	const { only } = options;
	const absent = only?.find((index) => !document.tables[index]);
	if (absent !== undefined)
		throw new InputError('table', `There is no table ${absent + 1}: the document has ${document.tables.length}.`);
	if (kind === document.kind && !only) return writeStyled(document, jobs, options);
	const format = FORMATS[kind];
	if (!format.make)
		throw new InputError('format', format.whyNot?.(!!only) ?? `No new file is made as ${kind.toUpperCase()}.`);
	if (!document.whole || !format.brings) return madeOf(document, format, jobs, options);
	return madeOf({ ...document, ...(await document.whole()) }, format, jobs, options);
}

/** A new file of a document, with what of it does not come along among the remarks. */
async function madeOf(
	document: OpenDocument,
	format: (typeof FORMATS)[OutKind],
	jobs: readonly StyleJob[],
	options: WriteAsOptions
): Promise<Written> {
	const flow = flowOf(document, options.only);
	const wearing = new Map(jobs.map((job) => [job.index, job]));
	const worn = flow.order.flatMap((index) => wearing.get(index) ?? []);
	const written = await format.make!({ document, flow, jobs: worn, options });
	const held = document.held?.(options.only) ?? new Map<HeldKind, number>();
	const brought = held.size && format.brings ? broughtAlong(document.tables, flow) : new Map<HeldKind, number>();
	for (const kind of format.leaves ?? []) brought.delete(kind);
	const remarks = leftBehind(held, brought);
	return { ...written, account: { ...written.account, remarks: [...written.account.remarks, ...remarks] } };
}

/** A document of rows as a page in pieces, where a style sheet says all of its look; undefined where it does not. */
export function streamHtml(
	document: OpenDocument,
	jobs: readonly StyleJob[],
	options: WriteAsOptions
): Generator<string> | undefined {
	const rows = plainRows(document, jobs, options);
	return rows && htmlOfRows(rows.document, rows.entry, rows.one, options.title, options);
}
