import { styleCss } from '../../core/share/css.ts';
import { ASPECTS } from '../../core/style/types.ts';
import { headRows } from '../../core/roles/index.ts';
import { givesStyle, type Prepared, type Travel, type WriteOptions } from '../account.ts';
import { carriedAfter, carriedToJson } from '../carried.ts';
import type { DocumentTable, OpenDocument } from '../document.ts';
import { asciiCss, classesOf, scopeOf } from './classes.ts';
import { escapeHtml, pageHead } from './make.ts';
import { DATA_TYPE } from './read.ts';

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
