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
