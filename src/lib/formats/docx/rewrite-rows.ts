import { escapeXml } from '../../core/escape.ts';
import type { RunView } from '../../core/table/content.ts';
import { isHeader } from '../../core/roles/index.ts';
import { toTwips } from '../../core/units.ts';
import { forbids } from '../../core/work/locks.ts';
import { isCovered, joinedCells, shownIn, type WorkTable } from '../../core/work/table.ts';
import type { DocumentTable } from '../document.ts';
import { Edits, type XmlNode } from '../package/xml.ts';
import type { EntryText } from '../package/zip.ts';
import { insertions, outermost, rowCells, rowFrom, type RowRewriting, type RowCell } from '../row-cells.ts';
import { rewriteProperties } from './containers.ts';
import { textLayerOf } from './layers.ts';
import { lockedCell, tableMarkup } from './make.ts';
import { Media } from './media.ts';
import { CONTENT_TYPES, relationshipsOf } from './names.ts';
import { CELL_ORDER, ROW_ORDER } from './properties/cell.ts';
import { RUN_ORDER, writeText } from './properties/text.ts';
import type { DocxDocument } from './read.ts';
import type { SourceTable } from './story.ts';
import { ownPrefix } from './write.ts';
import { paragraphsOf, runsOf, type SourceCell } from './tables.ts';

/** Columns without a width of their own share what is left of a page's text. */
const USUAL_WIDTH = 1_400;

/** The document with tables made anew from what they were worked on, new ones put in, and others taken out; all else byte for byte. */
export async function rewriteRowsDocx(
	document: DocxDocument,
	{ works, added, gone }: RowRewriting
): Promise<Uint8Array<ArrayBuffer>> {
	const changed = new Map<string, EntryText>();
	const media = new Media((name) => document.package.has(name));
	for (const story of document.stories) {
		const edits = new Edits();
		for (const [index, work] of works) {
			const source = document.sources[index]!;
			if (source.story !== story) continue;
			const { node } = source.source;
			edits.replace(node.start, node.end, new TableRemaker(document.tables[index]!, source, work, media).markup());
		}
		for (const index of outermost(document.tables, gone)) {
			const source = document.sources[index]!;
			if (source.story !== story) continue;
			const { node } = source.source;
			// Beside the body, nothing else may be there, and a story is never empty.
			edits.replace(node.start, node.end, document.tables[index]!.place.where === 'body' ? '' : '<w:p/>');
		}
		if (story.name === document.main)
			for (const { at, made } of insertions(added, document.blockPlaces, (entry) =>
				tableMarkup(document, entry, media)
			))
				edits.insert(at, `<w:p/>${made}<w:p/>`);
		if (edits.count) changed.set(story.name, ownPrefix(edits.apply(story.xml.source), story.xml));
		if (!edits.count || !media.relationships) continue;
		const rels = relationshipsOf(story.name);
		const known = (await document.package.text(rels)) ?? NO_RELATIONSHIPS;
		changed.set(rels, beforeEnd(known, media.relationships));
	}
	for (const [name, bytes] of media.parts) changed.set(name, bytes);
	const types = await document.package.text(CONTENT_TYPES);
	const missing = media.types.filter(({ ending }) => !new RegExp(`Extension="${ending}"`, 'i').test(types ?? ''));
	if (types && missing.length)
		changed.set(
			CONTENT_TYPES,
			beforeEnd(
				types,
				missing.map(({ ending, type }) => `<Default Extension="${ending}" ContentType="${type}"/>`).join('')
			)
		);
	return document.package.rewrite(changed);
}

const NO_RELATIONSHIPS =
	'<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"></Relationships>';
/** Markup at the end of a root element without a prefix. */
function beforeEnd(text: string, markup: string): string {
	const end = text.lastIndexOf('</');
	return end < 0
		? text.replace(/\/>\s*$/, `>${markup}</${/<(\w+)[^>]*\/>\s*$/.exec(text)?.[1] ?? ''}>`)
		: text.slice(0, end) + markup + text.slice(end);
}

/** Writes one w:tbl again (§17.4.37). Cells that say what they said keep their markup; the others take its properties. */
class TableRemaker {
	private readonly xml: SourceTable['story']['xml'];
	private readonly cells: Map<string, RowCell>;
	private readonly joined: Int32Array;

	constructor(
		private readonly entry: DocumentTable,
		private readonly source: SourceTable,
		private readonly work: WorkTable,
		private readonly media: Media
	) {
		this.xml = source.story.xml;
		this.cells = rowCells(work, entry);
		// By slot, the first row of the joined cell that covers it, plus one.
		this.joined = new Int32Array(work.rows.length * work.columns.length);
		for (const { r, c, rows, cols } of joinedCells(work))
			for (let y = r; y < r + rows; y++)
				for (let x = c; x < c + cols; x++) this.joined[y * work.columns.length + x] = r + 1;
	}

	private raw({ start, end }: { start: number; end: number }): string {
		return this.xml.source.slice(start, end);
	}

	markup(): string {
		const { node } = this.source.source;
		const { columns, rows } = this.work;
		const open = this.xml.source.slice(node.start, node.openEnd);
		const tblPr = node.child('w:tblPr');
		const widths = columns.map(({ width }) => (width ? toTwips(width) : USUAL_WIDTH));
		const grid = `<w:tblGrid>${widths.map((width) => `<w:gridCol w:w="${width}"/>`).join('')}</w:tblGrid>`;
		// Bookmarks and the like between the rows stay in the table.
		const others = node.children
			.filter(({ name }) => /^w:(bookmark|comment|moveFrom|moveTo|perm)\w*(Start|End)$/.test(name))
			.map((child) => this.raw(child))
			.join('');
		const body = rows.map((_, r) => this.row(r, widths)).join('');
		return `${open}${tblPr ? this.raw(tblPr) : ''}${grid}${others}${body}${this.xml.source.slice(node.closeStart, node.end)}`;
	}

	private row(r: number, widths: readonly number[]): string {
		const { height, role, cells } = this.work.rows[r]!;
		const from = rowFrom(this.work, this.entry, r);
		const source = from === undefined ? undefined : this.source.source.rows[from];
		const trPr = source?.node.child('w:trPr');
		const set = new Map<string, string>();
		if (height) set.set('w:trHeight', `<w:trHeight w:val="${toTwips(height)}" w:hRule="atLeast"/>`);
		const isHead = isHeader(role);
		const gone = new Set([
			'w:gridBefore',
			'w:gridAfter',
			'w:wBefore',
			'w:wAfter',
			'w:cnfStyle',
			...(isHead ? [] : ['w:tblHeader'])
		]);
		const properties = rewriteProperties(
			trPr ? this.raw(trPr) : '',
			this.xml,
			'w:trPr',
			ROW_ORDER,
			({ name }) => gone.has(name),
			set
		);
		let inside = '';
		for (let c = 0; c < cells.length;) {
			const slot = cells[c]!;
			const cols = isCovered(slot) ? this.coveredWidth(r, c) : (slot.cols ?? 1);
			inside += this.cell(
				r,
				c,
				cols,
				widths.slice(c, c + cols).reduce((sum, one) => sum + one, 0)
			);
			c += cols;
		}
		return `<w:tr>${properties}${inside}</w:tr>`;
	}
	/** How many columns the joined cell takes that goes on in a covered slot. */
	private coveredWidth(r: number, c: number): number {
		const { columns } = this.work;
		const own = joinedCells(this.work).find((span) => span.r < r && r < span.r + span.rows && span.c === c);
		return own?.cols ?? Math.min(1, columns.length);
	}

	private cell(r: number, c: number, cols: number, width: number): string {
		const rowCell = this.cells.get(`${r},${c}`);
		const top = this.joined[r * this.work.columns.length + c]! - 1;
		const anchor = rowCell ?? this.cells.get(`${top},${c}`);
		const sources = anchor?.from === undefined ? [] : this.source.source.sources[anchor.from]!;
		const own = rowCell ? sources[0] : (sources[r - top] ?? sources[0]);
		const set = new Map([['w:tcW', `<w:tcW w:w="${width}" w:type="dxa"/>`]]);
		if (cols > 1) set.set('w:gridSpan', `<w:gridSpan w:val="${cols}"/>`);
		const isTall = (rowCell?.cell.rows ?? 1) > 1;
		if (!rowCell) set.set('w:vMerge', '<w:vMerge/>');
		else if (isTall) set.set('w:vMerge', '<w:vMerge w:val="restart"/>');
		const gone = new Set(['w:gridSpan', 'w:vMerge', 'w:hMerge', 'w:cnfStyle']);
		const tcPr = own?.node.child('w:tcPr');
		const properties = rewriteProperties(
			tcPr ? this.raw(tcPr) : '',
			this.xml,
			'w:tcPr',
			CELL_ORDER,
			({ name }) => gone.has(name),
			set
		);
		const markup = `<w:tc>${properties}${rowCell ? this.content(rowCell, sources) : this.covered(own, anchor, r - top)}</w:tc>`;
		return forbids(anchor?.cell.lock, 'content') ? lockedCell(markup) : markup;
	}

	/** What stands in a slot that a joined cell goes on in: what stood there, where it did before. */
	private covered(own: SourceCell | undefined, anchor: RowCell | undefined, at: number): string {
		const isSame = own && anchor?.isKept && own.continues && at > 0;
		return isSame ? this.inside(own.node) : '<w:p/>';
	}
	private inside(tc: XmlNode): string {
		if (tc.selfClosing) return '<w:p/>';
		const tcPr = tc.child('w:tcPr');
		return this.xml.source.slice(tcPr?.end ?? tc.openEnd, tc.closeStart) || '<w:p/>';
	}

	private content({ cell, isKept }: RowCell, sources: readonly SourceCell[]): string {
		const [first] = sources;
		if (isKept && first) return this.inside(first.node);
		const models = first ? paragraphsOf(first.node) : [];
		const nested = (first?.node.children ?? []).filter(({ name }) => name === 'w:tbl');
		let table = 0;
		const pieces = shownIn(cell).map((piece, i) => {
			if ('picture' in piece) return `<w:p>${this.media.drawing(piece.picture)}</w:p>`;
			if ('nested' in piece) {
				const inner = nested[table++];
				return inner ? this.raw(inner) : '';
			}
			const model = models[Math.min(i, models.length - 1)];
			const pPr = model?.child('w:pPr');
			const rPr = (model && runsOf(model)[0]?.child('w:rPr')) ?? (models[0] && runsOf(models[0])[0]?.child('w:rPr'));
			const runs = piece.runs.map((run) => this.run(run, rPr)).join('');
			return `<w:p>${pPr ? this.raw(pPr) : ''}${runs}</w:p>`;
		});
		const inside = pieces.join('');
		// A cell ends with a paragraph (§17.4.65).
		return inside.endsWith('</w:p>') ? inside : `${inside}<w:p/>`;
	}

	/** A run in the looks of the cell's first one, with the emphasis that its words have. */
	private run({ text, position, ...emphasis }: RunView, rPr: XmlNode | undefined): string {
		const said = writeText(textLayerOf(emphasis));
		if (position)
			said.set('w:vertAlign', `<w:vertAlign w:val="${position === 'super' ? 'superscript' : 'subscript'}"/>`);
		const gone = new Set(['w:vertAlign']);
		const properties = rewriteProperties(
			rPr ? this.raw(rPr) : '',
			this.xml,
			'w:rPr',
			RUN_ORDER,
			({ name }) => gone.has(name),
			said
		);
		const pieces = text
			.split(/(\n|\t)/)
			.map((part) =>
				part === '\n'
					? '<w:br/>'
					: part === '\t'
						? '<w:tab/>'
						: part
							? `<w:t xml:space="preserve">${escapeXml(part)}</w:t>`
							: ''
			)
			.join('');
		return `<w:r>${properties}${pieces}</w:r>`;
	}
}
