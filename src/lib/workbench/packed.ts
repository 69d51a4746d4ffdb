import type { Recognition } from '../core/recognise/recognise.ts';
import { createGrid, type Grid } from '../core/table/grid.ts';
import { bareAppearance, plainContent } from '../formats/bare.ts';
import type { DocumentTable } from '../formats/document.ts';

/** Part the texts of cells, and rows: controls of Latin-1 that hardly any text holds, and that JSON need not escape. */
const CELL = '\u009f';
const ROW = '\u009e';

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
	const known = new Map<string, number>();
	const distinct: T[] = [];
	const of = Int32Array.from(items, (item) => {
		const name = key(item);
		let index = known.get(name);
		if (index === undefined) {
			known.set(name, (index = distinct.length));
			distinct.push(item);
		}
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
	return made;
}

/** Opened documents are packed once. */
const packed = new WeakMap<DocumentTable, PackedTable | DocumentTable>();

function pack(entry: DocumentTable): PackedTable | DocumentTable {
	const { table, recognition, appearance: _appearance, content: _content, ...more } = entry;
	const { rows, columns, cells, slots: _slots, merged: _merged, roles, ...rest } = table;
	const lines: string[] = [];
	for (let r = 0; r < rows; r++) {
		let line = '';
		for (let c = 0; c < columns; c++) line += (c ? CELL : '') + cells[r * columns + c]!.text;
		lines.push(line);
	}
	const texts = lines.join(ROW);
	// A text that holds one of the marks itself cannot be parted again.
	let marks = 0;
	for (let i = 0; i < texts.length; i++) if (texts[i] === CELL || texts[i] === ROW) marks++;
	if (marks !== rows * columns - 1) return entry;
	const { rows: guessed, ...others } = recognition;
	const guesses = numbered(guessed, ({ is, confidence, reasons }) => `${is} ${confidence} ${reasons.join()}`);
	const named = numbered(roles, (role) => role);
	return {
		...more,
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
	const { packed, ...more } = entry;
	const grid = createGrid(packed.texts.split(ROW).map((line) => line.split(CELL)));
	return {
		...more,
		table: { ...grid, ...packed.rest, roles: Array.from(packed.roleOf, (role) => packed.roles[role] as never) },
		recognition: { ...packed.recognition, rows: Array.from(packed.rows, (guess) => packed.guesses[guess]!) },
		appearance: bareAppearance(grid),
		content: plainContent(grid.cells)
	};
}
