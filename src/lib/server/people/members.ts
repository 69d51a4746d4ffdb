import { sql, type Transaction } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Role } from '../../workbench/roles.ts';
import { NotFoundError } from '../http/answers.ts';
import type { Door, DoorTables } from './door.ts';

/** Somebody who belongs to a house. */
export interface Member {
	readonly id: string;
	readonly name: string;
	/** What they sign in by; null before they have a password. */
	readonly username: string | null;
	readonly role: Role;
	readonly since: string;
	/** Whether they sign in by codes, too. */
	readonly hasSecond: boolean;
}
/** Somebody who was invited and has not come yet. */
export interface Invited {
	/** By which the invitation is taken back; the link itself is kept nowhere. */
	readonly id: string;
	readonly name: string | null;
	readonly role: Role;
	readonly until: string;
}

/** Writes down what was done to a house and its people. */
export const note = (door: Door, house: string, person: string | null, kind: string, words: string): Promise<unknown> =>
	door.insertInto('houseLog').values({ houseId: house, personId: person, kind, words }).execute();

const NO_MEMBER = 'This person does not belong to the house.';
const LAST_KEEPER = 'A house keeps at least one keeper. Make somebody else a keeper first.';

export async function listMembers(door: Door, house: string): Promise<{ members: Member[]; invited: Invited[] }> {
	const members = await door
		.selectFrom('members')
		.innerJoin('people', 'people.id', 'members.personId')
		.select([
			'people.id',
			'people.name',
			'people.displayUsername',
			'people.twoFactorEnabled',
			'members.role',
			'members.since'
		])
		.where('houseId', '=', house)
		.where('leftAt', 'is', null)
		.orderBy('people.name')
		.execute();
	const invited = await door
		.selectFrom('links')
		.select(['hash', 'name', 'role', 'expiresAt'])
		.where('houseId', '=', house)
		.where('kind', '=', 'invitation')
		.where('usedAt', 'is', null)
		.where('expiresAt', '>', sql<Date>`now()`)
		.orderBy('createdAt')
		.execute();
	return {
		members: members.map(({ id, name, displayUsername, twoFactorEnabled, role, since }) => ({
			id,
			name,
			username: displayUsername,
			role,
			since: since.toISOString(),
			hasSecond: twoFactorEnabled
		})),
		invited: invited.map(({ hash, name, role, expiresAt }) => ({
			id: hash,
			name,
			role: role!,
			until: expiresAt.toISOString()
		}))
	};
}

/** A member of a house. Throws NotFoundError. */
export async function memberOf(door: Door, house: string, person: string): Promise<Member> {
	const member = (await listMembers(door, house)).members.find(({ id }) => id === person);
	if (!member) throw new NotFoundError(NO_MEMBER);
	return member;
}

/**
 * A member whose way in a keeper may change: one who belongs to no house that the keeper does not keep, as with it the keeper
 * would come into that. Throws NotFoundError, InputError.
 */
export async function memberInCare(door: Door, house: string, person: string, keeper: string): Promise<Member> {
	const member = await memberOf(door, house, person);
	const kept = (await housesOf(door, keeper)).filter(({ role }) => role === 'keeper').map(({ id }) => id);
	if ((await housesOf(door, person)).some(({ id }) => !kept.includes(id)))
		throw new InputError(
			'role',
			`${member.name} belongs to another house, too, that you do not keep. Whoever keeps the installation can help.`
		);
	return member;
}

/** Writes down, in each of their houses, that somebody signed in. */
export async function noteSignIn(door: Door, person: string): Promise<void> {
	for (const { id } of await housesOf(door, person)) await note(door, id, person, 'sign-in', 'signed in');
}

/** The houses of a person, in the order in which they came into them. */
export const housesOf = (door: Door, person: string) =>
	door
		.selectFrom('members')
		.innerJoin('houses', 'houses.id', 'members.houseId')
		.select(['houses.id', 'houses.name', 'members.role'])
		.where('personId', '=', person)
		.where('leftAt', 'is', null)
		.orderBy('since')
		.orderBy('houses.id')
		.execute();

/** Somebody belongs to a house from now on, or again, in a role. */
export const join = (door: Door, house: string, person: string, role: Role): Promise<unknown> =>
	door
		.insertInto('members')
		.values({ houseId: house, personId: person, role })
		.onConflict((conflict) => conflict.columns(['houseId', 'personId']).doUpdateSet({ role, leftAt: null }))
		.execute();

/**
 * Changes one member while nobody changes another, so that two keepers who make each other readers at the same moment leave a
 * keeper. Throws NotFoundError, InputError.
 */
async function changeMember(
	door: Door,
	house: string,
	person: string,
	isKeeperThen: boolean,
	change: (trx: Transaction<DoorTables>, name: string) => Promise<void>
): Promise<void> {
	await door.transaction().execute(async (trx) => {
		const members = await trx
			.selectFrom('members')
			.innerJoin('people', 'people.id', 'members.personId')
			.select(['personId', 'role', 'people.name'])
			.where('houseId', '=', house)
			.where('leftAt', 'is', null)
			.orderBy('personId')
			.forUpdate('members')
			.execute();
		const one = members.find(({ personId }) => personId === person);
		if (!one) throw new NotFoundError(NO_MEMBER);
		const isAnother = members.some(({ personId, role }) => personId !== person && role === 'keeper');
		if (one.role === 'keeper' && !isKeeperThen && !isAnother) throw new InputError('last-keeper', LAST_KEEPER);
		await change(trx, one.name);
	});
}

export const setRole = (door: Door, house: string, person: string, role: Role, by: string | null): Promise<void> =>
	changeMember(door, house, person, role === 'keeper', async (trx, name) => {
		await trx
			.updateTable('members')
			.set({ role })
			.where('houseId', '=', house)
			.where('personId', '=', person)
			.execute();
		await note(trx, house, by, 'role', `${name} is ${role} from now on`);
	});

/** Somebody leaves a house; what they made stays, and says their name. */
export const leave = (door: Door, house: string, person: string, by: string | null): Promise<void> =>
	changeMember(door, house, person, false, async (trx, name) => {
		await trx
			.updateTable('members')
			.set({ leftAt: new Date() })
			.where('houseId', '=', house)
			.where('personId', '=', person)
			.execute();
		await note(trx, house, by, 'people', `${name} no longer belongs to the house`);
	});
