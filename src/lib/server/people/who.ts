import type { Role } from '../../workbench/roles.ts';
import { LOOPBACK, nameOf } from '../front/gate.ts';
import type { Auth } from './auth.ts';
import type { Door } from './door.ts';
import { housesOf } from './members.ts';

/** Who asks, as what, and in which house. */
export interface Who {
	readonly person: string;
	readonly name: string;
	readonly house: string;
	readonly houseName: string;
	readonly role: Role;
	/** The houses that they may work in. */
	readonly houses: readonly { readonly id: string; readonly name: string }[];
	/** Undefined for the only person of an installation that nobody has to sign in to yet. */
	readonly session?: string;
}

/** Whether the server is asked on this machine alone; nothing is said of it where HOST is not set. */
export const listensOnLoopback = ({ HOST, ORIGIN }: Readonly<Record<string, string | undefined>>): boolean =>
	HOST !== undefined &&
	(isLoopback(HOST) || HOST === '::1') &&
	(ORIGIN === undefined || isLoopback(new URL(ORIGIN).hostname));

const isLoopback = (host: string) => LOOPBACK.includes(nameOf(host)) || /^127(\.\d{1,3}){3}$/.test(nameOf(host));

/** What a proxy adds: then it is not this machine that asks, whatever the connection says (RFC 7239). */
const FORWARDED = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-real-ip', 'via'];

/** In which of their houses somebody works who has no session that could say so. */
export const HOUSE = 'house';
const HOUSE_COOKIE = new RegExp(`(?:^|;\\s*)${HOUSE}=([0-9a-f-]{36})(?:;|$)`);

/** Whether a request is one of this machine, to a name of it. */
const isFromHere = (headers: Headers): boolean =>
	isLoopback(headers.get('host') ?? '') && !FORWARDED.some((name) => headers.has(name));

/**
 * Who asks: by their session, or, as long as the installation is open to this machine, its only person. Undefined where
 * nobody is signed in, or belongs to no house any more.
 */
export async function whoAsks(
	door: Door,
	auth: Auth,
	headers: Headers,
	env: Readonly<Record<string, string | undefined>>
): Promise<Who | undefined> {
	const found = await auth.api.getSession({ headers, query: { disableRefresh: true } });
	if (found) {
		const { session, user } = found;
		return asMember(door, { id: user.id, name: user.name }, session.houseId ?? undefined, session.token);
	}
	if (!listensOnLoopback(env) || !isFromHere(headers)) return undefined;
	const only = await onlyPerson(door);
	return only && asMember(door, only, HOUSE_COOKIE.exec(headers.get('cookie') ?? '')?.[1], undefined);
}

async function asMember(
	door: Door,
	{ id, name }: { readonly id: string; readonly name: string },
	wanted: string | undefined,
	session: string | undefined
): Promise<Who | undefined> {
	const houses = await housesOf(door, id);
	const house = houses.find((one) => one.id === wanted) ?? houses[0];
	return (
		house && {
			person: id,
			name,
			house: house.id,
			houseName: house.name,
			role: house.role,
			houses: houses.map((one) => ({ id: one.id, name: one.name })),
			...(session !== undefined && { session })
		}
	);
}

/** The only person of an installation that was never closed. */
async function onlyPerson(door: Door): Promise<{ id: string; name: string } | undefined> {
	const people = await door
		.selectFrom('people')
		.innerJoin('installation', (join) => join.onTrue())
		.select(['people.id', 'people.name'])
		.where('closedAt', 'is', null)
		.limit(2)
		.execute();
	return people.length === 1 ? people[0] : undefined;
}

/** From now on, and for good, nobody comes in without signing in. */
export const closeInstallation = (door: Door): Promise<unknown> =>
	door.updateTable('installation').set({ closedAt: new Date() }).where('closedAt', 'is', null).execute();

export const isClosed = async (door: Door): Promise<boolean> =>
	(await door.selectFrom('installation').select('closedAt').executeTakeFirst())?.closedAt !== null;
