import type { XmlNode } from '../package/xml.ts';

/** Regions of a table that a table style can speak of (ST_TblStyleOverrideType, §17.18.89), in the order in which later ones win (§17.7.6). */
export const REGIONS = [
	'wholeTable',
	'band1Vert',
	'band2Vert',
	'band1Horz',
	'band2Horz',
	'firstRow',
	'lastRow',
	'firstCol',
	'lastCol',
	'neCell',
	'nwCell',
	'seCell',
	'swCell'
] as const;
export type Region = (typeof REGIONS)[number];

/** Which conditional formats a table asks for (w:tblLook, §17.4.56). */
export interface TableLook {
	readonly firstRow: boolean;
	readonly lastRow: boolean;
	readonly firstColumn: boolean;
	readonly lastColumn: boolean;
	readonly rowBands: boolean;
	readonly columnBands: boolean;
}

/** Reads w:tblLook: its single attributes, or the bits of w:val where they are missing. */
export function readTableLook(tblLook: XmlNode | undefined): TableLook {
	const bits = parseInt(tblLook?.attribute('w:val') ?? '0', 16) || 0;
	const flag = (name: string, bit: number) => {
		const value = tblLook?.attribute(`w:${name}`);
		return value === undefined ? (bits & bit) !== 0 : ['1', 'true', 'on'].includes(value);
	};
	return {
		firstRow: flag('firstRow', 0x20),
		lastRow: flag('lastRow', 0x40),
		firstColumn: flag('firstColumn', 0x80),
		lastColumn: flag('lastColumn', 0x100),
		rowBands: !!tblLook && !flag('noHBand', 0x200),
		columnBands: !!tblLook && !flag('noVBand', 0x400)
	};
}

export function writeTableLook(look: TableLook): string {
	const bits =
		(look.firstRow ? 0x20 : 0) |
		(look.lastRow ? 0x40 : 0) |
		(look.firstColumn ? 0x80 : 0) |
		(look.lastColumn ? 0x100 : 0) |
		(look.rowBands ? 0 : 0x200) |
		(look.columnBands ? 0 : 0x400);
	const flag = (on: boolean) => (on ? 1 : 0);
	return (
		`<w:tblLook w:val="${bits.toString(16).toUpperCase().padStart(4, '0')}" w:firstRow="${flag(look.firstRow)}" w:lastRow="${flag(look.lastRow)}"` +
		` w:firstColumn="${flag(look.firstColumn)}" w:lastColumn="${flag(look.lastColumn)}" w:noHBand="${flag(!look.rowBands)}" w:noVBand="${flag(!look.columnBands)}"/>`
	);
}

/** A block of slots: rows and columns from … up to and including …. */
export interface Block {
	readonly top: number;
	readonly bottom: number;
	readonly start: number;
	readonly end: number;
}

export interface GridCell {
	readonly r: number;
	readonly c: number;
	readonly cols: number;
}

/**
 * A number that is the same for cells that the same regions rule in the same way: {@link regionsAt} gives them the same
 * regions, and they stand at the same rims of their blocks. Bands are told apart by their parity and their rims.
 */
export function regionKey(
	{ r, c, cols }: GridCell,
	rows: number,
	columns: number,
	look: TableLook,
	rowBandSize: number,
	columnBandSize: number
): number {
	const firstBody = look.firstRow ? 1 : 0;
	const firstPlain = look.firstColumn ? 1 : 0;
	const last = c + cols - 1;
	let key = (r === 0 ? 1 : 0) | (r === rows - 1 ? 2 : 0) | (c === 0 ? 4 : 0) | (last >= columns - 1 ? 8 : 0);
	// The rims of the regions beside the first and last rows and columns, which column bands end at.
	if (r === firstBody) key |= 16;
	if (r === rows - 1 - (look.lastRow ? 1 : 0)) key |= 32;
	if (look.rowBands && r >= firstBody) {
		const at = r - firstBody;
		key |=
			(Math.floor(at / rowBandSize) % 2 ? 64 : 128) |
			(at % rowBandSize === 0 ? 256 : 0) |
			(at % rowBandSize === rowBandSize - 1 ? 512 : 0);
	}
	if (look.columnBands && c >= firstPlain) {
		const at = c - firstPlain;
		const lastPlain = columns - 1 - (look.lastColumn ? 1 : 0);
		const end = Math.min(at - (at % columnBandSize) + columnBandSize - 1, lastPlain - firstPlain);
		key |=
			(Math.floor(at / columnBandSize) % 2 ? 1024 : 2048) |
			(at % columnBandSize === 0 ? 4096 : 0) |
			(last - firstPlain >= end ? 8192 : 0);
	}
	return key;
}

/**
 * The regions that rule a cell, weakest first, each with the block of slots it covers around that cell
 * (§17.7.6): the block tells which of the region's borders are outside and which inside.
 */
export function regionsAt(
	place: GridCell,
	rows: number,
	columns: number,
	look: TableLook,
	rowBandSize: number,
	columnBandSize: number
): { region: Region; block: Block }[] {
	const { r, c, cols } = place;
	const all: Block = { top: 0, bottom: rows - 1, start: 0, end: columns - 1 };
	const found: { region: Region; block: Block }[] = [{ region: 'wholeTable', block: all }];
	const isFirstRow = look.firstRow && r === 0;
	const isLastRow = look.lastRow && r === rows - 1 && !isFirstRow;
	const isFirstColumn = look.firstColumn && c === 0;
	const isLastColumn = look.lastColumn && c + cols === columns && !isFirstColumn;
	const firstBody = look.firstRow ? 1 : 0;
	const lastBody = rows - 1 - (look.lastRow ? 1 : 0);
	const firstPlain = look.firstColumn ? 1 : 0;
	const lastPlain = columns - 1 - (look.lastColumn ? 1 : 0);
	const rowBlock = (top: number, bottom: number): Block => ({ ...all, top, bottom });
	const columnBlock = (start: number, end: number): Block => ({ ...all, start, end });
	if (look.columnBands && !isFirstColumn && !isLastColumn) {
		const stripe = Math.floor((c - firstPlain) / columnBandSize);
		const start = firstPlain + stripe * columnBandSize;
		found.push({
			region: stripe % 2 ? 'band2Vert' : 'band1Vert',
			block: { start, end: Math.min(start + columnBandSize - 1, lastPlain), top: firstBody, bottom: lastBody }
		});
	}
	if (look.rowBands && !isFirstRow && !isLastRow) {
		const stripe = Math.floor((r - firstBody) / rowBandSize);
		const top = firstBody + stripe * rowBandSize;
		found.push({
			region: stripe % 2 ? 'band2Horz' : 'band1Horz',
			block: rowBlock(top, Math.min(top + rowBandSize - 1, lastBody))
		});
	}
	if (isFirstRow) found.push({ region: 'firstRow', block: rowBlock(0, 0) });
	if (isLastRow) found.push({ region: 'lastRow', block: rowBlock(rows - 1, rows - 1) });
	if (isFirstColumn) found.push({ region: 'firstCol', block: columnBlock(0, 0) });
	if (isLastColumn) found.push({ region: 'lastCol', block: columnBlock(columns - 1, columns - 1) });
	const corner: Block = { top: r, bottom: r, start: c, end: c + cols - 1 };
	if (isFirstRow && isLastColumn) found.push({ region: 'neCell', block: corner });
	if (isFirstRow && isFirstColumn) found.push({ region: 'nwCell', block: corner });
	if (isLastRow && isLastColumn) found.push({ region: 'seCell', block: corner });
	if (isLastRow && isFirstColumn) found.push({ region: 'swCell', block: corner });
	return found;
}
