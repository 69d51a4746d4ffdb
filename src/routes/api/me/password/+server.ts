import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { known, withCookies } from '$lib/server/http/signed.ts';
import { changePassword } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Signs in by another name or password from now on; signed out everywhere else. */
export const PUT: RequestHandler = ({ request, locals, getClientAddress }) =>
	answer(async () => {
		const wanted = await readRequest(request, 'setPassword');
		const from = { address: getClientAddress(), headers: request.headers };
		return withCookies(null, await changePassword(await entrance(), known(locals), wanted, from));
	});
