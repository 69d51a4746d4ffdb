import { sql, type Kysely } from 'kysely';
import { findLowContrast } from '../../core/findings/contrast.ts';
import { leftOutWords } from '../../core/recognise/purpose/kinds.ts';
import type { FlatStyle } from '../../core/style/inherit.ts';
import type { DocumentTable } from '../../formats/document.ts';
import type { TableState } from '../../workbench/state.ts';
import { purposeOf } from '../../workbench/table.ts';
import type { Database } from '../database.ts';
import { openById } from '../documents/open.ts';
import { Dresser } from '../styles/dresser.ts';
import { deedOf, tablesOfRun } from './deeds/index.ts';
import { touchCells, touchesAfter } from './deeds/touch.ts';
import { plannedRun, type RunWish } from './runs.ts';

/** So many styles are offered by a picture, and so many documents and tables of each are seen before a run. */
const STYLES = 60;
const DOCUMENTS = 6;
const TABLES = 4;

/** What a run would do, before it is begun: styles on a table of the first document, and the documents' tables before and after. */
export async function previewRun(db: Kysely<Database>, wish: RunWish) {
	const { name, settings, documents, only } = await plannedRun(db, wish);
	const dresser = await Dresser.of(db);
	const places = await db
		.selectFrom('documents')
		.select(['id', 'kind'])
		.where('id', '=', sql<string>`any(${documents}::uuid[])`)
		.execute();
	const offered = wish.style === undefined ? [] : dresser.offered(places);
	const chosen = offered.find(({ id }) => id === wish.style)?.style;
	const touches = deedOf(settings) === touchCells;
	/** A table as it would be, and whether there is text in it that is hard to read, and is not now; nothing where it stays. */
	const after = (entry: DocumentTable, own: TableState | undefined) => {
		const touched = touches ? touchesAfter(dresser, settings, entry, own) : undefined;
		if (touches && !touched) return {};
		const next = touched ? { ...own, touches: touched } : { ...own, ...settings };
		const hard = (state: TableState | undefined, style?: FlatStyle) => {
			const { table, appearance } = dresser.seen(entry, state, style);
			return findLowContrast(table, appearance).length;
		};
		return { after: dresser.picture(entry, next, chosen), isHard: hard(next, chosen) > hard(own) };
	};
	// One that cannot be opened does not keep the others from being seen; the run says why it failed.
	const opened = await Promise.all(
		documents.slice(0, DOCUMENTS).map((id) =>
			openById(db, id).then(
				(of) => ({ ...of, tables: tablesOfRun({ ...of, only: only?.get(id) ?? null }, settings) }),
				() => undefined
			)
		)
	);
	const found = opened.flatMap((one) => one ?? []);
	const first = found.find(({ tables }) => tables.length);
	const [sample] = first?.tables ?? [];
	return {
		name,
		documents: documents.length,
		tables: only && [...only.values()].reduce((sum, list) => sum + list.length, 0),
		styles: sample
			? offered.slice(0, STYLES).map(({ id, name, style }) => ({
					id,
					name,
					picture: dresser.picture(sample, first!.state.tables[sample.index], style)
				}))
			: [],
		shown: found.map(({ name, document, tables, state }) => ({
			name,
			/** Which it leaves as they are, in words; where tables were chosen, nothing is said of the others. */
			left: only
				? null
				: (leftOutWords(
						document.tables.flatMap((entry) =>
							tables.includes(entry) ? [] : [purposeOf(entry, state.tables[entry.index])]
						)
					) ?? null),
			more: Math.max(0, tables.length - TABLES),
			tables: tables.slice(0, TABLES).map((entry) => {
				const own = state.tables[entry.index];
				return { index: entry.index, before: dresser.picture(entry, own), ...after(entry, own) };
			})
		}))
	};
}
