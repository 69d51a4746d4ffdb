import { createHash } from 'node:crypto';
import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../core/errors.ts';
import { withBench } from '../core/schedule/placed.ts';
import { bareName, openDocument, withWorks, type AnyDocument } from '../formats/index.ts';
import { withEdits } from '../formats/svg/read.ts';
import { corrected, correctionsIn, shapeOf } from '../workbench/corrections.ts';
import { packTable } from '../workbench/packed.ts';
import { EMPTY_STATE, type DocumentState, type DrawingState, type TableState } from '../workbench/state.ts';
import { ConflictError, NotFoundError } from './answers.ts';
import type { Database } from './database.ts';
import { recordDrawing, recordFollowers } from './drawings.ts';
import { importStyle, listStyles } from './styles.ts';
import { worksIn } from './work.ts';

export type Db = Kysely<Database> | Transaction<Database>;

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

/** Opened documents by content: reading a file again costs nothing while somebody works on it. */
const opened = new Map<string, AnyDocument>();
const OPENED_MAX = 8;

function remember(hash: string, document: AnyDocument): AnyDocument {
	opened.delete(hash);
	opened.set(hash, document);
	if (opened.size > OPENED_MAX) opened.delete(opened.keys().next().value!);
	return document;
}

export async function fileBytes(db: Db, hash: string): Promise<Uint8Array<ArrayBuffer>> {
	const { bytes } = await db.selectFrom('files').select('bytes').where('hash', '=', hash).executeTakeFirstOrThrow();
	return new Uint8Array(bytes);
}

async function openFile(db: Db, { file_hash: hash, kind }: { file_hash: string; kind: string }): Promise<AnyDocument> {
	const known = opened.get(`${kind} ${hash}`);
	return remember(`${kind} ${hash}`, known ?? (await openDocument(await fileBytes(db, hash), `document.${kind}`)));
}

/**
 * A document as it stands in a state: with its tables as they were worked on, and of a drawing with whatever else was
 * changed of it.
 */
export async function openAt(
	db: Db,
	found: { file_hash: string; kind: string },
	state: DocumentState
): Promise<AnyDocument> {
	const { drawing } = state;
	const document = await openFile(db, drawing?.file ? { ...found, file_hash: drawing.file } : found);
	const works = await worksIn(db, state);
	const tables = new Map([...works].map(([index, { work }]) => [index, work]));
	if (document.kind === 'svg') {
		const placed = drawing?.placed?.map((one, index) => {
			const work = one.source.from === 'bench' && tables.get(index);
			return work ? withBench(one, work) : one;
		});
		return withEdits(document, placed ? { ...drawing, placed } : drawing);
	}
	if (works.size === 0 && !state.gone?.length) return document;
	const settle = () => withWorks(document, tables, state.added, state.gone);
	const steps = [...works].map(([index, { step }]) => `${index}:${step}`).join();
	const key = `${found.kind} ${found.file_hash} ${steps} ${JSON.stringify([state.added, state.gone])}`;
	return remember(key, opened.get(key) ?? (await settle()));
}

/** As much text of a document's tables as is worth searching. */
const MOST_WORDS = 200_000;
export function wordsOf({ tables }: AnyDocument): string {
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
	bytes: Uint8Array<ArrayBuffer>,
	/** What its tables wear from the beginning. */
	worn: Readonly<Record<number, TableState>> = {}
): Promise<{ id: string; imported: string[] }> {
	const document = await openDocument(bytes, name);
	if (document.tables.length === 0 && document.kind !== 'svg')
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
	const tables: Record<number, TableState> = { ...worn };
	for (const { index, carried } of document.tables) {
		const style = carried && ids.get(carried.style);
		if (style) tables[index] = { style };
	}
	if (document.tables.length) await takeCorrections(db, document, tables);
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
		if (document.kind === 'svg') await recordDrawing(trx, row.id, document);
		return row.id;
	});
	remember(`${document.kind} ${hash}`, document);
	return { id, imported };
}

export async function recordWears(trx: Transaction<Database>, id: string, state: DocumentState): Promise<void> {
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

/** A document that is here. */
export async function documentRow(db: Db, id: string) {
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

export async function stepsOf(db: Db, id: string): Promise<StepInfo[]> {
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
	const found = await documentRow(db, id);
	const state = await stateAt(db, id, found.step);
	return { found, name: found.name, document: await openAt(db, found, state), state };
}

/** Everything that the document view shows. */
export async function loadDocument(db: Db, id: string) {
	const found = await documentRow(db, id);
	const { name, step } = found;
	const state = await stateAt(db, id, step);
	const document = await openAt(db, found, state);
	return {
		id,
		name,
		kind: document.kind,
		step,
		steps: await stepsOf(db, id),
		state,
		blocks: document.blocks,
		tables: document.kind === 'csv' ? document.tables.map(packTable) : document.tables,
		remarks: document.remarks
	};
}

/** Saves a new step after the one that the editor saw; steps that were undone before it are gone. */
export async function addStep(
	db: Kysely<Database>,
	id: string,
	after: number,
	label: string,
	tables: Record<number, TableState>,
	drawing?: DrawingState
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
			if (Number(index) >= (drawing?.placed?.length ?? document.tables))
				throw new InputError(
					'request',
					`There is no table ${Number(index) + 1}: the document has ${document.tables}.`,
					'/tables'
				);
		const before = await stateAt(trx, id, after);
		checkWorks(before, tables, drawing !== undefined);
		// With its drawing, all that its tables wear is said anew: tables may have come and gone.
		const state: DocumentState = drawing
			? { ...before, tables, drawing: { ...drawing, ...(before.drawing?.file && { file: before.drawing.file }) } }
			: { ...before, tables: { ...before.tables, ...tables } };
		const step = after + 1;
		await putStep(trx, id, step, label, state);
		if (document.kind !== 'svg') await rememberCorrections(trx, await openAt(trx, document, state), tables);
		return { step, state, steps: await stepsOf(trx, id) };
	});
}

/**
 * Work on tables goes its own way, without a step of the document each: whoever saves a document that he saw before
 * it went on would put it back. Throws ConflictError for that.
 */
function checkWorks(
	{ tables: before }: DocumentState,
	tables: Readonly<Record<number, TableState>>,
	isAll: boolean
): void {
	const standing = new Set(Object.values(before).map(({ work }) => work));
	for (const [index, { work }] of Object.entries(tables))
		// With its drawing, tables may have come and gone, and stand at other places.
		if (isAll ? work !== undefined && !standing.has(work) : work !== before[Number(index)]?.work)
			throw new ConflictError(
				'A table of this document was worked on in another window in the meantime. Load it again to see what is there now.',
				{ table: Number(index) }
			);
}

/** Makes a state the step with this number, in the place of whatever was undone from there on. */
export async function putStep(
	trx: Transaction<Database>,
	id: string,
	step: number,
	label: string,
	state: DocumentState
): Promise<void> {
	await trx.deleteFrom('document_steps').where('document_id', '=', id).where('step', '>=', step).execute();
	await trx
		.insertInto('document_steps')
		.values({ document_id: id, step, label, state: JSON.stringify(state) })
		.execute();
	await goTo(trx, id, step, state);
}

async function goTo(trx: Transaction<Database>, id: string, step: number, state: DocumentState): Promise<void> {
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
	const found = await documentRow(trx, id);
	const document = await openAt(trx, found, state);
	if (document.tables.length !== found.tables)
		await trx.updateTable('documents').set({ tables: document.tables.length }).where('id', '=', id).execute();
	if (document.kind === 'svg') {
		await recordDrawing(trx, id, document);
		await recordFollowers(trx, id);
	}
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
