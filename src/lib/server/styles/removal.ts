import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { plural, pluralWord } from '../../core/words.ts';
import type { Wears } from '../../core/work/table.ts';
import { mapTables, wornInstead, type TableState } from '../../workbench/state.ts';
import type { Database } from '../database.ts';
import { addToLog } from '../house/log.ts';
import { worksRewritten } from '../documents/replay.ts';
import { DOCUMENTS, stateAt } from '../documents/rows.ts';
import { editionToWear } from './editions.ts';
import { loadStyle } from './styles.ts';

/** Removes a style. Where tables wear it, a replacement must be named, and they wear that from then on, as one undoable step each. */
export async function removeStyle(db: Kysely<Database>, id: string, replacement?: string): Promise<void> {
	await db.transaction().execute(async (trx) => {
		const style = await loadStyle(trx, id);
		const { name } = style.definition;
		let instead: Wears = {};
		if (style.basesOf.length)
			throw new InputError(
				'worn',
				`“${name}” cannot be removed while ${style.basesOf.map((base) => `“${base}”`).join(', ')} ${pluralWord(style.basesOf.length, 'builds', 'build')} on it.`
			);
		if (style.worn.tables > 0) {
			if (replacement === undefined)
				throw new InputError(
					'worn',
					`${plural(style.worn.tables, 'table')} in ${plural(style.worn.documents, 'document')} ${pluralWord(style.worn.tables, 'wears', 'wear')} “${name}”. Say which style is worn instead.`
				);
			if (replacement === id) throw new InputError('worn', 'A style cannot replace itself.');
			const next = await loadStyle(trx, replacement);
			instead = { style: replacement, edition: (await editionToWear(trx, replacement)).number };
			await putOnInstead(trx, id, instead, `${next.definition.name} instead of ${name}`);
		}
		await forgetStyle(trx, id, instead);
		await trx.deleteFrom('styles').where('id', '=', id).execute();
		await addToLog(trx, 'removal', `the style “${name}” was removed for good`);
	});
}

/** Every table that wears the style wears `instead` from now on: a step of each document, after the one that it stands at. */
async function putOnInstead(trx: Transaction<Database>, id: string, instead: Wears, label: string): Promise<void> {
	const documents = await trx
		.selectFrom('wears')
		.select('document_id')
		.distinct()
		.where('style_id', '=', id)
		.orderBy('document_id')
		.execute();
	for (const { document_id: document } of documents) {
		const standing = await DOCUMENTS.lock(trx, document);
		const next = mapTables(await stateAt(trx, document, standing.step), (own) => wornInstead(own, id, instead));
		await DOCUMENTS.add(trx, document, standing, label, next);
		await trx
			.updateTable('documents')
			.set({ updated_at: sql`now()` })
			.where('id', '=', document)
			.execute();
	}
	await trx
		.updateTable('wears')
		.set({ style_id: instead.style!, edition: instead.edition ?? null })
		.where('style_id', '=', id)
		.execute();
}

/**
 * Whatever still names the style names `instead` (or nothing): older steps of documents, work on tables, starters, runs
 * and roll-outs that can be taken back.
 */
async function forgetStyle(trx: Transaction<Database>, id: string, instead: Wears): Promise<void> {
	const naming = (column: string) => sql<boolean>`${sql.ref(column)}::text like ${`%${id}%`}`;
	const ofTables = (tables: Readonly<Record<number, TableState>>) =>
		mapTables({ tables }, (own) => wornInstead(own, id, instead)).tables;
	const ofWork = <T extends { readonly wears?: Wears }>(work: T): T =>
		work.wears ? { ...work, wears: wornInstead(work.wears, id, instead) } : work;

	for (const { document_id, step, state } of await trx
		.selectFrom('document_steps')
		.select(['document_id', 'step', 'state'])
		.where(naming('state'))
		.execute())
		await trx
			.updateTable('document_steps')
			.set({ state: JSON.stringify(mapTables(state, (own) => wornInstead(own, id, instead))) })
			.where('document_id', '=', document_id)
			.where('step', '=', step)
			.execute();
	const works = await trx
		.selectFrom('work_steps')
		.select(['id', 'patch', 'whole'])
		.where((eb) => eb.or([naming('patch'), naming('whole')]))
		.execute();
	for (const { id: step, patch, whole } of works)
		await trx
			.updateTable('work_steps')
			.set({
				patch: patch && JSON.stringify(patch.rest ? { ...patch, rest: ofWork(patch.rest) } : patch),
				whole: whole && JSON.stringify(ofWork(whole))
			})
			.where('id', '=', step)
			.execute();
	if (works.length) await worksRewritten(trx);
	for (const { id: starter, wears } of await trx
		.selectFrom('starters')
		.select(['id', 'wears'])
		.where(naming('wears'))
		.execute())
		await trx
			.updateTable('starters')
			.set({ wears: JSON.stringify(wornInstead(wears, id, instead)) })
			.where('id', '=', starter)
			.execute();
	for (const { id: rollout, documents } of await trx
		.selectFrom('rollouts')
		.select(['id', 'documents'])
		.where('style_id', '!=', id)
		.where(naming('documents'))
		.execute())
		await trx
			.updateTable('rollouts')
			.set({
				documents: JSON.stringify(
					Object.fromEntries(Object.entries(documents).map(([document, tables]) => [document, ofTables(tables)]))
				)
			})
			.where('id', '=', rollout)
			.execute();
	for (const { run_id, document_id, before } of await trx
		.selectFrom('run_items')
		.select(['run_id', 'document_id', 'before'])
		.where(naming('before'))
		.execute())
		if (before && !('rows' in before))
			await trx
				.updateTable('run_items')
				.set({ before: JSON.stringify(ofTables(before as Record<number, TableState>)) })
				.where('run_id', '=', run_id)
				.where('document_id', '=', document_id)
				.execute();
}
