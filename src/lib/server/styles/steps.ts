import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { NO_HOUSE, nowCalled, type House } from '../../core/house.ts';
import { mergedLeaves, same } from '../../core/merge.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { mapInks, mapTypeRoles, pushUp } from '../../core/style/edit.ts';
import { baseChain } from '../../core/style/inherit.ts';
import { partWords } from '../../core/style/parts.ts';
import type { Style } from '../../core/style/types.ts';
import { checkStyle } from '../../core/style/validate.ts';
import { leafWords } from '../../core/style/words.ts';
import type { Along } from '../../workbench/stylebook.ts';
import type { Database } from '../database.ts';
import { BY, type StepInfo } from '../history.ts';
import { assertNameFree, findIn, listStyles, STYLES, styleRow } from './styles.ts';

type Db = Kysely<Database> | Transaction<Database>;

/** So many steps, at most, can be gone back after a page is loaded anew. */
const STEPS_KEPT = 200;

/** A style with the inks and type roles that it names, and does not define itself, under the names that they have now. */
const inNamesOf = ({ inks, typeRoles, former }: House, style: Style): Style => {
	const of =
		<T>(has: Readonly<Record<string, T>>, was: Readonly<Record<string, string | T>> | undefined, own = {}) =>
		(name: string) =>
			Object.hasOwn(own, name) ? name : nowCalled(has, was, name);
	return mapTypeRoles(
		mapInks(style, of(inks, former?.inks, style.inks)),
		of(typeRoles, former?.typeRoles, style.typeRoles)
	);
};
const houseNames = async (db: Db): Promise<House> =>
	(await db.selectFrom('houses').select(['inks', 'type_roles as typeRoles', 'former']).executeTakeFirst()) ?? NO_HOUSE;

export interface StyleStep extends Pick<StepInfo, 'label' | 'by' | 'when'> {
	readonly definition: Style;
}

/** The steps that undo and redo go through, the newest 200; `first` is the number of the first of them. */
export async function loadStyleSteps(
	db: Db,
	id: string
): Promise<{ version: number; first: number; at: number; steps: StyleStep[] }> {
	const { step, version } = await styleRow(db, id);
	const house = await houseNames(db);
	const rows = await db
		.selectFrom('style_steps')
		.select(['step', 'label', 'definition', BY.as('made_by'), 'created_at'])
		.where('style_id', '=', id)
		.where('step', '>', step - STEPS_KEPT)
		.orderBy('step')
		.execute();
	return {
		version,
		first: rows[0]?.step ?? 0,
		at: step,
		steps: rows.map(({ label, definition, made_by, created_at }) => ({
			label,
			definition: inNamesOf(house, definition),
			by: made_by,
			when: created_at.toISOString()
		}))
	};
}

/** Makes a style's draft what the step says that it stands at from now on. Answers its new version. */
async function standAt(trx: Transaction<Database>, id: string, definition: Style, step: number): Promise<number> {
	await assertNameFree(trx, definition.name, id);
	const all = await listStyles(trx);
	baseChain(definition, findIn(all.map((record) => (record.id === id ? { ...record, definition } : record))));
	await trx
		.updateTable('styles')
		.set({
			name: definition.name,
			based_on: definition.basedOn ?? null,
			definition: JSON.stringify(definition),
			updated_at: sql`now()`
		})
		.where('id', '=', id)
		.execute();
	return STYLES.stand(trx, id, step);
}

export interface Saved {
	readonly version: number;
	/** Names of other styles that were moved along. */
	readonly along: readonly string[];
}

/**
 * Saves what an editor did since the version that it saw: its steps from number `from` on are `steps` now, and the
 * style stands at step `at`. What steps that are taken back or done again changed in other styles goes with them. Throws
 * ConflictError where somebody saved first; nothing is stored then.
 */
export async function saveStyle(
	db: Kysely<Database>,
	id: string,
	{
		version,
		from,
		at,
		steps
	}: { version: number; from: number; at: number; steps: readonly { label: string; definition: unknown }[] }
): Promise<Saved> {
	const checked = steps.map(({ label, definition }, i) => {
		try {
			return { label, state: canonicalStyle(checkStyle(definition)) };
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			throw new InputError(error.code, error.message, `/steps/${i}${error.where ?? ''}`);
		}
	});
	return db.transaction().execute(async (trx) => {
		const { step } = await STYLES.lock(trx, id, version);
		const along = await moveWithSteps(trx, id, step, checked.length ? Math.min(at, from - 1) : at);
		await STYLES.write(trx, id, from, checked);
		const definition = inNamesOf(await houseNames(trx), await STYLES.stateAt(trx, id, at));
		return { version: await standAt(trx, id, definition, at), along };
	});
}

/** Adds one step to a style from outside its bench (an ink renamed, a base pushed up to); `along`: what it changes in others. */
export async function addStyleStep(
	trx: Transaction<Database>,
	id: string,
	label: string,
	definition: Style,
	along?: Along
): Promise<number> {
	const next = (await STYLES.lock(trx, id)).step + 1;
	const state = canonicalStyle(checkStyle(definition));
	await STYLES.write(trx, id, next, [{ label, state, ...(along && { more: { along: JSON.stringify(along) } }) }]);
	return standAt(trx, id, state, next);
}

/**
 * Takes back, or does again, what was changed in styles together with something else, as a step of each; what was changed
 * in them since stays as it is, leaf by leaf. Returns their names; styles that are gone are passed over.
 */
export async function moveAlong(
	trx: Transaction<Database>,
	label: string,
	along: Along,
	isUndo: boolean
): Promise<string[]> {
	const moved: string[] = [];
	for (const [id, { before, after }] of Object.entries(along)) {
		const style = await trx.selectFrom('styles').select(['name', 'definition']).where('id', '=', id).executeTakeFirst();
		if (!style) continue;
		const [from, into] = isUndo ? [after, before] : [before, after];
		const now = canonicalStyle(style.definition);
		const next = mergedLeaves(canonicalStyle(from), now, canonicalStyle(into)).mine;
		if (same(next, now)) continue;
		await addStyleStep(trx, id, isUndo ? `back: ${label}` : label, next);
		moved.push(style.name);
	}
	return moved;
}

/** Moves along what the steps changed in other styles that a style passes on its way from one step to another. */
async function moveWithSteps(trx: Transaction<Database>, id: string, from: number, to: number): Promise<string[]> {
	const isUndo = to < from;
	const passed = await trx
		.selectFrom('style_steps')
		.select(['label', 'along'])
		.where('style_id', '=', id)
		.where('along', 'is not', null)
		.where('step', '>', Math.min(from, to))
		.where('step', '<=', Math.max(from, to))
		.orderBy('step', isUndo ? 'desc' : 'asc')
		.execute();
	const moved = new Set<string>();
	for (const { label, along } of passed)
		for (const name of await moveAlong(trx, label, along!, isUndo)) moved.add(name);
	return [...moved];
}

/** Moves the leaf that a style sets at a place to the style that it builds on, as one step of each. */
export async function pushUpLeaf(
	db: Kysely<Database>,
	id: string,
	version: number,
	place: string,
	path: string
): Promise<{ base: string }> {
	return db.transaction().execute(async (trx) => {
		await STYLES.lock(trx, id, version);
		const row = await styleRow(trx, id);
		if (!row.based_on)
			throw new InputError('base', `“${row.name}” builds on nothing, so there is nothing to push up to.`);
		await STYLES.lock(trx, row.based_on);
		const base = await styleRow(trx, row.based_on);
		const pushed = pushUp(row.definition, base.definition, place, path);
		const label = `${partWords(place)}: ${leafWords(path)}`;
		const inBase = { [base.id]: { before: base.definition, after: pushed.base } };
		const inStyle = { [id]: { before: row.definition, after: pushed.style } };
		await addStyleStep(trx, base.id, `${label}, pushed up from ${row.name}`, pushed.base, inStyle);
		await addStyleStep(trx, id, `${label} pushed up to ${base.name}`, pushed.style, inBase);
		return { base: base.name };
	});
}
