import { contentOfCell, isCovered, type WorkCell, type WorkTable } from '../core/work/table.ts';
import type { BlockPlace, DocumentTable, OpenDocument } from './document.ts';

/** What a file's tables become: by index those that were worked on, and new ones by the block that they come after. */
export interface RowRewriting {
	readonly works: ReadonlyMap<number, WorkTable>;
	/** `after` counts the document's blocks; −1 is before the first. In the order in which they are to stand. */
	readonly added: readonly { readonly after: number; readonly entry: DocumentTable }[];
	/** Tables of the file that are taken out, and those inside them. */
	readonly gone: ReadonlySet<number>;
}

const NONE: ReadonlySet<number> = new Set();

/** Tables that are taken out of a document, with those that stand inside them. */
export function goneWith(tables: OpenDocument['tables'], gone: readonly number[] = []): Set<number> {
	const all = new Set(gone);
	for (const { index, place } of tables) if (place.inside !== undefined && all.has(place.inside)) all.add(index);
	return all;
}

/** Those of the tables that are taken out which stand in none that is. */
export const outermost = (tables: OpenDocument['tables'], gone: ReadonlySet<number>): number[] =>
	[...gone].filter((index) => !gone.has(tables[index]!.place.inside ?? -1));

/** A cell as it is written again: where its markup comes from, and whether it says what it did there. */
export interface RowCell {
	readonly r: number;
	readonly c: number;
	readonly cell: WorkCell;
	/** The file's cell whose properties it takes; undefined where it has none. */
	readonly from: number | undefined;
	/** Its content stands in the file as it is: all that was in the cell stays, byte for byte. */
	readonly isKept: boolean;
}

/** The cells of a worked table against those of its file, by first slot as `r,c`. */
export function rowCells(work: WorkTable, entry: DocumentTable): Map<string, RowCell> {
	const cells = new Map<string, RowCell>();
	const taken = new Set<number>();
	work.rows.forEach((row, r) =>
		row.cells.forEach((slot, c) => {
			if (isCovered(slot)) return;
			const from = slot.from !== undefined && entry.table.cells[slot.from] ? slot.from : undefined;
			const isKept = from !== undefined && !taken.has(from) && !slot.picture && saysTheSame(slot, entry, from);
			if (isKept) taken.add(from);
			cells.set(`${r},${c}`, { r, c, cell: slot, from, isKept });
		})
	);
	return cells;
}

function saysTheSame(cell: WorkCell, entry: DocumentTable, from: number): boolean {
	if (cell.text !== entry.table.cells[from]!.text) return false;
	// Most cells were never touched, and have nothing but text.
	if (!cell.content && !cell.text) return true;
	return JSON.stringify(contentOfCell(cell)) === JSON.stringify(plainOr(entry, from, cell));
}
/** The content of a file's cell; as plain text where the worked cell holds it so. */
const plainOr = ({ content, table }: DocumentTable, from: number, cell: WorkCell) =>
	cell.content ? content[from] : contentOfCell({ text: table.cells[from]!.text });

/** The row of the file whose properties a row takes: that of its first cell which comes from there. */
export function rowFrom(work: WorkTable, entry: DocumentTable, r: number): number | undefined {
	for (const slot of work.rows[r]!.cells)
		if (!isCovered(slot) && slot.from !== undefined) {
			const cell = entry.table.cells[slot.from];
			if (cell && cell.rows === 1) return cell.r;
		}
	return undefined;
}

/** Which file's cell each column takes its properties from, where it was not moved or made. */
export function columnsFrom(work: WorkTable, entry: DocumentTable): (number | undefined)[] {
	return work.columns.map((_, c) => {
		for (const row of work.rows) {
			const slot = row.cells[c]!;
			if (isCovered(slot) || slot.from === undefined || (slot.cols ?? 1) > 1) continue;
			const cell = entry.table.cells[slot.from];
			if (cell && cell.cols === 1) return cell.c;
		}
		return undefined;
	});
}

/** Where new tables go into a source text, with their markup. */
export function* insertions<T>(
	added: RowRewriting['added'],
	places: readonly BlockPlace[],
	make: (entry: DocumentTable) => T
): Generator<{ at: number; made: T }> {
	for (const { after, entry } of added) {
		const place = after < 0 ? places[0]?.start : places[Math.min(after, places.length - 1)]?.end;
		if (place !== undefined) yield { at: place, made: make(entry) };
	}
}

/**
 * The index that each new table has in the document it is put in, and where those that were there come to be; undefined
 * for those that are gone.
 */
export function indicesAfter(
	{ blocks, tables }: Pick<OpenDocument, 'blocks' | 'tables'>,
	added: readonly { readonly after: number }[] = [],
	gone = NONE
): { of: number[]; moved: (index: number) => number | undefined } {
	const [main] = tables.filter(({ place }) => place.where === 'body');
	const inMain = tables.filter(({ place }) => main && place.part === main.place.part).length;
	/** The table of the file that a new one comes before. */
	const before = added.map(({ after }) => {
		const next = blocks.slice(after + 1).find((block) => block.kind === 'table');
		return next?.kind === 'table' ? next.index : inMain;
	});
	const left = (index: number) => index - [...gone].filter((one) => one < index).length;
	return {
		of: before.map((index, i) => left(index) + i),
		moved: (index) => (gone.has(index) ? undefined : left(index) + before.filter((one) => one <= index).length)
	};
}
