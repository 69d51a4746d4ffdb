import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { listEditions, publishEdition } from '$lib/server/styles/editions.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = ({ params }) =>
	answer<Gives<'GET /api/styles/*/editions'>>(() => listEditions(db(), readId(params.id, 'style')));

/** Publishes the draft as the next edition. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/styles/*/editions'>>(async () => {
		const { version, note } = await readRequest(request, 'publish');
		return { number: await publishEdition(db(), readId(params.id, 'style'), version, note) };
	}, 201);
