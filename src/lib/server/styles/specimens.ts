import { createHash } from 'node:crypto';
import { contentKey } from '../../formats/carried.ts';
import type { AnyDocument } from '../../formats/index.ts';
import type { DocumentTable } from '../../formats/document.ts';
import type { DocumentState } from '../../workbench/state.ts';
import { wellFormed } from '../../core/well-formed.ts';
import { openAt } from '../documents/open.ts';
import { stateAt, type Db } from '../documents/rows.ts';
import { isUuid } from '../http/requests.ts';

/** What of a table a person chooses a specimen by. */
export interface SpecimenChoice {
	readonly key: string;
	readonly document: string;
	readonly title: string;
	readonly rows: number;
	readonly columns: number;
	/** Id of the style it wears. */
	readonly style: string | null;
}

const CHOSEN_FROM = 12;
const LISTED_FROM = 200;
const hash = (text: string): string => createHash('sha256').update(text).digest('hex');

/** What tables of a document are made of: as long as it is the same, so are they, whatever they wear. */
function madeOf(file: string, { tables, added, gone, drawing, file: newer }: DocumentState): string {
	const works = Object.entries(tables).flatMap(([index, { work }]) => (work === undefined ? [] : [[index, work]]));
	return hash(JSON.stringify([newer ?? file, works, added, gone, drawing]));
}

const textHash = ({ table }: DocumentTable): string =>
	hash(contentKey({ ...table, cells: table.cells.map((cell) => ({ ...cell, text: cell.text.trim() })) }));
/** Rows of many roles make a better specimen, columns too; a long table is a poor one. */
const varietyOf = ({ table }: DocumentTable): number =>
	new Set(table.roles).size * 10 + Math.min(table.columns, 9) - (table.rows > 20 ? 30 : 0);

/** Keeps what the tables of a document are chosen by. */
export async function recordSpecimens(
	db: Db,
	id: string,
	file: string,
	state: DocumentState,
	document: AnyDocument
): Promise<void> {
	const rows = document.tables
		.filter(({ place }) => place.where !== 'nested')
		.map((entry) => ({
			document_id: id,
			table_index: entry.index,
			title: wellFormed(entry.place.caption ?? `table ${entry.index + 1}`),
			rows: entry.table.rows,
			columns: entry.table.columns,
			variety: varietyOf(entry),
			text_hash: textHash(entry)
		}));
	await db.deleteFrom('specimens').where('document_id', '=', id).execute();
	const AT_ONCE = 1_000;
	for (let from = 0; from < rows.length; from += AT_ONCE)
		await db
			.insertInto('specimens')
			.values(rows.slice(from, from + AT_ONCE))
			.onConflict((conflict) => conflict.doNothing())
			.execute();
	await db
		.updateTable('documents')
		.set({ specimens_of: madeOf(file, state) })
		.where('id', '=', id)
		.execute();
}

/** The oldest documents of the house, up to `most`, with the state that each stands at; their specimens are up to date then. */
async function documentsWith(db: Db, most: number) {
	const documents = await db
		.selectFrom('documents')
		.select(['id', 'name', 'kind', 'file_hash', 'step', 'specimens_of'])
		.where('removed_at', 'is', null)
		.orderBy('created_at')
		.limit(most)
		.execute();
	const found = new Map<string, { name: string; state: DocumentState }>();
	for (const document of documents) {
		const { id, name, step, file_hash } = document;
		const state = await stateAt(db, id, step);
		found.set(id, { name, state });
		if (document.specimens_of !== madeOf(file_hash, state))
			await recordSpecimens(db, id, file_hash, state, await openAt(db, document, state));
	}
	return found;
}
const specimensIn = async (db: Db, ids: readonly string[]) =>
	ids.length
		? db
				.selectFrom('specimens')
				.selectAll()
				.where('document_id', 'in', [...ids])
				.orderBy('table_index')
				.execute()
		: [];

/** Every table of the house's documents that can stand on a specimen sheet. */
export async function listSpecimens(db: Db): Promise<SpecimenChoice[]> {
	const documents = await documentsWith(db, LISTED_FROM);
	const byDocument = new Map<string, Awaited<ReturnType<typeof specimensIn>>>();
	for (const specimen of await specimensIn(db, [...documents.keys()]))
		byDocument.set(specimen.document_id, [...(byDocument.get(specimen.document_id) ?? []), specimen]);
	return [...documents].flatMap(([id, { name, state }]) =>
		(byDocument.get(id) ?? []).map(({ table_index, title, rows, columns }) => ({
			key: `${id}/${table_index}`,
			document: name,
			title,
			rows,
			columns,
			style: state.tables[table_index]?.style ?? null
		}))
	);
}

/** The tables with these keys, in that order; without keys, the `most` with the largest variety of rows. */
export async function loadSpecimens(db: Db, most: number, keys?: readonly string[] | null) {
	return tablesAt(db, keys ?? (await bestOf(db, most)));
}

async function bestOf(db: Db, most: number): Promise<string[]> {
	const documents = await documentsWith(db, CHOSEN_FROM);
	const order = [...documents.keys()];
	const all = (await specimensIn(db, order)).sort(
		(a, b) => order.indexOf(a.document_id) - order.indexOf(b.document_id) || a.table_index - b.table_index
	);
	// A table that stands in several documents stands on the sheet once.
	const distinct = new Map(all.map((specimen) => [specimen.text_hash, specimen]));
	const sorted = [...distinct.values()].sort((a, b) => b.variety - a.variety);
	// One place is for another document, where there is one.
	const perDocument = new Map<string, number>();
	return sorted
		.filter(({ document_id }) => {
			const count = (perDocument.get(document_id) ?? 0) + 1;
			perDocument.set(document_id, count);
			return most === 1 || count < most;
		})
		.slice(0, most)
		.map(({ document_id, table_index }) => `${document_id}/${table_index}`);
}

/** Tables by their keys; only the documents that they are of are opened. */
async function tablesAt(db: Db, keys: readonly string[]) {
	const ids = [...new Set(keys.map((key) => key.split('/')[0]!).filter(isUuid))];
	if (!ids.length) return [];
	const documents = await db
		.selectFrom('documents')
		.select(['id', 'name', 'kind', 'file_hash', 'step'])
		.where('removed_at', 'is', null)
		.where('id', 'in', ids)
		.execute();
	const specimens = new Map<
		string,
		{ key: string; document: string; entry: DocumentTable; state: DocumentState['tables'][number] | undefined }
	>();
	for (const found of documents) {
		const { id, name, step } = found;
		const state = await stateAt(db, id, step);
		for (const entry of (await openAt(db, found, state)).tables)
			if (entry.place.where !== 'nested') {
				const key = `${id}/${entry.index}`;
				specimens.set(key, { key, document: name, entry, state: state.tables[entry.index] });
			}
	}
	return keys.flatMap((key) => specimens.get(key) ?? []);
}
