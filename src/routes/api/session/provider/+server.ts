import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { withCookies } from '$lib/server/http/signed.ts';
import { towardsProvider } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Where to sign in at the provider. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const { to } = await readRequest(request, 'goTo');
		const { url, cookies } = await towardsProvider(await entrance(), to, request.headers, false);
		return withCookies({ url }, cookies);
	});
