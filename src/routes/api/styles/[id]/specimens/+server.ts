import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { chooseSpecimens } from '$lib/server/styles/styles.ts';
import type { RequestHandler } from './$types.js';

/** Chooses the tables on the style's specimen sheet. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/styles/*/specimens'>>(async () => {
		const { keys } = await readRequest(request, 'chooseSpecimens');
		await chooseSpecimens(db(), readId(params.id, 'style'), keys);
	});
