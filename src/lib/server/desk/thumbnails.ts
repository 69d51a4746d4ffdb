import { isMeantFor, type Place } from '../../workbench/use.ts';
import type { Kysely } from 'kysely';
import { appearanceOf } from '../../core/cascade/look.ts';
import { resolve } from '../../core/cascade/resolve.ts';
import { InputError } from '../../core/errors.ts';
import type { House } from '../../core/house.ts';
import { ONLY_TEXT, OWN_LOOK } from '../../core/style/bare.ts';
import { flatten, type FlatStyle } from '../../core/style/inherit.ts';
import { ASPECTS } from '../../core/style/types.ts';
import type { DocumentTable } from '../../formats/document.ts';
import type { TableState } from '../../workbench/state.ts';
import { stateTable, touchedTable } from '../../workbench/table.ts';
import { thumbnailOf, type Thumbnail } from '../../workbench/thumbnail.ts';
import type { Database } from '../database.ts';
import { openAt } from '../documents/open.ts';
import { documentRow, stateAt } from '../documents/rows.ts';
import { loadHouse } from '../house/house.ts';
import { isLeftOut, leftOutWords } from '../../core/recognise/purpose/kinds.ts';
import type { DocumentState } from '../../workbench/state.ts';
import { purposeOf } from '../../workbench/table.ts';
import type { RunWish } from '../runs/runs.ts';
import { Wardrobe } from '../styles/editions.ts';
import { findIn } from '../styles/styles.ts';

type Db = Kysely<Database>;

/** What a document's tables look like, by its id; made anew only for those that were changed since, and then kept. */
export async function thumbnailsOf(db: Db, ids: readonly string[]): Promise<Map<string, Thumbnail | null>> {
	const pictures = new Map<string, Thumbnail | null>();
	if (!ids.length) return pictures;
	const kept = await db
		.selectFrom('documents')
		.leftJoin('thumbnails', 'thumbnails.document_id', 'documents.id')
		.select(['documents.id', 'documents.version', 'thumbnails.version as of', 'picture'])
		.where('documents.id', 'in', [...ids])
		.execute();
	for (const { id, version, of, picture } of kept) {
		if (of === version) {
			pictures.set(id, picture);
			continue;
		}
		const made = await drawThumbnail(db, id).catch(readable);
		pictures.set(id, made ?? null);
		// What failed for the moment only is tried again.
		if (made === undefined) continue;
		await db
			.insertInto('thumbnails')
			.values({ document_id: id, version, picture: made && JSON.stringify(made) })
			.onConflict((conflict) =>
				conflict.column('document_id').doUpdateSet({ version, picture: made && JSON.stringify(made) })
			)
			.execute();
	}
	return pictures;
}

/** A document that cannot be opened says why on its own page: null where its file is to blame, undefined where anything else is. */
const readable = (error: unknown): null | undefined => (error instanceof InputError ? null : undefined);

/** Nothing but text, and the look that a table came with, under its touches. */
const BARE = flatten(ONLY_TEXT);
const OWN = flatten(OWN_LOOK);

/** Tables are seen in what they wear, or in another style in its place. */
class Dresser {
	private constructor(
		private readonly wardrobe: Wardrobe,
		private readonly house: House
	) {}
	static async of(db: Db): Promise<Dresser> {
		return new Dresser(await Wardrobe.load(db), await loadHouse(db));
	}

	/** Styles that tables of some documents can be given, each as its tables would wear it. */
	offered(places: readonly Place[]): { id: string; name: string; style: FlatStyle }[] {
		return this.wardrobe
			.offered()
			.filter(({ aside, use }) => !aside && places.some((place) => isMeantFor(use, place)))
			.map(({ id, definition }) => ({ id, name: definition.name, style: this.flat(definition) }));
	}
	private flat(definition: Parameters<typeof flatten>[0]): FlatStyle {
		return flatten(definition, findIn(this.wardrobe.styles));
	}

	picture(entry: DocumentTable, state: TableState | undefined, instead?: FlatStyle): Thumbnail {
		const { cleared, ...rest } = state ?? {};
		const own = rest.style ? this.wardrobe.definition(rest) : undefined;
		const worn = instead ?? (own && this.flat(own));
		const isBare = !worn && !!cleared;
		const touched = worn || isBare ? undefined : touchedTable(entry, rest);
		const table =
			touched ?? stateTable(entry, { ...rest, ...(isBare && { carry: ASPECTS, partsOff: [], touches: [] }) });
		const style = worn ?? (isBare ? BARE : touched ? OWN : undefined);
		const appearance = style ? appearanceOf(resolve(table, style, this.house), entry.appearance) : entry.appearance;
		return thumbnailOf(entry.place.caption ?? '', table, appearance, entry.widths);
	}
}

async function tablesOf(db: Db, id: string) {
	const found = await documentRow(db, id);
	const state = await stateAt(db, id, found.step);
	const { tables } = await openAt(db, found, state);
	const outer = tables.filter(({ place }) => place.where !== 'nested');
	return { name: found.name, state, tables: outer.length ? outer : tables };
}

/** The first table of a document that says something, as it looks now; null where it has none. */
async function drawThumbnail(db: Db, id: string): Promise<Thumbnail | null> {
	const { tables, state } = await tablesOf(db, id);
	const entry = tables.find(({ table }) => table.rows > 1 && table.columns > 1) ?? tables[0];
	return entry ? (await Dresser.of(db)).picture(entry, state.tables[entry.index]) : null;
}

/** So many styles are offered by a picture, and so many documents and tables of each are seen before a run. */
const STYLES = 60;
const DOCUMENTS = 6;
const TABLES = 4;

/** What a run would do, before it is begun: styles on a table of the first document, and the documents' tables before and after. */
export async function previewRun(db: Db, { style, documents, takesAll, ...settings }: RunWish) {
	const dresser = await Dresser.of(db);
	const places = await db
		.selectFrom('documents')
		.select(['id', 'kind'])
		.where('id', 'in', [...documents])
		.execute();
	const offered = dresser.offered(places);
	const chosen = offered.find(({ id }) => id === style)?.style;
	// One that cannot be opened does not keep the others from being seen; the run says why it failed.
	const found = await Promise.all(documents.slice(0, DOCUMENTS).map((id) => tablesOf(db, id).catch(() => undefined)));
	const isLeft = (entry: DocumentTable, state: DocumentState) =>
		!takesAll && isLeftOut(purposeOf(entry, state.tables[entry.index]));
	const opened = found.flatMap((one) =>
		one
			? [
					{
						...one,
						tables: one.tables.filter((entry) => !isLeft(entry, one.state)),
						left: one.tables.filter((entry) => isLeft(entry, one.state))
					}
				]
			: []
	);
	const first = opened.find(({ tables }) => tables.length);
	const [sample] = first?.tables ?? [];
	return {
		styles: sample
			? offered.slice(0, STYLES).map((one) => ({
					id: one.id,
					name: one.name,
					picture: dresser.picture(sample, first!.state.tables[sample.index], one.style)
				}))
			: [],
		documents: opened.map(({ name, tables, state, left }) => ({
			name,
			/** Which it leaves as they are, in words. */
			left: leftOutWords(left.map((entry) => purposeOf(entry, state.tables[entry.index]))) ?? null,
			more: Math.max(0, tables.length - TABLES),
			tables: tables.slice(0, TABLES).map((entry) => {
				const own = state.tables[entry.index];
				return {
					index: entry.index,
					before: dresser.picture(entry, own),
					after: dresser.picture(entry, { ...own, ...settings }, chosen)
				};
			})
		}))
	};
}
