/** Which corners a row can have: `corner:header-first` stands where a header row crosses the first column. */
export type CornerRow = 'header' | 'total';

/** One role of rows: what it is called, which parts rule it, and how its rows behave. Listed in `index.ts`. */
export interface Role<Family extends string = string, Levels extends boolean = boolean> {
	readonly family: Family;
	/** Rows of it are told apart by a number from 1 to {@link MOST_LEVELS}: `header:2`. */
	readonly levels: Levels;
	/** "header 2", "total": without the number. */
	readonly words: string;
	/** All of its rows, as a part that can be switched off: "groups". */
	readonly all: string;
	/** Its part: "header tier 2", "group heading 2"; without the number. */
	readonly part: {
		readonly words: string;
		readonly level: string;
		/** Which rows it rules. */ readonly rules: string;
	} | null;
	/** How a sentence about a style begins that speaks of its part: "group headings are". */
	readonly subject: string;
	/** Place inside rank IV (engine §4): a higher one wins over a lower one. 0 where it has no part. */
	readonly strength: number;
	/** The parts of columns (rank III) rule its cells, too. */
	readonly inColumns: boolean;
	/** Column bands (rank II) rule its cells, too. */
	readonly inColumnBands: boolean;
	/** Corners (rank V) that its rows have. */
	readonly corners: CornerRow | null;
	/** What it does to the count of row bands: counts, begins it anew (always, or where the style says so), or stands apart. */
	readonly banding: 'counts' | 'restarts' | 'restarts at groups' | 'apart';
	/** Its cells can hold figures of their column: they line up on the decimal mark and are formatted. */
	readonly holdsFigures: boolean;
	/** Its figures add up others: all body rows, or those of its block. */
	readonly sums: 'all' | 'block' | null;
	/** It names the columns; in files, it is a header row. */
	readonly isHeader: boolean;
	/** Belongs to the head of a table: stands at the top and again on each page. */
	readonly inHead: boolean;
	/** Stays on the page of the row after it, or of the row before it. */
	readonly keeps: 'with next' | 'with previous' | null;
	/** In a schedule its one text reaches across all columns. */
	readonly isAcross: boolean;
	/** Where it stays when a table reads upwards, whatever the other rows do. */
	readonly fixed: 'top' | 'foot' | null;
	/** What a new row beside one of it is: the same, or body. */
	readonly begets: 'itself' | 'body';
	/** How loud its label is in the gutter. */
	readonly tone: 'picked' | 'warning' | 'quiet' | 'hidden';
}

/** Tiers and levels run from 1 to this (engine §11). */
export const MOST_LEVELS = 9;

/** What most rows are that hold no figures of their own. */
export const PLAIN_ROLE = {
	levels: false,
	inColumns: true,
	inColumnBands: false,
	corners: null,
	banding: 'apart',
	holdsFigures: false,
	sums: null,
	isHeader: false,
	inHead: false,
	keeps: null,
	isAcross: false,
	fixed: null,
	begets: 'body',
	tone: 'quiet'
} as const satisfies Partial<Role>;

export const role = <const Family extends string, const Levels extends boolean>(
	definition: Role<Family, Levels>
): Role<Family, Levels> => definition;
