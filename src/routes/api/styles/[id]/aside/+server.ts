import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { putStyleAside } from '$lib/server/styles/styles.ts';
import type { RequestHandler } from './$types.js';

/** Puts a style aside, or brings it back as it was. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/styles/*/aside'>>(async () => {
		const { aside } = await readRequest(request, 'keepStyle');
		await putStyleAside(db(), readId(params.id, 'style'), aside);
	});
