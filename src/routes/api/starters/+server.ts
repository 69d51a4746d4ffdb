import type { Gives } from '$lib/server/http/contract.ts';
import { answer } from '$lib/server/http/answers.ts';
import { db } from '$lib/server/database.ts';
import { readRequest } from '$lib/server/http/requests.ts';
import { keepStarter, listStarters } from '$lib/server/tables/tables.ts';
import type { RequestHandler } from './$types.js';

export const GET: RequestHandler = () => answer<Gives<'GET /api/starters'>>(() => listStarters(db()));

/** Keeps a table as a starter; one of the same name is replaced. */
export const POST: RequestHandler = ({ request }) =>
	answer<Gives<'POST /api/starters'>>(async () => keepStarter(db(), await readRequest(request, 'newStarter')), 201);
