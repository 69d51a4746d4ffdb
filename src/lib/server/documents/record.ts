import { sql, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { RowChange } from '../../core/schedule/difference.ts';
import type { DrawingObject } from '../../core/schedule/objects.ts';
import type { PlacedTable } from '../../core/schedule/placed.ts';
import type { SheetFacts } from '../../core/schedule/rows.ts';
import { sheetFacts, type SvgDocument } from '../../formats/svg/read.ts';
import { changesOf, rowsNow } from '../../workbench/schedules.ts';
import type { DocumentState } from '../../workbench/state.ts';
import type { Database } from '../database.ts';
import { NotFoundError } from '../http/answers.ts';
import { openAt, openById, wordsOf } from './open.ts';
import { documentRow, type Db } from './rows.ts';

export async function recordWears(trx: Transaction<Database>, id: string, state: DocumentState): Promise<void> {
	await trx.deleteFrom('wears').where('document_id', '=', id).execute();
	const rows = Object.entries(state.tables).flatMap(([index, { style, edition = null }]) =>
		style ? [{ document_id: id, table_index: Number(index), style_id: style, edition }] : []
	);
	if (rows.length) await trx.insertInto('wears').values(rows).execute();
	await trx.updateTable('documents').set({ styled: rows.length }).where('id', '=', id).execute();
}

/** A drawing that is here, as it stands. Throws NotFoundError where it is none. */
export async function openDrawing(db: Db, id: string) {
	const { found, name, document, state } = await openById(db, id);
	if (document.kind !== 'svg') throw new NotFoundError(`“${name}” is no drawing.`);
	return { found, name, document, state };
}

/** The objects that a placed table lists: those of its drawing, and of others where it says so. */
export async function listedObjects(
	db: Db,
	document: SvgDocument,
	name: string,
	{ source }: PlacedTable
): Promise<{ objects: readonly DrawingObject[]; facts: SheetFacts }> {
	const facts = sheetFacts(document, name);
	const others = source.from === 'objects' ? (source.with ?? []) : [];
	if (!others.length) return { objects: document.found.objects, facts };
	const objects: DrawingObject[] = [...document.found.objects];
	const names = new Map(facts.names);
	for (const { id } of others) {
		const other = await openDrawing(db, id).catch((error) => {
			// A drawing that was removed since has no objects any more.
			if (error instanceof NotFoundError) return undefined;
			throw error;
		});
		if (!other) continue;
		for (const object of other.document.found.objects)
			objects.push({ ...object, key: `${id}/${object.key}`, drawing: other.name });
		for (const { kind, name: called } of other.document.kinds) if (!names.has(kind)) names.set(kind, called);
	}
	return { objects, facts: { ...facts, names } };
}

/** For each table on a sheet, what it is behind its drawing; a schedule that cannot be made says why. */
export async function changesIn(
	db: Db,
	document: SvgDocument,
	name: string
): Promise<{ changes: readonly RowChange[]; problem?: string }[]> {
	const found = [];
	for (const placed of document.placed) {
		const { objects, facts } = await listedObjects(db, document, name, placed);
		try {
			found.push({ changes: changesOf(placed, rowsNow(placed, objects, facts)) });
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			found.push({ changes: [], problem: error.message });
		}
	}
	return found;
}

/** What the list of documents says of a drawing. */
export async function recordDrawing(trx: Transaction<Database>, id: string, document: SvgDocument): Promise<void> {
	const { name } = await documentRow(trx, id);
	const behind = (await changesIn(trx, document, name)).reduce((sum, { changes }) => sum + changes.length, 0);
	await trx
		.updateTable('documents')
		.set({ behind, tables: document.tables.length, words: wordsOf(document) })
		.where('id', '=', id)
		.execute();
}

/** Drawings that list objects of one that changed are looked at again. */
export async function recordFollowers(trx: Transaction<Database>, id: string): Promise<void> {
	const followers = await trx
		.selectFrom('documents')
		.innerJoin('document_steps', (join) =>
			join.onRef('document_steps.document_id', '=', 'documents.id').onRef('document_steps.step', '=', 'documents.step')
		)
		.select(['documents.id', 'documents.kind', 'documents.file_hash', 'state'])
		.where('removed_at', 'is', null)
		.where('documents.id', '!=', id)
		.where(
			sql<boolean>`jsonb_path_exists(state, '$.drawing.placed[*].source.with[*] ? (@.id == $id)', jsonb_build_object('id', ${id}::text))`
		)
		.execute();
	for (const found of followers) {
		const document = await openAt(trx, found, found.state);
		if (document.kind === 'svg') await recordDrawing(trx, found.id, document);
	}
}
