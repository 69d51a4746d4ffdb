import type { Transaction } from 'kysely';
import { isLeftOut } from '../../../core/recognise/purpose/kinds.ts';
import type { AnyDocument } from '../../../formats/index.ts';
import type { DocumentTable } from '../../../formats/document.ts';
import type { DocumentState, TableState } from '../../../workbench/state.ts';
import { purposeOf } from '../../../workbench/table.ts';
import type { Database, RunBefore, RunSettings } from '../../database.ts';

/** What a run says of itself, for all its documents. */
export interface RunFacts {
	readonly style_id: string | null;
	readonly style_name: string;
	readonly edition: number | null;
	readonly settings: RunSettings;
}

/** A document of a run, as it stands; nobody else changes it meanwhile. */
export interface RunDocument {
	readonly id: string;
	readonly name: string;
	readonly document: AnyDocument;
	readonly state: DocumentState;
	/** Only these of its tables; null: those that the run takes by itself. */
	readonly only: readonly number[] | null;
}

/** What becomes of a document: tables that are changed, and of a drawing more. */
export type Change = Pick<DocumentState, 'drawing'> & { readonly tables: Record<number, TableState> };

/** One thing that a run can do to documents, and take back. */
export interface Deed {
	/** What the step of a document is called. */
	label(run: RunFacts): string;
	/** What changes, what was there before, and how many tables that are; nothing in it where nothing is to be done. */
	do(
		trx: Transaction<Database>,
		run: RunFacts,
		of: RunDocument
	): Promise<{ readonly change?: Change; readonly before: RunBefore; readonly tables: number }>;
	/** What puts back what is still as the run left it; undefined where nothing is. */
	back(state: DocumentState, before: RunBefore, run: RunFacts): Change | undefined;
}

/** The tables of a document that a run is for. */
export const tablesOfRun = (
	{ only, document, state }: Pick<RunDocument, 'only' | 'document' | 'state'>,
	{ takesAll }: RunSettings
): DocumentTable[] =>
	only
		? only.flatMap((index) => document.tables[index] ?? [])
		: document.tables.filter((entry) => takesAll || !isLeftOut(purposeOf(entry, state.tables[entry.index])));
