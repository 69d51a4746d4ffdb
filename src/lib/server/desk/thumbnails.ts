import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Thumbnail } from '../../workbench/thumbnail.ts';
import type { Database } from '../database.ts';
import { openAt } from '../documents/open.ts';
import { documentRow, stateAt } from '../documents/rows.ts';
import { Dresser } from '../styles/dresser.ts';

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
				conflict.columns(['house_id', 'document_id']).doUpdateSet({ version, picture: made && JSON.stringify(made) })
			)
			.execute();
	}
	return pictures;
}

/** A document that cannot be opened says why on its own page: null where its file is to blame, undefined where anything else is. */
const readable = (error: unknown): null | undefined => (error instanceof InputError ? null : undefined);

/** A document's tables but for those inside others, as they stand. */
async function outerTables(db: Db, id: string) {
	const found = await documentRow(db, id);
	const state = await stateAt(db, id, found.step);
	const { tables } = await openAt(db, found, state);
	const outer = tables.filter(({ place }) => place.where !== 'nested');
	return { name: found.name, state, tables: outer.length ? outer : tables };
}

/** The first table of a document that says something, as it looks now; null where it has none. */
async function drawThumbnail(db: Db, id: string): Promise<Thumbnail | null> {
	const { tables, state } = await outerTables(db, id);
	const entry = tables.find(({ table }) => table.rows > 1 && table.columns > 1) ?? tables[0];
	return entry ? (await Dresser.of(db)).picture(entry, state.tables[entry.index]) : null;
}
