import type { Appearance } from '../../core/cascade/look.ts';
import type { Hints } from '../../core/recognise/facts.ts';
import { isTableCaption } from '../captions.ts';
import { type Carried } from '../carried.ts';
import { addTo } from '../whole.ts';
import { foundTable, shownHints } from '../found.ts';
import type { Block, CellContent } from '../../core/table/content.ts';
import type { DocumentTable, TablePlace } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { type XmlDocument, type XmlNode } from '../package/xml.ts';
import { readGrid, type OdtGrid } from './grid.ts';
import { documentAppearance, runProperties } from './looks.ts';
import { toEmu } from './properties/property.ts';
import { tableIsRight } from './direction.ts';
import { OdfStyles } from './styles.ts';
import { paragraphsOf, readParagraph, textOf, type TextParagraph } from './text.ts';
import { NOTHING_BESIDE, picturesIn, runView, type Beside } from './beside.ts';
import { thingsIn } from './held.ts';

/** A part of the document with text and tables of its own. */
export interface OdtPart {
	readonly name: 'content.xml' | 'styles.xml';
	readonly xml: XmlDocument;
}

/** Walks the text of a document and collects its text and tables in order. */
export class TextReader {
	readonly blocks: Block[] = [];
	/** Of each block, in the main part; tables of other parts are put at its end. */
	readonly places: BlockPlace[] = [];
	readonly tables: DocumentTable[] = [];
	readonly sources: { part: OdtPart; grid: OdtGrid }[] = [];
	/** Of headings and paragraphs, by the index of their block. */
	readonly paragraphs = new Map<number, XmlNode>();
	/** Paragraphs of the body without text, by the index of the block that follows. */
	readonly wordless = new Map<number, XmlNode[]>();
	private heading: string | undefined;
	private last: { text: string; isCaption: boolean } | undefined;

	constructor(
		private readonly styles: OdfStyles,
		private readonly carried: Carried
	) {}

	read(part: OdtPart, node: XmlNode, where: TablePlace['where']): void {
		this.heading = undefined;
		this.last = undefined;
		this.walk(part, node, where);
	}

	private walk(part: OdtPart, node: XmlNode, where: TablePlace['where']): void {
		for (const child of node.children)
			if (child.name === 'table:table') this.table(part, child, where);
			else if (child.name === 'text:p' || child.name === 'text:h') this.paragraph(part, child, where);
			else if (child.name === 'text:note') this.walk(part, child, 'notes');
			else if (child.name !== 'text:tracked-changes' && child.name !== 'office:annotation')
				this.walk(part, child, where);
	}

	private paragraph(part: OdtPart, node: XmlNode, where: TablePlace['where']): void {
		const { source } = part.xml;
		const text = textOf([readParagraph(node, source)]).trim();
		if (where === 'body' && !text) addTo(this.wordless, this.blocks.length, node);
		if (where === 'body' && text) {
			this.paragraphs.set(this.blocks.length, node);
			if (node.name === 'text:h') {
				this.heading = text;
				this.blocks.push({ kind: 'heading', level: Number(node.attribute('text:outline-level') ?? 1), text });
			} else this.blocks.push({ kind: 'paragraph', text });
			this.places.push(node);
			const name = this.styles.displayName('paragraph', node.attribute('text:style-name')) ?? '';
			this.last = { text, isCaption: /^(caption|table|tabelle)$/i.test(name) || isTableCaption(text) };
		}
		// Frames and notes anchored in a paragraph may hold tables of their own.
		for (const child of node.children) this.walkFrames(part, child);
	}
	private walkFrames(part: OdtPart, node: XmlNode): void {
		if (node.name === 'draw:text-box') this.walk(part, node, 'text box');
		else if (node.name === 'text:note') this.walk(part, node, 'notes');
		else for (const child of node.children) this.walkFrames(part, child);
	}

	private readonly nested = new Map<number, Map<number, number[]>>();
	/** What the cells of a table hold. */
	contentOf(
		index: number,
		appearance: Appearance,
		paragraphs: (cell: XmlNode) => readonly TextParagraph[],
		beside = NOTHING_BESIDE
	): CellContent[][] {
		const inside = (cell: number) =>
			(this.nested.get(index)?.get(cell) ?? []).map((at) => ({ start: this.sources[at]!.grid.node.start, at }));
		const { part, grid } = this.sources[index]!;
		const { source } = part.xml;
		return contentOf(grid, appearance, { paragraphs, styles: this.styles, inside, beside, source });
	}

	private table(part: OdtPart, node: XmlNode, where: TablePlace['where'], inside?: number): void {
		const { styles } = this;
		const { source } = part.xml;
		const index = this.tables.length;
		const known = new Map<XmlNode, readonly TextParagraph[]>();
		const paragraphs = (cell: XmlNode) => {
			let found = known.get(cell);
			if (!found) known.set(cell, (found = paragraphsOf(cell, source)));
			return found;
		};
		const read = readGrid(node, `table ${index + 1}`, (cell) => textOf(paragraphs(cell)));
		if (read.grid.cells.length === 0) return;
		const nested = new Map<number, number[]>();
		this.nested.set(index, nested);
		this.sources.push({ part, grid: read });
		this.tables.push(
			foundTable({
				index,
				place: {
					where: inside === undefined ? where : 'nested',
					part: part.name,
					...(this.heading && { heading: this.heading }),
					...(this.last?.isCaption && { caption: this.last.text }),
					...(inside !== undefined && { inside })
				},
				grid: read.grid,
				...(tableIsRight(styles.properties('table', node.attribute('table:style-name'))) && { dir: 'rtl' as const }),
				widths: widthsOf(read, styles),
				wornName: node.attribute('table:template-name') ?? null,
				locked: read.cells.flatMap((cell, i) => (cell?.attribute('table:protected') === 'true' ? [i] : [])),
				carried: this.carried,
				hints: (appearance) => hintsOf(read, appearance),
				appearance: () => documentAppearance(read, paragraphs, styles),
				content: (appearance) => this.contentOf(index, appearance, paragraphs)
			})
		);
		if (inside === undefined) {
			this.blocks.push({ kind: 'table', index });
			this.places.push(where === 'body' ? node : (this.places.at(-1) ?? { start: 0, end: 0 }));
		}
		this.last = undefined;
		read.cells.forEach((cell, i) => {
			const inner = cell ? [...tablesIn(cell)] : [];
			for (const one of inner) {
				nested.set(i, [...(nested.get(i) ?? []), this.tables.length]);
				this.table(part, one, where, index);
			}
		});
	}
}

function* tablesIn(node: XmlNode): Generator<XmlNode> {
	for (const child of node.children)
		if (child.name === 'table:table') yield child;
		else yield* tablesIn(child);
}

function widthsOf({ grid, columns }: OdtGrid, styles: OdfStyles) {
	const widths = columns
		.slice(0, grid.columns)
		.map((name) => toEmu(styles.properties('table-column', name).get('style:column-width')));
	return widths.length === grid.columns && widths.every((width) => width !== undefined && width > 0)
		? widths.map((width) => width!)
		: [];
}

function hintsOf({ grid, rows, cells }: OdtGrid, appearance: () => Appearance): Hints {
	return {
		header: rows.map(({ isHeader }, r) => isHeader && rows.slice(0, r).every((row) => row.isHeader)),
		...shownHints(grid, (cell) => appearance().looks[appearance().cellLook[cell]!]!),
		things: (cell) => thingsIn(cells[cell])
	};
}

/** The text of every cell as it is shown: runs with what they have beyond their cell's look, and tables inside. */
function contentOf(
	{ cells, cellStyles }: OdtGrid,
	appearance: Appearance,
	{
		paragraphs,
		styles,
		inside,
		beside,
		source
	}: {
		readonly paragraphs: (cell: XmlNode) => readonly TextParagraph[];
		readonly styles: OdfStyles;
		/** The tables in a cell, by where they begin. */
		readonly inside: (cell: number) => readonly { readonly start: number; readonly at: number }[];
		readonly beside: Beside;
		readonly source: string;
	}
): CellContent[][] {
	return cells.map((cell, i) => {
		if (!cell) return [];
		const look = appearance.looks[appearance.cellLook[i]!]!;
		const content = paragraphs(cell).map((one) => {
			const runs = one.runs.map((run) =>
				runView(run, { properties: runProperties(one, run, styles, cellStyles[i]), styles, look, source })
			);
			const list = beside.lists.get(one.node);
			const pieces: CellContent[] = picturesIn(one.node, beside).map((picture) => ({ picture }));
			const said: CellContent[] = runs.length || !pieces.length ? [{ runs, ...(list && { list }) }] : [];
			return { start: one.node.start, pieces: [...said, ...pieces] };
		});
		const tables = inside(i).map(({ start, at }) => ({ start, pieces: [{ nested: at }] as CellContent[] }));
		return [...content, ...tables].sort((a, b) => a.start - b.start).flatMap(({ pieces }) => pieces);
	});
}
