import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { bareName, openDocument, type AnyDocument } from '../../formats/index.ts';
import { corrected, shapeOf } from '../../workbench/corrections.ts';
import type { TableState } from '../../workbench/state.ts';
import type { Database } from '../database.ts';
import { recordSpecimens } from '../styles/specimens.ts';
import { importStyle } from '../styles/styles.ts';
import { loadHouse } from '../house/house.ts';
import { checkRoom } from '../house/store.ts';
import { searchedAs } from './languages.ts';
import { factsOf } from './facts.ts';
import { rememberOpened } from './open.ts';
import { recordDrawing, recordWears } from './record.ts';
import { inEditions } from './steps.ts';
import { keepFile } from '../files/files.ts';
import { DOCUMENTS, type Db } from './rows.ts';

/** Corrections of tables of the same shape count for new ones, too; what a file carries itself is not touched. */
async function takeCorrections(db: Db, document: AnyDocument, tables: Record<number, TableState>): Promise<void> {
	const shapes = new Map(document.tables.map((entry) => [entry.index, shapeOf(entry.table)]));
	const known = await db
		.selectFrom('corrections')
		.selectAll()
		.where('shape', 'in', [...new Set(shapes.values())])
		.execute();
	const byShape = new Map(known.map(({ shape, said }) => [shape, said]));
	for (const { index, table, carried } of document.tables) {
		const said = byShape.get(shapes.get(index)!);
		const own = said && !carried ? corrected(table, said) : {};
		if (Object.keys(own).length) tables[index] = { ...tables[index], ...own };
	}
}

/** Takes a file in: read first, stored only when it can be read, all in one transaction. */
export async function addDocument(
	db: Kysely<Database>,
	name: string,
	bytes: Uint8Array<ArrayBuffer>,
	/** What its tables wear from the beginning. */
	worn: Readonly<Record<number, TableState>> = {}
): Promise<{ id: string; imported: string[] }> {
	const document = await openDocument(bytes, name);
	if (document.tables.length === 0 && document.kind !== 'svg')
		throw new InputError(
			'no-table',
			`“${name}” holds no table, so there is nothing to style in it. It was not added.`,
			name
		);
	await checkRoom(db, bytes.length);
	const { id, hash, imported } = await db.transaction().execute(async (trx) => {
		const imported: string[] = [];
		const ids = new Map<string, string>();
		const before = new Set((await trx.selectFrom('styles').select('name').execute()).map(({ name }) => name));
		for (const style of document.styles) {
			ids.set(style.name, await importStyle(trx, style, { reuse: true }));
			if (!before.has(style.name)) imported.push(style.name);
		}
		const tables: Record<number, TableState> = { ...worn };
		for (const { index, carried } of document.tables) {
			const style = carried && ids.get(carried.style);
			if (style) tables[index] = { style };
		}
		if (document.tables.length) await takeCorrections(trx, document, tables);
		const hash = await keepFile(trx, bytes);
		const row = await trx
			.insertInto('documents')
			.values({
				name: bareName(name),
				kind: document.kind,
				file_hash: hash,
				tables: document.tables.length,
				...factsOf(document),
				language: searchedAs((await loadHouse(trx)).locale),
				step: 0
			})
			.returning('id')
			.executeTakeFirstOrThrow();
		const { state } = await inEditions(trx, { tables });
		await DOCUMENTS.write(trx, row.id, 0, [{ label: 'as it came', state }]);
		await recordWears(trx, row.id, state);
		await recordSpecimens(trx, row.id, hash, state, document);
		if (document.kind === 'svg') await recordDrawing(trx, row.id, document);
		return { id: row.id, hash, imported };
	});
	rememberOpened(`${document.kind} ${hash}`, document);
	return { id, imported };
}
