import type { Kysely } from 'kysely';
import type { House } from '../core/cascade/resolve.ts';
import { FIRST_HOUSE } from '../core/house.ts';
import type { Database } from './database.ts';

export interface HouseRecord extends House {
	readonly name: string;
}

/** The house, made with its first inks and type roles where there is none yet. */
export async function loadHouse(db: Kysely<Database>): Promise<HouseRecord> {
	const row = await db.selectFrom('houses').selectAll().where('id', '=', 1).executeTakeFirst();
	if (row) return { name: row.name, inks: row.inks, typeRoles: row.type_roles };
	const name = 'Thornmere Botanic Garden';
	await db
		.insertInto('houses')
		.values({ id: 1, name, inks: JSON.stringify(FIRST_HOUSE.inks), type_roles: JSON.stringify(FIRST_HOUSE.typeRoles) })
		.onConflict((conflict) => conflict.doNothing())
		.execute();
	return { name, ...FIRST_HOUSE };
}
