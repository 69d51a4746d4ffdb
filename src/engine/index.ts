/**
 * The engine for programs: read a document, resolve a style on a table, write the document with styles on its tables. No
 * database and no interface. Lengths are EMU (914,400 an inch), inks sRGB as `#RRGGBB`, rows and columns counted from 0.
 */
import { appearanceOf, unknownInks, type Appearance } from '../lib/core/cascade/look.ts';
import { resolve as resolveTable, traceCell, traceEdge } from '../lib/core/cascade/resolve.ts';
import { InputError } from '../lib/core/errors.ts';
import { FIRST_HOUSE, type House } from '../lib/core/house.ts';
import { flatten } from '../lib/core/style/inherit.ts';
import type { Aspect, Style } from '../lib/core/style/types.ts';
import { checkStyle } from '../lib/core/style/validate.ts';
import type { Side, Table, Touch } from '../lib/core/table/grid.ts';
import { tableFromFile } from '../lib/core/table/file.ts';
import { openDocument, writeAs, type AnyDocument, type OutKind } from '../lib/formats/index.ts';
import type { Travel } from '../lib/formats/job.ts';
import type { Account, Written } from '../lib/formats/tally.ts';

export { InputError };
export type {
	Account,
	Appearance,
	Aspect,
	AnyDocument as Document,
	House,
	OutKind,
	Side,
	Style,
	Table,
	Touch,
	Travel,
	Written
};
export type { DocumentTable } from '../lib/formats/document.ts';
export { findingsIn as findings, placedWords } from '../lib/core/findings/index.ts';
export { lift } from '../lib/core/lift/lift.ts';
export { judge } from '../lib/core/policy/policy.ts';
export { checkPolicy as readPolicy } from '../lib/core/policy/validate.ts';
export { isLeftOut } from '../lib/core/recognise/purpose/kinds.ts';

/** Inks and type roles that a style may name without defining them, where nobody says others. */
export const house: House = FIRST_HOUSE;

/**
 * Opens DOCX, ODT, HTML, CSV, SVG or a table file: its tables with their rows and columns recognised. `name` decides only
 * between formats that look alike. Throws InputError saying what is wrong, where, and what to do.
 */
export const readDocument = (bytes: Uint8Array, name: string): Promise<AnyDocument> =>
	openDocument(new Uint8Array(bytes), name);

/** A value as a style, such as JSON that was parsed. Throws InputError with the place of what is wrong. */
export const readStyle = (value: unknown): Style => checkStyle(value);
/** A value as a table file says a table. Throws InputError with the place of what is wrong. */
export const readTable = (value: unknown): Table => tableFromFile(value);

/** A table in a style: how it shows, and who decided what. */
export interface Resolved {
	readonly appearance: Appearance;
	/** For each leaf of a cell, what was said, the winner first. */
	trace(r: number, c: number): ReturnType<typeof traceCell>;
	/** The claims on an edge of a cell; undefined where there is none, inside a joined cell. */
	traceEdge(r: number, c: number, side: Side): ReturnType<typeof traceEdge>;
}

/** Throws InputError for inks that nobody defines. */
function usable(style: Style, among: House) {
	const flat = flatten(style);
	const unknown = unknownInks({ style: flat, house: among });
	if (unknown.length)
		throw new InputError(
			'style',
			`“${style.name}” names inks that nobody defines: ${unknown.join(', ')}. Add them to its "inks".`
		);
	return flat;
}

/** Decides every cell and every edge of a table by a style. Throws InputError for a style that cannot be used. */
export function resolve(table: Table, style: Style, among: House = FIRST_HOUSE): Resolved {
	const resolved = resolveTable(table, usable(style, among), among);
	return {
		appearance: appearanceOf(resolved),
		trace: (r, c) => traceCell(resolved, r, c),
		traceEdge: (r, c, side) => traceEdge(resolved, r, c, side)
	};
}

/** A style for one table of a document. */
export interface Wish {
	/** Index of the table. */
	readonly table: number;
	readonly style: Style;
	/** Parts or families that it does not wear; those that are off in its file where absent. */
	readonly partsOff?: readonly string[] | undefined;
	/** What it takes of the style; everything where absent. */
	readonly carry?: readonly Aspect[] | undefined;
	/** One-off settings over the style. */
	readonly touches?: readonly Touch[] | undefined;
}

/** How a file is written. */
export interface WriteHow {
	/** The format; the document's own where absent: then everything but its tables stays byte for byte. */
	readonly to?: OutKind | undefined;
	/** How looks travel. */
	readonly as?: Travel | undefined;
	readonly title?: string | undefined;
	readonly house?: House | undefined;
}

/**
 * Writes a document with styles on its tables: the bytes of the file, and an account of what changed and what reading it
 * back has found. Throws InputError for a table that is not there, or a style or format that cannot be used.
 */
export function write(document: AnyDocument, wishes: readonly Wish[], how: WriteHow = {}): Promise<Written> {
	const among = how.house ?? FIRST_HOUSE;
	const jobs = wishes.map(({ table: index, style, partsOff, carry, touches }) => {
		const entry = document.tables[index];
		if (!entry)
			throw new InputError('table', `There is no table ${index + 1}: the document has ${document.tables.length}.`);
		usable(style, among);
		const table = {
			...entry.table,
			...(partsOff && { partsOff }),
			...(carry && { carry }),
			...(touches && { touches })
		};
		return { index, style, table };
	});
	return writeAs(how.to ?? document.kind, document, jobs, {
		house: among,
		...(how.as && { as: how.as }),
		title: how.title ?? ''
	});
}
