import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { known, withCookies, workInAs } from '$lib/server/http/signed.ts';
import { NotFoundError } from '$lib/server/http/answers.ts';
import { signIn } from '$lib/server/people/entrance.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Signs in by name and password. */
export const POST: RequestHandler = ({ request, getClientAddress }) =>
	answer(async () => {
		const { username, password } = await readRequest(request, 'signIn');
		const from = { address: getClientAddress(), headers: request.headers };
		const { cookies, needsCode } = await signIn(await entrance(), username, password, from);
		return withCookies({ needsCode }, cookies);
	});

/** Works in another of one's houses. */
export const PUT: RequestHandler = ({ request, locals, cookies }) =>
	answer(async () => {
		const { house } = await readRequest(request, 'workIn');
		const { session, houses } = known(locals);
		if (!houses.some(({ id }) => id === house)) throw new NotFoundError('You belong to no such house.');
		await workInAs({ cookies, session }, house);
	});

/** Signs out. */
export const DELETE: RequestHandler = ({ request }) =>
	answer(async () => {
		const { auth } = await entrance();
		const { headers } = await auth.api.signOut({ headers: request.headers, returnHeaders: true });
		return withCookies(null, headers.getSetCookie());
	});
