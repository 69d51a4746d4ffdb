import { InputError } from '../../core/errors.ts';
import { decodeText } from '../package/encoding.ts';
import { findSeparator, parseRows } from '../csv/parse.ts';
import { readOds } from './ods.ts';
import { evened, type Sheet } from './sheet.ts';
import { readXlsx } from './xlsx.ts';

/** The kinds of files that rows are taken from, by their endings. */
export const SHEET_ENDINGS = ['csv', 'tsv', 'txt', 'xlsx', 'ods'] as const;

/** Reads the rows of a CSV, TSV, XLSX or ODS file. Throws InputError for any other, and for one that cannot be read. */
export async function readSheets(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<Sheet[]> {
	const ending = name.split('.').at(-1)!.toLowerCase();
	const isPackage = (bytes[0] === 0x50 && bytes[1] === 0x4b) || (bytes[0] === 0xd0 && bytes[1] === 0xcf);
	if (!SHEET_ENDINGS.some((known) => known === ending) && !isPackage)
		throw new InputError(
			'no-rows',
			`Rows are taken from ${SHEET_ENDINGS.map((one) => one.toUpperCase()).join(', ')} files; “${name}” is none of them.`,
			name
		);
	if (isPackage) return ending === 'ods' ? readOds(bytes) : readXlsx(bytes);
	const { text } = decodeText(bytes);
	return [{ name, isHidden: false, rows: evened(parseRows(text, findSeparator(text)), name), remarks: [] }];
}
