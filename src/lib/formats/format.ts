import type { Paper } from '../core/layout/paper.ts';
import type { About } from './about.ts';
import type { OpenDocument } from './document.ts';
import type { HeldKind } from './held.ts';
import type { Flow } from './flow.ts';
import type { StyleJob, WriteOptions } from './job.ts';
import type { RowRewriting } from './row-cells.ts';
import type { Written } from './tally.ts';

/** The beginning of a file, for telling what it is. */
export interface Head {
	readonly bytes: Uint8Array;
	/** One character a byte. */
	readonly latin1: string;
	/** As text in the encoding that it seems to have. */
	readonly text: string;
	/** It is a zip package. */
	readonly isPackage: boolean;
}

export interface WriteAsOptions extends WriteOptions {
	/** What the document is called. */
	readonly title: string;
	/** Only these tables, in a new file; by index. */
	readonly only?: readonly number[] | undefined;
	/** What a report is printed on. */
	readonly paper?: Paper | undefined;
}

/** A new file to be made of a document, or of some of its tables. */
export interface Making {
	readonly document: OpenDocument;
	/** What goes into it, in order. */
	readonly flow: Flow;
	/** What its tables are to wear, by their index in the document. */
	readonly jobs: readonly StyleJob[];
	readonly options: WriteAsOptions;
}

/** A format: what it is, and what is done with files of it. What it cannot do is absent. */
export interface Format<D extends OpenDocument = OpenDocument> extends About {
	/** How likely a file is one of it, 0 (it is none) to 9; its ending speaks for it, too (see {@link NAMED}). */
	sniff?(head: Head, isNamed: boolean): number;
	/** Throws InputError saying what is wrong, where, and what to do. */
	open?(bytes: Uint8Array<ArrayBuffer>): D | Promise<D>;
	/** Gives styles to tables of a document of its own; everything else in the file stays as it came. */
	write?(document: D, jobs: readonly StyleJob[], options: WriteOptions): Written | Promise<Written>;
	/** Makes a new file of any document; without it, there is no such file (`whyNot`). */
	make?(making: Making): Written | Promise<Written>;
	/** A new file of it holds links and pictures of cells. */
	readonly brings?: boolean;
	/** What of that it does not hold. */
	readonly leaves?: readonly HeldKind[];
	/** Why a new file of it cannot be made, as a sentence. */
	whyNot?(isPart: boolean): string;
	/** The file with some tables as they were worked on, new ones, and without others. */
	rewriteRows?(document: D, rewriting: RowRewriting): Uint8Array<ArrayBuffer> | Promise<Uint8Array<ArrayBuffer>>;
	/** The same without a file to rewrite: where a document is nothing but its tables. */
	rework?(document: D, works: Parameters<Reworks>[1], gone: readonly number[]): D;
}
type Reworks = (
	document: OpenDocument,
	works: ReadonlyMap<number, import('../core/work/table.ts').WorkTable>
) => OpenDocument;

/** What an ending counts for a format: more than looks that others share, less than a mark that only it has. */
export const NAMED = 4;
