import type { Kysely, Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { FIRST_HOUSE } from '../../core/house.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { mapInks, mapTypeRoles } from '../../core/style/edit.ts';
import type { Style } from '../../core/style/types.ts';
import { checkStyle } from '../../core/style/validate.ts';
import { LOCALES, type HouseState } from '../../workbench/house.ts';
import type { Database } from '../database.ts';
import { History, LOAD_AGAIN, type StepInfo } from '../history.ts';
import { addStyleStep } from '../styles/styles.ts';

type Db = Kysely<Database> | Transaction<Database>;

export interface HouseRecord extends HouseState {
	readonly name: string;
	readonly version: number;
	readonly step: number;
}

/** The one house there is. */
const ONE = 1;

const HOUSE = new History<HouseState>({
	owner: 'houses',
	steps: 'house_steps',
	state: 'state',
	gone: 'The house is gone.',
	what: 'The house',
	then: LOAD_AGAIN
});

/** What a house is called before it has a name. */
const NEW_HOUSE = 'New house';

const byName = <T>(record: Record<string, T>): Record<string, T> =>
	Object.fromEntries(Object.entries(record).sort(([a], [b]) => a.localeCompare(b)));

/** The house, made with its first inks and type roles where there is none yet. */
export async function loadHouse(db: Db): Promise<HouseRecord> {
	const row = await db.selectFrom('houses').selectAll().where('id', '=', ONE).executeTakeFirst();
	if (row) {
		const { name, inks, type_roles: typeRoles, locale, version, step } = row;
		return { name, inks: byName(inks), typeRoles: byName(typeRoles), locale, version, step };
	}
	const name = NEW_HOUSE;
	const state: HouseState = { ...FIRST_HOUSE, locale: 'en-GB' };
	await db
		.insertInto('houses')
		.values({ id: ONE, name, inks: JSON.stringify(state.inks), type_roles: JSON.stringify(state.typeRoles) })
		.onConflict((conflict) => conflict.doNothing())
		.execute();
	return { name, ...state, version: 1, step: 0 };
}

export const houseSteps = (db: Db): Promise<StepInfo[]> => HOUSE.list(db, ONE);

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
	await HOUSE.lock(trx, ONE, version);
	return loadHouse(trx);
}

/** The house is as a step says that it stands at from now on. */
async function standAt(
	trx: Transaction<Database>,
	{ inks, typeRoles, locale }: HouseState,
	step: number
): Promise<HouseRecord> {
	await trx
		.updateTable('houses')
		.set({ inks: JSON.stringify(inks), type_roles: JSON.stringify(typeRoles), locale })
		.where('id', '=', ONE)
		.execute();
	await HOUSE.stand(trx, ONE, step);
	return loadHouse(trx);
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
		const { inks: inksBefore, typeRoles: rolesBefore, locale } = house;
		const before = { inks: inksBefore, typeRoles: rolesBefore, locale };
		if (house.step === 0) await HOUSE.write(trx, ONE, 0, [{ label: 'as it was', state: before, more: changing({}) }]);
		const step = house.step + 1;
		await HOUSE.write(trx, ONE, step, [{ label, state, more: changing(changed) }]);
		return standAt(trx, state, step);
	});
}

/** What a step of the house changed in styles along with it. */
const changing = (styles: Readonly<Record<string, { before: Style; after: Style }>>) => ({
	styles: JSON.stringify(styles)
});

/**
 * Moves to any other step of the house: undo, redo. Styles that the steps between changed along with it go with it;
 * throws InputError, and moves nothing, where one of them was changed since.
 */
export async function moveHouse(db: Kysely<Database>, version: number, to: number): Promise<HouseRecord> {
	return db.transaction().execute(async (trx) => {
		const { step: from } = await lockHouse(trx, version);
		const target = await HOUSE.stateAt(trx, ONE, to);
		const isUndo = to < from;
		const between = await trx
			.selectFrom('house_steps')
			.select(['label', 'styles'])
			.where('step', '>', Math.min(from, to))
			.where('step', '<=', Math.max(from, to))
			.orderBy('step', isUndo ? 'desc' : 'asc')
			.execute();
		for (const { label, styles } of between) await moveStyles(trx, label, styles, isUndo);
		return standAt(trx, target, to);
	});
}

async function moveStyles(
	trx: Transaction<Database>,
	label: string,
	styles: Readonly<Record<string, { before: Style; after: Style }>>,
	isUndo: boolean
): Promise<void> {
	for (const [id, { before, after }] of Object.entries(styles)) {
		const [from, into] = isUndo ? [after, before] : [before, after];
		const style = await trx.selectFrom('styles').select(['name', 'definition']).where('id', '=', id).executeTakeFirst();
		if (!style) continue;
		if (JSON.stringify(canonicalStyle(style.definition)) !== JSON.stringify(canonicalStyle(from)))
			throw new InputError(
				'step',
				`“${style.name}” was changed since, so “${label}” cannot be ${isUndo ? 'taken back' : 'done again'} in it. Undo those changes on its bench first.`
			);
		await addStyleStep(trx, id, isUndo ? `back: ${label}` : label, into);
	}
}
