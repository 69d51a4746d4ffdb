import { contrast, PAPER, type Hex } from '../../core/colour.ts';
import type { Appearance, Line, Look } from '../../core/cascade/look.ts';
import type { Emu } from '../../core/units.ts';
import type { XmlDocument, XmlNode } from '../package/xml.ts';
import { readBorders, shownBorder, type Borders } from './properties/borders.ts';
import { readCell, readMargins, type CellLayer, type Margins } from './properties/cell.ts';
import { readParagraph, type ParagraphLayer } from './properties/paragraph.ts';
import { readText, TOGGLES, type TextLayer } from './properties/text.ts';
import { readTableLook, regionKey, regionsAt, type Block, type Place, type TableLook } from './regions.ts';
import type { StyleSheet, TableStyle } from './styles.ts';
import { paragraphsOf, runsOf, runText, type SourceCell, type SourceGrid } from './tables.ts';

/**
 * Looks are shared, not copied: property elements with the same markup are read once, and what they come to is worked
 * out once per combination. A document of many tables has few different ones.
 */

/** What a run says of itself; the same object for the same markup. */
export interface RunContext {
	/** Of its w:rPr; '' where there is none. */
	readonly markup: string;
	readonly direct: TextLayer;
	/** In a font of symbols: that is content wherever it stands. */
	readonly isSymbol: boolean;
	readonly characterStyle: string | undefined;
	readonly paragraphStyle: string | undefined;
}
const SYMBOL_FONTS = /^(symbol|wingdings|webdings|zapf|dingbats)/i;

/** What a paragraph says of itself; the same object for the same markup. */
export interface ParagraphContext {
	/** Of its w:pPr; '' where there is none. */
	readonly markup: string;
	readonly styleId: string | undefined;
	readonly direct: ParagraphLayer;
	/** The paragraph mark's own properties. */
	readonly mark: RunContext;
}

export type Sides = Partial<Record<'top' | 'bottom' | 'start' | 'end', Line | null>>;

/** What holds for one w:tc before its own direct formatting: the table style's regions and the table's properties. */
export interface CellGround {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
	readonly cell: Omit<CellLayer, 'borders'>;
	readonly sides: Sides;
	/** The same as a list: top, bottom, start, end. */
	readonly around: readonly (Line | null | undefined)[];
	readonly diagonals: Pick<Borders, 'diagonalDown' | 'diagonalUp'>;
}

interface GroundRecord extends CellGround {
	readonly texts: Map<RunContext, TextLayer>;
	readonly paragraphs: Map<ParagraphContext, ParagraphLayer>;
	readonly cellSides: Map<CellLayer, Sides>;
	readonly looks: Map<CellLayer, Map<TextLayer, Map<ParagraphLayer, Look>>>;
}

/** The value at a key, made when it is first asked for. */
export function getOrMake<K, V>(map: Map<K, V>, key: K, make: () => V): V {
	let value = map.get(key);
	if (value === undefined) map.set(key, (value = make()));
	return value;
}

/** What a w:tc says of itself; the same object for the same markup. */
export interface CellContext extends CellLayer {
	/** Of its w:tcPr; '' where there is none. */
	readonly markup: string;
}

const NEW_CONTEXTS = () => new Map<XmlNode | undefined, RunContext>();

/** Reads property elements, each different markup once. One for each part, for it holds the part's source. */
export class PropertyReader {
	private readonly runs = new Map<string, Map<XmlNode | undefined, RunContext>>();
	private readonly paragraphs = new Map<XmlNode | undefined, ParagraphContext>();
	private readonly cells = new Map<XmlNode | undefined, CellContext>();
	private readonly lines = new Map<string, Line>();
	constructor(
		readonly xml: XmlDocument,
		readonly sheet: StyleSheet
	) {}

	/** The one node for all property elements with this markup. */
	private piece(node: XmlNode | undefined): XmlNode | undefined {
		return node && (node.piece ?? this.xml.fragment(this.xml.source.slice(node.start, node.end)));
	}
	/** Of a property element in the source; '' where there is none. */
	private markup(node: XmlNode | undefined): string {
		return node ? this.xml.source.slice(node.start, node.end) : '';
	}

	run(rPr: XmlNode | undefined, paragraphStyle: string | undefined): RunContext {
		return this.runBy(this.piece(rPr), paragraphStyle, () => this.markup(rPr));
	}

	private runBy(piece: XmlNode | undefined, paragraphStyle: string | undefined, markup: () => string): RunContext {
		const byStyle = getOrMake(this.runs, paragraphStyle ?? '', NEW_CONTEXTS);
		let run = byStyle.get(piece);
		if (!run) {
			const direct = readText(piece, this.sheet.theme);
			run = {
				markup: markup(),
				direct,
				isSymbol: direct.family !== undefined && SYMBOL_FONTS.test(direct.family),
				characterStyle: piece?.child('w:rStyle')?.attribute('w:val'),
				paragraphStyle
			};
			byStyle.set(piece, run);
		}
		return run;
	}

	paragraph(node: XmlNode | undefined): ParagraphContext {
		const pPr = this.piece(node);
		return getOrMake(this.paragraphs, pPr, () => {
			const markup = this.markup(node);
			const rPr = pPr?.child('w:rPr');
			const styleId = pPr?.child('w:pStyle')?.attribute('w:val');
			const markMarkup = rPr ? markup.slice(rPr.start, rPr.end) : '';
			return {
				markup,
				styleId,
				direct: readParagraph(pPr),
				mark: this.runBy(rPr && this.xml.fragment(markMarkup), styleId, () => markMarkup)
			};
		});
	}

	cell(node: XmlNode | undefined): CellContext {
		const tcPr = this.piece(node);
		return getOrMake(this.cells, tcPr, () => {
			const layer = readCell(tcPr, this.sheet.theme);
			for (const [place, line] of Object.entries(layer.borders))
				if (line) Object.assign(layer.borders, { [place]: getOrMake(this.lines, JSON.stringify(line), () => line) });
			return { markup: this.markup(node), ...layer };
		});
	}
}

/** What a table says about itself directly (w:tblPr). */
export interface TableProperties {
	readonly styleId: string | undefined;
	readonly look: TableLook;
	readonly borders: Borders;
	readonly margins: Margins;
}

export function readTableProperties(tbl: XmlNode, sheet: StyleSheet): TableProperties {
	const tblPr = tbl.child('w:tblPr');
	return {
		styleId: tblPr?.child('w:tblStyle')?.attribute('w:val'),
		look: readTableLook(tblPr?.child('w:tblLook')),
		borders: readBorders(tblPr?.child('w:tblBorders'), sheet.theme),
		margins: readMargins(tblPr?.child('w:tblCellMar'))
	};
}

/** The sides of a cell by borders that hold for a whole block: outer ones at its rim, inside ones within. */
function sidesIn(borders: Borders, block: Block, { r, c, cols }: Place, sides: Sides): void {
	const top = r === block.top ? borders.top : borders.insideH;
	const bottom = r === block.bottom ? borders.bottom : borders.insideH;
	const start = c <= block.start ? borders.start : borders.insideV;
	const end = c + cols - 1 >= block.end ? borders.end : borders.insideV;
	if (top !== undefined) sides.top = top;
	if (bottom !== undefined) sides.bottom = bottom;
	if (start !== undefined) sides.start = start;
	if (end !== undefined) sides.end = end;
}

/**
 * Resolves looks in the standard's order (§17.7.2) for tables of one style with the same properties of their own.
 * What it returns for equal questions is the same object.
 */
export class LookResolver {
	private readonly style: TableStyle;
	private readonly grounds = new Map<number, GroundRecord>();
	constructor(
		private readonly sheet: StyleSheet,
		private readonly table: TableProperties
	) {
		this.style = sheet.table(table.styleId);
	}

	ground(place: Place, rows: number, columns: number): CellGround {
		const { style, table } = this;
		const key = regionKey(place, rows, columns, table.look, style.rowBandSize, style.columnBandSize);
		return getOrMake(this.grounds, key, () =>
			this.computeGround(place, regionsAt(place, rows, columns, table.look, style.rowBandSize, style.columnBandSize))
		);
	}

	private computeGround(place: Place, regions: ReturnType<typeof regionsAt>): GroundRecord {
		const { style, table } = this;
		const whole = regions[0]!.block;
		const text: TextLayer = {};
		const paragraph: ParagraphLayer = {};
		const cell: Omit<CellLayer, 'borders'> = { margins: { ...style.tableMargins } };
		const sides: Sides = {};
		const diagonals: CellGround['diagonals'] = {};
		sidesIn(style.tableBorders, whole, place, sides);
		for (const { region, block } of regions) {
			const layer = style.regions.get(region);
			if (!layer) continue;
			Object.assign(text, layer.text);
			Object.assign(paragraph, layer.paragraph);
			const { borders, margins, ...rest } = layer.cell;
			Object.assign(cell, rest);
			Object.assign(cell.margins, margins);
			sidesIn(borders, block, place, sides);
			for (const name of ['diagonalDown', 'diagonalUp'] as const)
				if (borders[name] !== undefined) diagonals[name] = borders[name];
		}
		sidesIn(table.borders, whole, place, sides);
		Object.assign(cell.margins, table.margins);
		return {
			text,
			paragraph,
			cell,
			sides,
			around: [sides.top, sides.bottom, sides.start, sides.end],
			diagonals,
			texts: new Map(),
			paragraphs: new Map(),
			cellSides: new Map(),
			looks: new Map()
		};
	}

	/** The effective text layer of a run. */
	text(ground: CellGround, run: RunContext): TextLayer {
		return getOrMake((ground as GroundRecord).texts, run, () => this.sheet.interned(this.effectiveText(ground, run)));
	}

	/** Defaults, table style, paragraph style, character style, direct; toggle properties by §17.7.3. */
	effectiveText(ground: CellGround, run: RunContext): TextLayer {
		const { defaults } = this.sheet;
		const paragraph = this.sheet.text(run.paragraphStyle, 'paragraph').text;
		const character = this.sheet.text(run.characterStyle, 'character').text;
		const layer: TextLayer = { ...defaults.text, ...ground.text, ...paragraph, ...character, ...run.direct };
		for (const toggle of TOGGLES) {
			if (run.direct[toggle] !== undefined) continue;
			const set = [ground.text, paragraph, character].filter((level) => level[toggle]).length % 2 === 1;
			layer[toggle] = !!defaults.text[toggle] || set;
		}
		return layer;
	}

	paragraph(ground: CellGround, context: ParagraphContext): ParagraphLayer {
		return getOrMake((ground as GroundRecord).paragraphs, context, () =>
			this.sheet.interned(this.effectiveParagraph(ground, context.styleId, context.direct))
		);
	}

	effectiveParagraph(ground: CellGround, styleId: string | undefined, direct: ParagraphLayer): ParagraphLayer {
		return {
			...this.sheet.defaults.paragraph,
			...ground.paragraph,
			...this.sheet.text(styleId, 'paragraph').paragraph,
			...direct
		};
	}

	/** A w:tc's claims for its four sides, its own borders over those it stands in. */
	sides(ground: CellGround, own: CellLayer): Sides {
		return getOrMake((ground as GroundRecord).cellSides, own, () => {
			const sides = { ...ground.sides };
			for (const side of ['top', 'bottom', 'start', 'end'] as const)
				if (own.borders[side] !== undefined) sides[side] = own.borders[side];
			return sides;
		});
	}

	look(ground: CellGround, own: CellLayer, text: TextLayer, paragraph: ParagraphLayer): Look {
		const byText = getOrMake(
			(ground as GroundRecord).looks,
			own,
			() => new Map<TextLayer, Map<ParagraphLayer, Look>>()
		);
		const byParagraph = getOrMake(byText, text, () => new Map<ParagraphLayer, Look>());
		return getOrMake(byParagraph, paragraph, () => {
			const cell = { ...ground.cell, ...own, margins: { ...ground.cell.margins, ...own.margins } };
			const { diagonalDown = ground.diagonals.diagonalDown, diagonalUp = ground.diagonals.diagonalUp } = own.borders;
			return this.sheet.interned(
				lookOf(cell, text, paragraph, {
					...(diagonalDown !== undefined && { diagonalDown }),
					...(diagonalUp !== undefined && { diagonalUp })
				})
			);
		});
	}
}

/** Default cell margins where nothing states any (§17.4.42, §17.4.34): 115 twentieths of a point left and right. */
const DEFAULT_SIDE = (115 * 635) as Emu;

/** Layers as a look, in the values of our own model. */
function lookOf(
	cell: Omit<CellLayer, 'borders'>,
	text: TextLayer,
	paragraph: ParagraphLayer,
	diagonals: CellGround['diagonals']
): Look {
	const fill = cell.fill ?? 'none';
	const ink = text.ink === 'auto' ? automaticInk(fill) : text.ink;
	return {
		fill,
		...(text.family !== undefined && { family: text.family }),
		...(text.size !== undefined && { size: text.size }),
		weight: text.bold ? 700 : 400,
		italic: !!text.italic,
		underline: text.underline ?? 'none',
		case: text.caps ? 'upper' : text.smallCaps ? 'small-caps' : 'none',
		tracking: text.tracking ?? (0 as Emu),
		...(paragraph.lineHeight !== undefined && { lineHeight: paragraph.lineHeight }),
		...(ink !== undefined && { ink }),
		h: paragraph.h ?? 'start',
		v: cell.v ?? 'top',
		rotate: cell.rotate ?? 0,
		marginTop: cell.margins.top ?? (0 as Emu),
		marginEnd: cell.margins.end ?? DEFAULT_SIDE,
		marginBottom: cell.margins.bottom ?? (0 as Emu),
		marginStart: cell.margins.start ?? DEFAULT_SIDE,
		...(diagonals.diagonalDown && { diagonalDown: diagonals.diagonalDown }),
		...(diagonals.diagonalUp && { diagonalUp: diagonals.diagonalUp })
	};
}

/** `auto` text (§17.3.2.6): black or white, whichever can be read on the cell's shading. */
function automaticInk(fill: Hex | 'none'): Hex {
	return contrast('#000000', fill === 'none' ? PAPER : fill) >= 4.5 ? '#000000' : '#FFFFFF';
}

export interface SourceRun {
	readonly node: XmlNode;
	readonly context: RunContext;
	readonly text: string;
}

/** A cell's paragraphs and runs with what they say of themselves. */
export type CellText = readonly {
	readonly node: XmlNode;
	readonly context: ParagraphContext;
	readonly runs: readonly SourceRun[];
}[];

export function readCellText(cell: XmlNode, reader: PropertyReader): CellText {
	return paragraphsOf(cell).map((node) => {
		const context = reader.paragraph(node.child('w:pPr'));
		const runs = runsOf(node).map((run) => ({
			node: run,
			context: reader.run(run.child('w:rPr'), context.styleId),
			text: runText(run)
		}));
		return { node, context, runs };
	});
}

/** Settings that an author gives words inside a text; what all of a cell's text has in common is its look instead. */
const EMPHASIS = ['bold', 'italic', 'underline', 'caps', 'smallCaps', 'ink'] as const;
export const NO_FIELDS: ReadonlySet<keyof TextLayer> = new Set();
export const NO_EMPHASIS = () => NO_FIELDS;

/** What a cell's words say of themselves where they all say the same, and the paragraph that they first stand in. */
interface EvenText {
	readonly paragraph: ParagraphContext | undefined;
	/** Undefined where there are no words. */
	readonly run: RunContext | undefined;
}

/** Undefined where some words of the cell stand out among the others, or are symbols. */
export function evenText(cell: XmlNode, reader: PropertyReader): EvenText | undefined {
	let first: ParagraphContext | undefined;
	let common: RunContext | undefined;
	for (const node of paragraphsOf(cell)) {
		const paragraph = reader.paragraph(node.child('w:pPr'));
		first ??= paragraph;
		for (const run of runsOf(node)) {
			if (!runText(run).trim()) continue;
			const context = reader.run(run.child('w:rPr'), paragraph.styleId);
			if (context.isSymbol || (common && context !== common)) return undefined;
			if (!common) first = paragraph;
			common = context;
		}
	}
	return { paragraph: first, run: common };
}

/**
 * Tells for each run of a cell which of its own settings are emphasis inside the text: set on some words and not on
 * others. (Of several inks, the one that most of the text has is the look.) Symbol fonts are content wherever they stand.
 */
export function emphasisOf(content: CellText): (context: RunContext) => ReadonlySet<keyof TextLayer> {
	const runs = content.flatMap((paragraph) => paragraph.runs.filter(({ text }) => text.trim()));
	const uneven = new Set<(typeof EMPHASIS)[number]>();
	let mainInk: TextLayer['ink'];
	for (const field of EMPHASIS) {
		const share = new Map<unknown, number>();
		for (const { context, text } of runs)
			share.set(context.direct[field], (share.get(context.direct[field]) ?? 0) + text.length);
		if (share.size < 2) continue;
		uneven.add(field);
		if (field === 'ink')
			mainInk = [...share].reduce((most, next) => (next[1] > most[1] ? next : most))[0] as TextLayer['ink'];
	}
	return ({ direct, isSymbol }) => {
		const kept = new Set<keyof TextLayer>();
		for (const field of uneven)
			if (direct[field] !== undefined && (field !== 'ink' || direct.ink !== mainInk)) kept.add(field);
		if (isSymbol) kept.add('family');
		return kept.size ? kept : NO_FIELDS;
	};
}

/** A run's direct settings with only those fields, or all but those. */
export function directOnly(direct: TextLayer, fields: ReadonlySet<keyof TextLayer>, keep: boolean): TextLayer {
	return Object.fromEntries(
		Object.entries(direct).filter(([field]) => fields.has(field as keyof TextLayer) === keep)
	) as TextLayer;
}

interface TextLayers {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
}

/** The layers that most of a cell's text shows, emphasis inside the text aside; its paragraph mark's where there is no text. */
function prevailing(resolver: LookResolver, reader: PropertyReader, ground: CellGround, cell: XmlNode): TextLayers {
	const even = evenText(cell, reader);
	if (!even) return prevailingOf(resolver, reader.sheet, ground, readCellText(cell, reader));
	const { paragraph = NO_PARAGRAPH, run = paragraph.mark } = even;
	return { text: resolver.text(ground, run), paragraph: resolver.paragraph(ground, paragraph) };
}

/** The same for a cell in which some words stand out. */
function prevailingOf(resolver: LookResolver, sheet: StyleSheet, ground: CellGround, text: CellText): TextLayers {
	const first = text.find(({ runs }) => runs.some((run) => run.text.trim()))!;
	const share = new Map<TextLayer, number>();
	const emphasis = emphasisOf(text);
	for (const { runs } of text)
		for (const run of runs) {
			const length = run.text.trim().length;
			if (!length) continue;
			const kept = emphasis(run.context);
			const layer = kept.size
				? sheet.interned(
						resolver.effectiveText(ground, { ...run.context, direct: directOnly(run.context.direct, kept, false) })
					)
				: resolver.text(ground, run.context);
			share.set(layer, (share.get(layer) ?? 0) + length);
		}
	const [[most]] = [...share].sort((a, b) => b[1] - a[1]) as [[TextLayer, number]];
	return { text: most, paragraph: resolver.paragraph(ground, first.context) };
}

/** Of a cell without paragraphs. */
const NO_PARAGRAPH: ParagraphContext = {
	markup: '',
	styleId: undefined,
	direct: {},
	mark: { markup: '', direct: {}, isSymbol: false, characterStyle: undefined, paragraphStyle: undefined }
};

/** Numbers objects by identity, in the order in which they come. */
class ByIdentity<T> {
	readonly items: T[] = [];
	private readonly known = new Map<T, number>();
	add(item: T): number {
		let index = this.known.get(item);
		if (index === undefined) {
			index = this.items.length;
			this.items.push(item);
			this.known.set(item, index);
		}
		return index;
	}
}

/** Tells how a cell of the table looks in its file, by its index in the grid. */
export function cellLooks({ node, grid, sources }: SourceGrid, reader: PropertyReader): (cell: number) => Look {
	const { sheet } = reader;
	const resolver = sheet.resolver(readTableProperties(node, sheet));
	return (cell) => {
		const first = sources[cell]![0];
		if (!first) return NO_LOOK;
		const ground = resolver.ground(first, grid.rows, grid.columns);
		const { text, paragraph } = prevailing(resolver, reader, ground, first.node);
		return resolver.look(ground, reader.cell(first.node.child('w:tcPr')), text, paragraph);
	};
}

/** How the table looks in its file: every cell's look, every edge as the standard's conflict rule shows it. */
export function fileAppearance(source: SourceGrid, reader: PropertyReader): Appearance {
	const { grid, rows } = source;
	const { sheet } = reader;
	const resolver = sheet.resolver(readTableProperties(source.node, sheet));
	const looks = new ByIdentity<Look>();
	const lookOf = cellLooks(source, reader);
	const cellLook = new Int32Array(grid.cells.length);
	for (let cell = 0; cell < cellLook.length; cell++) cellLook[cell] = looks.add(lookOf(cell));
	const sidesOf = (cell: SourceCell): Sides =>
		resolver.sides(resolver.ground(cell, grid.rows, grid.columns), reader.cell(cell.node.child('w:tcPr')));
	return {
		cellLook,
		looks: looks.items,
		...edgesFrom(
			source,
			rows.map(({ cells }) => cells.map(sidesOf))
		)
	};
}

const NO_LOOK: Look = {};

/** The edges that show where each w:tc claims these sides; conflicts by §17.4.66. `sides` has one entry per w:tc of each row. */
function edgesFrom(
	source: SourceGrid,
	sides: readonly (readonly Sides[])[]
): Pick<Appearance, 'across' | 'down' | 'lines'> {
	const { grid, rows } = source;
	const { columns } = grid;
	const lines = new ByIdentity<Line | null>();
	lines.add(null);
	const claims: (Sides | undefined)[] = Array<Sides | undefined>(grid.rows * columns).fill(undefined);
	const owner = new Int32Array(grid.rows * columns).fill(-1);
	let count = 0;
	rows.forEach(({ cells }, r) =>
		cells.forEach(({ c, cols }, i) => {
			for (let x = c; x < c + cols; x++) {
				claims[r * columns + x] = sides[r]![i];
				owner[r * columns + x] = count;
			}
			count++;
		})
	);
	const across = new Int32Array((grid.rows + 1) * columns);
	for (let r = 0; r <= grid.rows; r++)
		for (let c = 0; c < columns; c++) {
			const place = r * columns + c;
			const inside = r > 0 && r < grid.rows && grid.slots[place] === grid.slots[place - columns];
			const above = r > 0 ? claims[place - columns]?.bottom : undefined;
			const below = r < grid.rows ? claims[place]?.top : undefined;
			across[place] = inside ? -1 : lines.add(shownBorder(above, below));
		}
	const down = new Int32Array(grid.rows * (columns + 1));
	for (let r = 0; r < grid.rows; r++)
		for (let c = 0; c <= columns; c++) {
			const slot = r * columns + c;
			const inside =
				c > 0 &&
				c < columns &&
				(grid.slots[slot] === grid.slots[slot - 1] || (owner[slot] !== -1 && owner[slot] === owner[slot - 1]));
			const before = c > 0 ? claims[slot - 1]?.end : undefined;
			const after = c < columns ? claims[slot]?.start : undefined;
			down[r * (columns + 1) + c] = inside ? -1 : lines.add(shownBorder(before, after));
		}
	return { across, down, lines: lines.items };
}
