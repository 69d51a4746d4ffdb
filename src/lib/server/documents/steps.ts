import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { AnyDocument } from '../../formats/index.ts';
import { correctionsIn, shapeOf } from '../../workbench/corrections.ts';
import { mapTables, type DocumentState, type DrawingState, type TableState } from '../../workbench/state.ts';
import { inTransaction, type Database } from '../database.ts';
import type { Standing } from '../history.ts';
import { ConflictError } from '../http/answers.ts';
import { editionToWear } from '../styles/editions.ts';
import { recordFacts } from './facts.ts';
import { fileAt, openAt } from './open.ts';
import { recordDrawing, recordFollowers, recordWears } from './record.ts';
import { documentRow, DOCUMENTS, stateAt, stepsOf, type Db } from './rows.ts';

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
			.onConflict((conflict) => conflict.columns(['house_id', 'shape']).doUpdateSet({ said: JSON.stringify(said) }))
			.execute();
	}
}

/** Saves a new step over the version that the editor saw; steps that were undone before it are gone. */
export async function addStep(
	db: Db,
	id: string,
	seen: number,
	label: string,
	tables: Record<number, TableState>,
	drawing?: DrawingState
) {
	return inTransaction(db, async (trx) => {
		const standing = await DOCUMENTS.lock(trx, id, seen);
		const document = await documentRow(trx, id);
		for (const index of Object.keys(tables))
			if (Number(index) >= (drawing?.placed?.length ?? document.tables))
				throw new InputError(
					'request',
					`There is no table ${Number(index) + 1}: the document has ${document.tables}.`,
					'/tables'
				);
		const before = await stateAt(trx, id, standing.step);
		checkWorks(before, tables, drawing !== undefined);
		// With its drawing, all that its tables wear is said anew: tables may have come and gone.
		const state: DocumentState = drawing
			? { ...before, tables, drawing: { ...drawing, ...(before.drawing?.file && { file: before.drawing.file }) } }
			: { ...before, tables: { ...before.tables, ...tables } };
		const now = await putStep(trx, id, standing, label, state);
		if (document.kind !== 'svg') await rememberCorrections(trx, await openAt(trx, document, state), tables);
		return { ...now, steps: await stepsOf(trx, id) };
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

/** Makes a state the step after the one that stands, in the place of whatever was undone. */
export async function putStep(
	trx: Transaction<Database>,
	id: string,
	standing: Standing,
	label: string,
	state: DocumentState
): Promise<Standing & Worn> {
	const worn = await inEditions(trx, state);
	const now = await DOCUMENTS.add(trx, id, standing, label, worn.state);
	await record(trx, id, worn.state);
	return { ...now, ...worn };
}

/** Makes a state the one of the step that stands, whose label stays; nobody who saw it is too late for that. */
export async function amendStep(
	trx: Transaction<Database>,
	id: string,
	{ step }: Standing,
	label: string,
	state: DocumentState
): Promise<Worn> {
	const worn = await inEditions(trx, state);
	await DOCUMENTS.write(trx, id, step, [{ label, state: worn.state }]);
	await record(trx, id, worn.state);
	return worn;
}

/** A state all of whose tables wear editions, and the styles that were published for that, by name. */
export interface Worn {
	readonly state: DocumentState;
	readonly published: readonly string[];
}

/**
 * Every table that wears a style wears an edition of it: where none is said, the newest; where none is out, the first,
 * which is published now. Throws InputError for a style or an edition that is not there.
 */
export async function inEditions(trx: Transaction<Database>, state: DocumentState): Promise<Worn> {
	const worn = [...new Set(Object.values(state.tables).flatMap(({ style }) => style ?? []))];
	if (!worn.length) return { state, published: [] };
	const names = new Map(
		(await trx.selectFrom('styles').select(['id', 'name']).where('id', 'in', worn).execute()).map(({ id, name }) => [
			id,
			name
		])
	);
	if (names.size < worn.length)
		throw new InputError('request', 'One of the styles is no longer in the Stylebook.', '/tables');
	const out = new Set(
		(await trx.selectFrom('editions').select(['style_id', 'number']).where('style_id', 'in', worn).execute()).map(
			({ style_id, number }) => `${style_id}@${number}`
		)
	);
	const isOut = ({ style, edition }: TableState) => out.has(`${style}@${edition}`);
	const asking = Object.values(state.tables).filter((own) => own.style && !isOut(own));
	const newest = new Map<string, number>();
	const published: string[] = [];
	// Styles are locked in one order, whoever asks for them.
	for (const style of [...new Set(asking.map((own) => own.style!))].sort()) {
		const { number, isFirst } = await editionToWear(trx, style);
		newest.set(style, number);
		if (isFirst) published.push(names.get(style)!);
	}
	for (const { style, edition } of asking)
		if (edition !== undefined && edition !== newest.get(style!))
			throw new InputError('request', `“${names.get(style!)!}” has no edition ${edition}.`, '/tables');
	return {
		state: mapTables(state, (own) => (own.style && !isOut(own) ? { ...own, edition: newest.get(own.style)! } : own)),
		published
	};
}

/** What lists and other documents know of a document follows the state that it stands at. */
async function record(trx: Transaction<Database>, id: string, state: DocumentState): Promise<void> {
	await trx
		.updateTable('documents')
		.set({ updated_at: sql`now()`, count_tries: 0 })
		.where('id', '=', id)
		.execute();
	await recordWears(trx, id, state);
	const found = await documentRow(trx, id);
	const document = await openAt(trx, found, state);
	if (document.tables.length !== found.tables)
		await trx.updateTable('documents').set({ tables: document.tables.length }).where('id', '=', id).execute();
	const file = fileAt(found, state);
	if (document.kind !== 'svg' && file !== (found.stands_on ?? found.file_hash))
		await recordFacts(trx, id, file, document);
	if (document.kind === 'svg') {
		await recordDrawing(trx, id, document);
		await recordFollowers(trx, id);
	}
}

/** Moves to any other step that exists: undo, redo. */
export async function moveToStep(db: Kysely<Database>, id: string, seen: number, to: number) {
	return db.transaction().execute(async (trx) => {
		await DOCUMENTS.lock(trx, id, seen);
		const worn = await inEditions(trx, await stateAt(trx, id, to));
		const version = await DOCUMENTS.stand(trx, id, to);
		await record(trx, id, worn.state);
		return { step: to, version, ...worn, steps: await stepsOf(trx, id) };
	});
}

/** Adds a step to a document wherever it stands: some of its tables changed, and of a drawing more. */
export async function nextStep(
	trx: Transaction<Database>,
	document: string,
	label: string,
	changed: Record<number, TableState>,
	drawing: Pick<DocumentState, 'drawing'> = {}
): Promise<void> {
	const standing = await DOCUMENTS.lock(trx, document);
	const before = await stateAt(trx, document, standing.step);
	await putStep(trx, document, standing, label, { ...before, ...drawing, tables: { ...before.tables, ...changed } });
}
