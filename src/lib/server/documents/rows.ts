import type { Kysely, Transaction } from 'kysely';
import { EMPTY_STATE, type DocumentState } from '../../workbench/state.ts';
import { readState } from '../../workbench/stored.ts';
import type { Database } from '../database.ts';
import { History, LOAD_AGAIN, type StepInfo } from '../history.ts';
import { NotFoundError } from '../http/answers.ts';

export type Db = Kysely<Database> | Transaction<Database>;

export const GONE = 'This document is no longer here.';

/** The steps of documents, drawings among them. */
export const DOCUMENTS = new History<DocumentState | null>({
	owner: 'documents',
	steps: 'document_steps',
	of: 'document_id',
	state: 'state',
	unless: 'removed_at',
	gone: GONE,
	what: 'This document',
	then: LOAD_AGAIN
});

/** A document that is here. Throws NotFoundError where it is not. */
export async function documentRow(db: Db, id: string) {
	const document = await db
		.selectFrom('documents')
		// Not its words: they can be long, and are only searched.
		.select(['id', 'name', 'kind', 'file_hash', 'stands_on', 'tables', 'findings', 'looks', 'step', 'version'])
		.where('id', '=', id)
		.where('removed_at', 'is', null)
		.executeTakeFirst();
	if (!document) throw new NotFoundError(GONE);
	return document;
}

export const stepsOf = (db: Db, id: string): Promise<StepInfo[]> => DOCUMENTS.list(db, id);

export const stateAt = async (db: Db, id: string, step: number): Promise<DocumentState> =>
	readState((await DOCUMENTS.stateAt(db, id, step)) ?? EMPTY_STATE);
