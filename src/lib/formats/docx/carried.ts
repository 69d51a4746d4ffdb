import { InputError } from '../../core/errors.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { checkStyle, checkTableFile } from '../../core/style/validate.ts';
import type { Style } from '../../core/style/types.ts';
import type { Table } from '../../core/table/grid.ts';
import type { CarriedTable } from '../document.ts';
import { escapeXml, type XmlNode } from '../package/xml.ts';
import { HEPTARCH_NAMESPACE } from './names.ts';

/**
 * Heptarch's own data in a custom XML part (ECMA-376 Part 1 §15.2.5): the styles with their chains, and what each
 * table wears. Tables are found again by their text, so that an edit elsewhere in the document does no harm.
 */
export interface Carried {
	readonly styles: readonly Style[];
	readonly tables: readonly { readonly index: number; readonly key: string; readonly wears: CarriedTable }[];
}

/** A short key of a table's size and text (FNV-1a over UTF-16 code units). */
export function contentKey(table: Pick<Table, 'rows' | 'columns' | 'cells'>): string {
	let hash = 0x811c9dc5;
	for (const { r, c, text } of table.cells) {
		const piece = `${r},${c},${text}\n`;
		for (let i = 0; i < piece.length; i++) hash = Math.imul(hash ^ piece.charCodeAt(i), 0x01000193);
	}
	return `${table.rows}x${table.columns}-${(hash >>> 0).toString(16).padStart(8, '0')}`;
}

export const wearsOf = (table: Table, style: string): CarriedTable => ({
	style,
	roles: table.roles,
	columns: table.columnInfo,
	firstColumns: table.firstColumns,
	lastColumns: table.lastColumns,
	partsOff: table.partsOff,
	carry: table.carry,
	touches: table.touches
});

export function writeCarried(carried: Carried): string {
	const styles = carried.styles.map((style) => `<style>${escapeXml(JSON.stringify(canonicalStyle(style)))}</style>`);
	const tables = carried.tables.map(
		({ index, key, wears }) => `<table index="${index}" key="${key}">${escapeXml(JSON.stringify(wears))}</table>`
	);
	return `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<document xmlns="${HEPTARCH_NAMESPACE}">${[...styles, ...tables].join('')}</document>`;
}

/** Reads the part; whatever in it is not valid is left out, for the file itself is what counts. */
export function readCarried(root: XmlNode): Carried {
	const styles: Style[] = [];
	const tables: Carried['tables'][number][] = [];
	for (const node of root.children)
		try {
			const value: unknown = JSON.parse(node.text);
			if (node.name === 'hept:style') styles.push(checkStyle(value));
			else if (node.name === 'hept:table') {
				const wears = value as CarriedTable;
				checkTableFile({
					format: 'heptarch-table',
					version: 1,
					cells: [],
					rows: wears.roles,
					columns: wears.columns,
					firstColumns: wears.firstColumns,
					lastColumns: wears.lastColumns,
					partsOff: wears.partsOff,
					carry: wears.carry,
					touches: wears.touches
				});
				tables.push({ index: Number(node.attribute('index')), key: node.attribute('key') ?? '', wears });
			}
		} catch (error) {
			if (!(error instanceof InputError) && !(error instanceof SyntaxError) && !(error instanceof TypeError))
				throw error;
		}
	return { styles, tables };
}

/** What the file says of the table at `index`: found by its text, else by its place if size and style still fit. */
export function findCarried(
	carried: Carried,
	index: number,
	table: Table,
	wornName: string | null
): CarriedTable | null {
	if (carried.tables.length === 0) return null;
	const key = contentKey(table);
	const fits = (wears: CarriedTable) => wears.roles.length === table.rows && wears.columns.length === table.columns;
	const exact = carried.tables.filter((entry) => entry.key === key);
	const found =
		exact.find((entry) => entry.index === index) ??
		exact[0] ??
		carried.tables.find(({ index: at, wears }) => at === index && wears.style === wornName);
	return found && fits(found.wears) ? found.wears : null;
}
