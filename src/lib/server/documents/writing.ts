import { plural } from '../../core/words.ts';
import type { Kysely } from 'kysely';
import type { Appearance } from '../../core/cascade/look.ts';
import { drawnPage, type DrawnPage } from '../../core/layout/drawn.ts';
import type { Paper } from '../../core/layout/paper.ts';
import { ONLY_TEXT, OWN_LOOK } from '../../core/style/bare.ts';
import { ASPECTS } from '../../core/style/types.ts';
import type { Account, LeafAccount } from '../../formats/tally.ts';
import type { StyleJob, Travel } from '../../formats/job.ts';
import { prepare } from '../../formats/job.ts';
import type { DocumentTable } from '../../formats/document.ts';
import { cellsIn, flowOf } from '../../formats/flow.ts';
import { checkMakeable } from '../../formats/limits.ts';
import { openDocument, streamHtml, writeAs, type AnyDocument, type OutKind } from '../../formats/index.ts';
import { reportOf } from '../../formats/pdf/report.ts';
import { titleOf, type SvgDocument } from '../../formats/svg/read.ts';
import { layPages, pageRemarks } from '../../formats/pdf/write.ts';
import type { TableState } from '../../workbench/state.ts';
import { stateTable, touchedTable } from '../../workbench/table.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Database } from '../database.ts';
import { fileBytes } from '../files/files.ts';
import { documentRow, stateAt } from './rows.ts';
import { fileAt, openAt } from './open.ts';
import { changesIn } from './record.ts';
import { Wardrobe } from '../styles/editions.ts';
import { loadHouse } from '../house/house.ts';
import { findIn } from '../styles/styles.ts';

/** What is to be written of a document, and how. */
export interface Output {
	/** Absent: its own format. */
	readonly to?: OutKind | undefined;
	readonly as?: Travel | undefined;
	/** Only these tables, in a new file; by index. */
	readonly only?: readonly number[] | undefined;
	readonly paper?: Paper | undefined;
}

/** What a table's state asks of the writer; undefined where it leaves the table as it came. */
function jobOf(entry: DocumentTable, own: TableState | undefined, wardrobe: Wardrobe): StyleJob | undefined {
	const { index } = entry;
	const table = stateTable(entry, own);
	const more = { dropsEmphasis: own?.dropsEmphasis, widths: own?.widths };
	if (own?.cleared)
		return { index, style: ONLY_TEXT, table: { ...table, carry: ASPECTS, partsOff: [], touches: [] }, ...more };
	const style = own && wardrobe.definition(own);
	if (style) return { index, style, table, ...more };
	const touched = touchedTable(entry, own);
	return touched && { index, style: OWN_LOOK, table: touched };
}

/** A document with what its tables are to wear now. */
async function dressed(db: Kysely<Database>, id: string) {
	const found = await documentRow(db, id);
	const state = await stateAt(db, id, found.step);
	const document = await openAt(db, found, state);
	const wardrobe = await Wardrobe.load(db);
	const jobs = document.tables.flatMap((entry) => jobOf(entry, state.tables[entry.index], wardrobe) ?? []);
	const options = { house: await loadHouse(db), find: findIn(wardrobe.styles), title: found.name };
	return { found, document, state, jobs, options };
}

/**
 * Writes the document as it stands: in its own format every table that wears a style, everything else as it came; in
 * another format a new file of its headings, text and tables.
 */
export async function writeDocument(
	db: Kysely<Database>,
	id: string,
	{ to, as = 'living', only, paper }: Output = {}
): Promise<{ name: string; kind: OutKind; bytes: Uint8Array<ArrayBuffer>; account: Account }> {
	const { found, document, state, jobs, options } = await dressed(db, id);
	const kind = to ?? document.kind;
	const name = only?.length === 1 ? `${found.name}, table ${only[0]! + 1}` : found.name;
	const isWorkedOn =
		state.added?.length || state.gone?.length || Object.values(state.tables).some(({ work }) => work !== undefined);
	if (jobs.length === 0 && kind === document.kind && !only && !state.drawing && !isWorkedOn)
		return {
			name,
			kind,
			bytes: await fileBytes(db, fileAt(found, state)),
			account: { tables: [], remarks: [...document.remarks, ...(document.ownRemarks ?? [])] }
		};
	const { bytes, account } = await writeAs(kind, document, jobs, { ...options, as, only, paper, title: name });
	const remarks = [
		...account.remarks,
		...(document.kind === 'svg' ? await behindRemarks(db, document, found.name, only) : [])
	];
	return { name, kind, bytes, account: { ...account, remarks } };
}

/** Which of a drawing's tables are behind it, wherever they go. */
async function behindRemarks(
	db: Kysely<Database>,
	document: SvgDocument,
	name: string,
	only: readonly number[] | undefined
): Promise<string[]> {
	const behind = await changesIn(db, document, name);
	return behind.flatMap(({ changes }, index) =>
		changes.length && (!only || only.includes(index))
			? [`“${titleOf(document.placed[index]!)}” is ${plural(changes.length, 'change')} behind its drawing.`]
			: []
	);
}

/** The document's file as it stands, in a stream where it can be long. */
export async function fileOf(
	db: Kysely<Database>,
	id: string,
	output: Output
): Promise<{ name: string; kind: OutKind; body: Uint8Array<ArrayBuffer> | ReadableStream<Uint8Array> }> {
	if (output.to === 'html' && !output.only) {
		const { found, document, jobs, options } = await dressed(db, id);
		const pieces = streamHtml(document, jobs, { ...options, as: output.as ?? 'living' });
		if (pieces) return { name: found.name, kind: 'html', body: streamed(pieces) };
	}
	const { name, kind, bytes } = await writeDocument(db, id, output);
	return { name, kind, body: bytes };
}

/** Text as a stream that makes the next piece when it is asked for. */
function streamed(pieces: Generator<string>): ReadableStream<Uint8Array> {
	const utf8 = new TextEncoder();
	return new ReadableStream({
		pull(controller) {
			const { value, done } = pieces.next();
			if (done) controller.close();
			else controller.enqueue(utf8.encode(value));
		}
	});
}

/** The pages of a document as its PDF has them. */
export async function printDocument(db: Kysely<Database>, id: string, { only, paper }: Output) {
	const { found, document, jobs, options } = await dressed(db, id);
	const report = await reportFor(document, jobs, { ...options, only, paper });
	const pages = layPages(report);
	return { id, name: found.name, pages: pages.map(drawnPage), remarks: pageRemarks(report, pages) };
}

async function reportFor(
	opened: AnyDocument,
	jobs: readonly StyleJob[],
	options: Parameters<typeof prepare>[2] & { title: string; only?: Output['only']; paper?: Paper | undefined }
) {
	const document = opened.whole ? { ...opened, ...(await opened.whole()) } : opened;
	const { blocks, order } = flowOf(document, options.only);
	checkMakeable(cellsIn(document, order), 'PDF');
	const worn = jobs.filter(({ index }) => order.includes(index));
	return reportOf({ ...document, blocks }, prepare(document, worn, options), options);
}

/** One table as a format shows it, read back from a file of that format. */
export interface FormatView {
	readonly kind: 'docx' | 'odt' | 'html' | 'pdf' | 'csv';
	/** Absent for rows, and for a page, which is drawn. */
	readonly appearance?: Appearance;
	readonly page?: DrawnPage;
	readonly leaves: readonly LeafAccount[];
	readonly lostWhat: Readonly<Record<string, number>>;
	readonly differences: number;
}

/** One table's look in all formats: each written, and read again by that format's own rules. */
export async function formatViews(db: Kysely<Database>, id: string, index: number) {
	const { found, document, jobs, options } = await dressed(db, id);
	const entry = document.tables[index];
	if (!entry) throw new NotFoundError(`There is no table ${index + 1}: the document has ${document.tables.length}.`);
	const job = jobs.find((one) => one.index === index);
	const wanted = job ? prepare(document, [job], options)[0]!.wanted : entry.appearance;
	const views: FormatView[] = [];
	for (const kind of ['docx', 'odt', 'html', 'pdf', 'csv'] as const) {
		const { bytes, account } = await writeAs(kind, document, jobs, { ...options, only: [index] });
		const own = account.tables[0];
		views.push({
			kind,
			...(kind === 'pdf'
				? { page: drawnPage(layPages(await reportFor(document, jobs, { ...options, only: [index] }))[0]!) }
				: kind !== 'csv' && { appearance: (await openDocument(bytes, `one.${kind}`)).tables[0]!.appearance }),
			leaves: own?.leaves ?? [],
			lostWhat: own?.lostWhat ?? {},
			differences: own?.differences.length ?? 0
		});
	}
	return {
		id,
		name: found.name,
		index,
		grid: job?.table ?? entry.table,
		content: entry.content,
		widths: job?.widths?.length ? job.widths : entry.widths,
		place: entry.place,
		style: job?.style.name ?? null,
		tables: document.tables.length,
		wanted,
		views
	};
}
