import { sql } from 'kysely';
import { InputError } from '../../core/errors.ts';
import { NotFoundError } from '../http/answers.ts';
import { PROVIDER } from './auth.ts';
import type { Door } from './door.ts';

/** Where somebody is signed in. */
export interface SignedIn {
	readonly id: string;
	/** What their browser says of itself. */
	readonly agent: string | null;
	readonly from: string | null;
	readonly since: string;
	/** Whether it is this one. */
	readonly isThis: boolean;
}

/** Where a person is signed in, the latest first. */
export async function listSessions(door: Door, person: string, session: string | undefined): Promise<SignedIn[]> {
	const rows = await door
		.selectFrom('sessions')
		.select(['id', 'token', 'userAgent', 'ipAddress', 'createdAt'])
		.where('userId', '=', person)
		.where('expiresAt', '>', sql<Date>`now()`)
		.orderBy('createdAt', 'desc')
		.execute();
	return rows.map(({ id, token, userAgent, ipAddress, createdAt }) => ({
		id,
		agent: userAgent,
		from: ipAddress,
		since: createdAt.toISOString(),
		isThis: token === session
	}));
}

/** Signs a person out of one of their sessions. Throws NotFoundError. */
export async function endSession(door: Door, person: string, id: string): Promise<void> {
	const { numDeletedRows } = await door
		.deleteFrom('sessions')
		.where('userId', '=', person)
		.where('id', '=', id)
		.executeTakeFirst();
	if (!numDeletedRows) throw new NotFoundError('This session has ended already.');
}

/** A session works in another house from now on. */
export const workIn = (door: Door, token: string, house: string): Promise<unknown> =>
	door.updateTable('sessions').set({ houseId: house }).where('token', '=', token).execute();

/** What others call a person. Throws InputError. */
export async function rename(door: Door, person: string, name: string): Promise<void> {
	if (!name.trim()) throw new InputError('request', 'A person has a name.', '/name');
	await door.updateTable('people').set({ name: name.trim() }).where('id', '=', person).execute();
}

/** By what a person signs in. */
export async function signsInBy(door: Door, person: string) {
	const { username, hasSecond } = await door
		.selectFrom('people')
		.select(['displayUsername as username', 'twoFactorEnabled as hasSecond'])
		.where('id', '=', person)
		.executeTakeFirstOrThrow();
	const accounts = await door.selectFrom('accounts').select('providerId').where('userId', '=', person).execute();
	const has = (provider: string) => accounts.some(({ providerId }) => providerId === provider);
	return { username, hasSecond, hasPassword: has('credential'), hasProvider: has(PROVIDER) };
}
