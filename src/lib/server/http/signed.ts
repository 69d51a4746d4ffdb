import { error, json, type Cookies as Jar } from '@sveltejs/kit';
import type { Cookies } from '../people/entrance.ts';
import { workIn } from '../people/sessions.ts';
import { entrance } from '../people/shared.ts';
import { HOUSE, type Who } from '../people/who.ts';

/** Who asks, at a route that nobody comes to without being known. */
export function known(locals: App.Locals): Who {
	if (!locals.who) error(401, { message: 'Sign in first; nothing was changed.', code: 'sign-in' });
	return locals.who;
}

/** An answer that signs somebody in or out. */
export function withCookies(body: unknown, cookies: Cookies): Response {
	const response = json(body);
	for (const cookie of cookies) response.headers.append('Set-Cookie', cookie);
	return response;
}

/** Whoever asks works in another house from now on: by their session, or as long as nobody has to sign in, by a cookie. */
export async function workInAs(
	{ cookies, session }: { readonly cookies: Jar; readonly session: string | undefined },
	house: string
): Promise<void> {
	if (session) await workIn((await entrance()).door, session, house);
	else cookies.set(HOUSE, house, { path: '/', httpOnly: true, sameSite: 'lax', secure: false, maxAge: 31_536_000 });
}
