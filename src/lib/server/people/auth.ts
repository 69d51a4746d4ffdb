import { randomUUID } from 'node:crypto';
import { betterAuth, type BetterAuthPlugin } from 'better-auth';
import { createAuthEndpoint } from 'better-auth/api';
import { setSessionCookie } from 'better-auth/cookies';
import { genericOAuth, twoFactor, username } from 'better-auth/plugins';
import * as z from 'zod';
import type { Door } from './door.ts';
import { noteSignIn } from './members.ts';

/** How long somebody stays signed in who does not come back, in seconds, and how often that is put off. */
const STAYS = 14 * 24 * 3_600;
const PUT_OFF = 24 * 3_600;
/** NIST SP 800-63B (5.1.1.2) and ASVS (2.1) want 12 letters at least, and no rules about which. */
export const PASSWORD = { least: 12, most: 128 } as const;

/** A provider of OpenID Connect at which people may sign in, too. */
export interface Provider {
	/** OpenID Connect Discovery 1.0 (4) is asked beneath it. */
	readonly issuer: string;
	readonly client: string;
	readonly secret: string;
	/** What people call it. */
	readonly name: string;
}
/** What the provider is called in addresses and accounts. */
export const PROVIDER = 'provider';

/** The provider that the environment names; undefined where it names none. Throws Error where it says it by half. */
export function providerOf(env: Readonly<Record<string, string | undefined>>): Provider | undefined {
	const { HEPTARCH_OIDC_ISSUER: issuer, HEPTARCH_OIDC_CLIENT: client, HEPTARCH_OIDC_SECRET: secret } = env;
	if (!issuer) return undefined;
	if (!client || !secret)
		throw new Error('HEPTARCH_OIDC_ISSUER wants HEPTARCH_OIDC_CLIENT and HEPTARCH_OIDC_SECRET beside it.');
	return { issuer, client, secret, name: env.HEPTARCH_OIDC_NAME ?? new URL(issuer).hostname };
}

/** People are known here before they come by a provider: nobody is made by signing in there. */
const throughProvider = ({ issuer, client, secret, name }: Provider) =>
	genericOAuth({
		config: [
			{
				providerId: PROVIDER,
				name,
				discoveryUrl: `${issuer.replace(/\/$/, '')}/.well-known/openid-configuration`,
				clientId: client,
				clientSecret: secret,
				scopes: ['openid', 'profile', 'email'],
				pkce: true,
				requireIdTokenVerification: true,
				disableSignUp: true,
				// Not every provider tells an address; people are told apart by the subject alone.
				mapProfileToUser: (profile) => ({ email: profile.email ?? `${String(profile.sub)}@person.invalid` })
			}
		]
	});

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
 * @param provider where they may sign in, too
 */
export const makeAuth = (door: Door, secret: string, origin: string | undefined, provider?: Provider) =>
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
		// Whoever is signed in here says themselves that a person of the provider is them.
		account: {
			modelName: 'accounts',
			accountLinking: { enabled: true, allowDifferentEmails: true, disableImplicitLinking: true }
		},
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
			comeIn(),
			...(provider ? [throughProvider(provider)] : [])
		],
		advanced: {
			cookiePrefix: 'heptarch',
			useSecureCookies: origin?.startsWith('https:') ?? false,
			database: { generateId: () => randomUUID() }
		},
		databaseHooks: { session: { create: { after: ({ userId }) => noteSignIn(door, userId) } } },
		// Attempts are counted in the database, by names as well as addresses: see attempts.ts.
		rateLimit: { enabled: false },
		telemetry: { enabled: false },
		logger: { disabled: true }
	});

export type Auth = ReturnType<typeof makeAuth>;
