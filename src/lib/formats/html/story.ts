import type { Hints } from '../../core/recognise/facts.ts';
import { emu } from '../../core/units.ts';
import { isTableCaption } from '../captions.ts';
import { type Carried } from '../carried.ts';
import { addTo } from '../whole.ts';
import { foundTable } from '../found.ts';
import type { Block, CellContent } from '../../core/table/content.ts';
import type { DocumentTable } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { PageStyles } from './cascade.ts';
import { childElements, elements, isBlock, isSilent, isTag, isText, type Element } from './dom.ts';
import { cellsInRow } from '../../core/table/grid.ts';
import { columnElements, readGrid, type HtmlGrid } from './grid.ts';
import { pageAppearance } from './looks.ts';
import { isRightToLeft } from './properties/property.ts';
import { weightOf } from './properties/text.ts';
import { toPx } from './css.ts';
import { contentsOf, noteIn, paragraphsOf, textOf, type TextRun } from './text.ts';
import { listItemOf } from './lists.ts';
import { ownCaption, pictureIn, runView } from './beside.ts';
import { thingsIn } from './held.ts';

/** A paragraph of a page's body. */
export interface BodyParagraph {
	readonly runs: readonly TextRun[];
	readonly pictures: readonly Element[];
	/** The item of a list that it begins. */
	readonly item?: Element;
}

/** Text as one line: white space collapsed. */
const lineOf = (runs: readonly TextRun[]): string =>
	runs
		.map(({ text }) => text)
		.join('')
		.replace(/\s+/g, ' ')
		.trim();

/** Walks a page and collects its text and tables in order. */
export class PageReader {
	readonly blocks: Block[] = [];
	/** Of each block, in the page. */
	readonly places: BlockPlace[] = [];
	readonly tables: DocumentTable[] = [];
	readonly grids: HtmlGrid[] = [];
	/** Of headings and paragraphs, by the index of their block. */
	readonly paragraphs = new Map<number, BodyParagraph>();
	/** Paragraphs without text, by the index of the block that follows. */
	readonly wordless = new Map<number, BodyParagraph[]>();
	private heading: string | undefined;
	private lastText: string | undefined;

	constructor(
		readonly styles: PageStyles,
		readonly carried: Carried
	) {}

	flow(node: Element): void {
		let runs: TextRun[] = [];
		let pictures: Element[] = [];
		/** The item of a list that has begun, and has no text yet. */
		let item: Element | undefined;
		const placed = (of: Element): BlockPlace => {
			const place = of.sourceCodeLocation;
			return place ? { start: place.startOffset, end: place.endOffset } : (this.places.at(-1) ?? { start: 0, end: 0 });
		};
		/** What was gathered is a paragraph; `of` is what it stands in, or what it stands before. */
		const flush = (of: Element, isBefore = false) => {
			const text = lineOf(runs);
			const paragraph: BodyParagraph = { runs, pictures, ...(item && { item }) };
			const at = this.blocks.length;
			if (text) {
				this.paragraphs.set(at, paragraph);
				this.blocks.push({ kind: 'paragraph', text });
				const place = placed(of);
				this.places.push(isBefore ? { start: place.start, end: place.start } : place);
				this.lastText = text;
				item = undefined;
			} else if (pictures.length) addTo(this.wordless, at, paragraph);
			runs = [];
			pictures = [];
		};
		const visit = (at: Element) => {
			for (const child of at.children) {
				if (isText(child)) runs.push({ text: child.data, in: at });
				else if (isTag(child) && !isSilent(child)) {
					const level = /^h([1-6])$/.exec(child.name)?.[1];
					if (child.name === 'table') {
						flush(child, true);
						this.table(child);
					} else if (level) {
						flush(child, true);
						this.heading = textOf(child).replace(/\n/g, ' ');
						if (this.heading) {
							this.paragraphs.set(this.blocks.length, { runs: paragraphsOf(child).flat(), pictures: [] });
							this.blocks.push({ kind: 'heading', level: Number(level), text: this.heading });
							this.places.push(placed(child));
						}
						this.lastText = undefined;
					} else if (child.name === 'br') runs.push({ text: ' ', in: at });
					else if (child.name === 'img') pictures.push(child);
					else if (isBlock(child)) {
						flush(child, true);
						if (child.name === 'li') item = child;
						visit(child);
						flush(child);
						if (child.name === 'li') item = undefined;
					} else {
						const note = noteIn(child);
						if (note) runs.push({ text: '', in: child, note });
						else visit(child);
					}
				}
			}
		};
		visit(node);
		flush(node);
	}

	private readonly nested = new Map<number, Map<number, number[]>>();
	/** What the cells of a table hold; with all that a new file can hold of it where that is asked for. */
	contentOf(index: number, isWhole = false): CellContent[][] {
		const inside = (i: number) =>
			(this.nested.get(index)?.get(i) ?? []).map((at) => [this.grids[at]!.node, at] as const);
		const caption = isWhole ? (at: number) => ownCaption(this, at) : () => undefined;
		return contentOf(this.grids[index]!, this.styles, { inside, caption, isWhole });
	}

	private table(node: Element, inside?: number): void {
		const { styles } = this;
		const index = this.tables.length;
		const read = readGrid(node, `table ${index + 1}`, textOf);
		if (read.grid.cells.length === 0) return;
		const own = childElements(node, 'caption')[0];
		const caption = own
			? textOf(own).replace(/\n/g, ' ')
			: this.lastText && isTableCaption(this.lastText)
				? this.lastText
				: undefined;
		const nested = new Map<number, number[]>();
		this.nested.set(index, nested);
		this.grids.push(read);
		this.tables.push(
			foundTable({
				index,
				place: {
					where: inside === undefined ? 'body' : 'nested',
					part: 'page',
					...(this.heading && { heading: this.heading }),
					...(caption && { caption }),
					...(inside !== undefined && { inside })
				},
				grid: read.grid,
				...(isRightToLeft(styles.computed(node)) && { dir: 'rtl' as const }),
				widths: widthsOf(read),
				wornName: node.attribs['data-style'] ?? null,
				locked: [],
				carried: this.carried,
				hints: () => hintsOf(read, styles),
				appearance: () => pageAppearance(read, styles),
				content: () => this.contentOf(index)
			})
		);
		if (inside === undefined) {
			this.blocks.push({ kind: 'table', index });
			const place = node.sourceCodeLocation!;
			this.places.push({ start: place.startOffset, end: place.endOffset });
		}
		this.lastText = undefined;
		read.cells.forEach((cell, i) => {
			if (!cell) return;
			for (const inner of elements(cell)) {
				if (inner.name !== 'table' || nearestTable(inner) !== node) continue;
				nested.set(i, [...(nested.get(i) ?? []), this.tables.length]);
				this.table(inner, index);
			}
		});
	}
}

/** The table that a nested table stands in. */
function nearestTable(inner: Element): Element | undefined {
	let node = inner.parent;
	while (node && !(isTag(node as Element) && (node as Element).name === 'table')) node = node.parent;
	return node as Element | undefined;
}

/** Widths of the columns where the page says them all, by `col` elements or in the first row. */
function widthsOf(read: HtmlGrid) {
	const { grid, cells } = read;
	const said = columnElements(read).map((own): string | undefined => {
		const { attribs } = own.at(-1)!;
		return attribs.width ?? /(?:^|;)\s*width\s*:\s*([^;]+)/i.exec(attribs.style ?? '')?.[1];
	});
	if (said.length < grid.columns)
		grid.cells.forEach(({ r, c, cols }, i) => {
			const cell = cells[i];
			if (r === 0 && cols === 1 && cell)
				said[c] ??= cell.attribs.width ?? /(?:^|;)\s*width\s*:\s*([^;]+)/i.exec(cell.attribs.style ?? '')?.[1];
		});
	const widths = Array.from({ length: grid.columns }, (_, c) => {
		const text = said[c]?.trim();
		return text === undefined ? undefined : toPx(/^\d+(\.\d+)?$/.test(text) ? `${text}px` : text, 16, 640);
	});
	return widths.every((width) => width !== undefined && width > 0)
		? widths.map((width) => emu(Math.round(width! * 9_525)))
		: [];
}

/** What the page says or shows of its rows. */
function hintsOf({ grid, rows, cells }: HtmlGrid, styles: PageStyles): Hints {
	const filledIn = (r: number) =>
		cellsInRow(grid, r).flatMap((i) => (cells[i] && grid.cells[i]!.text.trim() ? [cells[i]] : []));
	const isHead = rows.map(({ node, section }) => {
		const inside = childElements(node, 'td', 'th');
		return section?.name === 'thead' || (inside.length > 1 && inside.every(({ name }) => name === 'th'));
	});
	return {
		header: isHead.map((head, r) => head && isHead.slice(0, r).every(Boolean)),
		bold: (r) => {
			const filled = filledIn(r);
			return (
				filled.length > 0 &&
				filled.every((cell) =>
					paragraphsOf(cell)
						.flat()
						.every((run) => weightOf(run.in, styles) >= 600)
				)
			);
		},
		fill: (r) => {
			const fills = filledIn(r).map(
				(cell) =>
					styles.computed(cell).get('background-color') ??
					styles.computed(cell.parent as Element).get('background-color')
			);
			const first = fills[0];
			return first && fills.filter((other) => other === first).length * 2 > fills.length ? first : undefined;
		},
		things: (cell) => thingsIn(cells[cell])
	};
}

/** The text of every cell as it is shown: runs with what they have beyond their cell's look, and tables inside. */
function contentOf(
	{ cells }: HtmlGrid,
	styles: PageStyles,
	{
		inside,
		caption,
		isWhole
	}: {
		readonly inside: (cell: number) => readonly (readonly [node: Element, index: number])[];
		/** Of a table inside, where it is to stand before it. */
		readonly caption: (index: number) => string | undefined;
		readonly isWhole: boolean;
	}
): CellContent[][] {
	return cells.map((cell, i) => {
		if (!cell) return [];
		const tables = new Map(inside(i));
		return contentsOf(cell).flatMap((piece): CellContent[] => {
			if (!('runs' in piece)) {
				const nested = tables.get(piece);
				if (nested === undefined) return isWhole ? pictureIn(piece).map((picture) => ({ picture })) : [];
				const said = caption(nested);
				return [...(said ? [{ runs: [{ text: said }] }] : []), { nested }];
			}
			const list = isWhole && piece.item ? listItemOf(piece.item, styles) : undefined;
			const runs = isWhole ? piece.runs : piece.runs.filter(({ text }) => text);
			return [{ runs: runs.map((run) => runView(run, cell, styles)), ...(list && { list }) }];
		});
	});
}
