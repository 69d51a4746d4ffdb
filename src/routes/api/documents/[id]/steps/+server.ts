import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { addStep } from '$lib/server/documents/steps.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Adds a step: what some tables wear and how they were corrected from now on. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/documents/*/steps'>>(async () => {
		const { version, label, tables, drawing } = await readRequest(request, 'newStep');
		return addStep(db(), readId(params.id, 'document'), version, label, tables, drawing);
	}, 201);
