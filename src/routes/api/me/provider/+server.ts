import { answer } from '$lib/server/http/answers.ts';
import { withCookies } from '$lib/server/http/signed.ts';
import { towardsProvider } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Where to say which person of the provider one is. */
export const POST: RequestHandler = ({ request }) =>
	answer(async () => {
		const { url, cookies } = await towardsProvider(await entrance(), '/me', request.headers, true);
		return withCookies({ url }, cookies);
	});
