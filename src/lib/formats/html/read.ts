import { InputError } from '../../core/errors.ts';
import type { Hints } from '../../core/recognise/facts.ts';
import { emu } from '../../core/units.ts';
import { isTableCaption } from '../captions.ts';
import { carriedFromJson, type Carried } from '../carried.ts';
import { foundTable, withContent } from '../found.ts';
import type { Block, CellContent, RunView } from '../../core/table/content.ts';
import type { DocumentTable, OpenDocument } from '../document.ts';
import type { BlockPlace } from '../document.ts';
import { decodeText, type EncodedText } from '../package/encoding.ts';
import { PageStyles } from './cascade.ts';
import {
	childElements,
	elements,
	isBlock,
	isSilent,
	isTag,
	isText,
	parsePage,
	type Document,
	type Element
} from './dom.ts';
import { cellsInRow } from '../../core/table/grid.ts';
import { columnElements, readGrid, type HtmlGrid } from './grid.ts';
import { pageAppearance } from './looks.ts';
import { inkOf } from './properties/fill.ts';
import { isRightToLeft } from './properties/property.ts';
import { underlineOf, weightOf } from './properties/text.ts';
import { toPx } from './css.ts';
import { contentsOf, paragraphsOf, textOf } from './text.ts';
import { countHeld } from './held.ts';
import { safeLink, type Held } from '../held.ts';
import { pictureSize } from '../picture-size.ts';

/** The type of the script element that holds Heptarch's own data; browsers do not run it. */
export const DATA_TYPE = 'application/heptarch+json';

/** A web page opened, with the way back from each table to its markup. */
export interface HtmlDocument extends OpenDocument {
	readonly kind: 'html';
	readonly source: EncodedText;
	readonly page: Document;
	readonly blockPlaces: readonly BlockPlace[];
	readonly pageStyles: PageStyles;
	readonly grids: readonly HtmlGrid[];
	readonly carriedData: Carried;
}

/** The encoding that a page declares (HTML Standard §13.2.3.2). */
function declaredEncoding(bytes: Uint8Array): string | undefined {
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4096));
	return /<meta[^>]+charset\s*=\s*["']?\s*([\w-]+)/i.exec(head)?.[1];
}

function readCarriedData(page: Document): Carried {
	for (const element of elements(page))
		if (element.name === 'script' && element.attribs.type === DATA_TYPE)
			return carriedFromJson(element.children.map((child) => ('data' in child ? child.data : '')).join(''));
	return carriedFromJson(undefined);
}

/** Opens a web page. Nothing in it is run, and nothing outside it is fetched. Throws InputError for what is no page. */
export function readHtml(bytes: Uint8Array): HtmlDocument {
	const source = decodeText(bytes, declaredEncoding(bytes));
	if (source.text.includes('\0') || !/<[a-z!]/i.test(source.text))
		throw new InputError('not-a-page', 'This is no web page: there is no markup in it. Was it renamed?');
	const page = parsePage(source.text);
	const reader = new PageReader(new PageStyles(page), readCarriedData(page));
	for (const element of childElements(page, 'html'))
		for (const body of childElements(element, 'body')) reader.flow(body);
	const remarks: string[] = [];
	const all = [...elements(page)];
	if (all.some(({ name, attribs }) => name === 'link' && /stylesheet/i.test(attribs.rel ?? '')))
		remarks.push('This page takes style sheets from other files; what they say is not known here.');
	return {
		kind: 'html',
		blocks: reader.blocks,
		blockPlaces: reader.places,
		tables: reader.tables,
		styles: reader.carried.styles,
		remarks,
		withPictures: async () =>
			reader.tables.map((entry, index) => withContent(entry, () => reader.contentOf(index, true))),
		held(only) {
			const held: Held = new Map();
			for (const node of only ? only.map((index) => reader.grids[index]!.node) : [page as unknown as Element])
				countHeld(node, held);
			return held;
		},
		source,
		page,
		pageStyles: reader.styles,
		grids: reader.grids,
		carriedData: reader.carried
	};
}

/** Walks a page and collects its text and tables in order. */
class PageReader {
	readonly blocks: Block[] = [];
	/** Of each block, in the page. */
	readonly places: BlockPlace[] = [];
	readonly tables: DocumentTable[] = [];
	readonly grids: HtmlGrid[] = [];
	private heading: string | undefined;
	private lastText: string | undefined;

	constructor(
		readonly styles: PageStyles,
		readonly carried: Carried
	) {}

	flow(node: Element): void {
		let text = '';
		const placed = (of: Element): BlockPlace => {
			const place = of.sourceCodeLocation;
			return place ? { start: place.startOffset, end: place.endOffset } : (this.places.at(-1) ?? { start: 0, end: 0 });
		};
		/** The text that was gathered is a paragraph; `of` is what it stands in, or what it stands before. */
		const flush = (of: Element, isBefore = false) => {
			const line = text.replace(/\s+/g, ' ').trim();
			if (line) {
				this.blocks.push({ kind: 'paragraph', text: line });
				const place = placed(of);
				this.places.push(isBefore ? { start: place.start, end: place.start } : place);
				this.lastText = line;
			}
			text = '';
		};
		const visit = (at: Element) => {
			for (const child of at.children) {
				if (isText(child)) text += child.data;
				else if (isTag(child) && !isSilent(child)) {
					const level = /^h([1-6])$/.exec(child.name)?.[1];
					if (child.name === 'table') {
						flush(child, true);
						this.table(child);
					} else if (level) {
						flush(child, true);
						this.heading = textOf(child).replace(/\n/g, ' ');
						if (this.heading) {
							this.blocks.push({ kind: 'heading', level: Number(level), text: this.heading });
							this.places.push(placed(child));
						}
						this.lastText = undefined;
					} else if (child.name === 'br') text += ' ';
					else if (isBlock(child)) {
						flush(child, true);
						visit(child);
						flush(child);
					} else visit(child);
				}
			}
		};
		visit(node);
		flush(node);
	}

	private readonly nested = new Map<number, Map<number, number[]>>();
	/** What the cells of a table hold, with the pictures among it where they are asked for. */
	contentOf(index: number, hasPictures = false): CellContent[][] {
		const inside = (i: number) =>
			(this.nested.get(index)?.get(i) ?? []).map((at) => [this.grids[at]!.node, at] as const);
		return contentOf(this.grids[index]!, this.styles, inside, hasPictures);
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
		}
	};
}

/** The text of every cell as it is shown: runs with what they have beyond their cell's look, and tables inside. */
function contentOf(
	{ cells }: HtmlGrid,
	styles: PageStyles,
	nestedIn: (cell: number) => readonly (readonly [node: Element, index: number])[],
	hasPictures: boolean
): CellContent[][] {
	return cells.map((cell, i) => {
		if (!cell) return [];
		const base = styles.computed(cell);
		const [weight, italic, underline, ink] = [
			weightOf(cell, styles),
			/italic|oblique/.test(base.get('font-style') ?? ''),
			underlineOf(base),
			inkOf(base)
		];
		const tables = new Map(nestedIn(i));
		return contentsOf(cell).flatMap((runs): CellContent[] => {
			if (!Array.isArray(runs))
				return tables.has(runs) ? [{ nested: tables.get(runs)! }] : hasPictures ? pictureIn(runs) : [];
			return [
				{
					runs: runs.map((run): RunView => {
						if (run.in === cell) return { text: run.text };
						const link = linkAround(run.in, cell);
						const own = styles.computed(run.in);
						const isItalic = /italic|oblique/.test(own.get('font-style') ?? '');
						const ownUnderline = underlineWithin(run.in, cell, styles);
						const position = positionOf(run.in, cell);
						return {
							text: run.text,
							...(weightOf(run.in, styles) !== weight && { weight: weightOf(run.in, styles) }),
							...(isItalic !== italic && { italic: isItalic }),
							...(ownUnderline && ownUnderline !== underline && { underline: ownUnderline }),
							...(inkOf(own) !== ink && { ink: inkOf(own) }),
							...(position && { position }),
							...(link && { link })
						};
					})
				}
			];
		});
	});
}

/** An underline shows through everything inside the element that has it. */
function underlineWithin(from: Element, cell: Element, styles: PageStyles) {
	for (let node: Element | null = from; node && node !== cell; node = node.parent as Element | null) {
		const underline = underlineOf(styles.computed(node));
		if (underline !== 'none') return underline;
	}
	return undefined;
}

/** The address of the link that some text stands in. */
function linkAround(from: Element, cell: Element): string | undefined {
	for (let node: Element | null = from; node && node !== cell; node = node.parent as Element | null)
		if (node.name === 'a') return safeLink(node.attribs.href);
	return undefined;
}

/** A picture that the page holds itself; others are named, not fetched. */
function pictureIn({ attribs }: Element): CellContent[] {
	const source = attribs.src?.trim() ?? '';
	const size = pictureSize(source);
	if (!size) return [];
	const said = (name: 'width' | 'height') => Number(/^\d+/.exec(attribs[name] ?? '')?.[0]) || undefined;
	const width = said('width') ?? (said('height') ? (size.width * said('height')!) / size.height : size.width);
	const height = said('height') ?? (size.height * width) / size.width;
	const pixels = (count: number) => emu(count * 9_525);
	const picture = { source, alternative: attribs.alt ?? '', width: pixels(width), height: pixels(height) };
	return [{ picture: { ...picture, fits: 'row' } }];
}

function positionOf(from: Element, cell: Element): 'super' | 'sub' | undefined {
	for (let node: Element | null = from; node && node !== cell; node = node.parent as Element | null)
		if (node.name === 'sup') return 'super';
		else if (node.name === 'sub') return 'sub';
	return undefined;
}
