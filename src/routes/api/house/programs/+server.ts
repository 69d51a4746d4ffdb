import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { makeToken } from '$lib/server/programs/tokens.ts';
import type { RequestHandler } from './$types.js';

/** A token for a program; what it says is told now alone. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/house/programs'>>(async () => makeToken(db(), await readRequest(request, 'newToken')), 201);
