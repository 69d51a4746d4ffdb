import { escapeXml } from '../../core/escape.ts';
import { contentsOf } from '../../core/work/convert.ts';
import type { Appearance, Line, Look } from '../../core/cascade/look.ts';
import type { Extent, Matrix } from '../../core/layout/matrix.ts';
import type { Mark, TableMarks } from '../../core/layout/marks.ts';
import { marksOf } from '../../core/layout/marks.ts';
import { lineStrokes, strokePath } from '../../core/layout/patterns.ts';
import { aroundPath, shadowBoxes } from '../../core/layout/shadows.ts';
import type { Shadow } from '../../core/properties/shadow.ts';
import { MM, plotted } from '../../core/layout/plotted.ts';
import { strokes } from '../../core/layout/strokes.ts';
import { boxOf, layTable, tableWidth, type LaidTable } from '../../core/layout/table.ts';
import type { ColumnWidth } from '../../core/layout/widths.ts';
import { topLeft, type PlacedTable } from '../../core/schedule/placed.ts';
import { standing } from '../../core/schedule/table.ts';
import { inPixels } from '../../core/table/content.ts';
import type { Table } from '../../core/table/grid.ts';

import { isBody } from '../../core/roles/index.ts';
import { emu, parseLength } from '../../core/units.ts';
import { plainContent } from '../bare.ts';
import { HEPTARCH_NAMESPACE } from '../docx/names.ts';
import { shippedFaces } from '../pdf/fonts.ts';
import { SVG_NAMESPACE, TABLE_CLASS } from './names.ts';

/** What a symbol needs to be drawn in a cell. */
export interface DrawnSymbol {
	readonly id: string;
	readonly hasViewBox: boolean;
	/** In its own units. */
	readonly extent: Extent;
	readonly looks: Readonly<Record<string, string>>;
}

/** What of its drawing a table's group depends on. */
export interface SheetContext {
	readonly width: number;
	readonly toUnits: Matrix;
	/** The prefix of SVG elements in the file, '' where they have none, and that of `href`. */
	readonly prefix: string;
	readonly href: string;
	readonly symbols: ReadonlyMap<string, DrawnSymbol>;
}

/** A placed table as it is drawn. Lengths are millimetres on paper. */
export interface DrawnTable {
	readonly markup: string;
	/** The symbols in its cells alone, as a group. */
	readonly symbols: string;
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
	readonly laid: LaidTable;
	/** With plotted heights and widths. */
	readonly appearance: Appearance;
}

/** Symbols in cells stand in a square of so many millimetres. */
const SYMBOL = 5;
/** A table keeps so far from the sheet's edges where its columns are fitted. */
const KEEP_FROM_EDGE = 10;

/**
 * Inside a group the unit is a hundredth of a millimetre of paper: programs that lay text out in whole units, or round
 * what they measure to them, are then off by less than anybody sees.
 */
export const UNIT = MM / 100;
const inUnits = (length: number) => Number((length / UNIT).toFixed(2)).toString();
const pt = (length: number) => length / 12_700;
const exact = (value: number) => Number(value.toPrecision(12)).toString();

const tidy = (value: number) => Math.round(value * 10_000) / 10_000;

/** Widths of a placed table's columns. */
export function widthsOf({
	rows: { columns },
	widths,
	source
}: Pick<PlacedTable, 'rows' | 'widths' | 'source'>): ColumnWidth[] {
	if (source.from === 'bench') return source.work.columns.map(({ width }) => (width ? { fixed: width } : 'fitted'));
	return columns.map(({ name, width }): ColumnWidth => {
		const own = widths?.[name];
		if (own !== undefined) return { fixed: emu(own * MM) };
		return width ? { fixed: parseLength(width) } : 'fitted';
	});
}

/** The look of a table's body rows, by which plotted heights go. */
export function bodyLook(table: Pick<Table, 'cells' | 'roles'>, appearance: Appearance): Look | undefined {
	const index = table.cells.findIndex(({ r }) => isBody(table.roles[r]!));
	return index < 0 ? undefined : appearance.looks[appearance.cellLook[index]!];
}

/** Symbols in a table's cells: index of the cell → kind. */
function picturesOf(placed: PlacedTable, table: Table): Map<number, string> {
	const rows = standing(placed.rows.rows, placed.reads);
	return new Map(
		table.cells.flatMap(({ r, c }, i): [number, string][] => {
			const symbol = rows[r]?.cells[c]?.symbol;
			return symbol === undefined ? [] : [[i, symbol]];
		})
	);
}

/**
 * Lays a placed table out and draws it as a group: real text with measured widths, shapes and lines, grouped by row,
 * with one style sheet. `metadata` is what rides along.
 */
export function drawPlaced(
	placed: PlacedTable,
	table: Table,
	wanted: Appearance,
	sheet: SheetContext,
	metadata: string
): DrawnTable {
	const appearance = plotted(wanted, bodyLook(table, wanted), placed, shippedFaces);
	const pictures = picturesOf(placed, table);
	const laid = layTable(
		{
			table,
			appearance,
			content: placed.source.from === 'bench' ? contentsOf(placed.source.work) : plainContent(table.cells),
			widths: widthsOf(placed),
			pictures: new Map([...pictures.keys()].map((i) => [i, { width: SYMBOL * MM, height: SYMBOL * MM }]))
		},
		emu(Math.max(sheet.width - 2 * KEEP_FROM_EDGE, 20) * MM),
		shippedFaces
	);
	const size = { width: tableWidth(laid) / MM, height: laid.tops.at(-1)! / MM };
	const { x, y } = topLeft(placed, size);
	const symbols = symbolsOf(laid, pictures, sheet);
	const marks = marksOf(laid, [0, laid.tops.at(-1)!], 0, 0);
	const transform = placeMatrix(sheet.toUnits, x, y);
	const drawn = { placed, table, laid, marks, symbols, transform };
	const p = sheet.prefix ? `${sheet.prefix}:` : '';
	return {
		markup: groupOf(drawn, sheet, metadata),
		symbols: symbols.size ? `<${p}g transform="${transform}">${[...symbols.values()].join('')}</${p}g>` : '',
		x: tidy(x),
		y: tidy(y),
		...size,
		laid,
		appearance
	};
}

/** Gives looks and lines short class names, and writes their rules. */
class Sheet {
	private readonly rules = new Map<string, string>();
	private readonly counts = new Map<string, number>();
	constructor(private readonly id: string) {}
	name(kind: 'f' | 't' | 'l', declarations: string): string {
		const key = kind + declarations;
		let name = this.rules.get(key);
		if (!name) {
			const count = this.counts.get(kind) ?? 0;
			this.counts.set(kind, count + 1);
			this.rules.set(key, (name = `${kind}${count}`));
		}
		return name;
	}
	get text(): string {
		const scope = `#${this.id}`;
		const own = [...this.rules].map(([key, name]) => `${scope} .${name}{${key.slice(1)}}`);
		return [
			`${scope} rect,${scope} path,${scope} text{fill:none;stroke:none;opacity:1}`,
			`${scope} text{white-space:pre;text-anchor:start;dominant-baseline:auto;text-rendering:geometricPrecision}`,
			...own
		].join('\n');
	}
}

/** Families to fall back on where a viewer lacks the font. */
const RIGHT_TO_LEFT_FAMILIES = "'Noto Sans Hebrew','Noto Sans Arabic'";
const FALLBACK: Readonly<Record<string, string>> = {
	'Source Serif 4': 'serif',
	'Crimson Pro': 'serif',
	'IBM Plex Mono': 'monospace'
};

function textClass(sheet: Sheet, { piece, shadow }: Extract<Mark, { kind: 'text' }>): string {
	const { family, weight, italic } = piece.face.name;
	const said = [
		`font-family:'${family}',${piece.isTurned ? `${RIGHT_TO_LEFT_FAMILIES},` : ''}${FALLBACK[family] ?? 'sans-serif'}`,
		`font-size:${exact(piece.size / UNIT)}px`,
		`font-weight:${weight}`,
		`font-style:${italic ? 'italic' : 'normal'}`,
		`letter-spacing:${piece.tracking ? `${exact(piece.tracking / UNIT)}px` : 'normal'}`,
		`word-spacing:${piece.spread ? `${inUnits(piece.spread)}px` : 'normal'}`,
		`text-decoration:${piece.underline === 'none' ? 'none' : piece.underline === 'double' ? 'underline double' : 'underline'}`,
		`fill:${piece.ink}`,
		...(shadow
			? [
					`filter:drop-shadow(${[shadow.x, shadow.y, shadow.blur / 2].map((one) => `${exact(one / UNIT)}px`).join(' ')} ${shadow.ink})`
				]
			: [])
	];
	return sheet.name('t', said.join(';'));
}

function lineMarkup(
	sheet: Sheet,
	p: string,
	line: Line,
	from: readonly [number, number],
	to: readonly [number, number],
	more: string
): string {
	return lineStrokes(line)
		.map((stroke) => {
			const dashes = stroke.dashes ? `;stroke-dasharray:${stroke.dashes.map((length) => exact(length)).join(' ')}` : '';
			const name = sheet.name('l', `stroke:${line.ink};stroke-width:${exact(stroke.thick)}${dashes}`);
			return `<${p}path class="${name}"${more} d="${strokePath([pt(from[0]), pt(from[1])], [pt(to[0]), pt(to[1])], stroke)}"/>`;
		})
		.join('');
}

function symbolMarkup(
	p: string,
	symbol: DrawnSymbol,
	href: string,
	box: { x: number; y: number; size: number }
): string {
	const looks = Object.entries(symbol.looks)
		.map(([name, value]) => ` ${name}="${escapeXml(value)}"`)
		.join('');
	const reference = `${href}="#${escapeXml(symbol.id)}"`;
	if (symbol.hasViewBox)
		return `<${p}use ${reference} x="${inUnits(box.x)}" y="${inUnits(box.y)}" width="${inUnits(box.size)}" height="${inUnits(box.size)}"${looks}/>`;
	const { x1, y1, x2, y2 } = symbol.extent;
	const reach = Math.max(x2 - x1, y2 - y1);
	if (!(reach > 0) || !Number.isFinite(reach)) return '';
	const scale = box.size / UNIT / reach;
	const dx = box.x / UNIT + (box.size / UNIT - (x2 - x1) * scale) / 2 - x1 * scale;
	const dy = box.y / UNIT + (box.size / UNIT - (y2 - y1) * scale) / 2 - y1 * scale;
	return `<${p}use ${reference} transform="matrix(${exact(scale)} 0 0 ${exact(scale)} ${exact(dx)} ${exact(dy)})"${looks}/>`;
}

/** A picture of a cell, in pixels: what is shown of a drawing holds no drawings in pictures. */
const imageMarkup = (p: string, { x, y, width, height, picture }: Extract<Mark, { kind: 'picture' }>): string =>
	`<${p}image href="${inPixels(picture)}" x="${inUnits(x)}" y="${inUnits(y)}" width="${inUnits(width)}" height="${inUnits(height)}" preserveAspectRatio="none"><${p}title>${escapeXml(picture.alternative)}</${p}title></${p}image>`;

const attributeName = (role: string) => role.replace(':', '-');

interface Drawn {
	readonly placed: PlacedTable;
	readonly table: Table;
	readonly laid: LaidTable;
	readonly marks: TableMarks;
	/** Markup by cell. */
	readonly symbols: ReadonlyMap<number, string>;
	readonly transform: string;
}

/** The way from the units inside a group, at a place of the sheet in millimetres, to those inside the root. */
function placeMatrix([a, b, c, d, e, f]: Matrix, x: number, y: number): string {
	const unit = UNIT / MM;
	return `matrix(${[a * unit, b * unit, c * unit, d * unit, a * x + c * y + e, b * x + d * y + f].map(exact).join(' ')})`;
}

/** The symbols of a laid table as markup, by cell: scaled to a square, where the cell's alignment puts it. */
function symbolsOf(
	laid: LaidTable,
	pictures: ReadonlyMap<number, string>,
	{ symbols, prefix, href }: SheetContext
): Map<number, string> {
	const { input } = laid;
	const drawn = new Map<number, string>();
	for (const [i, kind] of pictures) {
		const symbol = symbols.get(kind);
		if (!symbol) continue;
		const box = boxOf(laid, input.table.cells[i]!);
		const { h, marginStart = 0, marginEnd = 0 } = input.appearance.looks[input.appearance.cellLook[i]!]!;
		const size = Math.min(SYMBOL * MM, box.width, box.height);
		const spare = box.width - size;
		const start = h === 'end' ? spare - marginEnd : h === 'middle' ? spare / 2 : marginStart;
		const aside = Math.min(Math.max(start, 0), spare);
		const x = box.x + (input.table.dir === 'rtl' ? spare - aside : aside);
		drawn.set(
			i,
			symbolMarkup(prefix ? `${prefix}:` : '', symbol, href, { x, y: box.y + (box.height - size) / 2, size })
		);
	}
	return drawn;
}

/** The table's shadow, around it and never below it. */
function shadowMarkup(sheet: Sheet, p: string, id: string, laid: LaidTable, shadow: Shadow): string {
	const box = { x: 0, y: 0, width: tableWidth(laid), height: laid.tops.at(-1)! };
	const clip = escapeXml(`${id}-around`);
	const layers = shadowBoxes(box, shadow).map(
		({ x, y, width, height, opacity }) =>
			`<${p}rect class="${sheet.name('f', `fill:${shadow.ink};opacity:${exact(opacity)}`)}" x="${inUnits(x)}" y="${inUnits(y)}" width="${inUnits(width)}" height="${inUnits(height)}"/>`
	);
	return `<${p}clipPath id="${clip}"><${p}path clip-rule="evenodd" d="${aroundPath(box, shadow, UNIT)}"/></${p}clipPath><${p}g data-shadow="${shadow.x} ${shadow.y} ${shadow.blur} ${shadow.ink}" clip-path="url(#${clip})">${layers.join('')}</${p}g>`;
}

function groupOf(
	{ placed, table, laid, marks, symbols, transform }: Drawn,
	{ prefix }: SheetContext,
	metadata: string
): string {
	const p = prefix ? `${prefix}:` : '';
	const sheet = new Sheet(placed.id);
	const { lefts, tops } = laid;
	const rowGroups = table.roles.map((role) => [`<${p}g class="row ${attributeName(role)}">`]);
	const texts = new Map(marks.cells.map(({ cell, marks: own }) => [cell, own]));
	table.cells.forEach((cell, i) => {
		const { r, c } = cell;
		const look = laid.input.appearance.looks[laid.input.appearance.cellLook[i]!]!;
		const box = boxOf(laid, cell);
		const pieces = [`<${p}g data-cell="${r} ${c}">`];
		if (look.fill && look.fill !== 'none')
			pieces.push(
				`<${p}rect class="${sheet.name('f', `fill:${look.fill};shape-rendering:crispEdges`)}" x="${inUnits(box.x)}" y="${inUnits(box.y)}" width="${inUnits(box.width)}" height="${inUnits(box.height)}"/>`
			);
		pieces.push(symbols.get(i) ?? '');
		for (const mark of texts.get(i) ?? []) {
			if (mark.kind === 'picture') pieces.push(imageMarkup(p, mark));
			if (mark.kind !== 'text') continue;
			const { piece, turn } = mark;
			// Text that runs to the left begins at its right.
			const [x, y] = [inUnits(mark.x + (piece.isTurned ? piece.width : 0)), inUnits(mark.y)];
			pieces.push(
				`<${p}text class="${textClass(sheet, mark)}" x="${x}" y="${y}" textLength="${inUnits(piece.width)}" lengthAdjust="spacingAndGlyphs"${piece.isTurned ? ' direction="rtl"' : ''}${turn ? ` transform="rotate(${turn} ${x} ${y})"` : ''}>${escapeXml(piece.text)}</${p}text>`
			);
		}
		pieces.push(`</${p}g>`);
		rowGroups[r]!.push(pieces.join(''));
	});
	const { appearance } = laid.input;
	const edges = (which: 'across' | 'down') => {
		const isAcross = which === 'across';
		return strokes(appearance, table, which).map(({ at, from, to, line }) => {
			if (!line) return '';
			const [a, b] = isAcross
				? ([
						[lefts[from]!, tops[at]!],
						[lefts[to]!, tops[at]!]
					] as const)
				: ([
						[lefts[at]!, tops[from]!],
						[lefts[at]!, tops[to]!]
					] as const);
			return lineMarkup(
				sheet,
				p,
				line,
				a,
				b,
				` data-edge="${which} ${at} ${from} ${to}" data-line="${line.pattern} ${line.weight} ${line.ink}"`
			);
		});
	};
	const diagonals = table.cells.flatMap((cell, i) => {
		const look = appearance.looks[appearance.cellLook[i]!]!;
		const { x: x1, y: y1, width, height } = boxOf(laid, cell);
		const [x2, y2] = [x1 + width, y1 + height];
		const one = (line: Line | null | undefined, a: readonly [number, number], b: readonly [number, number]) =>
			line && line.pattern !== 'none' ? [lineMarkup(sheet, p, line, a, b, '')] : [];
		return [...one(look.diagonalDown, [x1, y1], [x2, y2]), ...one(look.diagonalUp, [x2, y1], [x1, y2])];
	});
	const lines = [...diagonals, ...edges('across'), ...edges('down')].filter((line) => line);
	const body = [
		...(appearance.shadow ? [shadowMarkup(sheet, p, placed.id, laid, appearance.shadow)] : []),
		...rowGroups.map((pieces) => `${pieces.join('\n')}\n</${p}g>`),
		// Lines are drawn in points, as their patterns are.
		`<${p}g class="lines" transform="scale(${exact(12_700 / UNIT)})">\n${lines.join('\n')}\n</${p}g>`
	].join('\n');
	const label = placed.rows.rows.find(({ role }) => role === 'title')?.cells[0]?.text ?? '';
	return [
		`<${p}g id="${escapeXml(placed.id)}" class="${TABLE_CLASS}" transform="${transform}"${label ? ` aria-label="${escapeXml(label)}"` : ''}${prefix ? ` xmlns:${prefix}="${SVG_NAMESPACE}"` : ''}>`,
		`<${p}metadata><hept:table xmlns:hept="${HEPTARCH_NAMESPACE}">${escapeXml(metadata)}</hept:table></${p}metadata>`,
		`<${p}style>${escapeXml(sheet.text)}</${p}style>`,
		body,
		`</${p}g>`
	].join('\n');
}
