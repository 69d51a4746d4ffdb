import { escapeHtml } from '../../core/escape.ts';
import { textAt, createGrid, type Table } from '../../core/table/grid.ts';
import { styleCss } from '../../core/share/css.ts';
import { ASPECTS } from '../../core/style/types.ts';
import { headRows } from '../../core/roles/index.ts';
import { givesStyle, prepare, type Prepared, type StyleJob, type Travel, type WriteOptions } from '../job.ts';
import { carriedAfter, carriedToJson } from '../carried.ts';
import type { DocumentTable, OpenDocument } from '../document.ts';
import { asciiCss, classesOf, scopeOf } from './classes.ts';
import { pageHead } from './make.ts';
import { aboutKind, type OutKind } from '../kinds.ts';
import type { WriteAsOptions } from '../format.ts';
import { compare } from '../read-back.ts';
import { tallyOf, type Written } from '../tally.ts';
import { lostLeaves, SAYABLE } from './properties/index.ts';
import { DATA_TYPE, readHtml } from './read.ts';

const isRowsOnly = ({ kind }: OpenDocument): boolean => aboutKind(kind as OutKind).isRows === true;

/** Rows in one piece of the page. */
const ROWS = 500;

/** Whether a style sheet says all that a job wants of a table that has no looks of its own. */
export const isSheetEnough = ({ job }: Prepared, as: Travel): boolean =>
	as !== 'direct' &&
	givesStyle(job) &&
	job.table.touches.length === 0 &&
	!job.widths?.length &&
	ASPECTS.every((aspect) => aspect === 'formats' || job.table.carry.includes(aspect));

/**
 * A page (HTML Standard) of one table of plain rows in a style, piece by piece, so that a list of any length is written in
 * little memory. The style is a style sheet; nothing is said on the cells.
 */
export function* htmlOfRows(
	document: Pick<OpenDocument, 'tables' | 'styles'>,
	entry: DocumentTable,
	one: Prepared,
	title: string,
	{ house, find }: Pick<WriteOptions, 'house' | 'find'>
): Generator<string> {
	const { table } = one.job;
	const { rows: rowClasses, cells: cellClasses, className } = classesOf(one);
	const css = asciiCss(styleCss(one.resolved.style, house));
	const data = carriedToJson(carriedAfter(document, [one.job], house, find)).replace(/</g, '\\u003c');
	yield pageHead(
		title,
		`<style data-heptarch="${className}">\n${css}</style>\n<script type="${DATA_TYPE}">${data}</script>\n`
	);
	const caption = entry.place.caption ? `<caption>${escapeHtml(entry.place.caption)}</caption>\n` : '';
	yield `<table class="${className}" data-style="${escapeHtml(one.job.style.name)}" style="border-collapse: collapse">\n${caption}`;
	const head = headRows(table.roles);
	let piece = head ? '<thead>\n' : '<tbody>\n';
	let i = 0;
	for (let r = 0; r < table.rows; r++) {
		if (head && r === head) piece += '</thead>\n<tbody>\n';
		let row = `<tr class="${[...rowClasses[r]!].join(' ')}">`;
		for (; i < table.cells.length && table.cells[i]!.r === r; i++) {
			const { c, rows, cols, text } = table.cells[i]!;
			const scope = scopeOf(one, r, c);
			const own = cellClasses[i]!;
			row +=
				`<${scope ? `th scope="${scope}"` : 'td'}${own.length ? ` class="${own.join(' ')}"` : ''}` +
				`${rows > 1 ? ` rowspan="${rows}"` : ''}${cols > 1 ? ` colspan="${cols}"` : ''}>` +
				`${escapeHtml(text).replace(/\n/g, '<br>')}</${scope ? 'th' : 'td'}>`;
		}
		piece += `${row}</tr>\n`;
		if (r % ROWS === ROWS - 1) {
			yield piece;
			piece = '';
		}
	}
	yield `${piece}</tbody>\n</table>\n</body>\n</html>\n`;
}

/** Rows with a style that a style sheet says whole: they can be written piece by piece. */
export function plainRows(document: OpenDocument, jobs: readonly StyleJob[], options: WriteAsOptions) {
	const [entry] = document.tables;
	if (!isRowsOnly(document) || !entry) return undefined;
	const [one] = prepare(document, jobs, options);
	return one && isSheetEnough(one, options.as ?? 'living') ? { document, entry, one } : undefined;
}
type PlainRows = NonNullable<ReturnType<typeof plainRows>>;

/** So many rows of a list are read back; all of them look like these. */
const READ_BACK_ROWS = 2_000;

export async function writeRowsAsHtml({ document, entry, one }: PlainRows, options: WriteAsOptions): Promise<Written> {
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
