import { valuesOf } from './values.ts';
import { escapeHtml } from '../../core/escape.ts';
import { LOOK_FIELDS } from '../../core/cascade/look.ts';
import { toPixels } from '../../core/units.ts';
import {
	linkedRuns,
	runsOf,
	type Block,
	type CellContent,
	type CellPicture,
	type ListItem,
	type ListMarker,
	type Note,
	type RunView
} from '../../core/table/content.ts';
import type { DocumentTable, OpenDocument, WholeDocument } from '../document.ts';
import type { RowFacts } from '../held.ts';
import { inLists, isList, type List } from '../lists.ts';
import { headRows } from '../whole.ts';
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

/** The notes of a page while it is written, in the order in which they are referred to. */
export class Notes {
	private readonly all: Note[] = [];

	/** The mark of a note in the text (DPUB-ARIA 1.1, doc-noteref). */
	mark(note: Note): string {
		const number = this.all.push(note);
		return `<a role="doc-noteref" id="to-note-${number}" href="#note-${number}"><sup>${number}</sup></a>`;
	}

	/** The notes themselves, for the end of the page. */
	get markup(): string {
		const text = (note: Note) =>
			note.text
				.split('\n')
				.map((line) => `<p>${escapeHtml(line)}</p>`)
				.join('');
		const numbered = this.all.map((note, i) => ({ note, number: i + 1 }));
		const feet = numbered
			.filter(({ note }) => note.kind === 'foot')
			.map(
				({ note, number }) =>
					`<aside role="doc-footnote" id="note-${number}" data-number="${number}">${text(note)}</aside>\n`
			);
		const ends = numbered
			.filter(({ note }) => note.kind === 'end')
			.map(({ note, number }) => `<li id="note-${number}" value="${number}">${text(note)}</li>\n`);
		return feet.join('') + (ends.length ? `<section role="doc-endnotes"><ol>\n${ends.join('')}</ol></section>\n` : '');
	}
}

/** The runs of a paragraph, with the links and notes among them. */
export const runsMarkup = (runs: readonly RunView[], notes?: Notes): string =>
	linkedRuns(runs)
		.map(({ link, runs: own }) => {
			const text = own.map((run) => (run.note ? (notes?.mark(run.note) ?? '') : runMarkup(run))).join('');
			return link ? `<a href="${escapeHtml(link)}">${text}</a>` : text;
		})
		.join('');

const LIST_TYPES: Readonly<Record<ListMarker, string>> = {
	disc: '',
	decimal: '',
	'lower-alpha': ' type="a"',
	'upper-alpha': ' type="A"',
	'lower-roman': ' type="i"',
	'upper-roman': ' type="I"'
};

/** Pieces of text in order, those that are items of lists in lists. `inside` is what stands in an item, `markup` a piece elsewhere. */
function flowMarkup<T extends object>(
	pieces: readonly T[],
	inside: (piece: T, at: number) => { readonly attributes?: string; readonly text: string },
	markup: (piece: T, at: number) => string
): string[] {
	const at = new Map(pieces.map((piece, i) => [piece, i]));
	const list = ({ marker, start, items }: List<T>): string => {
		const tag = marker === 'disc' ? 'ul' : 'ol';
		const entries = items.map(({ is, inside: deeper }) => {
			const { attributes = '', text } = is ? inside(is, at.get(is)!) : { text: '' };
			return `<li${attributes}>${text}${deeper.map(list).join('')}</li>`;
		});
		return `<${tag}${LIST_TYPES[marker]}${tag === 'ol' && start !== 1 ? ` start="${start}"` : ''}>${entries.join('')}</${tag}>`;
	};
	return inLists(pieces, (piece) => ('list' in piece ? (piece.list as ListItem) : undefined)).map((one) =>
		isList(one) ? list(one) : markup(one, at.get(one)!)
	);
}

export const pictureMarkup = ({ source, alternative, fits, width }: CellPicture): string =>
	`<img src="${source}" alt="${escapeHtml(alternative)}"${fits === 'cell' ? ' style="width: 100%"' : ` width="${Math.round(toPixels(width))}"`}>`;

/** What a row says of itself. */
function rowAttributes({ height, staysWhole, isHidden }: RowFacts = {}): string {
	const style = [
		...(height ? [`height: ${toPixels(height).toFixed(1)}px`] : []),
		...(staysWhole ? ['break-inside: avoid'] : [])
	];
	return (isHidden ? ' hidden' : '') + (style.length ? ` style="${style.join('; ')}"` : '');
}

export function tableMarkup(document: Pick<OpenDocument, 'tables'>, entry: DocumentTable, notes?: Notes): string {
	const { table, appearance, content, widths, place, rowFacts = [] } = entry;
	const piece = (one: CellContent): string =>
		'nested' in one
			? tableMarkup(document, document.tables[one.nested]!, notes)
			: 'picture' in one
				? pictureMarkup(one.picture)
				: runsMarkup(one.runs, notes);
	const sides = new CellSides(table, appearance, SAYABLE.line);
	const isRight = table.dir === 'rtl';
	const valued = valuesOf(entry.work);
	const cellsOf: number[][] = Array.from({ length: table.rows }, () => []);
	table.cells.forEach(({ r }, i) => cellsOf[r]!.push(i));
	const rows = cellsOf.map((cells, row) => {
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
			const spaced = (at: number) => {
				const said = gap && (at === 0 ? gap.first : gap.following);
				return said ? ` style="${said.join('; ')}"` : '';
			};
			const isText = paragraphs.length === 1 && !('list' in paragraphs[0]!);
			const inside = isText
				? piece(paragraphs[0]!)
				: flowMarkup(
						paragraphs,
						(one, at) => ({ attributes: spaced(at), text: piece(one) }),
						(one, at) => ('nested' in one ? piece(one) : `<div${spaced(at)}>${piece(one)}</div>`)
					).join('');
			return `<td${height > 1 ? ` rowspan="${height}"` : ''}${cols > 1 ? ` colspan="${cols}"` : ''}${style ? ` style="${escapeHtml(style)}"` : ''}>${isText ? valued(r, c, inside) : inside}</td>`;
		});
		return `<tr${rowAttributes(rowFacts[row])}>${markup.join('')}</tr>`;
	});
	const heads = headRows(entry);
	const head = heads ? `<thead>\n${rows.slice(0, heads).join('\n')}\n</thead>\n` : '';
	const columns = widths.length
		? `<colgroup>${widths.map((width) => `<col style="width: ${toPixels(width).toFixed(1)}px">`).join('')}</colgroup>\n`
		: '';
	const caption = place.where !== 'nested' && place.caption ? `<caption>${escapeHtml(place.caption)}</caption>\n` : '';
	const shadow = appearance.shadow ? `; box-shadow: ${shadowValue(appearance.shadow)}` : '';
	return `<table${isRight ? ' dir="rtl"' : ''} style="border-collapse: collapse${shadow}">\n${caption}${columns}${head}<tbody>\n${rows.slice(heads).join('\n')}\n</tbody>\n</table>`;
}

/** A stand-alone page (HTML Standard) of a document: its headings and text, its tables as they look in their file. */
export function makeHtml(document: WholeDocument, title: string): string {
	const captions = new Set(document.tables.map(({ place }) => place.caption));
	// A caption stands in its table.
	const blocks = document.blocks.filter((block) => block.kind !== 'paragraph' || !captions.has(block.text));
	const notes = new Notes();
	const text = (block: Block) => ('text' in block ? runsMarkup(runsOf(block), notes) : '');
	const flow = flowMarkup(
		blocks,
		(block) => ({ text: text(block) }),
		(block) => {
			if (block.kind === 'table') return tableMarkup(document, document.tables[block.index]!, notes);
			if (block.kind === 'picture') return `<p>${pictureMarkup(block.picture)}</p>`;
			const tag = block.kind === 'heading' ? `h${Math.min(6, Math.max(1, block.level))}` : 'p';
			return `<${tag}>${text(block)}</${tag}>`;
		}
	);
	return `${pageHead(document.title ?? title, '', document.language)}${flow.join('\n')}
${notes.markup}</body>
</html>
`;
}

/** A page up to where its content begins; `more` goes into its head, its language, where it is known, is as BCP 47 writes it. */
export const pageHead = (title: string, more = '', language?: string): string => `<!DOCTYPE html>
<html${language ? ` lang="${escapeHtml(language)}"` : ''}>
<head>
<meta charset="utf-8">
<title>${escapeHtml(title)}</title>
<style>
body { max-width: 50rem; margin: 2rem auto; padding: 0 1rem; font: 11pt/1.5 serif; }
caption { padding: .4em 0; text-align: start; }
table { margin: 1rem 0; }
aside[role='doc-footnote'] { display: grid; grid-template-columns: 1.5em 1fr; }
aside[role='doc-footnote']::before { content: attr(data-number); font-size: .75em; }
aside[role='doc-footnote'] > p { grid-column: 2; margin: 0; }
:where(th) { font-weight: inherit; text-align: inherit; }
</style>
${more}</head>
<body>
`;
