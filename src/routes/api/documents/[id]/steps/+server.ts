import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { addStep } from '$lib/server/documents.ts';
import { readId, readRequest } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** Adds a step: what some tables wear and how they were corrected from now on. */
export const POST: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const { after, label, tables, drawing } = await readRequest(request, 'newStep');
		return addStep(db(), readId(params.id, 'document'), after, label, tables, drawing);
	}, 201);
