import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { lift, type Lifted } from '../../core/lift/lift.ts';
import { ALIKE, distance, portrait } from '../../core/lift/likeness.ts';
import type { DocumentTable } from '../../formats/document.ts';
import { stateTable } from '../../workbench/table.ts';
import { inTransaction, type Database } from '../database.ts';
import { addStep } from '../documents/steps.ts';
import { openById } from '../documents/open.ts';
import { loadHouse } from '../house/house.ts';
import { freeName, insertStyle } from './styles.ts';

function tableAt(tables: readonly DocumentTable[], index: number): DocumentTable {
	const entry = tables[index];
	if (!entry)
		throw new InputError('request', `There is no table ${index + 1}: the document has ${tables.length}.`, '/table');
	return entry;
}

/** The tables of a document that look, in their file, like one of them; that one included. */
export async function alikeTables(db: Kysely<Database>, id: string, index: number): Promise<number[]> {
	const { document } = await openById(db, id);
	const model = tableAt(document.tables, index);
	const own = portrait(model.table, model.appearance);
	return document.tables
		.filter(({ table, appearance }) => distance(own, portrait(table, appearance)) <= ALIKE)
		.map((entry) => entry.index);
}

/** What lifting a style from a table would give: how much of it the style says, and what is left over. */
export async function previewLift(db: Kysely<Database>, id: string, index: number): Promise<Lifted> {
	const { document, state } = await openById(db, id);
	const entry = tableAt(document.tables, index);
	const { style: _style, touches: _touches, ...own } = state.tables[index] ?? {};
	return lift(stateTable(entry, own), entry.appearance, await loadHouse(db), 'lifted');
}

/** Lifts a style into the Stylebook; with `wear`, the table wears it at once, with what is left over as touches. */
export async function liftStyle(
	db: Kysely<Database>,
	id: string,
	{ table: index, name, wear, version }: { table: number; name: string; wear: boolean; version: number }
) {
	return inTransaction(db, async (trx) => {
		const { document, state } = await openById(trx, id);
		const entry = tableAt(document.tables, index);
		const {
			style: _style,
			touches: _touches,
			edition: _edition,
			pinned: _pinned,
			cleared: _cleared,
			...own
		} = state.tables[index] ?? {};
		const house = await loadHouse(trx);
		const fresh = await freeName(trx, name.trim());
		const { style, touches } = lift(stateTable(entry, own), entry.appearance, house, fresh);
		const styleId = await insertStyle(trx, style);
		const step = wear
			? await addStep(trx, id, version, `${fresh}, lifted from table ${index + 1}`, {
					[index]: { ...own, style: styleId, ...(touches.length && { touches }) }
				})
			: undefined;
		return { id: styleId, name: fresh, ...(step && { step }) };
	});
}
