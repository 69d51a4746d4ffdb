import { InputError } from '../../core/errors.ts';
import { parseJson } from '../../core/well-formed.ts';
import { recognise } from '../../core/recognise/recognise.ts';
import { tableFromFile, type TableFile } from '../../core/table/file.ts';
import { textAt } from '../../core/table/grid.ts';
import type { Style } from '../../core/style/types.ts';
import { appearanceOf } from '../../core/cascade/look.ts';
import { resolve } from '../../core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../../core/house.ts';
import { flatten } from '../../core/style/inherit.ts';
import { tableOf, workOf } from '../../core/work/convert.ts';
import { saysFigures, withFileFigures } from '../../core/work/file.ts';
import { withCells, withText, isCovered, type WorkTable } from '../../core/work/table.ts';
import { checkWork } from '../../core/work/validate.ts';
import { bareAppearance, plainContent } from '../bare.ts';
import { checkedStyle, orNothing, wearsOf } from '../carried.ts';
import type { DocumentTable, OpenDocument } from '../document.ts';
import { checkSize } from '../limits.ts';
import { decodeText } from '../package/encoding.ts';
import { applyWork } from '../work.ts';

/** Tables in Heptarch's own form (formats.md, "Table files"): one, or a list of them. */
export interface JsonDocument extends OpenDocument {
	readonly kind: 'json';
}

/** What a table file says beside the table itself. */
export interface About {
	readonly title?: string;
	/** The style it wears, whole. */
	readonly style?: unknown;
	/** All that the table bench knows of it. */
	readonly work?: unknown;
}

const MOST_TABLES = 2_000;

/** Reads table files. Throws InputError saying what is wrong and where. */
export function readJson(bytes: Uint8Array): JsonDocument {
	let value: unknown;
	try {
		value = parseJson(decodeText(bytes).text);
	} catch (error) {
		if (error instanceof InputError) throw error;
		throw new InputError('not-json', `This is not JSON: ${(error as Error).message}.`);
	}
	const files = Array.isArray(value) ? value : [value];
	if (files.length > MOST_TABLES)
		throw new InputError('too-large', `This file holds ${files.length} tables; up to ${MOST_TABLES} are taken.`);
	const styles = new Map<string, Style>();
	const tables = files.map((file, index) => entryOf(file, index, styles));
	return {
		kind: 'json',
		blocks: tables.map(({ index }) => ({ kind: 'table', index })),
		tables,
		styles: [...styles.values()],
		remarks: []
	};
}

function entryOf(file: unknown, index: number, styles: Map<string, Style>): DocumentTable {
	const read = tableFromFile(file);
	checkSize(read.rows, read.columns, `table ${index + 1}`);
	const { title, style: said, work: riding } = ((file as TableFile).about ?? {}) as About;
	const style = said === undefined ? undefined : orNothing(() => checkedStyle(JSON.stringify(said)));
	if (style) styles.set(style.name, style);
	const known = riding === undefined ? undefined : orNothing(() => checkWork(riding));
	const fits = known?.rows.length === read.rows && known.columns.length === read.columns;
	let work = known && fits ? withTexts(known, read) : undefined;
	if (saysFigures(file as TableFile)) work = withFileFigures(work ?? workOf(read), file as TableFile);
	const table = work ? { ...tableOf(work), partsOff: read.partsOff, carry: read.carry } : read;
	const carried = style ? wearsOf(table, style.name) : null;
	const entry: DocumentTable = {
		index,
		place: { where: 'body', part: `table ${index + 1}`, ...(title && { caption: title }) },
		table,
		recognition: recognise(table),
		appearance: style ? appearanceOf(resolve(table, flatten(style), FIRST_HOUSE)) : bareAppearance(table),
		widths: [],
		content: plainContent(table.cells),
		wornName: carried?.style ?? null,
		carried
	};
	return work ? applyWork(entry, work) : entry;
}

/** What the bench knew, with the texts of the file: another program may have changed them. */
const withTexts = (work: WorkTable, read: ReturnType<typeof tableFromFile>): WorkTable =>
	withCells(
		work,
		work.rows.flatMap(({ cells }, r) => cells.flatMap((slot, c) => (isCovered(slot) ? [] : [{ r, c }]))),
		(cell, r, c) => (cell.text === textAt(read, r, c) ? cell : withText(cell, textAt(read, r, c)))
	);
