import { sql } from 'kysely';
import { packTable } from '../../workbench/packed.ts';
import { openAt } from './open.ts';
import { documentRow, stateAt, stepsOf, type Db } from './rows.ts';

export interface DocumentSummary {
	readonly id: string;
	readonly name: string;
	readonly kind: string;
	readonly tables: number;
	/** How many of its tables wear a house style. */
	readonly styled: number;
	/** How many different looks its tables had as the file came. */
	readonly looks: number;
	readonly findings: number;
	/** How many changes the schedules of a drawing are behind its objects. */
	readonly behind: number;
	/** Names of the house styles that its tables wear. */
	readonly wears: readonly string[];
	/** The text of its tables, lower case. */
	readonly words: string;
	readonly archived: boolean;
	readonly updatedAt: string;
}

export async function listDocuments(db: Db): Promise<DocumentSummary[]> {
	const rows = await db
		.selectFrom('documents')
		.leftJoin('wears', 'wears.document_id', 'documents.id')
		.leftJoin('styles', 'styles.id', 'wears.style_id')
		.where('removed_at', 'is', null)
		.groupBy('documents.id')
		.selectAll('documents')
		.select(({ fn }) => [
			fn.count<string>('wears.table_index').as('styled'),
			sql<string[]>`coalesce(array_agg(distinct styles.name) filter (where styles.name is not null), '{}')`.as('names')
		])
		.orderBy('documents.updated_at', 'desc')
		.orderBy('documents.name')
		.execute();
	return rows.map(
		({ id, name, kind, tables, styled, names, looks, findings, behind, words, archived_at, updated_at }) => ({
			id,
			name,
			kind,
			tables,
			styled: Number(styled),
			wears: names,
			looks,
			findings,
			behind,
			words,
			archived: archived_at !== null,
			updatedAt: updated_at.toISOString()
		})
	);
}

/** Everything that the document view shows. */
export async function loadDocument(db: Db, id: string) {
	const found = await documentRow(db, id);
	const { name, step, version } = found;
	const state = await stateAt(db, id, step);
	const document = await openAt(db, found, state);
	return {
		id,
		name,
		kind: document.kind,
		step,
		version,
		steps: await stepsOf(db, id),
		state,
		blocks: document.blocks,
		tables: document.kind === 'csv' ? document.tables.map(packTable) : document.tables,
		remarks: [...document.remarks, ...(document.ownRemarks ?? [])]
	};
}
