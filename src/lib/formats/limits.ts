import { InputError } from '../core/errors.ts';

/** A table may have this many slots, rows × columns; spans of broken files ask for far more. */
const MAX_SLOTS = 4_000_000;
/** Wider than any table that somebody reads. */
const MAX_COLUMNS = 16_384;

/** Throws InputError for a table too large to be one. */
export function checkSize(rows: number, columns: number, where: string): void {
	if (rows * columns > MAX_SLOTS || columns > MAX_COLUMNS)
		throw new InputError(
			'too-large',
			`A table of ${rows.toLocaleString('en')} rows and ${columns.toLocaleString('en')} columns is more than can be styled (${MAX_SLOTS.toLocaleString('en')} cells, ${MAX_COLUMNS.toLocaleString('en')} columns).`,
			where
		);
}

/** A new file, page by page or in one part of XML, is made of so many cells at most. */
const MOST_MADE = 250_000;

/** Throws InputError for tables that are too long to be laid out or made anew; rows go out as HTML, CSV and JSON at any length. */
export function checkMakeable(cells: number, format: string): void {
	if (cells > MOST_MADE)
		throw new InputError(
			'too-long',
			`${cells.toLocaleString('en')} cells are too many for a new ${format} (at most ${MOST_MADE.toLocaleString('en')}). Take them as HTML, CSV or JSON.`
		);
}
