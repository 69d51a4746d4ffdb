import type { Appearance } from '../core/cascade/look.ts';
import type { Recognition } from '../core/recognise/recognition.ts';
import type { Style } from '../core/style/types.ts';
import type { Block, CellContent } from '../core/table/content.ts';
import type { Table } from '../core/table/grid.ts';
import type { Emu } from '../core/units.ts';
import type { Held, RowFacts } from './held.ts';
import type { WorkTable } from '../core/work/table.ts';

export interface TablePlace {
	readonly where: 'body' | 'header' | 'footer' | 'notes' | 'text box' | 'nested' | 'sheet';
	/** The package part, for programs. */
	readonly part: string;
	/** The nearest heading above, and the caption, where there are any. */
	readonly heading?: string;
	readonly caption?: string;
	/** For a nested table: the index of the table it stands in. */
	readonly inside?: number;
}

/** What a file that Heptarch wrote says of one table; the table's own content has been found to match. */
export interface CarriedTable {
	readonly style: string;
	readonly roles: Table['roles'];
	readonly columns: Table['columnInfo'];
	readonly firstColumns: number;
	readonly lastColumns: number;
	readonly partsOff: readonly string[];
	readonly carry: Table['carry'];
	readonly touches: Table['touches'];
}

/** A table as it stands in a document. */
export interface DocumentTable {
	/** From 0, in document order. */
	readonly index: number;
	readonly place: TablePlace;
	readonly table: Table;
	readonly recognition: Recognition;
	/** How it looks in the file. */
	readonly appearance: Appearance;
	readonly widths: readonly Emu[];
	/** Per cell of the grid. */
	readonly content: readonly (readonly CellContent[])[];
	/** The name of the table style that the file gives it, if any. */
	readonly wornName: string | null;
	/** The house style it wears, where the file carries it. */
	readonly carried: CarriedTable | null;
	/** Cells that the file protects against typing, by index. */
	readonly locked?: readonly number[];
	/** What its rows say of themselves, where the document was read for a new file. */
	readonly rowFacts?: readonly RowFacts[];
	/** What the table bench knows of it beside all this: formulas, locks, sizes. */
	readonly work?: WorkTable;
}

/** What a new file is made of. */
export interface WholeDocument {
	readonly blocks: readonly Block[];
	readonly tables: readonly DocumentTable[];
	/** As BCP 47 writes it. */
	readonly language?: string | undefined;
	readonly title?: string | undefined;
}

/** Where the blocks of a document stand in its main part, by offsets in the source. */
export interface BlockPlace {
	readonly start: number;
	readonly end: number;
}

/** A document opened for reading and, through its format's writer, for writing. */
export interface OpenDocument extends WholeDocument {
	/** Of its format. */
	readonly kind: string;
	/** Where each block stands in the main part, for formats in which new tables can be put between them. */
	readonly blockPlaces?: readonly BlockPlace[];
	/** House styles that ride along in the file. */
	readonly styles: readonly Style[];
	/** What a person should know of the file before writing it: signed, macros. */
	readonly remarks: readonly string[];
	/** The same where they hold only for the file itself, written again: what is signed, what stays in it. */
	readonly ownRemarks?: readonly string[];
	/** What it holds beside text and tables, or some of its tables do. */
	readonly held?: (only?: readonly number[]) => Held;
	/** All of it that a new file can hold: pictures, lists, notes, links and emphasis, facts of rows, title, language. */
	readonly whole?: () => Promise<WholeDocument>;
}
