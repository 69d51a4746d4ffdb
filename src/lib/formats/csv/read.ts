import { InputError } from '../../core/errors.ts';
import { createGrid } from '../../core/table/grid.ts';
import { bareTable } from '../found.ts';
import type { OpenDocument } from '../document.ts';
import { checkSize } from '../limits.ts';
import { decodeText, type EncodedText } from '../package/encoding.ts';
import { findSeparator, parseRows, type Separator } from './parse.ts';

/** Separated values, with what is needed to write them again. */
export interface CsvDocument extends OpenDocument {
	readonly kind: 'csv';
	readonly source: EncodedText;
	readonly separator: Separator;
}

const SEPARATOR_WORDS: Record<Separator, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };

/** Reads CSV or TSV (RFC 4180; encoding and separator are found out). Throws InputError saying what is wrong and where. */
export function readCsv(bytes: Uint8Array): CsvDocument {
	const source = decodeText(bytes);
	if (source.text.includes('\0'))
		throw new InputError('not-text', 'This file holds bytes that no text has, so it is no CSV file. Was it renamed?');
	const separator = findSeparator(source.text);
	const rows = parseRows(source.text, separator).map((row) => row.map((field) => field.replace(/\r\n?/g, '\n').trim()));
	if (rows.length === 0) throw new InputError('empty', 'This file holds no row.');
	// Empty columns at the end, which some writers leave, are no columns.
	const columns = rows.reduce((most, row) => Math.max(most, row.findLastIndex((field) => field !== '') + 1), 1);
	checkSize(rows.length, columns, 'the file');
	const grid = createGrid(rows.map((row) => Array.from({ length: columns }, (_, c) => row[c] ?? '')));
	return {
		kind: 'csv',
		blocks: [{ kind: 'table', index: 0 }],
		tables: [bareTable(grid, 0, { where: 'body', part: 'rows' })],
		styles: [],
		remarks: [
			`${rows.length.toLocaleString('en')} rows, separated by ${SEPARATOR_WORDS[separator]}, encoded as ${source.encoding}. This format has no looks: take it as another format to see the style.`
		],
		source,
		separator
	};
}
