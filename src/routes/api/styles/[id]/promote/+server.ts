import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readId, readRequest } from '$lib/server/http/requests.ts';
import { promote } from '$lib/server/styles/editions.ts';
import type { RequestHandler } from './$types.js';

/** Makes what touches said a setting of a part, or a cell rule, of the style's draft. */
export const POST: RequestHandler = ({ params, request }) =>
	answer<Gives<'POST /api/styles/*/promote'>>(
		async () => promote(db(), readId(params.id, 'style'), await readRequest(request, 'promote')),
		201
	);
