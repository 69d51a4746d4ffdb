import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { tableToFile } from '../../core/table/file.ts';
import { withFigures } from '../../core/work/file.ts';
import { tableOf } from '../../core/work/convert.ts';
import { tidy, type Wears, type WorkTable } from '../../core/work/table.ts';
import { freeId, roomFor, rowsOfWork, withBench } from '../../core/schedule/placed.ts';
import type { SvgDocument } from '../../formats/svg/read.ts';
import { goneWith, indicesAfter } from '../../formats/row-cells.ts';
import type { DocumentState, TableState } from '../../workbench/state.ts';
import { ConflictError } from '../http/answers.ts';
import type { Database } from '../database.ts';
import type { Standing } from '../history.ts';
import { addDocument } from '../documents/add.ts';
import { documentRow, DOCUMENTS, stateAt, stepsOf } from '../documents/rows.ts';
import { openAt } from '../documents/open.ts';
import { putStep } from '../documents/steps.ts';
import { insertStep, rememberWork } from '../documents/replay.ts';

/** Where a new table goes: into a document, after one of the blocks that it has now; −1 is its beginning. */
export interface InsertionPoint {
	readonly document: string;
	readonly after: number;
	/** The version of the document that the place was chosen in. */
	readonly version: number;
}

interface Made {
	readonly name: string;
	readonly work: WorkTable;
	readonly wears: Wears;
}

/** Makes a table: a document of its own, or one more table of a document. Answers where it is. */
export async function makeTable(
	db: Kysely<Database>,
	{ into, ...made }: Made & { readonly into?: InsertionPoint }
): Promise<{ document: string; index: number }> {
	return into ? putInto(db, made, into) : onItsOwn(db, made);
}

async function onItsOwn(db: Kysely<Database>, { name, work, wears }: Made) {
	const file = withFigures(tableToFile(tableOf(work), { title: name, work: withoutWears(work) }), work);
	const bytes = new TextEncoder().encode(JSON.stringify(file));
	const { id } = await addDocument(db, `${name}.table.json`, bytes, { 0: tidy({ ...wears }) });
	return { document: id, index: 0 };
}
const withoutWears = ({ wears: _, ...work }: WorkTable): WorkTable => work;

async function putInto(db: Kysely<Database>, { name, work, wears }: Made, into: InsertionPoint) {
	return db.transaction().execute(async (trx) => {
		const standing = await DOCUMENTS.lock(trx, into.document, into.version);
		const found = await documentRow(trx, into.document);
		const state = await stateAt(trx, into.document, found.step);
		const file = await openAt(trx, found, {
			...state,
			tables: found.kind === 'svg' ? state.tables : {},
			added: [],
			gone: []
		});
		if (file.kind === 'svg') return ontoSheet(trx, { name, work, wears }, file, state, into.document, standing);
		if (!file.blockPlaces)
			throw new InputError(
				'kind',
				`“${found.name}” is no document that a table can be put in: it has no text around its tables.`
			);
		const before = state.added ?? [];
		const gone = goneWith(file.tables, state.gone);
		const isGone = (block: number) => {
			const one = file.blocks[block];
			return one?.kind === 'table' && gone.has(one.index);
		};
		const { after, at } = placeIn(file.blocks.length, before, into.after, isGone);
		const added = [...before.slice(0, at), { after }, ...before.slice(at)];
		const index = indicesAfter(file, added, gone).of[at]!;
		const step = await insertStep(trx, {
			document_id: into.document,
			parent: null,
			label: 'as it was made',
			whole: withoutWears(work)
		});
		rememberWork(step, withoutWears(work));
		const own: TableState = tidy({ ...wears, work: step });
		const tables = Object.fromEntries([
			...Object.entries(state.tables).map(
				([key, one]) => [Number(key) >= index ? Number(key) + 1 : Number(key), one] as const
			),
			[index, own] as const
		]);
		const next: DocumentState = { ...state, tables, added };
		await putStep(trx, into.document, standing, `${name} put in`, next);
		return { document: into.document, index };
	});
}

/** Takes a table out of a document, and those inside it with it; the document's undo brings them back. */
export async function takeOut(db: Kysely<Database>, id: string, index: number, seen: number) {
	return db.transaction().execute(async (trx) => {
		const standing = await DOCUMENTS.lock(trx, id, seen);
		const found = await documentRow(trx, id);
		if (found.kind === 'svg' || found.kind === 'csv')
			throw new InputError('kind', 'Only a document of text and tables can have a table taken out of it.');
		const state = await stateAt(trx, id, standing.step);
		const file = await openAt(trx, found, { tables: {} });
		const { added = [], gone = [] } = state;
		const places = indicesAfter(file, added, goneWith(file.tables, gone));
		const own = places.of.indexOf(index);
		const original = file.tables.find((entry) => places.moved(entry.index) === index);
		if (own < 0 && !original)
			throw new InputError('table', `There is no table ${index + 1}: the document has ${found.tables}.`);
		const next =
			own < 0
				? { added, gone: [...gone, original!.index].sort((a, b) => a - b) }
				: { added: added.filter((_, i) => i !== own), gone };
		const out = new Set(
			own < 0 ? [...goneWith(file.tables, [original!.index])].map((one) => places.moved(one)) : [index]
		);
		if (out.size >= found.tables)
			throw new InputError('table', 'This is the only table of the document: remove the document instead.');
		const tables = Object.fromEntries(
			Object.entries(state.tables).flatMap(([key, one]) =>
				out.has(Number(key)) ? [] : [[Number(key) - [...out].filter((at) => at! < Number(key)).length, one] as const]
			)
		);
		const taken = { ...state, ...next, tables };
		const now = await putStep(trx, id, standing, `table ${index + 1} taken out`, taken);
		return { ...now, steps: await stepsOf(trx, id) };
	});
}

/** Places a new table on a drawing's sheet, in the corner that its frame leaves. */
async function ontoSheet(
	trx: Transaction<Database>,
	{ name, work, wears }: Made,
	file: SvgDocument,
	state: DocumentState,
	document: string,
	standing: Standing
) {
	const { sheet, placed } = file;
	const room = roomFor(file.found.frames, sheet);
	const index = placed.length;
	const own = await insertStep(trx, {
		document_id: document,
		parent: null,
		label: 'as it was made',
		whole: withoutWears(work)
	});
	const next = withBench(
		{
			id: freeId(placed),
			source: { from: 'revisions' },
			rows: rowsOfWork(work),
			at: { x: room.x1, y: room.y1 },
			corner: 'top-start',
			reads: 'down'
		},
		withoutWears(work)
	);
	await putStep(trx, document, standing, `${name} put in`, {
		...state,
		tables: { ...state.tables, [index]: tidy({ ...wears, work: own }) },
		drawing: { ...state.drawing, placed: [...placed, next] }
	});
	return { document, index };
}

/**
 * Where a table comes that is put after a block of the document as it stands, in which `added` tables are blocks, too:
 * after which block of the file, and at which place among the added ones. Blocks that are gone do not count.
 */
export function placeIn(
	blocks: number,
	added: readonly { readonly after: number }[],
	current: number,
	isGone: (block: number) => boolean = () => false
): { after: number; at: number } {
	let now = -1;
	let at = 0;
	for (let block = -1; block < blocks; block++) {
		if (block >= 0 && !isGone(block)) now++;
		if (now >= current) return { after: block, at };
		for (; at < added.length && added[at]!.after === block; at++) {
			now++;
			if (now >= current) return { after: block, at: at + 1 };
		}
	}
	return { after: blocks - 1, at: added.length };
}

/** A starter as it is shown: what it holds, what it wears, and how often it was placed. */
export interface Starter {
	readonly id: string;
	readonly name: string;
	readonly category: string;
	readonly description: string;
	/** The document that alone has it; null for the whole house. */
	readonly document: { readonly id: string; readonly name: string } | null;
	readonly work: WorkTable;
	readonly wears: Wears;
	readonly used: number;
	readonly version: number;
}

export async function listStarters(db: Kysely<Database>): Promise<Starter[]> {
	const rows = await db
		.selectFrom('starters')
		.leftJoin('documents', 'documents.id', 'starters.document_id')
		.selectAll('starters')
		.select('documents.name as document_name')
		.orderBy('starters.category')
		.orderBy('starters.name')
		.execute();
	return rows.map(({ id, name, category, description, document_id, document_name, work, wears, used, version }) => ({
		id,
		name,
		category,
		description,
		document: document_id && document_name !== null ? { id: document_id, name: document_name } : null,
		work,
		wears,
		used,
		version
	}));
}

/** Keeps a table as a starter; one of the same name is replaced. */
export async function keepStarter(
	db: Kysely<Database>,
	{
		name,
		category,
		description,
		work,
		wears,
		document
	}: Made & { category: string; description: string; document?: string }
): Promise<{ id: string }> {
	const values = {
		category: category.trim(),
		description: description.trim(),
		document_id: document ?? null,
		work: JSON.stringify(withoutWears(work)),
		wears: JSON.stringify(wears)
	};
	return db
		.insertInto('starters')
		.values({ name: name.trim(), ...values })
		.onConflict((conflict) =>
			conflict
				.columns(['house_id', 'name'])
				.doUpdateSet({ ...values, version: sql`starters.version + 1`, updated_at: sql`now()` })
		)
		.returning('id')
		.executeTakeFirstOrThrow();
}

/** Changes what a starter is called and what is said of it. */
export async function changeStarter(
	db: Kysely<Database>,
	id: string,
	{ version, ...change }: { version: number; name?: string; category?: string; description?: string }
): Promise<void> {
	if (change.name !== undefined) {
		const other = await db
			.selectFrom('starters')
			.select('id')
			.where('name', '=', change.name.trim())
			.where('id', '!=', id)
			.executeTakeFirst();
		if (other)
			throw new InputError(
				'name-taken',
				`Another starter is called “${change.name.trim()}”. Give this one another name.`
			);
	}
	const done = await db
		.updateTable('starters')
		.set({ ...change, version: version + 1, updated_at: sql`now()` })
		.where('id', '=', id)
		.where('version', '=', version)
		.executeTakeFirst();
	if (!done.numUpdatedRows)
		throw new ConflictError('This starter was changed in another window, or is gone. Load the page again.', null);
}

export async function removeStarter(db: Kysely<Database>, id: string): Promise<void> {
	await db.deleteFrom('starters').where('id', '=', id).execute();
}

/** Counts that a starter was placed once more. */
export async function countStarter(db: Kysely<Database>, id: string): Promise<void> {
	await db
		.updateTable('starters')
		.set({ used: sql`used + 1` })
		.where('id', '=', id)
		.execute();
}
