import { checkLetters, checkSize } from '../limits.ts';

/** Rows that a file holds, by sheet, as text: dates as in ISO 8601, figures with a point, nothing worked out anew. */
export interface Sheet {
	readonly name: string;
	readonly isHidden: boolean;
	/** Each as long as the longest; without empty ones at the end. */
	readonly rows: readonly (readonly string[])[];
	/** What a person should know of it. */
	readonly remarks: readonly string[];
}

/** Rows of one length, without the empty ones at their end. Throws InputError where there are more than can be taken. */
export function evened(rows: readonly (readonly string[])[], where: string): string[][] {
	const isFilled = (row: readonly string[] | undefined) => row?.some((text) => text.trim());
	const end = rows.findLastIndex(isFilled) + 1;
	let width = 0;
	for (let r = 0; r < end; r++) width = Math.max(width, (rows[r] ?? []).findLastIndex((text) => text?.trim()) + 1);
	checkSize(end, width, where);
	// A text that many cells share is in the file once, and goes out for each of them.
	let letters = 0;
	for (const row of rows) for (const text of row ?? []) letters += text?.length ?? 0;
	checkLetters(letters, where);
	return Array.from({ length: end }, (_, r) => Array.from({ length: width }, (_, c) => rows[r]?.[c] ?? ''));
}
