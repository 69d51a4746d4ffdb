import { randomUUID } from 'node:crypto';
import { betterAuth, type BetterAuthPlugin } from 'better-auth';
import { createAuthEndpoint } from 'better-auth/api';
import { setSessionCookie } from 'better-auth/cookies';
import { twoFactor, username } from 'better-auth/plugins';
import * as z from 'zod';
import type { Door } from './door.ts';

/** How long somebody stays signed in who does not come back, in seconds, and how often that is put off. */
const STAYS = 14 * 24 * 3_600;
const PUT_OFF = 24 * 3_600;
/** NIST SP 800-63B (5.1.1.2) and ASVS (2.1) want 12 letters at least, and no rules about which. */
export const PASSWORD = { least: 12, most: 128 } as const;

/** Lets somebody in who has shown by other means who they are: from the server only, its path is not served. */
const comeIn = () =>
	({
		id: 'come-in',
		endpoints: {
			comeIn: createAuthEndpoint(
				'/come-in',
				{ method: 'POST', body: z.object({ person: z.string() }) },
				async (ctx) => {
					const { person } = ctx.body;
					const user = await ctx.context.internalAdapter.findUserById(person);
					if (!user) throw ctx.error('NOT_FOUND');
					const session = await ctx.context.internalAdapter.createSession(person);
					await setSessionCookie(ctx, { session, user });
					return ctx.json({ token: session.token });
				}
			)
		}
	}) satisfies BetterAuthPlugin;

/**
 * What knows passwords and sessions. Its own routes are not served: the application's ask it, and say what they do by their
 * own contract.
 * @param secret what cookies are signed with
 * @param origin where people reach the application
 */
export const makeAuth = (door: Door, secret: string, origin: string | undefined) =>
	betterAuth({
		appName: 'Heptarch',
		secret,
		baseURL: origin ?? 'http://127.0.0.1',
		database: { db: door, type: 'postgres' },
		user: { modelName: 'people' },
		session: {
			modelName: 'sessions',
			expiresIn: STAYS,
			updateAge: PUT_OFF,
			additionalFields: { houseId: { type: 'string', required: false, input: false } }
		},
		account: { modelName: 'accounts' },
		verification: { modelName: 'verifications' },
		emailAndPassword: {
			enabled: true,
			disableSignUp: true,
			minPasswordLength: PASSWORD.least,
			maxPasswordLength: PASSWORD.most
		},
		plugins: [
			username({ minUsernameLength: 1, maxUsernameLength: 100, usernameValidator: () => true }),
			twoFactor({ issuer: 'Heptarch', twoFactorTable: 'second_factors' }),
			comeIn()
		],
		advanced: {
			cookiePrefix: 'heptarch',
			useSecureCookies: origin?.startsWith('https:') ?? false,
			database: { generateId: () => randomUUID() }
		},
		// Attempts are counted in the database, by names as well as addresses: see attempts.ts.
		rateLimit: { enabled: false },
		telemetry: { enabled: false },
		logger: { disabled: true }
	});

export type Auth = ReturnType<typeof makeAuth>;
