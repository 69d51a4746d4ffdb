import type { Kysely, Transaction } from 'kysely';
import { InputError } from '../core/errors.ts';
import { FIRST_HOUSE } from '../core/house.ts';
import { canonicalStyle } from '../core/style/canonical.ts';
import { mapInks, mapTypeRoles } from '../core/style/edit.ts';
import type { Style } from '../core/style/types.ts';
import { checkStyle } from '../core/style/validate.ts';
import { LOCALES, type HouseState } from '../workbench/house.ts';
import { ConflictError } from './answers.ts';
import type { Database } from './database.ts';
import { addStyleStep } from './styles.ts';

type Db = Kysely<Database> | Transaction<Database>;

export interface HouseRecord extends HouseState {
	readonly name: string;
	readonly version: number;
	readonly step: number;
}

export interface HouseStep {
	readonly step: number;
	readonly label: string;
}

/** What a house is called before it has a name. */
const NEW_HOUSE = 'New house';

const byName = <T>(record: Record<string, T>): Record<string, T> =>
	Object.fromEntries(Object.entries(record).sort(([a], [b]) => a.localeCompare(b)));

/** The house, made with its first inks and type roles where there is none yet. */
export async function loadHouse(db: Db): Promise<HouseRecord> {
	const row = await db.selectFrom('houses').selectAll().where('id', '=', 1).executeTakeFirst();
	if (row) {
		const { name, inks, type_roles: typeRoles, locale, version, step } = row;
		return { name, inks: byName(inks), typeRoles: byName(typeRoles), locale, version, step };
	}
	const name = NEW_HOUSE;
	const state: HouseState = { ...FIRST_HOUSE, locale: 'en-GB' };
	await db
		.insertInto('houses')
		.values({ id: 1, name, inks: JSON.stringify(state.inks), type_roles: JSON.stringify(state.typeRoles) })
		.onConflict((conflict) => conflict.doNothing())
		.execute();
	return { name, ...state, version: 1, step: 0 };
}

export async function houseSteps(db: Db): Promise<HouseStep[]> {
	return db.selectFrom('house_steps').select(['step', 'label']).orderBy('step').execute();
}

/** Inks and type roles are checked as those of a style are. Throws InputError with the place. */
function checkState(state: {
	inks: Record<string, unknown>;
	typeRoles: Record<string, unknown>;
	locale: string;
}): HouseState {
	const { inks = {}, typeRoles = {} } = checkStyle({
		format: 'heptarch-style',
		version: 1,
		name: 'the house',
		inks: state.inks,
		typeRoles: state.typeRoles,
		parts: {}
	});
	if (!LOCALES.includes(state.locale as (typeof LOCALES)[number]))
		throw new InputError('request', `“${state.locale}” is not one of the locales to choose from.`, '/state/locale');
	return { inks, typeRoles, locale: state.locale };
}

async function lockHouse(trx: Transaction<Database>, version: number): Promise<HouseRecord> {
	await loadHouse(trx);
	await trx.selectFrom('houses').select('id').where('id', '=', 1).forUpdate().execute();
	const house = await loadHouse(trx);
	if (house.version !== version)
		throw new ConflictError(
			'The house was changed in another window in the meantime. Load it again to see what is there now.',
			{
				version: house.version
			}
		);
	return house;
}

async function writeHouse(
	trx: Transaction<Database>,
	{ inks, typeRoles, locale }: HouseState,
	version: number,
	step: number
) {
	await trx
		.updateTable('houses')
		.set({ inks: JSON.stringify(inks), type_roles: JSON.stringify(typeRoles), locale, version, step })
		.where('id', '=', 1)
		.execute();
}

/**
 * Changes inks, type roles or locale as one step that can be undone. Inks and type roles that are called otherwise from
 * now on (or replaced by others) are named so in every style that names them and does not define its own.
 */
export async function changeHouse(
	db: Kysely<Database>,
	version: number,
	label: string,
	wanted: Parameters<typeof checkState>[0],
	renamed: { inks?: Record<string, string>; typeRoles?: Record<string, string> } = {}
): Promise<HouseRecord> {
	return db.transaction().execute(async (trx) => {
		const house = await lockHouse(trx, version);
		const state = checkState(wanted);
		const { inks = {}, typeRoles = {} } = renamed;
		for (const to of Object.values(inks))
			if (!state.inks[to])
				throw new InputError('request', `The house has no ink “${to}” to put in its place.`, '/inks');
		for (const to of Object.values(typeRoles))
			if (!state.typeRoles[to])
				throw new InputError('request', `The house has no type role “${to}” to put in its place.`, '/typeRoles');
		const changed: Record<string, { before: Style; after: Style }> = {};
		if (Object.keys(inks).length || Object.keys(typeRoles).length)
			for (const { id, definition } of await trx.selectFrom('styles').select(['id', 'definition']).execute()) {
				const after = canonicalStyle(
					mapTypeRoles(
						mapInks(definition, (ink) => (definition.inks?.[ink] ? ink : (inks[ink] ?? ink))),
						(role) => (definition.typeRoles?.[role] ? role : (typeRoles[role] ?? role))
					)
				);
				if (JSON.stringify(after) === JSON.stringify(canonicalStyle(definition))) continue;
				changed[id] = { before: definition, after };
				await addStyleStep(trx, id, label, after);
			}
		if (house.step === 0) await insertStep(trx, 0, 'as it was', house, {});
		const step = house.step + 1;
		await trx.deleteFrom('house_steps').where('step', '>=', step).execute();
		await insertStep(trx, step, label, state, changed);
		await writeHouse(trx, state, version + 1, step);
		return loadHouse(trx);
	});
}

async function insertStep(
	trx: Transaction<Database>,
	step: number,
	label: string,
	{ inks, typeRoles, locale }: HouseState,
	styles: Record<string, { before: Style; after: Style }>
): Promise<void> {
	await trx
		.insertInto('house_steps')
		.values({ step, label, state: JSON.stringify({ inks, typeRoles, locale }), styles: JSON.stringify(styles) })
		.onConflict((conflict) => conflict.doNothing())
		.execute();
}

/** Undo and redo of the house, one step; styles that a step changed along with it go with it, unless they were changed since. */
export async function moveHouse(db: Kysely<Database>, version: number, to: number): Promise<HouseRecord> {
	return db.transaction().execute(async (trx) => {
		const house = await lockHouse(trx, version);
		const target = await trx.selectFrom('house_steps').selectAll().where('step', '=', to).executeTakeFirst();
		if (!target || Math.abs(to - house.step) !== 1)
			throw new InputError('step', `The house has no step ${to} next to where it is.`);
		const isUndo = to < house.step;
		const moved = isUndo
			? await trx.selectFrom('house_steps').selectAll().where('step', '=', house.step).executeTakeFirstOrThrow()
			: target;
		for (const [id, { before, after }] of Object.entries(moved.styles)) {
			const [from, into] = isUndo ? [after, before] : [before, after];
			const style = await trx
				.selectFrom('styles')
				.select(['name', 'definition'])
				.where('id', '=', id)
				.executeTakeFirst();
			if (!style) continue;
			if (JSON.stringify(canonicalStyle(style.definition)) !== JSON.stringify(canonicalStyle(from)))
				throw new InputError(
					'step',
					`“${style.name}” was changed since, so this step cannot be taken back in it. Undo those changes on its bench first.`
				);
			await addStyleStep(trx, id, isUndo ? `back: ${moved.label}` : moved.label, into);
		}
		await writeHouse(trx, target.state, version + 1, to);
		return loadHouse(trx);
	});
}
