import { isCovered, type WorkTable } from '../../core/work/table.ts';
import { encodePieces } from '../package/encoding.ts';

import { writeRows } from './parse.ts';
import type { CsvDocument } from './read.ts';

/** The rows of a worked table, with the separator, the line ends and the encoding of the file. */
export function rewriteRowsCsv({ source, separator }: CsvDocument, { rows }: WorkTable): Uint8Array<ArrayBuffer> {
	const text = writeRows(
		rows.map(({ cells }) => cells.map((slot) => (isCovered(slot) ? '' : slot.text))),
		separator
	);
	const hasCr = source.text.includes('\r\n');
	const written = hasCr ? text : text.replaceAll('\r\n', '\n');
	// An encoding of few letters may lack those that were typed: UTF-8 has them all.
	const hasAll = source.encoding.startsWith('utf') || !/[^\x20-\x7e\s]/.test(written);
	return hasAll ? encodePieces(source, [written], () => '?') : new TextEncoder().encode(`\ufeff${written}`);
}
