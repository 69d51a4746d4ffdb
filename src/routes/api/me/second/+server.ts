import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { known, withCookies } from '$lib/server/http/signed.ts';
import { attempt } from '$lib/server/people/attempts.ts';
import { beginSecond, confirmSecond, endSecond } from '$lib/server/people/second-factor.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Begins a second factor; it does not hold before a code of it was said. */
export const POST: RequestHandler = ({ request, locals, getClientAddress }) =>
	answer(async () => {
		const { password } = await readRequest(request, 'showPassword');
		const [open, who] = [await entrance(), known(locals)];
		return attempt(open.door, who.person, getClientAddress(), () => beginSecond(open, who, password, request.headers));
	});

/** The second factor holds from now on. */
export const PUT: RequestHandler = ({ request, locals, getClientAddress }) =>
	answer(async () => {
		const { code } = await readRequest(request, 'sayCode');
		const [open, who] = [await entrance(), known(locals)];
		const cookies = await attempt(open.door, who.person, getClientAddress(), () =>
			confirmSecond(open, code, request.headers)
		);
		return withCookies(null, cookies);
	});

/** There is none any more. */
export const DELETE: RequestHandler = ({ request, locals, getClientAddress }) =>
	answer(async () => {
		const { password } = await readRequest(request, 'showPassword');
		const [open, who] = [await entrance(), known(locals)];
		await attempt(open.door, who.person, getClientAddress(), () => endSecond(open, password, request.headers));
	});
