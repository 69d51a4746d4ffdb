import type { Kysely } from 'kysely';
import type { Account, StyleJob, Travel } from '../formats/account.ts';
import { writeAs, type OutKind } from '../formats/index.ts';
import { stateTable } from '../workbench/table.ts';
import type { Database } from './database.ts';
import { documentRow, fileBytes, openFile, stateAt } from './documents.ts';
import { Wardrobe } from './editions.ts';
import { loadHouse } from './house.ts';
import { findIn } from './styles.ts';

/**
 * Writes the document as it stands: in its own format every table that wears a style, everything else as it came; in
 * another format a new file of its headings, text and tables.
 */
export async function writeDocument(
	db: Kysely<Database>,
	id: string,
	to?: OutKind,
	as: Travel = 'living'
): Promise<{ name: string; kind: OutKind; bytes: Uint8Array<ArrayBuffer>; account: Account }> {
	const found = await documentRow(db, id);
	const document = await openFile(db, found);
	const { name } = found;
	const kind = to ?? document.kind;
	const state = await stateAt(db, id, found.step);
	const wardrobe = await Wardrobe.load(db);
	const jobs = document.tables.flatMap((entry): StyleJob[] => {
		const own = state.tables[entry.index];
		const style = own && wardrobe.definition(own);
		return style ? [{ index: entry.index, table: stateTable(entry, own), style }] : [];
	});
	if (jobs.length === 0 && kind === document.kind)
		return {
			name,
			kind,
			bytes: await fileBytes(db, found.file_hash),
			account: { tables: [], remarks: document.remarks }
		};
	const { bytes, account } = await writeAs(kind, document, jobs, {
		house: await loadHouse(db),
		find: findIn(wardrobe.styles),
		as,
		title: name
	});
	return { name, kind, bytes, account };
}
