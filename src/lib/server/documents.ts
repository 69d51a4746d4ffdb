import { createHash } from 'node:crypto';
import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../core/errors.ts';
import { readDocx, type DocxDocument } from '../formats/docx/read.ts';
import type { Account, StyleJob, Travel } from '../formats/account.ts';
import { writeDocx } from '../formats/docx/write.ts';
import { openDocument } from '../formats/index.ts';
import { EMPTY_STATE, type DocumentState, type TableState } from '../workbench/state.ts';
import { stateTable } from '../workbench/table.ts';
import { ConflictError, NotFoundError } from './answers.ts';
import { isUuid } from './requests.ts';
import type { Database } from './database.ts';
import { Wardrobe } from './editions.ts';
import { loadHouse } from './house.ts';
import { findIn, importStyle, listStyles } from './styles.ts';

type Db = Kysely<Database> | Transaction<Database>;

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
	readonly updatedAt: string;
}

/** Opened documents by content: reading a file again costs nothing while somebody works on it. */
const opened = new Map<string, DocxDocument>();
const OPENED_MAX = 8;

function remember(hash: string, document: DocxDocument): DocxDocument {
	opened.delete(hash);
	opened.set(hash, document);
	if (opened.size > OPENED_MAX) opened.delete(opened.keys().next().value!);
	return document;
}

async function fileBytes(db: Db, hash: string): Promise<Uint8Array<ArrayBuffer>> {
	const { bytes } = await db.selectFrom('files').select('bytes').where('hash', '=', hash).executeTakeFirstOrThrow();
	return new Uint8Array(bytes);
}

async function open(db: Db, hash: string): Promise<DocxDocument> {
	const known = opened.get(hash);
	return remember(hash, known ?? (await readDocx(await fileBytes(db, hash))));
}

/** How many really different looks these tables have: same fills, inks, type and lines count as one. */
function countLooks(document: DocxDocument): number {
	return new Set(
		document.tables.map(({ appearance }) => {
			const looks = [
				...new Set(
					appearance.looks.map(({ fill, family, size, ink, weight, italic }) =>
						JSON.stringify([fill, family, size, ink, weight, italic])
					)
				)
			].sort();
			const lines = [...new Set(appearance.lines.map((line) => JSON.stringify(line)))].sort();
			return JSON.stringify([looks, lines]);
		})
	).size;
}

/** Takes a file in: read first, stored only when it can be read, all in one transaction. */
export async function addDocument(
	db: Kysely<Database>,
	name: string,
	bytes: Uint8Array<ArrayBuffer>
): Promise<{ id: string; imported: string[] }> {
	const document = await openDocument(bytes, name);
	if (document.tables.length === 0)
		throw new InputError(
			'no-table',
			`“${name}” holds no table, so there is nothing to style in it. It was not added.`,
			name
		);
	const hash = createHash('sha256').update(bytes).digest('hex');
	const imported: string[] = [];
	const ids = new Map<string, string>();
	const before = new Set((await listStyles(db)).map(({ definition }) => definition.name));
	for (const style of document.styles) {
		ids.set(style.name, await importStyle(db, style, { reuse: true }));
		if (!before.has(style.name)) imported.push(style.name);
	}
	const tables: Record<number, TableState> = {};
	for (const { index, carried } of document.tables) {
		const style = carried && ids.get(carried.style);
		if (style) tables[index] = { style };
	}
	const id = await db.transaction().execute(async (trx) => {
		await trx
			.insertInto('files')
			.values({ hash, bytes: Buffer.from(bytes) })
			.onConflict((conflict) => conflict.column('hash').doNothing())
			.execute();
		const row = await trx
			.insertInto('documents')
			.values({
				name: name.replace(/\.docx$/i, ''),
				kind: document.kind,
				file_hash: hash,
				tables: document.tables.length,
				findings: document.tables.reduce((sum, { recognition }) => sum + recognition.findings.length, 0),
				looks: countLooks(document),
				step: 0
			})
			.returning('id')
			.executeTakeFirstOrThrow();
		await trx
			.insertInto('document_steps')
			.values({ document_id: row.id, step: 0, label: 'as it came', state: JSON.stringify({ tables }) })
			.execute();
		await recordWears(trx, row.id, { tables });
		return row.id;
	});
	remember(hash, document);
	return { id, imported };
}

async function recordWears(trx: Transaction<Database>, id: string, state: DocumentState): Promise<void> {
	await trx.deleteFrom('wears').where('document_id', '=', id).execute();
	const rows = Object.entries(state.tables).flatMap(([index, { style, edition = null }]) =>
		style ? [{ document_id: id, table_index: Number(index), style_id: style, edition }] : []
	);
	if (rows.length) await trx.insertInto('wears').values(rows).execute();
}

export async function listDocuments(db: Db): Promise<DocumentSummary[]> {
	const rows = await db
		.selectFrom('documents')
		.selectAll('documents')
		.select((eb) =>
			eb
				.selectFrom('wears')
				.select(eb.fn.countAll<string>().as('n'))
				.whereRef('wears.document_id', '=', 'documents.id')
				.as('styled')
		)
		.orderBy('updated_at', 'desc')
		.orderBy('name')
		.execute();
	return rows.map(({ id, name, kind, tables, styled, looks, findings, updated_at }) => ({
		id,
		name,
		kind,
		tables,
		styled: Number(styled ?? 0),
		looks,
		findings,
		updatedAt: updated_at.toISOString()
	}));
}

async function row(db: Db, id: string) {
	const document = await db.selectFrom('documents').selectAll().where('id', '=', id).executeTakeFirst();
	if (!document) throw new NotFoundError('This document is no longer here.');
	return document;
}

export interface StepInfo {
	readonly step: number;
	readonly label: string;
}

async function stepsOf(db: Db, id: string): Promise<StepInfo[]> {
	return db
		.selectFrom('document_steps')
		.select(['step', 'label'])
		.where('document_id', '=', id)
		.orderBy('step')
		.execute();
}

export async function stateAt(db: Db, id: string, step: number): Promise<DocumentState> {
	const found = await db
		.selectFrom('document_steps')
		.select('state')
		.where('document_id', '=', id)
		.where('step', '=', step)
		.executeTakeFirst();
	if (!found) throw new InputError('step', `The document has no step ${step}.`);
	return found.state ?? EMPTY_STATE;
}

/** A document with its file read and the state that it stands at. */
export async function openById(db: Db, id: string) {
	const { name, step, file_hash } = await row(db, id);
	return { name, document: await open(db, file_hash), state: await stateAt(db, id, step) };
}

/** Everything that the document view shows. */
export async function loadDocument(db: Db, id: string) {
	const { name, kind, step, file_hash } = await row(db, id);
	const document = await open(db, file_hash);
	return {
		id,
		name,
		kind,
		step,
		steps: await stepsOf(db, id),
		state: await stateAt(db, id, step),
		blocks: document.blocks,
		tables: document.tables,
		remarks: document.remarks
	};
}

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

async function specimensOf(db: Db, most: number, ids?: readonly string[]) {
	if (ids?.length === 0) return [];
	const documents = await db
		.selectFrom('documents')
		.selectAll()
		.$if(!!ids, (query) => query.where('id', 'in', ids!))
		.orderBy('created_at')
		.limit(most)
		.execute();
	const specimens = [];
	for (const { id, name, step, file_hash } of documents) {
		const document = await open(db, file_hash);
		const state = await stateAt(db, id, step);
		for (const entry of document.tables)
			if (entry.place.where !== 'nested')
				specimens.push({ key: `${id}/${entry.index}`, document: name, entry, state: state.tables[entry.index] });
	}
	return specimens;
}

/** Every table of the house's documents that can stand on a specimen sheet. */
export async function listSpecimens(db: Db): Promise<SpecimenChoice[]> {
	return (await specimensOf(db, 200)).map(({ key, document, entry, state }) => ({
		key,
		document,
		title: entry.place.caption ?? `table ${entry.index + 1}`,
		rows: entry.table.rows,
		columns: entry.table.columns,
		style: state?.style ?? null
	}));
}

/** The tables with these keys, in that order; without keys, the `most` with the largest variety of rows. */
export async function loadSpecimens(db: Db, most: number, keys?: readonly string[] | null) {
	if (keys) {
		const chosen = await specimensOf(db, 12, [...new Set(keys.map((key) => key.split('/')[0]!).filter(isUuid))]);
		return keys.flatMap((key) => chosen.find((specimen) => specimen.key === key) ?? []);
	}
	const specimens = await specimensOf(db, 12);
	const variety = ({ entry: { table } }: (typeof specimens)[number]) =>
		new Set(table.roles).size * 10 + Math.min(table.columns, 9) - (table.rows > 20 ? 30 : 0);
	return specimens.sort((a, b) => variety(b) - variety(a)).slice(0, most);
}

/** Saves a new step after the one that the editor saw; steps that were undone before it are gone. */
export async function addStep(
	db: Kysely<Database>,
	id: string,
	after: number,
	label: string,
	tables: Record<number, TableState>
) {
	return db.transaction().execute(async (trx) => {
		const document = await trx.selectFrom('documents').selectAll().where('id', '=', id).forUpdate().executeTakeFirst();
		if (!document) throw new NotFoundError('This document is no longer here.');
		if (document.step !== after)
			throw new ConflictError(
				'This document was changed in another window in the meantime. Load it again to see what is there now.',
				{ step: document.step }
			);
		for (const index of Object.keys(tables))
			if (Number(index) >= document.tables)
				throw new InputError(
					'request',
					`There is no table ${Number(index) + 1}: the document has ${document.tables}.`,
					'/tables'
				);
		const state: DocumentState = { tables: { ...(await stateAt(trx, id, after)).tables, ...tables } };
		const step = after + 1;
		await trx.deleteFrom('document_steps').where('document_id', '=', id).where('step', '>=', step).execute();
		await trx
			.insertInto('document_steps')
			.values({ document_id: id, step, label, state: JSON.stringify(state) })
			.execute();
		await goTo(trx, id, step, state);
		return { step, state, steps: await stepsOf(trx, id) };
	});
}

export async function goTo(trx: Transaction<Database>, id: string, step: number, state: DocumentState): Promise<void> {
	const known = new Set((await trx.selectFrom('styles').select('id').execute()).map((style) => style.id));
	for (const { style } of Object.values(state.tables))
		if (style && !known.has(style))
			throw new InputError('request', 'One of the styles is no longer in the Stylebook.', '/tables');
	await trx
		.updateTable('documents')
		.set({ step, updated_at: sql`now()` })
		.where('id', '=', id)
		.execute();
	await recordWears(trx, id, state);
}

/** Undo and redo: moves to another step that exists. */
export async function moveToStep(db: Kysely<Database>, id: string, from: number, to: number) {
	return db.transaction().execute(async (trx) => {
		const document = await trx
			.selectFrom('documents')
			.select('step')
			.where('id', '=', id)
			.forUpdate()
			.executeTakeFirst();
		if (!document) throw new NotFoundError('This document is no longer here.');
		if (document.step !== from)
			throw new ConflictError(
				'This document was changed in another window in the meantime. Load it again to see what is there now.',
				{ step: document.step }
			);
		const state = await stateAt(trx, id, to);
		await goTo(trx, id, to, state);
		return { step: to, state, steps: await stepsOf(trx, id) };
	});
}

/** Removes a document and, where no other holds the same file, its bytes. */
export async function removeDocument(db: Kysely<Database>, id: string): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const { file_hash } = await row(trx, id);
		await trx.deleteFrom('documents').where('id', '=', id).execute();
		await trx
			.deleteFrom('files')
			.where('hash', '=', file_hash)
			.where(({ not, exists, selectFrom }) =>
				not(exists(selectFrom('documents').select('id').where('file_hash', '=', file_hash)))
			)
			.execute();
	});
}

/** Writes the document as it stands: every table that wears a style, everything else as it came. */
export async function writeDocument(
	db: Kysely<Database>,
	id: string,
	as: Travel = 'living'
): Promise<{ name: string; bytes: Uint8Array<ArrayBuffer>; account: Account }> {
	const { name, step, file_hash } = await row(db, id);
	const document = await open(db, file_hash);
	const state = await stateAt(db, id, step);
	const wardrobe = await Wardrobe.load(db);
	const jobs = document.tables.flatMap((entry): StyleJob[] => {
		const own = state.tables[entry.index];
		const style = own && wardrobe.definition(own);
		return style ? [{ index: entry.index, table: stateTable(entry, own), style }] : [];
	});
	if (jobs.length === 0)
		return { name, bytes: await fileBytes(db, file_hash), account: { tables: [], remarks: document.remarks } };
	const { bytes, account } = await writeDocx(document, jobs, {
		house: await loadHouse(db),
		find: findIn(wardrobe.styles),
		as
	});
	return { name, bytes, account };
}
