import type { Kysely } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { pairTables, type TablePair } from '../../core/pair/tables.ts';
import { plural, pluralWord } from '../../core/words.ts';
import type { DocumentTable } from '../../formats/document.ts';
import { openDocument } from '../../formats/index.ts';
import { goneWith, indicesAfter } from '../../formats/row-cells.ts';
import { saidPairs, takenOver } from '../../workbench/newer.ts';
import type { DocumentState, TableState } from '../../workbench/state.ts';
import type { Database } from '../database.ts';
import { keepFile } from '../files/files.ts';
import { checkRoom } from '../house/store.ts';
import { importStyle } from '../styles/styles.ts';
import { fileAt, openAt, openFile, rememberOpened } from './open.ts';
import { documentRow, DOCUMENTS, stateAt, stepsOf, type Db } from './rows.ts';
import { putStep } from './steps.ts';

/** Which table of the document as it stands is which of the newer file, as somebody said it. */
export type SaidPairs = readonly (readonly [old: number, now: number])[];

/** A document as it stands and a newer file of it, with which table is which. */
async function beside(db: Db, id: string, name: string, bytes: Uint8Array<ArrayBuffer>, said?: SaidPairs) {
	const found = await documentRow(db, id);
	if (found.kind === 'svg')
		throw new InputError('request', 'A newer file of a drawing is put in its place on the page of its sheet.');
	const newer = await openDocument(bytes, name);
	if (newer.kind !== found.kind)
		throw new InputError(
			'another-kind',
			`“${name}” is ${newer.kind.toUpperCase()}, and “${found.name}” is ${found.kind.toUpperCase()}. A newer file is one of the same kind; add this one beside it instead.`,
			name
		);
	if (newer.tables.length === 0)
		throw new InputError('no-table', `“${name}” holds no table. “${found.name}” stays as it is.`, name);
	const state = await stateAt(db, id, found.step);
	const document = await openAt(db, found, state);
	const pairing = pairTables(document.tables, newer.tables);
	if (!said && pairing.pairs.length === 0)
		throw new InputError(
			'another-document',
			`No table of “${name}” is like one of “${found.name}”: it seems to be another document. Add it beside this one instead.`,
			name
		);
	const pairs = said ? saidPairs(pairing, checkedPairs(said, document.tables, newer.tables)) : pairing.pairs;
	// What was taken out of the old file is not to come back with the newer one.
	const raw = state.gone?.length ? (await openFile(db, { ...found, file_hash: fileAt(found, state) })).tables : [];
	const out = (state.gone ?? []).flatMap((index) => raw[index] ?? []);
	const open = newer.tables.filter(({ index }) => !pairs.some((pair) => pair.new === index));
	const goneAgain = pairTables(out, open).pairs.map((pair) => open[pair.new]!.index);
	return { found, newer, state, document, pairs, goneAgain };
}

function checkedPairs(said: SaidPairs, old: readonly DocumentTable[], now: readonly DocumentTable[]): SaidPairs {
	const isOnce = (side: 0 | 1) => new Set(said.map((pair) => pair[side])).size === said.length;
	if (!isOnce(0) || !isOnce(1) || said.some(([a, b]) => !old[a] || !now[b]))
		throw new InputError('request', 'A table is paired twice, or with one that is not there.', '/pairs');
	return said;
}

const nameOf = ({ index, place }: DocumentTable): string => place.caption ?? place.heading ?? `table ${index + 1}`;

/** What putting a newer file in the place of a document's would do: which table is which, and what comes along. */
export async function previewNewer(db: Db, id: string, name: string, bytes: Uint8Array<ArrayBuffer>, said?: SaidPairs) {
	const { newer, state, document, pairs, goneAgain } = await beside(db, id, name, bytes, said);
	const taken = takenOver(document.tables, newer.tables, (index) => state.tables[index], pairs);
	return {
		old: document.tables.map((entry) => ({ name: nameOf(entry), isStyled: !!state.tables[entry.index]?.style })),
		new: newer.tables.map((entry) => nameOf(entry)),
		pairs: pairs.map((pair: TablePair, i) => {
			const { changes, left } = taken[i]!;
			const count = { added: changes.added.length, gone: changes.gone.length, changed: changes.changed.length };
			return { ...pair, rows: count, left };
		}),
		takenOut: goneAgain,
		remarks: leftBehind(state)
	};
}

/** What of a document's state is in its file alone, and stays in the step before. */
function leftBehind({ added }: DocumentState): string[] {
	const count = added?.length ?? 0;
	return count
		? [
				`${plural(count, 'table')} that ${pluralWord(count, 'was', 'were')} put in here ${pluralWord(count, 'stays', 'stay')} in the step before.`
			]
		: [];
}

/**
 * Puts a newer file in the place of a document's, as one step that can be undone: its tables wear and are what those that they
 * were did, as far as rows, columns and cells are still there. Throws ConflictError where somebody else saved in the meantime,
 * InputError for a file of another kind or document.
 */
export async function putNewer(
	db: Kysely<Database>,
	id: string,
	seen: number,
	{
		name,
		bytes,
		pairs: said
	}: { readonly name: string; readonly bytes: Uint8Array<ArrayBuffer>; readonly pairs?: SaidPairs }
) {
	await checkRoom(db, bytes.length);
	return db.transaction().execute(async (trx) => {
		const standing = await DOCUMENTS.lock(trx, id, seen);
		const { newer, state, document, pairs, goneAgain } = await beside(trx, id, name, bytes, said);
		const styles = new Map<string, string>();
		for (const style of newer.styles) styles.set(style.name, await importStyle(trx, style, { reuse: true }));
		const gone = goneWith(newer.tables, goneAgain);
		const { moved } = indicesAfter(newer, [], gone);
		const tables: Record<number, TableState> = {};
		for (const { index, carried } of newer.tables) {
			const style = carried && styles.get(carried.style);
			const at = moved(index);
			if (style && at !== undefined) tables[at] = { style };
		}
		for (const one of takenOver(document.tables, newer.tables, (index) => state.tables[index], pairs)) {
			const at = moved(one.new);
			if (at !== undefined && Object.keys(one.own).length) tables[at] = one.own;
		}
		const hash = await keepFile(trx, bytes);
		rememberOpened(`${newer.kind} ${hash}`, newer);
		const next: DocumentState = { tables, file: hash, ...(goneAgain.length && { gone: goneAgain }) };
		const now = await putStep(trx, id, standing, `newer file: ${name}`, next);
		return { ...now, steps: await stepsOf(trx, id), tables: pairs.length };
	});
}
