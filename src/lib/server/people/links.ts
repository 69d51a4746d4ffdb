import { createHash, randomBytes } from 'node:crypto';
import { sql } from 'kysely';
import { InputError } from '../../core/errors.ts';
import type { Role } from '../../workbench/roles.ts';
import type { Door, DoorTables, LinkKind } from './door.ts';

/** How long links lead anywhere: hours. */
const HOURS: Readonly<Record<LinkKind, number>> = { invitation: 7 * 24, password: 24, entry: 24 };

export interface LinkWish {
	readonly kind: LinkKind;
	readonly house?: string;
	readonly person?: string;
	readonly role?: Role;
	readonly name?: string;
	readonly madeBy?: string | null;
}
export type Link = Pick<DoorTables['links'], 'kind' | 'houseId' | 'personId' | 'role' | 'name'>;

/** Links are kept by their hash, so that whoever reads the database cannot come in by one. */
const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** A new link that leads in once; what stands at the end of its address is told now and never again. */
export async function makeLink(door: Door, wish: LinkWish): Promise<string> {
	const token = randomBytes(24).toString('base64url');
	const { kind, house = null, person = null, role = null, name = null, madeBy = null } = wish;
	await door
		.insertInto('links')
		.values({
			hash: hashOf(token),
			kind,
			houseId: house,
			personId: person,
			role,
			name,
			madeBy,
			expiresAt: new Date(Date.now() + HOURS[kind] * 3_600_000)
		})
		.execute();
	return token;
}

const COLUMNS = ['kind', 'houseId', 'personId', 'role', 'name'] as const;

/** What a link is for, without using it. Throws InputError where it leads nowhere. */
export async function openLink(door: Door, token: string): Promise<Link> {
	const link = await door
		.selectFrom('links')
		.select([...COLUMNS, 'expiresAt', 'usedAt'])
		.where('hash', '=', hashOf(token))
		.executeTakeFirst();
	if (!link) throw new InputError('link', 'This link leads nowhere. Ask whoever gave it to you for a new one.');
	if (link.usedAt) throw new InputError('link', 'This link was used already; it leads in once. Ask for a new one.');
	if (link.expiresAt.getTime() < Date.now())
		throw new InputError('link', 'This link has expired. Ask whoever gave it to you for a new one.');
	return link;
}

/** Uses a link; of two at once only one does. Throws InputError where it leads nowhere. */
export async function useLink(door: Door, token: string): Promise<Link> {
	const link = await door
		.updateTable('links')
		.set({ usedAt: new Date() })
		.where('hash', '=', hashOf(token))
		.where('usedAt', 'is', null)
		.where('expiresAt', '>', sql<Date>`now()`)
		.returning(COLUMNS)
		.executeTakeFirst();
	return link ?? openLink(door, token);
}

/** Links of a kind that lead into a house or to a person lead nowhere from now on. */
export async function endLinks(
	door: Door,
	kind: LinkKind,
	of: { readonly house: string; readonly hash?: string } | { readonly person: string }
): Promise<void> {
	let query = door.deleteFrom('links').where('kind', '=', kind).where('usedAt', 'is', null);
	if ('person' in of) query = query.where('personId', '=', of.person);
	else {
		query = query.where('houseId', '=', of.house);
		if (of.hash) query = query.where('hash', '=', of.hash);
	}
	await query.execute();
}
