import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/requests.ts';
import { rollOut } from '$lib/server/rollouts.ts';
import type { RequestHandler } from './$types.js';

/** Gives an edition to the tables of some documents that follow the style. */
export const POST: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const { edition, documents } = await readRequest(request, 'rollOut');
		return rollOut(db(), readId(params.id, 'style'), edition, documents);
	}, 201);
