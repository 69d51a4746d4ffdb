import { familyOfSemibold } from './properties/semibold.ts';
import type { Hex } from '../../core/colour.ts';
import type { Line } from '../../core/cascade/look.ts';
import { settingsOf } from '../../core/style/leaves.ts';
import type { LeafValue, LinePlace, Style } from '../../core/style/types.ts';
import { toPoints, type Emu } from '../../core/units.ts';
import type { DocxDocument } from './read.ts';
import type { Borders, BorderPlace } from './properties/borders.ts';
import type { Margins } from './properties/cell.ts';
import { shownFill } from './properties/shading.ts';
import type { Region } from './regions.ts';
import type { RegionLayer, TableStyle } from './styles.ts';

type Leaves = Map<string, LeafValue>;

/** Which part of ours each region of the standard's table style is (ST_TblStyleOverrideType, §17.18.89). */
const PART_OF: Record<Region, string> = {
	wholeTable: 'ground',
	band1Vert: 'columnBand:1',
	band2Vert: 'columnBand:2',
	band1Horz: 'rowBand:1',
	band2Horz: 'rowBand:2',
	firstRow: 'header',
	lastRow: 'total',
	firstCol: 'firstColumn',
	lastCol: 'lastColumn',
	neCell: 'corner:header-last',
	nwCell: 'corner:header-first',
	seCell: 'corner:total-last',
	swCell: 'corner:total-first'
};

/** The row and column that cross in each corner. */
const CROSSING: Partial<Record<Region, readonly [row: Region, column: Region]>> = {
	neCell: ['firstRow', 'lastCol'],
	nwCell: ['firstRow', 'firstCol'],
	seCell: ['lastRow', 'lastCol'],
	swCell: ['lastRow', 'firstCol']
};

const PLACES: [BorderPlace, LinePlace][] = [
	['top', 'top'],
	['bottom', 'bottom'],
	['start', 'start'],
	['end', 'end'],
	['insideH', 'betweenRows'],
	['insideV', 'betweenColumns'],
	['diagonalDown', 'diagonalDown'],
	['diagonalUp', 'diagonalUp']
];

const points = (length: Emu): string => `${Number(toPoints(length).toFixed(3))}pt`;

/** Names inks of the house where a colour is exactly one of them; others stay as hex. */
export type InkName = (hex: Hex) => string;

function lineLeaves(borders: Borders, name: InkName): Leaves {
	const leaves: Leaves = new Map();
	for (const [border, place] of PLACES) {
		const line: Line | null | undefined = borders[border];
		if (line === undefined) continue;
		leaves.set(`lines.${place}.pattern`, line?.pattern ?? 'none');
		if (!line) continue;
		leaves.set(`lines.${place}.weight`, points(line.weight));
		leaves.set(`lines.${place}.ink`, name(line.ink));
	}
	return leaves;
}

function marginLeaves(margins: Margins): Leaves {
	const leaves: Leaves = new Map();
	for (const side of ['top', 'end', 'bottom', 'start'] as const)
		if (margins[side] !== undefined) leaves.set(`margin.${side}`, points(margins[side]));
	return leaves;
}

/** What one region says, as leaves of a part. */
function regionLeaves({ text, paragraph, cell }: RegionLayer, name: InkName): Leaves {
	const leaves: Leaves = new Map();
	const set = (path: string, value: LeafValue | undefined) => value !== undefined && leaves.set(path, value);
	const fill = shownFill(text.behind, paragraph.behind, cell.fill);
	if (fill) set('fill.ink', fill === 'none' ? 'none' : name(fill));
	const semibold = text.family === undefined ? undefined : familyOfSemibold(text.family);
	set('text.family', semibold ?? text.family);
	set('text.size', text.size && points(text.size));
	set('text.weight', text.bold ? 700 : semibold ? 600 : text.bold === undefined ? undefined : 400);
	set('text.italic', text.italic);
	set('text.underline', text.underline);
	if (text.caps || text.smallCaps) set('text.case', text.caps ? 'upper' : 'small-caps');
	else if (text.caps === false || text.smallCaps === false) set('text.case', 'none');
	set('text.tracking', text.tracking === undefined ? undefined : points(text.tracking));
	if (text.ink && text.ink !== 'auto') set('text.ink', name(text.ink));
	set('align.h', paragraph.h);
	set('text.lineHeight', paragraph.lineHeight);
	set('align.v', cell.v);
	set('rotate', cell.rotate);
	return new Map([...leaves, ...marginLeaves(cell.margins), ...lineLeaves(cell.borders, name)]);
}

const over = (...layers: (Leaves | undefined)[]): Leaves => new Map(layers.flatMap((layer) => [...(layer ?? [])]));

/** A corner is one cell: what rows and columns draw between their cells is no line of it. */
const isInner = (path: string) => path.startsWith('lines.between');

/**
 * A table style of the file, its base chain resolved, as our parts. The standard lets columns win over rows where they
 * cross (§17.7.6), we let rows win: a corner says whatever differs between the two.
 */
function partsOf(style: TableStyle, name: InkName): Map<string, Leaves> {
	const regions = new Map<Region, Leaves>();
	for (const [region, layer] of style.regions) regions.set(region, regionLeaves(layer, name));
	regions.set(
		'wholeTable',
		over(lineLeaves(style.tableBorders, name), marginLeaves(style.tableMargins), regions.get('wholeTable'))
	);
	const parts = new Map<string, Leaves>();
	for (const [region, leaves] of regions) if (!CROSSING[region]) parts.set(PART_OF[region], leaves);
	for (const [corner, [row, column]] of Object.entries(CROSSING) as [Region, [Region, Region]][]) {
		const whole = regions.get('wholeTable');
		const standard = over(whole, regions.get(row), regions.get(column), regions.get(corner));
		const ours = over(whole, regions.get(column), regions.get(row));
		const differs = [...standard].filter(([path, value]) => !isInner(path) && ours.get(path) !== value);
		if (differs.length) parts.set(PART_OF[corner], new Map(differs));
	}
	return parts;
}

/**
 * Every table style of a document as a style of ours, bases first: only what differs from its base is said in it. The
 * default table style, which every style of the file builds on, is part of those that build on it directly.
 */
export function tableStylesOf(document: DocxDocument, ink: InkName = (hex) => hex): Style[] {
	const { sheet } = document;
	const table = [...sheet.styles.values()].filter(({ type, isDefault }) => type === 'table' && !isDefault);
	const byId = new Map(table.map((style) => [style.id, style]));
	const styles: Style[] = [];
	const done = new Set<string>();
	const add = (id: string, seen: readonly string[]): void => {
		const style = byId.get(id);
		if (!style || done.has(id) || seen.includes(id)) return;
		const base = style.basedOn !== undefined && !seen.includes(style.basedOn) ? byId.get(style.basedOn) : undefined;
		if (base) add(base.id, [...seen, id]);
		done.add(id);
		const resolved = sheet.table(id);
		const own = partsOf(resolved, ink);
		const below = base ? partsOf(sheet.table(base.id), ink) : undefined;
		const parts = [...own].flatMap(([part, leaves]) => {
			const differs = new Map([...leaves].filter(([path, value]) => below?.get(part)?.get(path) !== value));
			return differs.size ? [[part, settingsOf(differs)] as const] : [];
		});
		const beneath = base && sheet.table(base.id);
		const rows = resolved.rowBandSize !== (beneath?.rowBandSize ?? 1);
		const columns = resolved.columnBandSize !== (beneath?.columnBandSize ?? 1);
		styles.push({
			format: 'heptarch-style',
			version: 1,
			name: style.name,
			basedOn: base?.name ?? null,
			...((rows || columns) && {
				bands: {
					...(rows && { rows: { sizes: [resolved.rowBandSize, resolved.rowBandSize] } }),
					...(columns && { columns: { sizes: [resolved.columnBandSize, resolved.columnBandSize] } })
				}
			}),
			parts: Object.fromEntries(parts)
		});
	};
	for (const { id } of table) add(id, []);
	return styles;
}
