import { sql, type Kysely } from 'kysely';
import { NotFoundError } from '../http/answers.ts';
import { addToLog } from '../house/log.ts';
import type { Database } from '../database.ts';
import { documentRow, DOCUMENTS, stateAt } from './rows.ts';
import { recordWears } from './record.ts';

/** Puts a document aside, or back. */
export async function archiveDocument(db: Kysely<Database>, id: string, archived: boolean): Promise<void> {
	await documentRow(db, id);
	await db
		.updateTable('documents')
		.set({ archived_at: archived ? sql<Date>`now()` : null })
		.where('id', '=', id)
		.execute();
}

/** Takes a document out, where it stands as it was `seen`; for a day it can be brought back. Throws NotFoundError, ConflictError. */
export async function removeDocument(db: Kysely<Database>, id: string, seen?: number): Promise<void> {
	await db.transaction().execute(async (trx) => {
		await DOCUMENTS.lock(trx, id, seen);
		const { name } = await documentRow(trx, id);
		await addToLog(trx, 'removal', `the document “${name}” was removed`);
		await trx
			.updateTable('documents')
			.set({ removed_at: sql<Date>`now()` })
			.where('id', '=', id)
			.execute();
		await trx.deleteFrom('wears').where('document_id', '=', id).execute();
	});
}

/** Brings back what was taken out. */
export async function bringBackDocument(db: Kysely<Database>, id: string): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const found = await trx
			.updateTable('documents')
			.set({ removed_at: null })
			.where('id', '=', id)
			.returning('step')
			.executeTakeFirst();
		if (!found) throw new NotFoundError('This document was taken out more than a day ago and is gone.');
		const known = new Set((await trx.selectFrom('styles').select('id').execute()).map((style) => style.id));
		const { tables } = await stateAt(trx, id, found.step);
		// A style that went in the meantime is worn by nobody any more.
		const kept = Object.entries(tables).filter(([, { style }]) => style === undefined || known.has(style));
		await recordWears(trx, id, { tables: Object.fromEntries(kept) });
	});
}
