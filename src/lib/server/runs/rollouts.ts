import type { House } from '../../core/house.ts';
import { sql, type Kysely } from 'kysely';
import { appearanceOf, type Appearance } from '../../core/cascade/look.ts';
import { resolve } from '../../core/cascade/resolve.ts';
import { InputError } from '../../core/errors.ts';
import { sameShown } from '../../core/properties/shadow.ts';
import { selfContained } from '../../core/style/export.ts';
import { flatten, type FlatStyle } from '../../core/style/inherit.ts';
import type { Style } from '../../core/style/types.ts';
import type { Table } from '../../core/table/grid.ts';
import type { TableState } from '../../workbench/state.ts';
import { stateTable } from '../../workbench/table.ts';
import { NotFoundError } from '../http/answers.ts';
import { plural } from '../../core/words.ts';
import { addToLog } from '../house/log.ts';
import type { Database } from '../database.ts';
import { openById } from '../documents/open.ts';
import { nextStep } from '../documents/steps.ts';
import { stateAt } from '../documents/rows.ts';
import { frozenDraft, listEditions, Wardrobe } from '../styles/editions.ts';
import { loadHouse } from '../house/house.ts';
import { findIn } from '../styles/styles.ts';

/** What a new edition would do to one table that wears the style. */
export interface Impact {
	readonly document: string;
	readonly documentName: string;
	readonly index: number;
	readonly title: string;
	/** The edition it wears now; null for the draft. */
	readonly wears: number | null;
	readonly pinned: boolean;
	/** Cells that would look different, of how many; edges likewise. */
	readonly cells: number;
	readonly allCells: number;
	readonly edges: number;
}

/** How many cells and edges of a table look different in two appearances. */
export function countChanges(before: Appearance, after: Appearance): { cells: number; edges: number } {
	const texts = (items: readonly unknown[]) => items.map((item) => JSON.stringify(item));
	const [looksBefore, looksAfter] = [texts(before.looks), texts(after.looks)];
	const [linesBefore, linesAfter] = [texts(before.lines), texts(after.lines)];
	let cells = 0;
	let edges = 0;
	before.cellLook.forEach((look, i) => {
		if (looksBefore[look] !== looksAfter[after.cellLook[i]!]) cells++;
	});
	for (const way of ['across', 'down'] as const)
		before[way].forEach((edge, i) => {
			if (linesBefore[edge] !== linesAfter[after[way][i]!]) edges++;
		});
	// The table's own shadow lies around it: it counts as one edge.
	if (!sameShown(before.shadow, after.shadow)) edges++;
	return { cells, edges };
}

class Looks {
	private readonly flats = new Map<Style, FlatStyle>();
	constructor(
		private readonly wardrobe: Wardrobe,
		private readonly house: House
	) {}
	of(table: Table, definition: Style, kept: Appearance): Appearance {
		let flat = this.flats.get(definition);
		if (!flat) this.flats.set(definition, (flat = flatten(definition, findIn(this.wardrobe.styles))));
		return appearanceOf(resolve(table, flat, this.house), kept);
	}
}

/**
 * Which tables a style's draft (or a published edition, or what is proposed as one) would change if they took it, most
 * changed first. Pinned tables are listed and keep what they have.
 */
export async function impactOf(db: Kysely<Database>, id: string, of?: number | Style): Promise<Impact[]> {
	const wardrobe = await Wardrobe.load(db);
	const next =
		of === undefined
			? await frozenDraft(db, id)
			: typeof of === 'number'
				? wardrobe.definition({ style: id, edition: of })
				: of;
	if (!next) throw new NotFoundError(`The style has no edition ${of}.`);
	const looks = new Looks(wardrobe, await loadHouse(db));
	const documents = await db.selectFrom('wears').select('document_id').distinct().where('style_id', '=', id).execute();
	const impacts: Impact[] = [];
	for (const { document_id } of documents) {
		const { name, document, state } = await openById(db, document_id);
		for (const entry of document.tables) {
			const own = state.tables[entry.index];
			if (own?.style !== id) continue;
			const table = stateTable(entry, own);
			const before = wardrobe.definition(own);
			const changes = before
				? countChanges(looks.of(table, before, entry.appearance), looks.of(table, next, entry.appearance))
				: { cells: table.cells.length, edges: 0 };
			impacts.push({
				document: document_id,
				documentName: name,
				index: entry.index,
				title: entry.place.caption ?? `table ${entry.index + 1}`,
				wears: own.edition ?? null,
				pinned: !!own.pinned,
				...changes,
				allCells: table.cells.length
			});
		}
	}
	const size = ({ cells, edges, allCells, pinned }: Impact) => (pinned ? -1 : (cells + edges / 2) / allCells);
	return impacts.sort((a, b) => size(b) - size(a));
}

type Place = Pick<Impact, 'document' | 'index'>;

/** Tables with what they wear, for looking at what another edition would change. */
export async function impactPictures(db: Kysely<Database>, places: readonly Place[]) {
	const wardrobe = await Wardrobe.load(db);
	const house = await loadHouse(db);
	const alone = (style: Style | undefined) => style && selfContained(style, house, findIn(wardrobe.styles));
	const pictures = [];
	for (const { document: id, index } of places) {
		const { document, state } = await openById(db, id);
		const entry = document.tables[index];
		if (!entry) throw new NotFoundError(`There is no table ${index + 1}: the document has ${document.tables.length}.`);
		const own = state.tables[index] ?? {};
		pictures.push({ key: `${id}/${index}`, entry, state: own, before: alone(wardrobe.definition(own)) ?? null });
	}
	return pictures;
}
export const impactPicture = async (db: Kysely<Database>, place: Place) => (await impactPictures(db, [place]))[0]!;

/**
 * Gives an edition to every table of these documents that wears the style and follows: one step of each document, and
 * one roll-out that can be undone as a whole. Returns how many tables took it.
 */
export async function rollOut(
	db: Kysely<Database>,
	id: string,
	edition: number,
	documents: readonly string[]
): Promise<{ id: string; tables: number; documents: number }> {
	return db.transaction().execute(async (trx) => {
		if (!(await listEditions(trx, id)).some(({ number }) => number === edition))
			throw new NotFoundError(`The style has no edition ${edition}.`);
		const { name } = await trx.selectFrom('styles').select('name').where('id', '=', id).executeTakeFirstOrThrow();
		const changes: Record<string, Record<number, TableState>> = {};
		let tables = 0;
		for (const document of new Set(documents)) {
			const found = await trx
				.selectFrom('documents')
				.select('step')
				.where('id', '=', document)
				.forUpdate()
				.executeTakeFirst();
			if (!found) throw new NotFoundError('One of the documents is no longer here.');
			const state = await stateAt(trx, document, found.step);
			const before = Object.fromEntries(
				Object.entries(state.tables).filter(([, own]) => own.style === id && !own.pinned && own.edition !== edition)
			);
			const count = Object.keys(before).length;
			if (!count) continue;
			tables += count;
			changes[document] = before;
			await nextStep(
				trx,
				document,
				`${name}, edition ${edition}`,
				Object.fromEntries(Object.entries(before).map(([index, own]) => [index, { ...own, edition }]))
			);
		}
		if (!tables)
			throw new InputError('rollout', `No table in these documents follows “${name}” and lacks edition ${edition}.`);
		const row = await trx
			.insertInto('rollouts')
			.values({ style_id: id, edition, documents: JSON.stringify(changes) })
			.returning('id')
			.executeTakeFirstOrThrow();
		const count = Object.keys(changes).length;
		await addToLog(
			trx,
			'roll-out',
			`edition ${edition} of “${name}” was rolled out to ${plural(tables, 'table')} in ${plural(count, 'document')}`
		);
		return { id: row.id, tables, documents: count };
	});
}

export interface RolloutRecord {
	readonly id: string;
	readonly edition: number;
	readonly at: string;
	readonly undone: boolean;
	readonly tables: number;
	readonly documents: number;
}

export async function listRollouts(db: Kysely<Database>, id: string): Promise<RolloutRecord[]> {
	const rows = await db
		.selectFrom('rollouts')
		.selectAll()
		.where('style_id', '=', id)
		.orderBy('created_at', 'desc')
		.execute();
	return rows.map((row) => ({
		id: row.id,
		edition: row.edition,
		at: row.created_at.toISOString(),
		undone: row.undone_at !== null,
		tables: Object.values(row.documents).reduce((sum, tables) => sum + Object.keys(tables).length, 0),
		documents: Object.keys(row.documents).length
	}));
}

/** Takes a roll-out back in every document at once. Tables that were given something else since keep that. */
export async function undoRollOut(db: Kysely<Database>, id: string): Promise<{ tables: number; kept: number }> {
	return db.transaction().execute(async (trx) => {
		const rollout = await trx.selectFrom('rollouts').selectAll().where('id', '=', id).forUpdate().executeTakeFirst();
		if (!rollout) throw new NotFoundError('This roll-out is no longer known.');
		if (rollout.undone_at) throw new InputError('rollout', 'This roll-out was taken back already.');
		let tables = 0;
		let kept = 0;
		for (const [document, before] of Object.entries(rollout.documents)) {
			// A document that was taken out meanwhile does not keep the others from going back.
			const found = await trx
				.selectFrom('documents')
				.select('step')
				.where('id', '=', document)
				.where('removed_at', 'is', null)
				.forUpdate()
				.executeTakeFirst();
			if (!found) continue;
			const state = await stateAt(trx, document, found.step);
			const back: Record<number, TableState> = {};
			for (const [index, own] of Object.entries(before)) {
				const now = state.tables[Number(index)];
				if (now?.style !== rollout.style_id || now.edition !== rollout.edition) {
					kept++;
					continue;
				}
				const { edition: _, ...rest } = now;
				back[Number(index)] = own.edition === undefined ? rest : { ...rest, edition: own.edition };
			}
			if (!Object.keys(back).length) continue;
			tables += Object.keys(back).length;
			await nextStep(trx, document, `back from edition ${rollout.edition}`, back);
		}
		await trx
			.updateTable('rollouts')
			.set({ undone_at: sql`now()` })
			.where('id', '=', id)
			.execute();
		await addToLog(
			trx,
			'roll-out',
			`the roll-out of edition ${rollout.edition} to ${plural(tables, 'table')} was taken back`
		);
		return { tables, kept };
	});
}
