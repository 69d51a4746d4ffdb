import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { FileLook } from '../../core/work/file-look.ts';
import { applyPatch, type Patch } from '../../core/work/patch.ts';
import { checkSize, tidy, type Wears, type WorkTable } from '../../core/work/table.ts';
import { withSources, workOf } from '../../core/work/convert.ts';
import { inLocale } from '../../core/work/marks.ts';
import { loadHouse } from '../house/house.ts';
import type { AnyDocument } from '../../formats/index.ts';
import type { DocumentTable } from '../../formats/document.ts';
import type { DocumentState, TableState } from '../../workbench/state.ts';
import { stateTable, without } from '../../workbench/table.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Database } from '../database.ts';
import { BY, listedStep, overtaken, type Standing, type StepInfo } from '../history.ts';
import { goneWith, indicesAfter } from '../../formats/row-cells.ts';
import { chain, insertStep, rememberWork, workAt, type Chained } from '../documents/replay.ts';
import { documentRow, DOCUMENTS, stateAt, stepsOf, type Db } from '../documents/rows.ts';
import { openAt, wordsOf } from '../documents/open.ts';
import { amendStep, putStep, type Worn } from '../documents/steps.ts';

/** One step of work on a table, as the bench keeps it. */
export interface WorkStep extends Pick<StepInfo, 'label' | 'by' | 'when'> {
	readonly id: number;
	readonly patch: Patch;
}

/** A table with its work: the oldest state that is kept, the steps from there, and how many of them stand. */
export interface LoadedWork {
	readonly base: WorkTable;
	/** Id of the step that `base` is; null for a table that was not worked on yet. */
	readonly from: number | null;
	readonly steps: readonly WorkStep[];
	readonly at: number;
	/** Who brought it to where it stands; null where nobody said. */
	readonly by: string | null;
}

/** So many steps come between two that keep the table whole. */
const WHOLE_EVERY = 40;
/** So many steps can be gone back and forth, at most, after a page is loaded anew. */
const STEPS_KEPT = 200;

/** A table as it is taken up for work: what its file says, with what a person decided. */
export function workFrom(entry: DocumentTable, state: TableState = {}, locale = 'en-GB'): WorkTable {
	checkSize(entry.table.rows, entry.table.columns);
	const isAsRead = entry.work && !state.purpose && !state.roles && !state.kinds && !state.touches && !state.mark;
	const widths = state.widths?.length ? state.widths : entry.widths;
	if (isAsRead) return withWears(entry.work!, wearsIn(state));
	const table = stateTable(entry, state);
	const work = inLocale(workOf(table, entry.content, widths, entry.locked), locale);
	return withWears(entry.work ? withSources(work, entry.work) : work, wearsIn(state));
}

const WEARS = ['style', 'edition', 'pinned', 'partsOff', 'carry', 'cleared'] as const;
/** What of a table's state is what it wears. */
const wearsIn = (state: TableState): Wears => tidy(Object.fromEntries(WEARS.map((key) => [key, state[key]]))) as Wears;
/** A table as it stands at a step, wearing what its document says now: that can have changed since. */
const withWears = ({ wears: _, ...work }: WorkTable, wears: Wears): WorkTable =>
	Object.keys(wears).length ? { ...work, wears } : work;
const sameWears = (a: Wears = {}, b: Wears = {}) =>
	WEARS.every((key) => JSON.stringify(a[key]) === JSON.stringify(b[key]));

async function entryAt(db: Db, id: string, index: number) {
	const { locale } = await loadHouse(db);
	const found = await documentRow(db, id);
	const state = await stateAt(db, id, found.step);
	const document = await openAt(db, found, state);
	const entry = document.tables[index];
	if (!entry) throw new NotFoundError(`There is no table ${index + 1}: the document has ${document.tables.length}.`);
	return { found, state, document, entry, locale };
}

/** Everything that the bench needs of a table's work. */
export async function loadWork(
	db: Db,
	id: string,
	index: number
): Promise<
	LoadedWork & {
		readonly entry: DocumentTable;
		readonly state: DocumentState;
		readonly kind: AnyDocument['kind'];
		readonly others: readonly { readonly index: number; readonly words: string }[];
		/** How many tables the document has. */
		readonly tables: number;
	}
> {
	const { found, entry, state, document, locale } = await entryAt(db, id, index);
	if (document.kind === 'svg' && document.placed[index]!.source.from !== 'bench')
		throw new InputError(
			'schedule',
			'The rows of this table come from the drawing: change them on its sheet. Only tables that were made on the bench are worked on here.'
		);
	const others = document.tables
		.filter((one) => one.index !== index && one.place.where !== 'nested')
		.map((one) => ({ index: one.index, words: one.place.caption ?? `table ${one.index + 1}` }));
	const own = state.tables[index];
	const around = { entry, state, kind: document.kind, others, tables: document.tables.length };
	if (own?.work === undefined)
		return { base: workFrom(entry, own, locale), from: null, steps: [], at: 0, by: null, ...around };
	const back = (await chain(db, own.work, STEPS_KEPT)).toReversed();
	const first = back.findIndex(({ whole }) => whole);
	const kept = back.slice(first);
	const forth = await onwards(db, own.work);
	const stay = (await stepsOf(db, id)).find(({ step }) => step === found.step);
	const steps = [...kept.slice(1), ...forth];
	return {
		base: kept[0]!.whole!,
		from: kept[0]!.id,
		steps: steps.map((step) => ({
			id: step.id,
			patch: step.patch!,
			label: step.label,
			by: step.made_by,
			when: step.created_at.toISOString()
		})),
		at: kept.length - 1,
		by: stay?.label === benchLabel(index) ? stay.by : kept.at(-1)!.made_by,
		...around
	};
}

/** The steps that were undone after one: of each, the newest that follows. */
async function onwards(db: Db, id: number): Promise<Chained[]> {
	const steps: Chained[] = [];
	for (let at = id; steps.length < STEPS_KEPT;) {
		const next = await db
			.selectFrom('work_steps')
			.select(['id', 'parent', 'label', 'patch', 'whole', BY.as('made_by'), 'created_at'])
			.where('parent', '=', at)
			.orderBy('id', 'desc')
			.limit(1)
			.executeTakeFirst();
		if (!next) break;
		steps.push(next);
		at = next.id;
	}
	return steps;
}

/** What somebody else did since: the steps after `after` that lead to where the table stands now. */
export async function workSince(db: Db, id: string, index: number, after: number | null) {
	const found = await documentRow(db, id);
	const own = (await stateAt(db, id, found.step)).tables[index];
	const now = own?.work ?? null;
	return { at: now, isSame: now === after, wears: own ?? {} };
}

const benchLabel = (index: number) => `table ${index + 1} on the bench`;

/**
 * Saves one edit of a table after the step that its editor saw. What somebody else saved first is told, not overwritten.
 * An edit that comes again, because its answer was lost on the way, is saved once.
 */
export async function addWorkStep(
	db: Kysely<Database>,
	id: string,
	index: number,
	{ after, label, patch }: { readonly after: number | null; readonly label: string; readonly patch: Patch }
): Promise<{ step: number; root: number | null; published?: readonly string[] }> {
	return db.transaction().execute(async (trx) => {
		const { state, standing } = await locked(trx, id);
		const saved = await savedAlready(trx, state.tables[index]?.work, after, label, patch);
		if (saved) return saved;
		await checkStands(trx, standing, state, index, after);
		let parent = after;
		let root: number | null = null;
		if (parent === null) {
			const { entry, locale } = await entryAt(trx, id, index);
			const base = workFrom(entry, state.tables[index], locale);
			parent = root = await insertStep(trx, { document_id: id, parent: null, label: 'as it was', whole: base });
			rememberWork(parent, base);
		}
		const work = applyPatch(await workAt(trx, parent), patch);
		const since = (await chain(trx, parent)).length;
		const step = await insertStep(trx, {
			document_id: id,
			parent,
			label,
			patch,
			...(since >= WHOLE_EVERY && { whole: work })
		});
		rememberWork(step, work);
		const { published } = await standAt(trx, id, index, standing, state, step, await workAt(trx, parent));
		return { step, root, ...(published.length && { published }) };
	});
}

/** Undo and redo: the table stands at another step of its work. */
export async function moveWork(
	db: Kysely<Database>,
	id: string,
	index: number,
	from: number | null,
	to: number
): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const { state, standing } = await locked(trx, id);
		await checkStands(trx, standing, state, index, from);
		const step = await stepOf(trx, to);
		if (step?.document_id !== id) throw new InputError('step', `The table has no step ${to}.`);
		await standAt(trx, id, index, standing, state, to, from === null ? undefined : await workAt(trx, from));
	});
}

/** The step that an edit was saved as on the way to where its table stands; undefined where it was not. */
async function savedAlready(
	trx: Transaction<Database>,
	standing: number | undefined,
	after: number | null,
	label: string,
	patch: Patch
): Promise<{ step: number; root: number | null } | undefined> {
	if (standing === undefined || standing === after) return undefined;
	const { rows } = await sql<{ step: number; parent: number; grandparent: number | null }>`
		with recursive back as (
			select id, parent, label, patch, 0 as depth from work_steps where id = ${standing}
			union all
			select s.id, s.parent, s.label, s.patch, back.depth + 1
			from work_steps s join back on s.id = back.parent
			where back.depth < ${STEPS_KEPT}
		)
		select back.id as step, back.parent, up.parent as grandparent
		from back join work_steps up on up.id = back.parent
		where back.label = ${label} and back.patch = ${JSON.stringify(patch)}::jsonb`.execute(trx);
	// The first edit of all follows no step that its editor knows: it made the one it follows.
	const own = rows.find(({ parent, grandparent }) => (after === null ? grandparent === null : parent === after));
	return own && { step: own.step, root: after === null ? own.parent : null };
}

/** What a document's tables are now; nobody else changes it until this is done. */
async function locked(trx: Transaction<Database>, id: string): Promise<{ standing: Standing; state: DocumentState }> {
	const standing = await DOCUMENTS.lock(trx, id);
	return { standing, state: await stateAt(trx, id, standing.step) };
}
/** Throws ConflictError, with the step of the table that stands, where that is another than `after`. */
async function checkStands(
	trx: Transaction<Database>,
	{ version }: Standing,
	{ tables }: DocumentState,
	index: number,
	after: number | null
): Promise<void> {
	const now = tables[index]?.work ?? null;
	if (now === after) return;
	const last = now === null ? undefined : await stepOf(trx, now);
	throw overtaken('This table', '', { step: now ?? 0, version, last: last ? listedStep(last) : null });
}
const stepOf = (trx: Transaction<Database>, id: number) =>
	trx
		.selectFrom('work_steps')
		.select(['id as step', 'document_id', 'label', BY.as('made_by'), 'created_at'])
		.where('id', '=', id)
		.executeTakeFirst();

/**
 * The document's table is what it is at a step. Steps of one stay at the bench are one step of the document. What the
 * table wears changes only where it is another than `before`.
 */
async function standAt(
	trx: Transaction<Database>,
	id: string,
	index: number,
	standing: Standing,
	state: DocumentState,
	work: number,
	before: WorkTable | undefined
): Promise<Worn> {
	const steps = await stepsOf(trx, id);
	const { wears } = await workAt(trx, work);
	const was = state.tables[index] ?? {};
	const kept = sameWears(wears, before?.wears) ? was : { ...without(was, ...WEARS), ...wears };
	const own = without(kept, 'unreadable', 'roles', 'kinds', 'mark', 'firstColumns', 'lastColumns', 'touches', 'widths');
	const next: DocumentState = { ...state, tables: { ...state.tables, [index]: { ...own, work } } };
	const label = benchLabel(index);
	const isSameStay = steps.at(-1)?.step === standing.step && steps.at(-1)?.label === label;
	const worn = isSameStay
		? await amendStep(trx, id, standing, label, next)
		: await putStep(trx, id, standing, label, next);
	const found = await documentRow(trx, id);
	if (found.kind === 'json')
		await trx
			.updateTable('documents')
			.set({ words: wordsOf(await openAt(trx, found, next)) })
			.where('id', '=', id)
			.execute();
	return worn;
}

/** How a table looks in its file, for those of its cells that come from there; undefined where the file has no looks. */
export async function fileLookOf(
	db: Db,
	id: string,
	index: number,
	state: DocumentState
): Promise<FileLook | undefined> {
	const found = await documentRow(db, id);
	if (found.kind === 'csv' || found.kind === 'json' || found.kind === 'svg') return undefined;
	const file = await openAt(db, found, { tables: {} });
	const { moved } = indicesAfter(file, state.added, goneWith(file.tables, state.gone));
	const original = file.tables.find((entry) => moved(entry.index) === index);
	if (!original) return undefined;
	const { table, appearance } = original;
	return {
		grid: { rows: table.rows, columns: table.columns, cells: table.cells },
		appearance: {
			cellLook: appearance.cellLook,
			looks: appearance.looks,
			across: appearance.across,
			down: appearance.down,
			lines: appearance.lines,
			...(appearance.shadow !== undefined && { shadow: appearance.shadow })
		}
	};
}
