import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { withCookies } from '$lib/server/http/signed.ts';
import { enterBy } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Comes in by a one-time link. */
export const POST: RequestHandler = ({ request, params, locals }) =>
	answer(async () => {
		const said = await readRequest(request, 'enter');
		return withCookies(null, await enterBy(await entrance(), params.token, said, locals.who, request.headers));
	});
