import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { known, withCookies } from '$lib/server/http/signed.ts';
import { invite } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Invites somebody: a link that leads into the house once, told now and never again. */
export const POST: RequestHandler = ({ request, locals, url }) =>
	answer(async () => {
		const wanted = await readRequest(request, 'invite');
		const { token, cookies } = await invite(await entrance(), known(locals), wanted, request.headers);
		return withCookies({ link: `${url.origin}/enter/${token}` }, cookies);
	});
