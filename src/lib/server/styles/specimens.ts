import { contentKey } from '../../formats/carried.ts';
import { openAt } from '../documents/open.ts';
import { stateAt, type Db } from '../documents/rows.ts';
import { isUuid } from '../http/requests.ts';

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
		.select(['id', 'name', 'kind', 'file_hash', 'step'])
		.where('removed_at', 'is', null)
		.$if(!!ids, (query) => query.where('id', 'in', ids!))
		.orderBy('created_at')
		.limit(most)
		.execute();
	const specimens = [];
	for (const found of documents) {
		const { id, name, step } = found;
		const state = await stateAt(db, id, step);
		const document = await openAt(db, found, state);
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
