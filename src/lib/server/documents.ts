import { createHash } from 'node:crypto';
import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../core/errors.ts';
import type { Account, StyleJob, Travel } from '../formats/account.ts';
import { contentKey } from '../formats/carried.ts';
import { bareName, openDocument, writeAs, type AnyDocument, type OutKind } from '../formats/index.ts';
import { corrected, correctionsIn, shapeOf } from '../workbench/corrections.ts';
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
	/** Names of the house styles that its tables wear. */
	readonly wears: readonly string[];
	/** The text of its tables, lower case. */
	readonly words: string;
	readonly archived: boolean;
	readonly updatedAt: string;
}

/** Opened documents by content: reading a file again costs nothing while somebody works on it. */
const opened = new Map<string, AnyDocument>();
const OPENED_MAX = 8;

function remember(hash: string, document: AnyDocument): AnyDocument {
	opened.delete(hash);
	opened.set(hash, document);
	if (opened.size > OPENED_MAX) opened.delete(opened.keys().next().value!);
	return document;
}

async function fileBytes(db: Db, hash: string): Promise<Uint8Array<ArrayBuffer>> {
	const { bytes } = await db.selectFrom('files').select('bytes').where('hash', '=', hash).executeTakeFirstOrThrow();
	return new Uint8Array(bytes);
}

async function open(db: Db, { file_hash: hash, kind }: { file_hash: string; kind: string }): Promise<AnyDocument> {
	const known = opened.get(`${kind} ${hash}`);
	return remember(`${kind} ${hash}`, known ?? (await openDocument(await fileBytes(db, hash), `document.${kind}`)));
}

/** As much text of a document's tables as is worth searching. */
const MOST_WORDS = 200_000;
function wordsOf({ tables }: AnyDocument): string {
	let words = '';
	for (const { table, place } of tables) {
		words += ` ${place.caption ?? ''}`;
		for (const { text } of table.cells) {
			if (words.length > MOST_WORDS) return words.toLowerCase();
			words += ` ${text}`;
		}
	}
	return words.replace(/\0/g, '').toLowerCase();
}

/** How many really different looks these tables have: same fills, inks, type and lines count as one. */
function countLooks(document: AnyDocument): number {
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

/** Corrections of tables of the same shape count for new ones, too; what a file carries itself is not touched. */
async function takeCorrections(db: Db, document: AnyDocument, tables: Record<number, TableState>): Promise<void> {
	const shapes = new Map(document.tables.map((entry) => [entry.index, shapeOf(entry.table)]));
	const known = await db
		.selectFrom('corrections')
		.selectAll()
		.where('shape', 'in', [...new Set(shapes.values())])
		.execute();
	const byShape = new Map(known.map(({ shape, said }) => [shape, said]));
	for (const { index, table, carried } of document.tables) {
		const said = byShape.get(shapes.get(index)!);
		const own = said && !carried ? corrected(table, said) : {};
		if (Object.keys(own).length) tables[index] = { ...tables[index], ...own };
	}
}

/** Remembers what a person corrected about tables, for the next tables of their shapes. */
async function rememberCorrections(
	trx: Transaction<Database>,
	document: AnyDocument,
	changed: Readonly<Record<number, TableState>>
): Promise<void> {
	for (const [index, state] of Object.entries(changed)) {
		const { table } = document.tables[Number(index)]!;
		const said = correctionsIn(table, state);
		if (!said) continue;
		await trx
			.insertInto('corrections')
			.values({ shape: shapeOf(table), said: JSON.stringify(said) })
			.onConflict((conflict) => conflict.column('shape').doUpdateSet({ said: JSON.stringify(said) }))
			.execute();
	}
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
	await takeCorrections(db, document, tables);
	const id = await db.transaction().execute(async (trx) => {
		await trx
			.insertInto('files')
			.values({ hash, bytes: Buffer.from(bytes) })
			.onConflict((conflict) => conflict.column('hash').doNothing())
			.execute();
		const row = await trx
			.insertInto('documents')
			.values({
				name: bareName(name),
				kind: document.kind,
				file_hash: hash,
				tables: document.tables.length,
				findings: document.tables.reduce((sum, { recognition }) => sum + recognition.findings.length, 0),
				looks: countLooks(document),
				words: wordsOf(document),
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
	remember(`${document.kind} ${hash}`, document);
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
	return rows.map(({ id, name, kind, tables, styled, names, looks, findings, words, archived_at, updated_at }) => ({
		id,
		name,
		kind,
		tables,
		styled: Number(styled),
		wears: names,
		looks,
		findings,
		words,
		archived: archived_at !== null,
		updatedAt: updated_at.toISOString()
	}));
}

async function row(db: Db, id: string) {
	const document = await db
		.selectFrom('documents')
		.selectAll()
		.where('id', '=', id)
		.where('removed_at', 'is', null)
		.executeTakeFirst();
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
	const found = await row(db, id);
	return { name: found.name, document: await open(db, found), state: await stateAt(db, id, found.step) };
}

/** Everything that the document view shows. */
export async function loadDocument(db: Db, id: string) {
	const found = await row(db, id);
	const { name, step } = found;
	const document = await open(db, found);
	return {
		id,
		name,
		kind: document.kind,
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
		.where('removed_at', 'is', null)
		.$if(!!ids, (query) => query.where('id', 'in', ids!))
		.orderBy('created_at')
		.limit(most)
		.execute();
	const specimens = [];
	for (const found of documents) {
		const { id, name, step } = found;
		const document = await open(db, found);
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
	// A table that stands in several documents stands on the sheet once.
	const textKey = ({ entry: { table } }: (typeof specimens)[number]) =>
		contentKey({ ...table, cells: table.cells.map((cell) => ({ ...cell, text: cell.text.trim() })) });
	const distinct = new Map(specimens.map((specimen) => [textKey(specimen), specimen]));
	const sorted = [...distinct.values()].sort((a, b) => variety(b) - variety(a));
	// One place is for another document, where there is one.
	const perDocument = new Map<string, number>();
	return sorted
		.filter(({ document }) => {
			const count = (perDocument.get(document) ?? 0) + 1;
			perDocument.set(document, count);
			return most === 1 || count < most;
		})
		.slice(0, most);
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
		await rememberCorrections(trx, await open(trx, document), tables);
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

/** Puts a document aside, or back. */
export async function archiveDocument(db: Kysely<Database>, id: string, archived: boolean): Promise<void> {
	await row(db, id);
	await db
		.updateTable('documents')
		.set({ archived_at: archived ? sql<Date>`now()` : null })
		.where('id', '=', id)
		.execute();
}

/** Takes a document out; for a day it can be brought back. */
export async function removeDocument(db: Kysely<Database>, id: string): Promise<void> {
	await db.transaction().execute(async (trx) => {
		await row(trx, id);
		await trx
			.updateTable('documents')
			.set({ removed_at: sql<Date>`now()` })
			.where('id', '=', id)
			.execute();
		await trx.deleteFrom('wears').where('document_id', '=', id).execute();
	});
	await forgetRemoved(db);
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

/** Documents that were taken out a day ago go for good, and with the last one of a file its bytes. */
async function forgetRemoved(db: Kysely<Database>): Promise<void> {
	await db
		.deleteFrom('documents')
		.where('removed_at', '<', sql<Date>`now() - interval '1 day'`)
		.execute();
	await db
		.deleteFrom('files')
		.where(({ not, exists, selectFrom }) =>
			not(exists(selectFrom('documents').select('id').whereRef('file_hash', '=', 'files.hash')))
		)
		.execute();
}

/**
 * Writes the document as it stands: in its own format every table that wears a style, everything else as it came; in
 * another format a new file of its headings, text and tables.
 */
export async function writeDocument(
	db: Kysely<Database>,
	id: string,
	to?: OutKind,
	as: Travel = 'living'
): Promise<{ name: string; kind: OutKind; bytes: Uint8Array<ArrayBuffer>; account: Account }> {
	const found = await row(db, id);
	const document = await open(db, found);
	const { name } = found;
	const kind = to ?? document.kind;
	const state = await stateAt(db, id, found.step);
	const wardrobe = await Wardrobe.load(db);
	const jobs = document.tables.flatMap((entry): StyleJob[] => {
		const own = state.tables[entry.index];
		const style = own && wardrobe.definition(own);
		return style ? [{ index: entry.index, table: stateTable(entry, own), style }] : [];
	});
	if (jobs.length === 0 && kind === document.kind)
		return {
			name,
			kind,
			bytes: await fileBytes(db, found.file_hash),
			account: { tables: [], remarks: document.remarks }
		};
	const { bytes, account } = await writeAs(kind, document, jobs, {
		house: await loadHouse(db),
		find: findIn(wardrobe.styles),
		as,
		title: name
	});
	return { name, kind, bytes, account };
}
