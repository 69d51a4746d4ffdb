import { contrast, PAPER, type Hex } from '../../core/colour.ts';
import { Interned, type Appearance, type Line, type Look } from '../../core/cascade/look.ts';
import type { Emu } from '../../core/units.ts';
import type { XmlNode } from '../package/xml.ts';
import { readBorders, shownBorder, type Borders } from './properties/borders.ts';
import { readCell, readMargins, type CellLayer, type Margins } from './properties/cell.ts';
import { readParagraph, type ParagraphLayer } from './properties/paragraph.ts';
import { readText, TOGGLES, type TextLayer } from './properties/text.ts';
import { readTableLook, regionsAt, type Block, type TableLook } from './regions.ts';
import type { RegionLayer, StyleSheet, TableStyle } from './styles.ts';
import { paragraphsOf, runsOf, runText, type SourceCell, type SourceGrid } from './tables.ts';

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

/** A run's direct properties, or none of them. */
export interface RunContext {
	readonly direct: TextLayer;
	readonly characterStyle: string | undefined;
	readonly paragraphStyle: string | undefined;
}

type Sides = Partial<Record<'top' | 'bottom' | 'start' | 'end', Line | null>>;

/** What holds for one w:tc before its own direct formatting: the table style's regions and the table's properties. */
export interface CellGround {
	readonly text: TextLayer;
	readonly paragraph: ParagraphLayer;
	readonly cell: Omit<CellLayer, 'borders'>;
	readonly sides: Sides;
	readonly diagonals: Pick<Borders, 'diagonalDown' | 'diagonalUp'>;
}

/** The sides of a cell by borders that hold for a whole block: outer ones at its rim, inside ones within. */
function sidesIn(borders: Borders, block: Block, place: { r: number; c: number; cols: number }, sides: Sides): void {
	const { r, c, cols } = place;
	const top = r === block.top ? borders.top : borders.insideH;
	const bottom = r === block.bottom ? borders.bottom : borders.insideH;
	const start = c <= block.start ? borders.start : borders.insideV;
	const end = c + cols - 1 >= block.end ? borders.end : borders.insideV;
	if (top !== undefined) sides.top = top;
	if (bottom !== undefined) sides.bottom = bottom;
	if (start !== undefined) sides.start = start;
	if (end !== undefined) sides.end = end;
}

/** Resolves looks in one table, in the standard's order (§17.7.2). Shares what cells of the same regions have in common. */
export class LookResolver {
	private readonly style: TableStyle;
	private readonly grounds = new Map<string, CellGround>();
	constructor(
		private readonly sheet: StyleSheet,
		private readonly table: TableProperties,
		private readonly rows: number,
		private readonly columns: number
	) {
		this.style = sheet.table(table.styleId);
	}

	/** For a table that wears `styleId` and keeps only these of its own properties. */
	static of(sheet: StyleSheet, styleId: string | undefined, look: TableLook, borders: XmlNode | undefined, margins: XmlNode | undefined, rows: number, columns: number): LookResolver {
		return new LookResolver(sheet, { styleId, look, borders: readBorders(borders, sheet.theme), margins: readMargins(margins) }, rows, columns);
	}

	ground(place: { r: number; c: number; cols: number }): CellGround {
		const { rows, columns, style, table } = this;
		const regions = regionsAt(place, rows, columns, table.look, style.rowBandSize, style.columnBandSize);
		const key = regions
			.map(({ region, block }) => {
				const { r, c, cols } = place;
				return `${region}${r === block.top}${r === block.bottom}${c <= block.start}${c + cols - 1 >= block.end}`;
			})
			.join();
		let ground = this.grounds.get(key);
		if (!ground) this.grounds.set(key, (ground = this.computeGround(place, regions)));
		return ground;
	}

	private computeGround(place: { r: number; c: number; cols: number }, regions: ReturnType<typeof regionsAt>): CellGround {
		const { style, table } = this;
		const whole = regions[0]!.block;
		const text: TextLayer = {};
		const paragraph: ParagraphLayer = {};
		const cell: Omit<CellLayer, 'borders'> = { margins: { ...style.tableMargins } };
		const sides: Sides = {};
		const diagonals: CellGround['diagonals'] = {};
		sidesIn(style.tableBorders, whole, place, sides);
		for (const { region, block } of regions) {
			const layer: RegionLayer | undefined = style.regions.get(region);
			if (!layer) continue;
			Object.assign(text, layer.text);
			Object.assign(paragraph, layer.paragraph);
			const { borders, margins, ...rest } = layer.cell;
			Object.assign(cell, rest);
			Object.assign(cell.margins, margins);
			sidesIn(borders, block, place, sides);
			for (const name of ['diagonalDown', 'diagonalUp'] as const) if (borders[name] !== undefined) diagonals[name] = borders[name];
		}
		sidesIn(table.borders, whole, place, sides);
		Object.assign(cell.margins, table.margins);
		return { text, paragraph, cell, sides, diagonals };
	}

	/** The effective text layer of a run: defaults, table style, paragraph style, character style, direct; toggles by §17.7.3. */
	text(ground: CellGround, run: RunContext): TextLayer {
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

	paragraph(ground: CellGround, styleId: string | undefined, direct: ParagraphLayer): ParagraphLayer {
		return { ...this.sheet.defaults.paragraph, ...ground.paragraph, ...this.sheet.text(styleId, 'paragraph').paragraph, ...direct };
	}
}

/** Default cell margins where nothing states any (§17.4.42, §17.4.34): 115 twentieths of a point left and right. */
const DEFAULT_SIDE = (115 * 635) as Emu;

/** Layers as a look, in the values of our own model. */
export function lookOf(cell: Omit<CellLayer, 'borders'>, text: TextLayer, paragraph: ParagraphLayer, diagonals: CellGround['diagonals']): Look {
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

/** Everything about one cell's text that the file says directly, with how much text says it. */
export interface CellText {
	readonly paragraphs: readonly {
		readonly node: XmlNode;
		readonly styleId: string | undefined;
		readonly direct: ParagraphLayer;
		readonly runs: readonly { readonly node: XmlNode; readonly context: RunContext; readonly text: string }[];
		readonly mark: RunContext;
	}[];
}

export function readCellText(cell: XmlNode, sheet: StyleSheet): CellText {
	return {
		paragraphs: paragraphsOf(cell).map((node) => {
			const pPr = node.child('w:pPr');
			const styleId = pPr?.child('w:pStyle')?.attribute('w:val');
			const context = (rPr: XmlNode | undefined): RunContext => ({
				direct: readText(rPr, sheet.theme),
				characterStyle: rPr?.child('w:rStyle')?.attribute('w:val'),
				paragraphStyle: styleId
			});
			return {
				node,
				styleId,
				direct: readParagraph(pPr),
				runs: runsOf(node).map((run) => ({ node: run, context: context(run.child('w:rPr')), text: runText(run) })),
				mark: context(pPr?.child('w:rPr'))
			};
		})
	};
}

/** Settings that an author gives words inside a text; what all of a cell's text has in common is its look instead. */
const EMPHASIS = ['bold', 'italic', 'underline', 'caps', 'smallCaps', 'ink'] as const;
const NO_FIELDS: ReadonlySet<keyof TextLayer> = new Set();
const SYMBOL_FONTS = /^(symbol|wingdings|webdings|zapf|dingbats)/i;

/**
 * Tells for each run of a cell which of its own settings are emphasis inside the text: set on some words and not on
 * others. (Of several inks, the one that most of the text has is the look.) Symbol fonts are content wherever they stand.
 */
export function emphasisOf(content: CellText): (run: CellText['paragraphs'][number]['runs'][number]) => ReadonlySet<keyof TextLayer> {
	const runs = content.paragraphs.flatMap(({ runs }) => runs).filter(({ text }) => text.trim());
	const uneven = new Set<(typeof EMPHASIS)[number]>();
	let mainInk: TextLayer['ink'];
	for (const field of EMPHASIS) {
		const share = new Map<unknown, number>();
		for (const { context, text } of runs) share.set(context.direct[field], (share.get(context.direct[field]) ?? 0) + text.length);
		if (share.size < 2) continue;
		uneven.add(field);
		if (field === 'ink') mainInk = [...share].reduce((most, next) => (next[1] > most[1] ? next : most))[0] as TextLayer['ink'];
	}
	return ({ context: { direct } }) => {
		const symbol = direct.family !== undefined && SYMBOL_FONTS.test(direct.family);
		if (uneven.size === 0 && !symbol) return NO_FIELDS;
		const kept = new Set<keyof TextLayer>();
		for (const field of uneven) if (direct[field] !== undefined && (field !== 'ink' || direct.ink !== mainInk)) kept.add(field);
		if (symbol) kept.add('family');
		return kept;
	};
}

/** The layers that most of a cell's text shows, emphasis inside the text aside; its paragraph mark's where there is no text. */
export function prevailing(resolver: LookResolver, ground: CellGround, text: CellText): { text: TextLayer; paragraph: ParagraphLayer } {
	const share = new Map<string, { layer: TextLayer; length: number }>();
	const emphasis = emphasisOf(text);
	for (const { runs } of text.paragraphs)
		for (const run of runs) {
			const length = run.text.trim().length;
			if (!length) continue;
			const direct = { ...run.context.direct };
			for (const field of emphasis(run)) delete direct[field];
			const layer = resolver.text(ground, { ...run.context, direct });
			const key = JSON.stringify(Object.entries(layer).sort());
			const known = share.get(key);
			if (known) known.length += length;
			else share.set(key, { layer, length });
		}
	const most = [...share.values()].reduce<{ layer: TextLayer; length: number } | undefined>(
		(best, next) => (!best || next.length > best.length ? next : best),
		undefined
	);
	const first = text.paragraphs.find(({ runs }) => runs.some((run) => run.text.trim())) ?? text.paragraphs[0];
	const none: RunContext = { direct: {}, characterStyle: undefined, paragraphStyle: first?.styleId };
	return {
		text: most?.layer ?? resolver.text(ground, first?.mark ?? none),
		paragraph: resolver.paragraph(ground, first?.styleId, first?.direct ?? {})
	};
}

/** How the table looks in its file: every cell's look, every edge as the standard's conflict rule shows it. */
export function fileAppearance(source: SourceGrid, sheet: StyleSheet): Appearance {
	const { grid, rows } = source;
	const properties = readTableProperties(source.node, sheet);
	const resolver = new LookResolver(sheet, properties, grid.rows, grid.columns);
	const looks = new Interned<Look>();
	const empty = looks.add({});
	const cellLook = Int32Array.from(source.sources, (cells) => {
		const first = cells[0];
		if (!first) return empty;
		const ground = resolver.ground(first);
		const direct = readCell(first.node.child('w:tcPr'), sheet.theme);
		const { text, paragraph } = prevailing(resolver, ground, readCellText(first.node, sheet));
		const cell = { ...ground.cell, ...direct, margins: { ...ground.cell.margins, ...direct.margins } };
		const diagonals = { ...ground.diagonals };
		for (const name of ['diagonalDown', 'diagonalUp'] as const) if (direct.borders[name] !== undefined) diagonals[name] = direct.borders[name];
		return looks.add(lookOf(cell, text, paragraph, diagonals));
	});
	const sidesOf = (cell: SourceCell): Sides => {
		const { top, bottom, start, end } = readCell(cell.node.child('w:tcPr'), sheet.theme).borders;
		const sides = { ...resolver.ground(cell).sides };
		if (top !== undefined) sides.top = top;
		if (bottom !== undefined) sides.bottom = bottom;
		if (start !== undefined) sides.start = start;
		if (end !== undefined) sides.end = end;
		return sides;
	};
	return { cellLook, looks: looks.items, ...edgesFrom(source, rows.map(({ cells }) => cells.map(sidesOf))) };
}

/** The edges that show where each w:tc claims these sides; conflicts by §17.4.66. `sides` has one entry per w:tc of each row. */
export function edgesFrom(source: SourceGrid, sides: readonly (readonly Sides[])[]): Pick<Appearance, 'across' | 'down' | 'lines'> {
	const { grid, rows } = source;
	const { columns } = grid;
	const lines = new Interned<Line | null>();
	lines.add(null);
	const claims: (Sides | undefined)[] = Array(grid.rows * columns).fill(undefined);
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
			const inside = c > 0 && c < columns && (grid.slots[slot] === grid.slots[slot - 1] || (owner[slot] !== -1 && owner[slot] === owner[slot - 1]));
			const before = c > 0 ? claims[slot - 1]?.end : undefined;
			const after = c < columns ? claims[slot]?.start : undefined;
			down[r * (columns + 1) + c] = inside ? -1 : lines.add(shownBorder(before, after));
		}
	return { across, down, lines: lines.items };
}
