import { error, json } from '@sveltejs/kit';
import type { Cookies } from '../people/entrance.ts';
import type { Who } from '../people/who.ts';

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
