import { InputError } from '../../core/errors.ts';

export const SEPARATORS = [',', ';', '\t', '|'] as const;
export type Separator = (typeof SEPARATORS)[number];

/** A line longer than this is no row of a table. */
const MAX_FIELD = 1_000_000;

/**
 * Rows of separated values (RFC 4180): fields may be quoted with `"`, a quote inside is doubled, line breaks may be CR,
 * LF or both. Throws InputError for a quote that is never closed, naming its line; `isHead` says that the text goes on
 * elsewhere, and its last row is left out.
 */
export function parseRows(text: string, separator: Separator, isHead = false): string[][] {
	const rows: string[][] = [];
	let row: string[] = [];
	let line = 1;
	let at = 0;
	const end = text.length;
	const endRow = () => {
		// A line with nothing on it is no row.
		if (row.length > 1 || row[0] !== '') rows.push(row);
		row = [];
	};
	while (at <= end) {
		if (text[at] === '"') {
			const opened = line;
			let field = '';
			let from = ++at;
			for (;;) {
				const quote = text.indexOf('"', at);
				if (quote < 0 && isHead) return rows;
				if (quote < 0 || quote - from > MAX_FIELD)
					throw new InputError(
						'quote',
						`The quoted field that begins in line ${opened} is never closed. Put a “"” at its end, or double the one inside it.`,
						`line ${opened}`
					);
				if (text[quote + 1] === '"') {
					at = quote + 2;
					continue;
				}
				field = text.slice(from, quote).replaceAll('""', '"');
				for (let i = from; i < quote; i++) if (text[i] === '\n') line++;
				at = quote + 1;
				break;
			}
			// What follows the closing quote up to the next separator belongs to the field, as most writers mean it.
			from = at;
			while (at < end && text[at] !== separator && text[at] !== '\n' && text[at] !== '\r') at++;
			row.push(field + text.slice(from, at));
		} else {
			const from = at;
			while (at < end && text[at] !== separator && text[at] !== '\n' && text[at] !== '\r') at++;
			row.push(text.slice(from, at));
		}
		if (at >= end) {
			if (!isHead) endRow();
			break;
		}
		if (text[at] === separator) at++;
		else {
			if (text[at] === '\r' && text[at + 1] === '\n') at++;
			at++;
			line++;
			endRow();
			if (at >= end) break;
		}
	}
	return rows;
}

/** So many characters tell the separator. */
const HEAD = 20_000;

/** The separator that cuts the first lines into the most even rows. */
export function findSeparator(text: string): Separator {
	const head = text.slice(0, HEAD);
	const goesOn = text.length > HEAD && /[\r\n]/.test(head);
	let best: Separator = ',';
	let most = 0;
	for (const separator of SEPARATORS) {
		let rows;
		try {
			rows = parseRows(head, separator, goesOn).slice(0, 50);
		} catch {
			continue;
		}
		const widths = rows.map((row) => row.length);
		const counts = new Map<number, number>();
		for (const width of widths) counts.set(width, (counts.get(width) ?? 0) + 1);
		const [usual, times] = [...counts].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0] ?? [1, 0];
		const score = usual > 1 ? (times / widths.length) * Math.log2(usual + 1) : 0;
		if (score > most) [best, most] = [separator, score];
	}
	return best;
}

/** Rows as RFC 4180 writes them: CRLF, quotes where they are needed. */
export function writeRows(rows: readonly (readonly string[])[], separator: Separator = ','): string {
	const field = (text: string) =>
		text.includes(separator) || /["\r\n]|^\s|\s$/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
	return rows.map((row) => row.map(field).join(separator) + '\r\n').join('');
}
