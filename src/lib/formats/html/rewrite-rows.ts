import { isWorkedOut } from '../../core/work/working.ts';
import { valuesOf } from './values.ts';
import { escapeHtml } from '../../core/escape.ts';
import { toPixels, type Emu } from '../../core/units.ts';
import { contentOfCell, isCovered, joinedCells, type WorkTable } from '../../core/work/table.ts';
import type { DocumentTable } from '../document.ts';
import { encodePieces } from '../package/encoding.ts';
import { insertions, outermost, rowCells, rowFrom, type RowRewriting } from '../row-cells.ts';
import { childElements, tagsOf, type Element } from './dom.ts';
import { withoutAttributes } from '../package/xml.ts';
import { pictureMarkup, runsMarkup, tableMarkup } from './make.ts';
import type { HtmlDocument } from './read.ts';
import { PageEdits } from './edits.ts';

/** The page with tables made anew from what they were worked on, new ones put in, and others taken out; all else byte for byte. */
export function rewriteRowsHtml(document: HtmlDocument, { works, added, gone }: RowRewriting): Uint8Array<ArrayBuffer> {
	const { text } = document.source;
	const edits = new PageEdits();
	for (const [index, work] of works) {
		const tags = tagsOf(document.grids[index]!.node);
		if (tags) edits.replace(tags.start, tags.end, tableRows(document, index, work));
	}
	for (const index of outermost(document.tables, gone)) {
		const tags = tagsOf(document.grids[index]!.node);
		if (tags) edits.replace(tags.start, tags.end, '');
	}
	for (const { at, made } of insertions(added, document.blockPlaces, (entry) => tableMarkup(document, entry)))
		edits.insert(at, `\n${made}\n`);
	return encodePieces(document.source, edits.pieces(text.length), (char) => `&#x${char.codePointAt(0)!.toString(16)};`);
}

/** An inline style with a height, in the place of the one that it may have. */
function withHeight(style = '', height: Emu): string {
	const others = style
		.replace(/(^|;)\s*height\s*:[^;]*/gi, '$1')
		.replace(/;\s*;/g, ';')
		.replace(/[;\s]+$/, '');
	return `${others}${others && '; '}height: ${toPixels(height).toFixed(1)}px`;
}

function tableRows(document: HtmlDocument, index: number, work: WorkTable): string {
	const { text } = document.source;
	const { node, rows, cells } = document.grids[index]!;
	const entry: DocumentTable = document.tables[index]!;
	const own = rowCells(work, entry);
	const raw = (element: Element) => {
		const tags = tagsOf(element)!;
		return text.slice(tags.start, tags.end);
	};
	const openTag = (element: Element | undefined, name: string, more = '', without: readonly string[] = []) => {
		if (!element) return `<${name}${more}>`;
		const { start, open } = tagsOf(element)!;
		const tag = withoutAttributes(text.slice(start, open), (own) => without.includes(own.toLowerCase()));
		return more ? tag.replace(/\s*\/?>$/, `${more}>`) : tag;
	};
	const table = tagsOf(node)!;
	const captions = childElements(node, 'caption').map(raw).join('\n');
	const widths = work.columns.map(({ width }) => width);
	const isSameWide = work.columns.length === entry.table.columns;
	const sameWidths = isSameWide && widths.every((width, c) => width === (entry.widths[c] || undefined));
	const columns = sameWidths
		? childElements(node, 'col', 'colgroup').map(raw).join('\n')
		: widths.some(Boolean)
			? `<colgroup>${widths.map((width) => (width ? `<col style="width: ${toPixels(width).toFixed(1)}px">` : '<col>')).join('')}</colgroup>`
			: '';
	/** The section each row stands in: its own, where heads stand first and feet last and no joined cell reaches over. */
	const sections = work.rows.map((_, r) => {
		const from = rowFrom(work, entry, r);
		const section = from === undefined ? undefined : rows[from]?.section;
		return section && tagsOf(section) ? section : undefined;
	});
	const rank = (section: Element | undefined) => (section?.name === 'thead' ? 0 : section?.name === 'tfoot' ? 2 : 1);
	const inOrder = sections.every((section, r) => r === 0 || rank(sections[r - 1]) <= rank(section));
	const isCut = joinedCells(work).some(({ r, rows: down }) =>
		sections.slice(r, r + down).some((one) => one !== sections[r])
	);
	const keepsSections = inOrder && !isCut;
	const valued = valuesOf(work);
	const rowMarkup = work.rows.map(({ cells: slots, height }, r) => {
		const from = rowFrom(work, entry, r);
		const source = from === undefined ? undefined : rows[from]!.node;
		const inside = slots.map((slot, c) => {
			if (isCovered(slot)) return '';
			const { from: origin, isKept } = own.get(`${r},${c}`)!;
			const element = origin === undefined ? undefined : cells[origin];
			const name = element?.name ?? 'td';
			const spans = `${(slot.rows ?? 1) > 1 ? ` rowspan="${slot.rows}"` : ''}${(slot.cols ?? 1) > 1 ? ` colspan="${slot.cols}"` : ''}`;
			const tags = element && tagsOf(element);
			const open = openTag(tags ? element : undefined, name, spans, ['rowspan', 'colspan']);
			// What is worked out may show the same for another value.
			if (isKept && tags && !isWorkedOut(work, r, c)) return `${open}${text.slice(tags.open, tags.close)}</${name}>`;
			const tables = element ? childElements(element, 'table') : [];
			let nested = 0;
			const pieces = contentOfCell(slot).map((piece) =>
				'nested' in piece
					? tables[nested]
						? raw(tables[nested++]!)
						: ''
					: 'runs' in piece
						? runsMarkup(piece.runs)
						: ''
			);
			const content =
				pieces.length > 1 ? pieces.map((piece) => `<div>${piece}</div>`).join('') : valued(r, c, pieces.join(''));
			const picture = slot.picture ? pictureMarkup(slot.picture) : '';
			return `${open}${picture}${content}</${name}>`;
		});
		const style = height ? ` style="${escapeHtml(withHeight(source?.attribs.style, height))}"` : '';
		return `${openTag(source, 'tr', style, height ? ['style'] : [])}${inside.join('')}</tr>`;
	});
	let body = '';
	for (let r = 0; r < rowMarkup.length;) {
		const section = keepsSections ? sections[r] : undefined;
		let to = r + 1;
		while (to < rowMarkup.length && (!keepsSections || sections[to] === section)) to++;
		const name = section?.name ?? 'tbody';
		body += `${openTag(section, name)}\n${rowMarkup.slice(r, to).join('\n')}\n</${name}>\n`;
		r = to;
	}
	return `${text.slice(table.start, table.open)}\n${captions}${captions ? '\n' : ''}${columns}${columns ? '\n' : ''}${body}</table>`;
}
