import type { House } from '../../core/house.ts';
import { escapeXml } from '../../core/escape.ts';
import { writeProperties } from './containers.ts';
import { computedLine, computeLook, type Look, type LookField } from '../../core/cascade/look.ts';
import { inkHex, resolveParts, type Decided } from '../../core/cascade/resolve.ts';
import type { FlatStyle } from '../../core/style/inherit.ts';
import { fieldsOfLeaf } from '../../core/properties/index.ts';
import { linePath } from '../../core/properties/lines.ts';
import type { Aspect, LinePattern, LinePlace } from '../../core/style/types.ts';
import type { Table } from '../../core/table/grid.ts';
import { cellLayerOf, marginsOf, paragraphLayerOf, textLayerOf } from './layers.ts';
import { writeBorders, type BorderPlace, type Borders } from './properties/borders.ts';
import { writeMargins, writeRotation, writeVertical } from './properties/cell.ts';
import { writeShading } from './properties/shading.ts';
import { sayableLook } from './properties/fields.ts';
import { spacing, writeAlignment, PARAGRAPH_ORDER } from './properties/paragraph.ts';
import { RUN_ORDER, writeText } from './properties/text.ts';
import type { Region } from './regions.ts';

/** Which of our parts each region of the standard's table style stands for; what it repeats of weaker parts comes first. */
const REGION_PARTS: Partial<Record<Region, { under: string[]; own: string[]; whole?: boolean }>> = {
	band1Vert: { under: ['ground'], own: ['columnBand:1'] },
	band2Vert: { under: ['ground'], own: ['columnBand:2'] },
	band1Horz: { under: ['ground'], own: ['rowBand:1'] },
	band2Horz: { under: ['ground'], own: ['rowBand:2'] },
	firstCol: { under: ['ground'], own: ['firstColumn'] },
	lastCol: { under: ['ground'], own: ['lastColumn'] },
	firstRow: { under: ['ground'], own: ['header', 'header:1'] },
	lastRow: { under: ['ground'], own: ['total'] },
	// Corners are written out in full: no consumer's own order between row and column matters then.
	neCell: { under: ['ground', 'lastColumn', 'header', 'header:1'], own: ['corner:header-last'], whole: true },
	nwCell: { under: ['ground', 'firstColumn', 'header', 'header:1'], own: ['corner:header-first'], whole: true },
	seCell: { under: ['ground', 'lastColumn', 'total'], own: ['corner:total-last'], whole: true },
	swCell: { under: ['ground', 'firstColumn', 'total'], own: ['corner:total-first'], whole: true }
};

const PLACES: [LinePlace, BorderPlace][] = [
	['top', 'top'],
	['bottom', 'bottom'],
	['start', 'start'],
	['end', 'end'],
	['betweenRows', 'insideH'],
	['betweenColumns', 'insideV'],
	['diagonalDown', 'diagonalDown'],
	['diagonalUp', 'diagonalUp']
];

export interface LivingStyle {
	readonly id: string;
	readonly name: string;
	readonly xml: string;
	/** Whether the style has bands that can be said: cycles of at most two stripes of one size. */
	readonly rowBands: boolean;
	readonly columnBands: boolean;
}

/** Two stripes of one size, or one: what w:tblStyleRowBandSize can say. */
function bandSize(sizes: readonly number[], used: (stripe: number) => boolean): number | undefined {
	if (sizes.length === 2 && sizes[0] === sizes[1]) return sizes[0];
	if (sizes.length === 1 && !used(1)) return sizes[0];
	return undefined;
}

/** The id under which a house style lives in a file. */
export function livingId(name: string, carry: readonly Aspect[], all: readonly Aspect[]): string {
	const slug = name
		.normalize('NFKD')
		.replace(/[^A-Za-z0-9]+/g, '')
		.slice(0, 40);
	let hash = 0;
	for (const char of name) hash = (Math.imul(hash, 31) + char.charCodeAt(0)) >>> 0;
	const partial =
		carry.length === all.length ? '' : '-' + all.map((aspect) => (carry.includes(aspect) ? '1' : '0')).join('');
	return `Heptarch-${slug}-${hash.toString(36)}${partial}`;
}

/**
 * A house style as a w:style of type table (§17.7.6): ground as the whole table, two row and two column bands, header,
 * total, first and last column, all four corners. `table` gives what is carried; what is not says nothing.
 */
export function livingStyle(
	style: FlatStyle,
	house: House,
	table: Table,
	naming: { id: string; name: string; basedOn: string | undefined; strict: boolean }
): LivingStyle {
	const carrier: Table = { ...table, partsOff: [] };
	const ink = (name: string | undefined) => inkHex(name, style, house);
	const { strict } = naming;

	const bordersOf = (own: readonly string[], under: readonly string[], whole: boolean): Borders => {
		const borders: Borders = {};
		const { statements } = resolveParts(style, house, carrier, []);
		for (const [place, border] of PLACES) {
			const parts = whole ? [...under.slice(1), ...own] : own;
			const said = (property: 'pattern' | 'weight' | 'ink') => {
				for (const name of [...parts].reverse()) {
					const found = statements(name).get(linePath(place, property));
					if (found) return found.value;
				}
				return undefined;
			};
			const pattern = said('pattern');
			if (pattern === undefined) continue;
			const weight = said('weight');
			const lineInk =
				said('ink') ?? resolveParts(style, house, carrier, [...under, ...own]).leaves.get('text.ink')?.value;
			borders[border] = computedLine(
				{
					pattern: pattern as LinePattern,
					...(weight !== undefined && { weight: String(weight) }),
					...(lineInk !== undefined && { ink: String(lineInk) })
				},
				ink
			);
		}
		return borders;
	};

	/** What a region says: the fields that its own parts decide (all fields for a corner). */
	const regionLook = (under: readonly string[], own: readonly string[], whole: boolean): Look => {
		const { leaves } = resolveParts(style, house, carrier, [...under, ...own]);
		const decidedHere = ({ part }: Decided) => whole || own.includes(part);
		const look = sayableLook(computeLook(leaves, ink));
		const fields = new Set<LookField>();
		for (const [path, decided] of leaves) {
			if (!decidedHere(decided)) continue;
			for (const { name } of fieldsOfLeaf(path)) fields.add(name);
		}
		return Object.fromEntries(Object.entries(look).filter(([field]) => fields.has(field as LookField))) as Look;
	};

	const region = (look: Look, borders: Borders): string => {
		const { h, lineHeight } = paragraphLayerOf(look);
		const pPr = new Map<string, string>();
		const line = spacing(undefined, lineHeight === undefined ? {} : { lineHeight });
		if (line) pPr.set('w:spacing', line);
		if (h && h !== 'decimal') for (const [name, xml] of writeAlignment(h)) pPr.set(name, xml);
		const rPr = writeText(textLayerOf(look));
		const cell = cellLayerOf(look);
		const tcPr =
			writeBorders('w:tcBorders', borders, strict) +
			(cell.fill !== undefined ? writeShading(cell.fill) : '') +
			writeMargins('w:tcMar', cell.margins, strict) +
			(cell.rotate !== undefined ? writeRotation(cell.rotate, strict) : '') +
			(cell.v ? writeVertical(cell.v) : '');
		return (
			writeProperties('w:pPr', PARAGRAPH_ORDER, pPr) +
			writeProperties('w:rPr', RUN_ORDER, rPr) +
			(tcPr ? `<w:tblPr/><w:tcPr>${tcPr}</w:tcPr>` : '')
		);
	};

	const ground = regionLook([], ['ground'], false);
	const { insideH, insideV, top, bottom, start, end, ...diagonals } = bordersOf(['ground'], [], false);
	const tableBorders: Borders = {
		...(top !== undefined && { top }),
		...(bottom !== undefined && { bottom }),
		...(start !== undefined && { start }),
		...(end !== undefined && { end }),
		...(insideH !== undefined && { insideH }),
		...(insideV !== undefined && { insideV })
	};
	const uses = (family: string) => (stripe: number) => style.parts.has(`${family}:${stripe + 1}`);
	const says = (family: string) => [...style.parts.keys()].some((name) => name.startsWith(`${family}:`));
	const rowSize = bandSize(style.bands.rowSizes, uses('rowBand'));
	const columnSize = bandSize(style.bands.columnSizes, uses('columnBand'));
	const wholeCell = region(
		{ ...ground, marginTop: undefined, marginEnd: undefined, marginBottom: undefined, marginStart: undefined } as Look,
		diagonals
	);
	const [beforeCell, cellPart = ''] = wholeCell.includes('<w:tblPr/>')
		? wholeCell.split('<w:tblPr/>')
		: [wholeCell, ''];
	const tblPr =
		`<w:tblStyleRowBandSize w:val="${rowSize ?? 1}"/><w:tblStyleColBandSize w:val="${columnSize ?? 1}"/>` +
		writeBorders('w:tblBorders', tableBorders, strict) +
		writeMargins('w:tblCellMar', marginsOf(ground), strict);
	const regions = (Object.entries(REGION_PARTS) as [Region, { under: string[]; own: string[]; whole?: boolean }][]).map(
		([name, { under, own, whole = false }]) => {
			if (name.endsWith('Vert') && columnSize === undefined) return '';
			if (name.endsWith('Horz') && rowSize === undefined) return '';
			const has = (whole ? [...under.slice(1), ...own] : own).some((part) => style.parts.has(part));
			const markup = has ? region(regionLook(under, own, whole), bordersOf(own, under, whole)) : '';
			return markup && `<w:tblStylePr w:type="${name}">${markup}</w:tblStylePr>`;
		}
	);
	const xml =
		`<w:style w:type="table" w:customStyle="1" w:styleId="${naming.id}"><w:name w:val="${escapeXml(naming.name)}"/>` +
		(naming.basedOn ? `<w:basedOn w:val="${escapeXml(naming.basedOn)}"/>` : '') +
		`<w:uiPriority w:val="1"/><w:qFormat/>${beforeCell}<w:tblPr>${tblPr}</w:tblPr>${cellPart}${regions.join('')}</w:style>`;
	return {
		id: naming.id,
		name: naming.name,
		xml,
		rowBands: rowSize !== undefined && says('rowBand'),
		columnBands: columnSize !== undefined && says('columnBand')
	};
}
