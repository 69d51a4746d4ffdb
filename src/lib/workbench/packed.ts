import type { Recognition } from '../core/recognise/recognition.ts';
import { createGrid, type Grid } from '../core/table/grid.ts';
import { bareAppearance, plainContentWhenSeen } from '../formats/bare.ts';
import type { DocumentTable } from '../formats/document.ts';

/** Part the texts of cells, and rows: controls of Latin-1 that hardly any text holds, and that JSON need not escape. */
const CELL = '\u009f';
const ROW = '\u009e';
const CELL_CODE = CELL.charCodeAt(0);
const ROW_CODE = ROW.charCodeAt(0);

/**
 * A table of which nothing but its text is known, small enough for a page to carry it with a million cells: its texts as
 * one, each guess about its rows once.
 */
export interface PackedTable extends Omit<DocumentTable, 'table' | 'content' | 'recognition' | 'appearance'> {
	readonly packed: {
		readonly texts: string;
		readonly rest: Omit<DocumentTable['table'], keyof Grid | 'roles'>;
		readonly guesses: readonly Recognition['rows'][number][];
		/** Which of the guesses each row is. */
		readonly rows: Int32Array;
		readonly roles: readonly string[];
		readonly roleOf: Int32Array;
		readonly recognition: Omit<Recognition, 'rows'>;
	};
}

function numbered<T>(items: readonly T[], key: (item: T) => string) {
	const seen = new Map<T, number>();
	const known = new Map<string, number>();
	const distinct: T[] = [];
	const of = Int32Array.from(items, (item) => {
		let index = seen.get(item);
		if (index !== undefined) return index;
		const name = key(item);
		index = known.get(name);
		if (index === undefined) {
			known.set(name, (index = distinct.length));
			distinct.push(item);
		}
		seen.set(item, index);
		return index;
	});
	return { distinct, of };
}

/** Packs a table of plain rows (CSV): no cell is merged, none has a look. */
export function packTable(entry: DocumentTable): PackedTable | DocumentTable {
	const known = packed.get(entry);
	if (known) return known;
	const made = pack(entry);
	packed.set(entry, made);
	if ('packed' in made) unpacked.set(made, entry);
	return made;
}

/** Opened documents are packed once, and need not be unpacked where they were packed. */
const packed = new WeakMap<DocumentTable, PackedTable | DocumentTable>();
const unpacked = new WeakMap<PackedTable, DocumentTable>();

function pack(entry: DocumentTable): PackedTable | DocumentTable {
	// One by one: content, which the page makes itself, is not even to be asked for.
	const { table, recognition, index, place, widths, wornName, carried, locked, work } = entry;
	const { rows, columns, cells, slots: _slots, merged: _merged, roles, ...rest } = table;
	const line = Array<string>(columns);
	const lines = Array.from({ length: rows }, (_, r) => {
		for (let c = 0; c < columns; c++) line[c] = cells[r * columns + c]!.text;
		return line.join(CELL);
	});
	const texts = lines.join(ROW);
	// A text that holds one of the marks itself cannot be parted again.
	let marks = 0;
	for (let i = 0; i < texts.length; i++) {
		const code = texts.charCodeAt(i);
		if (code === CELL_CODE || code === ROW_CODE) marks++;
	}
	if (marks !== rows * columns - 1) return entry;
	const { rows: guessed, ...others } = recognition;
	const guesses = numbered(guessed, ({ is, confidence, reasons }) => `${is} ${confidence} ${reasons.join()}`);
	const named = numbered(roles, (role) => role);
	return {
		index,
		place,
		widths,
		wornName,
		carried,
		...(locked && { locked }),
		...(work && { work }),
		packed: {
			texts,
			rest,
			guesses: guesses.distinct,
			rows: guesses.of,
			roles: named.distinct,
			roleOf: named.of,
			recognition: others
		}
	};
}

/** A table as it was before it was packed. */
export function unpackTable(entry: PackedTable | DocumentTable): DocumentTable {
	if (!('packed' in entry)) return entry;
	const known = unpacked.get(entry);
	if (known) return known;
	const { packed, ...more } = entry;
	const grid = createGrid(packed.texts.split(ROW).map((line) => line.split(CELL)));
	return {
		...more,
		table: { ...grid, ...packed.rest, roles: Array.from(packed.roleOf, (role) => packed.roles[role] as never) },
		recognition: { ...packed.recognition, rows: Array.from(packed.rows, (guess) => packed.guesses[guess]!) },
		appearance: bareAppearance(grid),
		content: plainContentWhenSeen(grid.cells)
	};
}
