import { pluralWord } from '../../core/words.ts';
import PDFDocument from 'pdfkit';
import { faceKey } from '../../core/layout/faces.ts';
import type { CellMarks, Mark, TableMarks } from '../../core/layout/marks.ts';
import { drawnFromLeft } from '../../core/layout/bidi.ts';
import type { LaidPiece } from '../../core/layout/paragraph.ts';
import { aroundPath, shadowBoxes } from '../../core/layout/shadows.ts';
import type { Shadow } from '../../core/properties/shadow.ts';
import { lineStrokes, strokePath } from '../../core/layout/patterns.ts';
import { layReport, type Page, type Piece, type Report, type ReportTable } from '../../core/layout/report.ts';
import { behaviour } from '../../core/roles/index.ts';
import { inPixels } from '../../core/table/content.ts';
import { toPoints, type Emu } from '../../core/units.ts';
import { standIn } from '../../core/layout/fonts.ts';
import { missingText } from './check.ts';
import { fontFiles, shippedFaces } from './fonts.ts';
import { drawableBytes } from './pictures.ts';
import { replacedFamilies } from './report.ts';

type Doc = PDFKit.PDFDocument;
type Element = PDFKit.PDFStructureElement & { readonly dictionary: { readonly data: Record<string, unknown> } };
const pt = (length: number) => toPoints(length as Emu);
const EMU_PER_PT = 12_700;

/** The same input makes the same bytes: a report carries no time of its own. */
const NO_TIME = new Date(0);

function drawLine(doc: Doc, { x1, y1, x2, y2, line }: Extract<Mark, { kind: 'line' }>): void {
	doc.save().strokeColor(line.ink).lineCap('butt').undash();
	for (const stroke of lineStrokes(line)) {
		if (stroke.dashes) doc.addContent(`[${stroke.dashes.map((length) => Number(length.toFixed(3))).join(' ')}] 0 d`);
		doc
			.lineWidth(stroke.thick)
			.path(strokePath([pt(x1), pt(y1)], [pt(x2), pt(y2)], stroke))
			.stroke();
	}
	doc.restore();
}

/** Draws a table's shadow around it. */
function drawShadow(doc: Doc, { shadow, ...box }: Extract<Mark, { kind: 'shadow' }>): void {
	doc
		.save()
		.path(aroundPath(box, shadow, EMU_PER_PT))
		.clip('even-odd');
	for (const { x, y, width, height, opacity } of shadowBoxes(box, shadow))
		doc.rect(pt(x), pt(y), pt(width), pt(height)).fillOpacity(opacity).fill(shadow.ink);
	doc.restore();
}

/** Draws the shadow of text as shapes: it is no text to be read, copied or searched. */
function drawTextShadow(doc: Doc, piece: LaidPiece, x: number, y: number, shadow: Shadow): void {
	const { face, text, size, tracking, spread } = piece;
	// Softened in a ring: as many copies, each moved by half the blur another way.
	const around = shadow.blur > 0 ? SOFTENED : [[0, 0] as const];
	doc
		.save()
		.fillOpacity(1 / around.length)
		.fillColor(shadow.ink);
	for (const [dx, dy] of around) {
		let more = 0;
		for (const { path, scale, x: at, character } of face.outlines(text)) {
			const left = x + shadow.x + (dx * shadow.blur) / 2 + at * size + more;
			if (path)
				doc
					.save()
					.translate(pt(left), pt(y + shadow.y + (dy * shadow.blur) / 2))
					.scale(pt(size * scale), -pt(size * scale))
					.path(path)
					.fill()
					.restore();
			more += tracking + (character === ' ' ? spread : 0);
		}
	}
	doc.restore();
}
const SOFTENED = Array.from(
	{ length: 8 },
	(_, i) => [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)] as const
);

/** Draws text so that its letters stand where the layout put them. */
function drawText(doc: Doc, { x, y, turn, piece, shadow }: Extract<Mark, { kind: 'text' }>): void {
	const { face, text, size, tracking, spread, ink, underline, width, typed, isTurned } = piece;
	doc.save();
	if (turn) doc.rotate(turn, { origin: [pt(x), pt(y)] });
	if (shadow) drawTextShadow(doc, piece, x, y, shadow);
	// What is drawn from its other end is read as it was typed.
	const actual = typed ?? (isTurned ? text : undefined);
	if (actual !== undefined) doc.markContent('Span', { actual });
	let left = x;
	const runs = isTurned
		? face
				.runs(text)
				.toReversed()
				.map((run) => ({ ...run, text: drawnFromLeft(run.text) }))
		: face.runs(text);
	for (const { text: part, file } of runs) {
		const key = `${faceKey(face.name)} ${file}`;
		doc
			.font(key)
			.fontSize(pt(size))
			.fillColor(ink)
			.text(part, pt(left), pt(y), {
				lineBreak: false,
				baseline: 'alphabetic',
				characterSpacing: pt(tracking),
				wordSpacing: pt(spread)
			});
		left += face.advance(part) * size + tracking * [...part].length + spread * (part.split(' ').length - 1);
	}
	if (actual !== undefined) doc.endMarkedContent();
	if (underline !== 'none') {
		const thick = Math.max(0.4, pt(size) / 18);
		const under = (aside: number) =>
			doc
				.lineWidth(thick)
				.strokeColor(ink)
				.moveTo(pt(x), pt(y) + aside)
				.lineTo(pt(x + width), pt(y) + aside)
				.stroke();
		under(pt(size) * 0.12);
		if (underline === 'double') under(pt(size) * 0.12 + thick * 2);
	}
	doc.restore();
}

function drawPicture(doc: Doc, { x, y, width, height, picture }: Extract<Mark, { kind: 'picture' }>): void {
	const bytes = drawableBytes(inPixels(picture));
	if (bytes) doc.image(bytes, pt(x), pt(y), { width: pt(width), height: pt(height) });
}

function drawMark(doc: Doc, mark: Mark): void {
	if (mark.kind === 'fill') doc.rect(pt(mark.x), pt(mark.y), pt(mark.width), pt(mark.height)).fill(mark.ink);
	else if (mark.kind === 'line') drawLine(doc, mark);
	else if (mark.kind === 'picture') drawPicture(doc, mark);
	else if (mark.kind === 'shadow') drawShadow(doc, mark);
	else drawText(doc, mark);
}

/** Writes pages with the document's structure beside them (ISO 32000-1, §14.8): headings, contents, tables with TH and TD. */
class Tagger {
	private readonly root: Element;
	/** The elements of a table so far: cells go on over pages. */
	private readonly tables = new Map<
		TableMarks['laid'],
		{ table: Element; rows: Element[]; cells: Map<number, Element> }
	>();
	private contents: Element | undefined;

	constructor(
		private readonly doc: Doc,
		private readonly report: Titled
	) {
		this.root = doc.struct('Document') as Element;
		doc.addStructure(this.root);
	}

	backdrop(draw: Backdrop | undefined): void {
		if (!draw) return;
		this.doc.markContent('Artifact', { type: 'Layout' });
		draw(this.doc);
		this.doc.endMarkedContent();
	}

	artifact(marks: readonly Mark[]): void {
		if (marks.length === 0) return;
		this.doc.markContent('Artifact', { type: 'Layout' });
		for (const mark of marks) drawMark(this.doc, mark);
		this.doc.endMarkedContent();
	}

	private content(element: Element, tag: string, marks: readonly Mark[]): void {
		if (marks.length === 0) return;
		element.add(this.doc.markStructureContent(tag) as never);
		for (const mark of marks) drawMark(this.doc, mark);
		this.doc.endMarkedContent();
	}

	/** A picture with the words that are said instead of it (ISO 32000-1, §14.9.3). */
	private figure(parent: Element, mark: Extract<Mark, { kind: 'picture' }>): void {
		const element = this.doc.struct('Figure', { alt: mark.picture.alternative }) as Element;
		parent.add(element as never);
		this.content(element, 'Figure', [mark]);
		element.end();
	}

	/** Words that lead to an address (ISO 32000-1, §14.8.4.4.2). */
	private link(parent: Element, mark: Extract<Mark, { kind: 'text' }>, address: string): void {
		const link = this.element(parent, 'Link');
		this.content(link, 'Link', [mark]);
		const { piece, x, y, turn } = mark;
		const [up, below, width] = [piece.face.ascent * piece.size, piece.face.descent * piece.size, piece.width];
		const box =
			turn === 90
				? [x - below, y, up + below, width]
				: turn === 270
					? [x - up, y - width, up + below, width]
					: [x, y - up, width, up + below];
		const [left, top, wide, high] = box.map(pt) as [number, number, number, number];
		this.doc.link(left, top, wide, high, address, { structParent: link, Contents: new String(piece.text) } as never);
		// A link's place is the page that its element ends on.
		link.end();
	}

	private element(parent: Element, type: string, attributes?: Record<string, unknown>): Element {
		const element = this.doc.struct(type) as Element;
		if (attributes) element.dictionary.data.A = attributes;
		parent.add(element as never);
		return element;
	}

	private leaf(tag: string, marks: readonly Mark[]): void {
		const element = this.element(this.root, tag);
		this.marks(element, tag, marks);
		element.end();
	}

	/** What stands in an element, with the links and pictures among it as elements of their own. */
	private marks(element: Element, tag: string, marks: readonly Mark[]): void {
		let own: Mark[] = [];
		const put = () => {
			this.content(element, tag, own);
			own = [];
		};
		for (const mark of marks)
			if (mark.kind === 'text' && mark.piece.link !== undefined) {
				put();
				this.link(element, mark, mark.piece.link);
			} else if (mark.kind !== 'picture') own.push(mark);
		put();
		for (const mark of marks) if (mark.kind === 'picture') this.figure(element, mark);
	}

	piece(piece: Piece): void {
		switch (piece.kind) {
			case 'artifact':
				return this.artifact(piece.marks);
			case 'title':
				return this.leaf('H1', piece.marks);
			case 'heading':
				return this.leaf(`H${Math.min(6, piece.level + 1)}`, piece.marks);
			case 'contents':
			case 'paragraph':
				return this.leaf('P', piece.marks);
			case 'entry': {
				this.contents ??= this.element(this.root, 'TOC');
				const item = this.element(this.contents, 'TOCI');
				const link = this.element(item, 'Link');
				this.content(link, 'Link', piece.marks);
				const { x, y, width, height } = piece.box;
				this.doc.goTo(pt(x), pt(y), pt(width), pt(height), `table-${piece.table}`, {
					structParent: link,
					Contents: new String(this.report.tables.get(piece.table)!.label)
				} as never);
				// A link's place is the page that its element ends on.
				link.end();
				item.end();
				return;
			}
			case 'table': {
				if (piece.repeated) this.artifacts(piece.repeated);
				this.table(this.root, piece.marks);
			}
		}
	}

	/** A table that says nothing of its own: the head of one that goes on. */
	private artifacts({ fills, lines, cells }: TableMarks): void {
		this.artifact([...fills, ...cells.flatMap(({ marks }) => marks), ...lines]);
		for (const { tables, repeated } of cells) for (const inner of [...repeated, ...tables]) this.artifacts(inner);
	}

	private table(parent: Element, { laid, fills, lines, cells }: TableMarks): void {
		const { table } = laid.input;
		let known = this.tables.get(laid);
		if (!known) {
			const element = this.element(parent, 'Table');
			known = { table: element, rows: table.roles.map(() => this.element(element, 'TR')), cells: new Map() };
			this.tables.set(laid, known);
		}
		this.artifact(fills);
		for (const cell of cells) this.cell(laid, known, cell);
		this.artifact(lines);
	}

	private cell(
		laid: TableMarks['laid'],
		known: { rows: Element[]; cells: Map<number, Element> },
		{ cell, marks, tables, repeated }: CellMarks
	): void {
		const { table } = laid.input;
		const { r, c, rows, cols } = table.cells[cell]!;
		const { isHeader: isHead, holdsFigures } = behaviour(table.roles[r]!);
		const isLabel = c < table.firstColumns && holdsFigures;
		const tag = isHead || isLabel ? 'TH' : 'TD';
		let element = known.cells.get(cell);
		if (!element) {
			const attributes = {
				O: 'Table',
				...((isHead || isLabel) && { Scope: isHead ? 'Column' : 'Row' }),
				...(rows > 1 && { RowSpan: rows }),
				...(cols > 1 && { ColSpan: cols })
			};
			element = this.element(known.rows[r]!, tag, Object.keys(attributes).length > 1 ? attributes : undefined);
			known.cells.set(cell, element);
		}
		this.marks(element, tag, marks);
		for (const head of repeated) this.artifacts(head);
		for (const inner of tables) this.table(element, inner);
	}

	end(): void {
		for (const { rows, cells, table } of [...this.tables.values()].reverse()) {
			for (const cell of cells.values()) cell.end();
			for (const row of rows) row.end();
			table.end();
		}
		this.contents?.end();
		this.root.end();
	}
}

/**
 * A report as a tagged PDF (ISO 32000-1) with its fonts embedded and a bookmark for each table, and what a person should
 * know of it: families that were replaced, characters that no font has.
 */
export async function writePdf(report: Report): Promise<{ bytes: Uint8Array<ArrayBuffer>; remarks: string[] }> {
	const pages = layPages(report);
	return {
		bytes: await drawPages(pages, report),
		remarks: [...missingText(report, pages), ...pageRemarks(report, pages)]
	};
}

/** The pages of a report, laid out in the faces that ship. */
export const layPages = (report: Report): Page[] => layReport(report, shippedFaces);

/** What a person should know of pages: families and characters that are missing, pictures that cannot be drawn. */
export function pageRemarks(report: Report, pages: readonly Page[]): string[] {
	const replaced = replacedFamilies(report.tables.values());
	const missing = new Set(
		pages.flatMap(textsOf).flatMap(({ face, text }) => [...text].filter((character) => face.missing.has(character)))
	);
	return [
		...replaced.map((family) => `“${family}” does not ship with Heptarch; “${standIn(family)}” stands in for it.`),
		...(missing.size
			? [
					`No font that ships has ${pluralWord(missing.size, 'the character', 'these characters')}: ${[...missing].slice(0, 12).join(' ')}${missing.size > 12 ? ' …' : ''}.`
				]
			: []),
		...pictureRemarks(pages)
	];
}

/** Pictures that cannot be drawn, each said once. */
export function pictureRemarks(pages: readonly Page[]): string[] {
	const broken = pages
		.flatMap(marksIn)
		.flatMap((mark) => (mark.kind === 'picture' && !drawableBytes(inPixels(mark.picture)) ? [mark.picture] : []));
	return [...new Set(broken.map(({ alternative }) => alternative))].map(
		(words) => `The picture “${words}” is damaged, or neither PNG nor JPEG: it is left out.`
	);
}

/** What pages are drawn of: their title, and what their tables are called. */
interface Titled {
	readonly title: string;
	/** As BCP 47 writes it. */
	readonly language?: string | undefined;
	readonly tables: ReadonlyMap<number, Pick<ReportTable, 'label'>>;
}
/** Draws something on a page that belongs to no structure. */
export type Backdrop = (doc: Doc) => void;

/** Draws laid out pages as a tagged PDF; `behind` and `over` are drawn before and after the pieces of each page. */
export async function drawPages(
	pages: readonly Page[],
	report: Titled,
	{ behind, over }: { readonly behind?: Backdrop; readonly over?: Backdrop } = {}
): Promise<Uint8Array<ArrayBuffer>> {
	const doc = new PDFDocument({
		autoFirstPage: false,
		tagged: true,
		displayTitle: true,
		lang: report.language ?? 'en',
		pdfVersion: '1.7',
		// The type definitions know only the archive formats.
		subset: 'PDF/UA' as 'PDF/A-1',
		info: { Title: report.title, Creator: 'Heptarch', Producer: 'Heptarch', CreationDate: NO_TIME }
	});
	const chunks: Buffer[] = [];
	doc.on('data', (chunk: Buffer) => chunks.push(chunk));
	const ended = new Promise<void>((resolve, reject) => {
		doc.on('end', resolve);
		doc.on('error', reject);
	});
	const registered = new Set<string>();
	const tagger = new Tagger(doc, report);
	const marked = new Set<number>();
	for (const page of pages) {
		doc.addPage({ size: [pt(page.width), pt(page.height)], margin: 0 });
		for (const { face } of textsOf(page)) {
			const name = faceKey(face.name);
			if (registered.has(name)) continue;
			registered.add(name);
			fontFiles(face.name).forEach((bytes, file) => doc.registerFont(`${name} ${file}`, bytes));
		}
		tagger.backdrop(behind);
		for (const piece of page.pieces) {
			if (piece.kind === 'table' && !marked.has(piece.table)) {
				marked.add(piece.table);
				doc.addNamedDestination(`table-${piece.table}`, 'XYZ', 0, pt(piece.y), null as never);
				doc.outline.addItem(report.tables.get(piece.table)!.label);
			}
			tagger.piece(piece);
		}
		tagger.backdrop(over);
	}
	tagger.end();
	doc.end();
	await ended;
	return new Uint8Array(Buffer.concat(chunks));
}

/** All that is drawn on a page in its cells and beside them. */
function marksIn(page: Page): readonly Mark[] {
	const ofTable = ({ cells }: TableMarks): Mark[] =>
		cells.flatMap(({ marks, tables, repeated }) => [...marks, ...[...repeated, ...tables].flatMap(ofTable)]);
	return page.pieces.flatMap((piece): readonly Mark[] =>
		piece.kind === 'table' ? [...ofTable(piece.marks), ...(piece.repeated ? ofTable(piece.repeated) : [])] : piece.marks
	);
}

/** Every piece of text on a page. */
const textsOf = (page: Page) => marksIn(page).flatMap((mark) => (mark.kind === 'text' ? [mark.piece] : []));
