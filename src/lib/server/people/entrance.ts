import { APIError } from 'better-auth/api';
import { InputError } from '../../core/errors.ts';
import type { Role } from '../../workbench/roles.ts';
import { attempt } from './attempts.ts';
import { PASSWORD, PROVIDER, type Auth } from './auth.ts';
import type { Door } from './door.ts';
import { endLinks, makeLink, openLink, useLink, type Link } from './links.ts';
import { join, memberInCare, note } from './members.ts';
import { closeInstallation, type Who } from './who.ts';

/** The door of an installation: where people are, and what knows their passwords. */
export interface Entrance {
	readonly door: Door;
	readonly auth: Auth;
}

/** The cookies with which somebody is signed in, as `Set-Cookie` has them (RFC 6265). */
export type Cookies = string[];

const WRONG = 'No person here has this name and this password.';
const WEAK = `A password has at least ${PASSWORD.least} characters; a few words that come to your mind are a good one.`;

function checkPassword(password: string): string {
	if (password.length < PASSWORD.least) throw new InputError('password', WEAK, '/password');
	if (new Set(password).size < 5)
		throw new InputError('password', 'This password is made of too few different characters.', '/password');
	return password;
}

/**
 * Signs somebody in by name and password, or up to the code that they still have to say. Throws InputError; it does not tell
 * whether there is such a name.
 */
export function signIn(
	{ door, auth }: Entrance,
	name: string,
	password: string,
	from: { readonly address: string; readonly headers: Headers }
): Promise<{ cookies: Cookies; needsCode: boolean }> {
	return attempt(door, name, from.address, async () => {
		try {
			const { headers, response } = await auth.api.signInUsername({
				body: { username: name, password },
				headers: from.headers,
				returnHeaders: true
			});
			return { cookies: headers.getSetCookie(), needsCode: 'twoFactorRedirect' in response };
		} catch (error) {
			if (error instanceof APIError) throw new InputError('sign-in', WRONG);
			throw error;
		}
	});
}

/** Signs somebody in who has shown by other means who they are. */
export async function letIn({ auth }: Entrance, person: string, headers: Headers): Promise<Cookies> {
	const answer = await auth.api.comeIn({ body: { person }, headers, returnHeaders: true });
	return answer.headers.getSetCookie();
}

/**
 * Gives a person a name to sign in by and a password, or others than before; their other sessions end. Nobody comes in
 * without signing in from now on. Throws InputError.
 */
export async function setPassword(
	{ door, auth }: Entrance,
	person: string,
	name: string,
	password: string
): Promise<void> {
	checkPassword(password);
	const hash = await (await auth.$context).password.hash(password);
	await door.transaction().execute((trx) => give(trx, person, name, hash));
}

/** Writes down the name and the password (its hash) of a person, as better-auth looks for them. */
async function give(trx: Door, person: string, name: string, hash: string): Promise<void> {
	await takeName(trx, person, name);
	const account = { userId: person, providerId: 'credential', accountId: person };
	await trx
		.insertInto('accounts')
		.values({ id: crypto.randomUUID(), ...account, password: hash })
		.onConflict((conflict) =>
			conflict.columns(['providerId', 'accountId']).doUpdateSet({ password: hash, updatedAt: new Date() })
		)
		.execute();
	await trx.deleteFrom('sessions').where('userId', '=', person).execute();
	await endLinks(trx, 'password', { person });
	await closeInstallation(trx);
}

const hasSecond = async (door: Door, person: string): Promise<boolean> =>
	(await door.selectFrom('people').select('twoFactorEnabled').where('id', '=', person).executeTakeFirst())
		?.twoFactorEnabled === true;

const nameTaken = (name: string) =>
	new InputError('name-taken', `“${name}” signs in here already. Choose another name.`, '/username');

/** Names to sign in by are told apart without regard to case. */
async function takeName(door: Door, person: string, name: string): Promise<void> {
	const username = name.normalize('NFC').trim().toLowerCase();
	const taken = await door
		.selectFrom('people')
		.select('id')
		.where('username', '=', username)
		.where('id', '<>', person)
		.executeTakeFirst();
	if (taken) throw nameTaken(name);
	await door.updateTable('people').set({ username, displayUsername: name.trim() }).where('id', '=', person).execute();
}

/** A person who has no password yet. */
export async function makePerson(door: Door, name: string): Promise<string> {
	const { id } = await door
		.insertInto('people')
		// People sign in by their name; the library behind wants an address for each all the same (RFC 2606, 2).
		.values({
			name: name.trim(),
			email: `${crypto.randomUUID()}@person.invalid`,
			username: null,
			displayUsername: null
		})
		.returning('id')
		.executeTakeFirstOrThrow();
	return id;
}

/** What whoever opened a link fills in. */
export interface LinkAnswer {
	readonly name?: string;
	readonly username?: string;
	readonly password?: string;
}

/**
 * Lets in whoever holds a link: into a house as somebody new (or as who they are, where they are signed in), with a new
 * password, or just in. What is wrong with the answer is said before the link is used. Throws InputError.
 */
export async function enterBy(
	entrance: Entrance,
	token: string,
	answer: LinkAnswer,
	who: Who | undefined,
	headers: Headers
): Promise<Cookies> {
	const { door } = entrance;
	const link = await openLink(door, token);
	if (link.kind === 'entry' || (link.kind === 'invitation' && who?.session)) {
		if (link.kind === 'entry') return letIn(entrance, (await useLink(door, token)).personId!, headers);
		await door.transaction().execute(async (trx) => takeIn(trx, await useLink(trx, token), who!.person, who!.name));
		return [];
	}
	const { name = '', username = '', password = '' } = answer;
	checkPassword(password);
	if (!username.trim()) throw new InputError('request', 'Say the name that you sign in by.', '/username');
	if (link.kind === 'invitation' && !name.trim()) throw new InputError('request', 'Say your name.', '/name');
	const taken = await door
		.selectFrom('people')
		.select('id')
		.where('username', '=', username.normalize('NFC').trim().toLowerCase())
		.executeTakeFirst();
	if (taken && taken.id !== link.personId) throw nameTaken(username);
	const hash = await (await entrance.auth.$context).password.hash(password);
	// All of it or nothing: a link that did not lead in leads in once more.
	const person = await door.transaction().execute(async (trx) => {
		const used = await useLink(trx, token);
		const person = used.personId ?? (await makePerson(trx, name));
		await give(trx, person, username, hash);
		if (used.kind === 'invitation') await takeIn(trx, used, person, name);
		return person;
	});
	// Whoever has a second factor shows it, whatever link they hold.
	return (await hasSecond(door, person)) ? [] : letIn(entrance, person, headers);
}

async function takeIn(door: Door, { houseId, role }: Link, person: string, name: string): Promise<void> {
	await join(door, houseId!, person, role!);
	await note(door, houseId!, person, 'people', `${name} came in as ${role}`);
	await door.updateTable('sessions').set({ houseId }).where('userId', '=', person).execute();
}

/**
 * Somebody signs in by another name or password from now on. Who has a password already shows it first. They stay signed in
 * here, and nowhere else. Throws InputError.
 */
export async function changePassword(
	entrance: Entrance,
	{ person }: Who,
	wanted: { readonly username: string; readonly password: string; readonly old?: string },
	from: { readonly address: string; readonly headers: Headers }
): Promise<Cookies> {
	const context = await entrance.auth.$context;
	const accounts = await context.internalAdapter.findAccounts(person);
	const hash = accounts.find(({ providerId }) => providerId === 'credential')?.password;
	if (hash)
		await attempt(entrance.door, person, from.address, async () => {
			if (!(await context.password.verify({ hash, password: wanted.old ?? '' })))
				throw new InputError('password', 'The password as it was is another.', '/old');
		});
	await setPassword(entrance, person, wanted.username, wanted.password);
	return letIn(entrance, person, from.headers);
}

/**
 * Invites somebody into a house. Nobody comes in without signing in from now on, so whoever did until now is signed in by
 * the answer.
 */
export async function invite(
	entrance: Entrance,
	{ house, person, session }: Who,
	{ name, role }: { readonly name?: string; readonly role: Role },
	headers: Headers
): Promise<{ token: string; cookies: Cookies }> {
	const { door } = entrance;
	const token = await makeLink(door, {
		kind: 'invitation',
		house,
		role,
		madeBy: person,
		...(name?.trim() && { name: name.trim() })
	});
	await note(door, house, person, 'people', `${name?.trim() || 'somebody'} was invited as ${role}`);
	const cookies = session === undefined ? await letIn(entrance, person, headers) : [];
	await closeInstallation(door);
	return { token, cookies };
}

/** A link by which a member of the house sets a new password; the one before leads nowhere. Throws NotFoundError. */
export async function passwordLink({ door }: Entrance, { house, person }: Who, of: string): Promise<string> {
	const member = await memberInCare(door, house, of, person);
	await endLinks(door, 'password', { person: of });
	await note(door, house, person, 'people', `${member.name} was given a link for a new password`);
	return makeLink(door, { kind: 'password', person: of, house, madeBy: person });
}

/**
 * Where somebody signs in at the provider, and with which cookies they come back; or, where they are signed in here, says that
 * they are that person of the provider. Throws InputError where there is no provider, or it does not answer.
 */
export async function towardsProvider(
	{ auth }: Entrance,
	to: string,
	headers: Headers,
	isOwn: boolean
): Promise<{ url: string; cookies: Cookies }> {
	const body = {
		provider: PROVIDER,
		callbackURL: to,
		errorCallbackURL: isOwn ? '/me?refused' : '/sign-in?refused',
		disableRedirect: true
	};
	try {
		const { response, headers: set } = isOwn
			? await auth.api.linkSocialAccount({ body, headers, returnHeaders: true })
			: await auth.api.signInSocial({ body, headers, returnHeaders: true });
		return { url: response.url!, cookies: set.getSetCookie() };
	} catch (error) {
		if (error instanceof APIError)
			throw new InputError('provider', 'The provider does not answer, or none is set. Sign in by name and password.');
		throw error;
	}
}
