import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { answerProposal } from '$lib/server/styles/proposals.ts';
import type { RequestHandler } from './$types.js';

/** Publishes what is proposed, sends it back, or takes it back. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer<Gives<'PUT /api/styles/*/proposals/*'>>(async () => {
		const { answer: said, note } = await readRequest(request, 'answerProposal');
		return answerProposal(db(), readId(params.id, 'style'), readId(params.proposal, 'proposal'), said, note);
	});
