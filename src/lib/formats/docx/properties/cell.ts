import type { Hex } from '../../../core/colour.ts';
import type { Look } from '../../../core/cascade/look.ts';
import { fromTwips, toTwips, type Emu } from '../../../core/units.ts';
import type { XmlNode } from '../../package/xml.ts';
import type { Theme } from '../theme.ts';
import { readBorders, type Borders } from './borders.ts';
import { readShading } from './shading.ts';

export interface Margins {
	top?: Emu;
	end?: Emu;
	bottom?: Emu;
	start?: Emu;
}

/** Cell properties (w:tcPr, §17.4) as far as a look has them. */
export interface CellLayer {
	fill?: Hex | 'none';
	v?: Look['v'];
	rotate?: Look['rotate'];
	margins: Margins;
	borders: Borders;
}

/** w:tblCellMar and w:tcMar; left and right are what transitional documents call start and end. */
export function readMargins(node: XmlNode | undefined): Margins {
	const margins: Margins = {};
	for (const side of node?.children ?? []) {
		const width = Number(side.attribute('w:w'));
		if (!Number.isFinite(width) || (side.attribute('w:type') ?? 'dxa') !== 'dxa') continue;
		const name = side.name.slice(2).replace('left', 'start').replace('right', 'end');
		if (name === 'top' || name === 'end' || name === 'bottom' || name === 'start') margins[name] = fromTwips(width);
	}
	return margins;
}

export function readCell(tcPr: XmlNode | undefined, theme: Theme): CellLayer {
	const layer: CellLayer = {
		margins: readMargins(tcPr?.child('w:tcMar')),
		borders: readBorders(tcPr?.child('w:tcBorders'), theme)
	};
	const fill = readShading(tcPr?.child('w:shd'), theme);
	if (fill) layer.fill = fill;
	const v = tcPr?.child('w:vAlign')?.attribute('w:val');
	if (v) layer.v = v === 'center' ? 'middle' : v === 'bottom' ? 'bottom' : 'top';
	const direction = tcPr?.child('w:textDirection')?.attribute('w:val');
	if (direction) layer.rotate = direction === 'btLr' ? 270 : direction === 'tbRl' || direction === 'tbRlV' ? 90 : 0;
	return layer;
}

/** Order of the children of w:tcPr (CT_TcPr). */
export const CELL_ORDER =
	'cnfStyle tcW gridSpan hMerge vMerge tcBorders shd noWrap tcMar textDirection tcFitText vAlign hideMark headers cellIns cellDel cellMerge tcPrChange'
		.split(' ')
		.map((name) => `w:${name}`);

export const TABLE_ORDER = (
	'tblStyle tblpPr tblOverlap bidiVisual tblStyleRowBandSize tblStyleColBandSize tblW jc tblCellSpacing tblInd tblBorders shd tblLayout ' +
	'tblCellMar tblLook tblCaption tblDescription tblPrChange'
)
	.split(' ')
	.map((name) => `w:${name}`);

export const ROW_ORDER =
	'cnfStyle divId gridBefore gridAfter wBefore wAfter cantSplit trHeight tblHeader tblCellSpacing jc hidden ins del trPrChange'
		.split(' ')
		.map((name) => `w:${name}`);

export function writeMargins(element: 'w:tblCellMar' | 'w:tcMar', margins: Margins, strict: boolean): string {
	const sides = [
		['top', 'w:top'],
		['start', strict ? 'w:start' : 'w:left'],
		['bottom', 'w:bottom'],
		['end', strict ? 'w:end' : 'w:right']
	] as const;
	const inside = sides
		.flatMap(([side, name]) =>
			margins[side] === undefined ? [] : [`<${name} w:w="${toTwips(margins[side])}" w:type="dxa"/>`]
		)
		.join('');
	return inside && `<${element}>${inside}</${element}>`;
}

export const writeVertical = (v: NonNullable<Look['v']>): string =>
	`<w:vAlign w:val="${v === 'middle' ? 'center' : v}"/>`;

export const writeRotation = (rotate: NonNullable<Look['rotate']>, strict: boolean): string => {
	const value = rotate === 270 ? 'btLr' : rotate === 90 ? 'tbRl' : strict ? 'lr' : 'lrTb';
	return `<w:textDirection w:val="${value}"/>`;
};
