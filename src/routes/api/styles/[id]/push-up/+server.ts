import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { pushUpLeaf } from '$lib/server/styles/steps.ts';
import type { RequestHandler } from './$types.js';

/** Moves one setting to the base that the style builds on. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/styles/*/push-up'>>(async () => {
		const { version, place, path } = await readRequest(request, 'pushUp');
		return pushUpLeaf(db(), readId(params.id, 'style'), version, place, path);
	});
