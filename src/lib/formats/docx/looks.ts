import type { Side } from '../../core/table/grid.ts';
import { contrast, PAPER, type Hex } from '../../core/colour.ts';
import type { Line, Look } from '../../core/cascade/look.ts';
import type { Emu } from '../../core/units.ts';
import type { XmlDocument, XmlNode } from '../package/xml.ts';
import { readBorders, type Borders } from './properties/borders.ts';
import { readCell, readMargins, type CellLayer, type Margins } from './properties/cell.ts';
import { acrossFrom } from '../sides.ts';
import { familyOfSemibold } from './properties/semibold.ts';
import { readParagraph, type ParagraphLayer } from './properties/paragraph.ts';
import { readShading, shownFill } from './properties/shading.ts';
import { readOnOff, readText, TOGGLES, type TextLayer } from './properties/text.ts';
import { readTableLook, regionKey, regionsAt, type Block, type GridCell, type TableLook } from './regions.ts';
import type { StyleSheet, TableStyle } from './styles.ts';

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

export type SideLines = Partial<Record<Side, Line | null>>;

/** What holds for one w:tc before its own direct formatting: the table style's regions and the table's properties. */
export interface CellGround {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
	readonly cell: Omit<CellLayer, 'borders'>;
	readonly sides: SideLines;
	/** The same as a list: top, bottom, start, end. */
	readonly around: readonly (Line | null | undefined)[];
	readonly diagonals: Pick<Borders, 'diagonalDown' | 'diagonalUp'>;
}

interface GroundRecord extends CellGround {
	readonly texts: Map<RunContext, TextLayer>;
	readonly paragraphs: Map<ParagraphContext, ParagraphLayer>;
	readonly cellSides: Map<CellLayer, SideLines>;
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
				direct: readParagraph(pPr, this.sheet.theme),
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
	/** Behind all cells that have no shading of their own. */
	readonly fill?: Hex | 'none' | undefined;
	/** Its columns run from right to left (w:bidiVisual, §17.4.1). */
	readonly isRight: boolean;
}

/** Whether a table, or the style that it wears, lays its columns from right to left. */
export const isRightToLeft = (tbl: XmlNode, sheet: StyleSheet): boolean => {
	const tblPr = tbl.child('w:tblPr');
	const own = readOnOff(tblPr?.child('w:bidiVisual'));
	return own ?? sheet.table(tblPr?.child('w:tblStyle')?.attribute('w:val')).isRight;
};

export function readTableProperties(tbl: XmlNode, sheet: StyleSheet): TableProperties {
	const tblPr = tbl.child('w:tblPr');
	return {
		styleId: tblPr?.child('w:tblStyle')?.attribute('w:val'),
		look: readTableLook(tblPr?.child('w:tblLook')),
		borders: readBorders(tblPr?.child('w:tblBorders'), sheet.theme),
		margins: readMargins(tblPr?.child('w:tblCellMar')),
		fill: readShading(tblPr?.child('w:shd'), sheet.theme),
		isRight: isRightToLeft(tbl, sheet)
	};
}

/** The sides of a cell by borders that hold for a whole block: outer ones at its rim, inside ones within. */
function sidesIn(borders: Borders, block: Block, { r, c, cols }: GridCell, sides: SideLines): void {
	const top = r === block.top ? borders.top : borders.insideH;
	const bottom = r === block.bottom ? borders.bottom : borders.insideH;
	const start = c <= block.start ? borders.start : borders.insideV;
	const end = c + cols - 1 >= block.end ? borders.end : borders.insideV;
	if (top !== undefined) sides.top = top;
	if (bottom !== undefined) sides.bottom = bottom;
	if (start !== undefined) sides.start = start;
	if (end !== undefined) sides.end = end;
}

/** Defaults, table style, paragraph style, character style, direct; toggle properties by §17.7.3. */
export function effectiveText(sheet: StyleSheet, ground: TextLayer, run: RunContext): TextLayer {
	const { defaults } = sheet;
	const paragraph = sheet.text(run.paragraphStyle, 'paragraph').text;
	const character = sheet.text(run.characterStyle, 'character').text;
	const layer: TextLayer = { ...defaults.text, ...ground, ...paragraph, ...character, ...run.direct };
	for (const toggle of TOGGLES) {
		if (run.direct[toggle] !== undefined) continue;
		const set = [ground, paragraph, character].filter((level) => level[toggle]).length % 2 === 1;
		layer[toggle] = !!defaults.text[toggle] || set;
	}
	return layer;
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

	/** The table's columns run from right to left. */
	get isRight(): boolean {
		return this.table.isRight;
	}

	ground(place: GridCell, rows: number, columns: number): CellGround {
		const { style, table } = this;
		const key = regionKey(place, rows, columns, table.look, style.rowBandSize, style.columnBandSize);
		return getOrMake(this.grounds, key, () =>
			this.computeGround(place, regionsAt(place, rows, columns, table.look, style.rowBandSize, style.columnBandSize))
		);
	}

	private computeGround(place: GridCell, regions: ReturnType<typeof regionsAt>): GroundRecord {
		const { style, table } = this;
		const whole = regions[0]!.block;
		const text: TextLayer = {};
		const paragraph: ParagraphLayer = {};
		const cell: Omit<CellLayer, 'borders'> = { margins: { ...style.tableMargins } };
		const sides: SideLines = {};
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
		if (table.fill !== undefined && (cell.fill ?? 'none') === 'none') cell.fill = table.fill;
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

	effectiveText(ground: CellGround, run: RunContext): TextLayer {
		return effectiveText(this.sheet, ground.text, run);
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
	sides(ground: CellGround, own: CellLayer): SideLines {
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
				lookOf(
					cell,
					text,
					{ ...paragraph, h: acrossFrom(paragraph.h ?? 'start', !!paragraph.isRight !== this.isRight) },
					{
						...(diagonalDown !== undefined && { diagonalDown }),
						...(diagonalUp !== undefined && { diagonalUp })
					}
				)
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
	const fill = shownFill(text.behind, paragraph.behind, cell.fill) ?? 'none';
	const semibold = text.family === undefined ? undefined : familyOfSemibold(text.family);
	const ink = text.ink === 'auto' ? automaticInk(fill) : text.ink;
	return {
		fill,
		...(text.family !== undefined && { family: semibold ?? text.family }),
		...(text.size !== undefined && { size: text.size }),
		weight: text.bold ? 700 : semibold ? 600 : 400,
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

/** `auto` text (§17.3.2.6): black or white, whichever can be read on the shading behind it. */
function automaticInk(fill: Hex | 'none'): Hex {
	return contrast('#000000', fill === 'none' ? PAPER : fill) >= 4.5 ? '#000000' : '#FFFFFF';
}

/** The resolver for all tables that wear a style in the same way. */
export const resolverOf = (sheet: StyleSheet, table: TableProperties): LookResolver =>
	sheet.once(JSON.stringify(table), () => new LookResolver(sheet, table));
