import { makeAuth, providerOf } from './auth.ts';
import { door } from './door.ts';
import type { Entrance } from './entrance.ts';

let shared: Promise<Entrance> | undefined;

async function open(): Promise<Entrance> {
	const { secret } = await door().selectFrom('installation').select('secret').executeTakeFirstOrThrow();
	return { door: door(), auth: makeAuth(door(), secret, process.env.ORIGIN, providerOf(process.env)) };
}

/** The application's own door; opened when it is first needed. */
export const entrance = (): Promise<Entrance> =>
	(shared ??= open().catch((error: unknown) => {
		shared = undefined;
		throw error;
	}));
