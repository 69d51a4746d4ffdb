/** What is known of a format without its code, so that a browser can know it, too. */
export interface About {
	readonly kind: string;
	/** Endings of its files; the first is the usual one. */
	readonly endings: readonly string[];
	readonly mediaType: string;
	/** What a document of it is called in a list. */
	readonly words: string;
	/** What it is called where a file can be taken in it. */
	readonly out: string;
	/** Whether files of it come in. */
	readonly opens: boolean;
	/** Headings and text around its tables, between which others can be put. */
	readonly holdsText?: boolean;
	/** It has living styles beside direct formatting, and a choice between them. */
	readonly travels?: boolean;
	/** Nothing but rows: no looks. */
	readonly isRows?: boolean;
	/** A sheet on which tables are placed. */
	readonly isDrawing?: boolean;
	/** What its files end in where that is more than an ending. */
	readonly nameEnding?: string;
}
