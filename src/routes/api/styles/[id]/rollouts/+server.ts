import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { rollOut } from '$lib/server/runs/rollouts.ts';
import type { RequestHandler } from './$types.js';

/** Gives an edition to the tables of some documents that follow the style. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/styles/*/rollouts'>>(async () => {
		const { edition, documents } = await readRequest(request, 'rollOut');
		return rollOut(db(), readId(params.id, 'style'), edition, documents);
	}, 201);
