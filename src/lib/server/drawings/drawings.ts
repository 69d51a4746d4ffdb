import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { MM } from '../../core/layout/plotted.ts';
import { freeId, type PlacedTable } from '../../core/schedule/placed.ts';
import { isListed, makeRows } from '../../core/schedule/rows.ts';
import { prepare } from '../../formats/job.ts';
import { openDocument } from '../../formats/index.ts';
import { sheetFacts, titleOf, withEdits, type SvgDocument } from '../../formats/svg/read.ts';
import { shownObjects, shownText } from '../../formats/svg/shown.ts';
import { spritesOf, type Sprites } from '../../formats/svg/sprites.ts';
import { dressedAs, drawOn } from '../../formats/svg/write.ts';
import { answered, changesOf, rowsNow } from '../../workbench/schedules.ts';
import { plottedFacts, type PlottedFacts } from '../../workbench/plotted.ts';
import type { DocumentState, DrawingState, TableState } from '../../workbench/state.ts';
import { stateTable } from '../../workbench/table.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Database, RereadRows } from '../database.ts';
import { changesIn, listedObjects, openDrawing } from '../documents/record.ts';
import { keepFile } from '../files/files.ts';
import { documentRow, DOCUMENTS, stateAt, stepsOf, type Db } from '../documents/rows.ts';
import { openAt } from '../documents/open.ts';
import { putStep } from '../documents/steps.ts';
import { Wardrobe } from '../styles/editions.ts';
import { loadHouse } from '../house/house.ts';
import { findIn, importStyle } from '../styles/styles.ts';

/** A table as it stands on the sheet, for the page. Lengths are millimetres of paper. */
export interface DrawnOut {
	readonly id: string;
	readonly markup: string;
	readonly x: number;
	readonly y: number;
	readonly width: number;
	readonly height: number;
	readonly lefts: readonly number[];
	readonly tops: readonly number[];
	readonly facts: PlottedFacts;
}

/** Draws tables as they would stand on a sheet. */
export async function drawTables(
	db: Kysely<Database>,
	id: string,
	tables: readonly { readonly placed: PlacedTable; readonly state: TableState }[]
): Promise<DrawnOut[]> {
	const { document } = await openDrawing(db, id);
	const wardrobe = await Wardrobe.load(db);
	const options = { house: await loadHouse(db), find: findIn(wardrobe.styles) };
	const edited = withEdits(document, { ...document.edits, placed: tables.map(({ placed }) => placed) });
	return edited.tables.map((entry, index): DrawnOut => {
		const { placed, state } = tables[index]!;
		const table = stateTable(entry, state);
		const style = wardrobe.definition(state);
		const one = style && prepare(edited, [{ index, table, style }], options)[0];
		const drawn = drawOn(edited, placed, dressedAs({ ...entry, table }, one));
		const { laid, markup, x, y, width, height } = drawn;
		const millimetres = (lengths: readonly number[]) => lengths.map((length) => length / MM);
		return {
			id: placed.id,
			markup,
			x,
			y,
			width,
			height,
			lefts: millimetres(laid.lefts),
			tops: millimetres(laid.tops),
			facts: plottedFacts(drawn, edited)
		};
	});
}

/** Everything that the sheet view shows at once; the drawing and its objects are fetched beside it. */
export async function loadSheet(db: Kysely<Database>, id: string) {
	const { found, name, document, state } = await openDrawing(db, id);
	const tables = document.placed.map((placed, index) => ({ placed, state: state.tables[index] ?? {} }));
	const others = await db
		.selectFrom('documents')
		.select(['id', 'name'])
		.where('kind', '=', 'svg')
		.where('removed_at', 'is', null)
		.where('id', '!=', id)
		.orderBy('name')
		.execute();
	return {
		id,
		name,
		step: found.step,
		version: found.version,
		steps: await stepsOf(db, id),
		state,
		sheet: document.sheet,
		kinds: document.kinds,
		symbols: [...document.found.symbols].map(([symbol, { name: called }]) => ({ symbol, name: called })),
		layers: document.found.layers.map(({ name: called, depth, objects }) => ({ name: called, depth, objects })),
		frames: document.found.frames,
		placed: document.placed,
		remarks: document.remarks,
		tables: document.tables,
		drawn: await drawTables(db, id, tables),
		behind: await changesIn(db, document, name),
		others
	};
}

/** The drawing as it may be shown; the objects of a large one as pictures in their places. */
export async function shownDrawing(
	db: Kysely<Database>,
	id: string
): Promise<{ text: string; sprites: Sprites | null }> {
	const { document } = await openDrawing(db, id);
	const painted = spritesOf(document);
	return { text: shownText(document, painted?.nodes), sprites: painted?.sprites ?? null };
}

export const drawingObjects = async (db: Kysely<Database>, id: string) =>
	shownObjects((await openDrawing(db, id)).document);

/** A state in which every table is said outright, for adding to. */
const outright = (document: SvgDocument, state: DocumentState): DocumentState & { drawing: DrawingState } => ({
	...state,
	drawing: { ...state.drawing, placed: document.placed }
});

/**
 * Puts a newer file in the place of a drawing's, as a step that can be undone. Its tables stay, with their styles; tables
 * that only the newer file has come along.
 */
export async function replaceDrawing(
	db: Kysely<Database>,
	id: string,
	seen: number,
	name: string,
	bytes: Uint8Array<ArrayBuffer>
) {
	const newer = await openDocument(bytes, name);
	if (newer.kind !== 'svg')
		throw new InputError(
			'not-a-drawing',
			`“${name}” is no SVG drawing. A drawing is replaced by a newer one of itself.`,
			name
		);
	const styles = new Map<string, string>();
	for (const style of newer.styles) styles.set(style.name, await importStyle(db, style, { reuse: true }));
	return db.transaction().execute(async (trx) => {
		const standing = await DOCUMENTS.lock(trx, id, seen);
		const row = await documentRow(trx, id);
		const before = await stateAt(trx, id, standing.step);
		const document = await openAt(trx, row, before);
		if (document.kind !== 'svg') throw new NotFoundError(`“${row.name}” is no drawing.`);
		const whole = outright(document, before);
		const known = new Set(document.placed.map((placed) => placed.id));
		const added = newer.tables.filter(({ index }) => !known.has(newer.placed[index]!.id));
		const placed = [...document.placed, ...added.map(({ index }) => newer.placed[index]!)];
		const wears = Object.fromEntries(
			added.flatMap(({ carried }, i): [number, TableState][] => {
				const style = carried && styles.get(carried.style);
				return style ? [[document.placed.length + i, { style }]] : [];
			})
		);
		const hash = await keepFile(trx, bytes);
		// What a person typed into attributes stays where its object still is.
		const state: DocumentState = {
			...whole,
			tables: { ...whole.tables, ...wears },
			drawing: { ...whole.drawing, placed, file: hash }
		};
		return putStep(trx, id, standing, `newer file: ${name}`, state);
	});
}

/** The state of a drawing whose schedules have all been read again; undefined where none is behind. */
export async function reread(
	db: Db,
	document: SvgDocument,
	name: string,
	state: DocumentState
): Promise<{ state: DocumentState & { drawing: DrawingState }; tables: number; rows: RereadRows[] } | undefined> {
	const whole = outright(document, state);
	const placedNow: PlacedTable[] = [];
	const worn: Record<number, TableState> = { ...whole.tables };
	const changed: RereadRows[] = [];
	for (const [index, placed] of document.placed.entries()) {
		const { objects, facts } = await listedObjects(db, document, name, placed);
		const now = rowsNow(placed, objects, facts);
		if (!now || changesOf(placed, now).length === 0) {
			placedNow.push(placed);
			continue;
		}
		const next = answered(placed, whole.tables[index] ?? {}, now, 'all');
		changed.push({ id: placed.id, was: placed.rows, is: next.placed.rows });
		placedNow.push(next.placed);
		if (Object.keys(next.own).length) worn[index] = next.own;
	}
	if (!changed.length) return undefined;
	return {
		state: { ...whole, tables: worn, drawing: { ...whole.drawing, placed: placedNow } },
		tables: changed.length,
		rows: changed
	};
}

/**
 * Places a schedule in other drawings, as a step of each: the same definition, look and place, with each drawing's own
 * rows. A drawing that has one of the same title already keeps it as it is.
 */
export async function reuseSchedule(
	db: Kysely<Database>,
	model: PlacedTable,
	own: TableState,
	ids: readonly string[]
): Promise<{ placed: string[]; refused: { name: string; reason: string }[] }> {
	const placed: string[] = [];
	const refused: { name: string; reason: string }[] = [];
	const { source } = model;
	if (source.from !== 'objects')
		throw new InputError('request', 'Only a schedule of objects can stand in several drawings.');
	const title = titleOf(model);
	for (const id of ids)
		await db.transaction().execute(async (trx) => {
			const standing = await DOCUMENTS.lock(trx, id);
			const { name, document, state } = await openDrawing(trx, id);
			const refuse = (reason: string) => void refused.push({ name, reason });
			if (document.placed.some((one) => titleOf(one) === title))
				return refuse('a table of this title stands in it already.');
			const { kinds: _kinds, ...all } = source.definition;
			// Kinds of the model's drawing need not be there; what they say is.
			const hasKinds =
				source.definition.kinds?.every((kind) => document.kinds.some((one) => one.kind === kind)) ?? true;
			const definition = hasKinds ? source.definition : all;
			const rows = makeRows(definition, document.found.objects, sheetFacts(document, name));
			if (!rows.rows.some(isListed)) return refuse('it holds no object that this schedule would list.');
			const whole = outright(document, state);
			const next: PlacedTable = {
				...model,
				id: freeId(document.placed),
				source: { from: 'objects', definition },
				rows
			};
			const { touches: _touches, ...look } = own;
			await putStep(trx, id, standing, `${title} placed`, {
				...whole,
				tables: { ...whole.tables, [document.placed.length]: look },
				drawing: { ...whole.drawing, placed: [...document.placed, next] }
			});
			placed.push(name);
		});
	return { placed, refused };
}
