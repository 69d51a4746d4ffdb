import { InputError } from '../core/errors.ts';
import { tableToFile } from '../core/table/file.ts';
import type { LookField } from '../core/cascade/look.ts';
import type { Paper } from '../core/layout/paper.ts';
import { styleCss } from '../core/share/css.ts';
import { createGrid, textAt, type Table } from '../core/table/grid.ts';
import { canonicalStyle } from '../core/style/canonical.ts';
import { selfContained } from '../core/style/export.ts';
import {
	compare,
	givesStyle,
	prepare,
	tallyOf,
	type Account,
	type Prepared,
	type StyleJob,
	type Tally,
	type WriteOptions,
	type Written
} from './account.ts';
import { writeRows } from './csv/parse.ts';
import { remakeCsv } from './csv/remake.ts';
import { readCsv, type CsvDocument } from './csv/read.ts';
import type { DocumentKind, OpenDocument } from './document.ts';
import { makeDocx } from './docx/make.ts';
import { remakeDocx } from './docx/remake.ts';
import { readDocx, type DocxDocument } from './docx/read.ts';
import { writeDocx } from './docx/write.ts';
import { cellsIn, flowOf } from './flow.ts';
import { checkMakeable } from './limits.ts';
import { makeHtml } from './html/make.ts';
import { remakeHtml } from './html/remake.ts';
import { readHtml, type HtmlDocument } from './html/read.ts';
import { htmlOfRows, isSheetEnough } from './html/rows.ts';
import { lostLeaves, SAYABLE } from './html/properties/index.ts';
import { writeHtml } from './html/write.ts';
import { makeOdt } from './odt/make.ts';
import { remakeOdt } from './odt/remake.ts';
import { readOdt, type OdtDocument } from './odt/read.ts';
import { writeOdt } from './odt/write.ts';
import { reportOf } from './pdf/report.ts';
import { writePdf } from './pdf/write.ts';
import { writeSheetPdf } from './svg/pdf.ts';
import { readJson, type JsonDocument } from './json/read.ts';
import { readSvg, type SvgDocument } from './svg/read.ts';
import { writeSvg } from './svg/write.ts';
import { decodeText } from './package/encoding.ts';
import type { WorkTable } from '../core/work/table.ts';
import { goneWith, indicesAfter, type Remaking } from './remade.ts';
import { newEntry, withWork, worked } from './work.ts';

/** The largest file that is taken in, in bytes; said before and after. */
export const MAX_FILE_BYTES = 50 * 2 ** 20;

export type AnyDocument = DocxDocument | OdtDocument | HtmlDocument | CsvDocument | SvgDocument | JsonDocument;

/** What a document's tables can be written as; those of a document's own kind keep everything else of the file. */
export const OUT_KINDS = ['svg', 'docx', 'odt', 'html', 'pdf', 'css', 'csv', 'json'] as const;
export type OutKind = (typeof OUT_KINDS)[number];

export const MEDIA_TYPES: Readonly<Record<OutKind, string>> = {
	svg: 'image/svg+xml',
	docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	odt: 'application/vnd.oasis.opendocument.text',
	html: 'text/html; charset=utf-8',
	pdf: 'application/pdf',
	css: 'text/css; charset=utf-8',
	csv: 'text/csv; charset=utf-8',
	json: 'application/json'
};

/** Endings that files of a kind have; the first is the usual one. */
export const ENDINGS: Readonly<Record<DocumentKind, readonly string[]>> = {
	docx: ['docx', 'docm', 'dotx'],
	odt: ['odt', 'fodt', 'ott'],
	html: ['html', 'htm', 'xhtml'],
	csv: ['csv', 'tsv', 'tab', 'txt'],
	svg: ['svg', 'svgz'],
	json: ['json']
};
const ENDING = /\.([a-z]+)$/i;
const TABLE_FILE = /\.table\.json$/i;

/** A file's name without the ending that says its kind. */
export function bareName(name: string): string {
	if (TABLE_FILE.test(name)) return name.replace(TABLE_FILE, '');
	const ending = ENDING.exec(name)?.[1]?.toLowerCase();
	return ending && Object.values(ENDINGS).flat().includes(ending) ? name.slice(0, -ending.length - 1) : name;
}

/** What a file is, by its bytes; its name decides only between formats that look alike. */
export function kindOf(bytes: Uint8Array, name: string): DocumentKind {
	const ending = ENDING.exec(name)?.[1]?.toLowerCase() ?? '';
	const named = (Object.keys(ENDINGS) as DocumentKind[]).find((kind) => ENDINGS[kind].includes(ending));
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4_096));
	if (head.startsWith('PK'))
		return /application\/vnd\.oasis\.opendocument/.test(head) || named === 'odt' ? 'odt' : 'docx';
	if (bytes[0] === 0xd0 && bytes[1] === 0xcf) return 'docx';
	if (/<(?:\w+:)?svg[\s>]/.test(head) && !/<html[\s>]/i.test(head)) return 'svg';
	if (/<office:document\b|urn:oasis:names:tc:opendocument/.test(head)) return 'odt';
	if (named) return named;
	const text = decodeText(bytes.subarray(0, 4_096)).text;
	if (/^\s*[[{]/.test(text) && text.includes('heptarch-table')) return 'json';
	return /^\s*<(!doctype|html|table|head|body|meta)\b/i.test(text) ? 'html' : 'csv';
}

/** Opens a document. Throws InputError saying what is wrong, where, and what to do. */
export async function openDocument(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<AnyDocument> {
	if (bytes.length > MAX_FILE_BYTES)
		throw new InputError(
			'too-large',
			`“${name}” is ${Math.ceil(bytes.length / 2 ** 20)} MB; files up to ${MAX_FILE_BYTES / 2 ** 20} MB are taken.`,
			name
		);
	if (bytes.length === 0) throw new InputError('empty', `“${name}” is empty.`, name);
	switch (kindOf(bytes, name)) {
		case 'docx':
			return readDocx(bytes);
		case 'odt':
			return readOdt(bytes);
		case 'html':
			return readHtml(bytes);
		case 'csv':
			return readCsv(bytes);
		case 'svg':
			return readSvg(bytes);
		case 'json':
			return readJson(bytes);
	}
}

/** Gives styles to tables of a document in its own format; everything else in the file stays as it came. */
export async function writeStyled(
	document: AnyDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions
): Promise<Written> {
	switch (document.kind) {
		case 'docx':
			return writeDocx(document, jobs, options);
		case 'odt':
			return writeOdt(document, jobs, options);
		case 'html':
			return writeHtml(document, jobs, options);
		case 'svg':
			return writeSvg(document, jobs, options);
		case 'csv':
			return {
				bytes: new Uint8Array(document.source.bytes),
				account: plainAccount(document, prepare(document, jobs, options), noLooks)
			};
		case 'json':
			return writeJson(
				document,
				jobs,
				options,
				document.tables.map(({ index }) => index)
			);
	}
}

/**
 * A document in which some tables are as they were worked on, with new ones, and without those that are `gone`, by the
 * index that they have in the file. In a file that holds more than tables
 * their markup is made anew and all else stays; the document is then what is read from that file. Works are by the
 * index that tables have now; the new ones are among them.
 */
export async function withWorks(
	document: AnyDocument,
	works: ReadonlyMap<number, WorkTable>,
	added: readonly { readonly after: number }[] = [],
	gone: readonly number[] = []
): Promise<AnyDocument> {
	if (document.kind === 'svg') return document;
	if (document.kind === 'json') {
		const tables = document.tables
			.filter(({ index }) => !gone.includes(index))
			.map((entry, index) => ({ ...entry, index }));
		return {
			...document,
			blocks: tables.map(({ index }) => ({ kind: 'table', index })),
			tables: tables.map((entry) => {
				const own = works.get(entry.index);
				return own ? withWork(entry, own) : entry;
			})
		};
	}
	const allGone = goneWith(document.tables, gone);
	const { of, moved } = indicesAfter(document, added, allGone);
	const remaking: Remaking = {
		works: new Map(
			document.tables.flatMap(({ index }) => {
				const own = works.get(moved(index) ?? -1);
				return own ? [[index, own] as const] : [];
			})
		),
		added: added.flatMap(({ after }, i) => {
			const work = works.get(of[i]!);
			return work ? [{ after, entry: newEntry(work, of[i]!) }] : [];
		}),
		gone: allGone
	};
	const again = await remade(document, remaking);
	return {
		...again,
		tables: again.tables.map((entry) => {
			const own = works.get(entry.index);
			return own ? worked(entry, own) : entry;
		})
	};
}

/** Reads a document again after its tables were made anew: tables inside cells of others after those. */
async function remade(document: AnyDocument, { works, added, gone }: Remaking): Promise<AnyDocument> {
	const isNested = (index: number) => document.tables[index]!.place.where === 'nested';
	const outer = new Map([...works].filter(([index]) => !isNested(index)));
	let now = document;
	if (outer.size || added.length || gone.size) now = await remadeOnce(now, { works: outer, added, gone });
	const { moved } = indicesAfter(document, added, gone);
	for (const [index, work] of works)
		if (isNested(index))
			now = await remadeOnce(now, { works: new Map([[moved(index)!, work]]), added: [], gone: new Set() });
	return now;
}
async function remadeOnce(document: AnyDocument, remaking: Remaking): Promise<AnyDocument> {
	switch (document.kind) {
		case 'docx':
			return readDocx(await remakeDocx(document, remaking));
		case 'odt':
			return readOdt(await remakeOdt(document, remaking));
		case 'html':
			return readHtml(remakeHtml(document, remaking));
		case 'csv':
			return readCsv(remakeCsv(document, remaking.works.get(0)!));
		default:
			return document;
	}
}

/** An account of tables that are written without a way for their looks to be read back. */
const plainAccount = (
	document: OpenDocument,
	prepared: readonly Prepared[],
	tally: (one: Prepared) => Tally,
	remarks: readonly string[] = []
): Account => ({
	tables: prepared.map((one) => tally(one).account(one, [])),
	remarks: [...document.remarks, ...remarks]
});

/** Rows have no looks: the account says so. */
const noLooks = (one: Prepared): Tally =>
	tallyOf(one, (look) => (Object.keys(look) as LookField[]).map((leaf) => ({ leaf, what: 'looks of any kind' })));

/** The tables of a document as rows (RFC 4180), with an empty line between tables. */
export function rowsOf(tables: readonly Table[]): string {
	return tables
		.map((table) =>
			writeRows(
				Array.from({ length: table.rows }, (_, r) =>
					Array.from({ length: table.columns }, (_, c) => textAt(table, r, c))
				)
			)
		)
		.join('\r\n');
}

export interface WriteAsOptions extends WriteOptions {
	/** What the document is called. */
	readonly title: string;
	/** Only these tables, in a new file; by index. */
	readonly only?: readonly number[] | undefined;
	/** What a report is printed on. */
	readonly paper?: Paper | undefined;
}

/**
 * A document's headings, text and tables in any format: in its own, everything else of the file stays; in another, or
 * for some of its tables only, a new file is made. Tables without a job look as they do in their file.
 */
export async function writeAs(
	kind: OutKind,
	document: AnyDocument,
	jobs: readonly StyleJob[],
	options: WriteAsOptions
): Promise<Written> {
	const { only, title } = options;
	const absent = only?.find((index) => !document.tables[index]);
	if (absent !== undefined)
		throw new InputError('table', `There is no table ${absent + 1}: the document has ${document.tables.length}.`);
	if (kind === document.kind && !only) return writeStyled(document, jobs, options);
	const flow = flowOf(document, only);
	const part: Pick<OpenDocument, 'blocks' | 'tables'> = { blocks: flow.blocks, tables: document.tables };
	const wearing = new Map(jobs.map((job) => [job.index, job]));
	const worn = flow.order.flatMap((index) => wearing.get(index) ?? []);
	const text = (written: string) => new TextEncoder().encode(written);
	if (kind === 'docx' || kind === 'odt' || kind === 'pdf')
		checkMakeable(cellsIn(document, flow.order), kind.toUpperCase());
	switch (kind) {
		case 'docx':
		case 'odt':
		case 'html': {
			const rows = kind === 'html' ? plainRows(document, worn, options) : undefined;
			if (rows) return writeRowsAsHtml(rows, options);
			const bytes =
				kind === 'docx' ? await makeDocx(part) : kind === 'odt' ? await makeOdt(part) : text(makeHtml(part, title));
			if (worn.length === 0) return { bytes, account: { tables: [], remarks: document.remarks } };
			const moved = worn.map((job) => ({ ...job, index: flow.order.indexOf(job.index) }));
			const written = await writeStyled(await openDocument(bytes, `made.${kind}`), moved, options);
			const tables = written.account.tables.map((table) => ({ ...table, index: flow.order[table.index]! }));
			return { ...written, account: { ...written.account, tables } };
		}
		case 'svg':
			throw new InputError(
				'format',
				only
					? 'Tables of a drawing go out alone as DOCX, ODT, HTML, PDF, CSV or JSON; as SVG the whole drawing does.'
					: 'Only a drawing goes out as SVG. Place the table on a sheet to have it in one.'
			);
		case 'pdf': {
			if (document.kind === 'svg' && !only) {
				const prepared = prepare(document, worn, options);
				const { bytes, remarks } = await writeSheetPdf(document, prepared, title);
				return { bytes, account: plainAccount(document, prepared, (one) => tallyOf(one, () => []), remarks) };
			}
			const prepared = prepare(document, worn, options);
			const report = reportOf(part, prepared, options);
			const { bytes, remarks } = await writePdf(report);
			const whole = (one: Prepared) => tallyOf(one, () => []);
			return { bytes, account: plainAccount(document, prepared, whole, remarks) };
		}
		case 'css': {
			const prepared = prepare(document, worn, options);
			if (prepared.length === 0)
				throw new InputError('no-style', 'No table here wears a house style, so there is no style sheet to write.');
			const styles = new Map(
				prepared.flatMap(({ job, resolved: { style } }) => (givesStyle(job) ? [[style.name, style]] : []))
			);
			const sheet = [...styles.values()].map((style) => styleCss(style, options.house)).join('\n');
			return {
				bytes: text(sheet),
				account: plainAccount(document, prepared, (one) => tallyOf(one, lostLeaves, new Map()), sheetRemarks(prepared))
			};
		}
		case 'csv':
			return {
				bytes: text(`\ufeff${rowsOf(flow.order.map((index) => document.tables[index]!.table))}`),
				account: plainAccount(document, prepare(document, worn, options), noLooks)
			};
		case 'json':
			return writeJson(document, jobs, options, flow.order);
	}
}

/** Tables as table files, one alone or a list, with the styles that they wear and all that the bench knows of them. */
function writeJson(
	document: AnyDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions,
	order: readonly number[]
): Written {
	const wearing = new Map(jobs.map((job) => [job.index, job]));
	const tables = order.map((index) => {
		const { table, place, work } = document.tables[index]!;
		const job = wearing.get(index);
		const style = job && givesStyle(job) ? selfContained(job.style, options.house, options.find) : undefined;
		return tableToFile(job?.table ?? table, {
			number: index + 1,
			place,
			wears: style?.name ?? null,
			...(place.caption && { title: place.caption }),
			...(style && { style: canonicalStyle(style) }),
			...(work && { work })
		});
	});
	return {
		bytes: new TextEncoder().encode(
			JSON.stringify(tables.length === 1 && document.kind === 'json' ? tables[0] : tables, null, 2)
		),
		account: plainAccount(document, prepare(document, jobs, options), (one) => tallyOf(one, () => []))
	};
}

/** What a style sheet leaves out of these tables. */
function sheetRemarks(prepared: readonly Prepared[]): string[] {
	const touched = prepared.filter(({ job }) => job.table.touches.length > 0).length;
	const isRuled = prepared.some(({ resolved }) => resolved.style.rules.length > 0);
	return [
		...(touched
			? [
					`A style sheet says nothing of single cells: the touches of ${touched} ${touched === 1 ? 'table' : 'tables'} are left out.`
				]
			: []),
		...(isRuled ? ['CSS has no conditions: a cell rule is a class, to be put on the cells that it is for.'] : [])
	];
}

/** Rows with a style that a style sheet says whole: they can be written piece by piece. */
function plainRows(document: AnyDocument, jobs: readonly StyleJob[], options: WriteAsOptions) {
	const [entry] = document.tables;
	if (document.kind !== 'csv' || !entry) return undefined;
	const [one] = prepare(document, jobs, options);
	return one && isSheetEnough(one, options.as ?? 'living') ? { document, entry, one } : undefined;
}
type PlainRows = NonNullable<ReturnType<typeof plainRows>>;

/** A document of rows as a page in pieces, where a style sheet says all of its look; undefined where it does not. */
export function streamHtml(
	document: AnyDocument,
	jobs: readonly StyleJob[],
	options: WriteAsOptions
): Generator<string> | undefined {
	const rows = plainRows(document, jobs, options);
	return rows && htmlOfRows(rows.document, rows.entry, rows.one, options.title, options);
}

/** So many rows of a list are read back; all of them look like these. */
const READ_BACK_ROWS = 2_000;

async function writeRowsAsHtml({ document, entry, one }: PlainRows, options: WriteAsOptions): Promise<Written> {
	const text = [...htmlOfRows(document, entry, one, options.title, options)].join('');
	const bytes = new TextEncoder().encode(text);
	const { table } = one.job;
	const isLong = table.rows > READ_BACK_ROWS;
	const part = isLong ? firstRows(table, READ_BACK_ROWS) : table;
	const [checked] = isLong
		? prepare({ ...document, tables: [{ ...entry, table: part }] }, [{ ...one.job, table: part }], options)
		: [one];
	const back = isLong
		? readHtml(new TextEncoder().encode([...htmlOfRows(document, entry, checked!, options.title, options)].join('')))
		: readHtml(bytes);
	const differences =
		options.readBack === false ? [] : compare(part, checked!.wanted, back.tables[0]!.appearance, SAYABLE);
	const remarks = isLong
		? [
				`The first ${READ_BACK_ROWS.toLocaleString('en')} of ${table.rows.toLocaleString('en')} rows were read back; the others are written in the same way.`
			]
		: [];
	const account = tallyOf(one, lostLeaves, new Map()).account(one, differences);
	return { bytes, account: { tables: [account], remarks: [...document.remarks, ...remarks] } };
}

/** The head of a table without merged cells. */
function firstRows(table: Table, rows: number): Table {
	const texts = Array.from({ length: rows }, (_, r) =>
		Array.from({ length: table.columns }, (_, c) => textAt(table, r, c))
	);
	return { ...table, ...createGrid(texts), roles: table.roles.slice(0, rows), touches: [] };
}
