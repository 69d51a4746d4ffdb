import { InputError } from '../core/errors.ts';

/**
 * What a document may hold, in whatever format it comes: of one table its rows, columns and slots (rows × columns; spans of
 * broken files ask for far more), of a text part its letters, of all tables their number and slots.
 */
export const BUDGET = {
	rows: 250_000,
	columns: 2_000,
	slots: 2_000_000,
	letters: 64 * 2 ** 20,
	tables: 10_000,
	allSlots: 3_000_000
} as const;

const tooLarge = (what: string, have: number, most: number, where: string) =>
	new InputError(
		'too-large',
		`${what} ${have.toLocaleString('en')}; up to ${most.toLocaleString('en')} are taken. Nothing of it was added.`,
		where
	);

/** Throws InputError for a table over the budget; while one is read, with what it has so far. */
export function checkSize(rows: number, columns: number, where: string): void {
	if (rows > BUDGET.rows) throw tooLarge('The rows of a table are more than can be styled:', rows, BUDGET.rows, where);
	if (columns > BUDGET.columns)
		throw tooLarge('The columns of a table are more than can be styled:', columns, BUDGET.columns, where);
	if (rows * columns > BUDGET.slots)
		throw tooLarge(
			`A table of ${rows.toLocaleString('en')} rows and ${columns.toLocaleString('en')} columns is more than can be styled: its cells would be`,
			rows * columns,
			BUDGET.slots,
			where
		);
}

/** Throws InputError for a text that is longer than a document's can be, before anything is made of it. */
export function checkLetters(letters: number, where: string): void {
	if (letters > BUDGET.letters)
		throw tooLarge(`The text of “${where}” is longer than can be read, in letters:`, letters, BUDGET.letters, where);
}

/** Throws InputError for tables that are too many, or have too much in them together. */
export function checkTables(
	tables: readonly { readonly table: { readonly rows: number; readonly columns: number } }[]
): void {
	if (tables.length > BUDGET.tables)
		throw tooLarge('The tables of this document are too many:', tables.length, BUDGET.tables, 'the document');
	const slots = tables.reduce((sum, { table }) => sum + table.rows * table.columns, 0);
	if (slots > BUDGET.allSlots)
		throw tooLarge('All tables of this document have too many cells:', slots, BUDGET.allSlots, 'the document');
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
