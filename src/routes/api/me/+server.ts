import { answer } from '$lib/server/http/answers.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { known } from '$lib/server/http/signed.ts';
import { rename } from '$lib/server/people/sessions.ts';
import { entrance } from '$lib/server/people/shared.ts';
import type { RequestHandler } from './$types.js';

/** Is called otherwise from now on. */
export const PUT: RequestHandler = ({ request, locals }) =>
	answer(async () => {
		const { name } = await readRequest(request, 'renameMe');
		await rename((await entrance()).door, known(locals).person, name);
	});
