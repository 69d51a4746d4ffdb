import { answer } from '$lib/server/answers.ts';
import { db } from '$lib/server/database.ts';
import { moveToStep } from '$lib/server/documents.ts';
import { readId, readRequest } from '$lib/server/requests.ts';
import type { RequestHandler } from './$types.js';

/** Undo and redo. */
export const PUT: RequestHandler = ({ params, request }) =>
	answer(async () => {
		const { from, to } = await readRequest(request, 'moveStep');
		return moveToStep(db(), readId(params.id, 'document'), from, to);
	});
