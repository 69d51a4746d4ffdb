import type { Appearance } from '../../core/cascade/look.ts';
import type { Hints } from '../../core/recognise/facts.ts';
import type { Block, CellContent, RunView } from '../../core/table/content.ts';
import type { DocumentTable, TablePlace } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { descendants, type XmlDocument, type XmlNode } from '../package/xml.ts';
import type { Carried } from '../carried.ts';
import { addTo } from '../whole.ts';
import { foundTable, shownHints } from '../found.ts';
import { isTableCaption } from '../captions.ts';
import { isRightToLeft, PropertyReader, readTableProperties, resolverOf } from './looks.ts';
import { cellLooks, fileAppearance } from './appearance.ts';
import { readCellText } from './cell-text.ts';
import { StyleSheet } from './styles.ts';
import { paragraphText, readGrid, type SourceGrid } from './tables.ts';
import { linksIn, noteIn, NOTHING_BESIDE, picturesIn, positionOf, type Beside } from './beside.ts';
import { thingsIn } from './held.ts';

/** A part that can hold tables. */
export interface StoryPart {
	readonly name: string;
	readonly kind: TablePlace['where'];
	readonly xml: XmlDocument;
	/** Addresses of links, by the ids of their relationships. */
	readonly links: ReadonlyMap<string, string>;
}

/** A table with the way back to its markup. */
export interface SourceTable {
	readonly story: StoryPart;
	readonly source: SourceGrid;
	readonly reader: PropertyReader;
}

/** Walks the stories of a document and collects its text and tables in order. */
export class StoryReader {
	readonly blocks: Block[] = [];
	/** Of each block, in the main part; tables of other parts are put at its end. */
	readonly places: BlockPlace[] = [];
	readonly tables: DocumentTable[] = [];
	readonly sources: SourceTable[] = [];
	/** Of headings and paragraphs, by the index of their block. */
	readonly paragraphs = new Map<number, XmlNode>();
	/** Paragraphs of the body without text, by the index of the block that follows. */
	readonly wordless = new Map<number, XmlNode[]>();
	private reader!: PropertyReader;
	private hasFields = false;
	private heading: string | undefined;
	private lastParagraph: { text: string; caption: boolean } | undefined;

	constructor(
		private readonly sheet: StyleSheet,
		private readonly carried: Carried
	) {}

	read(story: StoryPart): void {
		this.heading = undefined;
		this.lastParagraph = undefined;
		this.hasFields = story.xml.source.includes('instrText');
		this.reader = new PropertyReader(story.xml, this.sheet);
		const body = story.kind === 'body' ? story.xml.root.child('w:body') : story.xml.root;
		if (body) this.walk(body, story, story.kind);
	}

	private walk(node: XmlNode, story: StoryPart, where: TablePlace['where'], inside?: number): void {
		for (const child of node.children)
			if (child.name === 'w:tbl') this.table(child, story, where, inside);
			else if (child.name === 'w:p') this.paragraph(child, story, where === 'body');
			else if (child.name !== 'mc:Fallback') this.walk(child, story, where, inside);
	}

	private paragraph(node: XmlNode, story: StoryPart, isContext: boolean): void {
		const text = paragraphText(node).trim();
		if (isContext && !text) addTo(this.wordless, this.blocks.length, node);
		if (isContext && text) {
			this.paragraphs.set(this.blocks.length, node);
			const styleId = node.at('w:pPr', 'w:pStyle')?.attribute('w:val');
			const name = (styleId && this.sheet.styles.get(styleId)?.name) || '';
			const level = /^heading (\d)/i.exec(name)?.[1] ?? (/^title$/i.test(name) ? '0' : undefined);
			if (level !== undefined) {
				this.heading = text;
				this.blocks.push({ kind: 'heading', level: Number(level), text });
			} else this.blocks.push({ kind: 'paragraph', text });
			this.places.push(node);
			this.lastParagraph = { text, caption: /^caption$/i.test(name) || isTableCaption(text) };
		}
		for (const box of descendants(node, 'w:txbxContent')) this.walk(box, story, 'text box');
	}

	private readonly nested = new Map<number, Map<number, number[]>>();
	/** What the cells of a table hold. */
	content(index: number, appearance: Appearance, beside = NOTHING_BESIDE): CellContent[][] {
		const { source, reader, story } = this.sources[index]!;
		const inside = (cell: number) =>
			(this.nested.get(index)?.get(cell) ?? []).map((at) => ({ start: this.sources[at]!.source.node.start, at }));
		return readContent(source, appearance, reader, { inside, links: story.links, beside });
	}

	private table(node: XmlNode, story: StoryPart, where: TablePlace['where'], inside?: number): void {
		const index = this.tables.length;
		const source = readGrid(node, story.name);
		const { reader, hasFields } = this;
		const styleId = node.at('w:tblPr', 'w:tblStyle')?.attribute('w:val');
		const wornName = (styleId && this.sheet.styles.get(styleId)?.name) || null;
		const caption = this.lastParagraph?.caption ? this.lastParagraph.text : undefined;
		this.sources.push({ story, source, reader: this.reader });
		const place: TablePlace = {
			where: inside === undefined ? where : 'nested',
			part: story.name,
			...(this.heading && { heading: this.heading }),
			...(caption && { caption }),
			...(inside !== undefined && { inside })
		};
		const nested = new Map<number, number[]>();
		this.nested.set(index, nested);
		this.tables.push(
			foundTable({
				index,
				place,
				grid: source.grid,
				...(isRightToLeft(node, this.sheet) && { dir: 'rtl' as const }),
				widths: source.widths,
				wornName,
				locked: source.sources.flatMap((cells, i) => (cells[0]?.isLocked ? [i] : [])),
				carried: this.carried,
				hints: () => hintsOf(source, reader, hasFields),
				appearance: () => fileAppearance(source, reader),
				content: (appearance) => this.content(index, appearance)
			})
		);
		if (inside === undefined) {
			this.blocks.push({ kind: 'table', index });
			this.places.push(where === 'body' ? node : (this.places.at(-1) ?? { start: 0, end: 0 }));
		}
		this.lastParagraph = undefined;
		source.sources.forEach((cells, cell) => {
			for (const { node: tc } of cells)
				for (const inner of descendants(tc, 'w:tbl')) {
					nested.set(cell, [...(nested.get(cell) ?? []), this.tables.length]);
					this.table(inner, story, where, index);
				}
		});
	}
}

/** The text of every cell as it is shown: runs with what they have beyond their cell's look, and tables inside. */
function readContent(
	source: SourceGrid,
	appearance: Appearance,
	reader: PropertyReader,
	{
		inside,
		links,
		beside
	}: {
		/** The tables in a cell, by where they begin. */
		readonly inside: (cell: number) => readonly { readonly start: number; readonly at: number }[];
		readonly links: ReadonlyMap<string, string>;
		readonly beside: Beside;
	}
): CellContent[][] {
	const { grid } = source;
	const resolver = resolverOf(reader.sheet, readTableProperties(source.node, reader.sheet));
	return source.sources.map((cells, cell) => {
		const first = cells[0];
		if (!first) return [];
		const look = appearance.looks[appearance.cellLook[cell]!]!;
		const ground = resolver.ground(first, grid.rows, grid.columns);
		const layer = reader.cell(first.node.child('w:tcPr'));
		const paragraphs = readCellText(first.node, reader).map(({ node, context: paragraph, runs }) => {
			const linked = linksIn(node, links);
			const own = runs.flatMap(({ node, context, text }): RunView[] => {
				const note = noteIn(node, beside);
				if (!text && !note) return [];
				const link = linked.get(node);
				const own = resolver.look(ground, layer, resolver.text(ground, context), resolver.paragraph(ground, paragraph));
				const position = positionOf(node);
				const view: RunView = {
					text,
					...(own.weight !== look.weight && { weight: own.weight }),
					...(own.italic !== look.italic && { italic: own.italic }),
					...(own.underline !== look.underline && { underline: own.underline }),
					...(own.ink !== look.ink && own.ink && { ink: own.ink }),
					...(position && { position }),
					...(link && { link })
				};
				return note ? [...(text ? [view] : []), { text: '', note }] : [view];
			});
			const list = beside.lists.get(node);
			const pieces: CellContent[] = picturesIn(node, beside).map((picture) => ({ picture }));
			const said: CellContent[] = own.length || !pieces.length ? [{ runs: own, ...(list && { list }) }] : [];
			return { start: node.start, pieces: [...said, ...pieces] };
		});
		const tables = inside(cell).map(({ start, at }) => ({ start, pieces: [{ nested: at }] as CellContent[] }));
		// A cell ends with a paragraph (§17.4.65), which says nothing where it follows a table.
		const last = paragraphs.at(-1);
		const isEmptyLast = tables.length && last && last.start > tables.at(-1)!.start && !saysSomething(last.pieces);
		return [...(isEmptyLast ? paragraphs.slice(0, -1) : paragraphs), ...tables]
			.sort((a, b) => a.start - b.start)
			.flatMap(({ pieces }) => pieces);
	});
}

const saysSomething = (pieces: readonly CellContent[]): boolean =>
	pieces.some((piece) => !('runs' in piece) || piece.runs.length > 0);

/** What the file says or shows of its rows. */
function hintsOf(source: SourceGrid, reader: PropertyReader, hasFields: boolean): Hints {
	const { grid, rows } = source;
	return {
		header: rows.map(({ header }, r) => header && rows.slice(0, r).every((row) => row.header)),
		...shownHints(grid, cellLooks(source, reader)),
		formula: rows.map(
			({ cells }) =>
				hasFields &&
				cells.some(({ node }) => descendants(node, 'w:instrText').some(({ text }) => /=\s*SUM\s*\(/i.test(text)))
		),
		things: (cell) => thingsIn(source.sources[cell]?.map(({ node }) => node) ?? [])
	};
}
