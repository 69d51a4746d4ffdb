import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { propose } from '$lib/server/styles/proposals.ts';
import type { RequestHandler } from './$types.js';

/** Proposes the draft as the next edition, for somebody else to publish. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/styles/*/proposals'>>(async () => {
		const { version, note } = await readRequest(request, 'publish');
		return { id: await propose(db(), readId(params.id, 'style'), version, note) };
	}, 201);
