import { randomBytes } from 'node:crypto';
import { FIRST_HOUSE } from '../../core/house.ts';
import type { Door } from './door.ts';
import { makePerson } from './entrance.ts';
import { join, note } from './members.ts';

/** What a house, and its first keeper, are called before anybody named them. */
const NEW_HOUSE = 'New house';
const FIRST_KEEPER = 'Keeper';

/** Begins a house with its first inks and type roles, and one keeper; its id. */
export async function beginHouse(door: Door, name: string, keeper: string): Promise<string> {
	const { inks, typeRoles } = FIRST_HOUSE;
	return door.transaction().execute(async (trx) => {
		const { id } = await trx
			.insertInto('houses')
			.values({ name: name.trim(), inks: JSON.stringify(inks), typeRoles: JSON.stringify(typeRoles) })
			.returning('id')
			.executeTakeFirstOrThrow();
		await join(trx, id, keeper, 'keeper');
		await note(trx, id, keeper, 'house', `the house “${name.trim()}” was begun`);
		return id;
	});
}

/** What an installation has at least: a secret, a person, and a house that they keep. Houses from before there were people get that keeper. */
export async function found(door: Door): Promise<void> {
	await door
		.insertInto('installation')
		.values({ secret: randomBytes(32).toString('base64url') })
		.onConflict((conflict) => conflict.doNothing())
		.execute();
	const person = await door.selectFrom('people').select('id').limit(1).executeTakeFirst();
	if (person) return;
	const keeper = await makePerson(door, FIRST_KEEPER);
	const houses = await door.selectFrom('houses').select('id').execute();
	for (const { id } of houses) await join(door, id, keeper, 'keeper');
	if (!houses.length) await beginHouse(door, NEW_HOUSE, keeper);
}
