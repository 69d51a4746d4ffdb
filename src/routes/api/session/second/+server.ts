import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { withCookies } from '$lib/server/http/signed.ts';
import { attempt } from '$lib/server/people/attempts.ts';
import { saySecond } from '$lib/server/people/second-factor.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Says the code that signing in still asks for. */
export const POST: RequestHandler = ({ request, getClientAddress }) =>
	answer(async () => {
		const { code } = await readRequest(request, 'sayCode');
		const [open, address] = [await entrance(), getClientAddress()];
		const work = () => saySecond(open, code, request.headers);
		return withCookies(null, await attempt(open.door, `code ${address}`, address, work));
	});
