import { valuesOf } from './values.ts';
import { escapeHtml } from '../../core/escape.ts';
import { LOOK_FIELDS } from '../../core/cascade/look.ts';
import { toPixels } from '../../core/units.ts';
import { linkedRuns, type CellContent, type CellPicture, type RunView } from '../../core/table/content.ts';
import type { DocumentTable, OpenDocument } from '../document.ts';
import { CellSides } from '../sides.ts';
import { SIDES } from '../../core/table/grid.ts';
import { declare, SAYABLE } from './properties/index.ts';
import { declareLine } from './properties/lines.ts';
import { gapDeclarations } from './properties/paragraph-gap.ts';
import { shadowValue } from './properties/shadow.ts';

export function runMarkup(run: RunView): string {
	const style = [
		...(run.weight !== undefined ? [`font-weight: ${run.weight}`] : []),
		...(run.italic !== undefined ? [`font-style: ${run.italic ? 'italic' : 'normal'}`] : []),
		...(run.underline !== undefined ? [`text-decoration: ${run.underline === 'none' ? 'none' : 'underline'}`] : []),
		...(run.ink !== undefined ? [`color: ${run.ink.toLowerCase()}`] : [])
	].join('; ');
	let text = escapeHtml(run.text).replace(/\n/g, '<br>');
	if (run.position) text = run.position === 'super' ? `<sup>${text}</sup>` : `<sub>${text}</sub>`;
	return style ? `<span style="${escapeHtml(style)}">${text}</span>` : text;
}

/** The runs of a paragraph, with the links among them. */
export const runsMarkup = (runs: readonly RunView[]): string =>
	linkedRuns(runs)
		.map(({ link, runs: own }) => {
			const text = own.map(runMarkup).join('');
			return link ? `<a href="${escapeHtml(link)}">${text}</a>` : text;
		})
		.join('');

export const pictureMarkup = ({ source, alternative, fits, width }: CellPicture): string =>
	`<img src="${source}" alt="${escapeHtml(alternative)}"${fits === 'cell' ? ' style="width: 100%"' : ` width="${Math.round(toPixels(width))}"`}>`;

export function tableMarkup(document: Pick<OpenDocument, 'tables'>, entry: DocumentTable): string {
	const { table, appearance, content, widths, place } = entry;
	const piece = (one: CellContent): string =>
		'nested' in one
			? tableMarkup(document, document.tables[one.nested]!)
			: 'picture' in one
				? pictureMarkup(one.picture)
				: runsMarkup(one.runs);
	const sides = new CellSides(table, appearance, SAYABLE.line);
	const isRight = table.dir === 'rtl';
	const valued = valuesOf(entry.work);
	const cellsOf: number[][] = Array.from({ length: table.rows }, () => []);
	table.cells.forEach(({ r }, i) => cellsOf[r]!.push(i));
	const rows = cellsOf.map((cells) => {
		const markup = cells.map((i) => {
			const { r, c, rows: height, cols } = table.cells[i]!;
			const look = SAYABLE.look(appearance.looks[appearance.cellLook[i]!]!);
			const borders = SIDES.flatMap((side) => {
				const line = sides.line(i, side);
				return line ? [declareLine(side, line, isRight)] : [];
			});
			const style = [
				...LOOK_FIELDS.flatMap((field) => declare(field, look, { isRight, isOther: false })),
				...borders
			].join('; ');
			const paragraphs = content[i] ?? [];
			const gap = look.paragraphGap === undefined ? undefined : gapDeclarations(look.paragraphGap);
			const block = (at: number) => {
				const said = gap && (at === 0 ? gap.first : gap.following);
				return said ? `<div style="${said.join('; ')}">` : '<div>';
			};
			const inside =
				paragraphs.length > 1
					? paragraphs.map((one, at) => ('nested' in one ? piece(one) : `${block(at)}${piece(one)}</div>`)).join('')
					: paragraphs.map(piece).join('');
			return `<td${height > 1 ? ` rowspan="${height}"` : ''}${cols > 1 ? ` colspan="${cols}"` : ''}${style ? ` style="${escapeHtml(style)}"` : ''}>${paragraphs.length > 1 ? inside : valued(r, c, inside)}</td>`;
		});
		return `<tr>${markup.join('')}</tr>`;
	});
	const columns = widths.length
		? `<colgroup>${widths.map((width) => `<col style="width: ${toPixels(width).toFixed(1)}px">`).join('')}</colgroup>\n`
		: '';
	const caption = place.where !== 'nested' && place.caption ? `<caption>${escapeHtml(place.caption)}</caption>\n` : '';
	const shadow = appearance.shadow ? `; box-shadow: ${shadowValue(appearance.shadow)}` : '';
	return `<table${isRight ? ' dir="rtl"' : ''} style="border-collapse: collapse${shadow}">\n${caption}${columns}<tbody>\n${rows.join('\n')}\n</tbody>\n</table>`;
}

/** A stand-alone page (HTML Standard) of a document: its headings and text, its tables as they look in their file. */
export function makeHtml(document: Pick<OpenDocument, 'blocks' | 'tables'>, title: string): string {
	const captions = new Set(document.tables.map(({ place }) => place.caption));
	const blocks = document.blocks.flatMap((block) => {
		if (block.kind === 'table') return [tableMarkup(document, document.tables[block.index]!)];
		// A caption stands in its table.
		if (captions.has(block.text)) return [];
		const tag = block.kind === 'heading' ? `h${Math.min(6, Math.max(1, block.level))}` : 'p';
		return [`<${tag}>${escapeHtml(block.text)}</${tag}>`];
	});
	return `${pageHead(title)}${blocks.join('\n')}
</body>
</html>
`;
}

/** A page up to where its content begins; `more` goes into its head. */
export const pageHead = (title: string, more = ''): string => `<!DOCTYPE html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>${escapeHtml(title)}</title>
<style>
body { max-width: 50rem; margin: 2rem auto; padding: 0 1rem; font: 11pt/1.5 serif; }
caption { padding: .4em 0; text-align: start; }
table { margin: 1rem 0; }
:where(th) { font-weight: inherit; text-align: inherit; }
</style>
${more}</head>
<body>
`;
