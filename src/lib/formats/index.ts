import { InputError } from '../core/errors.ts';
import { tableToFile } from '../core/table/file.ts';
import { textAt } from '../core/table/grid.ts';
import type { StyleJob, TableAccount, WriteOptions, Written } from './account.ts';
import { formatsLost, prepare } from './account.ts';
import { writeRows } from './csv/parse.ts';
import { readCsv, type CsvDocument } from './csv/read.ts';
import type { DocumentKind, OpenDocument } from './document.ts';
import { makeDocx } from './docx/make.ts';
import { readDocx, type DocxDocument } from './docx/read.ts';
import { writeDocx } from './docx/write.ts';
import { makeHtml } from './html/make.ts';
import { readHtml, type HtmlDocument } from './html/read.ts';
import { writeHtml } from './html/write.ts';
import { makeOdt } from './odt/make.ts';
import { readOdt, type OdtDocument } from './odt/read.ts';
import { writeOdt } from './odt/write.ts';
import { decodeText } from './package/encoding.ts';

/** The largest file that is taken in, in bytes; said before and after. */
export const MAX_FILE_BYTES = 50 * 2 ** 20;

export type AnyDocument = DocxDocument | OdtDocument | HtmlDocument | CsvDocument;

/** What a document's tables can be written as; those of a document's own kind keep everything else of the file. */
export const OUT_KINDS = ['docx', 'odt', 'html', 'csv', 'json'] as const;
export type OutKind = (typeof OUT_KINDS)[number];

export const MEDIA_TYPES: Readonly<Record<OutKind, string>> = {
	docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
	odt: 'application/vnd.oasis.opendocument.text',
	html: 'text/html; charset=utf-8',
	csv: 'text/csv; charset=utf-8',
	json: 'application/json'
};

/** Endings that files of a kind have; the first is the usual one. */
export const ENDINGS: Readonly<Record<DocumentKind, readonly string[]>> = {
	docx: ['docx', 'docm', 'dotx'],
	odt: ['odt', 'fodt', 'ott'],
	html: ['html', 'htm', 'xhtml'],
	csv: ['csv', 'tsv', 'tab', 'txt']
};
const ENDING = /\.([a-z]+)$/i;

/** A file's name without the ending that says its kind. */
export function bareName(name: string): string {
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
	if (/<office:document\b|urn:oasis:names:tc:opendocument/.test(head)) return 'odt';
	if (named) return named;
	const text = decodeText(bytes.subarray(0, 4_096)).text;
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
		case 'csv':
			return { bytes: new Uint8Array(document.source.bytes), account: rowsAccount(document, jobs, options) };
	}
}

/** Rows have no looks: the account says so. */
function rowsAccount(document: OpenDocument, jobs: readonly StyleJob[], options: WriteOptions): Written['account'] {
	const tables = prepare(document, jobs, options).map((one): TableAccount => {
		const lost = one.resolved.leaves.reduce((sum, leaves) => sum + leaves.size, 0) + formatsLost(one);
		return {
			index: one.job.index,
			style: one.job.style.name,
			living: 0,
			direct: 0,
			lost,
			lostWhat: { 'looks of any kind': one.job.table.cells.length },
			differences: []
		};
	});
	return { tables, remarks: document.remarks };
}

/** The tables of a document as rows (RFC 4180), with an empty line between tables. */
export function rowsOf(document: Pick<OpenDocument, 'tables'>): string {
	return document.tables
		.map(({ table }) =>
			writeRows(
				Array.from({ length: table.rows }, (_, r) =>
					Array.from({ length: table.columns }, (_, c) => textAt(table, r, c))
				)
			)
		)
		.join('\r\n');
}

/**
 * A document's headings, text and tables in any format: in its own, everything else of the file stays; in another, a new
 * file is made. Tables without a job look as they do in their file. `title` is the document's name.
 */
export async function writeAs(
	kind: OutKind,
	document: AnyDocument,
	jobs: readonly StyleJob[],
	options: WriteOptions & { readonly title: string }
): Promise<Written> {
	if (kind === document.kind) return writeStyled(document, jobs, options);
	const utf8 = new TextEncoder();
	switch (kind) {
		case 'docx':
		case 'odt':
		case 'html': {
			const bytes =
				kind === 'docx'
					? await makeDocx(document)
					: kind === 'odt'
						? await makeOdt(document)
						: utf8.encode(makeHtml(document, options.title));
			if (jobs.length === 0) return { bytes, account: { tables: [], remarks: document.remarks } };
			return writeStyled(await openDocument(bytes, `made.${kind}`), jobs, options);
		}
		case 'csv':
			return { bytes: utf8.encode(`\ufeff${rowsOf(document)}`), account: rowsAccount(document, jobs, options) };
		case 'json': {
			const styled = new Map(jobs.map((job) => [job.index, job]));
			const tables = document.tables.map(({ index, table, place }) =>
				tableToFile(styled.get(index)?.table ?? table, {
					number: index + 1,
					place,
					wears: styled.get(index)?.style.name ?? null
				})
			);
			return {
				bytes: utf8.encode(JSON.stringify(tables, null, 2)),
				account: rowsAccount(document, jobs, options)
			};
		}
	}
}
