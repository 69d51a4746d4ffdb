import { sql, type Kysely, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { formerAfter, type FormerNames, type House, type Renamed } from '../../core/house.ts';
import { canonicalStyle } from '../../core/style/canonical.ts';
import { mapInks, mapTypeRoles } from '../../core/style/edit.ts';
import { withStylesCalled } from '../../core/policy/policy.ts';
import { checkPolicy } from '../../core/policy/validate.ts';
import { checkStyle } from '../../core/style/validate.ts';
import { LOCALES, type HouseState } from '../../workbench/house.ts';
import type { Along } from '../../workbench/stylebook.ts';
import type { Database } from '../database.ts';
import { NotFoundError } from '../http/answers.ts';
import { History, LOAD_AGAIN, type StepInfo } from '../history.ts';
import { addStyleStep, moveAlong } from '../styles/steps.ts';
import { addToLog } from './log.ts';

type Db = Kysely<Database> | Transaction<Database>;

export interface HouseRecord extends HouseState {
	readonly name: string;
	readonly former: FormerNames;
	readonly version: number;
	readonly step: number;
	/** An edition is published by somebody else than who proposed it. */
	readonly secondEyes: boolean;
	/** For how many days steps are kept; null: for good. */
	readonly keepDays: number | null;
}

/** The house that is acted in. */
const MINE = sql<string>`current_house()`;

const GONE = 'The house is gone.';

/** The steps of the house. */
export const HOUSE = new History<HouseState>({
	owner: 'houses',
	steps: 'house_steps',
	of: 'house_id',
	state: 'state',
	gone: GONE,
	what: 'The house',
	then: LOAD_AGAIN
});

const byName = <T>(record: Record<string, T>): Record<string, T> =>
	Object.fromEntries(Object.entries(record).sort(([a], [b]) => a.localeCompare(b)));

/** The house that is acted in. Throws NotFoundError where it is gone. */
export async function loadHouse(db: Db): Promise<HouseRecord> {
	const row = await db.selectFrom('houses').selectAll().where('id', '=', MINE).executeTakeFirst();
	if (!row) throw new NotFoundError(GONE);
	const { name, inks, type_roles: typeRoles, locale, policy, former, version, step } = row;
	const { second_eyes: secondEyes, keep_days: keepDays } = row;
	const tokens = { inks: byName(inks), typeRoles: byName(typeRoles) };
	return { name, ...tokens, locale, policy, former, version, step, secondEyes, keepDays };
}

/** The house is called otherwise from now on. Throws InputError. */
export async function nameHouse(db: Kysely<Database>, name: string): Promise<void> {
	if (!name.trim()) throw new InputError('request', 'A house has a name.', '/name');
	await db.transaction().execute(async (trx) => {
		await trx.updateTable('houses').set({ name: name.trim() }).where('id', '=', MINE).execute();
		await addToLog(trx, 'house', `the house is called “${name.trim()}” from now on`);
	});
}

/** Whether an edition is published by somebody else than who proposed it. */
export const wantsSecondEyes = async (db: Db): Promise<boolean> =>
	(await db.selectFrom('houses').select('second_eyes').where('id', '=', MINE).executeTakeFirst())?.second_eyes ?? false;

/** Editions are looked at by somebody else from now on, or no more. */
export async function askForSecondEyes(db: Kysely<Database>, asks: boolean): Promise<void> {
	await db.transaction().execute(async (trx) => {
		await trx.updateTable('houses').set({ second_eyes: asks }).where('id', '=', MINE).execute();
		await addToLog(
			trx,
			'house',
			asks ? 'editions want a second pair of eyes from now on' : 'editions want no second pair of eyes any more'
		);
	});
}

export const houseSteps = (db: Db): Promise<StepInfo[]> => HOUSE.list(db, MINE);

/** Inks and type roles are checked as those of a style are, a policy as its file. Throws InputError with the place. */
function checkState(state: {
	inks: Record<string, unknown>;
	typeRoles: Record<string, unknown>;
	locale: string;
	policy?: unknown;
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
	const { policy } = state;
	return {
		inks,
		typeRoles,
		locale: state.locale,
		...(policy !== undefined && { policy: policy === null ? null : checkPolicy(policy) })
	};
}

/** Styles that a policy calls by their names, as its file does, are called by their ids from now on. */
async function withStyleIds(db: Db, state: HouseState): Promise<HouseState> {
	if (!state.policy) return state;
	const styles = await db.selectFrom('styles').select(['id', 'name']).execute();
	const ids = new Map(styles.map(({ id, name }) => [name, id]));
	return { ...state, policy: withStylesCalled(state.policy, (style) => ids.get(style) ?? style) };
}

async function lockHouse(trx: Transaction<Database>, version: number): Promise<HouseRecord> {
	await loadHouse(trx);
	await HOUSE.lock(trx, MINE, version);
	return loadHouse(trx);
}

/** The house is as a step says that it stands at from now on. */
async function standAt(
	trx: Transaction<Database>,
	{ inks, typeRoles, locale, policy }: HouseState,
	former: FormerNames,
	step: number
): Promise<HouseRecord> {
	await trx
		.updateTable('houses')
		.set({
			inks: JSON.stringify(inks),
			type_roles: JSON.stringify(typeRoles),
			locale,
			policy: policy ? JSON.stringify(policy) : null,
			former: JSON.stringify(former)
		})
		.where('id', '=', MINE)
		.execute();
	await HOUSE.stand(trx, MINE, step);
	return loadHouse(trx);
}

/**
 * Changes inks, type roles, locale or policy as one step that can be undone. Inks and type roles that are called otherwise from
 * now on (or replaced by others) are named so in every style that names them and does not define its own.
 */
export async function changeHouse(
	db: Kysely<Database>,
	version: number,
	label: string,
	wanted: Parameters<typeof checkState>[0],
	renamed: Renamed = {}
): Promise<HouseRecord> {
	return db.transaction().execute(async (trx) => {
		const house = await lockHouse(trx, version);
		const state = await withStyleIds(trx, checkState({ policy: house.policy, ...wanted }));
		const { inks = {}, typeRoles = {} } = renamed;
		for (const to of Object.values(inks))
			if (!Object.hasOwn(state.inks, to))
				throw new InputError('request', `The house has no ink “${to}” to put in its place.`, '/inks');
		for (const to of Object.values(typeRoles))
			if (!Object.hasOwn(state.typeRoles, to))
				throw new InputError('request', `The house has no type role “${to}” to put in its place.`, '/typeRoles');
		const changed: Record<string, Along[string]> = {};
		if (Object.keys(inks).length || Object.keys(typeRoles).length)
			for (const { id, definition } of await trx.selectFrom('styles').select(['id', 'definition']).execute()) {
				const after = canonicalStyle(
					mapTypeRoles(
						mapInks(definition, (ink) => instead(ink, inks, definition.inks)),
						(role) => instead(role, typeRoles, definition.typeRoles)
					)
				);
				if (JSON.stringify(after) === JSON.stringify(canonicalStyle(definition))) continue;
				changed[id] = { before: definition, after };
				await addStyleStep(trx, id, label, after);
			}
		const { inks: inksBefore, typeRoles: rolesBefore, locale, policy } = house;
		const before = { inks: inksBefore, typeRoles: rolesBefore, locale, policy };
		if (house.step === 0)
			await HOUSE.write(trx, MINE, 0, [{ label: 'as it was', state: before, more: changing({}, {}) }]);
		const step = house.step + 1;
		await HOUSE.write(trx, MINE, step, [{ label, state, more: changing(changed, renamed) }]);
		return standAt(trx, state, formerAfter(house, state, renamed), step);
	});
}

/** What a style calls a thing of the house that has another name now; a style that has its own of either name is left alone. */
const instead = (name: string, names: Readonly<Record<string, string>>, own: object = {}): string => {
	const next = Object.hasOwn(names, name) ? names[name]! : name;
	return Object.hasOwn(own, name) || Object.hasOwn(own, next) ? name : next;
};

/** What a step of the house changed in styles along with it, and what it renamed. */
const changing = (styles: Along, renamed: Renamed) => ({
	styles: JSON.stringify(styles),
	renamed: JSON.stringify(renamed)
});

const turned = (names: Readonly<Record<string, string>> = {}): Record<string, string> =>
	Object.fromEntries(Object.entries(names).map(([from, to]) => [to, from]));

/**
 * Moves to any other step of the house: undo, redo. Styles that the steps between changed along with it go with it; what
 * was changed in them since stays.
 */
export async function moveHouse(db: Kysely<Database>, version: number, to: number): Promise<HouseRecord> {
	return db.transaction().execute(async (trx) => {
		const house = await lockHouse(trx, version);
		const target = await HOUSE.stateAt(trx, MINE, to);
		const isUndo = to < house.step;
		const passed = await trx
			.selectFrom('house_steps')
			.select(['step', 'label', 'styles', 'renamed'])
			.where('step', '>', Math.min(house.step, to))
			.where('step', '<=', Math.max(house.step, to))
			.orderBy('step', isUndo ? 'desc' : 'asc')
			.execute();
		let stands: House = house;
		for (const { step, label, styles, renamed } of passed) {
			await moveAlong(trx, label, styles, isUndo);
			const next = await HOUSE.stateAt(trx, MINE, isUndo ? step - 1 : step);
			const names = isUndo ? { inks: turned(renamed.inks), typeRoles: turned(renamed.typeRoles) } : renamed;
			stands = { ...next, former: formerAfter(stands, next, names) };
		}
		return standAt(trx, target, stands.former ?? house.former, to);
	});
}
