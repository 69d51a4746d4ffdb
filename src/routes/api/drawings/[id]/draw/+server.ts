import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { drawTables } from '$lib/server/drawings/drawings.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import type { RequestHandler } from './$types.js';

/** Draws tables as they would stand on the sheet; nothing is stored. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/drawings/*/draw'>>(async () => {
		const { tables } = await readRequest(request, 'drawTables');
		return drawTables(db(), readId(params.id, 'drawing'), tables);
	});
